import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  BESIDE_COLUMNS,
  GROUPS_A_PAGE,
  type ListedTask,
  TASK_GROUPINGS,
  TASK_ORDERS,
  TASKS_A_PAGE,
  TASKS_OF_A_GROUP,
  type Task,
  type TaskGroup,
  type TaskLine,
  type TaskOrder,
  type TaskView,
} from '../../contract/index.ts';
import { isOverdue } from '../../core/index.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Agent;
let all: TaskLine[];
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  all = await linesOf({});
});
afterAll(() => server.stop());

const CATEGORY = 'inspection';
type Query = Readonly<Record<string, string | number>>;

const asked = async (path: string, query: Query) =>
  (await ines.get(`/api/task-list${path}`).query(query).expect(200)).body;

/** All pages, one after the other. */
async function linesOf(query: Query): Promise<TaskLine[]> {
  const lines: TaskLine[] = [];
  for (let after: string | null = ''; after !== null; ) {
    const page: { lines: TaskLine[]; more: string | null } = await asked(
      '',
      after === '' ? query : { ...query, after },
    );
    expect(page.lines.length).toBeLessThanOrEqual(TASKS_A_PAGE);
    lines.push(...page.lines);
    after = page.more;
  }
  return lines;
}

const isUnfinished = ({ state }: TaskLine) => ['open', 'underWay', 'toCheck', 'coming'].includes(state);
const minutesOf = (lines: readonly TaskLine[]) => lines.reduce((sum, { estimateMinutes }) => sum + estimateMinutes, 0);
const idsOf = (lines: readonly TaskLine[]) => lines.map(({ id }) => id).sort();

describe('the list of all tasks', () => {
  it('has each once on its pages, in any order', async () => {
    expect(all.length).toBeGreaterThan(1_000);
    const [counted] = await server.source.query(
      'select count(*)::int as n from task t join workspace w on w.id = t.workspace_id where w.name = $1',
      ['Tern Quay'],
    );
    expect(all).toHaveLength(counted.n);
    expect(new Set(all.map(({ id }) => id)).size).toBe(all.length);
    const due = ({ dueOn, dueTime }: TaskLine) => `${dueOn} ${dueTime ?? '~'}`;
    const longest = ({ estimateMinutes }: TaskLine) => estimateMinutes;
    const URGENT = ['urgent', 'high', 'normal', 'low'];
    const keyOf: Record<TaskOrder, readonly ['up' | 'down', (line: TaskLine) => string | number]> = {
      due: ['up', due],
      latest: ['down', due],
      title: ['up', ({ title }) => title.toLowerCase()],
      longest: ['down', longest],
      shortest: ['up', longest],
      urgent: ['up', (line) => `${URGENT.indexOf(line.priority)} ${due(line)}`],
      // Those that are not finished after those that are.
      finished: ['down', ({ doneAt }) => doneAt ?? ''],
    };
    // Some of these are finished, and some of every priority.
    const SPAN = { from: '2026-11-14', to: '2026-11-29' };
    const fitting = idsOf(all.filter(({ dueOn }) => dueOn >= SPAN.from && dueOn <= SPAN.to));
    for (const order of TASK_ORDERS) {
      const asked: Query = { order, ...SPAN };
      const lines = await linesOf(asked);
      expect(idsOf(lines)).toEqual(fitting);
      const [way, key] = keyOf[order];
      const keys = lines.map(key);
      expect(new Set(keys).size).toBeGreaterThan(3);
      for (const [i, one] of keys.entries()) {
        const before = keys[i - 1];
        if (before === undefined) continue;
        if (order === 'title') expect(String(before).localeCompare(String(one), 'en')).toBeLessThanOrEqual(0);
        else expect(way === 'up' ? before <= one : before >= one).toBe(true);
      }
    }
    await ines.get('/api/task-list').query({ order: 'urgent', after: '[4,"2026-11-24","~","x"]' }).expect(422);
    await ines.get('/api/task-list').query({ order: 'urgent', after: '[0.5]' }).expect(422);
    await ines.get('/api/task-list').query({ order: 'finished', after: '[0,"soon","x"]' }).expect(422);
  });

  it('tells what columns ask for besides as the tasks themselves do, and nothing where none do', async () => {
    const query = { from: '2026-11-20', to: '2026-11-27', beside: BESIDE_COLUMNS.join() };
    const lines = (await linesOf(query)) as ListedTask[];
    for (const line of lines.filter((_, i) => i % 8 === 0)) {
      const task: Task = (await ines.get(`/api/tasks/${line.id}`).expect(200)).body;
      expect(line).toMatchObject({
        ...{ workType: task.workType, template: task.template?.name ?? null, phrase: task.schedule?.phrase ?? null },
        made: task.schedule === null ? 'by hand' : 'by its schedule',
      });
      // Of a task of its own beside the others of its set it is the string of the set.
      if (task.schedule !== null) expect(line.lastEight).toEqual(task.series.lastEight);
    }
    // Of one long past, those before it, and not the last ones of today.
    const [old] = await server.source.query(
      `select t.id, t.due_on as on from task t where t.step_key = '' and t.schedule_id is not null and t.nominal_date < '2026-09-01'
         and (select count(*) from task b where b.schedule_id = t.schedule_id and b.nominal_date < t.nominal_date) > 9 limit 1`,
    );
    const then = (await linesOf({ from: old.on, to: old.on, beside: 'lastEight' })) as ListedTask[];
    const eight = then.find(({ id }) => id === old.id)?.lastEight ?? [];
    expect([eight.length, eight.at(-1)?.taskId]).toEqual([8, old.id]);
    const [standing] = await server.source.query(
      `select t.id, t.appears_on as "appearsOn", s.name as site from task t join asset a on a.id = t.asset_id
       join asset s on s.id = a.site_id where t.due_on between '2026-11-20' and '2026-11-27' limit 1`,
    );
    expect(lines.find(({ id }) => id === standing.id)).toMatchObject({
      ...{ site: standing.site, appears: standing.appearsOn },
    });
    expect(lines.some(({ phrase }) => phrase !== null) && lines.some(({ made }) => made === 'by hand')).toBe(true);
    expect(all[0]).not.toHaveProperty('phrase');
    await ines.get('/api/task-list').query({ beside: 'note' }).expect(422);
  });

  const [client, asset, person] = [
    () => all.find((one) => one.client !== null && isUnfinished(one))?.client?.id ?? '',
    () => all.find((one) => one.asset !== null && isUnfinished(one))?.asset?.id ?? '',
    () => all.find((one) => one.assignee?.name === 'Nadia Orme')?.assignee?.id ?? '',
  ];
  it.each<[string, () => Query, (line: TaskLine) => boolean]>([
    ['late', () => ({ are: 'late' }), isOverdue],
    ['under way', () => ({ are: 'underWay' }), ({ state }) => state === 'underWay'],
    ['skipped or lapsed', () => ({ are: 'over' }), ({ state }) => state === 'skipped' || state === 'lapsed'],
    [
      'due in a week',
      () => ({ from: '2026-11-23', to: '2026-11-29' }),
      ({ dueOn }) => dueOn >= '2026-11-23' && dueOn <= '2026-11-29',
    ],
    ['of a category', () => ({ category: CATEGORY }), ({ category }) => category === CATEGORY],
    ['of a priority', () => ({ priority: 'high' }), ({ priority }) => priority === 'high'],
    ['nobody’s', () => ({ person: 'none' }), ({ assignee }) => assignee === null],
    ['one person’s', () => ({ person: person() }), ({ assignee }) => assignee?.name === 'Nadia Orme'],
    ['a client’s', () => ({ client: client() }), (line) => line.client?.id === client()],
    ['without a client', () => ({ client: 'none' }), (line) => line.client === null],
    ['an asset’s', () => ({ asset: asset() }), (line) => line.asset?.id === asset()],
    ['with some words', () => ({ find: 'LIFE ring' }), ({ title }) => /life/i.test(title) && /ring/i.test(title)],
  ])('tells those alone that are %s, and what they come to', async (_, query, fits) => {
    const lines = await linesOf(query());
    const fitting = all.filter(fits);
    expect(idsOf(lines)).toEqual(idsOf(fitting));
    expect(fitting.length).toBeGreaterThan(0);
    const { names: __, ...sums } = await asked('/sums', query());
    expect(sums).toEqual({
      ...{ count: fitting.length, minutes: minutesOf(fitting) },
      late: fitting.filter(isOverdue).length,
    });
  });

  it('tells those of a type of work by what they say themselves', async () => {
    const [{ work_type: workType, ids }] = await server.source.query(
      `select c.work_type, array_agg(t.id order by t.id) as ids from task t join work_content c on c.id = t.content_id
       where c.work_type is not null group by 1 order by count(*) desc limit 1`,
    );
    expect(idsOf(await linesOf({ workType }))).toEqual(ids);
  });

  it('takes no sign for others than itself', async () => {
    expect(await linesOf({ find: '%' })).toEqual([]);
  });

  it('tells late by the minute, and by the clock of the zone a time is meant in', async () => {
    const at = async (moment: string) => {
      server.clock.set(moment);
      return [idsOf(await linesOf({ are: 'late' })), idsOf((await linesOf({ are: 'unfinished' })).filter(isOverdue))];
    };
    const [task] = await server.source
      .query(
        `update task set due_on = '2026-11-24', due_time = '11:00', zone = 'Australia/Sydney' where id = $1 returning id`,
        [all.find(({ state, dueOn }) => state === 'open' && dueOn > '2026-11-26')?.id],
      )
      .then(([rows]: [{ id: string }[]]) => rows);
    // 11:00 in Sydney is midnight in Tern Quay.
    for (const [moment, isLate] of [
      ['2026-11-23T23:59', false],
      ['2026-11-24T00:00', false],
      ['2026-11-24T00:01', true],
      ['2026-11-24T16:30', true],
      ['2026-11-24T23:59', true],
      ['2026-11-25T00:00', true],
    ] as const) {
      const [listed, told] = await at(moment);
      expect(listed).toEqual(told);
      expect(listed?.includes(task?.id ?? '')).toBe(isLate);
    }
    server.clock.set('2026-11-24T10:40');
  });

  it('puts together what is alike, each once, with the first of each', async () => {
    const now = await linesOf({ are: 'unfinished' });
    for (const by of TASK_GROUPINGS) {
      const groups: TaskGroup[] = [];
      let count = 0;
      do {
        const page: { groups: TaskGroup[]; count: number } = await asked('/groups', {
          are: 'unfinished',
          by,
          start: groups.length,
        });
        expect(page.groups.length).toBeLessThanOrEqual(GROUPS_A_PAGE);
        groups.push(...page.groups);
        count = page.count;
      } while (groups.length < count);
      expect(groups).toHaveLength(count);
      expect(new Set(groups.map(({ key }) => key)).size).toBe(count);
      expect(groups.reduce((sum, group) => sum + group.count, 0)).toBe(now.length);
      expect(groups.reduce((sum, group) => sum + group.minutes, 0)).toBe(minutesOf(now));
      for (const { key, count: of, late, lines } of [groups[0], groups.at(-1)].flatMap((group) => group ?? [])) {
        const within = await linesOf({ are: 'unfinished', by, key });
        expect(within).toHaveLength(of);
        expect(within.filter(isOverdue)).toHaveLength(late);
        expect(lines.map(({ id }) => id)).toEqual(within.slice(0, TASKS_OF_A_GROUP).map(({ id }) => id));
      }
    }
  });

  it('tells the first of them by ids and versions, to do something with all of them', async () => {
    const fitting = await linesOf({ are: 'unfinished', category: CATEGORY });
    const chosen = await asked('/chosen', { are: 'unfinished', category: CATEGORY });
    expect(chosen).toEqual({
      tasks: fitting.map(({ id, version, estimateMinutes: minutes }) => ({ id, version, minutes })),
    });
  });

  it.each([
    [{ from: '2026-12-01', to: '2026-11-01' }, 'to'],
    [{ person: 'nobody' }, 'person'],
    [{ by: 'client' }, 'key'],
    [{ by: 'client', key: 'x' }, 'key'],
    [{ by: 'day', key: '2026-02-30' }, 'key'],
    [{ after: 'x' }, 'after'],
    [{ order: 'title', after: '["\\u0000","01937eb0-beac-7000-8000-0000000000e1"]' }, 'after'],
    [{ after: '["2026-11-24"]' }, 'after'],
    [{ after: '["2026-11-31","~","01937eb0-beac-7000-8000-0000000000e1"]' }, 'after'],
    [{ order: 'longest', after: '[1e12,"01937eb0-beac-7000-8000-0000000000e1"]' }, 'after'],
  ])('refuses %j with where it is wrong', async (query, path) => {
    const { body } = await ines.get('/api/task-list').query(query).expect(422);
    expect(body.errors[0].path).toBe(path);
  });

  it('is of one workspace alone, and tells no names of another', async () => {
    const ada = await server.browser('Ada Winn');
    const named = all.find(({ client: of }) => of !== null)?.client?.id;
    const { body } = await ada.get('/api/task-list/sums').query({ client: named }).expect(200);
    expect(body).toMatchObject({ count: 0, names: { client: null } });
    await ines.get('/api/task-list/sums').query({ site: '01937eb0-beac-7000-8000-0000000000e1' }).expect(404);
  });
});

describe('views of all tasks', () => {
  const view = (name: string, of: object = {}) => ({
    ...{ name, filter: { are: 'late' }, by: 'person', order: 'due', columns: null, isShared: false },
    ...of,
  });
  beforeAll(() => server.source.query('delete from task_view'));
  const viewsOf = async (by: Agent): Promise<TaskView[]> =>
    (await by.get('/api/task-list/views').expect(200)).body.views;

  it('are kept, with how many tasks each shows; shared ones are seen by all and changed by whoever keeps them', async () => {
    const nadia = await server.browser('Nadia Orme');
    const { body: late } = await ines.post('/api/task-list/views').send(view('Late')).expect(200);
    const own = view('Free next week', {
      ...{ isShared: true, by: null, filter: { person: 'none', due: 'nextWeek' } },
      ...{ order: 'urgent', columns: ['task', 'phrase', 'due'] },
    });
    const { body: free } = await ines.post('/api/task-list/views').send(own).expect(200);
    const overdue = (await linesOf({ are: 'late' })).length;
    const freeNext = (await linesOf({ person: 'none', due: 'nextWeek' })).length;
    expect(freeNext).toBe((await linesOf({ person: 'none', from: '2026-11-30', to: '2026-12-06' })).length);
    expect(await viewsOf(ines)).toEqual([
      { ...own, id: free.id, version: 1, count: freeNext, late: 0, sharedBy: null },
      { ...view('Late'), id: late.id, version: 1, count: overdue, late: overdue, sharedBy: null },
    ]);
    const [seen, ...others] = await viewsOf(nadia);
    expect(seen).toMatchObject({ id: free.id, sharedBy: 'Ines Calloway' });
    expect(others).toEqual([]);
    const address = `/api/task-list/views/${free.id}`;
    await nadia
      .put(address)
      .send({ ...own, version: 1 })
      .expect(403);
    await nadia.delete(address).expect(403);
    const { body: twice } = await ines
      .put(address)
      .send({ ...own, name: 'late', version: 1 })
      .expect(422);
    expect(twice.errors).toEqual([{ path: 'name', message: 'You have a view of that name already.' }]);
    await ines
      .put(address)
      .send({ ...own, isShared: false, version: 1 })
      .expect(200);
    await ines
      .put(address)
      .send({ ...own, version: 1 })
      .expect(409);
    expect(await viewsOf(nadia)).toEqual([]);
    await ines.delete(address).expect(200);
    await ines.delete(address).expect(404);
    expect((await viewsOf(ines)).map(({ name }) => name)).toEqual(['Late']);
  });

  it('of a site that is there no more shows nothing, and is refused where it is not a question', async () => {
    const site = '01937eb0-beac-7000-8000-0000000000e1';
    await ines
      .post('/api/task-list/views')
      .send(view('Gone', { filter: { site } }))
      .expect(200);
    expect((await viewsOf(ines)).find(({ name }) => name === 'Gone')?.count).toBe(0);
    for (const [wrong, path] of [
      [{ name: ' ' }, 'name'],
      [{ filter: { are: 'lost' } }, 'filter.are'],
      [{ order: 'worst' }, 'order'],
      [{ columns: ['due'] }, 'columns'],
      [{ columns: ['task', 'task'] }, 'columns'],
    ] as const) {
      const { body } = await ines.post('/api/task-list/views').send(view('Wrong', wrong)).expect(422);
      expect(body.errors[0].path).toBe(path);
    }
  });
});
