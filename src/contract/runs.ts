import { z } from 'zod';
import { endpoint } from './endpoint.ts';
import { civilMoment, id, isoDate, named } from './fields.ts';
import { runPaths } from './paths.ts';
import { taskLineSchema } from './tasks.ts';

const LEFT_OUT = ['day off', 'closed', 'skipped', 'paused', 'same day as another', 'deleted'] as const;

/** One making of tasks: when, why, how long, what came of it. */
export const runSchema = z.object({
  id,
  why: z.enum(['daily', 'startup', 'byHand', 'fill']),
  by: z.string().nullable(),
  startedAt: civilMoment,
  milliseconds: z.number().int(),
  made: z.number().int(),
  already: z.number().int(),
  /** Schedules that could not be planned. */
  problemCount: z.number().int(),
  /** Dates within the horizon that made no task, added up by why. */
  leftOut: z.array(z.object({ because: z.enum(LEFT_OUT), dates: z.number().int() })),
  /** Tasks that lapsed because the next one came. */
  lapsed: z.number().int(),
  /** Of a fill: its period, and how many tasks it is to make; of a run of one schedule, the day as of which. */
  from: isoDate.nullable(),
  to: isoDate.nullable(),
  total: z.number().int(),
  scheduleCount: z.number().int(),
  state: z.enum(['running', 'done', 'undone']),
});
export type Run = z.infer<typeof runSchema>;

/** What a run has to tell of single schedules. */
export const runDetailsSchema = z.object({
  problems: z.array(z.object({ scheduleId: id, message: z.string() })),
  /** Schedules whose next waits for one that is still open, longer than they should. */
  waits: z.array(z.object({ scheduleId: id, days: z.number().int() })),
  /** Dates within the horizon that made no task, and why. */
  leftOut: z.array(z.object({ scheduleId: id, because: z.enum(LEFT_OUT), dates: z.number().int() })),
});
export type RunDetails = z.infer<typeof runDetailsSchema>;

/** The longest period that can be filled in one go. */
export const MAX_FILL_DAYS = 800;

const fillSchema = z.object({
  from: isoDate,
  to: isoDate,
  /** Empty for all of them. */
  scheduleIds: z.array(id).max(5000, 'Five thousand schedules at most.').default([]),
});
export type FillInput = z.output<typeof fillSchema>;

const fillCounts = {
  /** Tasks that would be made, and those that are there already. */
  new: z.number().int(),
  there: z.number().int(),
  /** Dates without a task, by what stands in the way. */
  paused: z.number().int(),
  dayOff: z.number().int(),
  skipped: z.number().int(),
  deleted: z.number().int(),
};

/** What a fill would do for one schedule. */
const fillRowSchema = z.object({
  scheduleId: id,
  templateId: id,
  template: z.string(),
  about: z.string().nullable(),
  ...fillCounts,
  /** Why it can't be planned, or why it has no dates here. */
  remark: z.string(),
});
export type FillRow = z.infer<typeof fillRowSchema>;

/** What a fill would do on one day, over all its schedules. */
const fillDaySchema = z.object({ on: isoDate, ...fillCounts });
export type FillDay = z.infer<typeof fillDaySchema>;

/** What the run of a day makes of one schedule. */
const runOneSchema = z.object({
  tasks: z.array(
    z.object({
      title: z.string(),
      on: isoDate,
      appearsOn: isoDate,
      dueOn: isoDate,
      who: z.string().nullable(),
      fate: z.enum(['new', 'there', 'deleted']),
    }),
  ),
  leftOut: z.array(z.object({ on: isoDate, because: z.enum(LEFT_OUT) })),
  /** The first that waits for one that is still open. */
  waitsFrom: isoDate.nullable(),
  /** Why it can't be planned. */
  problem: z.string().nullable(),
  /** Its line in the log, where it was for real. */
  run: runSchema.nullable(),
});
export type RunOne = z.infer<typeof runOneSchema>;

export const runEndpoints = {
  last: endpoint(runPaths.last, { answer: z.object({ run: runSchema.nullable() }) }),
  list: endpoint(runPaths.list, { answer: z.object({ runs: z.array(runSchema) }) }),
  one: endpoint(runPaths.one, {
    heavy: true,
    answer: z.object({
      run: runSchema,
      /** The first of each that it has to tell. */
      details: runDetailsSchema,
      /** How many it has to tell beyond these. */
      more: z.number().int(),
      /** What the schedules are called that it tells of; those that are gone are left out. */
      schedules: z.array(named),
      /** The first of the tasks that it made and that are still there. */
      tasks: z.array(taskLineSchema),
      /** How many of them there are. */
      there: z.number().int(),
      /** Of those the ones that taking it back would leave, because somebody has worked on them; null where it can't be taken back. */
      keeps: z.number().int().nullable(),
    }),
  }),
  /** Runs one schedule as of any day, as a rehearsal or for real. */
  runOne: endpoint(runPaths.runOne, {
    heavy: true,
    body: z.object({ asOf: isoDate, isRehearsal: z.boolean() }),
    answer: runOneSchema,
  }),
  runNow: endpoint(runPaths.runNow, { heavy: true, answer: z.object({ run: runSchema }) }),
  rehearse: endpoint(runPaths.rehearse, {
    heavy: true,
    body: fillSchema,
    answer: z.object({ rows: z.array(fillRowSchema), days: z.array(fillDaySchema) }),
  }),
  fill: endpoint(runPaths.fill, { heavy: true, body: fillSchema, answer: z.object({ run: runSchema }) }),
  undo: endpoint(runPaths.undo, { heavy: true, answer: z.object({ said: z.string() }) }),
};
