import { messageEndpoints } from '../../contract/index.ts';
import { linkOrigin } from '../platform/http/addresses.ts';
import type { Routes } from '../platform/http/route.ts';
import { myMessages, sendSummaryNow, wishSummary } from './wishes.ts';

export function messageRoutes(routes: Routes): Routes {
  return routes
    .add(messageEndpoints.mine, 'account', ({ scope }) => myMessages(scope))
    .add(messageEndpoints.change, 'account', ({ scope, body }) => wishSummary(scope, body))
    .add(messageEndpoints.now, 'account', ({ scope, request }) => sendSummaryNow(scope, linkOrigin(request)));
}
