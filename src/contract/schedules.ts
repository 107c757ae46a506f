import { z } from 'zod';
import { type Revision, TASK_STATES, tryDayOfIso } from '../core/index.ts';
import { assignmentRuleSchema } from './assignment.ts';
import { endpoint } from './endpoint.ts';
import { id, isoDate, isoTime, named } from './fields.ts';
import { impactSchema, reachSchema } from './impact.ts';
import { schedulePaths } from './paths.ts';
import {
  exceptionSchema,
  overlapSchema,
  pauseSchema,
  recurrenceSchema,
  revisionSchema,
  timingSchema,
} from './recurrence.ts';
import { estimate } from './work.ts';

/** What a task says of its own keeps to the limits of a template; what was stored before they were asked stays readable. */
function checkOwn({ own = {} }: Revision, context: z.RefinementCtx): void {
  for (const [step, { estimateMinutes }] of Object.entries(own)) {
    const read = estimate.optional().safeParse(estimateMinutes);
    for (const { message } of read.error?.issues ?? [])
      context.addIssue({ code: 'custom', path: ['own', step, 'estimateMinutes'], message });
  }
}

/** What was changed by hand beside the rule. */
const byHandFields = {
  pauses: z.array(pauseSchema).max(200, 'Two hundred pauses at most.'),
  exceptions: z.array(exceptionSchema).max(2000, 'Two thousand exceptions at most.'),
  revisions: z
    .array(revisionSchema.superRefine(checkOwn))
    .max(100, 'A hundred revisions at most.')
    .refine(
      (revisions) => new Set(revisions.map(({ from }) => from)).size === revisions.length,
      'Two revisions begin on the same day.',
    ),
};

/** The same by itself, for whatever else writes it: how much of each there can be. */
export const byHandSchema = z.object(byHandFields).partial();

export const scheduleInputSchema = z.object({
  templateId: id,
  /** For whom; both null when the work is the workspace's own. */
  clientId: id.nullable(),
  assetId: id.nullable(),
  /** Who does it. */
  assignment: assignmentRuleSchema,
  recurrence: recurrenceSchema,
  timing: timingSchema,
  overlap: overlapSchema,
  pauses: byHandFields.pauses.default([]),
  exceptions: byHandFields.exceptions.default([]),
  revisions: byHandFields.revisions.default([]),
});
export type ScheduleInput = z.infer<typeof scheduleInputSchema>;

/** One pennant of a string. */
export const pastTaskSchema = z.object({
  taskId: id,
  on: isoDate,
  state: z.enum([...TASK_STATES, 'coming']),
  late: z.boolean(),
  heldUp: z.boolean(),
});
export type PastTask = z.infer<typeof pastTaskSchema>;

export const scheduleSchema = z.object({
  id,
  version: z.number().int(),
  template: named.extend({
    category: z.string().nullable(),
    /** Of the whole set. */
    estimateMinutes: z.number().int(),
    titlePattern: z.string(),
    isArchived: z.boolean(),
  }),
  client: named.nullable(),
  asset: named.nullable(),
  assignment: assignmentRuleSchema,
  /** The same in words. */
  who: z.string(),
  recurrence: recurrenceSchema,
  timing: timingSchema,
  overlap: overlapSchema,
  /** Where the next waits for one that is still open: for which, for how long, and whether that is longer than allowed. */
  waits: z.object({ forOn: isoDate, days: z.number().int(), isTooLong: z.boolean() }).nullable(),
  pauses: z.array(pauseSchema),
  exceptions: z.array(exceptionSchema),
  revisions: z.array(revisionSchema),
  /** The last task, for rules that wait for it; told with a single schedule, in lists only where its rule does. */
  last: z
    .object({
      nominal: isoDate,
      count: z.number().int(),
      reached: z.object({ done: isoDate.nullable(), underWay: isoDate.nullable(), toCheck: isoDate.nullable() }),
    })
    .nullable(),
  /** The rule in force today, in words, and the one that takes over from it. */
  phrase: z.string(),
  nextPhrase: z.object({ from: isoDate, phrase: z.string() }).nullable(),
  /** The day on which it was taken out on purpose. */
  deletedOn: isoDate.nullable(),
  state: z.enum(['running', 'paused', 'ended', 'problem']),
  /** Why no plan can be computed, when `state` is "problem". */
  problem: z.string().nullable(),
  next: isoDate.nullable(),
  timesAYear: z.number().int(),
  lastEight: z.array(pastTaskSchema).max(8),
  lateCount: z.number().int(),
  /** Dates of the rule, not long past or to come, whose task was deleted on purpose. */
  deleted: z.array(isoDate),
  since: isoDate,
});
export type Schedule = z.infer<typeof scheduleSchema>;
/** With what its client is on, by name; null where it is of no client. */
const wholeSchedule = scheduleSchema.extend({ plans: z.array(named).nullable() });
export type WholeSchedule = z.infer<typeof wholeSchedule>;

/** What a saved change did to tasks. */
export const syncSchema = z.object({
  made: z.number().int(),
  changed: z.number().int(),
  removed: z.number().int(),
  /** Left alone because someone has started, finished or edited them, or they show already. */
  kept: z.number().int(),
});
export type Sync = z.infer<typeof syncSchema>;

/** What is to be different about one schedule; what is left out stays as it is. */
const schedulePatchSchema = z.object({
  id,
  version: z.number().int(),
  set: z
    .object({
      assignment: assignmentRuleSchema,
      recurrence: recurrenceSchema,
      timing: timingSchema,
      // Without its default: what is not said is not changed.
      overlap: overlapSchema.removeDefault(),
      ...byHandFields,
      isDeleted: z.boolean(),
    })
    .partial()
    .refine((set) => Object.keys(set).length > 0, 'Say what is to be different.'),
});
export type SchedulePatch = z.output<typeof schedulePatchSchema>;

export const MAX_PATCHES = 5000;
const schedulePatchesSchema = z.object({
  changes: z
    .array(schedulePatchSchema)
    .min(1, 'Say what is to be different.')
    .max(MAX_PATCHES, 'Five thousand schedules at most.')
    .refine(
      (changes) => new Set(changes.map((one) => one.id)).size === changes.length,
      'A schedule stands there twice.',
    ),
  reach: reachSchema,
});

/** A schedule as a line of a list. */
export const scheduleLineSchema = scheduleSchema
  .pick({
    id: true,
    version: true,
    client: true,
    asset: true,
    assignment: true,
    who: true,
    phrase: true,
    nextPhrase: true,
    state: true,
    problem: true,
    next: true,
    timesAYear: true,
    lastEight: true,
    lateCount: true,
    waits: true,
  })
  .extend({ template: named });
export type ScheduleLine = z.infer<typeof scheduleLineSchema>;

export const SCHEDULE_STATES = ['running', 'paused', 'late', 'nobody', 'ended', 'problem'] as const;
export const SCHEDULE_ORDERS = ['next', 'name', 'who'] as const;

/** Which schedules, and in which order; what is left out leaves nothing out. */
export const scheduleFilterSchema = z.object({
  /** Any words of template, client, asset, phrase and person. */
  find: z.string().max(200).optional(),
  category: z.string().max(100).optional(),
  person: id.optional(),
  templateId: id.optional(),
  state: z.enum(SCHEDULE_STATES).optional(),
  /** Those that have a date from this day to that. */
  from: isoDate.optional(),
  to: isoDate.optional(),
  order: z.enum(SCHEDULE_ORDERS).optional(),
});
/** What is no date is refused by its own field. */
const isShortSpan = ({ from = '', to = '' }: { from?: string | undefined; to?: string | undefined }) => {
  const [first, last] = [tryDayOfIso(from), tryDayOfIso(to)];
  return first === null || last === null || (first <= last && last - first <= MOST_SPAN_DAYS);
};
const SPAN_WORDS = { path: ['to'], message: 'From one day to a later one, two years apart at most.' };
export type ScheduleFilter = z.infer<typeof scheduleFilterSchema>;

const MOST_SPAN_DAYS = 732;
/** Lines of a page. */
export const LINES_A_PAGE = 50;
/** Schedules told whole at once. */
export const MOST_WHOLE = 40;
/** Ids told at once. */
export const IDS_A_PAGE = 2000;
const MOST_SCHEDULES = 1_000_000;
/** People whose work at a time is told at once: as many as an order of turns has. */
export const MOST_TIMED_PEOPLE = 60;
const start = z.coerce.number().int().min(0).max(MOST_SCHEDULES).optional();

const saved = z.object({ schedule: scheduleSchema, tasks: syncSchema, changeId: id.nullable() });

export const scheduleEndpoints = {
  /** A page of those that fit, from any place of the list on. */
  list: endpoint(schedulePaths.list, {
    heavy: true,
    query: scheduleFilterSchema.extend({ start }).refine(isShortSpan, SPAN_WORDS),
    answer: z.object({
      start: z.number().int(),
      lines: z.array(scheduleLineSchema),
      /** Of those that fit, of all, and of all those that have a problem. */
      counts: z.object({ fitting: z.number().int(), all: z.number().int(), problems: z.number().int() }),
    }),
  }),
  /** All that fit, in their order, by their ids and versions alone; page by page. */
  fitting: endpoint(schedulePaths.fitting, {
    heavy: true,
    query: scheduleFilterSchema.extend({ start }).refine(isShortSpan, SPAN_WORDS),
    answer: z.object({
      ids: z.array(id),
      versions: z.array(z.number().int()),
      /** Where the next page begins. */
      more: z.number().int().nullable(),
      /** The same on every page, as long as none of those that fit has changed: pages with different marks don't belong together. */
      mark: z.string(),
      isAll: z.boolean(),
    }),
  }),
  /** Work at a time of its day that some people have on some days, to tell what a schedule would add at the same time. */
  timed: endpoint(schedulePaths.timed, {
    query: z
      .object({
        /** Ids, with commas between them. */
        people: z.string().max(40 * MOST_TIMED_PEOPLE),
        from: isoDate,
        to: isoDate,
        /** The schedule whose own work is left out. */
        without: id.optional(),
      })
      .refine(({ people }) => z.array(id).min(1).max(MOST_TIMED_PEOPLE).safeParse(people.split(',')).success, {
        path: ['people'],
        message: `One person at least, ${MOST_TIMED_PEOPLE} at the most.`,
      })
      .refine(isShortSpan, SPAN_WORDS),
    answer: z.object({
      work: z.array(
        z.object({
          personId: id,
          on: isoDate,
          startTime: isoTime,
          dueTime: isoTime.nullable(),
          minutes: z.number().int(),
          title: z.string(),
        }),
      ),
      /** Whether there is more than is told: then days before the last one told are whole. */
      hasMore: z.boolean(),
    }),
  }),
  /** What those that fit come to. */
  figures: endpoint(schedulePaths.figures, {
    heavy: true,
    query: scheduleFilterSchema.refine(isShortSpan, SPAN_WORDS),
    answer: z.object({
      schedules: z.number().int(),
      clients: z.number().int(),
      people: z.number().int(),
      /** Dates a year of those that run. */
      timesAYear: z.number().int(),
    }),
  }),
  /** Some of them whole; those that are gone are left out. */
  whole: endpoint(schedulePaths.whole, {
    heavy: true,
    body: z.object({ ids: z.array(id).max(MOST_WHOLE, 'Forty schedules at once, at most.') }),
    answer: z.object({ schedules: z.array(wholeSchedule) }),
  }),
  one: endpoint(schedulePaths.one, { answer: scheduleSchema }),
  create: endpoint(schedulePaths.create, { heavy: true, body: scheduleInputSchema, answer: saved }),
  change: endpoint(schedulePaths.change, {
    heavy: true,
    body: scheduleInputSchema.extend({ version: z.number().int(), reach: reachSchema }),
    answer: saved,
  }),
  /** What saving it would do. */
  impact: endpoint(schedulePaths.impact, {
    heavy: true,
    body: scheduleInputSchema.extend({ version: z.number().int(), reach: reachSchema }),
    answer: impactSchema,
  }),
  /** Fields of many at once: saved together, undone together. */
  changeSeveral: endpoint(schedulePaths.changeSeveral, {
    heavy: true,
    maxBytes: 8 * 1024 * 1024,
    body: schedulePatchesSchema,
    answer: z.object({ tasks: syncSchema, changeId: id }),
  }),
  impactOfSeveral: endpoint(schedulePaths.impactOfSeveral, {
    heavy: true,
    maxBytes: 8 * 1024 * 1024,
    body: schedulePatchesSchema,
    answer: impactSchema,
  }),
};
export type TimedAnswer = z.infer<typeof scheduleEndpoints.timed.answer>;
