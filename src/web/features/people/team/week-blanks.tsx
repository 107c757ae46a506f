import type { PersonInput } from '../../../../contract/index.ts';
import {
  type CivilDay,
  dayOfIso,
  isoOfDay,
  minutesAWeek,
  patternOfWeeks,
  readDayHours,
  sayDayHours,
  type Weekday,
  weekdayName,
  weekdayOf,
  weekInPattern,
} from '../../../../core/index.ts';
import { useToday } from '../../../app/shell/workspace.tsx';
import { WordsBlank } from '../../../kit/blanks.tsx';
import { sayDay } from '../../../kit/ways.ts';
import { ShiftLines, withShifts } from './shift-lines.tsx';

type Hours = Pick<PersonInput, 'weeks' | 'weeksFrom' | 'shifts'>;

interface WeekBlanksProps {
  readonly hours: Hours;
  /** What they are here, of which a shift may be for one. */
  readonly roles: readonly string[];
  readonly onChange: (hours: Partial<Hours>) => void;
}

const mondayOf = (day: CivilDay) => day - (weekdayOf(day) - 1);

/** The hours of each weekday, or when they lie, of one week or of two that take turns. */
export function WeekBlanks({ hours, roles, onChange }: WeekBlanksProps) {
  const today = useToday();
  const { weeks, weeksFrom, shifts } = hours;
  const hasTimes = shifts.length > 0;
  const set = (week: number, day: number, minutes: number) =>
    onChange({
      weeks: weeks.map((one, i) => (i === week ? one.map((was, j) => (j === day ? minutes : was)) : one)),
    });
  const thisWeek = weekInPattern({ weeks, from: weeksFrom }, today);
  return (
    <div>
      {weeks.map((week, i) => (
        <fieldset
          // biome-ignore lint/suspicious/noArrayIndexKey: one of two weeks, which never move
          key={i}
          className={hasTimes ? 'mb-1' : 'mb-1 grid grid-cols-7 gap-1'}
        >
          <legend className="text-note leading-4.5 text-ink-2">
            {weeks.length === 1
              ? hasTimes
                ? 'at work'
                : 'hours each day'
              : `${i === 0 ? 'one week' : 'the other'}${i === thisWeek ? ', as this week' : `, from ${sayDay(mondayOf(today) + 7, today)}`}`}
          </legend>
          {hasTimes && <ShiftLines week={i} hours={hours} roles={roles} onChange={onChange} />}
          {!hasTimes &&
            week.map((minutes, day) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: the days of a week never move
              <span key={day} className="min-w-0 text-center text-note leading-4 text-ink-2">
                <span aria-hidden className="block">
                  {weekdayName((day + 1) as Weekday).slice(0, 2)}
                </span>
                <DayBlank
                  label={`Hours on ${weekdayName((day + 1) as Weekday)}${weeks.length > 1 ? ` of ${i === 0 ? 'one week' : 'the other'}` : ''}`}
                  minutes={minutes}
                  onChange={(next) => set(i, day, next)}
                />
              </span>
            ))}
        </fieldset>
      ))}
      <p className="flex flex-wrap items-baseline gap-x-3 text-row leading-6 text-ink-2">
        <span>
          {sayDayHours(Math.round(minutesAWeek({ weeks }))) || 'no'} hours a week
          {weeks.length > 1 ? ' on average' : ''}
        </span>
        {weeks.length === 1 ? (
          <button
            type="button"
            className="link-line text-note"
            onClick={() =>
              onChange({
                weeks: [...weeks, [...(weeks[0] ?? [])]],
                weeksFrom: isoOfDay(mondayOf(today)),
                shifts: [...shifts, ...shifts.map((shift) => ({ ...shift, week: 1 }))],
              })
            }
          >
            Two weeks that take turns
          </button>
        ) : (
          <>
            <button
              type="button"
              className="link-line text-note"
              onClick={() => onChange({ weeksFrom: isoOfDay(dayOfIso(weeksFrom) + 7) })}
            >
              The other way round
            </button>
            <button type="button" className="link-line text-note" onClick={() => onChange(oneWeek(hours))}>
              One week only
            </button>
          </>
        )}
        <button
          type="button"
          className="link-line text-note"
          onClick={() => onChange(hasTimes ? { shifts: [] } : withShifts(weeks, patternOfWeeks(weeks)))}
        >
          {hasTimes ? 'Hours without times' : 'Say when they lie'}
        </button>
      </p>
    </div>
  );
}

/** The first of two weeks alone; where it has no shift, the hours that it has. */
function oneWeek({ weeks, shifts }: Hours): Partial<Hours> {
  return { weeks: weeks.slice(0, 1), shifts: shifts.filter(({ week }) => week === 0) };
}

function DayBlank({
  label,
  minutes,
  onChange,
}: {
  readonly label: string;
  readonly minutes: number;
  readonly onChange: (minutes: number) => void;
}) {
  return (
    <WordsBlank
      label={label}
      shown={sayDayHours(minutes)}
      placeholder="–"
      wrong="hours, like 7.5 or 7 h 30"
      width={4}
      read={(text) => readDayHours(text) ?? undefined}
      onChange={onChange}
    />
  );
}
