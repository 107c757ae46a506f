import { z } from 'zod';
import { endpoint } from './endpoint.ts';
import { rowsFormSchema } from './fields.ts';
import { listPaths } from './paths-later.ts';
import { taskFilterSchema } from './task-list.ts';

const plain = { query: z.object({ as: rowsFormSchema }), answer: z.string() };

/** Lists as files: as tables (CSV, in the columns by which they are brought in), or as objects (JSON). */
export const listEndpoints = {
  clients: endpoint(listPaths.clients, plain),
  assets: endpoint(listPaths.assets, plain),
  people: endpoint(listPaths.people, plain),
  templates: endpoint(listPaths.templates, plain),
  schedules: endpoint(listPaths.schedules, plain),
  /** Each as one recurring entry (iCalendar), with its exceptions; of what no rule can say, the dates of two years. */
  schedulesAsCalendar: endpoint(listPaths.schedulesAsCalendar, { heavy: true, answer: z.string() }),
  /** Those that fit, however many, by the days on which they are due. */
  tasks: endpoint(listPaths.tasks, { query: taskFilterSchema.extend({ as: rowsFormSchema }), answer: z.string() }),
};
