import { webhookEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import type { ServerParts } from '../platform/server-parts.ts';
import { addWebhook, changeWebhook, deliveriesOf, dropWebhook, listWebhooks, sendAgain } from './keeping.ts';

export function webhookRoutes(routes: Routes, { tellsInside }: ServerParts): Routes {
  return routes
    .add(webhookEndpoints.list, 'settings', ({ scope }) => listWebhooks(scope))
    .add(webhookEndpoints.add, 'settings', ({ scope, body }) => addWebhook(scope, body, tellsInside))
    .add(webhookEndpoints.change, 'settings', ({ scope, params, body }) =>
      changeWebhook(scope, params.webhookId, body, tellsInside),
    )
    .add(webhookEndpoints.drop, 'settings', ({ scope, params }) => dropWebhook(scope, params.webhookId))
    .add(webhookEndpoints.log, 'settings', ({ scope, params, query }) =>
      deliveriesOf(scope, params.webhookId, query.before),
    )
    .add(webhookEndpoints.again, 'settings', ({ scope, params }) => sendAgain(scope, params.deliveryId));
}
