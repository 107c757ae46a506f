import { messageEndpoints } from '../../contract/index.ts';
import { linkOrigin } from '../platform/http/addresses.ts';
import type { Routes } from '../platform/http/route.ts';
import { chased, chasedOfSchedule } from './chase.ts';
import { wishKind, wishQuiet } from './choices.ts';
import { myMessages, sendSummaryNow, wishSummary } from './wishes.ts';

export function messageRoutes(routes: Routes): Routes {
  return routes
    .add(messageEndpoints.mine, 'account', ({ scope }) => myMessages(scope))
    .add(messageEndpoints.change, 'account', ({ scope, body }) => wishSummary(scope, body))
    .add(messageEndpoints.hear, 'account', ({ scope, body }) => wishKind(scope, body))
    .add(messageEndpoints.quiet, 'account', ({ scope, body }) => wishQuiet(scope, body))
    .add(messageEndpoints.chase, 'nudge', ({ scope, body }) => chased(scope, body.tasks))
    .add(messageEndpoints.chaseOfSchedule, 'nudge', ({ scope, params }) => chasedOfSchedule(scope, params.scheduleId))
    .add(messageEndpoints.now, 'account', ({ scope, request }) => sendSummaryNow(scope, linkOrigin(request)));
}
