import type { CivilDay } from '../civil-date/civil-day.ts';

/** What is done when the next of a schedule comes while the last one is still open. */
export type Overlap =
  /** Both stand beside each other. */
  | { readonly kind: 'add' }
  /** The old one lapses on the day of the next. */
  | { readonly kind: 'lapse' }
  /** The next is not made until the old one is over; waiting longer than this many days, somebody has to hear of it. */
  | { readonly kind: 'wait'; readonly limitDays: number };

/** One of a schedule's occurrences that is a task. */
export interface MadeOne {
  readonly nominal: CivilDay;
  /** Done, skipped or lapsed. */
  readonly isOver: boolean;
}

/**
 * Parts the occurrences that are owed into those that are made and those that wait. Where a schedule waits, at most one
 * is open at a time: the earliest that is not over; what is over stays.
 * @param made those of the schedule that are tasks, in any order
 */
export function admitted<T extends { readonly nominal: CivilDay }>(
  owed: readonly T[],
  overlap: Overlap,
  made: readonly MadeOne[],
): { readonly now: T[]; readonly waiting: T[] } {
  if (overlap.kind !== 'wait') return { now: [...owed], waiting: [] };
  const over = new Set(made.filter(({ isOver }) => isOver).map(({ nominal }) => nominal));
  const open = made.filter(({ isOver }) => !isOver).map(({ nominal }) => nominal);
  const ordered = [...owed].sort((a, b) => a.nominal - b.nominal);
  const candidates = [...open, ...ordered.map(({ nominal }) => nominal).filter((nominal) => !over.has(nominal))];
  const first = candidates.length === 0 ? null : Math.min(...candidates);
  const isNow = ({ nominal }: T) => over.has(nominal) || nominal === first;
  return { now: ordered.filter(isNow), waiting: ordered.filter((one) => !isNow(one)) };
}

/** For how many days the next has been waiting, where it is; 0 on its own day. */
export function daysWaited(waiting: readonly { readonly on: CivilDay }[], today: CivilDay): number | null {
  const [next] = [...waiting].sort((a, b) => a.on - b.on);
  return next && next.on <= today ? today - next.on : null;
}
