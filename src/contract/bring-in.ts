import { z } from 'zod';
import { BRING_KINDS, type BringKind, DAY_ORDERS, ENTRY_FATES, isZone } from '../core/index.ts';
import { endpoint } from './endpoint.ts';
import { id, named } from './fields.ts';
import { impactSchema } from './impact.ts';
import { bringInPaths } from './paths.ts';
import { estimate } from './work.ts';

/** The largest file, and the most lines and columns of one. */
export const MOST_BRING_BYTES = 10 * 1024 * 1024;
export const MOST_BRING_ROWS = 20_000;
export const MOST_BRING_COLUMNS = 60;
/** For so many days what was brought in can be taken out again. */
export const BRING_UNDO_DAYS = 30;

/** By what a line is the same as something that is here already. */
export const SAME_BY = {
  clients: ['mail or name', 'asset, mail or name', 'name'],
  people: ['mail or name', 'mail'],
  schedules: ['template, client and asset'],
  tasks: ['name, day and client'],
  templates: ['name'],
  history: ['name, day and client'],
  calendar: ['UID'],
} as const satisfies Readonly<Record<BringKind, readonly [string, ...string[]]>>;
export type SameBy = (typeof SAME_BY)[BringKind][number];
const sameBy = z.enum([...new Set(Object.values(SAME_BY).flat())] as [SameBy, ...SameBy[]]);

/** What is done with a line that is like something here. */
const ANY_CHOICE = ['update', 'leave', 'add'] as const;
export type AlikeChoice = (typeof ANY_CHOICE)[number];

/** Of each kind what can be, the usual first: what somebody has worked on is never written over. */
export const ALIKE_CHOICES = {
  clients: ANY_CHOICE,
  people: ANY_CHOICE,
  schedules: ANY_CHOICE,
  tasks: ['leave', 'add'],
  templates: ['update', 'leave'],
  history: ['leave', 'add'],
  calendar: ['update', 'leave'],
} as const satisfies Readonly<Record<BringKind, readonly AlikeChoice[]>>;

/** What would become of a line: it is new, brings something up to date, says nothing new, is left on wish, or can't be read. */
export const ROW_FATES = ['new', 'update', 'same', 'leave', 'left'] as const;
export type RowFate = (typeof ROW_FATES)[number];

/** Of which kinds it can be looked at what they do to tasks and to the coming year; of the others the lines say it all. */
export const BRING_HAS_IMPACT = {
  clients: false,
  people: false,
  schedules: true,
  tasks: false,
  templates: true,
  history: false,
  calendar: true,
} as const satisfies Readonly<Record<BringKind, boolean>>;

const rowSchema = z.object({
  /** As it stands in the file, the first below the head being 1. */
  number: z.number().int(),
  fate: z.enum(ROW_FATES),
  /** Whether it is like something here, so that one may choose. */
  isAlike: z.boolean(),
  /** Of an entry of a calendar: what somebody has chosen that it becomes; null as it is for all. */
  becomes: z.enum(ENTRY_FATES).nullable(),
  title: z.string(),
  about: z.string(),
  /** What is wrong with it, or by what it is the same, in words. */
  why: z.string(),
  /** The cells that can't be read, to be mended in place. */
  faults: z.array(
    z.object({
      ...{ column: z.number().int(), name: z.string(), text: z.string(), message: z.string() },
      /** Texts by which it can be said instead: each thing that it may mean, or what was likely meant. */
      offers: z.array(z.string()),
    }),
  ),
  /** What would change of what is here. */
  diffs: z.array(z.object({ name: z.string(), from: z.string(), to: z.string() })),
});
export type BringInRow = z.infer<typeof rowSchema>;

const countsSchema = z.object({
  new: z.number().int(),
  update: z.number().int(),
  same: z.number().int(),
  leave: z.number().int(),
  left: z.number().int(),
});
export type BringInCounts = z.infer<typeof countsSchema>;

/** What is said of the entries of a calendar as a whole. */
const calendarChoices = {
  repeating: z.enum(['schedule', 'left out']),
  single: z.enum(['task', 'left out']),
  wholeDays: z.enum(['days off', 'as work', 'left out']),
  toDos: z.enum(['template', 'task', 'left out']),
  several: z.enum(['each of', 'any of']),
  ownerId: id.nullable(),
};

export const bringInSchema = z.object({
  id,
  kind: z.enum(BRING_KINDS),
  fileName: z.string(),
  encoding: z.string(),
  separator: z.string(),
  rowCount: z.number().int(),
  state: z.enum(['open', 'done', 'undone']),
  version: z.number().int(),
  /** Whether the mapping was taken from the last file of this shape. */
  isRemembered: z.boolean(),
  /** Of a calendar: what becomes of its entries, whose it is, and the zones that it names. */
  calendar: z
    .object({
      ...calendarChoices,
      mended: z.number().int(),
      others: z.number().int(),
      zones: z.array(
        z.object({ tzid: z.string(), count: z.number().int(), zone: z.string().nullable(), isSure: z.boolean() }),
      ),
    })
    .nullable(),
  columns: z.array(
    z.object({
      name: z.string(),
      becomes: z.string().nullable(),
      samples: z.array(z.string()),
      empty: z.number().int(),
      unread: z.number().int(),
    }),
  ),
  /** What a column may become. */
  fields: z.array(z.object({ key: z.string(), name: z.string(), value: z.string() })),
  /** How many names are written with the last name first, and how the first of them is read then. */
  names: z.object({
    count: z.number().int(),
    isTurned: z.boolean(),
    example: z.string().nullable(),
    turned: z.string().nullable(),
  }),
  dayOrder: z.enum(DAY_ORDERS),
  dates: z.object({
    order: z.enum(DAY_ORDERS).nullable(),
    example: z.string().nullable(),
    sure: z.number().int(),
    contrary: z.number().int(),
    either: z.number().int(),
  }),
  people: z.array(
    z.object({
      key: z.string(),
      name: z.string(),
      count: z.number().int(),
      personId: id.nullable(),
      isSure: z.boolean(),
    }),
  ),
  /** Service plans that it names, with how many lines do; null where there is none called so. */
  plans: z.array(z.object({ name: z.string(), count: z.number().int(), planId: id.nullable() })),
  sameBy,
  /** How long work takes of which the file does not say it, in minutes. */
  usualMinutes: z.number().int(),
  counts: countsSchema,
  /** A letter for each line, by its fate: n, u, s, e (left on wish) and x (left, as it can't be read). */
  fates: z.string(),
  /** The first of each. */
  left: z.array(rowSchema),
  alike: z.array(rowSchema),
  fresh: z.array(rowSchema),
  changeId: id.nullable(),
});
export type BringIn = z.infer<typeof bringInSchema>;

/** Lines of a page. */
export const BRING_ROWS_A_PAGE = 20;

const one = z.object({ bringIn: bringInSchema });

export const bringInEndpoints = {
  upload: endpoint(bringInPaths.upload, { body: z.object({ kind: z.enum(BRING_KINDS) }), answer: z.object({ id }) }),
  list: endpoint(bringInPaths.list, {
    answer: z.object({
      bringIns: z.array(
        z.object({
          id,
          kind: z.enum(BRING_KINDS),
          fileName: z.string(),
          rowCount: z.number().int(),
          state: z.enum(['open', 'done', 'undone']),
          at: z.string(),
        }),
      ),
    }),
  }),
  one: endpoint(bringInPaths.one, { answer: one }),
  rows: endpoint(bringInPaths.rows, {
    query: z.object({ which: z.enum(['left', 'alike', 'fresh']), after: z.coerce.number().int() }),
    answer: z.object({ rows: z.array(rowSchema) }),
  }),
  /** Clients of a file that was brought in who are to be put on a plan, as many as go in one go. */
  forPlan: endpoint(bringInPaths.forPlan, {
    query: z.object({ plan: id }),
    answer: z.object({ clients: z.array(named), isMore: z.boolean() }),
  }),
  settle: endpoint(bringInPaths.settle, {
    heavy: true,
    body: z.object({
      version: z.number().int(),
      columns: z.array(z.string().max(80).nullable()).max(MOST_BRING_COLUMNS).optional(),
      dayOrder: z.enum(DAY_ORDERS).optional(),
      people: z.record(z.string().max(200), id.nullable()).optional(),
      sameBy: sameBy.optional(),
      turnsNames: z.boolean().optional(),
      usualMinutes: estimate.optional(),
      calendar: z.object(calendarChoices).partial().optional(),
      zones: z
        .record(
          z.string().max(200),
          z.string().refine(isZone, 'There is no such time zone: it is written like Europe/London.'),
        )
        .optional(),
      mended: z
        .array(
          z.object({
            ...{ number: z.number().int(), column: z.number().int().min(0), text: z.string().max(5000) },
            /** Whether every line is mended so too whose cell says the same and may mean the same. */
            isForAll: z.boolean().optional(),
          }),
        )
        .max(200)
        .optional(),
      choices: z
        .array(z.object({ number: z.number().int(), choice: z.enum(ANY_CHOICE) }))
        .max(200)
        .optional(),
    }),
    answer: one,
  }),
  /** What bringing it in would do to tasks and to the coming year. */
  impact: endpoint(bringInPaths.impact, {
    heavy: true,
    body: z.object({ version: z.number().int() }),
    answer: impactSchema,
  }),
  bringIn: endpoint(bringInPaths.bringIn, {
    heavy: true,
    body: z.object({ version: z.number().int(), counts: countsSchema }),
    answer: one,
  }),
  discard: endpoint(bringInPaths.discard, { answer: z.object({ discarded: z.boolean() }) }),
};
