import type { Response } from 'express';

/** Sends a text a piece at a time, and no faster than it is taken: however long it is, a piece of it waits to be sent. */
export async function sendPieces(response: Response, pieces: AsyncIterable<string> | Iterable<string>): Promise<void> {
  for await (const piece of pieces) {
    const isFull = !response.write(piece);
    if (isFull && !response.closed) await drained(response);
    if (response.closed) return;
  }
  response.end();
}

/** Until more can be written, or nobody waits for it any more. */
function drained(response: Response): Promise<void> {
  return new Promise((resolve) => {
    const go = () => {
      response.off('drain', go).off('close', go);
      resolve();
    };
    response.on('drain', go).on('close', go);
  });
}
