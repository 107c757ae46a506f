import { z } from 'zod';
import { endpoint } from './endpoint.ts';
import { civilMoment, id, isoDate, named, prose } from './fields.ts';
import { swapPaths } from './paths.ts';

/** A turn as its dates tell it: the first and the last, and how many there are. */
export const turnSaidSchema = z.object({ first: isoDate, last: isoDate, dates: z.number().int() });
export type TurnSaid = z.infer<typeof turnSaidSchema>;

export const swapSchema = z.object({
  id,
  version: z.number().int(),
  schedule: named,
  about: z.string().nullable(),
  /** Whoever asks, and the turn that they give away. */
  asker: named,
  gives: turnSaidSchema,
  /** Whoever is asked, and the turn that is taken for it. */
  other: named,
  takes: turnSaidSchema,
  note: z.string(),
  state: z.enum(['asked', 'agreed', 'done', 'refused', 'withdrawn']),
  askedAt: civilMoment,
  decidedBy: z.string().nullable(),
  /** What whoever looks may do with it. */
  may: z.array(z.enum(['agree', 'give', 'refuse', 'withdraw'])),
});
export type Swap = z.infer<typeof swapSchema>;
export type SwapDeed = Swap['may'][number];

const saved = z.object({ swap: swapSchema, changeId: id.nullable() });

export const swapEndpoints = {
  /** What concerns whoever asks: theirs, and where that takes a nod of theirs, others'; decided ones of the last days too. */
  list: endpoint(swapPaths.list, { answer: z.object({ swaps: z.array(swapSchema) }) }),
  /** The turn that a task is of, and those of others that it could be swapped with; null where it is nobody's own turn. */
  turns: endpoint(swapPaths.turns, {
    answer: z.object({ mine: turnSaidSchema.nullable(), others: z.array(turnSaidSchema.extend({ person: named })) }),
  }),
  ask: endpoint(swapPaths.ask, {
    body: z.object({ takes: isoDate, note: prose('The note', 500).default('') }),
    answer: saved,
  }),
  decide: endpoint(swapPaths.decide, {
    heavy: true,
    body: z.object({ version: z.number().int(), deed: z.enum(['agree', 'give', 'refuse', 'withdraw']) }),
    answer: saved,
  }),
};
