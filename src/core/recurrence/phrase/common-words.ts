import type { Weekday } from '../../civil-date/civil-day.ts';
import type { PhraseCursor } from './cursor.ts';

/** "working days", "business day" … */
export function isWorkingDay(c: PhraseCursor): boolean {
  return c.word(
    'working days',
    'working day',
    'workdays',
    'workday',
    'business days',
    'business day',
    'work days',
    'work day',
  );
}

/** "2", "other", "second", or nothing for every single one. */
export function readInterval(c: PhraseCursor): number {
  if (c.word('other', 'alternate')) return 2;
  c.filler('single');
  // "Every first Monday" is a place in the month.
  return c.number() ?? c.try(() => atLeastTwo(c.ordinal()?.n)) ?? 1;
}

function atLeastTwo(n: number | undefined): number | null {
  return n !== undefined && n >= 2 ? n : null;
}

export const MONDAY_TO_FRIDAY: readonly Weekday[] = [1, 2, 3, 4, 5];
export const WEEKEND: readonly Weekday[] = [6, 7];

/** What stands after a count. */
export const TIMES = ['times', 'time', 'occurrences', 'occurrence', 'x'] as const;
