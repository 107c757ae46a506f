import { type CivilDay, type Weekday, weekdayOf } from '../civil-date/civil-day.ts';
import { isoOfDay } from '../civil-date/iso-date.ts';
import { monthIndexOf } from '../civil-date/month.ts';

/** What a turn lasts: one date of the rule, a week that begins on a weekday, or a month. */
export type TurnLength =
  | { readonly per: 'occurrence' }
  | { readonly per: 'week'; readonly on: Weekday }
  | { readonly per: 'month' };

/** People in the order of their turns, from a day on; the first of them has the turn in which that day lies. */
export interface Roster {
  readonly from: CivilDay;
  /** Ids, one at least; somebody may stand in it more than once. */
  readonly people: readonly string[];
}

/** Two turns that change hands, each named by a date in it. */
export interface Swap {
  readonly one: CivilDay;
  readonly other: CivilDay;
}

/** An order of turns that goes on for ever: whose a date is follows from the date alone. */
export interface Turns {
  readonly length: TurnLength;
  /** In any order, one at least; each holds from its day on, the first of them before that too. */
  readonly rosters: readonly Roster[];
  readonly swaps: readonly Swap[];
}

/** How many dates a rule gives after a day, up to and including another; negative when that is earlier. Skips and moves do not count: they use up their turn. */
export type DatesBetween = (after: CivilDay, upTo: CivilDay) => number;

export interface Turn {
  readonly personId: string;
  /** The roster that holds, and the place in it whose turn it is, from 0. */
  readonly order: readonly string[];
  readonly at: number;
  /** Who had it before it was swapped; null where it was not. */
  readonly insteadOf: string | null;
}

/**
 * Whose turn a date is. What was made, skipped or moved so far, and the window that is asked for, make no difference.
 * @param day the nominal date
 * @throws RangeError for a roster without people, or none at all
 */
export function turnOn(turns: Turns, day: CivilDay, datesBetween: DatesBetween): Turn {
  const own = placeOn(turns, day, datesBetween);
  if (turns.swaps.length === 0)
    return {
      personId: own.roster.people[own.index] as string,
      order: own.roster.people,
      at: own.index,
      insteadOf: null,
    };
  // Each swap changes what two turns hold by then: the last one is undone first.
  let at = own;
  for (const swap of turns.swaps.toReversed()) {
    const [one, other] = [swap.one, swap.other].map((date) => placeOn(turns, date, datesBetween));
    if (one && other) at = isSame(at, one) ? other : isSame(at, other) ? one : at;
  }
  const held = at.roster.people[at.index] as string;
  const before = own.roster.people[own.index] as string;
  return {
    personId: held,
    order: at.roster.people,
    at: at.index,
    insteadOf: isSame(at, own) || held === before ? null : before,
  };
}

/** A turn: which one it is since the roster began, and the place in it. */
interface Place {
  readonly roster: Roster;
  readonly number: number;
  readonly index: number;
}

const isSame = (one: Place, other: Place): boolean => one.roster === other.roster && one.number === other.number;

function placeOn({ rosters, length }: Turns, day: CivilDay, datesBetween: DatesBetween): Place {
  const roster = rosterOn(rosters, day);
  const count = roster.people.length;
  if (count === 0)
    throw new RangeError(`The roster from ${isoOfDay(roster.from)} on has nobody in it: name one person at least.`);
  const number = turnNumber(length, roster.from, day, datesBetween);
  return { roster, number, index: ((number % count) + count) % count };
}

/** The roster that holds on a day: the last that began by then, else the first there is. */
function rosterOn(rosters: readonly Roster[], day: CivilDay): Roster {
  let found: Roster | undefined;
  let first: Roster | undefined;
  for (const roster of rosters) {
    if (first === undefined || roster.from < first.from) first = roster;
    if (roster.from <= day && (found === undefined || roster.from >= found.from)) found = roster;
  }
  const roster = found ?? first;
  if (!roster) throw new RangeError('Turns need a roster: there is none.');
  return roster;
}

/** Which turn a day lies in, 0 for that of the roster's first day. */
function turnNumber(length: TurnLength, from: CivilDay, day: CivilDay, datesBetween: DatesBetween): number {
  switch (length.per) {
    case 'week':
      return (startOfWeek(day, length.on) - startOfWeek(from, length.on)) / 7;
    case 'month':
      return monthIndexOf(day) - monthIndexOf(from);
    case 'occurrence':
      // The first date from the roster's first day on is the first turn.
      return datesBetween(from - 1, day) - 1;
  }
}

function startOfWeek(day: CivilDay, on: Weekday): CivilDay {
  return day - ((weekdayOf(day) - on + 7) % 7);
}
