import { postEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import type { ServerParts } from '../platform/server-parts.ts';
import { listMails, oneMail, sendAgain, sendPart } from './queries.ts';

export function postRoutes(routes: Routes, { mailEndsHere }: ServerParts): Routes {
  return routes
    .add(postEndpoints.list, 'post', ({ scope, query }) => listMails(scope, query, mailEndsHere))
    .add(postEndpoints.one, 'post', ({ scope, params }) => oneMail(scope, params.mailId, mailEndsHere))
    .sendTo(postEndpoints.part, 'post', ({ scope, params }, response) => sendPart(scope, params.partId, response))
    .add(postEndpoints.again, 'post', ({ scope, params, body }) =>
      sendAgain(scope, params.mailId, body.email, mailEndsHere),
    );
}
