import { createHmac } from 'node:crypto';
import type { DataSource } from 'typeorm';
import { posted } from '../platform/http/posted.ts';
import type { Scope } from '../platform/scope.ts';
import { isLate, TaskQuestion } from '../task-list/index.ts';

/** Minutes until each next try; after the last nobody tries any more. Together some three days. */
const GAPS = [1, 5, 30, 120, 360, 720, 1440, 1440] as const;
/** Sent beside each other, and by one look. */
const AT_ONCE = 200;
const BESIDE = 8;
/** Whoever sends one holds it for longer than that takes; who falls leaves it to the next after that. */
const HELD_SECONDS = 60;
const KEPT_DAYS = 30;
/** Late work is told within so many days: what is late for longer was, or nobody was told of late work then. */
const LATE_DAYS = 2;

interface Due {
  readonly workspaceId: string;
  readonly id: string;
  readonly event: string;
  readonly task: object;
  readonly at: Date;
  readonly tries: number;
  readonly url: string;
  readonly secret: string;
}

/** The signature of a delivery (Standard Webhooks 1.0): HMAC-SHA256 over its id, the second it is sent in, and its body. */
export function signatureOf(secret: string, id: string, seconds: number, body: string): string {
  const key = Buffer.from(secret.replace(/^whsec_/, ''), 'base64');
  return `v1,${createHmac('sha256', key).update(`${id}.${seconds}.${body}`).digest('base64')}`;
}

/**
 * Sends what is due to be told. What a receiver takes (2xx) is told; what it does not is tried again, and given up after three days.
 * @param mayBeInside whether addresses of this machine and its network are reached @returns how many were taken
 */
export async function deliverWebhooks(source: DataSource, mayBeInside: boolean): Promise<number> {
  const due: Due[] = await source
    .query<[Due[], number]>(
      // Chosen once, before the rest is put together: a plan that asked again would choose others.
      `with due as materialized (
         select d.workspace_id, d.id from webhook_delivery d
           join webhook w on w.workspace_id = d.workspace_id and w.id = d.webhook_id and w.is_on
         where d.state = 'waiting' and d.try_at <= clock_timestamp() order by d.try_at limit ${AT_ONCE} for update of d skip locked)
       update webhook_delivery d set try_at = clock_timestamp() + make_interval(secs => ${HELD_SECONDS})
       from due, webhook w where d.workspace_id = due.workspace_id and d.id = due.id
         and w.workspace_id = d.workspace_id and w.id = d.webhook_id
       returning d.workspace_id as "workspaceId", d.id, d.event, d.task, d.at, d.tries, w.url, w.secret`,
    )
    .then(([rows]) => rows);
  const waiting = due.sort((a, b) => a.at.getTime() - b.at.getTime()).reverse();
  let taken = 0;
  const sender = async (): Promise<void> => {
    for (let next = waiting.pop(); next !== undefined; next = waiting.pop()) {
      // Added after the wait: others have added meanwhile.
      const isTaken = await deliver(source, next, mayBeInside);
      if (isTaken) taken++;
    }
  };
  await Promise.all(Array.from({ length: BESIDE }, sender));
  return taken;
}

async function deliver(source: DataSource, due: Due, mayBeInside: boolean): Promise<boolean> {
  const { workspaceId, id, event, task, at, tries, url, secret } = due;
  const body = JSON.stringify({ type: event, timestamp: at.toISOString(), data: { task } });
  const seconds = Math.floor(Date.now() / 1000);
  const answer = await posted(url, {
    body,
    mayBeInside,
    headers: {
      'Content-Type': 'application/json',
      'User-Agent': 'Jolly-Rota-Webhooks/1',
      'webhook-id': id,
      'webhook-timestamp': String(seconds),
      'webhook-signature': signatureOf(secret, id, seconds, body),
    },
  });
  const isTaken = typeof answer === 'number' && answer >= 200 && answer < 300;
  const said = typeof answer === 'number' ? `answered ${answer}` : answer.slice(0, 200);
  const gap = GAPS[tries];
  await source.query(
    `update webhook_delivery set state = $3, tries = tries + 1, said = $4,
       try_at = clock_timestamp() + make_interval(mins => $5) where workspace_id = $1 and id = $2 and state = 'waiting'`,
    [workspaceId, id, isTaken ? 'sent' : gap === undefined ? 'failed' : 'waiting', said, gap ?? 0],
  );
  return isTaken;
}

/** Notes what has become late since it was looked last, once a task and program. */
export async function noteLate(scope: Scope): Promise<void> {
  const asked = new TaskQuestion();
  asked.and(isLate(scope, asked));
  asked.and(`t.due_on >= ${asked.with(scope.today)}::date - ${LATE_DAYS}`);
  await scope.sql(
    `insert into webhook_delivery (workspace_id, id, webhook_id, event, task_id, task, at, state, tries, try_at)
     select t.workspace_id, gen_random_uuid(), w.id, 'task.late', t.id, webhook_facts(t), clock_timestamp(), 'waiting', 0, clock_timestamp()
     from webhook w join task t on t.workspace_id = w.workspace_id
     where w.workspace_id = $1 and w.is_on and 'task.late' = any(w.events) and ${asked.where}
       and not exists (select from webhook_delivery d where d.workspace_id = w.workspace_id and d.webhook_id = w.id
         and d.task_id = t.id and d.event = 'task.late')`,
    asked.params,
  );
}

/** Lets go of what was told long ago; gives how many. */
export async function sweepDeliveries(source: DataSource): Promise<number> {
  const [, gone] = (await source.query(
    `delete from webhook_delivery d using webhook w where d.workspace_id = w.workspace_id and d.webhook_id = w.id
       and d.state <> 'waiting' and d.at < clock_timestamp() - make_interval(days => ${KEPT_DAYS})`,
  )) as [unknown, number];
  return gone;
}
