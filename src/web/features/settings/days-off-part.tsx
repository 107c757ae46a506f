import { X } from 'lucide-react';
import { useState } from 'react';
import type { HolidaySetting, Settings } from '../../../contract/index.ts';
import {
  type CivilDay,
  civilDay,
  dayOfIso,
  isoOfDay,
  joinAnd,
  plural,
  readDaysOff,
  weekdayOf,
  weekdayShort,
  yearMonthDay,
} from '../../../core/index.ts';
import { useToday } from '../../app/shell/workspace.tsx';
import { ProblemError } from '../../kit/api.ts';
import { DateBlank, Part, WordsBlank } from '../../kit/blanks.tsx';
import { FieldError } from '../../kit/field-error.tsx';
import { Picker } from '../../kit/picker.tsx';
import { sayDate } from '../../kit/ways.ts';
import { publicHolidaysOf, useCountries } from './api.ts';

interface DaysOffPartProps {
  readonly holidays: Settings['holidays'];
  readonly wrong: string | undefined;
  readonly onChange: (holidays: Settings['holidays']) => void;
}

/** Days off shown before the rest are asked for. */
const SHOWN = 6;

/** The days off to come, each with its name; more by hand, or those of a country. */
export function DaysOffPart({ holidays, wrong, onChange }: DaysOffPartProps) {
  const today = useToday();
  const [showsAll, setShowsAll] = useState(false);
  const coming = holidays.filter(({ date }) => dayOfIso(date) >= today);
  const past = holidays.length - coming.length;
  const shown = showsAll ? coming : coming.slice(0, SHOWN);
  const put = (days: readonly HolidaySetting[]) => {
    const there = new Set(holidays.map(({ date }) => date));
    onChange(sorted([...holidays, ...days.filter(({ date }) => !there.has(date))]));
  };
  return (
    <Part name="Days off" aside={`${coming.length} to come`}>
      {coming.length === 0 && <p className="text-ink-2">No day off is known yet: bring some in, or add your own.</p>}
      <ul className="leading-6.5">
        {shown.map((day) => (
          <li key={day.date} className="grid grid-cols-[140px_minmax(0,1fr)_28px] items-baseline">
            <span>
              <span className="inline-block w-9 text-ink-2">{weekdayShort(weekdayOf(dayOfIso(day.date)))}</span>
              {sayDate(dayOfIso(day.date))}
            </span>
            <WordsBlank
              label={`Name of the day off on ${sayDate(dayOfIso(day.date))}`}
              shown={day.name}
              wrong="give it a name of 80 characters at most"
              read={nameOf}
              onChange={(name) =>
                onChange(holidays.map((other) => (other.date === day.date ? { ...day, name } : other)))
              }
            />
            <button
              type="button"
              className="cursor-pointer justify-self-end px-1 text-ink-2 hover:text-ink"
              aria-label={`Take out ${day.name}, ${sayDate(dayOfIso(day.date))}`}
              onClick={() => onChange(holidays.filter(({ date }) => date !== day.date))}
            >
              <X size={13} aria-hidden />
            </button>
          </li>
        ))}
      </ul>
      {coming.length > SHOWN && (
        <button type="button" className="link-line leading-5" onClick={() => setShowsAll(!showsAll)}>
          {showsAll
            ? `Only the next ${SHOWN}`
            : `${plural(coming.length - SHOWN, 'more day')}, to ${sayDate(dayOfIso(coming.at(-1)?.date ?? ''))}`}
        </button>
      )}
      {past > 0 && (
        <span className="block text-note leading-5 text-ink-2">
          {plural(past, 'day')} of the past {past === 1 ? 'stays as it was' : 'stay as they were'}.
        </span>
      )}
      <OwnDays today={today} holidays={holidays} onAdd={put} />
      <PublicHolidays onAdd={put} holidays={holidays} />
      <FromFile today={today} holidays={holidays} onAdd={put} />
      {wrong && <FieldError message={wrong} />}
    </Part>
  );
}

function nameOf(text: string): string | undefined {
  const name = text.trim();
  return name === '' || name.length > 80 ? undefined : name;
}

/** "6 days added; 2 were there already" */
const sayAdded = (added: number, found: number): string =>
  [
    `${plural(added, 'day')} added`,
    ...(found > added ? [plural(found - added, 'was there already', 'were there already')] : []),
  ].join('; ');

function sorted(holidays: readonly HolidaySetting[]): HolidaySetting[] {
  return [...holidays].sort((a, b) => (a.date < b.date ? -1 : 1));
}

/** The longest span that is closed in one go. */
const LONGEST_SPAN = 92;

interface OwnDaysProps {
  readonly today: CivilDay;
  readonly holidays: Settings['holidays'];
  readonly onAdd: (days: readonly HolidaySetting[]) => void;
}

/** A day of our own, or a span of them. */
function OwnDays({ today, holidays, onAdd }: OwnDaysProps) {
  const [from, setFrom] = useState(today + 1);
  const [to, setTo] = useState(today + 1);
  const [name, setName] = useState('');
  const there = holidays.find(({ date }) => date === isoOfDay(from));
  const wrong =
    to < from
      ? 'It ends before it begins: choose a later last day.'
      : to - from >= LONGEST_SPAN
        ? `${LONGEST_SPAN} days in one go at most: add the rest after them.`
        : from === to && there
          ? `${sayDate(from)} is a day off already: ${there.name}.`
          : null;
  const isReady = name.trim() !== '' && wrong === null;
  const add = () => {
    if (!isReady) return;
    onAdd(Array.from({ length: to - from + 1 }, (_, i) => ({ date: isoOfDay(from + i), name: name.trim() })));
    setName('');
    // The day after it, which is none yet.
    setFrom(to + 1);
    setTo(to + 1);
  };
  return (
    <div className="mt-1 border-t border-line pt-1">
      closed from{' '}
      <DateBlank
        label="First day off"
        value={from}
        onChange={(day) => {
          setFrom(day);
          // A single day stays one.
          if (to === from || to < day) setTo(day);
        }}
      />{' '}
      to <DateBlank label="Last day off" value={to} onChange={setTo} />, called{' '}
      <input
        className="blank w-[150px]"
        aria-label="What the day off is called"
        maxLength={80}
        placeholder="Regatta"
        value={name}
        onChange={({ target }) => setName(target.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter') return;
          event.preventDefault();
          add();
        }}
      />{' '}
      <button type="button" className="btn btn-sm" aria-disabled={!isReady} onClick={add}>
        {to > from ? `Add ${to - from + 1} days` : 'Add the day'}
      </button>
      {wrong && <p className="field-error">{wrong}</p>}
    </div>
  );
}

interface PublicHolidaysProps {
  readonly holidays: Settings['holidays'];
  readonly onAdd: (days: readonly HolidaySetting[]) => void;
}

/** The public holidays of a country or of a region of it, for this year and the five after it. */
function PublicHolidays({ holidays, onAdd }: PublicHolidaysProps) {
  const countries = useCountries() ?? [];
  const [country, setCountry] = useState('');
  const [region, setRegion] = useState('');
  const [said, setSaid] = useState<string | null>(null);
  const chosen = countries.find(({ code }) => code === country);
  const bringIn = async () => {
    try {
      const found = await publicHolidaysOf(country, region);
      const there = new Set(holidays.map(({ date }) => date));
      const fresh = found.filter(({ date }) => !there.has(date));
      onAdd(fresh);
      setSaid(`${sayAdded(fresh.length, found.length)}.`);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setSaid(error.message);
    }
  };
  return (
    <div>
      public holidays of{' '}
      <Picker
        label="Country"
        chosen={country}
        placeholder="a country"
        options={countries.map(({ code, name }) => ({ key: code, name }))}
        onChoose={(code) => {
          setCountry(code);
          setRegion('');
          setSaid(null);
        }}
      />
      {chosen && chosen.regions.length > 0 && (
        <>
          ,{' '}
          <Picker
            label="Region"
            chosen={region}
            placeholder="all of it"
            options={[{ key: '', name: 'all of it' }, ...chosen.regions.map(({ code, name }) => ({ key: code, name }))]}
            onChoose={(code) => {
              setRegion(code);
              setSaid(null);
            }}
          />
        </>
      )}{' '}
      <button
        type="button"
        className="btn btn-sm"
        aria-disabled={country === ''}
        onClick={() => country !== '' && void bringIn()}
      >
        Bring them in
      </button>
      {said && (
        <span className="ml-2 text-note text-ink-2" role="status">
          {said}
        </span>
      )}
    </div>
  );
}

/** Years after this one whose days off are taken from a file. */
const YEARS_AHEAD = 5;
const MOST_FILE_BYTES = 5 * 1024 * 1024;
/** Events that are named of those that are left. */
const LEFT_TOLD = 3;

/** Whole-day events of a calendar file, for this year and the five after it. */
function FromFile({ today, holidays, onAdd }: OwnDaysProps) {
  const [said, setSaid] = useState<readonly string[]>([]);
  const take = async (file: File | undefined) => {
    if (!file) return;
    if (file.size > MOST_FILE_BYTES)
      return setSaid([
        `${file.name} is larger than ${MOST_FILE_BYTES / 1024 / 1024} MB: choose the calendar of the days off alone.`,
      ]);
    const { year } = yearMonthDay(today);
    try {
      const { days, left, outside } = readDaysOff(
        await file.text(),
        civilDay(year, 1, 1),
        civilDay(year + YEARS_AHEAD, 12, 31),
      );
      const there = new Set(holidays.map(({ date }) => date));
      const fresh = days.filter(({ date }) => !there.has(date));
      onAdd(fresh);
      const told = left.slice(0, LEFT_TOLD).map(({ name, why }) => `“${name}”, since ${why}`);
      if (left.length > LEFT_TOLD) told.push(`${left.length - LEFT_TOLD} more`);
      setSaid([
        `${sayAdded(fresh.length, days.length)}.`,
        ...(outside > 0 ? [`${plural(outside, 'day')} of other years left.`] : []),
        ...(told.length > 0 ? [`Left: ${joinAnd(told)}.`] : []),
      ]);
    } catch (error) {
      setSaid([error instanceof Error ? error.message : String(error)]);
    }
  };
  return (
    <div>
      <label className="cursor-pointer">
        or the whole days of <span className="link-line focus-within:shadow-focus">a calendar file (.ics)</span>
        <input
          type="file"
          className="sr-only"
          aria-label="A calendar file"
          accept=".ics,text/calendar"
          onChange={({ target }) => {
            void take(target.files?.[0]);
            target.value = '';
          }}
        />
      </label>
      {said.length > 0 && (
        <ul className="text-note leading-4.5 text-ink-2" role="status">
          {said.map((one) => (
            <li key={one}>{one}</li>
          ))}
        </ul>
      )}
    </div>
  );
}
