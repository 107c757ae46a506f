import { randomUUID } from 'node:crypto';
import { createConfig, lintFromString } from '@redocly/openapi-core';
import { Ajv2020 } from 'ajv/dist/2020.js';
import addFormats from 'ajv-formats';
import supertest from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { givenTo, type TokenScope } from '../../core/index.ts';
import { deprecationOf } from '../platform/http/route.ts';
import { plainInput, weekly } from '../testing/schedules.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';

interface Operation {
  readonly operationId: string;
  readonly summary: string;
  readonly security: readonly Readonly<Record<string, readonly string[]>>[];
  readonly parameters: readonly { readonly name: string; readonly in: string; readonly required: boolean }[];
  readonly requestBody?: { readonly content: Readonly<Record<string, { readonly schema: object }>> };
  readonly responses: Readonly<
    Record<string, { readonly content?: Readonly<Record<string, { readonly schema: object }>> }>
  >;
}
interface Document {
  readonly openapi: string;
  readonly paths: Readonly<Record<string, Readonly<Record<string, Operation>>>>;
  readonly components: { readonly schemas: Readonly<Record<string, object>> };
}

let server: TestServer;
let document: Document;
let ines: Agent;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  document = (await supertest(server.address).get('/api/openapi.json').expect(200)).body;
});
afterAll(() => server.stop());

const tokenOf = async (by: Agent, scope: TokenScope, endsOn: string | null = null): Promise<string> =>
  (
    await by
      .post('/api/tokens')
      .send({ name: `to ${scope}`, scope, endsOn })
      .expect(200)
  ).body.token;

/** As a program asks: without cookies and pages. */
const program = (token: string) => ({
  get: (path: string) => supertest(server.address).get(path).set('Authorization', `Bearer ${token}`),
  post: (path: string, body: object = {}, headers: Readonly<Record<string, string>> = {}) =>
    supertest(server.address).post(path).set('Authorization', `Bearer ${token}`).set(headers).send(body),
});

describe('the description of the interface', () => {
  it('has nothing that a linter of OpenAPI finds', async () => {
    const config = await createConfig({
      extends: ['recommended'],
      // Every failure is told in the same way, for all of them together.
      rules: { 'operation-4xx-response': 'off', 'security-defined': 'error', 'no-unused-components': 'error' },
    });
    const found = await lintFromString({ source: JSON.stringify(document), config });
    expect(
      found.map(({ ruleId, message, location }) => `${ruleId}: ${message} ${location[0]?.pointer}`).slice(0, 10),
    ).toEqual([]);
  });

  it('tells of every route there is, by a name of its own, and by which token it is reached', () => {
    const operations = Object.values(document.paths).flatMap((path) => Object.values(path));
    expect(operations.length).toBeGreaterThan(280);
    expect(new Set(operations.map(({ operationId }) => operationId)).size).toBe(operations.length);
    const of = (id: string) => operations.find(({ operationId }) => operationId === id);
    expect(of('task.finish')?.security).toEqual([{ token: ['work'] }, { session: [] }]);
    expect(of('schedule.create')?.security?.[0]).toEqual({ token: ['plan'] });
    expect(of('settings.change')?.security).toEqual([{ session: [] }]);
    expect(JSON.stringify(document).length).toBeLessThan(1_500_000);
  });
});

/** A client made from the description alone: each operation by its id; what is answered is held against what is described. */
function clientOf({ paths, components }: Document, token: string) {
  const ajv = new Ajv2020({ strict: false, allErrors: true, validateFormats: true });
  addFormats(ajv);
  ajv.addSchema({ $id: 'https://rota.example/openapi', components }, 'https://rota.example/openapi');
  const operations = new Map(
    Object.entries(paths).flatMap(([path, byMethod]) =>
      Object.entries(byMethod).map(
        ([method, operation]) => [operation.operationId, { path, method, operation }] as const,
      ),
    ),
  );
  const whole = (schema: object): object =>
    JSON.parse(JSON.stringify(schema).replaceAll('"#/components', '"https://rota.example/openapi#/components'));
  const check = (what: string, schema: object | undefined, value: unknown) => {
    if (schema === undefined) throw new Error(`${what} is not described`);
    const isRight = ajv.compile(whole(schema));
    if (!isRight(value)) throw new Error(`${what}: ${ajv.errorsText(isRight.errors)}`);
  };
  return async <T>(
    id: string,
    given: { params?: Record<string, string>; query?: Record<string, string>; body?: object; key?: string } = {},
  ): Promise<T> => {
    const found = operations.get(id);
    if (!found) throw new Error(`There is no ${id}.`);
    const { path, method, operation } = found;
    const { params = {}, query = {}, body, key } = given;
    for (const { name, in: where, required } of operation.parameters)
      if (required && !(name in (where === 'path' ? params : query))) throw new Error(`${id} asks for ${name}`);
    if (body !== undefined) check(`${id} asked`, operation.requestBody?.content['application/json']?.schema, body);
    const address = path.replace(/\{(\w+)\}/g, (_, name: string) => params[name] ?? '');
    const answer = await fetch(`${server.address}/api${address}?${new URLSearchParams(query)}`, {
      method: method.toUpperCase(),
      headers: {
        ...{ Authorization: `Bearer ${token}`, 'Content-Type': 'application/json' },
        ...(key === undefined ? {} : { 'Idempotency-Key': key }),
      },
      ...(method === 'get' ? {} : { body: JSON.stringify(body ?? {}) }),
    });
    const said = (await answer.json()) as T;
    if (!answer.ok) throw new Error(`${id}: ${answer.status} ${JSON.stringify(said)}`);
    check(`${id} answered`, operation.responses['200']?.content?.['application/json']?.schema, said);
    return said;
  };
}

describe('a client that is made from the description', () => {
  it('plans, works and looks back like a browser, and every answer is as it is described', async () => {
    const ask = clientOf(document, await tokenOf(ines, 'plan'));
    const workspace = await ask<{ people: { id: string; name: string }[] }>('workspace.workspace');
    const kit = workspace.people.find(({ name }) => name === 'Kit Sorrell')?.id ?? '';
    const template = {
      ...{
        name: 'Winch greasing',
        titlePattern: 'Winch greasing',
        category: null,
        instructions: '',
        estimateMinutes: 30,
      },
    };
    const made = await ask<{ template: { id: string } }>('template.create', { body: { template, like: null } });
    const input = plainInput(made.template.id, { assignment: givenTo(kit), recurrence: weekly(2) });
    const key = randomUUID();
    const { schedule } = await ask<{ schedule: { id: string } }>('schedule.create', { body: input, key });
    await expect(ask('schedule.create', { body: input, key })).rejects.toThrow(/409/);
    const list = await ask<{ lines: { id: string; title: string }[] }>('taskList.lines', {
      query: { schedule: schedule.id },
    });
    const [line] = list.lines;
    expect(line?.title).toBe('Winch greasing');
    const params = { taskId: line?.id ?? '' };
    for (const deed of ['task.start', 'task.finish']) await ask(deed, { params });
    expect(await ask<{ state: string }>('task.one', { params })).toMatchObject({ state: 'done' });
    await ask('history.task', { params });
    for (const read of [
      'overview.overview',
      'directory.clients',
      'people.team',
      'plan.list',
      'swap.list',
      'bell.list',
    ].filter((id) => JSON.stringify(document).includes(`"${id}"`)))
      await ask(read).catch((error: unknown) => {
        // What is for people alone is refused in words; nothing else is.
        expect(String(error)).toMatch(/403/);
      });
  });
});

describe('a token', () => {
  it('goes as far as it says and no further than its owner; only a digest of it is kept', async () => {
    const nadia = await server.browser('Nadia Orme');
    const [read, work, plan] = [await tokenOf(ines, 'read'), await tokenOf(ines, 'work'), await tokenOf(ines, 'plan')];
    const theirs = await tokenOf(nadia, 'plan');
    const capture = {
      ...{ title: 'Sweep', on: '2026-11-30', dueOn: '2026-11-30', startTime: null, dueTime: null },
      ...{ assigneeId: (await server.person('Kit Sorrell')).id, clientId: null, assetId: null, estimateMinutes: 5 },
    };
    await program(read).get('/api/overview').expect(200);
    const refused = await program(read).post('/api/tasks', capture).expect(403);
    expect(refused.body.detail).toBe('This token reads, and changes nothing: it can’t do this.');
    await program(work).post('/api/tasks', capture).expect(200);
    await program(work).post('/api/fills/rehearsal', {}).expect(403);
    await program(plan)
      .post('/api/fills/rehearsal', { from: '2027-01-01', to: '2027-01-31', scheduleIds: [] })
      .expect(200);
    await program(theirs).post('/api/fills/rehearsal', {}).expect(403);
    // Accounts, people and settings are nobody's but a person's; more tokens least of all.
    for (const path of ['/api/settings', '/api/tokens', '/api/backups', '/api/post'])
      await program(plan).get(path).expect(403);
    await program(plan).post('/api/tokens', { name: 'x', scope: 'plan', endsOn: null }).expect(403);
    // An address of a calendar would outlive the token.
    await program(plan).post('/api/calendars', { kind: 'person', id: capture.assigneeId }).expect(403);
    const kept = JSON.stringify(await server.source.query('select * from access_token'));
    for (const token of [read, work, plan]) expect(kept).not.toContain(token.slice(3));
  });

  it('that is guessed, withdrawn, over, or of somebody who left opens nothing, and says so as programs expect', async () => {
    const token = await tokenOf(ines, 'read', '2026-11-25');
    const { headers } = await program(token).get('/api/overview').expect(200);
    expect(headers['ratelimit']).toMatch(/r=\d+/);
    expect(headers['ratelimit-policy']).toContain('w=60');
    await program(token).get('/api/overview').set('Host', 'rota.elsewhere.example').expect(421);
    for (const wrong of ['jr_guessed', 'x', `${token}x`]) {
      const answer = await program(wrong).get('/api/overview').expect(401);
      expect(answer.headers['www-authenticate']).toBe('Bearer error="invalid_token"');
      expect(answer.headers['content-type']).toContain('problem+json');
    }
    server.clock.set('2026-11-26T09:00');
    expect((await program(token).get('/api/overview').expect(401)).body.detail).toBe('This token has run out.');
    server.clock.set('2026-11-24T10:40');
    const nadia = await server.browser('Nadia Orme');
    const theirs = await tokenOf(nadia, 'read');
    const me = (await server.person('Nadia Orme')).id;
    await server.source.query(`update person set works_until = '2026-11-20' where id = $1`, [me]);
    await program(theirs).get('/api/overview').expect(401);
    await server.source.query('update person set works_until = null where id = $1', [me]);
    const { body } = await nadia.get('/api/tokens').expect(200);
    expect(body.tokens[0]).toMatchObject({ name: 'to read', hasEnded: false });
    await ines.delete(`/api/tokens/${body.tokens[0].id}`).expect(404);
    await nadia.delete(`/api/tokens/${body.tokens[0].id}`).expect(200);
    await program(theirs).get('/api/overview').expect(401);
    // A browser of somebody's is no program: without its own page it changes nothing, whatever it shows besides.
    await ines
      .post('/api/tokens')
      .set({ Origin: 'http://rota.elsewhere.example', Authorization: 'Bearer' })
      .send({})
      .expect(403);
  });

  it('does what is sent with a key once', async () => {
    const token = await tokenOf(ines, 'plan');
    const capture = {
      ...{ title: 'Once alone', on: '2026-11-30', dueOn: '2026-11-30', startTime: null, dueTime: null },
      ...{ assigneeId: null, clientId: null, assetId: null, estimateMinutes: 5 },
    };
    const key = { 'Idempotency-Key': randomUUID() };
    const answers = [];
    for (let i = 0; i < 3; i++) answers.push((await program(token).post('/api/tasks', capture, key)).status);
    expect(answers[0]).toBe(200);
    const [{ count }] = await server.source.query(`select count(*)::int as count from task where title = 'Once alone'`);
    expect(count).toBe(1);
  });
});

describe('what will go', () => {
  it('says since when that is known, when it goes, and where to read on (RFC 9745, RFC 8594)', () => {
    expect(deprecationOf({ since: '2027-01-01', goesOn: '2028-01-01', instead: '/docs/next' })).toEqual({
      Deprecation: '@1798761600',
      Sunset: 'Sat, 01 Jan 2028 00:00:00 GMT',
      Link: '</docs/next>; rel="deprecation"',
    });
  });
});
