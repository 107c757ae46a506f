import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import * as contract from '../contract/index.ts';
import { type Known, madeFrom, type Random, randomFrom, spoilt } from './testing/odd-bodies.ts';
import { type Agent, type TestServer, testServer } from './testing/test-server.ts';

/**
 * Every endpoint asked with bodies made from the contract, right, nearly right and wrong: each is answered or refused, none
 * brings the server down or holds it up. `npm run fuzz` asks many more.
 */

const REQUESTS = Number(process.env['FUZZ_REQUESTS'] ?? 900);
const SEED = Number(process.env['FUZZ_SEED'] ?? 20_261_127);
/** Of the long run; in the short one other tests run beside it. */
const LONGEST_MS = process.env['FUZZ_REQUESTS'] ? 1000 : 10_000;
const AT_ONCE = 3;
const MOST_GROWTH_MB = 150;

let server: TestServer;
let agents: Agent[];
let known: Known;
beforeAll(async () => {
  server = await testServer();
  // Everybody may ask everything: what is refused for who asks is tried elsewhere.
  await server.source.query(`update person set access = 'manager'`);
  const names = await server.source.query<{ name: string }[]>(
    `select p.name from person p join workspace w on w.id = p.workspace_id where w.name = 'Tern Quay' and p.account_id is not null and p.works_until is null order by p.id`,
  );
  agents = await Promise.all(names.map(({ name }) => server.browser(name)));
  const ids = async (table: string, more = '') =>
    (await server.source.query<{ id: string }[]>(`select id from ${table} ${more} order by id limit 40`)).map(
      ({ id }) => id,
    );
  const [taskId, scheduleId, templateId, personId] = [
    await ids('task', `where state = 'open'`),
    await ids('schedule'),
    await ids('template'),
    await ids('person'),
  ];
  known = {
    ...{ taskId, scheduleId, templateId, personId, assigneeId: personId, scheduleIds: scheduleId },
    ...{ clientId: await ids('client'), assetId: await ids('asset'), fileId: await ids('file') },
    ...{ runId: await ids('run'), changeId: await ids('change'), fileIds: await ids('file') },
  };
}, 60_000);
afterAll(() => server.stop());

const endpoints: contract.Endpoint[] = Object.entries(contract)
  .filter(([name]) => name.endsWith('Endpoints'))
  .flatMap(([, group]) => Object.values(group as object) as contract.Endpoint[])
  // It would end the session that asks on.
  .filter(({ method, path }) => !(path === '/session' && method === 'DELETE') && !path.startsWith('/account'));

function addressOf({ path, query }: contract.Endpoint, random: Random): string {
  const filled = path.replace(/:(\w+)/g, (_, name: string) => {
    const ids = known[name] ?? [];
    return random(12) === 0 ? encodeURIComponent(String(random(1e9))) : (ids[random(ids.length)] ?? 'x');
  });
  const asked = madeFrom(query, random, known) as Record<string, unknown>;
  const search = Object.entries(random(5) === 0 ? { ...asked, after: '[]', date: 'soon' } : asked)
    .map(([name, value]) => `${name}=${encodeURIComponent(String(value).replace(/\p{Surrogate}/gu, ''))}`)
    .join('&');
  return `/api${filled}${search ? `?${search}` : ''}`;
}

interface Answered {
  readonly what: string;
  readonly body: unknown;
  readonly status: number;
  readonly milliseconds: number;
}

async function askOne(i: number, random: Random): Promise<Answered> {
  const endpoint = endpoints[random(endpoints.length)] as contract.Endpoint;
  const by = agents[i % agents.length] as Agent;
  const address = addressOf(endpoint, random);
  const whole = madeFrom(endpoint.body, random, known);
  const body = random(2) === 0 ? whole : spoilt(whole, random);
  const verb = { GET: by.get, POST: by.post, PUT: by.put, DELETE: by.delete }[endpoint.method];
  const began = performance.now();
  const request = verb.call(by, address).ok(() => true);
  const { status } = await (endpoint.method === 'GET'
    ? request
    : random(25) === 0
      ? request.set('Content-Type', 'application/json').send(`{"broken": ${'['.repeat(random(2000))}`)
      : request.send((typeof body === 'object' && body !== null ? body : { body }) as object));
  return { what: `${endpoint.method} ${address}`, body, status, milliseconds: performance.now() - began };
}

describe('any request', () => {
  it(`is answered or refused: ${REQUESTS} made from the contract`, async () => {
    const random = randomFrom(SEED);
    const answers: Answered[] = [];
    let next = 0;
    let heapAfterAWhile = 0;
    const go = async () => {
      while (next < REQUESTS) {
        const i = next++;
        const answer = await askOne(i, random);
        // What was sent is kept only where somebody will want to read it.
        const isOdd = answer.status >= 500 || answer.milliseconds > LONGEST_MS;
        answers.push(isOdd ? answer : { ...answer, body: null });
        if (i === Math.floor(REQUESTS / 4)) heapAfterAWhile = process.memoryUsage().heapUsed;
      }
    };
    await Promise.all(Array.from({ length: AT_ONCE }, go));
    const growth = (process.memoryUsage().heapUsed - heapAfterAWhile) / 1024 / 1024;
    const counts = new Map<number, number>();
    for (const { status } of answers) counts.set(status, (counts.get(status) ?? 0) + 1);
    const told = [...counts].sort(([a], [b]) => a - b).map(([status, count]) => `${count} × ${status}`);
    const slowest = Math.max(...answers.map(({ milliseconds }) => milliseconds));
    if (process.env['FUZZ_REQUESTS'])
      console.log(
        `${answers.length} requests: ${told.join(', ')}; slowest ${slowest.toFixed(0)} ms; heap +${growth.toFixed(0)} MB`,
      );
    expect(answers.filter(({ status }) => status >= 500).slice(0, 5)).toEqual([]);
    expect(answers.filter(({ milliseconds }) => milliseconds > LONGEST_MS).slice(0, 5)).toEqual([]);
    // Of a few requests it says only what the last collection left.
    if (process.env['FUZZ_REQUESTS']) expect(growth).toBeLessThan(MOST_GROWTH_MB);
    // The half that is right is not refused for its shape: else nothing behind the contract is tried.
    expect(counts.get(200) ?? 0).toBeGreaterThan(answers.length / 8);
  }, 3_600_000);
});
