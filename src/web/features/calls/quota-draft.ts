import * as z from 'zod/mini';
import type { CallQuota, QuotaInput } from '../../../contract/index.ts';
import { type CivilDay, dayOfIso, type IsoDate, isoOfDay, type QuotaTerms } from '../../../core/index.ts';

/** A quota as it is being written. */
export interface QuotaDraft {
  /** Of what it was begun from: who has changed it since is not written over. */
  readonly version: number;
  readonly name: string;
  readonly from: IsoDate;
  readonly endsOn: IsoDate | null;
  /** From when on it is paused without an end, since before or from now; null while it runs. */
  readonly pausedFrom: IsoDate | null;
  readonly says: QuotaTerms;
}

export const quotaDraftSchema = z.object({
  ...{ version: z.number(), name: z.string(), from: z.string(), endsOn: z.nullable(z.string()) },
  pausedFrom: z.nullable(z.string()),
  says: z.looseObject({ amount: z.looseObject({ count: z.number() }), pool: z.looseObject({ v: z.literal(1) }) }),
});

const NEW: QuotaTerms = {
  amount: { count: 12, per: 'day', share: 'same', mostADay: null, holidays: 'off', leave: 'off' },
  group: { of: 'people', ids: [] },
  pool: { v: 1, conditions: [{ kind: 'notRungFor', days: 30 }] },
  ...{ first: 'neverRung', usualFirst: true, gap: 2, carryDays: 1, readyAt: '08:00', mails: true },
  ...{ minutesEach: 10, asks: [] },
};

/**
 * What is written from: a quota as it was said last, from tomorrow where that has begun, else from the day on which it
 * begins; or a new one from today. What is saved takes the place of all that was to come.
 */
export function draftOf(quota: CallQuota | null, today: CivilDay, [role]: readonly string[]): QuotaDraft {
  if (quota === null)
    return {
      ...{ version: 0, name: '', from: isoOfDay(today), endsOn: null, pausedFrom: null },
      says: role === undefined ? NEW : { ...NEW, group: { of: 'role', role } },
    };
  const { version, name, startsOn, endsOn, pauses, terms } = quota;
  const last = terms.at(-1);
  return {
    ...{ version, name, endsOn, from: isoOfDay(Math.max(today + 1, dayOfIso(last?.from ?? startsOn))) },
    pausedFrom: pauses.find(({ to }) => to === null)?.from ?? null,
    says: last?.says ?? NEW,
  };
}

type QuotaParts = Omit<QuotaDraft, 'says'> & QuotaTerms;

/** All that is written side by side: two who change different parts can keep both. */
export const partsOf = ({ says, ...rest }: QuotaDraft): QuotaParts => ({ ...rest, ...says });

export const ofParts = ({ version, name, from, endsOn, pausedFrom, ...says }: QuotaParts): QuotaDraft => ({
  ...{ version, name, from, endsOn, pausedFrom, says },
});

/** What each part is called where somebody else has changed it. */
export const PART_WORDS = {
  ...{ name: 'the name', from: 'the first day', endsOn: 'the last day', pausedFrom: 'whether it is paused' },
  ...{ amount: 'how many', group: 'who rings', pool: 'from whom', first: 'the order', usualFirst: 'the order' },
  ...{ gap: 'the days between two calls', carryDays: 'what is carried over', readyAt: 'when it is ready' },
  ...{ mails: 'the mail', minutesEach: 'the minutes a call', asks: 'what to ask' },
} as const satisfies Record<Exclude<keyof QuotaParts, 'version'>, string>;

/** What is saved of a draft: pauses begin on the day from which the rest counts, or end on it; empty lines ask nothing. */
export function inputOf(
  quota: CallQuota | null,
  { name, from, endsOn, pausedFrom, says }: Omit<QuotaDraft, 'version'>,
  today: CivilDay,
): QuotaInput {
  const past = (quota?.pauses ?? []).filter(({ to }) => to !== null);
  const open = quota?.pauses.find(({ to }) => to === null);
  // What has not begun yet is left out as if it never had been said.
  const ended = open && pausedFrom === null && dayOfIso(open.from) <= today ? [{ ...open, to: from }] : [];
  const pauses = [...past, ...ended, ...(pausedFrom === null ? [] : [{ from: open?.from ?? from, to: null }])];
  const asks = says.asks.map((ask) => ask.trim()).filter((ask) => ask !== '');
  return { name, from, endsOn, pauses, says: { ...says, asks } };
}
