// Needed by every page from the start: the small form of Zod.
import * as z from 'zod/mini';

export const LIVE_TOPICS = [
  'tasks',
  'schedules',
  'templates',
  'runs',
  'workspace',
  'clients',
  'people',
  'bell',
] as const;

/** What the live stream tells: what may have changed, as narrowly as whoever changed it knows. */
export const liveSchema = z.object({
  topics: z.array(z.enum(LIVE_TOPICS)),
  /** The tasks it is about, where they are few; null for any. */
  tasks: z.nullable(z.array(z.uuid())),
  /** The people whose day sheets show something else by it, where they are few; null for anybody's. */
  people: z.nullable(z.array(z.uuid())),
  /** Whether there is more or less to do by it, or on other days: what the tideline tells. */
  load: z.boolean(),
});
export type Live = z.infer<typeof liveSchema>;
export type Topic = Live['topics'][number];
