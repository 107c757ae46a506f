import { z } from 'zod';
import { endpoint } from './endpoint.ts';
import { civilMoment, id, isoTime } from './fields.ts';
import { clockPaths } from './paths-later.ts';

const clockingSchema = z.object({
  id,
  personId: id,
  on: civilMoment,
  /** Null for whoever is on now. */
  off: civilMoment.nullable(),
  /** Whoever clocked them on or off, where that was somebody else. */
  by: z.string().nullable(),
});
export type Clocking = z.infer<typeof clockingSchema>;

/** Left out for now; a manager may say an earlier time of today. */
const clocked = z.object({ at: isoTime.optional() });

export const clockEndpoints = {
  /** Everybody who is on now. */
  now: endpoint(clockPaths.now, { answer: z.object({ on: z.array(clockingSchema) }) }),
  /** One person's last ones, the latest first. */
  list: endpoint(clockPaths.list, { answer: z.object({ clockings: z.array(clockingSchema) }) }),
  on: endpoint(clockPaths.on, { body: clocked, answer: clockingSchema }),
  off: endpoint(clockPaths.off, { body: clocked, answer: clockingSchema }),
  /** Takes back the last of it: off again after on, on again after off. */
  takeBack: endpoint(clockPaths.takeBack, {
    body: z.object({ id }),
    answer: z.object({ on: clockingSchema.nullable() }),
  }),
};
