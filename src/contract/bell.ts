import { z } from 'zod';
import { endpoint } from './endpoint.ts';
import { civilMoment, id } from './fields.ts';
import { bellPaths } from './paths-later.ts';

/** What the bell tells somebody: that they were reminded of work, or named in what was said about it. */
export const BELL_KINDS = ['nudge', 'name'] as const;
export type BellKind = (typeof BELL_KINDS)[number];

/** Lines that are told at once, the newest. */
export const BELL_LINES = 50;

const bellLineSchema = z.object({
  id,
  kind: z.enum(BELL_KINDS),
  at: civilMoment,
  by: z.string(),
  /** What was said; empty for a nudge without words. */
  text: z.string(),
  task: z.object({ id, title: z.string() }),
  /** How many more it is about. */
  more: z.number().int(),
  isRead: z.boolean(),
});
export type BellLine = z.infer<typeof bellLineSchema>;

export const bellEndpoints = {
  lines: endpoint(bellPaths.lines, { answer: z.object({ unread: z.number().int(), lines: z.array(bellLineSchema) }) }),
  /** What stands there up to a line, itself included, has been seen. */
  read: endpoint(bellPaths.read, { body: z.object({ upTo: id }), answer: z.object({ unread: z.number().int() }) }),
};
