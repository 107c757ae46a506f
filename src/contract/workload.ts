import { z } from 'zod';
import { endpoint } from './endpoint.ts';
import { id, isoDate, named } from './fields.ts';
import { workloadPaths } from './paths.ts';
import { projectedLineSchema, taskLineSchema } from './tasks.ts';

/** What a figure of the workload is of, and how many of them are told at once: weeks half of which lie behind today, as a rule, or days from this week on. */
export const LOAD_UNITS = ['week', 'day'] as const;
export type LoadUnit = (typeof LOAD_UNITS)[number];
export const TOLD_AT_ONCE: Readonly<Record<LoadUnit, number>> = { week: 12, day: 28 };
const unit = z.enum(LOAD_UNITS).default('week');
/** Only the work at one of the workspace's sites, and at what stands there; left out for all work. */
const site = id.optional();
/** Tasks of one cell that are told one by one, foreseen ones with them; the count is of all. */
export const MOST_OF_CELL = 200;
export const MOST_MOVES = 500;

const cellSchema = z.object({
  /** Minutes of work that is done, that is still to be done, and that schedules foresee and is not made yet. */
  done: z.number().int(),
  open: z.number().int(),
  foreseen: z.number().int(),
  capacity: z.number().int(),
  /** Away for all of it that they would have worked. */
  isAway: z.boolean(),
});
export type WorkloadCell = z.infer<typeof cellSchema>;

const loadOfPersonSchema = z.object({
  /** Null for what is nobody's. */
  person: named.extend({ roles: z.array(z.string()), team: z.string().nullable() }).nullable(),
  cells: z.array(cellSchema),
});
export type LoadOfPerson = z.infer<typeof loadOfPersonSchema>;

const callsSchema = z.object({ count: z.number().int(), minutes: z.number().int() });

/** Work of one week of people among whom it can be evened out. */
const evenableSchema = z.object({
  /** What they can do in the week beside their calls, in minutes. */
  people: z.array(named.extend({ capacity: z.number().int(), calls: z.number().int() })),
  tasks: z.array(
    z.object({
      id,
      version: z.number().int(),
      personId: id,
      minutes: z.number().int(),
      title: z.string(),
      about: z.string().nullable(),
      on: isoDate,
      /** Who may have it instead: there on its day. Nobody where it is begun, finished or was given by hand. */
      mayGoTo: z.array(id),
      /** Of a turn that may go to others: how often each of them, and whoever has it, had it over eight weeks. */
      had: z.record(id, z.number().int()).nullable(),
    }),
  ),
});
export type Evenable = z.infer<typeof evenableSchema>;

export const workloadEndpoints = {
  /** Of everybody by the week or the day, from a Monday on; left out, around today. */
  load: endpoint(workloadPaths.load, {
    heavy: true,
    query: z.object({ from: isoDate.optional(), by: unit, site }),
    /** Each figure by the day on which it begins. */
    answer: z.object({
      starts: z.array(isoDate),
      rows: z.array(loadOfPersonSchema),
      foreseenUpTo: isoDate,
      /** The site that was asked for. */
      site: named.nullable(),
    }),
  }),
  /** What stands behind one figure. */
  cell: endpoint(workloadPaths.cell, {
    heavy: true,
    query: z.object({ person: id.optional(), from: isoDate, by: unit, site }),
    answer: z.object({
      tasks: z.array(taskLineSchema),
      count: z.number().int(),
      foreseen: z.array(projectedLineSchema),
      /** Calls of lists and of those to come, and how long they take; null of a site. */
      calls: callsSchema.nullable(),
    }),
  }),
  /** The work of one week among the people of a role or a team. */
  evenable: endpoint(workloadPaths.evenable, {
    heavy: true,
    query: z.object({ week: isoDate, role: z.string().max(60).optional(), team: z.string().max(60).optional() }),
    answer: evenableSchema,
  }),
  /** Gives tasks to others, each to its own, in one go that one undo takes back. */
  move: endpoint(workloadPaths.move, {
    heavy: true,
    body: z.object({
      moves: z
        .array(z.object({ id, version: z.number().int(), to: id }))
        .min(1, 'Say what goes to whom.')
        .max(MOST_MOVES, `${MOST_MOVES} moves at once, at most.`)
        .refine((moves) => new Set(moves.map((one) => one.id)).size === moves.length, 'A task stands there twice.'),
    }),
    answer: z.object({ moved: z.number().int(), changeId: id }),
  }),
};
