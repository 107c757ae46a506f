import type { CivilDay } from '../civil-date/civil-day.ts';
import { type DatesBetween, isSameTurn, type Turns, turnOn } from './roster.ts';

/** One turn as the dates in it tell it: whose it is, its first and last date, and how many there are. */
export interface TurnSpan {
  readonly personId: string;
  readonly first: CivilDay;
  readonly last: CivilDay;
  readonly dates: number;
}

/**
 * The turns that some dates of a rule lie in, one after the other; turns without a date are none of them.
 * @param nominals in their order
 * @throws RangeError for a roster without people, or none at all
 */
export function turnsOf(turns: Turns, nominals: readonly CivilDay[], datesBetween: DatesBetween): TurnSpan[] {
  const found: TurnSpan[] = [];
  for (const day of nominals) {
    const before = found.at(-1);
    if (before && isSameTurn(turns, before.first, day, datesBetween))
      found[found.length - 1] = { ...before, last: day, dates: before.dates + 1 };
    else found.push({ personId: turnOn(turns, day, datesBetween).personId, first: day, last: day, dates: 1 });
  }
  return found;
}
