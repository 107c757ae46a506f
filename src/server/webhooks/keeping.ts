import { randomBytes } from 'node:crypto';
import {
  DELIVERIES_A_PAGE,
  MOST_WEBHOOKS,
  type Webhook,
  type WebhookDelivery,
  type WebhookInput,
} from '../../contract/index.ts';
import { isInside } from '../platform/http/posted.ts';
import { changedMeanwhile, invalid, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { WebhookDeliveryRecord, WebhookRecord } from './entity.ts';

/** By which secrets are known among other random strings. */
const SECRET_MARK = 'whsec_';

export async function listWebhooks(scope: Scope): Promise<{ webhooks: Webhook[] }> {
  const rows = await scope.find(WebhookRecord);
  const counts = new Map(
    (
      await scope.sql<{ id: string; waiting: number; failed: number }>(
        `select w.id, (select count(*)::int from webhook_delivery d where d.workspace_id = w.workspace_id and d.webhook_id = w.id and d.state = 'waiting') as waiting,
           (select count(*)::int from webhook_delivery d where d.workspace_id = w.workspace_id and d.webhook_id = w.id and d.state = 'failed'
              and d.at > clock_timestamp() - interval '7 days') as failed
         from webhook w where w.workspace_id = $1`,
      )
    ).map((row) => [row.id, row]),
  );
  return {
    webhooks: rows
      .sort((a, b) => a.name.localeCompare(b.name) || (a.id < b.id ? -1 : 1))
      .map(({ id, version, name, url, secret, events, isOn, madeAt }) => ({
        ...{ id, version, name, url, secret, events, isOn, madeAt: scope.moment(madeAt) },
        waiting: counts.get(id)?.waiting ?? 0,
        failed: counts.get(id)?.failed ?? 0,
      })),
  };
}

/** What can never be told is refused at once; a name is looked at when it is told. */
function mustBeOutside({ url }: WebhookInput, tellsInside: boolean): void {
  if (tellsInside || !isInside(url)) return;
  const message =
    'That is an address inside our own network: programs there are told where the server is set to (JOLLY_HOOKS_INSIDE).';
  throw invalid([{ path: 'url', message }]);
}

export function addWebhook(scope: Scope, input: WebhookInput, tellsInside: boolean) {
  mustBeOutside(input, tellsInside);
  return scope.transaction(async (tx) => {
    await tx.sql('select 1 from workspace where id = $1 for update');
    if ((await tx.find(WebhookRecord)).length >= MOST_WEBHOOKS)
      throw notNow(`${MOST_WEBHOOKS} programs are told already: drop one first.`);
    await tx.insert(WebhookRecord, {
      ...{ id: tx.newId(), version: 1, ...input, secret: `${SECRET_MARK}${randomBytes(32).toString('base64')}` },
      ...{ madeAt: tx.instant, madeBy: tx.me.id },
    });
    await tx.tell('workspace');
    return listWebhooks(tx);
  });
}

export function changeWebhook(
  scope: Scope,
  id: string,
  { version, ...input }: WebhookInput & { readonly version: number },
  tellsInside: boolean,
) {
  mustBeOutside(input, tellsInside);
  return scope.transaction(async (tx) => {
    const before = await tx.locked(WebhookRecord, id, 'webhook');
    if (before.version !== version)
      throw changedMeanwhile(`Somebody else has changed “${before.name}” since you saw it.`);
    await tx.save(WebhookRecord, id, { ...input, version: version + 1 });
    await tx.tell('workspace');
    return listWebhooks(tx);
  });
}

export function dropWebhook(scope: Scope, id: string) {
  return scope.transaction(async (tx) => {
    await tx.locked(WebhookRecord, id, 'webhook');
    await tx.sql('delete from webhook where workspace_id = $1 and id = $2', [id]);
    await tx.tell('workspace');
    return listWebhooks(tx);
  });
}

/** What a program was told, the newest first. */
export async function deliveriesOf(
  scope: Scope,
  webhookId: string,
  before: string | undefined,
): Promise<{ deliveries: WebhookDelivery[]; more: boolean }> {
  await scope.one(WebhookRecord, webhookId, 'webhook');
  const rows = await scope.sql<WebhookDeliveryRecord>(
    `select d.id, d.event, d.task, d.at, d.state, d.tries, d.said from webhook_delivery d where d.workspace_id = $1 and d.webhook_id = $2
       and ($3::uuid is null or (d.at, d.id) < (select at, id from webhook_delivery where workspace_id = $1 and id = $3))
     order by d.at desc, d.id desc limit ${DELIVERIES_A_PAGE + 1}`,
    [webhookId, before ?? null],
  );
  return {
    deliveries: rows.slice(0, DELIVERIES_A_PAGE).map((row) => toldOf(scope, row)),
    more: rows.length > DELIVERIES_A_PAGE,
  };
}

const toldOf = (
  scope: Scope,
  {
    id,
    event,
    task,
    at,
    state,
    tries,
    said,
  }: Pick<WebhookDeliveryRecord, 'id' | 'event' | 'task' | 'at' | 'state' | 'tries' | 'said'>,
): WebhookDelivery => ({
  ...{ id, event, state, tries, said },
  task: String(task['title'] ?? ''),
  at: scope.moment(at),
});

/** Sends one once more as soon as may be, under the same id: a receiver that has it knows it again. */
export function sendAgain(scope: Scope, id: string): Promise<{ delivery: WebhookDelivery }> {
  return scope.transaction(async (tx) => {
    await tx.locked(WebhookDeliveryRecord, id, 'delivery');
    await tx.sql(
      `update webhook_delivery set state = 'waiting', tries = 0, try_at = clock_timestamp(), said = null where workspace_id = $1 and id = $2`,
      [id],
    );
    await tx.sql(
      `select graphile_worker.add_job('webhooks', '{}'::json, job_key => 'webhooks') from workspace where id = $1`,
    );
    return { delivery: toldOf(tx, await tx.one(WebhookDeliveryRecord, id, 'delivery')) };
  });
}
