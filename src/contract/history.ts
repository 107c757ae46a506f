import { z } from 'zod';
import { endpoint } from './endpoint.ts';
import { civilMoment, id } from './fields.ts';
import { impactSchema } from './impact.ts';
import { historyPaths } from './paths.ts';

/** One thing that was done with a task, a schedule or a template. */
const historyEntrySchema = z.object({
  id,
  at: civilMoment,
  by: z.string().nullable(),
  said: z.string(),
  /** By which it can be undone; null where it can't, or not by this person. */
  undo: z
    .object({
      changeId: id,
      /** What was done in one go with it, itself included, and how all of it is undone. */
      together: z.object({ changeId: id, count: z.number().int() }).nullable(),
    })
    .nullable(),
});
export type HistoryEntry = z.infer<typeof historyEntrySchema>;

/** Something that was deleted and can be brought back, by whom and when. */
export const deletedSchema = z.object({ changeId: id, title: z.string(), at: civilMoment, by: z.string().nullable() });
export type Deleted = z.infer<typeof deletedSchema>;

const answer = z.object({
  entries: z.array(historyEntrySchema),
  /** Of a task: each step from the rule to its date, as sentences. */
  why: z.array(z.string()),
});

/** A key of the page's own, by which it is told how far it is. */
const followed = z.object({ follow: id.optional() });

export const historyEndpoints = {
  task: endpoint(historyPaths.task, { answer }),
  schedule: endpoint(historyPaths.schedule, { answer }),
  template: endpoint(historyPaths.template, { answer }),
  settings: endpoint(historyPaths.settings, { answer }),
  client: endpoint(historyPaths.client, { answer }),
  plan: endpoint(historyPaths.plan, { answer }),
  person: endpoint(historyPaths.person, { answer }),
  deletedTemplates: endpoint(historyPaths.deletedTemplates, { answer: z.object({ deleted: z.array(deletedSchema) }) }),
  undo: endpoint(historyPaths.undo, { body: followed, answer: z.object({ said: z.string() }) }),
  /** What undoing would do. */
  impactOfUndo: endpoint(historyPaths.impactOfUndo, { heavy: true, body: followed, answer: impactSchema }),
};
