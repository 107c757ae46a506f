import express, { type Request, type RequestHandler, type Response } from 'express';

/** One reader for each limit that endpoints have. */
const readers = new Map<number, RequestHandler>();

/**
 * Reads the JSON body of a request; only once it is known who sends it, since reading is work.
 * @throws the errors of the body parser, which carry a status
 */
export function readJson(request: Request, response: Response, maxBytes: number): Promise<unknown> {
  const reader = readers.get(maxBytes) ?? express.json({ limit: maxBytes });
  readers.set(maxBytes, reader);
  return new Promise((resolve, reject) => {
    reader(request, response, (error?: unknown) => (error ? reject(error) : resolve(request.body)));
  });
}
