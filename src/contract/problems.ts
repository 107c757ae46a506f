// Needed by every page from the start: the small form of Zod.
import * as z from 'zod/mini';

/**
 * Every way in which a request can fail, with its status (RFC 9110) and its title. The key stays the same for good: it is
 * the end of the problem's type (RFC 9457, section 3.1.1), by which programs tell one from another.
 */
export const PROBLEMS = {
  'no-connection': [0, 'No connection'],
  'not-read': [400, 'Not read'],
  'signed-out': [401, 'Signed out'],
  'wrong-password': [401, 'Not signed in'],
  'not-allowed': [403, 'Not allowed'],
  'not-found': [404, 'Not found'],
  'changed-meanwhile': [409, 'Changed meanwhile'],
  'not-now': [409, 'Not as it stands'],
  'in-use': [409, 'In use'],
  'too-large': [413, 'Too large'],
  full: [413, 'Full'],
  'unknown-form': [415, 'Unknown form'],
  'wrong-address': [421, 'Wrong address'],
  invalid: [422, 'Not saved'],
  'too-many': [429, 'Too many requests'],
  gone: [499, 'Gone'],
  broken: [500, 'Broken'],
  'database-away': [503, 'Not just now'],
  busy: [503, 'Not just now'],
  'too-long': [503, 'Not just now'],
  'disk-full': [507, 'Disk full'],
} as const satisfies Record<string, readonly [status: number, title: string]>;

export type ProblemKind = keyof typeof PROBLEMS;

const TYPE = 'urn:jolly-rota:problem:';
export const problemType = (kind: ProblemKind) => `${TYPE}${kind}`;

export const problemSchema = z.object({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  /** What happened, what was kept and what to do, in a sentence. */
  detail: z.string(),
  /** Fields at fault: a path into the body, and what is wrong there. */
  errors: z.optional(z.array(z.object({ path: z.string(), message: z.string() }))),
});
export type Problem = z.infer<typeof problemSchema>;

export function problemOf(kind: ProblemKind, detail: string, errors?: Problem['errors']): Problem {
  const [status, title] = PROBLEMS[kind];
  return { type: problemType(kind), title, status, detail, ...(errors ? { errors } : {}) };
}
