import { STATUS_CODES } from 'node:http';
import type { ErrorRequestHandler, RequestHandler } from 'express';
import type { Logger } from 'pino';
import type { Problem } from '../../contract/index.ts';
import { isDeadlock } from '../db/deadlock.ts';
import { isConnectionLoss } from '../db/outage.ts';
import { Refusal } from './refusal.ts';

/** Every error leaves as problem details (RFC 9457): refusals in their own words, faults of ours without their insides. */
export function problems(log: Logger): ErrorRequestHandler {
  return (error: unknown, request, response, next) => {
    if (response.headersSent) return next(error);
    const problem = problemOf(error);
    if (problem.status >= 500) log.error({ err: error, requestId: request.id, path: request.path }, 'request failed');
    response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem));
  };
}

function problemOf(error: unknown): Problem {
  if (error instanceof Refusal) {
    const { status, title, detail, errors } = error;
    return { type: 'about:blank', title, status, detail, ...(errors ? { errors } : {}) };
  }
  const status = statusOf(error);
  if (status === 413)
    return problem(413, 'That is too much text to save at once. Nothing was saved; shorten it and try again.');
  if (status === 400) return problem(400, 'The request could not be read.');
  if (isConnectionLoss(error)) {
    return problem(503, 'The database does not answer just now. Nothing was saved; try again in a moment.');
  }
  if (isDeadlock(error)) {
    return problem(503, 'Others are changing the same things just now. Nothing was saved; try again in a moment.');
  }
  return problem(
    500,
    'Something went wrong on the server. Nothing was saved; try again, and tell whoever runs the server if it stays.',
  );
}

function problem(status: number, detail: string): Problem {
  return { type: 'about:blank', title: STATUS_CODES[status] ?? 'Error', status, detail };
}

/** The status that the body parser gives to bodies it can't take. */
function statusOf(error: unknown): number | null {
  return error instanceof Error && 'status' in error && typeof error.status === 'number' ? error.status : null;
}

export const noSuchRoute: RequestHandler = (request) => {
  throw new Refusal(404, 'Not found', `There is nothing at ${request.method} ${request.path}.`);
};
