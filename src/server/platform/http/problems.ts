import { setTimeout } from 'node:timers/promises';
import type { ErrorRequestHandler, RequestHandler } from 'express';
import type { Logger } from 'pino';
import { type Problem, problemOf } from '../../../contract/index.ts';
import { isDeadlock, isOvertime } from '../db/deadlock.ts';
import { isConnectionLoss } from '../db/outage.ts';
import { isDiskFull, noteDiskFull } from '../disk.ts';
import { Refusal } from '../refusal.ts';

/**
 * Whoever asks too much and again at once would keep the server busy with refusing: this refusal takes its time, and not
 * the same for all, as those who are refused together would come back together.
 */
const SLOW_MS = { least: 300, most: 900 } as const;
/** So many wait for theirs; who comes on top is refused at once. */
const MOST_SLOWED = 1000;

/** Every error leaves as problem details (RFC 9457): refusals in their own words, faults of ours without their insides. */
export function problems(log: Logger): ErrorRequestHandler {
  let slowed = 0;
  return async (error: unknown, request, response, next) => {
    if (isDiskFull(error)) noteDiskFull();
    const problem = toldOf(error);
    if (problem.status >= 500) log.error({ err: error, requestId: request.id, path: request.path }, 'request failed');
    if (response.headersSent) return next(error);
    if (problem.status === 429 && slowed < MOST_SLOWED) {
      slowed++;
      await setTimeout(SLOW_MS.least + Math.random() * (SLOW_MS.most - SLOW_MS.least));
      slowed--;
    }
    // Whoever has gone is not answered.
    if (response.destroyed) return;
    response
      .status(problem.status)
      .set({ 'Cache-Control': 'no-store', ...(error instanceof Refusal ? error.headers : {}) })
      .type('application/problem+json')
      .send(JSON.stringify(problem));
  };
}

function toldOf(error: unknown): Problem {
  if (error instanceof Refusal) return problemOf(error.kind, error.detail, error.errors);
  if (isDiskFull(error))
    return problemOf(
      'disk-full',
      'The disk of the server is full. Nothing was saved; what is there can be read. Tell whoever runs the server.',
    );
  const status = statusOf(error);
  if (status === 404) return problemOf('not-found', 'There is nothing here any more.');
  if (status === 413)
    return problemOf(
      'too-large',
      'That is too much text to save at once. Nothing was saved; shorten it and try again.',
    );
  if (status === 415)
    return problemOf(
      'unknown-form',
      'This is sent in a form that can’t be read: text is sent as JSON in UTF-8, unpacked or gzipped.',
    );
  if (status !== null && status >= 400 && status < 500) return problemOf('not-read', 'The request could not be read.');
  if (isConnectionLoss(error)) {
    return problemOf(
      'database-away',
      'The database does not answer just now. Nothing was saved; try again in a moment.',
    );
  }
  if (isDeadlock(error)) {
    return problemOf('busy', 'Others are changing the same things just now. Nothing was saved; try again in a moment.');
  }
  if (isOvertime(error)) {
    return problemOf(
      'too-long',
      'This takes longer than it may just now. Nothing was saved; try again in a moment, or with less.',
    );
  }
  return problemOf(
    'broken',
    'Something went wrong on the server. Nothing was saved; try again, and tell whoever runs the server if it stays.',
  );
}

/** The status that the readers of bodies and addresses give to what they can't take. */
function statusOf(error: unknown): number | null {
  return error instanceof Error && 'status' in error && typeof error.status === 'number' ? error.status : null;
}

export const noSuchRoute: RequestHandler = (request) => {
  throw new Refusal('not-found', `There is nothing at ${request.method} ${request.path}.`);
};
