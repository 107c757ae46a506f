import { z } from 'zod';
import { endpoint } from './endpoint.ts';
import { named } from './fields.ts';
import { findPaths } from './paths.ts';

/** So many of each kind are shown at once: who wants another types more of its name. */
export const MOST_FOUND = 8;

const foundSchema = named.extend({ detail: z.string() });

export const findEndpoints = {
  /** What may be jumped to by name, besides people: the first of each kind that have every word. */
  find: endpoint(findPaths.find, {
    heavy: true,
    query: z.object({ q: z.string().max(100) }),
    answer: z.object({
      templates: z.array(foundSchema),
      clients: z.array(foundSchema),
      /** The workspace's own. */
      assets: z.array(foundSchema),
      schedules: z.array(foundSchema),
    }),
  }),
};
