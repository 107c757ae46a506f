import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { isoOfDay } from '../civil-date/iso-date.ts';
import { type DatedOccurrence, isDated, planDays } from './plan.ts';
import {
  type Exception,
  type OccurrenceChange,
  type OwnFields,
  type Pause,
  type PlannedSchedule,
  type Revision,
  revisionOn,
} from './schedule-plan.ts';
import { type Offset, offsetDay, type Timing } from './timing.ts';

/**
 * Changes by hand of a schedule: single dates, pauses, its end, and another rule from a day on.
 * Each gives a new schedule and leaves all else of the one it was given.
 */
export type ByHand = Required<Omit<PlannedSchedule, 'last' | 'deleted'>>;

type Excepted = Pick<ByHand, 'exceptions'>;
type Pausing = Pick<ByHand, 'pauses'>;

function without(draft: Excepted, nominal: CivilDay, ...kinds: Exception['kind'][]): Exception[] {
  const date = isoOfDay(nominal);
  return draft.exceptions.filter((exception) => exception.date !== date || !kinds.includes(exception.kind));
}

function inOrder(exceptions: readonly Exception[]): Exception[] {
  return [...exceptions].sort((a, b) => (a.date + a.kind < b.date + b.kind ? -1 : 1));
}

export function skipDate<T extends Excepted>(draft: T, nominal: CivilDay): T {
  const others = without(draft, nominal, 'skip', 'move');
  return { ...draft, exceptions: inOrder([...others, { kind: 'skip', date: isoOfDay(nominal) }]) };
}

/** Moves one to a day; to its own nominal date takes the move away, unless a day off would take it elsewhere. */
export function moveDate<T extends Excepted>(draft: T, nominal: CivilDay, to: CivilDay): T {
  const others = without(draft, nominal, 'move', 'skip');
  return { ...draft, exceptions: inOrder([...others, { kind: 'move', date: isoOfDay(nominal), to: isoOfDay(to) }]) };
}

export function addDate<T extends Excepted>(draft: T, day: CivilDay): T {
  const others = without(draft, day, 'add', 'skip');
  return { ...draft, exceptions: inOrder([...others, { kind: 'add', date: isoOfDay(day) }]) };
}

/** What is different about one date; an empty change takes it away. */
export function changeDate<T extends Excepted>(draft: T, nominal: CivilDay, change: OccurrenceChange): T {
  const others = without(draft, nominal, 'change');
  if (Object.keys(change).length === 0) return { ...draft, exceptions: others };
  return { ...draft, exceptions: inOrder([...others, { kind: 'change', date: isoOfDay(nominal), change }]) };
}

export function changeOf(draft: Excepted, nominal: CivilDay): OccurrenceChange {
  const date = isoOfDay(nominal);
  const found = draft.exceptions.find((exception) => exception.kind === 'change' && exception.date === date);
  return found?.kind === 'change' ? found.change : {};
}

/** Puts one date back to what the rule says. */
export function putBack<T extends Excepted>(draft: T, nominal: CivilDay): T {
  return { ...draft, exceptions: without(draft, nominal, 'skip', 'move', 'add', 'change') };
}

/** The pause that a day lies in, or null. */
export function pauseOn({ pauses }: Pausing, day: CivilDay): Pause | null {
  const date = isoOfDay(day);
  return pauses.find(({ from, to }) => from <= date && (to === null || date < to)) ?? null;
}

/** @param until the first day that runs again; left out, it pauses up to the next pause, or for as long as nobody resumes it */
export function pauseFrom<T extends Pausing>(draft: T, day: CivilDay, until?: CivilDay): T {
  if (pauseOn(draft, day)) return draft;
  const date = isoOfDay(day);
  // A pause that would begin later anyway ends this one.
  const next = draft.pauses.map(({ from }) => from).filter((from) => from > date);
  const end = until === undefined ? [] : [isoOfDay(until)];
  const pauses = [...draft.pauses, { from: date, to: [...next, ...end].sort()[0] ?? null }];
  return { ...draft, pauses: pauses.sort((a, b) => (a.from < b.from ? -1 : 1)) };
}

/** Lets it run again from a day on, which lies in a pause. */
export function resumeFrom<T extends Pausing>(draft: T, day: CivilDay): T {
  const paused = pauseOn(draft, day);
  const to = isoOfDay(day);
  return {
    ...draft,
    pauses: draft.pauses
      .map((pause) => (pause === paused ? { ...pause, to } : pause))
      // A pause that ends on the day it began never was.
      .filter(({ from, to: end }) => from !== end),
  };
}

/** A part of time in which one rule holds: 0 is the first, then each revision in the order of time. */
export function stretchAt(draft: ByHand, index: number): Omit<Revision, 'from'> {
  return (index > 0 && draft.revisions[index - 1]) || draft;
}

/** Another rule from a day on, to begin with the same one; the index of its stretch as well. */
export function reviseFrom<T extends ByHand>(draft: T, day: CivilDay): { readonly draft: T; readonly stretch: number } {
  const from = isoOfDay(day);
  const before = draft.revisions.filter((revision) => revision.from < from);
  const stretch = stretchAt(draft, before.length);
  const { recurrence, timing, own } = stretch;
  const revised = { from, recurrence, timing, ...(own === undefined ? {} : { own }) };
  const revisions = [...draft.revisions.filter((revision) => revision.from !== from), revised];
  revisions.sort((a, b) => (a.from < b.from ? -1 : 1));
  return { draft: { ...draft, revisions }, stretch: before.length + 1 };
}

export function dropRevision<T extends ByHand>(draft: T, stretch: number): T {
  return { ...draft, revisions: draft.revisions.filter((_, i) => i !== stretch - 1) };
}

/** From a day on, one of its tasks says something else; of rules that begin later, too. */
export function ownFrom<T extends ByHand>(
  draft: T,
  day: CivilDay,
  step: string,
  change: { readonly own: OwnFields; readonly timing: Partial<Timing> },
): T {
  const from = isoOfDay(day);
  const revised = draft.revisions.some((one) => one.from === from) ? draft : reviseFrom(draft, day).draft;
  return {
    ...revised,
    revisions: revised.revisions.map((one) =>
      one.from < from
        ? one
        : {
            ...one,
            timing: { ...one.timing, ...change.timing },
            ...(Object.keys(change.own).length === 0
              ? {}
              : { own: { ...one.own, [step]: { ...one.own?.[step], ...change.own } } }),
          },
    ),
  };
}

/** The last date lies before a day; rules that would have begun by then or later are dropped. */
export function endBefore<T extends ByHand>(draft: T, day: CivilDay): T {
  const date = isoOfDay(day);
  const revisions = draft.revisions.filter(({ from }) => from < date);
  const inForce = revisionOn({ ...draft, revisions }, date);
  const recurrence = { ...inForce.recurrence, end: { kind: 'on' as const, date: isoOfDay(day - 1) } };
  const last = revisions.find((revision) => revision === inForce);
  return last
    ? { ...draft, revisions: revisions.map((one) => (one === last ? { ...one, recurrence } : one)) }
    : { ...draft, revisions, recurrence };
}

/** What is worked within a span, both ends included; what is only foreseen can't be changed yet. */
function knownWithin(draft: ByHand, calendar: WorkingCalendar, from: CivilDay, to: CivilDay): DatedOccurrence[] {
  return planDays(draft, calendar, from, to)
    .filter(isDated)
    .filter(({ isForeseen }) => !isForeseen);
}

/** Leaves out every date worked within a span, both ends included. */
export function skipWithin<T extends ByHand>(draft: T, calendar: WorkingCalendar, from: CivilDay, to: CivilDay): T {
  return knownWithin(draft, calendar, from, to).reduce((now, { nominal }) => skipDate(now, nominal), draft);
}

/** Moves every date worked within a span by an offset; two that would meet on one day make one occurrence. */
export function moveWithin<T extends ByHand>(
  draft: T,
  calendar: WorkingCalendar,
  { from, to }: { readonly from: CivilDay; readonly to: CivilDay },
  by: Offset,
): T {
  return knownWithin(draft, calendar, from, to).reduce(
    (now, { nominal, on }) => moveDate(now, nominal, offsetDay(on, by, calendar)),
    draft,
  );
}
