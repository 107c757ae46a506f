import { z } from 'zod';
import { tryDayOfIso, WALL_SPANS, WALL_UNITS } from '../core/index.ts';
import { endpoint } from './endpoint.ts';
import { id, isoDate, named } from './fields.ts';
import { impactSchema } from './impact.ts';
import { wallchartPaths } from './paths.ts';
import { recurrenceSchema, timingSchema } from './recurrence.ts';
import { projectedLineSchema, taskLineSchema } from './tasks.ts';

/** What a row of the wallchart is. */
export const WALL_ROWS = ['asset', 'site', 'client', 'person', 'role', 'template', 'schedule'] as const;
export type WallRows = (typeof WALL_ROWS)[number];
/** To what schedules can be added, row by row. */
export const ROWS_WITH_SCHEDULES = ['asset', 'client', 'person'] as const satisfies readonly WallRows[];

/** Rows told at once. */
export const WALL_ROWS_AT_ONCE = 500;
/** What is told one by one of the marks in some cells, tasks and dates each. */
export const MOST_WALL_MARKS = 500;
const MOST_BLOCKS = 100;
/** Days of a wallchart at most: a leap year in whole weeks. */
const MOST_DAYS = 380;

/** A row by what it is of: an id, or the name of a role; nobody's where it is of people. */
const key = z.string().min(1).max(100);
export const WALL_NOBODY = 'nobody';

/** Whose work is shown; the words of the list of tasks that schedules can answer to as well. */
const whose = z.object({
  category: z.string().max(100).optional(),
  template: id.optional(),
  client: id.optional(),
  site: id.optional(),
  person: id.optional(),
  role: z.string().max(60).optional(),
  team: z.string().max(60).optional(),
});
export type WallFilter = z.infer<typeof whose>;

const rows = z.enum(WALL_ROWS).default('asset');
const asked = whose.extend({
  rows,
  /** Words of the names of rows. */
  find: z.string().max(200).optional(),
  /** Rows without any work as well. */
  empty: z.literal('yes').optional(),
});

const restSchema = z.object({ from: isoDate, to: isoDate, because: z.enum(['resting', 'away']) });

const rowSchema = z.object({
  key,
  name: z.string(),
  /** What stands beside the name. */
  detail: z.string(),
  /** What rows it stands with; empty for those with none. */
  group: z.string(),
  /** Three numbers for each look of a cell: see `cellsOfMarks`. */
  marks: z.array(z.number().int()),
  /** When all of its schedules rest, or the person is away. */
  rests: z.array(restSchema),
});
export type WallRow = z.infer<typeof rowSchema>;

/** Cells in a rectangle: some rows, some days. */
const blockSchema = z
  .object({
    keys: z.array(key).min(1).max(WALL_ROWS_AT_ONCE),
    from: isoDate,
    to: isoDate,
  })
  .refine(
    ({ from, to }) => {
      // What is no date is refused by its own field.
      const [first, last] = [tryDayOfIso(from), tryDayOfIso(to)];
      return first === null || last === null || (first <= last && last - first < MOST_DAYS);
    },
    { path: ['to'], message: 'From one day to a later one, a year apart at most.' },
  );
export type WallBlock = z.infer<typeof blockSchema>;

/** A date that a schedule foresees, as it is named. */
const nominalSchema = z.object({
  scheduleId: id,
  nominalDate: isoDate,
  stepKey: z.string().max(40),
  head: z.string().max(40),
});
const foreseenSchema = projectedLineSchema.extend(nominalSchema.shape).extend({
  /** Of the schedule, as it was seen. */
  version: z.number().int(),
  assignee: named.nullable(),
});
export type WallDate = z.infer<typeof foreseenSchema>;

/** How far a change of marks goes: to these, to later ones of their schedules too, or to all that are not done. */
export const WALL_REACHES = ['these', 'later', 'series'] as const;
export type WallReach = (typeof WALL_REACHES)[number];

const deedSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('give'), personId: id.nullable() }),
  z.object({
    kind: z.literal('move'),
    days: z
      .number()
      .int('Whole days.')
      .min(-366, 'A year at most.')
      .max(366, 'A year at most.')
      .refine((days) => days !== 0, 'By a day at least.'),
  }),
  /** Beyond these, the schedules pause. Why is kept with the tasks: of dates that are not made yet nothing is asked. */
  z.object({ kind: z.literal('skip'), reason: z.string().trim().max(500) }),
]);
export type WallDeed = z.infer<typeof deedSchema>;

/** Whether it has to be said why something is skipped: wherever a task may be. */
export const asksWhy = ({ tasks, reach }: { readonly tasks: readonly unknown[]; readonly reach: WallReach }): boolean =>
  tasks.length > 0 || reach !== 'these';

const changeSchema = z
  .object({
    tasks: z.array(z.object({ id, version: z.number().int() })).max(MOST_WALL_MARKS),
    dates: z.array(nominalSchema.extend({ version: z.number().int() })).max(MOST_WALL_MARKS),
    reach: z.enum(WALL_REACHES),
    deed: deedSchema,
  })
  .refine(({ tasks, dates }) => tasks.length + dates.length > 0, {
    path: ['tasks'],
    message: 'Choose some marks first.',
  });
export type WallChange = z.output<typeof changeSchema>;

const additionSchema = z.object({
  rows: z.enum(ROWS_WITH_SCHEDULES),
  keys: z
    .array(id)
    .min(1, 'Choose some rows first.')
    .max(WALL_ROWS_AT_ONCE, `${WALL_ROWS_AT_ONCE} rows at once, at most.`)
    .refine((keys) => new Set(keys).size === keys.length, 'A row stands there twice.'),
  templateId: id,
  recurrence: recurrenceSchema,
  timing: timingSchema,
});
export type WallAddition = z.output<typeof additionSchema>;

export const wallchartEndpoints = {
  /** Rows from any place on, with what stands in their cells. */
  chart: endpoint(wallchartPaths.chart, {
    heavy: true,
    query: asked.extend({
      span: z.enum(WALL_SPANS).default('year'),
      by: z.enum(WALL_UNITS).default('week'),
      /** A day of the first month; left out, around today. */
      from: isoDate.optional(),
      start: z.coerce.number().int().min(0).max(1_000_000).default(0),
    }),
    answer: z.object({
      /** The first day; days of a column, and how many of them. */
      first: isoDate,
      length: z.number().int(),
      columns: z.number().int(),
      start: z.number().int(),
      rows: z.array(rowSchema),
      /** Of all rows. */
      count: z.number().int(),
      /** What is not made yet is told up to this day. */
      foreseenUpTo: isoDate,
      /** Of what is asked for by its id. */
      names: z.object({ client: named.nullable(), site: named.nullable(), template: named.nullable() }),
    }),
  }),
  /** What stands in some cells, one by one: the first of it, and how much it is. */
  marks: endpoint(wallchartPaths.marks, {
    heavy: true,
    body: whose.extend({ rows, blocks: z.array(blockSchema).min(1).max(MOST_BLOCKS) }),
    answer: z.object({
      tasks: z.array(taskLineSchema),
      dates: z.array(foreseenSchema),
      count: z.object({ tasks: z.number().int(), dates: z.number().int() }),
    }),
  }),
  change: endpoint(wallchartPaths.change, {
    heavy: true,
    body: changeSchema,
    answer: z.object({ changed: z.number().int(), schedules: z.number().int(), changeId: id.nullable() }),
  }),
  impactOfChange: endpoint(wallchartPaths.impactOfChange, { heavy: true, body: changeSchema, answer: impactSchema }),
  /** The same schedule for each of some rows. */
  add: endpoint(wallchartPaths.add, {
    heavy: true,
    body: additionSchema,
    answer: z.object({ schedules: z.number().int(), made: z.number().int(), changeId: id }),
  }),
  impactOfAdding: endpoint(wallchartPaths.impactOfAdding, { heavy: true, body: additionSchema, answer: impactSchema }),
};
