import { request as ask, type IncomingMessage } from 'node:http';
import { pipeline } from 'node:stream/promises';
import type { Request, Response } from 'express';
import type { Part } from '../parts.ts';
import { Refusal } from '../refusal.ts';

/** Shows the lane that a request comes from the front, where it has waited for its turn. */
export const LANE_HEADER = 'x-jolly-lane';

/** Headers that belong to one connection, not to what is asked over it (RFC 9110, section 7.6.1). */
const OF_THE_CONNECTION = new Set(['connection', 'keep-alive', 'transfer-encoding', 'upgrade', 'te', 'trailer']);

/** Longer than the database gives any question; after that something is wrong with the lane. */
const LONGEST_MS = 150_000;

const away = () =>
  new Refusal(
    'busy',
    'The part of the server that works this out is being started again. Nothing was saved; try again in a moment.',
    { headers: { 'Retry-After': '2' } },
  );

/** Work that takes a while, done in a process of its own: what must be answered at once never waits behind it. */
export class HeavyLane {
  constructor(
    private readonly part: Pick<Part, 'port'>,
    private readonly key: string,
  ) {}

  /** Passes a request on as it came, and its answer back. Whoever has left is not answered, and nothing waits for them. */
  async forward(request: Request, response: Response): Promise<void> {
    if (response.closed) return;
    const answer = await this.answerOf(request, response);
    if (answer === null) return;
    response.status(answer.statusCode ?? 502);
    for (const [name, value] of Object.entries(answer.headers))
      if (value !== undefined && !OF_THE_CONNECTION.has(name)) response.setHeader(name, value);
    try {
      await pipeline(answer, response);
    } catch (error) {
      // Whoever asked has gone, or the lane has in the middle of its answer: a cut answer is told by the connection's end.
      response.destroy(error instanceof Error ? error : undefined);
    }
  }

  /** The beginning of the answer; null where nobody waits for it any more. */
  private answerOf(request: Request, response: Response): Promise<IncomingMessage | null> {
    const { port } = this.part;
    if (port === null) throw away();
    const headers = Object.fromEntries(
      Object.entries(request.headers).filter(([name]) => !OF_THE_CONNECTION.has(name) && name !== LANE_HEADER),
    );
    return new Promise((resolve, reject) => {
      const onward = ask({
        host: '127.0.0.1',
        port,
        method: request.method,
        path: request.originalUrl,
        headers: { ...headers, [LANE_HEADER]: this.key },
        timeout: LONGEST_MS,
        // A connection of its own: one that is kept may be closed at the other end in the moment it is used again.
        agent: false,
      });
      const leave = () => {
        onward.destroy();
        resolve(null);
      };
      response.once('close', leave);
      onward.once('timeout', () => onward.destroy(new Error('The heavy lane does not answer.')));
      onward.once('response', (answer) => {
        response.off('close', leave);
        resolve(answer);
      });
      onward.once('error', (error) => {
        response.off('close', leave);
        const refusal = away();
        refusal.cause = error;
        reject(refusal);
      });
      request.pipe(onward);
    });
  }
}
