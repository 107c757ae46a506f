import { readDayHours, sayDayHours, type Weekday, weekdayName } from '../../core/index.ts';
import { WordsBlank } from './blanks.tsx';
import { weekdays as inOrder } from './ways.ts';

interface WeekHoursRowProps {
  readonly weekdays: readonly Weekday[];
  /** Monday first. */
  readonly minutes: readonly number[];
  readonly onChange: (minutes: number[]) => void;
}

/** How long is worked on each of the days that are worked. */
export function WeekHoursRow({ weekdays, minutes, onChange }: WeekHoursRowProps) {
  return (
    <span className="inline-flex flex-wrap gap-x-2 gap-y-0.5 align-middle">
      {inOrder()
        .filter((weekday) => weekdays.includes(weekday))
        .map((weekday) => (
          <span key={weekday} className="inline-flex items-baseline gap-1">
            <span className="text-note text-ink-2" aria-hidden>
              {weekdayName(weekday).slice(0, 2)}
            </span>
            <WordsBlank
              label={`Hours on ${weekdayName(weekday)}s`}
              shown={sayDayHours(minutes[weekday - 1] ?? 0)}
              placeholder="7.5"
              width={3}
              wrong="hours, like 7.5 or 7:30"
              read={(text) => {
                const read = readDayHours(text);
                return read === null || read === 0 ? undefined : read;
              }}
              onChange={(read) => onChange(minutes.map((one, i) => (i === weekday - 1 ? read : one)))}
            />
          </span>
        ))}
    </span>
  );
}
