import type { CivilDay } from '../civil-date/civil-day.ts';
import { type DatesBetween, isSameTurn, type Turns, turnOn } from './roster.ts';

/** One turn as the dates in it tell it: whose it is, its first and last date, and how many there are. */
export interface TurnSpan {
  readonly personId: string;
  readonly first: CivilDay;
  readonly last: CivilDay;
  readonly dates: number;
}

/** A turn with the days on which its dates are worked, in their order. */
export interface WorkedTurn extends TurnSpan {
  readonly days: readonly CivilDay[];
}

/**
 * The same of dates that are worked on days of their own.
 * @param dates in the order of their nominals
 * @throws RangeError for a roster without people, or none at all
 */
export function workedTurnsOf(
  turns: Turns,
  dates: readonly { readonly nominal: CivilDay; readonly on: CivilDay }[],
  datesBetween: DatesBetween,
): WorkedTurn[] {
  const nominals = dates.map(({ nominal }) => nominal);
  let next = 0;
  return turnsOf(turns, nominals, datesBetween).map((turn) => {
    const ofTurn = dates.slice(next, next + turn.dates);
    next += turn.dates;
    return { ...turn, days: ofTurn.map(({ on }) => on).sort((a, b) => a - b) };
  });
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
