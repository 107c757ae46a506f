/** Programs that are told of what happens to tasks: their addresses, what they were told, and how that went. */
export { WebhookDeliveryRecord, WebhookRecord } from './entity.ts';
export { webhookRoutes } from './routes.ts';
export { deliverWebhooks, noteLate, sweepDeliveries } from './sending.ts';
