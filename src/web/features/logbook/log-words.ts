import type { LogEntry, LogFigures, LogReading } from '../../../contract/index.ts';
import { type CivilDay, dayOfIso, type OnTime, plural, sayLate, sayNumber } from '../../../core/index.ts';
import { sayDayOfMonth, sayShortDay, sayTime, timeOf } from '../../kit/ways.ts';

/** Of the figures, what was due and how much of that was on time: what was skipped with a reason is none of it. */
export const onTimeOf = ({ onTime, late, lapsed, open }: Omit<LogFigures, 'skipped'>): OnTime => ({
  due: onTime + late + lapsed + open,
  onTime,
});

/** What did not go as it should, by what a bar may stand for. */
export const missedOf = ({ late, lapsed, open }: Pick<LogFigures, 'late' | 'lapsed' | 'open'>): number =>
  late + lapsed + open;

/** "12:58", "Fri 07:20" where that was not the day on which it was due, "skipped", "lapsed" */
export function sayEnd({ state, doneAt, dueOn }: LogEntry): string {
  if (state === 'skipped' || state === 'lapsed') return state;
  if (doneAt === null) return '';
  const day = doneAt.slice(0, 10);
  if (day === dueOn) return timeOf(doneAt);
  return `${sayShortDay(dayOfIso(day))}, ${timeOf(doneAt)}`;
}

/** How late it was; nothing where it was not. */
export const sayHowLate = ({ late, daysLate, state }: LogEntry): string =>
  !late ? '' : daysLate === 0 && state !== 'lapsed' ? 'late by the hour' : sayLate({ daysLate });

export const sayDue = ({ dueTime }: LogEntry): string => (dueTime === null ? '' : sayTime(dueTime));

export const sayReading = ({ value, unit }: LogReading): string => `${sayNumber(value)} ${unit}`.trim();

/** "4 done", "2 of 4 done" */
export const sayDone = ({ count, done }: { readonly count: number; readonly done: number }): string =>
  done === count ? `${count} done` : `${done} of ${count} done`;

/** "1,077 entries" */
export const sayEntries = (count: number): string =>
  count === 1 ? '1 entry' : `${count.toLocaleString('en-GB')} entries`;

/** "week from 16 Nov" */
export const sayWeekFrom = (monday: CivilDay): string => `week from ${sayDayOfMonth(monday)}`;

/** What is not shown of a day. */
export const sayFolded = (count: number): string => `and ${plural(count, 'more entry', 'more entries')}`;
