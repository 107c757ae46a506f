import { execFileSync } from 'node:child_process';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { LetGo, NextLettingGo, Settings } from '../../contract/index.ts';
import { Workspace } from '../platform/identity/workspace.ts';
import { Scope } from '../platform/scope.ts';
import { ENDED } from '../tasks/stored/index.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { newTemplate } from '../testing/work.ts';
import { letGoWhatIsDue } from './index.ts';

let server: TestServer;
let ines: Agent;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  // The demo goes back for some months: what is older than two of them is made a year older.
  await ask(
    `update task set due_on = due_on - 365, work_on = work_on - 365, starts_on = starts_on - 365, appears_on = appears_on - 365,
       started_at = started_at - interval '365 days', done_at = done_at - interval '365 days'
     where state in ${ENDED} and due_on < '2026-09-24'`,
  );
  await ask(`update call set list_on = list_on - 365 where list_on < '2026-07-01'`);
  await ask(`update call_list set list_on = list_on - 365 where list_on < '2026-07-01'`);
  // And one that was started by hand, with something special.
  const templateId = await newTemplate(ines, {});
  const { body } = await ines
    .post(`/api/templates/${templateId}/start`)
    .send({
      ...{ on: '2026-11-24', clientId: null, assetId: null, assigneeId: null, special: 'Ring twice.' },
      parts: [{ step: '', on: '2026-11-24', startTime: null, dueTime: null, assigneeId: null }],
    })
    .expect(200);
  const id = body.tasks[0].id;
  await ines.post(`/api/tasks/${id}/finish`).expect(200);
  const year = `interval '365 days'`;
  await ask(
    `update task set due_on = '2025-11-24', started_at = started_at - ${year}, done_at = done_at - ${year} where id = $1`,
    [id],
  );
  // A client was asked for it, by a link of its own and by one that opens another task too.
  const link = (n: number) => `01937000-0000-7000-8000-0000000000${n}0`;
  for (const n of [1, 2])
    await ask(
      `insert into client_link (workspace_id, id, client_id, contact_id, name, email, task_id, digest, needs_code, made_at, ends_on,
         code_tries, codes_sent, passes)
       select workspace_id, $2, id, $2, 'Somebody', 'somebody@x.example', null, $3, false, now(), '2025-12-01', 0, 0, '[]'
       from client where workspace_id = (select workspace_id from task where id = $1) order by id limit 1`,
      [id, link(n), `digest ${n}`],
    );
  for (const [n, of] of [
    [1, id],
    [2, id],
    [2, link(3)],
  ])
    await ask(
      `insert into client_ask (workspace_id, id, link_id, task_id, kind, asked_on, due_on, at)
       select workspace_id, gen_random_uuid(), $2, $3, 'again', '2025-11-20', '2025-11-24', now() from task where id = $1`,
      [id, link(n as number), of],
    );
});
afterAll(() => server.stop());

const settings = async (): Promise<Settings> => (await ines.get('/api/settings').expect(200)).body;
const keep = async (keepYears: number | null) => ines.put('/api/settings').send({ ...(await settings()), keepYears });
const next = async (query: object = {}): Promise<NextLettingGo | null> =>
  (await ines.get('/api/retention/next').query(query).expect(200)).body.next;
const past = async (): Promise<LetGo[]> => (await ines.get('/api/retention/past').expect(200)).body.letGo;
/** As the database has it. */
const ask = <Row>(sql: string, params: unknown[] = []): Promise<Row[]> => server.source.query(sql, params);
const countOf = async (where: string) =>
  (await ask<{ n: number }>(`select count(*)::int as n from task t where ${where}`))[0]?.n ?? 0;

/** As the job of the night does it. */
async function night(moment: string): Promise<number | null> {
  server.clock.set(moment);
  const workspace = await server.source.getRepository(Workspace).findOneByOrFail({ name: 'Tern Quay' });
  return letGoWhatIsDue(Scope.on(server.source, workspace, null, server.clock));
}
const OLD = `t.due_on < '2025-12-01' and t.state in ${ENDED}`;
const LAST = `not exists (select 1 from task newer where newer.schedule_id = t.schedule_id and newer.nominal_date > t.nominal_date)`;

describe('finished work', () => {
  it('is kept for good, until somebody says for how long: what would go then is told before', async () => {
    expect(await next()).toBeNull();
    expect(await night('2026-11-25T03:17')).toBeNull();
    const old = await countOf(OLD);
    const lasts = await countOf(`${OLD} and t.schedule_id is not null and ${LAST}`);
    expect(old - lasts).toBeGreaterThan(100);
    server.clock.set('2026-11-24T10:40');
    const would = await next({ years: 1 });
    expect(would).toMatchObject({ on: '2026-12-01', before: '2025-12-01', tasks: old - lasts });
    expect(would?.calls).toBeGreaterThan(100);
    expect(await next({ years: 1, withinDays: 7 })).toEqual(would);
    expect(await next({ years: 1, withinDays: 6 })).toBeNull();
    expect(await next({ years: 30 })).toMatchObject({ before: '1996-12-01', tasks: 0, files: 0, calls: 0 });
    for (const years of ['0', '31', '1.5', 'x']) await ines.get('/api/retention/next').query({ years }).expect(422);
    expect((await keep(0)).body.errors[0].path).toBe('keepYears');
    expect((await keep(1)).status).toBe(200);
    expect(await next()).toEqual(would);
  });

  it('goes on its day and not before, with its history and files, but for the last of each schedule; and that it went stays', async () => {
    const would = await next();
    expect(await ask(`select 1 from work_content where brief = 'Ring twice.'`)).toHaveLength(1);
    const open = await countOf(`t.due_on < '2025-12-01' and t.state not in ${ENDED}`);
    const [commented] = await ask<{ id: string }>(`select t.id from task t where ${OLD} and not (${LAST}) limit 1`);
    await ines.post(`/api/tasks/${commented?.id}/comments`).send({ text: 'Long ago.' });
    expect(await night('2026-11-30T03:17')).toBeNull();
    expect(await past()).toEqual([]);
    expect(await night('2026-12-01T03:17')).toBe(would?.tasks);
    expect(await past()).toEqual([
      {
        on: '2026-12-01',
        before: '2025-12-01',
        years: 1,
        tasks: would?.tasks,
        files: would?.files,
        calls: would?.calls,
      },
    ]);
    // What is known of the contacts stays.
    expect(await ask(`select 1 from call where list_on < '2025-12-01'`)).toEqual([]);
    expect(await ask(`select 1 from call_list where list_on < '2025-12-01'`)).toEqual([]);
    expect((await ask('select 1 from call_standing')).length).toBeGreaterThan(50);
    expect(await countOf(`${OLD} and (t.schedule_id is null or not (${LAST}))`)).toBe(0);
    expect(await countOf(`t.due_on < '2025-12-01' and t.state not in ${ENDED}`)).toBe(open);
    // Of what is gone nothing is left, nor of what was said for it alone.
    expect(await ask(`select 1 from work_content where brief = 'Ring twice.'`)).toEqual([]);
    for (const [table, column] of [
      ['task_comment', 'task_id'],
      ['message', 'task_id'],
      ['file', 'task_id'],
    ])
      expect(
        await ask(
          `select 1 from ${table} x where ${column} is not null and not exists (select 1 from task t where t.id = x.${column})`,
        ),
      ).toEqual([]);
    await ines.get(`/api/tasks/${commented?.id}`).expect(404);
    // Once: the next month has its own.
    expect(await night('2026-12-02T03:17')).toBeNull();
    expect(await next()).toMatchObject({ on: '2027-01-01', before: '2026-01-01' });
    // Nor what a client was asked of it: a link that opens another task stays.
    expect(await ask(`select digest from client_link where digest like 'digest %'`)).toEqual([{ digest: 'digest 2' }]);
  });

  it('goes a week after another number of years was set, at least, and not where it is kept for good again', async () => {
    server.clock.set('2026-12-28T09:00');
    await keep(null).then(({ status }) => expect(status).toBe(200));
    expect(await night('2027-01-01T03:17')).toBeNull();
    server.clock.set('2026-12-28T09:00');
    const { body } = await keep(1);
    expect(await next()).toMatchObject({ on: '2027-02-01', before: '2026-02-01' });
    // The setting is put back like any other.
    await ines.post(`/api/changes/${body.changeId}/undo`).expect(200);
    expect((await settings()).keepYears).toBeNull();
    expect(await next()).toBeNull();
  });

  it('that is not kept is told on paper to whoever checks', async () => {
    const [asset] = await ask<{ id: string }>(
      `select asset_id as id from task where asset_id is not null and due_on > '2026-11-01' limit 1`,
    );
    const said = async (from: string) => {
      const query = { asset: asset?.id, from, to: '2026-12-31' };
      const { body } = await ines.get('/api/logbook/record.pdf').query(query).responseType('blob').expect(200);
      return execFileSync('pdftotext', ['-layout', '-', '-'], { input: body as Buffer }).toString();
    };
    expect(await said('2025-11-30')).toContain('is not kept any longer');
    expect(await said('2025-12-01')).not.toContain('is not kept any longer');
  });

  it('is none of anybody’s business but a manager’s to let go of; that it went is told to all', async () => {
    const nadia = await server.browser('Nadia Orme');
    await nadia.get('/api/retention/next').expect(403);
    expect((await nadia.get('/api/retention/past').expect(200)).body.letGo).toHaveLength(1);
  });
});
