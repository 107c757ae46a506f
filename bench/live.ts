import { liveSchema } from '../src/contract/index.ts';
import { touchedBy } from '../src/web/app/shell/touched-by.ts';
import { Unhurried } from '../src/web/app/shell/unhurried.ts';
import { builtServer } from './built-server.ts';
import { entered, largeDatabase } from './lists-database.ts';

/**
 * npm run bench live: fifty browsers are open on the large workspace, each on a page; how much do they ask for when one
 * person ticks a line, and when a manager gives away five hundred tasks, and how much slower is ticking beside them? The
 * built server; each browser hears the live stream and asks as the web application does, with the same code. Ends with
 * code 1 where an aim is not reached.
 */

const BROWSERS = 50;
const GIVEN = 500;
/** So long without a request is quiet. */
const QUIET_MS = 4000;
const AIMS = {
  tick: { quietMs: 1000, kB: 1000 },
  give: { quietMs: 3000, kB: 5000 },
  ticking: 2,
} as const;
const TICKS = 25;

const large = await largeDatabase();
const { client } = large;
const server = await builtServer({ databaseUrl: large.url, filesFolder: large.filesFolder, demo: 'no' });
const { address } = server;

/** What all browsers asked for since it was looked at last. */
const traffic = { requests: 0, bytes: 0, running: 0, last: 0, refused: 0, lastly: '' };

class Browser {
  private readonly stop = new AbortController();
  private readonly asked = new Unhurried((begins) => {
    for (const one of this.shows) if (one.startsWith(begins)) void this.get(one);
  });

  constructor(
    private readonly cookie: string,
    /** The addresses whose answers are on the page. */
    private readonly shows: readonly string[],
  ) {}

  async open(): Promise<void> {
    const stream = await fetch(`${address}/api/events`, { headers: { cookie: this.cookie }, signal: this.stop.signal });
    if (stream.status !== 200 || !stream.body) throw new Error(`The live stream answered ${stream.status}.`);
    void this.listen(stream.body).catch(() => undefined);
    for (const one of this.shows) await this.get(one);
  }

  private async listen(body: ReadableStream<Uint8Array>): Promise<void> {
    const text = new TextDecoder();
    let rest = '';
    for await (const chunk of body) {
      rest += text.decode(chunk as Uint8Array, { stream: true });
      const parts = rest.split('\n\n');
      rest = parts.pop() ?? '';
      for (const part of parts) {
        if (!part.startsWith('data: ')) continue;
        const { soon, later } = touchedBy(liveSchema.parse(JSON.parse(part.slice('data: '.length))), '');
        for (const one of soon) this.asked.soon(one);
        for (const one of later) this.asked.later(one);
      }
    }
  }

  private async get(path: string): Promise<void> {
    const from = performance.now();
    traffic.requests++;
    traffic.running++;
    const response = await fetch(`${address}/api${path}`, { headers: { cookie: this.cookie } });
    traffic.bytes += (await response.arrayBuffer()).byteLength;
    if (response.status !== 200) traffic.refused++;
    traffic.running--;
    traffic.last = performance.now();
    traffic.lastly = `${path.replace(/[0-9a-f-]{36}/g, '…')} after ${(traffic.last - from).toFixed(0)} ms`;
  }

  close(): void {
    this.asked.stop();
    this.stop.abort();
  }
}

async function quiet(): Promise<void> {
  while (traffic.running > 0 || performance.now() - traffic.last < QUIET_MS)
    await new Promise((resolve) => setTimeout(resolve, 100));
}

let isWithin = true;
async function measured(
  what: string,
  aim: { readonly quietMs: number; readonly kB: number },
  deed: () => Promise<number>,
) {
  await quiet();
  Object.assign(traffic, { requests: 0, bytes: 0, refused: 0 });
  const own = await deed();
  const done = performance.now();
  traffic.last = done;
  await quiet();
  const quietMs = traffic.last - done;
  const kB = traffic.bytes / 1000;
  console.log(
    `  ${what.padEnd(34)} ${own.toFixed(0).padStart(6)} ms itself  ${String(traffic.requests).padStart(4)} requests  ${kB.toFixed(0).padStart(6)} kB  quiet after ${(quietMs / 1000).toFixed(2)} s  (aims ${aim.quietMs / 1000} s, ${aim.kB} kB), the last ${traffic.lastly}${traffic.refused > 0 ? `  ${traffic.refused} REFUSED` : ''}`,
  );
  if (quietMs > aim.quietMs || kB > aim.kB || traffic.refused > 0) isWithin = false;
}

interface Ticked {
  readonly id: string;
  readonly assigneeId: string;
  readonly key: string;
}

try {
  const { rows: people } = await client.query<{ id: string; access: string }>(
    `select id, access from person
     where workspace_id = (select workspace_id from schedule group by 1 order by count(*) desc limit 1) order by access = 'manager' desc, id limit ${BROWSERS}`,
  );
  const { rows: ticked } = await client.query<Ticked>(
    `select t.id, t.assignee_id as "assigneeId", c.check_lines->0->>'key' as key from task t
     join work_content c on c.workspace_id = t.workspace_id and c.id = t.content_id
     where t.assignee_id = any($1::uuid[]) and t.state = 'open' and t.due_on = '2026-11-24' and jsonb_array_length(c.check_lines) > 0
     order by t.id limit ${TICKS}`,
    [people.map(({ id }) => id)],
  );
  const { rows: given } = await client.query<{ id: string; version: number }>(
    `select id, version from task where assignee_id = any($1::uuid[]) and state = 'open' and due_on > '2026-11-26' order by id limit ${GIVEN}`,
    [people.slice(20, -1).map(({ id }) => id)],
  );
  const cookies = new Map<string, string>();
  for (const { id } of people) cookies.set(id, await entered(client, address, id));
  const send = async (by: string, method: string, path: string, body: unknown) => {
    const from = performance.now();
    const response = await fetch(`${address}/api${path}`, {
      method,
      headers: { cookie: cookies.get(by) ?? '', Origin: address, 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
    const text = await response.text();
    if (response.status !== 200) throw new Error(`${path} answered ${response.status}: ${text}`);
    return { ms: performance.now() - from, answer: JSON.parse(text) as { changeId?: string } };
  };
  const tick = async ({ id, assigneeId, key }: Ticked, isOn: boolean) =>
    (await send(assigneeId, 'PUT', `/tasks/${id}/ticks`, { key, ticked: isOn })).ms;
  const median = (times: readonly number[]) => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)] ?? 0;
  const ticking = async () => {
    const times: number[] = [];
    for (const [i, one] of ticked.entries()) {
      times.push(await tick(one, true), await tick(one, false));
      if (i % 5 === 0) await new Promise((resolve) => setTimeout(resolve, 50));
    }
    return median(times);
  };
  const [first] = ticked;
  const [manager] = people;
  if (!first || manager?.access !== 'manager' || given.length < GIVEN)
    throw new Error('The database does not hold what is needed.');
  await ticking();
  const alone = await ticking();
  // Three in five on their own day, others on the table, the library, a task, a run.
  const pages = people.map(({ id }, i) => {
    const own = `/people/${id}/day-sheet`;
    const all = [
      [own, `/tideline?person=${id}`],
      [own, `/tideline?person=${id}`],
      [own, `/tideline?person=${id}`, `/tasks/${first.id}`, `/tasks/${first.id}/history`],
      ['/schedules?order=next&start=0', '/runs/last', '/tideline'],
      ['/templates', '/tideline'],
    ];
    return all[i % all.length] ?? [];
  });
  const browsers = people.map(({ id }, i) => new Browser(cookies.get(id) ?? '', pages[i] ?? []));
  for (const one of browsers) await one.open();
  await measured('one line ticked', AIMS.tick, () => tick(first, true));
  let changeId = '';
  await measured(`${GIVEN} tasks given to one person`, AIMS.give, async () => {
    const deed = { kind: 'give', personId: people.at(-1)?.id };
    const { ms, answer } = await send(manager.id, 'POST', '/tasks/changes', { tasks: given, deed });
    changeId = answer.changeId ?? '';
    return ms;
  });
  await quiet();
  const beside = await ticking();
  const ratio = beside / alone;
  console.log(
    `  ticking, the median of ${2 * ticked.length}: alone ${alone.toFixed(1)} ms, beside ${BROWSERS} browsers ${beside.toFixed(1)} ms, ${ratio.toFixed(1)}x (aim ${AIMS.ticking}x)`,
  );
  if (ratio > AIMS.ticking) isWithin = false;
  for (const one of browsers) one.close();
  // As it was, for the next time.
  await send(manager.id, 'POST', `/changes/${changeId}/undo`, {});
} finally {
  await server.stop();
  await large.close();
}
console.log(isWithin ? 'live: within the aims' : 'live: NOT within the aims');
process.exit(isWithin ? 0 : 1);
