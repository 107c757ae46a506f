import { z } from 'zod';
import { TASK_STATES } from '../core/index.ts';
import { endpoint } from './endpoint.ts';
import { id, isoDate, named } from './fields.ts';
import { impactSchema, reachSchema } from './impact.ts';
import {
  exceptionSchema,
  overlapSchema,
  pauseSchema,
  recurrenceSchema,
  revisionSchema,
  timingSchema,
} from './recurrence.ts';

/** What was changed by hand beside the rule. */
const byHandFields = {
  pauses: z.array(pauseSchema).max(200, 'Two hundred pauses at most.'),
  exceptions: z.array(exceptionSchema).max(2000, 'Two thousand exceptions at most.'),
  revisions: z
    .array(revisionSchema)
    .max(100, 'A hundred revisions at most.')
    .refine(
      (revisions) => new Set(revisions.map(({ from }) => from)).size === revisions.length,
      'Two revisions begin on the same day.',
    ),
};

export const scheduleInputSchema = z.object({
  templateId: id,
  /** For whom; both null when the work is the workspace's own. */
  clientId: id.nullable(),
  assetId: id.nullable(),
  /** Who does it; null for nobody yet. */
  assigneeId: id.nullable(),
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
  assignee: named.nullable(),
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
      assigneeId: id.nullable(),
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

const saved = z.object({ schedule: scheduleSchema, tasks: syncSchema, changeId: id.nullable() });

export const scheduleEndpoints = {
  list: endpoint({
    method: 'GET',
    path: '/schedules',
    heavy: true,
    query: z.object({ after: z.string().max(400).optional(), templateId: id.optional() }),
    answer: z.object({ schedules: z.array(scheduleSchema), more: z.string().nullable() }),
  }),
  one: endpoint({ method: 'GET', path: '/schedules/:scheduleId', answer: scheduleSchema }),
  create: endpoint({ method: 'POST', path: '/schedules', heavy: true, body: scheduleInputSchema, answer: saved }),
  change: endpoint({
    method: 'PUT',
    path: '/schedules/:scheduleId',
    heavy: true,
    body: scheduleInputSchema.extend({ version: z.number().int(), reach: reachSchema }),
    answer: saved,
  }),
  /** What saving it would do. */
  impact: endpoint({
    method: 'POST',
    path: '/schedules/:scheduleId/impact',
    heavy: true,
    body: scheduleInputSchema.extend({ version: z.number().int(), reach: reachSchema }),
    answer: impactSchema,
  }),
  /** Fields of many at once: saved together, undone together. */
  changeSeveral: endpoint({
    method: 'POST',
    path: '/schedules/changes',
    heavy: true,
    maxBytes: 8 * 1024 * 1024,
    body: schedulePatchesSchema,
    answer: z.object({ tasks: syncSchema, changeId: id }),
  }),
  impactOfSeveral: endpoint({
    method: 'POST',
    path: '/schedules/changes/impact',
    heavy: true,
    maxBytes: 8 * 1024 * 1024,
    body: schedulePatchesSchema,
    answer: impactSchema,
  }),
};
