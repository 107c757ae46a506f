import { z } from 'zod';
import { HALVES, TASK_STATES, tryDayOfIso } from '../core/index.ts';
import { leaveCoverSchema } from './assignment.ts';
import { endpoint } from './endpoint.ts';
import { civilMoment, id, isoDate, named, prose } from './fields.ts';
import { leavePaths } from './paths.ts';
import { turnSaidSchema } from './swaps.ts';

/** Longer leave than this ends employment rather. */
export const LONGEST_LEAVE_DAYS = 366;

export const leaveFieldsSchema = z.object({
  from: isoDate,
  to: isoDate,
  /** Null for whole days. */
  half: z.enum(HALVES).nullable(),
  note: prose('The note', 500).default(''),
  /** Who takes over then; null where it is as the work itself says. For whoever gives it to choose. */
  cover: leaveCoverSchema.nullable().default(null),
});
export const leaveInputSchema = leaveFieldsSchema.superRefine(({ from, to, half }, context) => {
  const [first, last] = [tryDayOfIso(from), tryDayOfIso(to)];
  if (first === null || last === null) return;
  const wrong = (message: string) => context.addIssue({ code: 'custom', path: ['to'], message });
  if (last < first) wrong('The last day lies before the first.');
  else if (last - first >= LONGEST_LEAVE_DAYS) wrong('A year of leave at most.');
  else if (half !== null && last !== first) wrong('Half a day is on one day.');
});
export type LeaveInput = z.output<typeof leaveInputSchema>;

export const leaveSchema = leaveFieldsSchema.extend({
  id,
  version: z.number().int(),
  personId: id,
  state: z.enum(['asked', 'given', 'refused']),
  askedAt: civilMoment,
  decidedBy: z.string().nullable(),
  /** Days of it on which whoever it is would have worked; half a day is half. */
  days: z.number(),
  mayTakeBack: z.boolean(),
});
export type Leave = z.infer<typeof leaveSchema>;

/** Work of the days of leave, and what becomes of it. */
const coveredSchema = z.object({
  /** Null for what is not made yet. */
  taskId: id.nullable(),
  scheduleId: id.nullable(),
  /** What is done: its template's name, or its own title where it has none. */
  work: z.string(),
  about: z.string().nullable(),
  on: isoDate,
  minutes: z.number().int(),
  state: z.enum([...TASK_STATES, 'coming', 'foreseen']),
  /**
   * Goes to somebody, to whoever takes it, to nobody, is not done at all where each who is there has one, or stays with whoever
   * is away since it is begun.
   */
  fate: z.enum(['goes', 'offered', 'nobody', 'dropped', 'stays']),
  /** How whoever is away has it: by turn or a list, by name, or as one of several; for the first two it can be chosen who takes over. */
  how: z.enum(['turns', 'name', 'other']),
  to: named.nullable(),
  why: z.string(),
});
export type Covered = z.infer<typeof coveredSchema>;

/** A turn of whoever is away, and the later one that they take for it. */
const leaveExchangeSchema = z.object({
  scheduleId: id,
  work: z.string(),
  about: z.string().nullable(),
  missed: turnSaidSchema,
  taken: turnSaidSchema.extend({ person: named }).nullable(),
});
export type LeaveExchange = z.infer<typeof leaveExchangeSchema>;

export const leaveImpactSchema = z.object({
  /** Days that would have been worked, and holidays among those of the leave. */
  days: z.number(),
  holidays: z.number().int(),
  counts: z.object({
    goes: z.number().int(),
    offered: z.number().int(),
    nobody: z.number().int(),
    dropped: z.number().int(),
    stays: z.number().int(),
    notMade: z.number().int(),
    minutes: z.number().int(),
    /** By turn, and by name, of those that don’t stay with whoever is away. */
    turns: z.number().int(),
    name: z.number().int(),
  }),
  /** The first of them by their days; the counts are of all. */
  items: z.array(coveredSchema),
  /** Turns that are given away for later ones of others, where that is chosen; null where nobody has one to give that both can do. */
  exchanges: z.array(leaveExchangeSchema),
  /** Whoever takes over as a rule. */
  deputy: named.nullable(),
  /** Those of the same role who may be chosen to take over, whoever has the most time in those weeks first: minutes of what is made, and of what they can do. */
  peers: z.array(z.object({ person: named, minutes: z.number().int(), capacity: z.number().int() })),
  /** Of everybody who gets some of it: minutes by the week before and after, of what they can do. */
  receivers: z.array(
    z.object({
      person: named,
      weeks: z.array(
        z.object({
          monday: isoDate,
          before: z.number().int(),
          after: z.number().int(),
          capacity: z.number().int(),
        }),
      ),
    }),
  ),
});
export type LeaveImpact = z.infer<typeof leaveImpactSchema>;

/** With it the exchanges of turns that stay although the leave is taken back: they have begun, or were swapped on. */
const saved = z.object({ leave: leaveSchema.nullable(), changeId: id, exchangesKept: z.number().int() });
const seen = z.object({ version: z.number().int() });

export const leaveEndpoints = {
  /** Of everybody, or of one person, of days from one on. */
  list: endpoint(leavePaths.list, {
    query: z.object({ person: id.optional(), from: isoDate.optional() }),
    answer: z.object({ leave: z.array(leaveSchema) }),
  }),
  /** Entered by whoever may for anybody, else asked for, for oneself. */
  enter: endpoint(leavePaths.enter, { heavy: true, body: leaveInputSchema, answer: saved }),
  impactOfEntering: endpoint(leavePaths.impactOfEntering, {
    heavy: true,
    body: leaveInputSchema,
    answer: leaveImpactSchema,
  }),
  decide: endpoint(leavePaths.decide, {
    heavy: true,
    body: seen.extend({ state: z.enum(['given', 'refused']), cover: leaveFieldsSchema.shape.cover }),
    answer: saved,
  }),
  impactOfGiving: endpoint(leavePaths.impactOfGiving, {
    heavy: true,
    body: leaveFieldsSchema.pick({ cover: true }),
    answer: leaveImpactSchema,
  }),
  takeBack: endpoint(leavePaths.takeBack, { heavy: true, body: seen, answer: saved }),
};
