import type { LogEntry, LogFigures, LogReading } from '../../../contract/index.ts';
import {
  type CivilDay,
  DAYS_A_WEEK,
  dayOfIso,
  type OnTime,
  plural,
  sayDuration,
  sayLate,
  sayNumber,
  tryMinutesOfTime,
  weekdayOf,
  weekdayShort,
} from '../../../core/index.ts';
import { sayDayOfMonth, sayShortDay, sayTime, timeOf } from '../../kit/ways.ts';

/** Of the figures, what was due and how much of that was on time: what was skipped with a reason is none of it. */
export const onTimeOf = ({ onTime, late, lapsed, open }: Omit<LogFigures, 'skipped'>): OnTime => ({
  due: onTime + late + lapsed + open,
  onTime,
});

/** What did not go as it should, by what a bar may stand for. */
export const missedOf = ({ late, lapsed, open }: Pick<LogFigures, 'late' | 'lapsed' | 'open'>): number =>
  late + lapsed + open;

/** "12:58", "Sat 07:20" of another day soon after, "Mon 2 Nov, 07:20" of a later one, "skipped", "lapsed" */
export function sayEnd({ state, doneAt, dueOn }: Pick<LogEntry, 'state' | 'doneAt' | 'dueOn'>): string {
  if (state === 'skipped' || state === 'lapsed') return state;
  if (doneAt === null) return '';
  const day = dayOfIso(doneAt.slice(0, 10));
  const apart = day - dayOfIso(dueOn);
  if (apart === 0) return timeOf(doneAt);
  if (apart > 0 && apart < DAYS_A_WEEK) return `${weekdayShort(weekdayOf(day))} ${timeOf(doneAt)}`;
  return `${sayShortDay(day)}, ${timeOf(doneAt)}`;
}

/** "2 days late", "3 min late" on its day; nothing where it was not. */
export function sayHowLate({
  late,
  daysLate,
  doneAt,
  dueTime,
}: Pick<LogEntry, 'late' | 'daysLate' | 'doneAt' | 'dueTime'>): string {
  if (!late) return '';
  if (daysLate > 0 || doneAt === null || dueTime === null) return sayLate({ daysLate });
  const [done = 0, due = 0] = [doneAt.slice(11, 16), dueTime].map((time) => tryMinutesOfTime(time) ?? 0);
  return `${sayDuration(done - due)} late`;
}

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
