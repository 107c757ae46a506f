import type { Tideline } from '../../../contract/index.ts';
import { type CivilDay, sayDuration } from '../../../core/index.ts';
import { sayDay } from '../../kit/ways.ts';

/** A day or a span of days, both ends included. */
export interface DaySpan {
  readonly from: CivilDay;
  readonly to: CivilDay;
}

export function dayWords({ done, open, projected, tasks, holiday }: Tideline['days'][number]): string {
  const parts = [
    holiday,
    done > 0 && `${sayDuration(done)} done`,
    open > 0 && `${sayDuration(open)} to do`,
    projected > 0 && `${sayDuration(projected)} not made yet`,
    tasks > 0 && `${tasks} ${tasks === 1 ? 'task' : 'tasks'}`,
  ].filter(Boolean);
  return parts.length > 0 ? parts.join(', ') : 'nothing due';
}

/** Several days as one: their work added up. */
export function together(days: readonly Tideline['days'][number][]): Tideline['days'][number] {
  const [first, ...others] = days;
  if (!first) throw new Error('A span holds at least one day.');
  const sum = { ...first };
  for (const day of others) {
    sum.done += day.done;
    sum.open += day.open;
    sum.projected += day.projected;
    sum.tasks += day.tasks;
    sum.holiday ??= day.holiday;
  }
  return sum;
}

export function spanWords({ from, to }: DaySpan, today: CivilDay): string {
  return from === to ? sayDay(from, today) : `${sayDay(from, today)} to ${sayDay(to, today)}`;
}
