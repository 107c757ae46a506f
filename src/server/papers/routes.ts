import { paperEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { sendPaper } from '../platform/pdf.ts';
import { callPaper, clientPaper, dayPaper, weekPaper } from './papers.ts';

export function paperRoutes(routes: Routes): Routes {
  return routes
    .sendTo(paperEndpoints.day, 'read', async ({ scope, query }, response) => {
      const { paper, name } = await dayPaper(scope, query);
      sendPaper(response, paper, name);
    })
    .sendTo(paperEndpoints.week, 'read', async ({ scope, query }, response) => {
      const { paper, name } = await weekPaper(scope, query);
      sendPaper(response, paper, name);
    })
    .sendTo(paperEndpoints.client, 'read', async ({ scope, query }, response) => {
      const { paper, name } = await clientPaper(scope, query);
      sendPaper(response, paper, name);
    })
    .sendTo(paperEndpoints.calls, 'read', async ({ scope, query }, response) => {
      const { paper, name } = await callPaper(scope, query);
      sendPaper(response, paper, name);
    });
}
