import Papa from 'papaparse';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  LOG_GROUPINGS,
  LOG_KINDS,
  type LogDay,
  type LogEntry,
  type LogFigures,
  type LoggedChange,
  type LogRow,
  type LogSeries,
} from '../../contract/index.ts';
import { compactEndedCounts } from '../tasks/stored/index.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { newTemplate, startedTasks } from '../testing/work.ts';

let server: TestServer;
let ines: Agent;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
});
afterAll(() => server.stop());

const SPAN = { from: '2026-10-26', to: '2026-11-22' };
const asked = async (path: string, query: object = {}) =>
  (
    await ines
      .get(`/api/logbook${path}`)
      .query({ ...SPAN, ...query })
      .expect(200)
  ).body;

/** Every entry of a time, day by day. */
async function entriesOf(query: object = {}): Promise<LogEntry[]> {
  const entries: LogEntry[] = [];
  for (let before: string | undefined; ; ) {
    const { days, more } = (await asked('/days', { ...query, ...(before ? { before } : {}) })) as {
      days: LogDay[];
      more: string | null;
    };
    for (const { on, count } of days) {
      const day: LogDay = await asked('/day', { ...query, on });
      expect([day.on, day.count, day.entries.length]).toEqual([on, count, count]);
      entries.push(...day.entries);
    }
    if (more === null) return entries;
    before = more;
  }
}
const sum = (all: readonly LogFigures[]) =>
  all.reduce((total, one) => ({
    onTime: total.onTime + one.onTime,
    late: total.late + one.late,
    skipped: total.skipped + one.skipped,
    lapsed: total.lapsed + one.lapsed,
    open: total.open + one.open,
  }));

describe('the logbook', () => {
  it('has every entry on its day, and figures that count them', async () => {
    const entries = await entriesOf();
    const { all, weeks, entries: count } = await asked('/rates');
    expect([entries.length, new Set(entries.map(({ id }) => id)).size]).toEqual([count, count]);
    const finished = entries.filter(({ state }) => state === 'done' || state === 'toCheck');
    expect(all).toMatchObject({
      onTime: finished.filter(({ late }) => !late).length,
      late: finished.filter(({ late }) => late).length,
      skipped: entries.filter(({ state }) => state === 'skipped').length,
      lapsed: entries.filter(({ state }) => state === 'lapsed').length,
    });
    expect(weeks.map(({ monday }: { monday: string }) => monday)).toEqual([
      '2026-10-26',
      '2026-11-02',
      '2026-11-09',
      '2026-11-16',
    ]);
    expect(sum(weeks)).toMatchObject(all);
    expect((await asked('/rates', { from: '2026-09-28', to: '2026-10-25' })).all).toEqual(
      (await asked('/rates')).before,
    );
  });

  it('tells the same where what is kept of its days is put together, and where it is counted of the tasks', async () => {
    const id = (
      await server.source.query(`select id from task where state = 'done' and due_on between $1 and $2 limit 1`, [
        SPAN.from,
        SPAN.to,
      ])
    )[0].id as string;
    const changeId = (await ines.get(`/api/tasks/${id}`).expect(200)).body.finishedBy;
    if (changeId !== null) await ines.post(`/api/changes/${changeId}/undo`).expect(200);
    const before = await asked('/rates');
    const rows = async () => (await server.source.query('select count(*)::int as n from ended_count'))[0].n as number;
    const many = await rows();
    expect(await compactEndedCounts(server.source)).toBe(many - (await rows()));
    expect(await compactEndedCounts(server.source)).toBe(0);
    expect(await asked('/rates')).toEqual(before);
    // Any word more is asked of the tasks themselves: this one all of them fit.
    await server.source.query(`update task set title = title || ' zz'`);
    expect(await asked('/rates', { find: 'zz' })).toEqual(before);
    const days = await asked('/days');
    expect(await asked('/days', { find: 'zz' })).toEqual(days);
    for (const kind of ['late', 'skipped', 'lapsed', 'toCheck'])
      expect((await asked('/rates', { kind })).entries).toBe((await asked('/rates', { kind, find: 'zz' })).entries);
    await server.source.query(`update task set title = left(title, -3)`);
  });

  it.each(LOG_KINDS)('shows of %s what fits alone', async (kind) => {
    const fits: Record<(typeof LOG_KINDS)[number], (entry: LogEntry) => boolean> = {
      all: () => true,
      late: ({ late, doneAt }) => late && doneAt !== null,
      skipped: ({ state }) => state === 'skipped',
      lapsed: ({ state }) => state === 'lapsed',
      sentBack: ({ wasSentBack }) => wasSentBack,
      noted: ({ note }) => note !== '',
      toCheck: ({ state }) => state === 'toCheck',
    };
    const entries = await entriesOf({ kind });
    expect(entries.every(fits[kind])).toBe(true);
    expect(entries).toHaveLength((await entriesOf()).filter(fits[kind]).length);
  });

  it.each(LOG_GROUPINGS)('adds up by %s to the same, and a row to what it opens', async (by) => {
    const rows: LogRow[] = [];
    for (let start = 0, count = 1; start < count; start += 50) {
      const page = await asked('/by', { by, start });
      rows.push(...page.rows);
      count = page.count;
    }
    const { all } = await asked('/rates');
    expect(sum(rows)).toMatchObject(all);
    const missed = rows.map(({ late, lapsed, open }) => late + lapsed + open);
    expect(missed).toEqual([...missed].sort((a, b) => b - a));
    const [first] = rows;
    if (!first || first.key === '') return;
    const { onTime, late, skipped, lapsed, open } = first;
    expect((await asked('/rates', { [by]: first.key })).all).toEqual({ onTime, late, skipped, lapsed, open });
  });

  it('tells first what went otherwise than planned, and what was read out of its limits', async () => {
    const { days } = (await asked('/days')) as { days: LogDay[] };
    const ordinary = ({ state, late, wasSentBack }: LogEntry) => state === 'done' && !late && !wasSentBack;
    for (const { entries } of days) {
      const isPlain = entries.map(ordinary);
      expect(isPlain).toEqual([...isPlain].sort());
    }
    const loop = { key: 'loop', label: 'Earth loop', kind: 'number', unit: 'Ω', least: 0.05, most: 0.8 };
    const nadia = (await server.person('Nadia Orme')).id;
    const [id = ''] = await startedTasks(ines, await newTemplate(ines, { demands: [loop] }), nadia);
    await ines
      .put(`/api/tasks/${id}/answers`)
      .send({ demand: 'loop', value: 1.12, remark: 'Post shut off.' })
      .expect(200);
    await ines.post(`/api/tasks/${id}/finish`).expect(200);
    const day: LogDay = (
      await ines.get('/api/logbook/day').query({ from: '2026-11-24', to: '2026-11-24', on: '2026-11-24' }).expect(200)
    ).body;
    expect(day.entries.find((entry) => entry.id === id)).toMatchObject({
      by: 'Ines Calloway',
      readings: 1,
      outOfLimits: { label: 'Earth loop', value: 1.12, unit: 'Ω', least: 0.05, most: 0.8 },
    });
  });

  it('is had as a file, a line for each entry', async () => {
    const { text, headers } = await ines
      .get('/api/logbook.csv')
      .query({ ...SPAN, kind: 'noted' })
      .expect(200);
    expect(headers['content-disposition']).toContain('logbook%202026-10-26%20to%202026-11-22.csv');
    const { data } = Papa.parse<Record<string, string>>(text.slice(1), { header: true, skipEmptyLines: true });
    const entries = await entriesOf({ kind: 'noted' });
    expect(data).toHaveLength(entries.length);
    const [first] = [...entries].sort((a, b) => a.dueOn.localeCompare(b.dueOn) || (a.id < b.id ? -1 : 1));
    expect(data[0]).toMatchObject({
      due: first?.dueOn,
      what: first?.title,
      note: first?.note.replaceAll('\r\n', '\n'),
    });
  });

  it('refuses a time that runs backwards, or that nobody can mean', async () => {
    await ines.get('/api/logbook/rates').query({ from: '2026-11-22', to: '2026-10-26' }).expect(422);
    await ines.get('/api/logbook/rates').query({ from: '2001-01-01', to: '2026-10-26' }).expect(422);
    await ines.get('/api/logbook.csv').query({ from: '2026-11-22' }).expect(422);
  });

  it('tells what was read at each step over time, as the tasks have it', async () => {
    const query = { from: '2026-05-25', to: '2026-11-22' };
    const { series, count, since } = (await ines.get('/api/logbook/readings').query(query).expect(200)).body as {
      series: LogSeries[];
      count: number;
      since: string | null;
    };
    expect([count > 3, since]).toEqual([true, null]);
    const [told] = series;
    if (!told) throw new Error('The demo has readings.');
    const [template, , key] = told.series.split(' ');
    const rows: { id: string; on: string; value: number }[] = await server.source.query(
      `select t.id, t.due_on as "on", (t.answers->$1->>'value')::float as value from task t join asset a on a.id = t.asset_id
       where t.template_id = $2 and a.name = $3 and t.due_on between $4 and $5 and t.answers ? $1
         and t.state in ('done', 'toCheck') order by t.due_on, t.id`,
      [key, template, told.at, query.from, query.to],
    );
    expect(told.readings.map(({ taskId, on, value }) => ({ id: taskId, on, value }))).toEqual(rows);
    const shares = series.map(({ outside, readings }) => outside / readings.length);
    expect(shares).toEqual([...shares].sort((a, b) => b - a));
    const narrowed = await ines
      .get('/api/logbook/readings')
      .query({ ...query, template })
      .expect(200);
    const all = narrowed.body.series as LogSeries[];
    expect(all.map(({ series }) => series.split(' ')[0])).toEqual(all.map(() => template));
  });

  it('tells what was deleted and what was given on, by when and by whom, until that is taken back', async () => {
    type Told = { changes: LoggedChange[]; more: string | null };
    const told = async (what: string, rest: object = {}): Promise<Told> =>
      (
        await ines
          .get('/api/logbook/changes')
          .query({ from: '2026-11-24', to: '2026-11-24', what, ...rest })
          .expect(200)
      ).body;
    const [task] = await server.source.query(
      `select t.id, t.version, t.title, t.due_on as "dueOn", t.template_id as template, p.name as who, p.id as person
       from task t join person p on p.id = t.assignee_id where t.state = 'open' and p.name = 'Kit Sorrell' order by t.id limit 1`,
    );
    const kept = { given: (await told('given')).changes.length, deleted: (await told('deleted')).changes.length };
    const nadia = await server.person('Nadia Orme');
    const deed = async (version: number, of: object): Promise<string> =>
      (
        await ines
          .post('/api/tasks/changes')
          .send({ tasks: [{ id: task.id, version }], deed: of })
          .expect(200)
      ).body.changeId;
    await deed(task.version, { kind: 'give', personId: nadia.id });
    const { changes } = await told('given');
    expect(changes).toHaveLength(kept.given + 1);
    expect(changes[0]).toMatchObject({
      ...{ title: task.title, dueOn: task.dueOn, taskId: task.id, from: 'Kit Sorrell', to: 'Nadia Orme' },
      ...{ by: 'Ines Calloway', at: '2026-11-24T10:40' },
    });
    for (const fits of [
      { person: nadia.id },
      { person: task.person },
      { template: task.template },
      { find: task.title },
    ])
      expect((await told('given', fits)).changes.map(({ taskId }) => taskId)).toContain(task.id);
    expect((await told('given', { person: 'none', template: task.template })).changes).toEqual([]);
    const changeId = await deed(task.version + 1, { kind: 'delete' });
    const gone = (await told('deleted')).changes;
    expect(gone).toHaveLength(kept.deleted + 1);
    expect(gone[0]).toMatchObject({ title: task.title, taskId: null, from: 'Nadia Orme', to: null });
    // It is told once: as deleted.
    expect((await told('given')).changes).toHaveLength(kept.given);
    await ines.post(`/api/changes/${changeId}/undo`).expect(200);
    expect((await told('deleted')).changes).toHaveLength(kept.deleted);
    expect((await told('given', { role: 'dock crew' })).changes.map(({ taskId }) => taskId)).toContain(task.id);
    expect((await told('given', { from: '2026-11-20', to: '2026-11-23', find: task.title })).changes).toEqual([]);
    // Of several that were given together none is told any more once that is taken back.
    const two = await server.source.query(
      `select t.id, t.version, c.name as client from task t join client c on c.id = t.client_id
       where t.state = 'open' and t.assignee_id is not null and t.assignee_id <> $1 order by t.id limit 2`,
      [nadia.id],
    );
    const { body } = await ines
      .post('/api/tasks/changes')
      .send({
        tasks: two.map(({ id, version }: { id: string; version: number }) => ({ id, version })),
        deed: { kind: 'give', personId: nadia.id },
      })
      .expect(200);
    expect((await told('given')).changes).toHaveLength(kept.given + 3);
    // By all that tasks are found by, as elsewhere.
    expect((await told('given', { find: two[0].client })).changes.map(({ taskId }) => taskId)).toContain(two[0].id);
    await ines.post(`/api/changes/${body.changeId}/undo`).expect(200);
    expect((await told('given')).changes).toHaveLength(kept.given + 1);
  });

  it('tells what was given on page by page, each once', async () => {
    await server.source.query(
      `insert into change (workspace_id, id, at, actor_id, subject, subject_id, action, fields)
       select workspace_id, gen_random_uuid(), '2026-10-01T08:00Z'::timestamptz + n * interval '1 minute', null, 'task', id, 'edited',
         '{"assigneeId": {"from": null, "to": null}}' from (select * from task where state = 'done' limit 1) t, generate_series(1, 120) n`,
    );
    const seen: string[] = [];
    for (let after: string | null = ''; after !== null; ) {
      const page: { changes: LoggedChange[]; more: string | null } = (
        await ines
          .get('/api/logbook/changes')
          .query({ from: '2026-10-01', to: '2026-10-01', what: 'given', ...(after === '' ? {} : { after }) })
          .expect(200)
      ).body;
      seen.push(...page.changes.map(({ id }) => id));
      after = page.more;
    }
    expect([seen.length, new Set(seen).size]).toEqual([120, 120]);
    const id = seen[0];
    for (const after of [
      'x',
      '["x"]',
      `["soon","${id}"]`,
      `["2026-02-30T08:00:00.000000Z","${id}"]`,
      `["0000-01-01T08:00:00.000000Z","${id}"]`,
    ])
      await ines
        .get('/api/logbook/changes')
        .query({ from: '2026-10-01', to: '2026-10-01', what: 'given', after })
        .expect(422);
  });
});
