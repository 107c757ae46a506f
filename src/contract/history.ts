import { z } from 'zod';
import { endpoint } from './endpoint.ts';
import { civilMoment, id } from './fields.ts';

/** One thing that was done with a task, a schedule or a template. */
const historyEntrySchema = z.object({
  id,
  at: civilMoment,
  by: z.string().nullable(),
  said: z.string(),
});
export type HistoryEntry = z.infer<typeof historyEntrySchema>;

const answer = z.object({
  entries: z.array(historyEntrySchema),
  /** Of a task: each step from the rule to its date, as sentences. */
  why: z.array(z.string()),
});

export const historyEndpoints = {
  task: endpoint({ method: 'GET', path: '/tasks/:taskId/history', answer }),
  schedule: endpoint({ method: 'GET', path: '/schedules/:scheduleId/history', answer }),
  template: endpoint({ method: 'GET', path: '/templates/:templateId/history', answer }),
};
