import type { CivilDay } from '../civil-date/civil-day.ts';
import type { IsoTime } from '../civil-date/iso-date.ts';

/** What a link in a mail opens: the one task, or all that is open for its client. */
export const LINK_OPENS = ['one', 'all'] as const;
export type LinkOpens = (typeof LINK_OPENS)[number];

/** How a workspace asks its clients to do something. */
export interface AskingRules {
  /** From which time of day such mails leave, by the clock of the workspace. */
  readonly sendFrom: IsoTime;
  /** Calendar days before the day it is due, and after it, on which the client is reminded, from 1; null for no such reminder. */
  readonly remindBefore: number | null;
  readonly remindAfter: number | null;
  /** Calendar days that a link works beyond the day it is due, from 1. */
  readonly worksAfter: number;
  readonly opens: LinkOpens;
  /** Whether a link asks for a code that goes to the same address: what was passed on to others opens nothing. */
  readonly needsCode: boolean;
  /** Whom a client rings who is not sure, and when somebody answers; empty for nobody. */
  readonly telephone: string;
  readonly answered: string;
}

/** As a workspace begins. */
export const USUAL_ASKING: AskingRules = {
  ...{ sendFrom: '08:00', remindBefore: 3, remindAfter: 2, worksAfter: 7 },
  ...{ opens: 'one', needsCode: false, telephone: '', answered: '' },
};

/** Why a mail went to a client: asked for the first time or once more by hand, reminded, or what was sent came back. */
export const ASK_KINDS = ['asked', 'again', 'before', 'after', 'sentBack'] as const;
export type AskKind = (typeof ASK_KINDS)[number];

/** A mail that went. */
export interface Ask {
  readonly kind: AskKind;
  /** When it went, in milliseconds since 1970. */
  readonly at: number;
  /** The day on which it went, and the day on which the task was due then. */
  readonly on: CivilDay;
  readonly dueOn: CivilDay;
}

/** As much of a client's task as tells whether a mail is to go. */
export interface AskedTask {
  readonly appearsOn: CivilDay;
  readonly dueOn: CivilDay;
  /** When it was sent back last, in milliseconds since 1970; null where it never was. */
  readonly backAt: number | null;
  readonly asks: readonly Ask[];
}

/**
 * Which mail a client is owed of a task that is open, as of a day: the first asking, then of what came back, then a reminder.
 * A reminder follows the day it is due: one that was moved has its own. None goes where the client heard of the task on the
 * day of the reminder, or since: asked late, nobody is reminded on the next day.
 * @returns null where none is to go
 */
export function mailOwed({ appearsOn, dueOn, backAt, asks }: AskedTask, rules: AskingRules, today: CivilDay) {
  if (asks.length === 0) return appearsOn <= today ? ('asked' as const) : null;
  if (backAt !== null && !asks.some(({ at, kind }) => at > backAt || (at === backAt && kind === 'sentBack')))
    return 'sentBack' as const;
  const heard = Math.max(...asks.map(({ on }) => on));
  const isDue = (kind: 'before' | 'after', day: CivilDay) =>
    today >= day && heard < day && !asks.some((one) => one.kind === kind && one.dueOn === dueOn);
  const { remindBefore, remindAfter } = rules;
  if (remindAfter !== null && isDue('after', dueOn + remindAfter)) return 'after' as const;
  if (remindBefore !== null && today <= dueOn && isDue('before', dueOn - remindBefore)) return 'before' as const;
  return null;
}

/** The last day on which a link made on a day opens a task: some days beyond the later of the day itself and that on which it is due. */
export function linkEnds(dueOn: CivilDay, madeOn: CivilDay, { worksAfter }: Pick<AskingRules, 'worksAfter'>): CivilDay {
  return Math.max(dueOn, madeOn) + worksAfter;
}

/**
 * The last day on which a link works by now: that of a task which is due later than it was works longer, and none less long.
 * @param dueOn the day on which its one task is due by now; null for a link that opens all there is, or whose task is gone
 */
export function linkWorksUntil(
  endsOn: CivilDay,
  dueOn: CivilDay | null,
  rules: Pick<AskingRules, 'worksAfter'>,
): CivilDay {
  return dueOn === null ? endsOn : Math.max(endsOn, linkEnds(dueOn, dueOn, rules));
}
