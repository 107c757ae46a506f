import type { PersonInput } from '../../../../contract/index.ts';
import {
  type CivilDay,
  dayOfIso,
  isoOfDay,
  minutesAWeek,
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

interface WeekBlanksProps {
  readonly hours: Pick<PersonInput, 'weeks' | 'weeksFrom'>;
  readonly onChange: (hours: Pick<PersonInput, 'weeks' | 'weeksFrom'>) => void;
}

const mondayOf = (day: CivilDay) => day - (weekdayOf(day) - 1);

/** The hours of each weekday, of one week or of two that take turns. */
export function WeekBlanks({ hours, onChange }: WeekBlanksProps) {
  const today = useToday();
  const { weeks, weeksFrom } = hours;
  const set = (week: number, day: number, minutes: number) =>
    onChange({
      weeksFrom,
      weeks: weeks.map((one, i) => (i === week ? one.map((was, j) => (j === day ? minutes : was)) : one)),
    });
  const thisWeek = weekInPattern({ weeks, from: weeksFrom }, today);
  return (
    <div>
      {weeks.map((week, i) => (
        <fieldset
          // biome-ignore lint/suspicious/noArrayIndexKey: one of two weeks, which never move
          key={i}
          className="mb-1 grid grid-cols-7 gap-1"
        >
          <legend className="text-note leading-4.5 text-ink-2">
            {weeks.length === 1
              ? 'hours each day'
              : `${i === 0 ? 'one week' : 'the other'}${i === thisWeek ? ', as this week' : `, from ${sayDay(mondayOf(today) + 7, today)}`}`}
          </legend>
          {week.map((minutes, day) => (
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
      <p className="text-row leading-6 text-ink-2">
        {sayDayHours(Math.round(minutesAWeek({ weeks }))) || 'no'} hours a week
        {weeks.length > 1 ? ' on average' : ''}
        {weeks.length === 1 ? (
          <button
            type="button"
            className="link-line ml-3 text-note"
            onClick={() => onChange({ weeks: [...weeks, [...(weeks[0] ?? [])]], weeksFrom: isoOfDay(mondayOf(today)) })}
          >
            Two weeks that take turns
          </button>
        ) : (
          <>
            <button
              type="button"
              className="link-line ml-3 text-note"
              onClick={() => onChange({ weeks, weeksFrom: isoOfDay(dayOfIso(weeksFrom) + 7) })}
            >
              The other way round
            </button>
            <button
              type="button"
              className="link-line ml-3 text-note"
              onClick={() => onChange({ weeks: weeks.slice(0, 1), weeksFrom })}
            >
              One week only
            </button>
          </>
        )}
      </p>
    </div>
  );
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
