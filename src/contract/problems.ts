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
  /** It was sent before, and the answer did not get back. */
  'arrived-before': [409, 'Arrived before'],
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

/** RFC 9457, with the fields at fault. */
export interface Problem {
  readonly type: string;
  readonly title: string;
  readonly status: number;
  /** What happened, what was kept and what to do, in a sentence. */
  readonly detail: string;
  /** Fields at fault: a path into the body, and what is wrong there. */
  readonly errors?: readonly { readonly path: string; readonly message: string }[] | undefined;
}

const isRecord = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null;
const isFault = (value: unknown): boolean =>
  isRecord(value) && typeof value['path'] === 'string' && typeof value['message'] === 'string';

/** A problem as it came over the net; null for anything else. Every page needs it from the start: told without a schema. */
export function readProblem(value: unknown): Problem | null {
  if (!isRecord(value)) return null;
  const { type, title, status, detail, errors } = value;
  const isProblem =
    [type, title, detail].every((text) => typeof text === 'string') &&
    Number.isInteger(status) &&
    (errors === undefined || (Array.isArray(errors) && errors.every(isFault)));
  return isProblem ? (value as unknown as Problem) : null;
}

export function problemOf(kind: ProblemKind, detail: string, errors?: Problem['errors']): Problem {
  const [status, title] = PROBLEMS[kind];
  return { type: problemType(kind), title, status, detail, ...(errors ? { errors } : {}) };
}
