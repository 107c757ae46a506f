import { z } from 'zod';
import { endpoint } from './endpoint.ts';
import { id, isoDate } from './fields.ts';
import { paperPaths } from './paths-later.ts';

const query = {
  day: z.object({ person: id, on: isoDate.optional() }),
  /** Any day of the week; of a team, or of a role. */
  week: z
    .object({ team: z.string().max(60).optional(), role: z.string().max(60).optional(), week: isoDate.optional() })
    .refine(
      ({ team, role }) => (team === undefined) !== (role === undefined),
      'Say whose week: of a team, or of a role.',
    ),
  client: z.object({ client: id }),
  calls: z.object({ person: id, on: isoDate.optional() }),
};
export type PaperOf = { readonly [K in keyof typeof query]: z.output<(typeof query)[K]> };

/** What is taken along or hung up, as PDF. */
export const paperEndpoints = {
  day: endpoint(paperPaths.day, { query: query.day, answer: z.string() }),
  week: endpoint(paperPaths.week, { query: query.week, answer: z.string() }),
  client: endpoint(paperPaths.client, { query: query.client, answer: z.string() }),
  calls: endpoint(paperPaths.calls, { query: query.calls, answer: z.string() }),
};
