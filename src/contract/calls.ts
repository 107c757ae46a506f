import { z } from 'zod';
import {
  CALL_ORDERS,
  DAYS_MISSED,
  type FieldTest,
  MOST_CONDITIONS,
  type Outcome,
  type PoolCondition,
  QUOTA_PERIODS,
  QUOTA_SHARES,
  type QuotaDeed,
  type QuotaTerms,
  type WhyListed,
} from '../core/index.ts';
import { endpoint } from './endpoint.ts';
import { civilMoment, id, isoDate, isoTime, line, named, prose } from './fields.ts';
import { callPaths } from './paths.ts';

export const MOST_QUOTAS = 50;
/** Calls of a day or period that a quota may ask of one person, and people of one. */
export const MOST_CALLS = 400;
export const MOST_RINGING = 200;
export const MOST_ASKS = 12;
/** Contacts told of a search, and calls of a list that are given on at once. */
export const MOST_CONTACTS_FOUND = 20;
export const MOST_SHARED = 2_000;
/** Why somebody is put on no list, by hand neither. */
export const NEVER_LISTED = ['no number', 'wrong number', 'never'] as const;
/** Ways in which calls can end, and the bounds of what follows from them. */
export const MOST_OUTCOMES = 12;
export const MOST_AGAIN_DAYS = 60;
export const MOST_TRIES = 20;
export const MOST_ALONE_DAYS = 3660;
/** Weeks that are told before a quota is saved, and for how many its pool is foreseen. */
export const TOLD_WEEKS = 6;
export const FORESEEN_WEEKS = 12;
/** Names that are told of a first list. */
export const TOLD_OF_LIST = 40;
/** What is told of a contact from before. */
export const TOLD_BEFORE = 30;

const whole = (what: string, least: number, most: number) =>
  z
    .number({ error: `${what}: say how many.` })
    .int('Whole numbers only.')
    .min(least, `${what}: ${least} at least.`)
    .max(most, `${what}: ${most} at most.`);

const fieldTestSchema: z.ZodType<FieldTest, FieldTest> = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('isOneOf'), values: z.array(z.string().max(200)).max(60) }),
  z.object({ kind: z.literal('within'), days: whole('Days', 0, 3660) }),
  z.object({ kind: z.enum(['atLeast', 'atMost']), value: z.number() }),
  z.object({ kind: z.enum(['isSaid', 'isUnsaid']) }),
]);
const conditionSchema: z.ZodType<PoolCondition, PoolCondition> = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('plans'), ids: z.array(id).max(40) }),
  z.object({ kind: z.literal('usualPeople'), ids: z.array(id).max(MOST_RINGING) }),
  z.object({ kind: z.literal('field'), key: z.string().max(40), test: fieldTestSchema }),
  z.object({ kind: z.literal('notRungFor'), days: whole('Days', 1, 3660) }),
  z.object({ kind: z.literal('neverRung') }),
]);

export const quotaTermsSchema: z.ZodType<QuotaTerms, QuotaTerms> = z.object({
  amount: z.object({
    count: whole('Calls', 1, MOST_CALLS),
    per: z.enum(QUOTA_PERIODS),
    share: z.enum(QUOTA_SHARES),
    mostADay: whole('Calls a day', 1, MOST_CALLS).nullable(),
    holidays: z.enum(DAYS_MISSED),
    leave: z.enum(DAYS_MISSED),
  }),
  group: z.discriminatedUnion('of', [
    z.object({ of: z.literal('people'), ids: z.array(id).min(1, 'Choose who rings.').max(MOST_RINGING) }),
    z.object({ of: z.literal('role'), role: line('The role', 60) }),
  ]),
  pool: z.object({ v: z.literal(1), conditions: z.array(conditionSchema).max(MOST_CONDITIONS) }),
  first: z.enum(CALL_ORDERS),
  usualFirst: z.boolean(),
  gap: whole('Days between two calls', 1, 365),
  carryDays: whole('Days for which it is carried over', 0, 10),
  readyAt: isoTime,
  mails: z.boolean(),
  minutesEach: whole('Minutes a call', 1, 240),
  asks: z.array(line('What to ask', 200)).max(MOST_ASKS),
});

const pauseSchema = z.object({ from: isoDate, to: isoDate.nullable() });
export const quotaSchema = named.extend({
  version: z.number().int(),
  startsOn: isoDate,
  endsOn: isoDate.nullable(),
  pauses: z.array(pauseSchema),
  terms: z.array(z.object({ from: isoDate, says: quotaTermsSchema })),
  /** Who rings by it today. */
  people: z.array(named),
});
export type CallQuota = z.infer<typeof quotaSchema>;

const quotaInput = z.object({
  name: line('The name of the quota', 60),
  /** From which day on it says this. */
  from: isoDate,
  endsOn: isoDate.nullable(),
  pauses: z.array(pauseSchema).max(60),
  says: quotaTermsSchema,
});
export type QuotaInput = z.infer<typeof quotaInput>;

const whySchema: z.ZodType<WhyListed> = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('promised'), on: isoDate, at: isoTime.nullable() }),
  z.object({ kind: z.literal('carriedOver'), from: isoDate }),
  z.object({ kind: z.literal('neverRung') }),
  z.object({ kind: z.literal('triedAgain'), tries: z.number(), lastOn: isoDate }),
  z.object({ kind: z.literal('rungBefore'), lastOn: isoDate }),
  z.object({ kind: z.literal('byHand'), lastOn: isoDate.nullable() }),
]);
const follows = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('rests') }),
  z.object({
    kind: z.literal('triedAgain'),
    workingDays: whole('Working days', 1, MOST_AGAIN_DAYS),
    tries: whole('Times in a row', 2, MOST_TRIES),
  }),
  z.object({ kind: z.literal('callBack') }),
  z.object({ kind: z.literal('leftAlone'), days: whole('Days', 1, MOST_ALONE_DAYS).nullable() }),
  z.object({ kind: z.literal('neverCalled') }),
  z.object({ kind: z.literal('wrongNumber') }),
]);
export const outcomeSchema: z.ZodType<Outcome, Outcome> = z.object({
  key: z.string().max(60),
  name: line('How a call ends', 40),
  ...{ isReached: z.boolean(), follows },
});
/** How calls can end, as a manager says it; one that is new has no key yet. */
export const outcomesSchema = z
  .array(outcomeSchema)
  .min(1, 'A call ends in some way: leave one.')
  .max(MOST_OUTCOMES, `${MOST_OUTCOMES} at most.`)
  .superRefine((outcomes, context) => {
    outcomes.forEach(({ name, follows: { kind } }, i) => {
      const before = outcomes.slice(0, i);
      if (before.some((other) => other.name.toLowerCase() === name.toLowerCase()))
        context.addIssue({ code: 'custom', path: [i, 'name'], message: `“${name}” stands there twice.` });
      if (kind === 'callBack' && before.some((other) => other.follows.kind === 'callBack'))
        context.addIssue({
          code: 'custom',
          path: [i, 'follows'],
          message: 'One of them promises a call back, no more.',
        });
    });
  });

const listedSchema = z.object({ contact: named, client: named, asset: z.string().nullable(), why: whySchema });

/** By name, how many calls somebody has in the weeks ahead, now and after a change. */
const changedWeeks = z.array(
  named.extend({ weeks: z.array(z.object({ monday: isoDate, was: z.number().int(), now: z.number().int() })) }),
);
export type ChangedWeeks = z.infer<typeof changedWeeks>;

const lookSchema = z.object({
  /** What a change of a quota does to those whose figures become others; null of a new one. */
  changed: changedWeeks.nullable(),
  /** Of each who rings: the weeks. */
  people: z.array(
    named.extend({
      /** Minutes of their week, the mean of two that take turns. */
      weekMinutes: z.number(),
      weeks: z.array(
        z.object({
          monday: isoDate,
          /** Calls of each day from Monday on; null on a day on which nobody works, or there is no quota. */
          days: z.array(z.number().int().nullable()),
          off: z.number().int(),
          beyond: z.number().int(),
          unplaced: z.number().int(),
        }),
      ),
    }),
  ),
  /** How many are left after each condition, the first of all contacts; then of those who may be rung at all: on the next day with lists. */
  funnel: z.object({
    on: isoDate,
    all: z.number().int(),
    after: z.array(z.number().int()),
    notNever: z.number().int(),
    withNumber: z.number().int(),
    free: z.number().int(),
  }),
  /** From that day on until weeks after the first day of what is being written. */
  forecast: z.object({
    days: z.array(z.object({ on: isoDate, free: z.number().int(), wanted: z.number().int(), found: z.number().int() })),
    dryOn: isoDate.nullable(),
    /** Of a hundred calls, how many the pool has somebody for to the end. */
    lasts: z.number().int(),
    /** Of a hundred who were rung, how many come back to it. */
    comeBack: z.number().int(),
  }),
  /** The first lists: a rehearsal, of which nothing is made. */
  first: z.object({
    on: isoDate,
    lists: z.array(named.extend({ wanted: z.number().int(), found: z.number().int(), calls: z.array(listedSchema) })),
  }),
});
export type QuotaLook = z.infer<typeof lookSchema>;

const callBackSchema = z.object({ on: isoDate, at: isoTime.nullable(), personId: id });
const callSchema = listedSchema.extend({
  id,
  version: z.number().int(),
  quotaId: id,
  place: z.number().int(),
  number: z.string(),
  state: z.enum(['open', 'rung']),
  outcome: outcomeSchema.nullable(),
  note: z.string(),
  rungAt: civilMoment.nullable(),
  rungBy: named.nullable(),
  callBack: callBackSchema.nullable(),
  /** The call before it. */
  last: z.object({ on: isoDate, outcome: z.string(), note: z.string() }).nullable(),
});
export type ListedCall = z.infer<typeof callSchema>;

const daySchema = z.object({
  person: named,
  on: isoDate,
  /** Quotas by which somebody rings on that day. */
  quotas: z.array(
    named.extend({
      ...{ asks: z.array(z.string()), minutesEach: z.number().int(), readyAt: isoTime },
      /** Whether its lists of that day have been made. */
      isMade: z.boolean(),
    }),
  ),
  calls: z.array(callSchema),
  /** How many were wanted and are made, of each day of the week; what lies ahead as the quota says. */
  week: z.array(z.object({ on: isoDate, wanted: z.number().int(), made: z.number().int() })),
  /** Promised for later days, by day and time. */
  promised: z.array(
    z.object({
      contact: named,
      client: named,
      asset: z.string().nullable(),
      callBack: callBackSchema,
      note: z.string(),
    }),
  ),
  /** How many are promised; the first of them are told. */
  promisedCount: z.number().int(),
  outcomes: z.array(outcomeSchema),
});
export type CallDay = z.infer<typeof daySchema>;

/** What is known of a client from before: calls, finished work, notices, mails that went, links that were opened. */
export const BEFORE_KINDS = ['call', 'task', 'notice', 'mail', 'link'] as const;
const beforeSchema = z.object({
  lines: z.array(
    z.object({
      on: isoDate,
      kind: z.enum(BEFORE_KINDS),
      text: z.string(),
      taskId: id.nullable(),
    }),
  ),
  counts: z.record(z.enum(BEFORE_KINDS), z.number().int()),
});
export type BeforeCall = z.infer<typeof beforeSchema>;

const rungSchema = z.object({
  version: z.number().int(),
  outcome: z.string().max(60),
  note: prose('The note', 4000),
  callBack: callBackSchema.nullable().default(null),
});
export type RungInput = z.input<typeof rungSchema>;
const saved = z.object({ call: callSchema, changeId: id });
const deedSchema: z.ZodType<QuotaDeed, QuotaDeed> = z.object({ kind: z.enum(['pause', 'goOn', 'end']), on: isoDate });
const severalLookSchema = z.object({
  /** Each that changes, and those that it changes nothing of, by name. */
  quotas: z.array(named.extend({ version: z.number().int(), changed: changedWeeks })),
  same: z.array(named),
});
export type SeveralQuotasLook = z.infer<typeof severalLookSchema>;
const savedQuota = z.object({ quota: quotaSchema, changeId: id });

const versioned = z.object({ version: z.number().int() });

const foundContact = z.object({
  contact: named,
  client: named,
  asset: z.string().nullable(),
  number: z.string(),
  lastRungOn: isoDate.nullable(),
  /** Why nobody may ring them at all; null where somebody may. */
  cannot: z.enum(NEVER_LISTED).nullable(),
  /** On whose list of today they stand. */
  onListOf: z.string().nullable(),
});
export type FoundContact = z.infer<typeof foundContact>;

const moveSchema = z.object({ callId: id, version: z.number().int(), to: id });
const shareLookSchema = z.object({
  /** Of those who can take some today, how many calls each has to make, before and after, and which they are given. */
  receivers: z.array(
    named.extend({
      isTaking: z.boolean(),
      before: z.number().int(),
      after: z.number().int(),
      minutesAfter: z.number().int(),
      given: z.array(z.object({ contact: z.string(), isPromised: z.boolean() })),
    }),
  ),
  calls: z.number().int(),
  moves: z.array(moveSchema),
});
export type ShareLook = z.infer<typeof shareLookSchema>;

export const callEndpoints = {
  quotas: endpoint(callPaths.quotas, { answer: z.object({ quotas: z.array(quotaSchema) }) }),
  createQuota: endpoint(callPaths.createQuota, { body: quotaInput, answer: savedQuota }),
  changeQuota: endpoint(callPaths.changeQuota, {
    body: quotaInput.extend({ version: z.number().int() }),
    answer: savedQuota,
  }),
  /** What would be done with several at once, and the same done. */
  severalLook: endpoint(callPaths.severalLook, {
    heavy: true,
    body: z.object({ ids: z.array(id).min(1, 'Choose some.').max(MOST_QUOTAS), deed: deedSchema }),
    answer: severalLookSchema,
  }),
  several: endpoint(callPaths.several, {
    body: z.object({
      of: z
        .array(z.object({ id, version: z.number().int() }))
        .min(1, 'Choose some.')
        .max(MOST_QUOTAS),
      deed: deedSchema,
    }),
    answer: z.object({ changeId: id, count: z.number().int() }),
  }),
  /** What a quota comes to before it is saved. */
  look: endpoint(callPaths.look, {
    heavy: true,
    body: quotaInput.omit({ name: true }).extend({ quotaId: id.nullable() }),
    answer: lookSchema,
  }),
  /** The lists of one person for a day. */
  day: endpoint(callPaths.day, { query: z.object({ person: id, on: isoDate }), answer: daySchema }),
  /** What is known of the client from before, the newest first. */
  before: endpoint(callPaths.before, {
    query: z.object({ kind: z.enum(BEFORE_KINDS).optional() }),
    answer: beforeSchema,
  }),
  /** How a call ended; said once more it takes the place of what was said before. */
  rung: endpoint(callPaths.rung, { body: rungSchema, answer: saved, fromDevice: true }),
  /** To the end of the list. */
  later: endpoint(callPaths.later, { body: versioned, answer: saved }),
  /** Contacts by name, to put one of them on a list. */
  contacts: endpoint(callPaths.contacts, {
    query: z.object({ q: z.string().max(100).default('') }),
    answer: z.object({ contacts: z.array(foundContact), isMore: z.boolean() }),
  }),
  /** One more on the list of today: the next from the pool, or whoever is named. */
  more: endpoint(callPaths.more, {
    body: z.object({ person: id, quotaId: id, contactId: id.nullable() }),
    answer: saved,
  }),
  off: endpoint(callPaths.off, { body: versioned, answer: z.object({ changeId: id }) }),
  /** The next from the pool in the place of a call. */
  swap: endpoint(callPaths.swap, { body: versioned, answer: saved }),
  /** Who would make the calls that are left on somebody's list of today. @param to null for all who can */
  shareLook: endpoint(callPaths.shareLook, {
    body: z.object({ person: id, to: z.array(id).max(MOST_RINGING).nullable() }),
    answer: shareLookSchema,
  }),
  /** Does what was looked at, call by call. */
  share: endpoint(callPaths.share, {
    body: z.object({ person: id, moves: z.array(moveSchema).min(1, 'Nothing is left to give.').max(MOST_SHARED) }),
    answer: z.object({ changeId: id }),
  }),
};
