import type { CivilDay } from '../civil-date/civil-day.ts';
import { dayOfIso, type IsoDate, type IsoTime, isoOfDay } from '../civil-date/iso-date.ts';
import { byLot, shuffled } from './lots.ts';
import { type CallStanding, whyNotRung } from './standing.ts';

/** Who stands before whom of those that nobody promised anything. */
export const CALL_ORDERS = ['neverRung', 'rungBefore'] as const;
export type CallOrder = (typeof CALL_ORDERS)[number];

/** Why somebody is picked for a list. */
export type WhyPicked =
  | { readonly kind: 'promised'; readonly on: IsoDate; readonly at: IsoTime | null }
  /** Left over from the list of a day before. */
  | { readonly kind: 'carriedOver'; readonly from: IsoDate }
  | { readonly kind: 'neverRung' }
  /** @param tries how often in a row nobody was reached */
  | { readonly kind: 'triedAgain'; readonly tries: number; readonly lastOn: IsoDate }
  | { readonly kind: 'rungBefore'; readonly lastOn: IsoDate };

/** Why somebody is on a list. */
export type WhyListed =
  | WhyPicked
  /** Somebody put them on it by hand; null where they were never rung. */
  | { readonly kind: 'byHand'; readonly lastOn: IsoDate | null };

/** Somebody who may be rung. */
export interface Candidate {
  readonly contactId: string;
  readonly number: string;
  readonly standing: CallStanding;
  readonly usualPersonId: string | null;
  /** Left over from whose list of which day; null where not. */
  readonly carried: { readonly personId: string; readonly from: IsoDate } | null;
}

export interface ListedCall {
  readonly contactId: string;
  readonly why: WhyListed;
}

export interface PickRules {
  readonly day: CivilDay;
  /** How many each has on that day; whoever is not here is not in it. */
  readonly wants: ReadonlyMap<string, number>;
  /** Days between two calls to one contact, whoever rings, from 1; promised calls aside. */
  readonly gap: number;
  readonly first: CallOrder;
  /** Whether those whom somebody looks after stand on that list where it has room. */
  readonly usualFirst: boolean;
  readonly seed: number;
}

/**
 * The lists of a day: promised calls at their time, then what is left over from a day before, then the pool. Everybody stands
 * on one list at the most, nobody who must not be rung that day on any. The same candidates, in whatever order, and the same
 * seed give the same lists. Promised calls are listed beyond the number too: a promise is kept.
 */
export function pickLists(
  candidates: Iterable<Candidate>,
  rules: PickRules,
): ReadonlyMap<string, readonly ListedCall[]> {
  const { day, wants, gap } = rules;
  const lists = new Map<string, ListedCall[]>([...wants.keys()].sort().map((id) => [id, []]));
  if (lists.size === 0) return lists;
  const room = new Map(wants);
  const seen = new Set<string>();
  const put = (personId: string, contactId: string, why: WhyListed) => {
    lists.get(personId)?.push({ contactId, why });
    room.set(personId, (room.get(personId) ?? 0) - 1);
  };
  for (const { candidate, why } of inOrder(candidates, rules)) {
    const { contactId, number, standing } = candidate;
    if (seen.has(contactId) || whyNotRung(standing, { number, day, gap }) !== null) continue;
    const personId = whoRings(candidate, why, rules, room);
    if (personId === null) continue;
    seen.add(contactId);
    put(personId, contactId, why);
  }
  return lists;
}

/** Whoever of those with room rings: by a promise, by the list it was on, by who looks after them, or else by lot. */
function whoRings(
  { contactId, standing, usualPersonId, carried }: Candidate,
  why: WhyListed,
  { wants, usualFirst, seed }: PickRules,
  room: ReadonlyMap<string, number>,
): string | null {
  const has = (id: string | null | undefined): id is string => typeof id === 'string' && (room.get(id) ?? 0) > 0;
  if (why.kind === 'promised') {
    const by = standing.callBack?.personId;
    if (by !== undefined && wants.has(by)) return by;
    // Whoever promised it is away: somebody else keeps it, with room or without.
    return byLot(contactId, seed, withRoom(room)) ?? byLot(contactId, seed, evenly(wants.keys()));
  }
  if (why.kind === 'carriedOver' && has(carried?.personId)) return carried.personId;
  if (usualFirst && has(usualPersonId)) return usualPersonId;
  return byLot(contactId, seed, withRoom(room));
}

const withRoom = (room: ReadonlyMap<string, number>): [string, number][] => [...room].filter(([, n]) => n > 0);
const evenly = (ids: Iterable<string>): [string, number][] => [...ids].map((id) => [id, 1]);

interface Ranked {
  readonly candidate: Candidate;
  readonly why: WhyPicked;
  readonly rank: number;
  /** Within the rank: the smaller, the sooner. */
  readonly key: number;
  readonly lot: number;
}

/** Those that may be listed in the order in which they are taken. */
function inOrder(candidates: Iterable<Candidate>, rules: PickRules): Ranked[] {
  const ranked = [...candidates].map((candidate): Ranked => {
    const why = whyPicked(candidate, rules.day);
    return { candidate, why, ...placeOf(why, rules.first), lot: shuffled(candidate.contactId, rules.seed) };
  });
  return ranked.sort(
    (a, b) =>
      a.rank - b.rank || a.key - b.key || a.lot - b.lot || (a.candidate.contactId < b.candidate.contactId ? -1 : 1),
  );
}

/** Why somebody comes to a list of a day. */
export function whyPicked({ standing, carried }: Pick<Candidate, 'standing' | 'carried'>, day: CivilDay): WhyPicked {
  const { callBack, againOn, lastRungOn, tries } = standing;
  if (callBack !== null && callBack.on <= day) return { kind: 'promised', on: isoOfDay(callBack.on), at: callBack.at };
  if (carried !== null) return { kind: 'carriedOver', from: carried.from };
  if (lastRungOn === null) return { kind: 'neverRung' };
  return againOn === null
    ? { kind: 'rungBefore', lastOn: isoOfDay(lastRungOn) }
    : { kind: 'triedAgain', tries, lastOn: isoOfDay(lastRungOn) };
}

/** Ranks: promised, carried over, then never rung, to be tried again and rung before, or the last two before the first. */
const RANKS: Readonly<Record<CallOrder, Readonly<Record<WhyPicked['kind'], number>>>> = {
  neverRung: { promised: 0, carriedOver: 1, neverRung: 2, triedAgain: 3, rungBefore: 4 },
  rungBefore: { promised: 0, carriedOver: 1, triedAgain: 2, rungBefore: 3, neverRung: 4 },
};

function placeOf(why: WhyPicked, first: CallOrder): Pick<Ranked, 'rank' | 'key'> {
  const rank = RANKS[first][why.kind];
  switch (why.kind) {
    case 'promised':
      // What was owed before comes first, then by the time of the day; without one at its end.
      return { rank, key: dayOfIso(why.on) * 1441 + (why.at === null ? 1440 : minutesOf(why.at)) };
    case 'carriedOver':
      return { rank, key: dayOfIso(why.from) };
    case 'neverRung':
      return { rank, key: 0 };
    case 'triedAgain':
    case 'rungBefore':
      return { rank, key: dayOfIso(why.lastOn) };
  }
}

const minutesOf = (time: IsoTime): number => Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5));
