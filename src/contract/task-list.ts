import { z } from 'zod';
import { DUE_SPANS, tryDayOfIso } from '../core/index.ts';
import { endpoint } from './endpoint.ts';
import { id, isoDate, line, named } from './fields.ts';
import { taskListPaths } from './paths.ts';
import { pastTaskSchema } from './schedules.ts';
import { taskLineSchema } from './tasks.ts';
import { PRIORITIES } from './work.ts';

/** Tasks by how far they are; left out for all of them. */
export const TASKS_THAT_ARE = ['unfinished', 'late', 'open', 'underWay', 'heldUp', 'toCheck', 'done', 'over'] as const;
/** What tasks are put together by; a day is that on which they are due. */
export const TASK_GROUPINGS = ['client', 'asset', 'person', 'template', 'category', 'day'] as const;
export type TaskGrouping = (typeof TASK_GROUPINGS)[number];
/**
 * By what they stand in order: due first, due last, by title, the longest or the shortest first, the most urgent first,
 * finished last first.
 */
export const TASK_ORDERS = ['due', 'latest', 'title', 'longest', 'shortest', 'urgent', 'finished'] as const;
export type TaskOrder = (typeof TASK_ORDERS)[number];

/** What a line may tell besides what every line of a task does: asked for only where it has a column. */
export const BESIDE_COLUMNS = ['lastEight', 'workType', 'template', 'site', 'phrase', 'appears', 'made'] as const;
export type BesideColumn = (typeof BESIDE_COLUMNS)[number];
/** What stands in columns where nobody has chosen others, in their order. */
export const PLAIN_COLUMNS = ['due', 'time', 'task', 'who', 'steps', 'missing', 'priority', 'estimate'] as const;
const OTHER_COLUMNS = ['category', 'client', 'asset', 'signsOff', 'started', 'finished', 'nudged'] as const;
/** All that may stand in a column of a list of tasks. */
export const TASK_COLUMNS = [...PLAIN_COLUMNS, ...BESIDE_COLUMNS, ...OTHER_COLUMNS] as const;
export type TaskColumn = (typeof TASK_COLUMNS)[number];
/** Chosen columns in their order; what the task is stands among them always. */
export const columnsSchema = z
  .array(z.enum(TASK_COLUMNS))
  .refine((all) => new Set(all).size === all.length, 'A column stands there twice.')
  .refine((all) => all.includes('task'), 'A list without the tasks themselves says nothing.');

/** Stands for nobody, no client, no asset. */
export const NONE_OF_THEM = 'none';

/** Lines of a page, of a group that is not opened, and groups of a page. */
export const TASKS_A_PAGE = 60;
export const TASKS_OF_A_GROUP = 5;
export const GROUPS_A_PAGE = 20;

const MOST_SPAN_DAYS = 3660;
const oneOrNone = z.union([id, z.literal(NONE_OF_THEM)]);

export const taskFilterSchema = z.object({
  /** Any words of title, note, client and asset. */
  find: z.string().max(200).optional(),
  are: z.enum(TASKS_THAT_ARE).optional(),
  /** Due on days as they are meant from today. */
  due: z.enum(DUE_SPANS).optional(),
  /** Due from this day to that as well; either may be left out. */
  from: isoDate.optional(),
  to: isoDate.optional(),
  category: z.string().max(100).optional(),
  priority: z.enum(PRIORITIES).optional(),
  person: oneOrNone.optional(),
  /** Without those that are late. */
  late: z.literal('no').optional(),
  /** Whether any one of several may take it. */
  offered: z.enum(['yes', 'no', 'client']).optional(),
  /** Of people who have this role, or offered to it; the same of a team. */
  role: z.string().max(60).optional(),
  team: z.string().max(60).optional(),
  client: oneOrNone.optional(),
  asset: oneOrNone.optional(),
  /** At a site, and at what stands there. */
  site: id.optional(),
  template: oneOrNone.optional(),
  schedule: id.optional(),
  made: z.enum(['by hand', 'by a schedule']).optional(),
  /** Of this type of work, as the task itself says. */
  workType: z.string().max(40).optional(),
});
export type TaskFilter = z.infer<typeof taskFilterSchema>;

const isSpan = ({ from = '', to = '' }: { from?: string | undefined; to?: string | undefined }) => {
  const [first, last] = [tryDayOfIso(from), tryDayOfIso(to)];
  return first === null || last === null || (first <= last && last - first <= MOST_SPAN_DAYS);
};
const SPAN_WORDS = { path: ['to'], message: 'From one day to a later one, ten years apart at most.' };
const order = z.enum(TASK_ORDERS).default('due');
const by = z.enum(TASK_GROUPINGS);

/** What columns are to be told besides, with commas between. */
const beside = z
  .string()
  .max(200)
  .transform((words) => words.split(','))
  .pipe(z.array(z.enum(BESIDE_COLUMNS)))
  .default([]);

/** A task as a line of the list of all, with what was asked for besides. */
const listedTaskSchema = taskLineSchema.extend({
  lastEight: z.array(pastTaskSchema).optional(),
  workType: z.string().nullable().optional(),
  template: z.string().nullable().optional(),
  site: z.string().nullable().optional(),
  /** The rule that it follows, in words. */
  phrase: z.string().nullable().optional(),
  appears: isoDate.optional(),
  made: z.enum(['by hand', 'by its schedule']).optional(),
});
export type ListedTask = z.infer<typeof listedTaskSchema>;

const sumsSchema = z.object({
  count: z.number().int(),
  minutes: z.number().int(),
  late: z.number().int(),
});
export type TaskSums = z.infer<typeof sumsSchema>;

const groupSchema = sumsSchema.extend({
  /** What it is a group of: an id, a day, a category; empty for those without. */
  key: z.string(),
  /** Null for those without. */
  name: z.string().nullable(),
  /** What stands beside the name. */
  detail: z.string(),
  /** The first of them. */
  lines: z.array(listedTaskSchema),
});
export type TaskGroup = z.infer<typeof groupSchema>;

/** Views that one person keeps, and those that are told at once, with those that others share: of each it is counted what it shows. */
export const MOST_VIEWS_EACH = 20;
export const VIEWS_TOLD = 30;

/** A question that is kept under a name: what is shown, how it is put together and in which order. */
const viewFieldsSchema = z.object({
  name: line('The name of a view', 60),
  filter: taskFilterSchema.refine(isSpan, SPAN_WORDS),
  /** Null for one that is not grouped. */
  by: by.nullable(),
  order: z.enum(TASK_ORDERS),
  /** Null for the plain ones. */
  columns: columnsSchema.nullable(),
  /** Whether everybody of the workspace has it. */
  isShared: z.boolean(),
});
const viewSchema = viewFieldsSchema.extend({
  id,
  version: z.number().int(),
  /** How many tasks it shows now, and how many of them are late. */
  count: z.number().int(),
  late: z.number().int(),
  /** Whoever keeps it; null for whoever looks. */
  sharedBy: z.string().nullable(),
});
export type TaskView = z.infer<typeof viewSchema>;
export type TaskViewInput = z.output<typeof viewFieldsSchema>;
const views = z.object({ views: z.array(viewSchema) });

export const taskListEndpoints = {
  /** One's own views, and those that others share. */
  views: endpoint(taskListPaths.views, { heavy: true, answer: views }),
  keepView: endpoint(taskListPaths.keepView, { body: viewFieldsSchema, answer: z.object({ id }) }),
  changeView: endpoint(taskListPaths.changeView, {
    body: viewFieldsSchema.extend({ version: z.number().int() }),
    answer: z.object({ id }),
  }),
  dropView: endpoint(taskListPaths.dropView, { answer: z.object({ id }) }),
  /** Those that fit, from where the page before ended. */
  lines: endpoint(taskListPaths.lines, {
    // Rules in words, and what came before each, are told of many schedules.
    heavy: ({ beside }) => beside !== undefined,
    query: taskFilterSchema
      .extend({
        order,
        beside,
        /** What the page before said. */
        after: z.string().max(600).optional(),
        /** Only those of one group. */
        by: by.optional(),
        key: z.string().max(100).optional(),
      })
      .refine(isSpan, SPAN_WORDS)
      .refine((asked) => (asked.by === undefined) === (asked.key === undefined), {
        path: ['key'],
        message: 'A group is named by what it is put together by, and its key.',
      }),
    answer: z.object({ lines: z.array(listedTaskSchema), more: z.string().nullable() }),
  }),
  /** What they come to, and the names of what is asked for by its id. */
  sums: endpoint(taskListPaths.sums, {
    heavy: true,
    query: taskFilterSchema.refine(isSpan, SPAN_WORDS),
    answer: sumsSchema.extend({
      names: z.object({
        client: named.nullable(),
        asset: named.nullable(),
        site: named.nullable(),
        template: named.nullable(),
        schedule: named.nullable(),
      }),
    }),
  }),
  groups: endpoint(taskListPaths.groups, {
    heavy: true,
    query: taskFilterSchema
      .extend({ by, order, beside, start: z.coerce.number().int().min(0).max(1_000_000).default(0) })
      .refine(isSpan, SPAN_WORDS),
    answer: z.object({ start: z.number().int(), groups: z.array(groupSchema), count: z.number().int() }),
  }),
  /** The first of them by their ids and versions, in their order, to do something with all of them. */
  chosen: endpoint(taskListPaths.chosen, {
    heavy: true,
    query: taskFilterSchema.extend({ order }).refine(isSpan, SPAN_WORDS),
    answer: z.object({
      tasks: z.array(z.object({ id, version: z.number().int(), minutes: z.number().int() })),
    }),
  }),
};
