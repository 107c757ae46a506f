import type { RequestHandler } from 'express';
import { Refusal } from './refusal.ts';

const READS = new Set(['GET', 'HEAD', 'OPTIONS']);

/** Writes come from our own pages only: their Origin must name the host they are sent to. */
export const sameOriginWrites: RequestHandler = (request, _response, next) => {
  if (READS.has(request.method)) return next();
  if (hostOf(request.headers.origin) !== request.headers.host) {
    throw new Refusal(403, 'Not allowed', 'This request did not come from a page of Jolly Rota, so it was refused.');
  }
  next();
};

function hostOf(origin: string | undefined): string | null {
  return origin !== undefined && URL.canParse(origin) ? new URL(origin).host : null;
}
