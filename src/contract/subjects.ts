import { z } from 'zod';
import { endpoint } from './endpoint.ts';
import { id } from './fields.ts';
import { subjectPaths } from './paths.ts';

/** Someone or something that work can be for. */
export const subjectSchema = z.object({
  clientId: id.nullable(),
  assetId: id.nullable(),
  name: z.string(),
  detail: z.string(),
  /** What stands on its tag. */
  tag: z.string().nullable(),
});
export type Subject = z.infer<typeof subjectSchema>;

/** So many are shown of those found: who wants another types more of its name. */
export const MOST_SUBJECTS = 50;
/** The longest line that is captured. */
export const MOST_CAPTURED = 400;

export const subjectEndpoints = {
  /** By words of name, place, tag or client: our own first, then each client with what is theirs; the first of all without words. */
  find: endpoint(subjectPaths.find, {
    query: z.object({ q: z.string().max(100).default('') }),
    answer: z.object({ subjects: z.array(subjectSchema), isMore: z.boolean() }),
  }),
  /** The client and the asset of these ids. */
  named: endpoint(subjectPaths.named, {
    query: z.object({ clientId: id.optional(), assetId: id.optional() }),
    answer: z.object({ client: subjectSchema.nullable(), asset: subjectSchema.nullable() }),
  }),
  /** Those that a captured line may name, whole or by how their names begin. */
  said: endpoint(subjectPaths.said, {
    query: z.object({ line: z.string().max(MOST_CAPTURED) }),
    answer: z.object({ subjects: z.array(subjectSchema) }),
  }),
};
