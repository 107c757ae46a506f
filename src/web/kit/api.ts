import type { z } from 'zod';
import { type Endpoint, type PathParams, type Problem, problemOf, problemSchema } from '../../contract/index.ts';
import { tellSessionEnded } from '../app/shell/signed-out.ts';

/** A refusal or failure as the server told it, or as the network did. */
export class ProblemError extends Error {
  override readonly name = 'ProblemError';
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
  /** What is wrong with one field, if anything. */
  at(path: string): string | undefined {
    return this.problem.errors?.find((error) => error.path === path)?.message;
  }
}

export type Input<E extends Endpoint> = {
  readonly params?: PathParams<E['path']>;
  readonly query?: z.input<E['query']>;
  readonly body?: z.input<E['body']>;
};
export type Answer<E extends Endpoint> = z.output<E['answer']>;

/** The address of an endpoint with its parameters filled in; also the key under which its answer is kept. */
export function addressOf<E extends Endpoint>(
  endpoint: E,
  { params = {} as PathParams<E['path']>, query }: Input<E> = {},
): string {
  const path = endpoint.path.replace(/:(\w+)/g, (_, name: string) =>
    encodeURIComponent(String((params as Record<string, string>)[name])),
  );
  const given = Object.entries((query ?? {}) as Record<string, unknown>).filter(([, value]) => value !== undefined);
  const search = new URLSearchParams(given.map(([name, value]) => [name, String(value)])).toString();
  return `/api${path}${search ? `?${search}` : ''}`;
}

/** Asks the server. @throws ProblemError with words for the person */
export async function ask<E extends Endpoint>(endpoint: E, input: Input<E> = {}): Promise<Answer<E>> {
  return request(endpoint.method, addressOf(endpoint, input), input.body) as Promise<Answer<E>>;
}

/** Wrong passwords are answered with it too. */
const SIGNED_OUT = 401;
const addressOfSession = '/api/session';

export async function request(method: string, address: string, body?: unknown): Promise<unknown> {
  const response = await fetch(address, {
    method,
    headers: body === undefined ? {} : { 'Content-Type': 'application/json' },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  }).catch(() => {
    throw new ProblemError(
      problemOf('no-connection', 'The server does not answer. What you typed is kept; try again in a moment.'),
    );
  });
  if (response.ok) return response.json();
  if (response.status === SIGNED_OUT && address !== addressOfSession) tellSessionEnded();
  const problem = problemSchema.safeParse(await response.json().catch(() => null));
  throw new ProblemError(
    problem.success
      ? problem.data
      : {
          ...problemOf('broken', `The server answered with an error (${response.status}). Nothing was saved.`),
          status: response.status,
        },
  );
}
