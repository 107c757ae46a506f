import type { CivilDay } from '../civil-date/civil-day.ts';
import { type IsoTime, tryMinutesOfTime } from '../civil-date/iso-date.ts';
import { groupBy } from '../group.ts';
import { type DayWindow, overlaps } from '../people/shifts.ts';

/** Work that somebody has at a time of a day, by the workspace's clock. */
export interface TimedWork {
  readonly personId: string;
  readonly on: CivilDay;
  readonly startTime: IsoTime;
  /** Null where it may go on as long as it takes. */
  readonly dueTime: IsoTime | null;
  /** The estimate, from 1. */
  readonly minutes: number;
  readonly title: string;
}

/** Two pieces of work that one person cannot do at once. */
export interface AtOnce {
  readonly own: TimedWork;
  readonly other: TimedWork;
}

/** When work takes somebody's time, in minutes of its day: from its start, as long as it is estimated; no longer than it is due. */
export function timeTaken({ startTime, dueTime, minutes }: Omit<TimedWork, 'personId' | 'on' | 'title'>): DayWindow {
  const from = tryMinutesOfTime(startTime) ?? 0;
  const due = dueTime === null ? null : tryMinutesOfTime(dueTime);
  return { from, to: Math.max(from, Math.min(from + minutes, due ?? Number.POSITIVE_INFINITY)) };
}

/** Work of some that falls at the same time as other work of whoever has it, by days; of each the first that it meets. */
export function atOnce(own: readonly TimedWork[], others: readonly TimedWork[]): AtOnce[] {
  const keyOf = ({ personId, on }: TimedWork) => `${personId} ${on}`;
  const there = groupBy(others, keyOf);
  return own
    .flatMap((one): AtOnce[] => {
      const taken = timeTaken(one);
      const other = there.get(keyOf(one))?.find((beside) => overlaps(timeTaken(beside), taken));
      return other ? [{ own: one, other }] : [];
    })
    .sort((a, b) => a.own.on - b.own.on);
}
