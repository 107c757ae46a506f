import { type CivilDay, weekdayOf } from '../civil-date/civil-day.ts';
import { dayOfIso, type IsoDate, isoOfDay } from '../civil-date/iso-date.ts';
import type { TurnLength, Turns } from './roster.ts';

/** Days on which somebody has it, both included: one line of a list of who is on when. */
export interface Listed {
  readonly from: IsoDate;
  readonly to: IsoDate;
  readonly personId: string;
}

/** The most lines that a list is kept with: four years of days. */
export const MOST_LISTED = 1_500;

/** Where a day stands in a list: the line that holds it, from 0, or why none does. */
export type Place =
  | { readonly kind: 'on it'; readonly at: number }
  /** Before its first day, after its last, or between two lines of it. */
  | { readonly kind: 'before' | 'after' | 'between' };

/**
 * The line of a list that a day lies in.
 * @param list in the order of its days, none of which stands twice; one line at least
 * @throws RangeError for a list without lines
 */
export function placeInList(list: readonly Listed[], day: CivilDay): Place {
  const [first, last] = [list[0], list.at(-1)];
  if (!first || !last) throw new RangeError('A list of who has which days needs one line at least.');
  const date = isoOfDay(day);
  if (date < first.from) return { kind: 'before' };
  if (date > last.to) return { kind: 'after' };
  let [low, high] = [0, list.length - 1];
  // The last line that has begun by then.
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if ((list[middle] as Listed).from <= date) low = middle;
    else high = middle - 1;
  }
  return (list[low] as Listed).to >= date ? { kind: 'on it', at: low } : { kind: 'between' };
}

const orders = new WeakMap<readonly Listed[], readonly string[]>();

/** Those of a list in its order, as whoever covers is looked for in it; told once, as lists are taken to stay as they are. */
export function orderOfList(list: readonly Listed[]): readonly string[] {
  const order = orders.get(list) ?? list.map(({ personId }) => personId);
  orders.set(list, order);
  return order;
}

/** The last day of a list. @throws RangeError for a list without lines */
export function lastListed(list: readonly Listed[]): CivilDay {
  const last = list.at(-1);
  if (!last) throw new RangeError('A list of who has which days needs one line at least.');
  return dayOfIso(last.to);
}

/** Lines in the order of their days, those of one person that follow on each other made one. */
export function inListOrder(list: readonly Listed[]): Listed[] {
  const joined: Listed[] = [];
  for (const line of [...list].sort((a, b) => (a.from < b.from ? -1 : a.from > b.from ? 1 : 0))) {
    const before = joined.at(-1);
    if (before?.personId === line.personId && dayOfIso(before.to) + 1 === dayOfIso(line.from))
      joined[joined.length - 1] = { ...before, to: line.to };
    else joined.push(line);
  }
  return joined;
}

/** The first two lines that have a day in common; null where no day stands twice. @param list in the order of its days */
export function listedTwice(list: readonly Listed[]): readonly [Listed, Listed] | null {
  for (const [i, line] of list.entries()) {
    const next = list[i + 1];
    if (next && next.from <= line.to) return [line, next];
  }
  return null;
}

/** The same list with somebody else, or nobody, in the place of one person from a day on. */
export function listHandedOn(
  list: readonly Listed[],
  from: string,
  to: string | null,
  today: CivilDay,
): readonly Listed[] {
  const date = isoOfDay(today);
  return inListOrder(
    list.flatMap((line) => {
      if (line.personId !== from || line.to < date) return [line];
      const rest = line.from < date ? { ...line, from: date } : line;
      const past = line.from < date ? [{ ...line, to: isoOfDay(today - 1) }] : [];
      return to === null ? past : [...past, { ...rest, personId: to }];
    }),
  );
}

/**
 * Turns that go on after a list, in the order in which its people first stand in it, beginning with whoever comes after the last
 * of them: as long as most of its lines are, so days give a turn to each date, weeks to each week, and months to each month.
 * @throws RangeError for a list without lines
 */
export function goesOnAfter(list: readonly Listed[]): Turns {
  const last = lastListed(list);
  const people = [...new Set(list.map(({ personId }) => personId))];
  const next = people.indexOf(list.at(-1)?.personId ?? '') + 1;
  const lengths = list.map(({ from, to }) => dayOfIso(to) - dayOfIso(from) + 1).sort((a, b) => a - b);
  const usual = lengths[lengths.length >> 1] as number;
  const length: TurnLength =
    usual < 7 ? { per: 'occurrence' } : usual < 28 ? { per: 'week', on: weekdayOf(last + 1) } : { per: 'month' };
  return {
    length,
    rosters: [{ from: isoOfDay(last + 1), people: [...people.slice(next), ...people.slice(0, next)] }],
    swaps: [],
  };
}
