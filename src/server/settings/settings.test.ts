import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { type Impact, impactSchema, type Settings } from '../../contract/index.ts';
import { NO_VISITS } from '../../core/index.ts';
import { scheduleNamed } from '../testing/schedules.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Agent;
let settings: Settings;
beforeEach(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  settings = (await ines.get('/api/settings').expect(200)).body;
});
afterEach(() => server.stop());

const REGATTA = { date: '2026-12-09', name: 'Regatta' };
const withRegatta = () => ({ ...settings, holidays: [...settings.holidays, REGATTA] });
const save = async (input: object) => (await ines.put('/api/settings').send(input).expect(200)).body;
const impact = async (input: object): Promise<Impact> =>
  impactSchema.parse((await ines.post('/api/settings/impact').send(input).expect(200)).body);
/** Every task as it stands, by its id. */
const allTasks = async () => {
  const rows = await server.source.query<{ id: string; look: string }[]>(
    `select id, concat_ws(' ', title, work_on, appears_on, starts_on, due_on, assignee_id, state) as look from task`,
  );
  return new Map(rows.map(({ id, look }) => [id, look]));
};

const WAYS = { weekStarts: 7, dateOrder: 'month first', clock: 12 } as const;
const WINTER = [{ from: '11-15', to: '03-14' }];
const SIX = [450, 450, 450, 450, 450, 300, 0];

describe('the settings', () => {
  it('are saved with what differs, told to everybody, and put back by one undo', async () => {
    const { settings: saved, changeId } = await save({ ...settings, name: 'Tern Quay Marina', yearStarts: 4 });
    expect(saved).toMatchObject({ name: 'Tern Quay Marina', yearStarts: 4, version: settings.version + 1 });
    expect((await ines.get('/api/workspace')).body).toMatchObject({ name: 'Tern Quay Marina', yearStarts: 4 });
    const { body } = await ines.post(`/api/changes/${changeId}/undo`).expect(200);
    expect(body.said).toBe('The settings are as they were before.');
    expect((await ines.get('/api/settings')).body).toEqual({ ...settings, version: settings.version + 2 });
    expect(await save({ ...settings, version: settings.version + 2 })).toMatchObject({ changeId: null });
  });

  it('say how dates and times are seen; whoever has chosen for their own eyes keeps that', async () => {
    const nadia = await server.browser('Nadia Orme');
    const own = { weekStarts: null, dateOrder: null, clock: 24, startsAt: null };
    expect((await nadia.put('/api/account/ways').send(own).expect(200)).body).toEqual(own);
    await save({ ...settings, ways: WAYS });
    expect((await nadia.get('/api/workspace')).body).toMatchObject({ ways: WAYS, myWays: own });
    expect((await ines.get('/api/workspace')).body.myWays).toEqual({ ...own, clock: null });
    await nadia
      .put('/api/account/ways')
      .send({ ...own, clock: 13 })
      .expect(422);
    // Where somebody begins is their own too: a place, or a view of tasks.
    for (const startsAt of ['logbook', { view: '01937000-0000-7000-8000-0000000000f1' }]) {
      await nadia
        .put('/api/account/ways')
        .send({ ...own, startsAt })
        .expect(200);
      expect((await nadia.get('/api/workspace')).body.myWays).toEqual({ ...own, startsAt });
    }
    await nadia
      .put('/api/account/ways')
      .send({ ...own, startsAt: 'nowhere' })
      .expect(422);
    expect((await ines.get('/api/workspace')).body.myWays).toMatchObject({ startsAt: null });
  });

  it('keep finished work on the day sheet for as many days as they say', async () => {
    const { body: session } = await ines.get('/api/session');
    const sheet = async () => (await ines.get(`/api/people/${session.person.id}/day-sheet`).expect(200)).body;
    const doneOn = (body: { doneBefore: { tasks: { doneAt: string }[] } }) =>
      body.doneBefore.tasks.map(({ doneAt }) => doneAt.slice(0, 10));
    expect(doneOn(await sheet())).toEqual([]);
    await save({ ...settings, doneStaysDays: 14 });
    const seen = doneOn(await sheet());
    expect(seen.length).toBeGreaterThan(2);
    expect(seen).toEqual([...seen].sort().reverse());
    // Its own day is the first of the fourteen.
    expect(seen.every((day) => day >= '2026-11-11' && day < '2026-11-24')).toBe(true);
    const [{ count } = { count: 0 }] = await server.source.query<{ count: number }[]>(
      `select count(*)::int as count from task where assignee_id = $1 and state = 'done'
       and done_at >= '2026-11-11' and done_at < '2026-11-24'`,
      [session.person.id],
    );
    expect(seen.length).toBe(count);
  });

  it('say how visits are announced, as everybody sees; a type that is announced stays one', async () => {
    const visits = notices({ ways: ['post'] });
    const { changeId } = await save({ ...settings, visits });
    const nadia = await server.browser('Nadia Orme');
    expect((await nadia.get('/api/workspace').expect(200)).body.visits).toEqual(visits);
    const { categories } = (await ines.get('/api/workspace').expect(200)).body;
    const { body } = await ines
      .put('/api/workspace/lists')
      .send({ categories, workTypes: ['arrival', 'departure', 'breakdown'] })
      .expect(422);
    expect(body.detail).toMatch(/routine/);
    await ines.post(`/api/changes/${changeId}/undo`).expect(200);
    expect((await ines.get('/api/settings').expect(200)).body.visits).toEqual(settings.visits);
  });

  it('are a manager’s alone', async () => {
    const nadia = await server.browser('Nadia Orme');
    await nadia.get('/api/settings').expect(403);
    await nadia.put('/api/settings').send(settings).expect(403);
  });

  it.each<[string, Partial<Settings>, string, string]>([
    ['hours of a day off', { weekMinutes: SIX }, 'weekMinutes', 'Saturdays are off'],
    ['a worked day without hours', { workingWeekdays: [1, 2, 3, 4, 5, 7] }, 'weekMinutes', 'worked on Sundays'],
    ['a week without a day', { workingWeekdays: [] }, 'workingWeekdays', 'at least one day'],
    ['a clock that there is not', { zone: 'Mars/Phobos' }, 'zone', 'There is no such clock'],
    [
      'a day off that is one already',
      { holidays: [REGATTA, { ...REGATTA, name: 'Again' }] },
      'holidays.1.date',
      'a day off already',
    ],
    ['a name of nothing', { name: '  ' }, 'name', 'The name is missing'],
    [
      'a season that is called like a month',
      { seasons: [{ name: 'march', spans: WINTER }] },
      'seasons.0.name',
      'means something else already',
    ],
    ['a season of no days', { seasons: [{ name: 'winter', spans: [] }] }, 'seasons.0.spans', 'Say from when to when'],
    [
      'a season of all year',
      { seasons: [{ name: 'always', spans: [{ from: '03-01', to: '02-29' }] }] },
      'seasons.0.spans',
      'leave some of it open',
    ],
    [
      'two seasons of a name',
      { seasons: ['Winter', 'winter'].map((name) => ({ name, spans: WINTER })) },
      'seasons.1.name',
      'stands there twice',
    ],
    ['no horizon', { horizonDays: 0 }, 'horizonDays', 'At least one day ahead'],
    ['a week from Wednesday on', { ways: { ...WAYS, weekStarts: 3 as 1 } }, 'ways.weekStarts', 'A week begins on'],
    ['a clock of ten hours', { ways: { ...WAYS, clock: 10 as 12 } }, 'ways.clock', '24 hours or 12'],
    ['finished work in sight for ever', { doneStaysDays: 15 }, 'doneStaysDays', 'Fourteen days'],
    ['a notice by no way', { visits: notices({ ways: [] }) }, 'visits.terms.0.ways', 'by which way'],
    ['a notice by a way that is none', { visits: notices({ ways: ['pigeon'] }) }, 'visits.terms.0.ways', '“pigeon”'],
    ['a notice of what is no type', { visits: notices({ type: 'tea' }) }, 'visits.terms.0.type', 'no type of work'],
    ['a way that stands twice', { visits: notices({}, ['post', 'Post']) }, 'visits.ways.1.name', 'there twice'],
  ])('%s is refused with its place', async (_, change, path, message) => {
    const { body } = await ines
      .put('/api/settings')
      .send({ ...settings, ...change })
      .expect(422);
    expect(body.errors).toContainEqual({ path, message: expect.stringContaining(message) });
  });

  it('of somebody who has not seen the last change are refused, and nothing is lost', async () => {
    await save({ ...settings, name: 'Other' });
    const { body } = await ines.put('/api/settings').send(withRegatta()).expect(409);
    expect(body.detail).toContain('Someone else changed the settings');
  });
});

/** Notices for one type of work. */
function notices(of: Partial<Settings['visits']['terms'][number]>, ways = ['post']): Settings['visits'] {
  const period = { days: 7, unit: 'day', countsReceipt: false, countsVisit: false } as const;
  return {
    ...NO_VISITS,
    ways: ways.map((name) => ({ name, kind: 'post', onItsWay: { days: 2, unit: 'workingDay' } })),
    terms: [{ type: 'routine', period, ways: ['post'], ...of }],
  };
}

describe('a day off that is added', () => {
  it('is looked at first, does what was told, and is taken back with all that it did', async () => {
    const before = await allTasks();
    const told = await impact(withRegatta());
    expect(await allTasks()).toEqual(before);
    expect(told.figures.changed).toBeGreaterThan(0);
    expect(told.items.find(({ title }) => title.startsWith('Fire points'))).toMatchObject({ on: REGATTA.date });
    const { changeId } = await save(withRegatta());
    const after = await allTasks();
    const differing = (now: Map<string, string>, then: Map<string, string>) =>
      [...now].filter(([id, look]) => then.has(id) && then.get(id) !== look).length;
    expect(differing(after, before)).toBe(told.figures.changed);
    expect([...after.keys()].filter((id) => !before.has(id))).toHaveLength(told.figures.added);
    expect([...before.keys()].filter((id) => !after.has(id))).toHaveLength(told.figures.removed);
    const { id } = await scheduleNamed(ines, 'Fire points', 'Long Quay');
    const days = await server.source.query<{ work_on: string }[]>(
      `select work_on from task where schedule_id = $1 and work_on > '2026-12-01' order by work_on`,
      [id],
    );
    expect(days.map(({ work_on }) => work_on)).toEqual(['2026-12-10', '2026-12-23']);
    await ines.post(`/api/changes/${changeId}/undo`).expect(200);
    expect(await allTasks()).toEqual(before);
    expect((await ines.get('/api/settings')).body.holidays).toEqual(settings.holidays);
  });

  it('leaves what somebody has worked on, says so, and its undo too', async () => {
    const { id } = await scheduleNamed(ines, 'Fire points', 'Long Quay');
    const [task] = await server.source.query<{ id: string }[]>(
      `select id from task where schedule_id = $1 and work_on = '2026-12-09'`,
      [id],
    );
    await ines.post(`/api/tasks/${task?.id}/start`).expect(200);
    const told = await impact(withRegatta());
    expect(told.items.find(({ taskId }) => taskId === task?.id)).toMatchObject({ kind: 'kept', because: 'under way' });
    await save(withRegatta());
    expect((await allTasks()).get(task?.id ?? '')).toContain('2026-12-09');
  });

  it('can’t be taken back once it was named otherwise', async () => {
    const { settings: saved, changeId } = await save(withRegatta());
    const renamed = saved.holidays.map((day: { date: string; name: string }) =>
      day.date === REGATTA.date ? { ...day, name: 'Long regatta' } : day,
    );
    await save({ ...saved, holidays: renamed });
    const { body } = await ines.post(`/api/changes/${changeId}/undo`).expect(409);
    expect(body.detail).toContain('changed again since');
  });

  it('on a weekend changes nothing but the list', async () => {
    const sunday = { date: '2026-12-13', name: 'Blessing of the boats' };
    const told = await impact({ ...settings, holidays: [...settings.holidays, sunday] });
    expect(told.figures).toMatchObject({ added: 0, changed: 0, removed: 0 });
  });
});

describe('a working week', () => {
  it('with Saturdays moves what fell before them, in the coming year as well', async () => {
    const told = await impact({ ...settings, workingWeekdays: [1, 2, 3, 4, 5, 6], weekMinutes: SIX });
    expect(told.figures.changed + told.figures.added + told.figures.removed).toBeGreaterThan(0);
    expect(told.years.length).toBeGreaterThan(0);
    const before = await allTasks();
    const { changeId } = await save({ ...settings, workingWeekdays: [6, 5, 4, 3, 2, 1], weekMinutes: SIX });
    expect((await ines.get('/api/settings')).body.workingWeekdays).toEqual([1, 2, 3, 4, 5, 6]);
    await ines.post(`/api/changes/${changeId}/undo`).expect(200);
    expect(await allTasks()).toEqual(before);
  });
});

describe('public holidays', () => {
  it('are those of a country or a region of it, from this year on', async () => {
    const { body } = await ines
      .get('/api/settings/public-holidays')
      .query({ country: 'GB', region: 'SCT' })
      .expect(200);
    expect(body.holidays).toContainEqual({ date: '2026-11-30', name: expect.stringContaining('Andrew') });
    const { body: known } = await ines.get('/api/settings/countries').expect(200);
    expect(known.countries.length).toBeGreaterThan(100);
    expect(known.countries.find(({ code }: { code: string }) => code === 'GB').regions).toContainEqual({
      code: 'SCT',
      name: 'Scotland',
    });
  });

  it('of nowhere are refused in words', async () => {
    const of = (query: object) => ines.get('/api/settings/public-holidays').query(query);
    expect((await of({ country: 'ZZ' }).expect(422)).body.errors[0].message).toContain('not known');
    expect((await of({ country: 'GB', region: 'QQ' }).expect(422)).body.errors[0].message).toContain('no such region');
    await of({ country: 'gb' }).expect(422);
  });
});
