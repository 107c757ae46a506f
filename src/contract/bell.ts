import { z } from 'zod';
import { MESSAGE_KINDS, MESSAGE_SIDES } from '../core/index.ts';
import { endpoint } from './endpoint.ts';
import { civilMoment, id } from './fields.ts';
import { bellPaths } from './paths-later.ts';

/** Lines that are told at once, the newest. */
export const BELL_LINES = 50;

const bellLineSchema = z.object({
  id,
  kind: z.enum(MESSAGE_KINDS),
  side: z.enum(MESSAGE_SIDES),
  at: civilMoment,
  /** What it is about, and what became of it. */
  title: z.string(),
  text: z.string(),
  /** How many it tells of. */
  times: z.number().int(),
  /** Where it leads. */
  path: z.string(),
  isRead: z.boolean(),
  /** The one task that it is about; null where it is of several, or of none. */
  taskId: id.nullable(),
});
export type BellLine = z.infer<typeof bellLineSchema>;

export const bellEndpoints = {
  lines: endpoint(bellPaths.lines, {
    /** Those before a line that was told; else the newest. */
    query: z.object({ before: id.optional() }),
    answer: z.object({ unread: z.number().int(), lines: z.array(bellLineSchema), isMore: z.boolean() }),
  }),
  /** What stands there up to a line, itself included, has been seen. */
  read: endpoint(bellPaths.read, { body: z.object({ upTo: id }), answer: z.object({ unread: z.number().int() }) }),
};
