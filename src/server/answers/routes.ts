import { Router } from 'express';
import type { DataSource } from 'typeorm';
import { answerEndpoints } from '../../contract/index.ts';
import type { FileStore } from '../files/stored/index.ts';
import type { Clock } from '../platform/clock.ts';
import type { Routes } from '../platform/http/route.ts';
import type { ServerParts } from '../platform/server-parts.ts';
import { takeMailsAgain } from '../post/index.ts';
import { placeAnswer, putAway, takePart } from './placing.ts';
import { answersInTray, answersOfClient, answersOfTask } from './queries.ts';
import { byMailKey, mailOfKey, mailsTo, stopMails, stopMailsBy } from './stopping.ts';
import { askToTryOut } from './trying-out.ts';

export function answerRoutes(
  routes: Routes,
  { files, clock, mailEndsHere }: ServerParts & { readonly files: FileStore },
): Routes {
  const byKey = byMailKey(clock);
  return routes
    .add(answerEndpoints.ofTask, 'read', ({ scope, params, query }) =>
      answersOfTask(scope, params.taskId, query.before),
    )
    .add(answerEndpoints.ofClient, 'read', ({ scope, params, query }) =>
      answersOfClient(scope, params.clientId, query.before),
    )
    .add(answerEndpoints.tray, 'post', ({ scope, query }) => answersInTray(scope, query.tray, query.before))
    .add(answerEndpoints.place, 'post', ({ scope, params, body }) => placeAnswer(scope, params.answerId, body))
    .add(answerEndpoints.putAway, 'post', ({ scope, params, body }) => putAway(scope, params.answerId, body.away))
    .add(answerEndpoints.take, 'work', ({ scope, params }) => takePart(scope, files, params.partId))
    .add(answerEndpoints.tryOut, 'post', ({ scope, params, body }) =>
      askToTryOut(scope, params.mailId, body, mailEndsHere),
    )
    .add(answerEndpoints.mails, byKey, ({ scope, request }) => mailsTo(scope, request))
    .add(answerEndpoints.stopMails, byKey, ({ scope, request }) => stopMailsBy(scope, request))
    .add(answerEndpoints.mailAgain, 'clients', ({ scope, body }) => takeMailsAgain(scope, body.email));
}

/**
 * What a mail program sends for the one click by which its reader stops mails (RFC 8058, section 3.2): from no page and without
 * a cookie, told from others by the key in the address alone. Whoever opens the address sees the page that asks.
 */
export function oneClickRouter({ writes, clock }: { readonly writes: DataSource; readonly clock: Clock }): Router {
  const router = Router();
  router.post('/:key', async (request, response) => {
    const { key } = request.params;
    const { scope } = await mailOfKey(writes, clock, key);
    const { from, email } = await stopMails(scope, key);
    response.type('text/plain').send(`${from} sends no more mails to ${email}.`);
  });
  router.get('/:key', (request, response) => {
    response.redirect(303, `/no-mails#${encodeURIComponent(request.params.key)}`);
  });
  return router;
}
