import { createHash } from 'node:crypto';
import { Router } from 'express';
import { tokenEndpoints } from '../../contract/index.ts';
import type { KnownRoute } from '../platform/http/known-routes.ts';
import type { Routes } from '../platform/http/route.ts';
import { openApiOf } from './openapi.ts';
import { makeToken, myTokens, withdrawToken } from './tokens.ts';

export function programRoutes(routes: Routes): Routes {
  return routes
    .add(tokenEndpoints.mine, 'account', ({ scope }) => myTokens(scope))
    .add(tokenEndpoints.make, 'account', ({ scope, body }) => makeToken(scope, body))
    .add(tokenEndpoints.withdraw, 'account', ({ scope, params }) => withdrawToken(scope, params.tokenId));
}

/** The description of every route there is, for anybody: it says nothing of a workspace. Made when it is first asked for. */
export function describedRoutes(known: readonly KnownRoute[]): Router {
  const router = Router();
  let made: { readonly text: string; readonly mark: string } | null = null;
  router.get('/openapi.json', (request, response) => {
    if (made === null) {
      const text = JSON.stringify(openApiOf(known));
      made = { text, mark: `"${createHash('sha256').update(text).digest('base64url')}"` };
    }
    response.set({ ETag: made.mark, 'Cache-Control': 'no-cache', 'Content-Type': 'application/json; charset=utf-8' });
    if (request.fresh) response.status(304).end();
    else response.send(made.text);
  });
  return router;
}
