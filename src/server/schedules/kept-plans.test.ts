import { afterAll, beforeAll, expect, it } from 'vitest';
import { givenTo } from '../../core/index.ts';
import { dataSource } from '../data-source.ts';
import { Listener } from '../platform/listener.ts';
import { Scope } from '../platform/scope.ts';
import { Touched, tellTouched, touchedSince } from '../platform/touched.ts';
import { plainInput } from '../testing/schedules.ts';
import { silent, type TestServer, testServer } from '../testing/test-server.ts';
import { farDates } from './far-dates.ts';
import { keptLines } from './kept-lines.ts';
import { keptPlans } from './kept-plans.ts';

let server: TestServer;
let listener: Listener;
let ines: Awaited<ReturnType<TestServer['browser']>>;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  // As the server itself does: what is kept is told of what was touched.
  listener = new Listener(server.databaseUrl, silent);
  tellTouched(server.source, new Touched(listener));
  await listener.listen();
});
afterAll(async () => {
  await listener.close();
  await server.stop();
});

const ask = <Row>(text: string, params: unknown[] = []) => server.source.query<Row[]>(text, params);

/** What is kept, and what is worked out by somebody who has kept nothing yet. */
async function both() {
  const scope = await server.scope();
  const source = await dataSource(server.databaseUrl).initialize();
  const told = async (of: Scope) => {
    const lines = await keptLines(of);
    const plans = await keptPlans(of);
    const far = await farDates(of, [...plans.keys()]);
    return [...plans]
      .map(([id, plan]) => {
        const { row, planned: _, ...line } = lines.get(id) ?? { row: null };
        return { id, plan, line, far: far.get(id), who: row?.assignment, version: row?.version };
      })
      .sort((a, b) => (a.id < b.id ? -1 : 1));
  };
  const pair = [await told(scope), await told(Scope.on(source, scope.workspace, scope.person, scope.clock))] as const;
  await source.destroy();
  return pair;
}

/** A schedule with tasks that nobody has seen, and one whose next waits for its last. */
async function one(which: 'any' | 'follows') {
  const [row] = await ask<{ id: string; template_id: string; task: string; version: number; taskVersion: number }>(
    `select s.id, s.template_id, s.version, k.id as task, k.version as "taskVersion" from schedule s
     join lateral (select id, version from task where schedule_id = s.id and step_key = '' and state = 'open' order by nominal_date ${which === 'any' ? 'desc' : ''} limit 1) k on true
     where s.deleted_at is null and (s.recurrence @? '$.rules[*] ? (@.kind == "follows")') = $1 order by s.id limit 1`,
    [which === 'follows'],
  );
  if (!row) throw new Error('There is no such schedule in the demo.');
  return row;
}

it('are what would be planned afresh, after every kind of change that they are told from', async () => {
  const any = await one('any');
  const waiting = plainInput(any.template_id);
  await ines
    .post('/api/schedules')
    .send({
      ...waiting,
      recurrence: { ...waiting.recurrence, rules: [{ kind: 'follows', reaches: 'done', amount: 3, unit: 'day' }] },
    })
    .expect(200);
  const follows = await one('follows');
  const schedule = (await ines.get(`/api/schedules/${any.id}`).expect(200)).body;
  const template = async () => (await ines.get(`/api/templates/${any.template_id}`).expect(200)).body;
  const version = async () => (await ines.get(`/api/schedules/${any.id}`)).body.version;
  const change = async (set: object) =>
    ines
      .post('/api/schedules/changes')
      .send({ changes: [{ id: any.id, version: await version(), set }] })
      .expect(200);
  const undo = (changeId: string) => ines.post(`/api/changes/${changeId}/undo`).expect(200);
  let last = '';
  const deeds: Readonly<Record<string, () => Promise<unknown>>> = {
    'nothing yet': async () => undefined,
    'another rule': async () => {
      const recurrence = { ...schedule.recurrence, rules: [{ kind: 'days', every: 3, except: [] }] };
      last = (await change({ recurrence })).body.changeId;
    },
    'put back': () => undo(last),
    'somebody else': () => change({ assignment: givenTo(null) }),
    'a pause': () => change({ pauses: [{ from: '2026-12-20', to: null }] }),
    'run again': () => change({ pauses: [] }),
    'a date skipped': () => change({ exceptions: [{ kind: 'skip', date: '2026-12-28' }] }),
    'a task deleted': async () => {
      const { task, taskVersion } = await one('any');
      const { body } = await ines
        .post('/api/tasks/changes')
        .send({ tasks: [{ id: task, version: taskVersion }], deed: { kind: 'delete' } })
        .expect(200);
      last = body.changeId;
    },
    'brought back': () => undo(last),
    'a task moved': async () => {
      const { task, taskVersion } = await one('any');
      await ines
        .post('/api/tasks/changes')
        .send({ tasks: [{ id: task, version: taskVersion }], deed: { kind: 'move', by: { amount: 40, unit: 'day' } } })
        .expect(200);
    },
    'a date ahead that is seen to already': async () => {
      const { task, taskVersion } = await one('any');
      await ines
        .post('/api/tasks/changes')
        .send({ tasks: [{ id: task, version: taskVersion }], deed: { kind: 'skip', reason: 'Seen to.' } })
        .expect(200);
    },
    'the last one done, where the next waits for it': async () => {
      await ines
        .post('/api/tasks/changes')
        .send({
          tasks: [{ id: follows.task, version: follows.taskVersion }],
          deed: { kind: 'skip', reason: 'Seen to.' },
        })
        .expect(200);
    },
    'another estimate of its template': async () =>
      ines
        .put(`/api/templates/${any.template_id}`)
        .send({ ...(await template()), estimateMinutes: 77, titlePattern: 'Now {client} {asset} {person}' })
        .expect(200),
    archived: () => ines.put(`/api/templates/${any.template_id}/archived`).send({ archived: true }).expect(200),
    'in use again': () => ines.put(`/api/templates/${any.template_id}/archived`).send({ archived: false }).expect(200),
    'a client of another name': () => ask(`update client set name = name || ' & Sons'`),
    'an asset of another name': () => ask(`update asset set name = name || ' II'`),
    'a person of another name': () => ask(`update person set name = name || ' MBE'`),
    'a day off more': () =>
      ask(
        `insert into holiday (workspace_id, date, name) select id, '2026-12-29', 'Regatta' from workspace on conflict do nothing`,
      ),
    'a fill': async () => {
      const { body } = await ines
        .post('/api/fills')
        .send({ from: '2026-12-20', to: '2027-01-04', scheduleIds: [] })
        .expect(200);
      const { carryOutFill } = await import('../runs/fill.ts');
      await carryOutFill(await server.scope(), body.run?.id ?? body.id);
    },
    'a schedule deleted': async () =>
      ines
        .post('/api/schedules/changes')
        .send({ changes: [{ id: any.id, version: await version(), set: { isDeleted: true } }] }),
    'the next day': async () => server.clock.set('2026-11-25T09:00'),
    'the daily run': () => ines.post('/api/runs').expect(200),
    'a month later': async () => server.clock.set('2026-12-27T09:00'),
  };
  let before = '';
  let changed = 0;
  let toldFew = 0;
  let { moment } = await touchedSince(await server.scope(), 0);
  for (const [what, deed] of Object.entries(deeds)) {
    await deed();
    const { schedules } = await touchedSince(await server.scope(), moment);
    if (schedules !== null && schedules.size > 0) toldFew++;
    const [kept, afresh] = await both();
    ({ moment } = await touchedSince(await server.scope(), 0));
    expect(kept, what).toEqual(afresh);
    const now = JSON.stringify(afresh);
    if (now !== before) changed++;
    before = now;
  }
  // Most of them change something: what never changes proves nothing.
  expect(changed).toBeGreaterThan(12);
  // And of many of them only what was touched is told anew.
  expect(toldFew).toBeGreaterThan(8);
  expect(JSON.parse(before).length).toBeGreaterThan(50);
}, 120_000);

it('are looked over by their marks where any may have been touched: of those that stand nothing is told anew', async () => {
  const scope = await server.scope();
  const ids = (await ask<{ id: string }>('select id from schedule where deleted_at is null')).map(({ id }) => id);
  const before = await farDates(scope, ids);
  await ask(
    `update client set notes = 'by the slipway' where id = (select client_id from schedule where client_id is not null and deleted_at is null order by id limit 1)`,
  );
  const after = await farDates(scope, ids);
  expect([...after.keys()].sort()).toEqual([...before.keys()].sort());
  const anew = ids.filter((id) => after.get(id) !== before.get(id));
  expect(anew.length).toBeGreaterThan(0);
  expect(anew.length).toBeLessThan(ids.length / 3);
  for (const id of anew) expect(after.get(id)).toEqual(before.get(id));
});
