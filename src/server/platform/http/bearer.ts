import type { RequestHandler } from 'express';
import type { DataSource } from 'typeorm';
import type { TokenScope } from '../../../core/index.ts';
import { isoOfDay } from '../../../core/index.ts';
import { type Clock, civilNow } from '../clock.ts';
import { digestOf } from '../digest.ts';
import { AccessTokenRecord } from '../identity/token.ts';
import { Refusal } from '../refusal.ts';
import { type SignedIn, whoIs } from './session.ts';

/** A program that asks in somebody's name. */
export interface Program extends SignedIn {
  readonly tokenId: string;
  readonly scope: TokenScope;
}

declare module 'express-serve-static-core' {
  interface Request {
    /** Set where a program shows a token; whoever is at a browser has a session instead. */
    program?: Program;
  }
}

/** That one was used is written down no more often than this. */
const USED_MS = 10 * 60_000;

/** By what tokens are known among other random strings. */
export const TOKEN_MARK = 'jr_';

/**
 * Who asks by a token (RFC 6750, section 2.1): it stands in the place of a session, and of the page that a session comes from.
 * What shows a token that opens nothing is told so (section 3.1), whatever else it shows.
 */
export function bearers(reads: DataSource, writes: DataSource, clock: Clock): RequestHandler {
  return async (request, _response, next) => {
    const shown = /^Bearer +(\S+) *$/i.exec(request.headers.authorization ?? '')?.[1];
    if (shown === undefined) return next();
    const row = shown.startsWith(TOKEN_MARK)
      ? await reads.getRepository(AccessTokenRecord).findOneBy({ digest: digestOf(shown) })
      : null;
    const signedIn = row && (await whoIs(reads, row.workspaceId, row.personId, clock));
    if (!row || !signedIn) throw unknown('is not known here, or was withdrawn');
    const { workspaceId, id, scope, endsOn, usedAt } = row;
    if (endsOn !== null && endsOn < isoOfDay(civilNow(clock, signedIn.workspace.zone).day))
      throw unknown('has run out');
    request.program = { ...signedIn, tokenId: id, scope };
    if (usedAt === null || clock.now() - usedAt.getTime() >= USED_MS)
      await writes.query('update access_token set used_at = $3 where workspace_id = $1 and id = $2', [
        ...[workspaceId, id, new Date(clock.now())],
      ]);
    next();
  };
}

const unknown = (why: string) =>
  new Refusal('signed-out', `This token ${why}.`, { headers: { 'WWW-Authenticate': 'Bearer error="invalid_token"' } });
