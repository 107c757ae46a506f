import type { CivilDay } from '../civil-date/civil-day.ts';
import { dayOfIso, type IsoDate, type IsoTime } from '../civil-date/iso-date.ts';
import type { Pause } from '../planning/schedule-plan.ts';
import type { CallOrder } from './picking.ts';
import type { Pool } from './pool.ts';
import type { QuotaAmount } from './spread.ts';

/** Who rings: some people, or everybody who has a role. */
export type QuotaGroup =
  | { readonly of: 'people'; readonly ids: readonly string[] }
  | { readonly of: 'role'; readonly role: string };

/** What a quota says from a day on. */
export interface QuotaTerms {
  readonly amount: QuotaAmount;
  readonly group: QuotaGroup;
  readonly pool: Pool;
  readonly first: CallOrder;
  readonly usualFirst: boolean;
  /** Days between two calls to one contact, whoever rings, from 1. */
  readonly gap: number;
  /** Working days for which a call that was not made is carried over, 0 to 10. */
  readonly carryDays: number;
  /** From when on the day the lists are there, and whether a mail tells of them. */
  readonly readyAt: IsoTime;
  readonly mails: boolean;
  /** Minutes of a call. */
  readonly minutesEach: number;
  /** What is asked in a call, a line each. */
  readonly asks: readonly string[];
}

export interface Quota {
  readonly startsOn: IsoDate;
  /** The last day; null where it goes on. */
  readonly endsOn: IsoDate | null;
  readonly pauses: readonly Pause[];
  /** What it says from which day on, the oldest first. */
  readonly terms: readonly { readonly from: IsoDate; readonly says: QuotaTerms }[];
}

/** What a quota says on a day; null before it starts, after its end and while it is paused. */
export function termsOn({ startsOn, endsOn, pauses, terms }: Quota, day: CivilDay): QuotaTerms | null {
  if (day < dayOfIso(startsOn) || (endsOn !== null && day > dayOfIso(endsOn))) return null;
  if (pauses.some(({ from, to }) => dayOfIso(from) <= day && (to === null || day < dayOfIso(to)))) return null;
  return terms.findLast(({ from }) => dayOfIso(from) <= day)?.says ?? null;
}

/**
 * A quota with other terms from a day on; what was to come into force later is over. One that has not begun yet begins on that
 * day, and nothing else of it was ever in force. What it says already changes no terms.
 * @param before null where there is none yet
 */
export function quotaWith(
  before: Quota | null,
  { from, says, ...rest }: Pick<Quota, 'endsOn' | 'pauses'> & { readonly from: IsoDate; readonly says: QuotaTerms },
  today: CivilDay,
): Quota {
  if (before === null || dayOfIso(before.startsOn) > today) return { ...rest, startsOn: from, terms: [{ from, says }] };
  const inForce = before.terms.findLast((one) => one.from <= from);
  const isLast = inForce === before.terms.at(-1);
  if (isLast && JSON.stringify(inForce?.says) === JSON.stringify(says)) return { ...before, ...rest };
  return { ...before, ...rest, terms: [...before.terms.filter((one) => one.from < from), { from, says }] };
}

/** What is done with several quotas at once. */
export type QuotaDeed =
  /** No lists from a day on, until they go on. */
  | { readonly kind: 'pause'; readonly on: IsoDate }
  /** Lists again from a day on. */
  | { readonly kind: 'goOn'; readonly on: IsoDate }
  /** The last day with lists. */
  | { readonly kind: 'end'; readonly on: IsoDate };

/** A quota after something was done with it; null where that changes nothing: it is so already, or it is over by then. */
export function quotaAfter(quota: Quota, { kind, on }: QuotaDeed): Quota | null {
  const { startsOn, endsOn, pauses } = quota;
  if (kind === 'end') return endsOn === on || on < startsOn ? null : { ...quota, endsOn: on };
  if (endsOn !== null && endsOn < on) return null;
  const open = pauses.find(({ to }) => to === null);
  const others = pauses.filter((pause) => pause !== open);
  if (kind === 'pause')
    return open !== undefined && open.from <= on ? null : { ...quota, pauses: [...others, { from: on, to: null }] };
  if (open === undefined) return null;
  // What has not begun by then never was.
  return { ...quota, pauses: open.from >= on ? others : [...others, { from: open.from, to: on }] };
}
