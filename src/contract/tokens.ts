import { z } from 'zod';
import { TOKEN_SCOPES } from '../core/index.ts';
import { endpoint } from './endpoint.ts';
import { civilMoment, id, isoDate, line } from './fields.ts';
import { tokenPaths } from './paths-later.ts';

/** Tokens of one person. */
export const MOST_TOKENS = 20;

const tokenInputSchema = z.object({
  name: line('What it is for', 60),
  scope: z.enum(TOKEN_SCOPES),
  /** Its last day; null for none. */
  endsOn: isoDate.nullable(),
});
export type TokenInput = z.infer<typeof tokenInputSchema>;

const tokenSchema = tokenInputSchema.extend({
  id,
  madeAt: civilMoment,
  usedAt: civilMoment.nullable(),
  hasEnded: z.boolean(),
});
export type AccessToken = z.infer<typeof tokenSchema>;
const tokensSchema = z.object({ tokens: z.array(tokenSchema) });

/** Tokens by which programs ask in somebody's name, as RFC 6750 has them: `Authorization: Bearer …`. */
export const tokenEndpoints = {
  mine: endpoint(tokenPaths.mine, { answer: tokensSchema }),
  /** The token is told this once: what is kept of it is a digest. */
  make: endpoint(tokenPaths.make, { body: tokenInputSchema, answer: tokensSchema.extend({ token: z.string() }) }),
  withdraw: endpoint(tokenPaths.withdraw, { answer: tokensSchema }),
};
