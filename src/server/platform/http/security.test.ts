import { request as ask } from 'node:http';
import { pino } from 'pino';
import supertest from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { plainInput } from '../../testing/schedules.ts';
import { type TestServer, testServer } from '../../testing/test-server.ts';
import { checkLine, newTemplate } from '../../testing/work.ts';
import { addressesFrom } from './addresses.ts';

let server: TestServer;
const lines: string[] = [];
beforeAll(async () => {
  server = await testServer({ log: pino({ level: 'debug' }, { write: (line: string) => void lines.push(line) }) });
});
afterAll(() => server.stop());

const right = { email: 'nadia@ternquay.example', password: 'ternquay' };
const plain = () => supertest(server.address);

describe('a name that leads here', () => {
  it.each(['rota.elsewhere.example', '127.0.0.1.elsewhere.example', 'localhost.elsewhere.example:80', ''])(
    'and is not ours, %j, gets no answer, not even to a question',
    async (host) => {
      await plain().get('/api/welcome').set('Host', host).expect(421);
      const { id } = await server.person('Ines Calloway');
      await plain()
        .post('/api/session/demo')
        .set({ Host: host, Origin: `http://${host}` })
        .send({ personId: id })
        .expect(421);
    },
  );

  it.each([
    ['another scheme', (origin: string) => origin.replace('http:', 'https:')],
    ['another port', (origin: string) => `${origin}1`],
    ['somebody’s name before it', (origin: string) => origin.replace('//', '//user@')],
    ['a path behind it', (origin: string) => `${origin}/`],
    ['null', () => 'null'],
  ])('is written to from its own pages only: not from %s', async (_, change) => {
    await plain().post('/api/session').set('Origin', change(server.address)).send(right).expect(403);
  });

  it('is not written to by what a browser says comes from another site', async () => {
    for (const site of ['cross-site', 'same-site', 'none'])
      await plain()
        .post('/api/session')
        .set({ Origin: server.address, 'Sec-Fetch-Site': site })
        .send(right)
        .expect(403);
    await plain()
      .post('/api/session')
      .set({ Origin: server.address, 'Sec-Fetch-Site': 'same-origin' })
      .send(right)
      .expect(200);
  });

  it('may be a public one behind a proxy: then cookies are for https alone, and only that name answers', async () => {
    const other = await testServer({ addresses: addressesFrom('https://rota.example', '1') });
    try {
      const answer = await supertest(other.address)
        .post('/api/session')
        .set({ Host: 'rota.example', Origin: 'https://rota.example', 'X-Forwarded-For': '203.0.113.7' })
        .send(right)
        .expect(200);
      expect(answer.headers['set-cookie']?.[0]).toMatch(/Secure.*SameSite=Lax/);
      expect(answer.headers['strict-transport-security']).toBeDefined();
      await supertest(other.address)
        .post('/api/session')
        .set({ Host: 'rota.example', Origin: 'http://rota.example' })
        .send(right)
        .expect(403);
    } finally {
      await other.stop();
    }
  });

  it.each(['rota.example', 'https://rota.example/app', 'ftp://rota.example', 'https://'])(
    'that is set wrong, %j, is told at the start',
    (origin) => expect(() => addressesFrom(origin, undefined)).toThrow('JOLLY_ORIGIN is'),
  );
});

describe('wrong passwords', () => {
  it('for one account are slowed down from wherever they come, and nobody else at that address is', async () => {
    const other = await testServer({ addresses: addressesFrom(undefined, '1') });
    try {
      const tryFrom = (address: string, email: string, password = 'wrong') =>
        supertest(other.address)
          .post('/api/session')
          .set({ Origin: other.address, 'X-Forwarded-For': address })
          .send({ email, password });
      const statuses: number[] = [];
      for (let i = 0; i < 44; i++) statuses.push((await tryFrom(`203.0.113.${i}`, 'kit@ternquay.example')).status);
      expect(statuses.slice(0, 40)).toEqual(Array(40).fill(401));
      expect(statuses.slice(40)).toEqual([429, 429, 429, 429]);
      for (let i = 0; i < 12; i++) await tryFrom('198.51.100.1', 'bram@ternquay.example');
      await tryFrom('198.51.100.1', 'nadia@ternquay.example', 'ternquay').expect(200);
    } finally {
      await other.stop();
    }
  }, 60_000);

  it('leave a line in the log, and no line holds a cookie or a password', async () => {
    lines.length = 0;
    const browser = await server.browser('Ines Calloway');
    await browser.post('/api/session').send({ email: 'ines@ternquay.example', password: 'sesame open' }).expect(401);
    await browser.get('/api/templates').expect(200);
    expect(lines.some((line) => line.includes('"level":40') && line.includes('/api/session'))).toBe(true);
    expect(lines.join('')).not.toMatch(/jolly-rota=|sesame open|s%3A/);
  });
});

describe('a session', () => {
  it('ends after thirty days, however much it is used', async () => {
    const browser = await server.browser('Kit Sorrell');
    await browser.get('/api/workspace').expect(200);
    const old = Date.now() - 31 * 24 * 60 * 60 * 1000;
    await server.source.query(
      `update session set sess = jsonb_set(sess::jsonb, '{begunAt}', to_jsonb($1::bigint))::json
       where sess->>'personId' = $2`,
      [old, (await server.person('Kit Sorrell')).id],
    );
    await browser.get('/api/workspace').expect(401);
    expect((await browser.get('/api/session').expect(200)).body).toEqual({ person: null });
  });

  it('is listed for its owner, and ended from another', async () => {
    const [here, there] = [await server.browser('Bram Hollis'), await server.browser('Bram Hollis')];
    const { body } = await here.get('/api/account/sessions').expect(200);
    expect(body.email).toBe('bram@ternquay.example');
    expect(body.sessions.filter(({ isThis }: { isThis: boolean }) => isThis)).toHaveLength(1);
    expect(body.sessions.length).toBeGreaterThanOrEqual(2);
    // Of somebody else there is nothing to see or end.
    const { body: others } = await (await server.browser('Nadia Orme')).get('/api/account/sessions').expect(200);
    expect(
      others.sessions.some(({ id }: { id: string }) => body.sessions.some((one: { id: string }) => one.id === id)),
    ).toBe(false);
    await (await server.browser('Nadia Orme'))
      .post('/api/account/sessions/end')
      .send({ only: body.sessions[0].id })
      .expect(200);
    await there.get('/api/workspace').expect(200);
    await here.post('/api/account/sessions/end').send({ only: null }).expect(200);
    await here.get('/api/workspace').expect(200);
    await there.get('/api/workspace').expect(401);
  });

  it('that ends takes its live stream with it', async () => {
    const answer = await supertest.agent(server.address).post('/api/session').set('Origin', server.address).send(right);
    const cookie = answer.headers['set-cookie']?.[0]?.split(';')[0] ?? '';
    const ended = new Promise<void>((resolve, reject) => {
      ask(`${server.address}/api/events`, { headers: { cookie } }, (stream) => {
        stream.resume();
        stream.once('end', resolve);
        void plain().delete('/api/session').set({ cookie, Origin: server.address }).send({}).catch(reject);
      }).end();
    });
    await ended;
  });
});

describe('a password', () => {
  it('is changed by whoever knows the present one, and ends all other sessions', async () => {
    const other = await testServer();
    try {
      const [here, there] = [await other.browser('Nadia Orme'), await other.browser('Nadia Orme')];
      const change = (current: string, next: string) => here.put('/api/account/password').send({ current, next });
      expect((await change('ternquay', 'a long new one')).status).toBe(403);
      await other.source.query('update workspace set is_demo = false');
      expect((await change('wrong', 'a long new one')).body.errors[0].path).toBe('current');
      expect((await change('ternquay', 'short')).body.errors[0].path).toBe('next');
      expect((await change('ternquay', 'nadia for ever')).body.errors[0].path).toBe('next');
      await change('ternquay', 'a long new one').expect(200);
      await here.get('/api/workspace').expect(200);
      await there.get('/api/workspace').expect(401);
      const again = supertest(other.address);
      await again.post('/api/session').set('Origin', other.address).send(right).expect(401);
      await again
        .post('/api/session')
        .set('Origin', other.address)
        .send({ ...right, password: 'a long new one' })
        .expect(200);
    } finally {
      await other.stop();
    }
  });
});

describe('a body', () => {
  it('is not read before it is known who sends it', async () => {
    // Read, it would be refused as no JSON.
    const answer = await plain()
      .post('/api/schedules/changes')
      .set({ Origin: server.address, 'Content-Type': 'application/json' })
      .send(`{"changes": [${'1,'.repeat(1_000_000)}`);
    expect(answer.status).toBe(401);
    const nadia = await server.browser('Nadia Orme');
    await nadia.post('/api/schedules/changes').set('Content-Type', 'application/json').send('{"changes":').expect(403);
  });

  it.each([
    ['a charset that is not known', { 'Content-Type': 'application/json; charset=klingon' }],
    ['an encoding that is not known', { 'Content-Type': 'application/json', 'Content-Encoding': 'klingon' }],
  ])('in %s is refused in words', async (_, headers) => {
    for (const by of [plain(), await server.browser('Ines Calloway')]) {
      const {
        status,
        body,
        headers: answered,
      } = await by
        .post('/api/session')
        .set({ Origin: server.address, ...headers })
        .send('{}');
      expect([status, answered['content-type']]).toEqual([415, expect.stringContaining('problem+json')]);
      expect(answered['cache-control']).toBe('no-store');
      expect(body.detail).toContain('can’t be read');
    }
  });

  it('that claims more than makes sense is refused soon, and in few words', async () => {
    const ines = await server.browser('Ines Calloway');
    const templateId = await newTemplate(ines, { name: 'Bounded' });
    const many = (count: number, value: unknown) =>
      Object.fromEntries(Array.from({ length: count }, (_, i) => [`k${i}`, value]));
    const input = plainInput(templateId);
    const revision = { from: '2026-12-01', recurrence: input.recurrence, timing: input.timing };
    for (const own of [many(20_000, {}), many(20_000, 1)]) {
      const answer = await ines
        .post('/api/schedules')
        .send({ ...input, revisions: [{ ...revision, own }] })
        .expect(422);
      expect(answer.body.errors.length).toBeLessThanOrEqual(100);
    }
    const part = { step: '', on: '2026-11-24', startTime: null, dueTime: null, assigneeId: null };
    const start = { on: '2026-11-24', clientId: null, assetId: null, assigneeId: null, special: '' };
    const { body } = await ines
      .post(`/api/templates/${templateId}/start`)
      .send({ ...start, parts: Array(301).fill(part) })
      .expect(422);
    expect(body.detail).toContain('twice');
    const task = (await ines.post(`/api/templates/${templateId}/start`).send({ ...start, parts: [part] })).body
      .tasks[0];
    await ines
      .post(`/api/tasks/${task.id}/into-template`)
      .send({ fields: Array(50_000).fill('priority') })
      .expect(422);
    const odd = { name: 'Odd', titlePattern: 'Odd', category: null, instructions: '', estimateMinutes: 5 };
    await ines
      .post('/api/templates')
      .send({ template: { ...odd, steps: [checkLine('constructor')] }, like: null })
      .expect(422);
  });
});

describe('a rule that would be looked through for minutes', () => {
  it('is refused in words, soon, wherever it comes from', async () => {
    const ines = await server.browser('Ines Calloway');
    const templateId = await newTemplate(ines, { name: 'Rare' });
    const rule = { kind: 'rrule' as const, text: 'FREQ=YEARLY;BYMONTH=1,5;BYMONTHDAY=1,5,-19;BYDAY=5TU,SU,FR' };
    const recurrence = {
      start: '2026-11-24',
      rules: Array(12).fill(rule),
      end: { kind: 'never' as const },
      dayOff: 'none' as const,
      closed: { seasons: [{ from: '01-01', to: '12-30' }], dates: 'omit' as const },
    };
    const { body } = await ines.post('/api/schedules').send(plainInput(templateId, { recurrence })).expect(422);
    expect(body.detail).toContain('takes too long to work out');
  });
});

describe('one person', () => {
  it('has so much going on at once; more is refused with when to come back, and others are served', async () => {
    const [kit, nadia] = [await server.browser('Kit Sorrell'), await server.browser('Nadia Orme')];
    const many = Array.from({ length: 60 }, () =>
      kit.get('/api/tideline').then(({ status, headers }) => [status, headers['retry-after']]),
    );
    await nadia.get('/api/workspace').expect(200);
    const answers = await Promise.all(many);
    const refused = answers.filter(([status]) => status === 429);
    expect(refused.length).toBeGreaterThan(20);
    expect(refused.every(([, after]) => Number(after) > 0)).toBe(true);
    expect(answers.filter(([status]) => status === 200).length).toBeGreaterThan(10);
  });
});
