import { z } from 'zod';
import { tryDayOfIso } from '../core/index.ts';
import { endpoint } from './endpoint.ts';
import { civilMoment, id, isoDate, isoTime, named, rowsFormSchema } from './fields.ts';
import { logbookPaths } from './paths-later.ts';
import { TASK_GROUPINGS, taskFilterSchema } from './task-list.ts';

/** The longest time that is looked at: five years and some. */
export const MOST_LOG_DAYS = 1_900;
/** Days of a page, lines of a day that is not opened, and lines told of one that is. */
export const LOG_DAYS_A_PAGE = 7;
export const LOG_LINES_A_DAY = 8;
export const MOST_LOG_LINES = 500;
export const LOG_ROWS_A_PAGE = 50;

/** What entries are looked at: all of them, or those alone that went otherwise than planned. */
export const LOG_KINDS = ['all', 'late', 'skipped', 'lapsed', 'sentBack', 'noted', 'toCheck'] as const;
export type LogKind = (typeof LOG_KINDS)[number];
export const LOG_KIND_WORDS: Readonly<Record<LogKind, string>> = {
  all: 'everything',
  late: 'done late',
  skipped: 'skipped',
  lapsed: 'lapsed',
  sentBack: 'sent back',
  noted: 'with a note',
  toCheck: 'still to check',
};

/** What the figures are told by; a schedule beside what tasks are put together by. */
export const LOG_GROUPINGS = [...TASK_GROUPINGS.filter((by) => by !== 'day'), 'schedule'] as const;
export type LogGrouping = (typeof LOG_GROUPINGS)[number];

export const logFilterSchema = taskFilterSchema
  .omit({ are: true, due: true, late: true, offered: true, from: true, to: true })
  .extend({
    /** Due from this day to that, both included. */
    from: isoDate,
    to: isoDate,
    kind: z.enum(LOG_KINDS).default('all'),
  });
export const isSpan = ({ from, to }: { from: string; to: string }) => {
  const [first, last] = [tryDayOfIso(from), tryDayOfIso(to)];
  return first === null || last === null || (first <= last && last - first < MOST_LOG_DAYS);
};
export const SPAN_WORDS = { path: ['to'], message: 'From one day to a later one, five years apart at most.' };
export type LogFilter = z.output<typeof logFilterSchema>;

const figuresSchema = z.object({
  /** Finished by when it was due, or after that. */
  onTime: z.number().int(),
  late: z.number().int(),
  skipped: z.number().int(),
  lapsed: z.number().int(),
  /** Was due, and is still to be done. */
  open: z.number().int(),
});
export type LogFigures = z.infer<typeof figuresSchema>;

const readingSchema = z.object({
  label: z.string(),
  value: z.number(),
  unit: z.string(),
  least: z.number().nullable(),
  most: z.number().nullable(),
});
export type LogReading = z.infer<typeof readingSchema>;

const entrySchema = z.object({
  id,
  title: z.string(),
  client: named.nullable(),
  asset: named.nullable(),
  /** Who did it, or had it. */
  by: z.string().nullable(),
  state: z.enum(['toCheck', 'done', 'skipped', 'lapsed']),
  late: z.boolean(),
  daysLate: z.number().int(),
  dueOn: isoDate,
  dueTime: isoTime.nullable(),
  doneAt: civilMoment.nullable(),
  signedBy: z.string().nullable(),
  wasSentBack: z.boolean(),
  /** How many figures were read, and the first of them that lies out of its limits. */
  readings: z.number().int(),
  outOfLimits: readingSchema.nullable(),
  pictures: z.number().int(),
  /** The first of them, to be shown small. */
  picture: id.nullable(),
  note: z.string(),
});
export type LogEntry = z.infer<typeof entrySchema>;

const daySchema = z.object({
  on: isoDate,
  count: z.number().int(),
  done: z.number().int(),
  /** First what went otherwise than planned, then what has something to show. */
  entries: z.array(entrySchema),
});
export type LogDay = z.infer<typeof daySchema>;

/** Steps whose figures are told over time, and tasks that they are taken from: the latest. */
export const MOST_SERIES = 40;
export const MOST_READ_TASKS = 2_000;

const seriesSchema = z.object({
  series: z.string(),
  label: z.string(),
  unit: z.string(),
  /** The template, and what it was read at. */
  template: z.string(),
  at: z.string(),
  outside: z.number().int(),
  /** The earliest first, each with the limits that held then. */
  readings: z.array(
    z.object({
      taskId: id,
      on: isoDate,
      value: z.number(),
      least: z.number().nullable(),
      most: z.number().nullable(),
    }),
  ),
});
export type LogSeries = z.infer<typeof seriesSchema>;

/**
 * What was done with tasks and left no entry of their own: these were deleted, or given from one to another, or a notice of
 * them went.
 */
export const LOGGED_CHANGES = ['deleted', 'given', 'announced'] as const;
const loggedChangeSchema = z.object({
  id,
  at: civilMoment,
  /** Null for the server itself. */
  by: z.string().nullable(),
  /** Null for what is not there any more. */
  taskId: id.nullable(),
  title: z.string(),
  about: z.string().nullable(),
  dueOn: isoDate,
  /** Who had it, and who has it since; null for nobody. */
  from: z.string().nullable(),
  to: z.string().nullable(),
  /** The notice that went; null where none did. */
  notice: z.object({ id, way: z.string(), sentOn: isoDate, visitOn: isoDate }).nullable(),
});
export type LoggedChange = z.infer<typeof loggedChangeSchema>;

const rowSchema = figuresSchema.extend({
  /** Empty for those without. */
  key: z.string(),
  name: z.string().nullable(),
  detail: z.string(),
});
export type LogRow = z.infer<typeof rowSchema>;

export const logbookEndpoints = {
  /** How much was on time by the week, all together, and in as many days before. */
  rates: endpoint(logbookPaths.rates, {
    heavy: true,
    query: logFilterSchema.refine(isSpan, SPAN_WORDS),
    answer: z.object({
      weeks: z.array(figuresSchema.extend({ monday: isoDate })),
      all: figuresSchema,
      before: figuresSchema,
      entries: z.number().int(),
    }),
  }),
  /** Days with entries, the newest first, from the day before one. */
  days: endpoint(logbookPaths.days, {
    heavy: true,
    query: logFilterSchema.extend({ before: isoDate.optional() }).refine(isSpan, SPAN_WORDS),
    answer: z.object({ days: z.array(daySchema), more: isoDate.nullable() }),
  }),
  /** All entries of one day. */
  day: endpoint(logbookPaths.day, {
    heavy: true,
    query: logFilterSchema.extend({ on: isoDate }).refine(isSpan, SPAN_WORDS),
    answer: daySchema,
  }),
  /** The entries as lines of a table. */
  csv: endpoint(logbookPaths.csv, {
    heavy: true,
    query: logFilterSchema.extend({ as: rowsFormSchema }).refine(isSpan, SPAN_WORDS),
    answer: z.string(),
  }),
  /** The figures of each client, schedule and so on: what was least on time first. */
  by: endpoint(logbookPaths.by, {
    heavy: true,
    query: logFilterSchema
      .extend({ by: z.enum(LOG_GROUPINGS), start: z.coerce.number().int().min(0).max(1_000_000).default(0) })
      .refine(isSpan, SPAN_WORDS),
    answer: z.object({ start: z.number().int(), count: z.number().int(), rows: z.array(rowSchema) }),
  }),
  /** What was deleted or given on in the time, by when that was, the latest first, from where the page before ended. */
  changes: endpoint(logbookPaths.changes, {
    heavy: true,
    query: logFilterSchema
      .omit({ kind: true })
      .extend({ what: z.enum(LOGGED_CHANGES), after: z.string().max(200).optional() })
      .refine(isSpan, SPAN_WORDS),
    answer: z.object({ changes: z.array(loggedChangeSchema), more: z.string().nullable() }),
  }),
  /** What was read, step by step over time: what lies out of its limits most first. */
  readings: endpoint(logbookPaths.readings, {
    heavy: true,
    query: logFilterSchema.refine(isSpan, SPAN_WORDS),
    answer: z.object({
      series: z.array(seriesSchema),
      /** How many steps there are in all. */
      count: z.number().int(),
      /** The first day of what is told; null where it is all of the time. */
      since: isoDate.nullable(),
    }),
  }),
};
