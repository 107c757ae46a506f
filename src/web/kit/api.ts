import type { z } from 'zod';
import type { Address } from '../../contract/addresses.ts';
import { AGO_HEADER, KEY_HEADER, LONGEST_AGO_SECONDS } from '../../contract/device.ts';
import type { PathParams } from '../../contract/endpoint.ts';
import { type Problem, problemOf, readProblem } from '../../contract/problems.ts';
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

type Of<A extends Address> = NonNullable<A['of']>;
export type Input<A extends Address> = {
  readonly params?: PathParams<Of<A>['path']>;
  readonly query?: z.input<Of<A>['query']>;
  readonly body?: z.input<Of<A>['body']>;
};
export type Answer<A extends Address> = z.output<Of<A>['answer']>;

/** The address of an endpoint with its parameters filled in; also the key under which its answer is kept. */
export function addressOf<A extends Address>({ path: named }: A, { params, query }: Input<A> = {}): string {
  const path = named.replace(/:(\w+)/g, (_, name: string) =>
    encodeURIComponent(String((params as Readonly<Record<string, string>> | undefined)?.[name])),
  );
  const given = Object.entries((query ?? {}) as Record<string, unknown>).filter(([, value]) => value !== undefined);
  const search = new URLSearchParams(given.map(([name, value]) => [name, String(value)])).toString();
  return `/api${path}${search ? `?${search}` : ''}`;
}

/** Of something that may have been kept on this device for a while: sent again under its key it is done once. */
export interface Done {
  readonly key: string;
  readonly agoMs: number;
}

/** Asks the server. @throws ProblemError with words for the person */
export async function ask<A extends Address>(address: A, input: Input<A> = {}, done?: Done): Promise<Answer<A>> {
  return request(address.method, addressOf(address, input), input.body, done) as Promise<Answer<A>>;
}

/** Wrong passwords are answered with it too. */
const SIGNED_OUT = 401;
const addressOfSession = '/api/session';

/** As the server takes it: whole seconds, and not more than it believes. */
export const agoSeconds = (agoMs: number): number =>
  Math.min(Math.round(Math.max(0, agoMs) / 1000), LONGEST_AGO_SECONDS);

function headersOf(done: Done | undefined): Record<string, string> {
  return done ? { [KEY_HEADER]: done.key, [AGO_HEADER]: String(agoSeconds(done.agoMs)) } : {};
}

export async function request(
  method: string,
  address: string,
  body?: unknown,
  done?: Done,
  besides: Readonly<Record<string, string>> = {},
): Promise<unknown> {
  const response = await fetch(address, {
    method,
    headers: {
      ...(body === undefined ? {} : { 'Content-Type': 'application/json' }),
      ...headersOf(done),
      ...besides,
    },
    ...(body === undefined ? {} : { body: JSON.stringify(body) }),
  }).catch(() => {
    throw new ProblemError(
      problemOf('no-connection', 'The server does not answer. What you typed is kept; try again in a moment.'),
    );
  });
  if (response.ok) return response.json();
  if (response.status === SIGNED_OUT && address !== addressOfSession) tellSessionEnded();
  throw new ProblemError(
    readProblem(await response.json().catch(() => null)) ?? {
      ...problemOf('broken', `The server answered with an error (${response.status}). Nothing was saved.`),
      status: response.status,
    },
  );
}
