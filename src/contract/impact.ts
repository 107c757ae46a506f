import { z } from 'zod';
import { TASK_STATES } from '../core/index.ts';
import { id, isoDate } from './fields.ts';

/** How far a change goes beyond what nobody has seen: all open ones, or some by name, even where they were changed by hand. */
export const reachSchema = z
  .object({
    open: z.boolean().default(false),
    also: z.array(id).max(1000, 'A thousand tasks by name at most.').default([]),
  })
  .default({ open: false, also: [] });
export type Reach = z.output<typeof reachSchema>;

const KEPT_BECAUSE = [
  'finished',
  'under way',
  'written on',
  'showing already',
  'edited by hand',
  'changed since',
  'something missing',
] as const;

/** What a change does to one task that is made, or makes. */
const impactItemSchema = z.object({
  kind: z.enum(['added', 'changed', 'removed', 'kept']),
  because: z.enum(KEPT_BECAUSE).nullable(),
  taskId: id.nullable(),
  /** Null for a task that was made by hand. */
  scheduleId: id.nullable(),
  title: z.string(),
  /** Its asset or client, where it has one. */
  about: z.string().nullable(),
  who: z.string().nullable(),
  on: isoDate,
  state: z.enum([...TASK_STATES, 'coming']),
  /** In words: "due", "Thu 3 Dec", "Mon 30 Nov". */
  fields: z.array(z.object({ name: z.string(), from: z.string(), to: z.string() })),
});
export type ImpactItem = z.infer<typeof impactItemSchema>;

const plannedDay = z.object({ on: isoDate, isMain: z.boolean() });

/** What a change would do, told before it is saved. */
export const impactSchema = z.object({
  figures: z.object({
    added: z.number().int(),
    changed: z.number().int(),
    removed: z.number().int(),
    keptByHand: z.number().int(),
    keptShowing: z.number().int(),
    keptBegun: z.number().int(),
    keptLacking: z.number().int(),
  }),
  /** The first of each kind; the figures count all. */
  items: z.array(impactItemSchema),
  /** The coming year of the first schedules that it touches, as it is and as it would be. */
  years: z.array(
    z.object({ scheduleId: id, name: z.string(), before: z.array(plannedDay), after: z.array(plannedDay) }),
  ),
  /** Dates of the coming year, over all schedules. */
  datesBefore: z.number().int(),
  datesAfter: z.number().int(),
});
export type Impact = z.infer<typeof impactSchema>;

const KEPT_FIGURES = {
  finished: 'keptBegun',
  'under way': 'keptBegun',
  'written on': 'keptByHand',
  'edited by hand': 'keptByHand',
  'changed since': 'keptByHand',
  'showing already': 'keptShowing',
  'something missing': 'keptLacking',
} as const satisfies Record<(typeof KEPT_BECAUSE)[number], keyof Impact['figures']>;

/** The figure that counts an item. */
export function figureOf({ kind, because }: Pick<ImpactItem, 'kind' | 'because'>): keyof Impact['figures'] {
  if (kind !== 'kept') return kind;
  return because === null ? 'keptBegun' : KEPT_FIGURES[because];
}
