import { z } from 'zod';
import { FOLLOWS, PROMISES_KEPT, tryDayOfIso } from '../core/index.ts';
import { endpoint } from './endpoint.ts';
import { civilMoment, id, isoDate, isoTime, named, rowsFormSchema } from './fields.ts';
import { callFigurePaths } from './paths-later.ts';

/** The longest time of which figures are told: a year of whole weeks. */
export const MOST_FIGURE_WEEKS = 53;
export const FIGURE_WEEKS = [4, 12, 26, 52] as const;
export const FIGURE_CALLS_A_PAGE = 50;

const days = {
  /** From the one day to the other, both included. */
  from: isoDate,
  to: isoDate,
  quota: id.optional(),
  person: id.optional(),
};
const withinBounds = ({ from, to }: { readonly from: string; readonly to: string }) => {
  const [first, last] = [tryDayOfIso(from), tryDayOfIso(to)];
  return first !== null && last !== null && first <= last && last - first < MOST_FIGURE_WEEKS * 7;
};
const BOUNDS = { path: ['to'], message: `A time of ${MOST_FIGURE_WEEKS} weeks at most, and not before it begins.` };

const whole = (most: number) => z.coerce.number().int().min(0).max(most).optional();
const listFields = {
  ...days,
  /** Which of them: all that were listed, those that were reached, or those not rung. */
  ended: z.enum(['any', 'rung', 'reached', 'notRung']).default('any'),
  outcome: z.string().max(60).optional(),
  hour: whole(23),
  /** 0 is Monday. */
  weekday: whole(6),
  /** Promises, by how they were kept. */
  kept: z.enum(PROMISES_KEPT).optional(),
};
const figureQuery = z.object(days).refine(withinBounds, BOUNDS);
const listQuery = z
  .object({
    ...listFields,
    after: z
      .string()
      .regex(/^\d{4}-\d{2}-\d{2} [0-9a-f-]{36}$/, 'That is no place in the list.')
      .optional(),
  })
  .refine(withinBounds, BOUNDS);
const csvQuery = z.object(listFields).refine(withinBounds, BOUNDS);
export type CallFigureQuery = z.input<typeof figureQuery>;
export type CallListQuery = z.input<typeof csvQuery>;
/** Which calls are meant, once read. */
export type CallsAsked = z.output<typeof csvQuery>;

const count = z.number().int();
const countOf = z.object({ key: z.string(), count });
const figuresSchema = z.object({
  /** How calls ended, in the order of the workspace, those that it has no more last. */
  outcomes: z.array(
    z.object({ key: z.string(), name: z.string(), isReached: z.boolean(), follows: z.enum(FOLLOWS), count }),
  ),
  listed: count,
  rung: count,
  reached: count,
  /** Of lists that are over. */
  notRung: count,
  /** Of lists of today. */
  toRing: count,
  weeks: z.array(z.object({ monday: isoDate, listed: count, notRung: count, by: z.array(countOf) })),
  people: z.array(
    named.extend({
      ...{ listed: count, rung: count, reached: count, lists: count, whole: count, inRow: count, best: count },
      /** A letter for each day from the first: `w` a whole list, `p` a part of it, `n` none of it, `-` no list. */
      days: z.string(),
    }),
  ),
  hours: z.array(z.object({ hour: count, weekday: count, rung: count, reached: count })),
  callBacks: z.object({
    promised: count,
    by: z.array(z.object({ kept: z.enum(PROMISES_KEPT), count })),
    /** Minutes between the time that was asked for and the call, of the one in the middle; null where there is none. */
    medianMinutes: z.number().nullable(),
  }),
  /** What is left in the pool of the quota asked for; null of all together. */
  pool: z.object({ free: count, dryOn: isoDate.nullable(), weeks: count }).nullable(),
});
export type CallFigures = z.infer<typeof figuresSchema>;

const lineSchema = z.object({
  id,
  on: isoDate,
  person: named,
  contact: named,
  client: named,
  asset: z.string().nullable(),
  state: z.enum(['rung', 'notRung', 'open']),
  outcome: z.string().nullable(),
  isReached: z.boolean(),
  rungAt: civilMoment.nullable(),
  note: z.string(),
  callBack: z.object({ on: isoDate, at: isoTime.nullable() }).nullable(),
});
export type CallLine = z.infer<typeof lineSchema>;

export const callFigureEndpoints = {
  figures: endpoint(callFigurePaths.figures, { heavy: true, query: figureQuery, answer: figuresSchema }),
  /** The calls behind a figure, the newest first. */
  calls: endpoint(callFigurePaths.calls, {
    query: listQuery,
    answer: z.object({ lines: z.array(lineSchema), next: z.string().nullable() }),
  }),
  csv: endpoint(callFigurePaths.csv, {
    heavy: true,
    query: z.object({ ...listFields, as: rowsFormSchema }).refine(withinBounds, BOUNDS),
    answer: z.string(),
  }),
};
