import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { dayOfIso, type IsoTime } from '../civil-date/iso-date.ts';

/** What follows from how a call went. */
export type Follows =
  /** They rest until the pool takes them again. */
  | { readonly kind: 'rests' }
  /** Tried again after so many working days, from 1, so many times in a row, from 2; then they rest. */
  | { readonly kind: 'triedAgain'; readonly workingDays: number; readonly tries: number }
  /** Rung back on a day that they were promised. */
  | { readonly kind: 'callBack' }
  /** Left alone for so many days, from 1; null for good, until somebody takes that back. */
  | { readonly kind: 'leftAlone'; readonly days: number | null }
  | { readonly kind: 'neverCalled' }
  /** Nobody is rung at that number until there is another. */
  | { readonly kind: 'wrongNumber' };

/** All that can follow, in the order in which charts stack it. */
export const FOLLOWS = ['rests', 'callBack', 'triedAgain', 'leftAlone', 'wrongNumber', 'neverCalled'] as const;

/** How a call can end: what the workspace says of it. */
export interface Outcome {
  /** Stays when the name changes. */
  readonly key: string;
  readonly name: string;
  /** Whether whoever was rung was spoken to. */
  readonly isReached: boolean;
  readonly follows: Follows;
}

/** As a workspace begins. */
export const USUAL_OUTCOMES: readonly Outcome[] = [
  { key: 'reached', name: 'reached', isReached: true, follows: { kind: 'rests' } },
  {
    ...{ key: 'no-answer', name: 'no answer', isReached: false },
    follows: { kind: 'triedAgain', workingDays: 3, tries: 4 },
  },
  { key: 'call-back', name: 'call back', isReached: true, follows: { kind: 'callBack' } },
  { key: 'declined', name: 'not interested', isReached: true, follows: { kind: 'leftAlone', days: 180 } },
  { key: 'wrong-number', name: 'wrong number', isReached: false, follows: { kind: 'wrongNumber' } },
  { key: 'never', name: 'do not call', isReached: true, follows: { kind: 'neverCalled' } },
];

/** A call that was promised: on which day, at which time (null where none was said), who rings, and on the lists of which quota. */
export interface CallBack {
  readonly quotaId: string;
  readonly on: CivilDay;
  readonly at: IsoTime | null;
  readonly personId: string;
}

/** What is known of the calls to a contact. */
export interface CallStanding {
  readonly lastRungOn: CivilDay | null;
  /** Calls in a row that reached nobody, 0 after one that did. */
  readonly tries: number;
  /** The first day on which they are tried again; null where nothing is to be tried again. */
  readonly againOn: CivilDay | null;
  /** The last day on which they are left alone; null where they are not. */
  readonly aloneUntil: CivilDay | null;
  readonly callBack: CallBack | null;
  readonly isNeverCalled: boolean;
  /** The number that was a wrong one; null where none was. */
  readonly wrongNumber: string | null;
}

/** The last day that a date can name: whoever is left alone until then is for good. */
export const FOR_GOOD: CivilDay = dayOfIso('9999-12-31');

export const NEVER_RUNG: CallStanding = {
  ...{ lastRungOn: null, tries: 0, againOn: null, aloneUntil: null, callBack: null },
  ...{ isNeverCalled: false, wrongNumber: null },
};

/** A call that was made. */
export interface CallMade {
  readonly on: CivilDay;
  readonly outcome: Pick<Outcome, 'isReached' | 'follows'>;
  /** What was promised, where that follows. */
  readonly callBack: CallBack | null;
  readonly number: string;
}

/**
 * What is known of a contact after a call. What was promised before is kept by any call that is made: it is over.
 * @throws RangeError where a call back is to follow and none was said
 */
export function standingAfter(
  before: CallStanding,
  { on, outcome: { isReached, follows }, callBack, number }: CallMade,
  calendar: Pick<WorkingCalendar, 'numberOf' | 'dayNumbered'>,
): CallStanding {
  const tries = isReached ? 0 : before.tries + 1;
  const rung: CallStanding = { ...before, lastRungOn: on, tries, againOn: null, aloneUntil: null, callBack: null };
  switch (follows.kind) {
    case 'rests':
      return rung;
    case 'triedAgain':
      return tries < follows.tries
        ? { ...rung, againOn: calendar.dayNumbered(calendar.numberOf(on) + follows.workingDays) }
        : { ...rung, tries: 0 };
    case 'callBack':
      if (callBack === null) throw new RangeError('On which day they are rung back is not said.');
      return { ...rung, callBack };
    case 'leftAlone':
      return { ...rung, aloneUntil: follows.days === null ? FOR_GOOD : on + follows.days };
    case 'neverCalled':
      return { ...rung, isNeverCalled: true };
    case 'wrongNumber':
      return { ...rung, wrongNumber: number };
  }
}

/** Why nobody rings a contact on a day; null where somebody may. */
export function whyNotRung(
  standing: CallStanding,
  { number, day, gap }: { readonly number: string; readonly day: CivilDay; readonly gap: number },
): 'no number' | 'wrong number' | 'never' | 'alone' | 'too soon' | null {
  if (standing.isNeverCalled) return 'never';
  if (number === '') return 'no number';
  if (standing.wrongNumber === number) return 'wrong number';
  // Who was promised a call is rung however short a time ago the last one was.
  if (standing.callBack !== null) return standing.callBack.on <= day ? null : 'too soon';
  if (standing.aloneUntil !== null && standing.aloneUntil >= day) return 'alone';
  if (standing.againOn !== null && standing.againOn > day) return 'too soon';
  return standing.lastRungOn !== null && day - standing.lastRungOn < gap ? 'too soon' : null;
}
