import { z } from 'zod';

/** The parameters in a path: `/tasks/:taskId` has a `taskId`. All are ids. */
export type PathParams<Path extends string> = Path extends `${string}:${infer Name}/${infer Rest}`
  ? { readonly [K in Name | keyof PathParams<Rest>]: string }
  : Path extends `${string}:${infer Name}`
    ? { readonly [K in Name]: string }
    : Record<never, string>;

/** One thing the browser may ask of the server: both ends take their types from it. */
export interface Endpoint<
  Path extends string = string,
  Query extends z.ZodType = z.ZodType,
  Body extends z.ZodType = z.ZodType,
  Answer extends z.ZodType = z.ZodType,
> {
  readonly method: 'GET' | 'POST' | 'PUT' | 'DELETE';
  /** Below `/api`. */
  readonly path: Path;
  readonly query: Query;
  readonly body: Body;
  readonly answer: Answer;
  /** Whether it adds up over a whole workspace, or plans many dates: then it is worked out apart from what must be quick. */
  readonly isHeavy: (query: Readonly<Record<string, unknown>>) => boolean;
  /** The longest body, in bytes. */
  readonly maxBytes: number;
  /** Where it is to go one day: told with each answer before (RFC 9745, RFC 8594); null for what stays. */
  readonly deprecated: Deprecated | null;
  /** Whether a device may have kept it until there was a connection: then it is done once, and as of when it was done. */
  readonly isFromDevice: boolean;
}

/** What will go: since when that is said, when it goes, and the page that says what comes in its place. */
export interface Deprecated {
  /** Days, `YYYY-MM-DD`, by UTC. */
  readonly since: string;
  readonly goesOn: string;
  readonly instead: string;
}

/** Enough for a template with all its steps and instructions. */
const MOST_BYTES = 1024 * 1024;

const NOTHING = z.object({});
type Nothing = typeof NOTHING;

export function endpoint<
  const Path extends string,
  Answer extends z.ZodType,
  Query extends z.ZodType = Nothing,
  Body extends z.ZodType = Nothing,
>(
  [method, path]: readonly [Endpoint['method'], Path],
  spec: {
    answer: Answer;
    query?: Query;
    body?: Body;
    heavy?: boolean | ((query: Readonly<Record<string, unknown>>) => boolean);
    maxBytes?: number;
    fromDevice?: boolean;
    deprecated?: Deprecated;
  },
): Endpoint<Path, Query, Body, Answer> {
  const { heavy = false, maxBytes = MOST_BYTES, fromDevice = false, deprecated = null, ...rest } = spec;
  return {
    method,
    path,
    query: NOTHING as unknown as Query,
    body: NOTHING as unknown as Body,
    ...rest,
    isHeavy: typeof heavy === 'function' ? heavy : () => heavy,
    maxBytes,
    isFromDevice: fromDevice,
    deprecated,
  };
}
