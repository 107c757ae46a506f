import { request as ask } from 'node:http';
import type { Request, Response } from 'express';
import type { Part } from '../parts.ts';
import { Refusal } from './refusal.ts';

/** Shows the lane that a request comes from the front, where it has waited for its turn. */
export const LANE_HEADER = 'x-jolly-lane';

/** Headers that belong to one connection, not to what is asked over it (RFC 9110, section 7.6.1). */
const OF_THE_CONNECTION = new Set(['connection', 'keep-alive', 'transfer-encoding', 'upgrade', 'te', 'trailer']);

const away = () =>
  new Refusal(
    503,
    'Not now',
    'The part of the server that works this out is being started again. Nothing was saved; try again in a moment.',
    undefined,
    { 'Retry-After': '2' },
  );

/** Work that takes a while, done in a process of its own: what must be answered at once never waits behind it. */
export class HeavyLane {
  constructor(
    private readonly part: Part,
    private readonly key: string,
  ) {}

  /** Passes a request on as it came, and its answer back. Whoever leaves is not answered. */
  forward(request: Request, response: Response): Promise<void> {
    const { port } = this.part;
    if (port === null) throw away();
    const headers = Object.fromEntries(
      Object.entries(request.headers).filter(([name]) => !OF_THE_CONNECTION.has(name) && name !== LANE_HEADER),
    );
    return new Promise((resolve, reject) => {
      const onward = ask(
        {
          host: '127.0.0.1',
          port,
          method: request.method,
          path: request.originalUrl,
          headers: { ...headers, [LANE_HEADER]: this.key },
        },
        (answer) => {
          const { statusCode = 502, headers: given } = answer;
          response.status(statusCode);
          for (const [name, value] of Object.entries(given))
            if (value !== undefined && !OF_THE_CONNECTION.has(name)) response.setHeader(name, value);
          answer.once('error', (error) => response.destroy(error));
          answer.pipe(response);
          response.once('close', resolve);
        },
      );
      onward.once('error', (error) => (response.headersSent || response.destroyed ? resolve() : reject(lost(error))));
      response.once('close', () => {
        if (!response.writableFinished) onward.destroy();
        resolve();
      });
      request.pipe(onward);
    });
  }
}

function lost(error: Error): Refusal {
  const refusal = away();
  refusal.cause = error;
  return refusal;
}
