import { z } from 'zod';
import { endpoint } from './endpoint.ts';
import { civilMoment, id, isoDate, named } from './fields.ts';
import { overviewPaths } from './paths-later.ts';
import { runDetailsSchema, runSchema } from './runs.ts';
import { taskLineSchema } from './tasks.ts';

/** Lines of each kind that are told; the rest stands in the list behind its number. */
export const OVERVIEW_LINES = 8;
/** Weeks ahead whose load is told, from the next one on; and weeks behind whose work is looked at for how much was on time. */
export const OVERVIEW_WEEKS = 6;
export const ON_TIME_WEEKS = 12;

const linesSchema = z.object({
  count: z.number().int(),
  /** Of all of them. */
  minutes: z.number().int(),
  lines: z.array(taskLineSchema),
});

/** What a schedule foresees for nobody: its first date, and how many there are within the tideline. */
const foreseenSchema = z.object({
  scheduleId: id,
  title: z.string(),
  client: named.nullable(),
  asset: named.nullable(),
  on: isoDate,
  dates: z.number().int(),
});

const askingSchema = z.object({
  id,
  /** Its template's name, and for what it is. */
  name: z.string(),
  about: z.string().nullable(),
  /** What is the matter: it can't be planned, waits for its last one, has come to its end. */
  because: z.enum(['problem', 'waits', 'ended']),
  /** What there is to say beside: the problem, the last date, the days it has waited. */
  said: z.string().nullable(),
  on: isoDate.nullable(),
  days: z.number().int().nullable(),
});
export type AskingSchedule = z.infer<typeof askingSchema>;

const weekSchema = z.object({
  monday: isoDate,
  /** Minutes that are made, and that are foreseen beside, and what everybody together can do. */
  made: z.number().int(),
  foreseen: z.number().int(),
  capacity: z.number().int(),
  /** Whoever has more than they can do, most over first, two at most; and how many there are. */
  over: z.array(z.object({ id, name: z.string(), minutes: z.number().int(), capacity: z.number().int() })),
  overCount: z.number().int(),
  /** Whoever is away on a day of it on which they would work, two at most; and how many there are. */
  away: z.array(named),
  awayCount: z.number().int(),
});
export type OverviewWeek = z.infer<typeof weekSchema>;

const overviewSchema = z.object({
  at: civilMoment,
  today: z.object({
    /** Tasks due today by how far they are. */
    due: z.number().int(),
    done: z.number().int(),
    toCheck: z.number().int(),
    underWay: z.number().int(),
    toStart: z.number().int(),
    dueMinutes: z.number().int(),
    finishedMinutes: z.number().int(),
    /** Of those due today, what is late by its time. */
    lateMinutes: z.number().int(),
    capacity: z.number().int(),
    /** Calls of today beside the tasks; those whose lists are not made yet as the quotas say. */
    calls: z.object({
      all: z.number().int(),
      made: z.number().int(),
      minutes: z.number().int(),
      finishedMinutes: z.number().int(),
    }),
  }),
  late: linesSchema,
  /** But for those that are late. */
  underWay: linesSchema,
  toCheck: linesSchema,
  heldUp: linesSchema,
  /** Tasks that nobody has and that are offered to nobody, due within thirty days; and schedules that foresee dates for nobody. */
  nobody: linesSchema.extend({ foreseenCount: z.number().int(), foreseen: z.array(foreseenSchema) }),
  /** Of all there are. */
  schedules: z.object({ all: z.number().int(), count: z.number().int(), lines: z.array(askingSchema) }),
  weeks: z.array(weekSchema),
  /** The first day after all that is made. */
  horizon: isoDate,
  lastRun: runSchema
    .extend({
      /** Schedules that it made something for. */
      schedules: z.number().int(),
      withNobody: z.number().int(),
      waits: runDetailsSchema.shape.waits,
      waitCount: z.number().int(),
      /** The names of what was left out and what waits, the first few. */
      leftOutNames: z.array(z.string()),
      waitNames: z.array(z.string()),
      nobodyNames: z.array(z.string()),
    })
    .nullable(),
});
export type Overview = z.infer<typeof overviewSchema>;

const onTimeSchema = z.object({ due: z.number().int(), onTime: z.number().int() });
const trendSchema = z.object({
  /** The last twelve whole weeks, in their order. */
  weeks: z.array(onTimeSchema.extend({ monday: isoDate })),
  /** All of them together, and as many weeks before. */
  now: onTimeSchema,
  before: onTimeSchema,
  /** Templates whose work was most often late in them. */
  mostLate: z.array(named.extend({ late: z.number().int() })),
});
export type OnTimeTrend = z.infer<typeof trendSchema>;

export const overviewEndpoints = {
  /** What a manager wants to see in the morning. */
  overview: endpoint(overviewPaths.overview, { heavy: true, answer: overviewSchema }),
  /** How much of what was due was finished by then. */
  onTime: endpoint(overviewPaths.onTime, { heavy: true, answer: trendSchema }),
};
