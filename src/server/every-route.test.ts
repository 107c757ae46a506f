import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import * as contract from '../contract/index.ts';
import { plainInput, scheduleNamed } from './testing/schedules.ts';
import { type Agent, type TestServer, testServer } from './testing/test-server.ts';
import { newTemplate } from './testing/work.ts';

let server: TestServer;
let ines: Agent;
let templateId: string;
/** An id of Tern Quay for each name of a parameter. */
let ids: Readonly<Record<string, string>>;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  templateId = await newTemplate(ines, { name: 'Round' });
  const [found] = await server.source.query<Record<string, string>[]>(
    `select (select id from task where state = 'open' limit 1) as "taskId", (select id from run limit 1) as "runId",
       (select id from change limit 1) as "changeId", (select id from file limit 1) as "fileId"`,
  );
  const schedule = await scheduleNamed(ines, 'Fire points', 'Long Quay');
  const person = await server.person('Nadia Orme');
  ids = { ...found, templateId, scheduleId: schedule.id, personId: person.id };
});
afterAll(() => server.stop());

const endpoints: contract.Endpoint[] = Object.entries(contract)
  .filter(([name]) => name.endsWith('Endpoints'))
  .flatMap(([, group]) => Object.values(group as object));
const named = endpoints.map((one): [string, contract.Endpoint] => [`${one.method} ${one.path}`, one]);
/** Whoever is signed out may ask these. */
const isOpen = ({ path }: contract.Endpoint) =>
  path.startsWith('/session') || path.startsWith('/setup') || path === '/welcome';
const addressOf = ({ path }: contract.Endpoint) =>
  `/api${path.replace(/:(\w+)/g, (_, name: string) => ids[name] ?? '')}`;
const ask = (by: Agent, one: contract.Endpoint, body: object = {}) => {
  const verb = { GET: by.get, POST: by.post, PUT: by.put, DELETE: by.delete }[one.method];
  const request = verb.call(by, addressOf(one));
  return one.method === 'GET' ? request : request.send(body);
};

describe('every route', () => {
  it('is there to be tried, with an id for each parameter', () => {
    expect(named.length).toBeGreaterThan(50);
    for (const [, one] of named) expect(addressOf(one)).not.toMatch(/\/(\/|$)|undefined/);
  });

  it.each(named.filter(([, one]) => !isOpen(one)))('%s asks for who it is', async (_, one) => {
    await ask(await server.browser(), one).expect(401);
  });

  it.each(named.filter(([, { path }]) => path.includes(':')))(
    '%s shows and changes nothing of another workspace',
    async (_, one) => {
      const { status } = await ask(await server.browser('Ada Winn'), one);
      // What is sent is looked at first: then the fault is told, and nothing of what is there.
      expect([404, 422]).toContain(status);
    },
  );

  it.each(named.filter(([, { method }]) => method !== 'GET'))(
    '%s refuses in words what makes no sense',
    async (_, one) => {
      for (const body of fc.sample(fc.object({ maxDepth: 2, withNullPrototype: false }), { numRuns: 4, seed: 7 })) {
        const { status, headers } = await ask(await server.browser('Ada Winn'), one, body);
        if (status >= 400)
          expect([status < 500, headers['content-type']]).toEqual([true, expect.stringContaining('problem+json')]);
      }
    },
  );
});

/** Values that stand where something sensible is expected. */
const NASTY = [null, -1, 1.5, 1e12, '', ' ', 'x'.repeat(3000), '0001-01-01', '9999-12-31', '24:00', [], {}, true];

/** The same value over and over, each time with one part of it replaced. */
function* spoilt(value: unknown): Generator<unknown> {
  yield* NASTY;
  if (value === null || typeof value !== 'object') return;
  for (const [key, member] of Object.entries(value))
    for (const other of spoilt(member)) {
      if (Array.isArray(value)) yield value.map((one, i) => (String(i) === key ? other : one));
      else yield { ...value, [key]: other };
    }
}

describe('a body with one part of it spoilt', () => {
  /** Of its own, so that the limit of requests a minute is not reached. */
  let own: TestServer;
  beforeAll(async () => {
    own = await testServer();
  });
  afterAll(() => own.stop());

  it('is taken or refused, and never makes the server fall over', async () => {
    const by = await own.browser('Ines Calloway');
    const kit = (await own.person('Kit Sorrell')).id;
    const round = await newTemplate(by, { name: 'Round' });
    const [task] = await own.source.query<{ id: string; version: number }[]>(
      `select id, version from task where state = 'open' and work_on > '2026-12-01' order by id limit 1`,
    );
    const line = { title: 'Rinse the hoist', on: '2026-11-24', dueOn: '2026-11-24', startTime: '09:00', dueTime: null };
    const bodies: [string, object][] = [
      ['/schedules', plainInput(round, { assigneeId: kit })],
      ['/fills/rehearsal', { from: '2027-01-01', to: '2027-01-31', scheduleIds: [] }],
      ['/tasks', { ...line, assigneeId: kit, clientId: null, assetId: null, estimateMinutes: 30 }],
      ['/tasks/changes/impact', { tasks: [task], deed: { kind: 'move', by: { amount: 2, unit: 'workingDay' } } }],
    ];
    const answers: { readonly path: string; readonly body: unknown; readonly status: number }[] = [];
    for (const [path, whole] of bodies)
      for (const body of spoilt(whole))
        if (body !== null && typeof body === 'object')
          answers.push({ path, body, status: (await by.post(`/api${path}`).send(body)).status });
    expect(answers.length).toBeGreaterThan(500);
    expect(answers.filter(({ status }) => status >= 500 || status === 429)).toEqual([]);
  }, 60_000);
});
