import * as z from 'zod/mini';
import { LIVE_TOPICS, type Live, type Steps } from './live.ts';

/** News as it travels. Apart from what it says: every page listens from the start, and reads the first of it a little later. */
export const liveSchema: z.ZodMiniType<Live> = z.object({
  topics: z.array(z.enum(LIVE_TOPICS)),
  tasks: z.nullable(z.array(z.uuid())),
  people: z.nullable(z.array(z.uuid())),
  load: z.boolean(),
});

export const stepsSchema: z.ZodMiniType<Steps> = z.object({ key: z.uuid(), done: z.int(), of: z.int() });
