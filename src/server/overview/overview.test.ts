import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { LogFigures, OnTimeTrend, Overview, TaskLine } from '../../contract/index.ts';
import { addedUp } from '../../core/index.ts';
import { plainInput } from '../testing/schedules.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { newTemplate } from '../testing/work.ts';

let server: TestServer;
let ines: Agent;
let morning: Overview;
let trend: OnTimeTrend;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  morning = (await ines.get('/api/overview').expect(200)).body;
  trend = (await ines.get('/api/on-time').expect(200)).body;
});
afterAll(() => server.stop());

const sums = async (query: object) => (await ines.get('/api/task-list/sums').query(query).expect(200)).body;

describe('the morning page', () => {
  it.each([
    ['late', { are: 'late' }],
    ['underWay', { are: 'underWay', late: 'no' }],
    ['toCheck', { are: 'toCheck' }],
    ['heldUp', { are: 'heldUp' }],
    ['nobody', { are: 'open', person: 'none', offered: 'no', late: 'no', due: 'month' }],
  ] as const)('tells of %s what the list behind its figure holds', async (band, query) => {
    const { count, minutes } = await sums(query);
    expect(count).toBeGreaterThan(0);
    expect(morning[band]).toMatchObject({ count, minutes });
    expect(morning[band].lines.length).toBe(Math.min(count, 8));
  });

  it('shows nothing in two bands', () => {
    const { late, underWay, toCheck, nobody, heldUp } = morning;
    const ids = [late, underWay, toCheck, nobody].flatMap(({ lines }) => lines.map(({ id }: TaskLine) => id));
    expect(new Set(ids).size).toBe(ids.length);
    expect(late.lines.some(({ id }) => heldUp.lines.some((held) => held.id === id))).toBe(false);
  });

  it('counts today by how far it is', async () => {
    const { due, done, toCheck, underWay, toStart, dueMinutes } = morning.today;
    expect(done + toCheck + underWay + toStart).toBe(due);
    expect(await sums({ due: 'today', are: 'done' })).toMatchObject({ count: done });
    const all = await sums({ due: 'today' });
    const over = await sums({ due: 'today', are: 'over' });
    expect(dueMinutes).toBe(all.minutes - over.minutes);
  });

  it('tells the weeks ahead as the workload does', async () => {
    const { body: workload } = await ines.get('/api/workload').query({ by: 'week' }).expect(200);
    for (const { monday, made, foreseen, capacity, over } of morning.weeks) {
      const at = workload.starts.indexOf(monday);
      if (at === -1) continue;
      const cells = workload.rows.map(({ cells: of }: { cells: Record<string, number>[] }) => of[at] ?? {});
      const sum = (figure: string) =>
        cells.reduce((all: number, cell: Record<string, number>) => all + (cell[figure] ?? 0), 0);
      expect([made, foreseen, capacity]).toEqual([sum('open'), sum('foreseen'), sum('capacity')]);
      for (const { minutes, capacity: can } of over) expect(minutes).toBeGreaterThan(can);
    }
    expect(morning.weeks.some(({ over }) => over.length > 0)).toBe(true);
  });

  it('tells of the last run', async () => {
    const [of] = await server.source.query<{ made: number; schedules: number; withNobody: number }[]>(
      `select count(*)::int as made, count(distinct schedule_id)::int as schedules,
         (count(*) filter (where assignee_id is null and offered_to is null))::int as "withNobody" from task where run_id = $1`,
      [morning.lastRun?.id],
    );
    expect(of?.schedules).toBeGreaterThan(0);
    expect(morning.lastRun).toMatchObject({ why: 'startup', state: 'done', waitCount: 0, ...of });
  });

  it('names a schedule that has come to its end', async () => {
    const templateId = await newTemplate(ines, { name: 'Last of the year' });
    const { recurrence, ...rest } = plainInput(templateId);
    const once = { kind: 'dates', dates: ['2026-11-20'] };
    const input = { ...rest, recurrence: { ...recurrence, start: '2026-11-20', rules: [once], dayOff: 'none' } };
    const { schedule } = (await ines.post('/api/schedules').send(input).expect(200)).body;
    const { body } = await ines.get('/api/overview').expect(200);
    expect(body.schedules.lines).toContainEqual(
      expect.objectContaining({ id: schedule.id, because: 'ended', on: '2026-11-20' }),
    );
  });

  it('is empty where nothing is there yet', async () => {
    const ada = await server.browser('Ada Winn');
    const { body } = await ada.get('/api/overview').expect(200);
    expect(body).toMatchObject({
      late: { count: 0, lines: [] },
      nobody: { count: 0, foreseenCount: 0 },
      today: { due: 0 },
    });
    expect((await ada.get('/api/on-time').expect(200)).body.now).toEqual({ due: 0, onTime: 0 });
  });
});

describe('what was on time', () => {
  it('is told of the twelve whole weeks before this one, one by one and together', async () => {
    expect([trend.weeks.length, trend.weeks[0]?.monday, trend.weeks.at(-1)?.monday]).toEqual([
      12,
      '2026-08-31',
      '2026-11-16',
    ]);
    expect(addedUp(trend.weeks)).toEqual(trend.now);
    expect(trend.now.onTime).toBeLessThan(trend.now.due);
  });

  it('comes to the same as the logbook of those weeks, and of those before', async () => {
    const { body } = await ines.get('/api/logbook/rates').query({ from: '2026-08-31', to: '2026-11-22' }).expect(200);
    const of = ({ onTime, late, lapsed, open }: LogFigures) => ({ due: onTime + late + lapsed + open, onTime });
    expect(trend.weeks).toEqual(
      body.weeks.map((week: LogFigures & { monday: string }) => ({ monday: week.monday, ...of(week) })),
    );
    expect([trend.now, trend.before]).toEqual([of(body.all), of(body.before)]);
  });

  it('counts as the look of each task does: what was done late, has lapsed or waits is not on time, what was skipped is none', async () => {
    const lines: TaskLine[] = [];
    for (let after: string | undefined; ; ) {
      const { body } = await ines
        .get('/api/task-list')
        .query({ from: '2026-11-16', to: '2026-11-22', order: 'due', ...(after ? { after } : {}) })
        .expect(200);
      lines.push(...body.lines);
      if (body.more === null) break;
      after = body.more;
    }
    const due = lines.filter(({ state, heldUp }) => state !== 'skipped' && !heldUp);
    const onTime = due.filter(({ state, late }) => (state === 'done' || state === 'toCheck') && !late);
    expect(trend.weeks.at(-1)).toMatchObject({ due: due.length, onTime: onTime.length });
  });
});
