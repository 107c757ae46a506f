import { type CivilDay, type Weekday, weekdayOf } from '../civil-date/civil-day.ts';
import { dayOfIso, type IsoDate, isoOfDay } from '../civil-date/iso-date.ts';
import { monthIndexOf } from '../civil-date/month.ts';

/** What a turn lasts: one date of the rule, a week that begins on a weekday, or a month. */
export type TurnLength =
  /** A date that is skipped by hand uses its turn up, or it passes it on to the next. */
  | { readonly per: 'occurrence'; readonly skipped?: 'passes on' | undefined }
  | { readonly per: 'week'; readonly on: Weekday }
  | { readonly per: 'month' };

/** People in the order of their turns, from a day on; the first of them has the turn in which that day lies. */
export interface Roster {
  readonly from: IsoDate;
  /** Ids, one at least; somebody may stand in it more than once. */
  readonly people: readonly string[];
}

/** Two turns that change hands, each named by a date in it. */
export interface Swap {
  readonly one: IsoDate;
  readonly other: IsoDate;
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
    const [one, other] = [swap.one, swap.other].map((date) => placeOn(turns, dayOfIso(date), datesBetween));
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

/** Whether two dates lie in one turn, whoever has it. */
export function isSameTurn(turns: Turns, one: CivilDay, other: CivilDay, datesBetween: DatesBetween): boolean {
  return isSame(placeOn(turns, one, datesBetween), placeOn(turns, other, datesBetween));
}

function placeOn(turns: Turns, day: CivilDay, datesBetween: DatesBetween): Place {
  const { from, roster } = rosterOn(startsOf(turns), day);
  const count = roster.people.length;
  if (count === 0)
    throw new RangeError(`The roster from ${roster.from} on has nobody in it: name one person at least.`);
  const number = turnNumber(turns.length, from, day, datesBetween);
  return { roster, number, index: ((number % count) + count) % count };
}

/** The place in the order of whoever has the turn in which a day lies, or the first date from it on, where each date is a turn; swaps aside. */
export function placeFrom(turns: Turns, day: CivilDay, datesBetween: DatesBetween): Pick<Turn, 'order' | 'at'> {
  const { from, roster } = rosterOn(startsOf(turns), day);
  const count = roster.people.length;
  const isEach = turns.length.per === 'occurrence';
  const number = isEach ? datesBetween(from - 1, day - 1) : turnNumber(turns.length, from, day, datesBetween);
  return { order: roster.people, at: ((number % count) + count) % count };
}

/** Turns with another order from a day on: what lies before stays as it was, and orders that were to begin later are given up. */
export function rosterFrom(turns: Turns, from: IsoDate, people: readonly string[]): Turns {
  return { ...turns, rosters: [...turns.rosters.filter((one) => one.from < from), { from, people }] };
}

/**
 * The same with the order going on where it stands: whoever has the turn of that day keeps it; where they are not in the new
 * order, the first of those who came after them has it.
 */
export function goesOnWith(turns: Turns, day: CivilDay, people: readonly string[], datesBetween: DatesBetween): Turns {
  const { order, at } = placeFrom(turns, day, datesBetween);
  const first = [...order.slice(at), ...order.slice(0, at)].find((id) => people.includes(id));
  const start = first === undefined ? 0 : people.indexOf(first);
  return rosterFrom(turns, isoOfDay(day), [...people.slice(start), ...people.slice(0, start)]);
}

/** The roster that holds on a day: the last that began by then, else the first there is. */
export function rosterInForce({ rosters }: Pick<Turns, 'rosters'>, today: CivilDay): Roster {
  const inOrder = [...rosters].sort((a, b) => (a.from < b.from ? -1 : 1));
  const found = inOrder.findLast(({ from }) => dayOfIso(from) <= today) ?? inOrder[0];
  if (!found) throw new RangeError('Turns need a roster: there is none.');
  return found;
}

interface Start {
  readonly from: CivilDay;
  readonly roster: Roster;
}

/** The rosters of turns in the order of their days, told once for each: turns are taken to stay as they are. */
const knownStarts = new WeakMap<Turns['rosters'], readonly Start[]>();

function startsOf({ rosters }: Turns): readonly Start[] {
  const known = knownStarts.get(rosters);
  if (known) return known;
  const starts = rosters.map((roster) => ({ from: dayOfIso(roster.from), roster })).sort((a, b) => a.from - b.from);
  knownStarts.set(rosters, starts);
  return starts;
}

/** The roster that holds on a day: the last that began by then, else the first there is. */
function rosterOn(starts: readonly Start[], day: CivilDay): Start {
  const found = starts.findLast(({ from }) => from <= day) ?? starts[0];
  if (!found) throw new RangeError('Turns need a roster: there is none.');
  return found;
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
