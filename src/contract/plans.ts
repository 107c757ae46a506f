import { z } from 'zod';
import { COUNTS_FROM, itemProblem, MOST_DELAY, OWN_ASPECTS, type PlanItem } from '../core/index.ts';
import { defaultRuleSchema } from './assignment.ts';
import { endpoint } from './endpoint.ts';
import { id, isoDate, line, named, prose } from './fields.ts';
import { impactSchema, reachSchema } from './impact.ts';
import { planPaths } from './paths.ts';
import { overlapSchema, recurrenceSchema, timingSchema } from './recurrence.ts';
import { syncSchema } from './schedules.ts';
import { estimate } from './work.ts';

export const MOST_ITEMS = 30;
export const MOST_PLANS = 200;
/** Clients who are put on a plan, or taken off it, in one go. */
export const MOST_PUT_ON = 1000;
/** Clients of a page. */
export const ON_PLAN_A_PAGE = 40;
/** Clients whose cells are told before they are put on a plan; the figures are of all. */
export const MOST_CELLS = 200;

const key = z
  .string()
  .min(1)
  .max(40)
  .regex(/^[A-Za-z0-9-]+$/, 'A key has letters, digits and hyphens.');

/** Of the tasks of a set, by the keys of their steps. */
const stepMinutes = z.record(z.string().min(1).max(40), estimate);

const itemFields = z.object({
  key,
  templateId: id,
  counts: z.enum(COUNTS_FROM),
  after: z.object({ amount: z.number().int().min(0).max(MOST_DELAY), unit: z.enum(['day', 'week', 'month']) }),
  recurrence: recurrenceSchema,
  timing: timingSchema,
  overlap: overlapSchema.removeDefault(),
  assignment: defaultRuleSchema,
  estimateMinutes: estimate.nullable(),
  stepMinutes: stepMinutes.optional(),
  each: z.enum(['client', 'asset']),
});
const itemSchema = itemFields.superRefine((item, context) => {
  const message = itemProblem(item as PlanItem);
  if (message !== null) context.addIssue({ code: 'custom', message });
});

/** Whether schedules of the plan go on from year to year, or end with each year of the client's and are looked through then. */
export const ROLLS_ON = ['itself', 'asks'] as const;

export const planInputSchema = z.object({
  name: line('The name of the plan', 60),
  note: prose('The note', 2000),
  rollsOn: z.enum(ROLLS_ON),
  items: z
    .array(itemSchema)
    .max(MOST_ITEMS, `A plan has ${MOST_ITEMS} items at most.`)
    .refine((all) => new Set(all.map((one) => one.key)).size === all.length, 'An item stands there twice.'),
});
export type PlanInput = z.infer<typeof planInputSchema>;
export type PlanItemInput = PlanInput['items'][number];

/** An item with what is known around it. */
const toldItem = itemFields.extend({
  template: named.extend({
    /** Of the whole set. */
    estimateMinutes: z.number().int(),
    /** Tasks of the set. */
    tasks: z.number().int(),
    isArchived: z.boolean(),
    /** Days of notice that its type of work needs; null where none. */
    notice: z.string().nullable(),
  }),
  /** Of the whole set, as the plan says. */
  minutes: z.number().int(),
  phrase: z.string(),
  who: z.string(),
});
export type ToldItem = z.infer<typeof toldItem>;

export const planSchema = z.object({
  id,
  version: z.number().int(),
  name: z.string(),
  note: z.string(),
  rollsOn: z.enum(ROLLS_ON),
  isArchived: z.boolean(),
  items: z.array(toldItem),
  clients: z.number().int(),
});
export type ServicePlan = z.infer<typeof planSchema>;

const planLine = named.extend({
  version: z.number().int(),
  isArchived: z.boolean(),
  rollsOn: z.enum(ROLLS_ON),
  /** The names of its items, in their order. */
  items: z.array(z.string()),
  clients: z.number().int(),
  /** Of each client, as the plan says: tasks in the coming year, and minutes. */
  tasksEach: z.number().int(),
  minutesEach: z.number().int(),
});
export type PlanLine = z.infer<typeof planLine>;

/** What a client has of its own of one item: in what, or that it is left out, and why. */
const ownOfItem = z.object({
  item: key,
  assetId: id.nullable(),
  asset: z.string().nullable(),
  scheduleId: id.nullable(),
  aspects: z.array(z.enum(OWN_ASPECTS)),
  leftOut: z.string().nullable(),
  /** What it says, in words: "first Thursday of each month, by Kit". */
  says: z.string(),
});
export type OwnOfItem = z.infer<typeof ownOfItem>;

const onPlanLine = z.object({
  id,
  version: z.number().int(),
  client: named,
  fromOn: isoDate,
  offOn: isoDate.nullable(),
  untilOn: isoDate.nullable(),
  own: z.array(ownOfItem),
});
export type OnPlanLine = z.infer<typeof onPlanLine>;

/** A month of a year that begins with the month of a day: tasks and minutes of all clients, as it is and as it would be. */
const monthSchema = z.object({ month: isoDate, tasks: z.number().int(), minutes: z.number().int() });
const yearOfItem = z.object({ key, before: z.array(monthSchema), after: z.array(monthSchema) });
const lookSchema = z.object({
  items: z.array(yearOfItem),
  /** Of those on it: in how many the change does something, and how many keep something of their own that it would change. */
  changes: z.number().int(),
  keeps: z.array(onPlanLine.pick({ id: true, client: true }).extend({ says: z.string() })),
  keepsCount: z.number().int(),
  /** Of a client with nothing of its own: tasks and minutes of a year by item. */
  each: z.array(z.object({ key, tasks: z.number().int(), minutes: z.number().int() })),
});
export type PlanLook = z.infer<typeof lookSchema>;

/** A set that is started by hand for each of the clients, on a day: what has to be done once when they come, or go. */
const startFields = z.object({
  templateId: id,
  on: isoDate,
  /** Steps that are left out, by their keys; empty stands for the main task. */
  without: z.array(z.string().max(40)).max(100).default([]),
});
const start = startFields.nullable().default(null);
export type PlanStart = z.output<typeof startFields>;
const started = z.object({
  step: z.string(),
  title: z.string(),
  on: isoDate,
  who: z.string().nullable(),
  minutes: z.number().int(),
});
export type StartedForClient = z.infer<typeof started>;

/** What is different for one client. */
const ownOfClient = z.object({
  item: key,
  /** Of one of the client's assets; null for all of it. */
  assetId: id.nullable().default(null),
  /** Left out, with the reason. */
  leftOut: line('Why it is left out', 200).optional(),
  recurrence: recurrenceSchema.optional(),
  assignment: defaultRuleSchema.optional(),
  estimateMinutes: estimate.optional(),
  stepMinutes: stepMinutes.optional(),
});
const putOnSchema = z.object({
  /** The plan as it was seen. */
  version: z.number().int(),
  from: isoDate,
  clients: z
    .array(
      z.object({
        clientId: id,
        own: z
          .array(ownOfClient)
          .max(MOST_ITEMS * 4)
          .default([]),
      }),
    )
    .min(1, 'Choose a client.')
    .max(MOST_PUT_ON, `${MOST_PUT_ON.toLocaleString('en-GB')} clients at once.`)
    .refine((all) => new Set(all.map(({ clientId }) => clientId)).size === all.length, 'A client stands there twice.'),
  start,
});
export type PutOnInput = z.input<typeof putOnSchema>;
export type OwnOfClient = z.input<typeof ownOfClient>;

const cell = z.object({
  item: key,
  assetId: id.nullable(),
  asset: z.string().nullable(),
  /** The first date; null where none comes within a year. */
  first: isoDate.nullable(),
  tasks: z.number().int(),
  now: z.number().int(),
  isOwn: z.boolean(),
  leftOut: z.string().nullable(),
  says: z.string(),
});
const putOnLookSchema = z.object({
  clients: z.array(
    z.object({
      client: named,
      assets: z.array(named),
      usualPerson: named.nullable(),
      cells: z.array(cell),
      now: z.number().int(),
    }),
  ),
  figures: z.object({
    clients: z.number().int(),
    schedules: z.number().int(),
    asPlan: z.number().int(),
    own: z.number().int(),
    leftOut: z.number().int(),
    tasksNow: z.number().int(),
    tasks: z.number().int(),
    minutes: z.number().int(),
  }),
  /** Days of the coming twelve months that have any, with how many are made now and how many later. */
  days: z.array(z.object({ on: isoDate, now: z.number().int(), later: z.number().int() })),
  /** Minutes that each gets by the week; null for nobody yet. */
  people: z.array(
    z.object({ personId: id.nullable(), minutes: z.number().int(), weeks: z.record(isoDate, z.number().int()) }),
  ),
  /** The set that is started for the first of them. */
  started: z.array(started),
  /** Notices that must leave by now, or had to. */
  lateNotices: z.number().int(),
  /** The first day to join on with which none is too late; null where none is. */
  startInTime: isoDate.nullable(),
});
export type PutOnLook = z.infer<typeof putOnLookSchema>;

const takeOffSchema = z.object({
  /** Whose time on the plan it is, by the ids of that. */
  clients: z
    .array(z.object({ id, version: z.number().int() }))
    .min(1, 'Choose a client.')
    .max(MOST_PUT_ON),
  /** The first day without it. */
  from: isoDate,
  /** What becomes of tasks that are made for days from then on. */
  tasks: z.enum(['go', 'stay']),
  /** The plan that they go over to on that day. */
  to: z.object({ planId: id, version: z.number().int() }).nullable().default(null),
  start,
});
export type TakeOffInput = z.input<typeof takeOffSchema>;

/** Days ahead of the end of a client's year in which it is asked whether it goes on. */
export const ASKS_DAYS = 60;
const rollSchema = z.object({
  clients: z
    .array(z.object({ id, version: z.number().int() }))
    .min(1, 'Choose a client.')
    .max(MOST_PUT_ON),
});
/** A client whose year on a plan ends soon. */
const rollingLine = onPlanLine.omit({ own: true, untilOn: true, offOn: true }).extend({
  plan: named,
  untilOn: isoDate,
  /** Until when it would go on. */
  laterOn: isoDate,
  own: z.number().int(),
});
export type RollingLine = z.infer<typeof rollingLine>;

/** Schedules that are there are taken as those of a plan: none of them changes by it. */
const gatherSchema = z.object({
  version: z.number().int(),
  item: key,
  schedules: z.array(id).min(1, 'Choose a schedule.').max(MOST_PUT_ON),
});

export type GatherInput = z.input<typeof gatherSchema>;

/** One item of a plan as a client has it; one that is neither scheduled nor left out is lacking. */
const itemOfClient = ownOfItem.extend({
  template: named,
  /** What the plan says, in words. */
  planSays: z.string(),
  next: isoDate.nullable(),
  state: z.enum(['running', 'paused', 'ended', 'problem']).nullable(),
  tasks: z.number().int(),
  minutes: z.number().int(),
});
const planOfClient = onPlanLine.omit({ own: true, client: true }).extend({
  plan: named.extend({ version: z.number().int(), rollsOn: z.enum(ROLLS_ON) }),
  items: z.array(itemOfClient),
  /** A year as it is, and as the plan says. */
  tasks: z.number().int(),
  minutes: z.number().int(),
  planTasks: z.number().int(),
  planMinutes: z.number().int(),
});
export type PlanOfClient = z.infer<typeof planOfClient>;

const changeSchema = z.object({
  version: z.number().int(),
  plan: planInputSchema,
  /** From which day the change counts for clients who are on it. */
  from: isoDate,
  reach: reachSchema,
});
export type PlanChange = z.input<typeof changeSchema>;

const savedPlan = z.object({ plan: planSchema, tasks: syncSchema, changeId: id });
const done = z.object({ tasks: syncSchema, changeId: id });
const follow = { follow: id.optional() };
/** A client's schedules that are put back to what their plan says. */
const asPlanSchema = z.object({ schedules: z.array(id).min(1).max(MOST_PUT_ON), from: isoDate, reach: reachSchema });
const leaveOutSchema = z.object({
  version: z.number().int(),
  item: key,
  assetId: id.nullable().default(null),
  /** Null takes it in again. */
  why: line('Why it is left out', 200).nullable(),
  from: isoDate,
});
export type LeaveOutInput = z.input<typeof leaveOutSchema>;
const MAX_BYTES = 8 * 1024 * 1024;

export const planEndpoints = {
  list: endpoint(planPaths.list, { heavy: true, answer: z.object({ plans: z.array(planLine) }) }),
  one: endpoint(planPaths.one, { answer: planSchema }),
  create: endpoint(planPaths.create, { body: planInputSchema, answer: z.object({ plan: planSchema, changeId: id }) }),
  change: endpoint(planPaths.change, { heavy: true, body: changeSchema.extend(follow), answer: savedPlan }),
  impact: endpoint(planPaths.impact, { heavy: true, body: changeSchema, answer: impactSchema }),
  /** What a plan comes to by the month, as it is and as it would be; of one that is not kept yet, for one client. */
  look: endpoint(planPaths.look, {
    heavy: true,
    body: z.object({ planId: id.nullable(), plan: planInputSchema, from: isoDate }),
    answer: lookSchema,
  }),
  archive: endpoint(planPaths.archive, {
    body: z.object({ version: z.number().int(), archived: z.boolean() }),
    answer: z.object({ plan: planSchema, changeId: id }),
  }),
  /** Who is on it, by name: all of them, or those with something of their own. */
  clients: endpoint(planPaths.clients, {
    query: z.object({ own: z.literal('yes').optional(), after: z.string().max(400).optional() }),
    answer: z.object({
      clients: z.array(onPlanLine),
      more: z.string().nullable(),
      counts: z.object({ all: z.number().int(), own: z.number().int(), changes: z.number().int() }),
    }),
  }),
  ofClient: endpoint(planPaths.ofClient, { answer: z.object({ plans: z.array(planOfClient) }) }),
  putOn: endpoint(planPaths.putOn, {
    heavy: true,
    maxBytes: MAX_BYTES,
    body: putOnSchema.extend(follow),
    answer: done.extend({ clients: z.number().int() }),
  }),
  lookAtPuttingOn: endpoint(planPaths.lookAtPuttingOn, {
    heavy: true,
    maxBytes: MAX_BYTES,
    body: putOnSchema,
    answer: putOnLookSchema,
  }),
  /** Whose year on a plan that asks ends soon, or has ended, by plan and name. */
  rolling: endpoint(planPaths.rolling, {
    answer: z.object({ clients: z.array(rollingLine), isMore: z.boolean() }),
  }),
  rollOn: endpoint(planPaths.rollOn, { heavy: true, body: rollSchema, answer: done }),
  impactOfRollingOn: endpoint(planPaths.impactOfRollingOn, { heavy: true, body: rollSchema, answer: impactSchema }),
  gather: endpoint(planPaths.gather, {
    heavy: true,
    body: gatherSchema,
    answer: z.object({ schedules: z.number().int(), clients: z.number().int(), own: z.number().int(), changeId: id }),
  }),
  takeOff: endpoint(planPaths.takeOff, { heavy: true, body: takeOffSchema, answer: done }),
  impactOfTakingOff: endpoint(planPaths.impactOfTakingOff, { heavy: true, body: takeOffSchema, answer: impactSchema }),
  leaveOut: endpoint(planPaths.leaveOut, { heavy: true, body: leaveOutSchema, answer: done }),
  impactOfLeavingOut: endpoint(planPaths.impactOfLeavingOut, {
    heavy: true,
    body: leaveOutSchema,
    answer: impactSchema,
  }),
  asPlan: endpoint(planPaths.asPlan, { heavy: true, body: asPlanSchema, answer: done }),
  impactOfAsPlan: endpoint(planPaths.impactOfAsPlan, { heavy: true, body: asPlanSchema, answer: impactSchema }),
};
