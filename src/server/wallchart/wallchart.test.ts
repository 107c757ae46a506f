import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import {
  MOST_WALL_MARKS,
  type TaskLine,
  WALL_NOBODY,
  WALL_ROWS,
  type WallDate,
  type WallRow,
  type wallchartEndpoints,
} from '../../contract/index.ts';
import { cellsOfMarks, dayOfIso, FRESH_TIMING, isoOfDay, parsePhrase, type WallLook } from '../../core/index.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';

type Chart = ReturnType<(typeof wallchartEndpoints)['chart']['answer']['parse']>;
type Marks = { tasks: TaskLine[]; dates: WallDate[]; count: { tasks: number; dates: number } };

let server: TestServer;
let ines: Agent;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
});
afterAll(() => server.stop());

const chart = async (query: object = {}): Promise<Chart> =>
  (await ines.get('/api/wallchart').query(query).expect(200)).body;
const marks = async (body: object): Promise<Marks> =>
  (await ines.post('/api/wallchart/marks').send(body).expect(200)).body;
const rowOf = (rows: readonly WallRow[], name: string) => {
  const row = rows.find((one) => one.name === name);
  if (!row) throw new Error(`There is no row ${name} among ${rows.map((one) => one.name).join(', ')}.`);
  return row;
};
const sumOf = (rows: readonly WallRow[], is: (look: WallLook) => boolean) =>
  rows
    .flatMap((row) => cellsOfMarks(row.marks).flatMap(({ looks }) => looks))
    .reduce((sum, { look, count }) => sum + (is(look) ? count : 0), 0);
const query = async <T>(sql: string, params: unknown[] = []) => server.source.query<T[]>(sql, params);

/** Of whom, or of what, there are the most tasks. */
async function mostOf(column: 'client_id' | 'template_id' | 'assignee_id'): Promise<string> {
  const [most] = await query<{ id: string }>(
    `select ${column} as id from task where client_id is not null and assignee_id is not null group by 1 order by count(*) desc limit 1`,
  );
  return most?.id ?? '';
}

/** How a line of a task looks in a cell. */
function lookOfLine({ state, late, heldUp }: TaskLine): WallLook {
  if (state === 'done') return late ? 'doneLate' : 'done';
  if (state === 'toCheck' || state === 'skipped' || state === 'lapsed') return state;
  return heldUp ? 'heldUp' : late ? 'late' : state;
}

/** What the chart says of a row, by column and look. */
const told = (row: WallRow): ReadonlyMap<string, number> =>
  new Map(
    cellsOfMarks(row.marks).flatMap(({ column, looks }) =>
      looks.map(({ look, count }) => [`${column} ${look}`, count] as const),
    ),
  );

/** The same from the tasks and dates that stand behind the cells of a row, each as its line looks. */
async function behind(
  rows: string,
  key: string,
  { first, length, columns }: Chart,
  filter: object = {},
): Promise<ReadonlyMap<string, number>> {
  const last = isoOfDay(dayOfIso(first) + columns * length - 1);
  const whole = await marks({ ...filter, rows, blocks: [{ keys: [key], from: first, to: last }] });
  expect([whole.tasks.length, whole.dates.length]).toEqual([whole.count.tasks, whole.count.dates]);
  const found = new Map<string, number>();
  const add = (dueOn: string, look: WallLook) => {
    const at = `${Math.floor((dayOfIso(dueOn) - dayOfIso(first)) / length)} ${look}`;
    found.set(at, (found.get(at) ?? 0) + 1);
  };
  for (const task of whole.tasks) add(task.dueOn, lookOfLine(task));
  for (const { dueOn } of whole.dates) add(dueOn, 'foreseen');
  return found;
}

describe('the wallchart', () => {
  it.each(WALL_ROWS)('by %s holds what stands behind each of its cells, made and foreseen', async (rows) => {
    const year = await chart({ rows, span: 'quarter' });
    expect([year.first, year.length, year.columns]).toEqual(['2026-09-28', 7, 14]);
    expect(year.rows.length).toBe(year.count);
    expect(new Set(year.rows.map(({ key }) => key)).size).toBe(year.rows.length);
    // Rows with the most in them that is told one by one, cell by cell.
    const fullest = [...year.rows]
      .filter((row) => sumOf([row], (look) => look !== 'foreseen') <= MOST_WALL_MARKS)
      .sort((a, b) => b.marks.length - a.marks.length)
      .slice(0, 3);
    expect(fullest.length).toBeGreaterThan(0);
    for (const row of fullest) expect(told(row)).toEqual(await behind(rows, row.key, year));
  });

  it('shows all tasks and all dates once by template, schedule and person, by the day as by the week', async () => {
    const [made] = await query<{ n: number; scheduled: number }>(
      `select count(*)::int as n, (count(*) filter (where schedule_id is not null))::int as scheduled from task t
       join workspace w on w.id = t.workspace_id
       where w.name = 'Tern Quay' and due_on between '2026-06-01' and '2027-05-31' and template_id is not null`,
    );
    const isMade = (look: WallLook) => look !== 'foreseen';
    const byTemplate = await chart({ rows: 'template', by: 'day' });
    expect([byTemplate.first, byTemplate.columns]).toEqual(['2026-06-01', 365]);
    expect(sumOf(byTemplate.rows, isMade)).toBe(made?.n);
    const bySchedule = await chart({ rows: 'schedule', by: 'day' });
    expect(sumOf(bySchedule.rows, isMade)).toBe(made?.scheduled);
    const foreseen = sumOf(bySchedule.rows, (look) => look === 'foreseen');
    expect(foreseen).toBeGreaterThan(1000);
    expect(sumOf(byTemplate.rows, (look) => look === 'foreseen')).toBe(foreseen);
    const byPerson = await chart({ rows: 'person', by: 'day' });
    expect(sumOf(byPerson.rows, (look) => look === 'foreseen')).toBe(foreseen);
    expect(byPerson.rows[0]?.key).toBe(WALL_NOBODY);
  });

  it('foresees the same days as the bench says, and nothing for what is made', async () => {
    const { rows } = await chart({ rows: 'schedule', by: 'day', find: 'payroll' });
    const row = rows.find(({ name }) => name === 'Payroll run');
    if (!row) throw new Error('There is no payroll.');
    const foreseen = cellsOfMarks(row.marks).filter(({ looks }) => looks.some(({ look }) => look === 'foreseen'));
    const dates = new Set(foreseen.map(({ column }) => isoOfDay(dayOfIso('2026-06-01') + column)));
    // The 15th and the last working day, or the working day before.
    expect(dates.has('2027-01-15')).toBe(true);
    expect(dates.has('2027-01-29')).toBe(true);
    expect(dates.has('2027-05-14')).toBe(true);
    const [there] = await query<{ n: number }>(
      `select count(*)::int as n from task where schedule_id = $1 and due_on = any($2::date[])`,
      [row.key, [...dates]],
    );
    expect(there?.n).toBe(0);
  });

  it('is narrowed by words, and told from another month', async () => {
    const all = await chart();
    // Beyond the last row it still says how many there are.
    expect(await chart({ start: all.count + 5 })).toMatchObject({ rows: [], count: all.count });
    const lee = await chart({ find: 'lee quay' });
    expect(lee.rows.length).toBeGreaterThan(0);
    expect(lee.rows.length).toBeLessThan(all.rows.length);
    for (const { name, group } of lee.rows) expect(`${name} ${group}`.toLowerCase()).toContain('lee');
    const inspections = await chart({ category: 'Inspection' });
    expect(sumOf(inspections.rows, () => true)).toBeLessThan(sumOf(all.rows, () => true));
    const later = await chart({ from: '2027-01-15', span: 'quarter', by: 'day' });
    expect([later.first, later.columns]).toEqual(['2027-01-01', 90]);
    const withAll = await chart({ empty: 'yes' });
    expect(withAll.count).toBeGreaterThan(all.count);
    const nadia = (await server.person('Nadia Orme')).id;
    const hers = await chart({ rows: 'template', person: nadia });
    const [made] = await query<{ n: number }>(
      `select count(*)::int as n from task where assignee_id = $1 and template_id is not null and due_on between '2026-06-01' and '2027-06-06'`,
      [nadia],
    );
    expect(sumOf(hers.rows, (look) => look !== 'foreseen')).toBe(made?.n);
  });

  it('shows rows of people for one client, whose schedules do not say whose they are', async () => {
    const client = await mostOf('client_id');
    for (const rows of ['person', 'role'] as const) {
      const all = await chart({ rows });
      const ofClient = await chart({ rows, client });
      expect(ofClient.count).toBe(all.count);
      expect(sumOf(ofClient.rows, () => true)).toBeGreaterThan(0);
      expect(sumOf(ofClient.rows, () => true)).toBeLessThan(sumOf(all.rows, () => true));
    }
  });

  it.each(WALL_ROWS)('by %s answers however it is narrowed, with no more than there is', async (rows) => {
    const all = sumOf((await chart({ rows, span: 'quarter' })).rows, () => true);
    const [site] = await query<{ id: string }>('select id from asset where is_site order by name limit 1');
    const narrowed = {
      category: 'Inspection',
      template: await mostOf('template_id'),
      client: await mostOf('client_id'),
      site: site?.id,
      person: await mostOf('assignee_id'),
      role: 'dock crew',
      team: 'Lee Quay',
    };
    for (const [field, value] of [...Object.entries(narrowed), ['find', 'a']]) {
      const { rows: found } = await chart({ rows, span: 'quarter', [field ?? '']: value });
      expect(
        sumOf(found, () => true),
        field,
      ).toBeLessThanOrEqual(all);
    }
    const { rows: within } = await chart({ rows, span: 'quarter', ...narrowed, find: 'a' });
    expect(sumOf(within, () => true)).toBeLessThan(all);
  });

  it('keeps rows together that stand with the same, however alike others read, our own first', async () => {
    const client = { address: '', usualPersonId: null, notes: '', fields: {}, contacts: [] };
    const asset = {
      siteId: null,
      isSite: false,
      tag: null,
      place: '',
      fields: {},
      servesFrom: null,
      servesUntil: null,
    };
    for (const name of ['AERO SAILING', 'Ero Sailing', 'aero sailing']) {
      const { body } = await ines
        .post('/api/clients')
        .send({ name, ...client })
        .expect(200);
      for (const vessel of ['Zephyr', 'Alba'])
        await ines
          .post('/api/assets')
          .send({ name: vessel, clientId: body.client.id, ...asset })
          .expect(200);
    }
    const { rows } = await chart({ rows: 'asset', empty: 'yes' });
    const groups = rows.map(({ group }) => group).filter((group, at, all) => group !== all[at - 1]);
    expect(new Set(groups).size).toBe(groups.length);
    for (const group of ['AERO SAILING', 'aero sailing'])
      expect(rows.filter((row) => row.group === group).map(({ name }) => name)).toEqual(['Alba', 'Zephyr']);
    const own = await query<{ id: string }>(
      `select id from asset where client_id is null and workspace_id = (select id from workspace where name = 'Tern Quay')`,
    );
    const isOwn = new Set(own.map(({ id }) => id));
    expect(rows.findLastIndex(({ key }) => isOwn.has(key))).toBe(isOwn.size - 1);
  });

  it('says when somebody is away and when all schedules of a row rest', async () => {
    const people = await chart({ rows: 'person' });
    expect(rowOf(people.rows, 'Oskar Tindle').rests).toContainEqual(
      expect.objectContaining({ from: '2026-12-21', because: 'away' }),
    );
    const { rows } = await chart({ rows: 'schedule' });
    expect(rows.some(({ rests }) => rests.some(({ because }) => because === 'resting'))).toBe(true);
    for (const { marks: packed, rests } of rows)
      for (const { from, to } of rests) {
        const columns = cellsOfMarks(packed)
          .filter(({ looks }) => looks.some(({ look }) => look === 'foreseen'))
          .map(({ column }) => dayOfIso('2026-06-01') + column * 7);
        // Weeks that lie in a rest as a whole have nothing to come.
        expect(columns.filter((day) => dayOfIso(from) <= day && day + 6 <= dayOfIso(to))).toEqual([]);
      }
  });

  it('refuses in words what makes no sense', async () => {
    await ines.get('/api/wallchart').query({ rows: 'boats' }).expect(422);
    const block = { keys: ['x'], from: '2026-12-01', to: '2026-11-01' };
    await ines
      .post('/api/wallchart/marks')
      .send({ rows: 'asset', blocks: [block] })
      .expect(422);
    await ines.get('/api/wallchart').query({ site: '00000000-0000-4000-8000-000000000000' }).expect(404);
  });

  it('tells by the clock and the zone of each task what the hour decides, the rest by its days', async () => {
    // Now is 24 November, 10:40 in London: already the 25th in the first of these zones, still the 23rd in the second.
    const days = ['2026-11-22', '2026-11-23', '2026-11-24', '2026-11-25', '2026-11-26'];
    const cases = days.flatMap((due_on) =>
      [null, 'Pacific/Kiritimati', 'Pacific/Pago_Pago'].flatMap((zone) =>
        [null, ...days].flatMap((held_until) =>
          [null, '00:30'].map((due_time) => ({ due_on, zone, held_until, due_time })),
        ),
      ),
    );
    const [bare] = await query<{ id: string; client: string; asset: string; person: string }>(
      `select c.id as client, a.id as asset, p.id as person from client c join asset a on a.client_id = c.id join person p on p.workspace_id = c.workspace_id
       where p.name = 'Kit Sorrell' and not exists (select from task where client_id = c.id) order by c.id, a.id limit 1`,
    );
    expect(bare).toBeDefined();
    await query(
      `insert into task select (jsonb_populate_record(t, said || jsonb_build_object('id', gen_random_uuid(), 'set_id', gen_random_uuid(),
         'schedule_id', null, 'nominal_date', null, 'run_id', null, 'state', case when n % 3 = 0 then 'underWay' else 'open' end,
         'appears_on', case when n % 2 = 0 then '2026-11-01' else '2026-11-25' end,
         'held_reason', case when said->>'held_until' is null then null else 'waits' end,
         'held_at', case when said->>'held_until' is null then null else now() end,
         'client_id', $2::uuid, 'asset_id', $3::uuid, 'assignee_id', $4::uuid, 'offered_to', null))).*
       from (select t from task t join workspace w on w.id = t.workspace_id where w.name = 'Tern Quay' and state = 'open' limit 1) one (t),
         jsonb_array_elements($1::jsonb) with ordinality as of (said, n)`,
      [JSON.stringify(cases), bare?.client, bare?.asset, bare?.person],
    );
    const keys = { client: bare?.client, asset: bare?.asset, person: bare?.person };
    for (const [rows, key] of Object.entries(keys)) {
      const quarter = await chart({ rows, span: 'quarter', by: 'day', client: bare?.client });
      const row = quarter.rows.find((one) => one.key === key);
      if (!row || key === undefined) throw new Error(`There is no row of the ${rows}.`);
      const looks = told(row);
      expect([...looks.values()].reduce((sum, n) => sum + n, 0)).toBe(cases.length);
      expect(looks).toEqual(await behind(rows, key, quarter, { client: bare?.client }));
      expect(new Set([...looks.keys()].map((at) => at.split(' ')[1]))).toEqual(
        new Set(['heldUp', 'late', 'underWay', 'open', 'coming']),
      );
    }
  });
});

describe('changing marks', () => {
  let own: TestServer;
  let maud: Agent;
  let kit: string;
  let scheduleId: string;
  beforeAll(async () => {
    own = await testServer();
    maud = await own.browser('Maud Ferrier');
    kit = (await own.person('Kit Sorrell')).id;
  });
  afterAll(() => own.stop());
  beforeEach(async () => {
    // One of its own for each test: every Tuesday from next month on.
    const { body } = await maud.get('/api/templates').expect(200);
    const template = (body.templates as { id: string; name: string }[]).find(({ name }) => name === 'Payroll run');
    const { body: saved } = await maud
      .post('/api/wallchart/schedules')
      .send({
        rows: 'person',
        keys: [kit],
        templateId: template?.id,
        recurrence: parsePhrase('every week on Tue', { start: '2026-11-24' }),
        timing: FRESH_TIMING,
      })
      .expect(200);
    expect(saved.schedules).toBe(1);
    const [row] = await own.source.query<{ id: string }[]>(
      'select id from schedule where deleted_at is null order by created_at desc, id desc limit 1',
    );
    scheduleId = row?.id ?? '';
    return async () => {
      await maud.post(`/api/changes/${saved.changeId}/undo`).expect(200);
      const [gone] = await own.source.query<{ deleted: boolean; tasks: number }[]>(
        `select deleted_at is not null as deleted, (select count(*)::int from task where schedule_id = s.id) as tasks from schedule s where id = $1`,
        [scheduleId],
      );
      expect(gone?.deleted).toBe(true);
    };
  });

  const cell = async (from: string, to = from): Promise<Marks> =>
    (
      await maud
        .post('/api/wallchart/marks')
        .send({ rows: 'schedule', blocks: [{ keys: [scheduleId], from, to }] })
        .expect(200)
    ).body;
  /** What is chosen, as it is sent. */
  const chosen = async (from: string, to = from) => {
    const { tasks, dates } = await cell(from, to);
    return {
      tasks: tasks.map(({ id, version }) => ({ id, version })),
      dates: dates.map(({ scheduleId: of, nominalDate, stepKey, head, version }) => ({
        ...{ scheduleId: of, nominalDate, stepKey, head, version },
      })),
    };
  };
  const days = async (from = '2026-11-24', to = '2027-01-31') => {
    const { tasks, dates } = await cell(from, to);
    return [
      ...tasks.filter(({ state }) => state !== 'skipped').map(({ dueOn }) => dueOn),
      ...dates.map(({ dueOn }) => dueOn),
    ].sort();
  };
  const change = async (body: object) => (await maud.post('/api/wallchart/changes').send(body).expect(200)).body;
  const impact = async (body: object) => (await maud.post('/api/wallchart/changes/impact').send(body).expect(200)).body;

  it('moves made and foreseen ones alone, as it was shown, and puts them back', async () => {
    const before = await days();
    const body = { ...(await chosen('2026-12-01', '2027-01-05')), reach: 'these', deed: { kind: 'move', days: 2 } };
    expect(body.tasks.length).toBeGreaterThan(0);
    expect(body.dates.length).toBeGreaterThan(0);
    const shown = await impact(body);
    expect(shown.figures.changed).toBe(body.tasks.length);
    expect(shown.datesAfter).toBe(shown.datesBefore);
    expect(await days()).toEqual(before);
    const { changeId } = await change(body);
    expect(await days()).toEqual(
      before.map((day) => (day >= '2026-12-01' && day <= '2027-01-05' ? isoOfDay(dayOfIso(day) + 2) : day)).sort(),
    );
    await maud.post(`/api/changes/${changeId}/undo`).expect(200);
    expect(await days()).toEqual(before);
  });

  it('moves these and all later ones by moving the rule from there on', async () => {
    const before = await days();
    const body = { ...(await chosen('2026-12-08')), reach: 'later', deed: { kind: 'move', days: 1 } };
    const shown = await impact(body);
    // The last one leaves the coming year.
    expect([shown.datesBefore, shown.datesAfter]).toEqual([53, 52]);
    const { changeId, schedules } = await change(body);
    expect(schedules).toBe(1);
    expect(await days()).toEqual(before.map((day) => (day >= '2026-12-08' ? isoOfDay(dayOfIso(day) + 1) : day)));
    await maud.post(`/api/changes/${changeId}/undo`).expect(200);
    expect(await days()).toEqual(before);
    // By as much as lies between two of them: the first is gone from its place.
    const week = await change({ ...(await chosen('2026-12-08')), reach: 'later', deed: { kind: 'move', days: 7 } });
    expect(await days()).toEqual(before.filter((day) => day !== '2026-12-08'));
    await maud.post(`/api/changes/${week.changeId}/undo`).expect(200);
    expect(await days()).toEqual(before);
  });

  it('moves them earlier likewise, unless others of its own stand there', async () => {
    const before = await days();
    const body = { ...(await chosen('2026-12-08')), reach: 'later' };
    await change({ ...body, deed: { kind: 'move', days: -1 } });
    expect(await days()).toEqual(before.map((day) => (day >= '2026-12-08' ? isoOfDay(dayOfIso(day) - 1) : day)));
    const again = { ...(await chosen('2026-12-14')), reach: 'later', deed: { kind: 'move', days: -8 } };
    const { body: refused } = await maud.post('/api/wallchart/changes').send(again).expect(422);
    expect(JSON.stringify(refused)).toContain('change its rule on the bench');
  });

  it('gives one, or all from there on, to somebody else', async () => {
    const ida = (await own.person('Nadia Orme')).id;
    const who = async () => {
      const { tasks, dates } = await cell('2026-12-01', '2027-01-31');
      return new Map([
        ...tasks.map(({ dueOn, assignee }) => [dueOn, assignee?.name] as const),
        ...dates.map(({ dueOn, assignee }) => [dueOn, assignee?.name] as const),
      ]);
    };
    await change({ ...(await chosen('2027-01-12')), reach: 'these', deed: { kind: 'give', personId: ida } });
    expect([...(await who())].filter(([, name]) => name === 'Nadia Orme')).toEqual([['2027-01-12', 'Nadia Orme']]);
    const before = await who();
    const giving = async () =>
      change({ ...(await chosen('2026-12-15')), reach: 'later', deed: { kind: 'give', personId: ida } });
    const { changeId } = await giving();
    await maud.post(`/api/changes/${changeId}/undo`).expect(200);
    expect(await who()).toEqual(before);
    const { changed } = await giving();
    expect(changed).toBeGreaterThan(0);
    for (const [day, name] of await who())
      expect([day, name]).toEqual([day, day < '2026-12-15' ? 'Kit Sorrell' : 'Nadia Orme']);
    await change({ ...(await chosen('2026-12-15')), reach: 'series', deed: { kind: 'give', personId: null } });
    for (const [day, name] of await who()) expect([day, name]).toEqual([day, undefined]);
  });

  it('skips one date, or pauses from there on', async () => {
    const before = await days();
    await change({ ...(await chosen('2027-01-12')), reach: 'these', deed: { kind: 'skip', reason: 'Shut' } });
    expect(await days()).toEqual(before.filter((day) => day !== '2027-01-12'));
    const { changeId } = await change({
      ...(await chosen('2026-12-15')),
      reach: 'later',
      deed: { kind: 'skip', reason: 'Rebuilt' },
    });
    expect(await days()).toEqual(before.filter((day) => day < '2026-12-15'));
    const back = await maud.post(`/api/changes/${changeId}/undo`);
    expect([back.status, back.body.detail]).toEqual([200, undefined]);
    expect(await days()).toEqual(before.filter((day) => day !== '2027-01-12'));
  });

  it('says what somebody else has changed meanwhile, and who may not', async () => {
    const body = { ...(await chosen('2027-01-12')), reach: 'these', deed: { kind: 'move', days: 1 } };
    await change(body);
    await maud.post('/api/wallchart/changes').send(body).expect(409);
    const bram = await own.browser('Kit Sorrell');
    await bram.post('/api/wallchart/changes').send(body).expect(403);
    const { tasks } = await chosen('2026-12-01');
    const { body: refused } = await maud
      .post('/api/wallchart/changes')
      .send({ tasks, dates: [], reach: 'these', deed: { kind: 'move', days: 0 } })
      .expect(422);
    expect(JSON.stringify(refused)).toContain('By a day at least');
    await maud
      .post('/api/wallchart/changes')
      .send({ tasks: [], dates: [], reach: 'these', deed: { kind: 'move', days: 1 } })
      .expect(422);
  });

  it('adds a schedule to several rows after a look, each for its own, and takes all of them out again', async () => {
    const [assets, template] = await Promise.all([
      own.source.query<{ id: string; client_id: string | null }[]>(
        `select id, client_id from asset where archived_at is null order by client_id nulls first, name limit 40`,
      ),
      own.source.query<{ id: string }[]>(`select id from template where name = 'Payroll run'`),
    ]);
    const three = [assets[0], assets[1], assets.at(-1)].flatMap((one) => one ?? []);
    const body = {
      rows: 'asset',
      keys: three.map(({ id }) => id),
      templateId: template[0]?.id,
      recurrence: parsePhrase('every week on Thu', { start: '2026-11-24' }),
      timing: { ...FRESH_TIMING, startTime: '09:00' },
    };
    const { body: shown } = await maud.post('/api/wallchart/schedules/impact').send(body).expect(200);
    expect([shown.datesBefore, shown.datesAfter]).toEqual([0, 3 * 52]);
    const { body: saved } = await maud.post('/api/wallchart/schedules').send(body).expect(200);
    expect([saved.schedules, saved.made]).toEqual([3, shown.figures.added]);
    const made = await own.source.query<{ asset_id: string; client_id: string | null }[]>(
      `select asset_id, client_id from schedule where deleted_at is null order by created_at desc, id desc limit 3`,
    );
    expect(new Set(made.map((one) => `${one.asset_id} ${one.client_id}`))).toEqual(
      new Set(three.map((one) => `${one.id} ${one.client_id}`)),
    );
    await maud.post(`/api/changes/${saved.changeId}/undo`).expect(200);
    const [left] = await own.source.query<{ n: number }[]>(
      `select count(*)::int as n from task t join schedule s on s.id = t.schedule_id where s.asset_id = any($1::uuid[]) and s.deleted_at is not null`,
      [three.map(({ id }) => id)],
    );
    expect(left?.n).toBe(0);
    await maud
      .post('/api/wallchart/schedules')
      .send({ ...body, keys: ['00000000-0000-4000-8000-000000000000'] })
      .expect(404);
  });
});
