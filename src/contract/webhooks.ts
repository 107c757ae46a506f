import { z } from 'zod';
import { endpoint } from './endpoint.ts';
import { civilMoment, id, line } from './fields.ts';
import { webhookPaths } from './paths-later.ts';

/** What programs can be told of as it happens. */
export const WEBHOOK_EVENTS = ['task.made', 'task.started', 'task.finished', 'task.late'] as const;
export type WebhookEvent = (typeof WEBHOOK_EVENTS)[number];

export const MOST_WEBHOOKS = 20;
export const DELIVERIES_A_PAGE = 50;

const webhookInputSchema = z.object({
  name: line('What it is for', 60),
  url: z
    .string()
    .max(1000, '1000 signs at most.')
    .refine(
      (url) => /^https?:\/\//i.test(url) && URL.canParse(url),
      'That is no address, like https://example.org/rota.',
    )
    .refine(
      (url) => !URL.canParse(url) || new URL(url).username === '',
      'Leave out name and password: it is known by its signature.',
    ),
  events: z
    .array(z.enum(WEBHOOK_EVENTS))
    .min(1, 'Choose at least one.')
    .refine((events) => new Set(events).size === events.length, 'One stands there twice.'),
  isOn: z.boolean(),
});
export type WebhookInput = z.infer<typeof webhookInputSchema>;

const webhookSchema = webhookInputSchema.extend({
  id,
  version: z.number().int(),
  /** By which the receiver knows that it is us. */
  secret: z.string(),
  madeAt: civilMoment,
  /** Deliveries that wait, and that were given up within the last week. */
  waiting: z.number().int(),
  failed: z.number().int(),
});
export type Webhook = z.infer<typeof webhookSchema>;
const webhooksSchema = z.object({ webhooks: z.array(webhookSchema) });

const deliverySchema = z.object({
  id,
  event: z.enum(WEBHOOK_EVENTS),
  task: z.string(),
  at: civilMoment,
  state: z.enum(['waiting', 'sent', 'failed']),
  tries: z.number().int(),
  /** What was answered last, or why nothing was. */
  said: z.string().nullable(),
});
export type WebhookDelivery = z.infer<typeof deliverySchema>;

export const webhookEndpoints = {
  list: endpoint(webhookPaths.list, { answer: webhooksSchema }),
  add: endpoint(webhookPaths.add, { body: webhookInputSchema, answer: webhooksSchema }),
  change: endpoint(webhookPaths.change, {
    body: webhookInputSchema.extend({ version: z.number().int() }),
    answer: webhooksSchema,
  }),
  drop: endpoint(webhookPaths.drop, { answer: webhooksSchema }),
  /** What was told, the newest first. */
  log: endpoint(webhookPaths.log, {
    query: z.object({ before: id.optional() }),
    answer: z.object({ deliveries: z.array(deliverySchema), more: z.boolean() }),
  }),
  /** Sends one once more, under the same id. */
  again: endpoint(webhookPaths.again, { answer: z.object({ delivery: deliverySchema }) }),
};
