import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { CallDay, Overview, Tideline } from '../../contract/index.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';

const TODAY = '2026-11-24';
const MINUTES_EACH = 11;
let server: TestServer;
let ines: Agent;
let ayesha: string;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  ayesha = (await server.person('Ayesha Quill')).id;
});
afterAll(() => server.stop());

const get = async (path: string, query: object = {}) => (await ines.get(path).query(query).expect(200)).body;

describe('calls', () => {
  it('stand in the tideline, the workload and the morning page by how long they take', async () => {
    const day: CallDay = await get('/api/calls', { person: ayesha, on: TODAY });
    const [rung, open] = ['rung', 'open'].map((state) => day.calls.filter((call) => call.state === state).length);
    const tide: Tideline = await get('/api/tideline', { person: ayesha });
    const cell = await get('/api/workload/cell', { person: ayesha, from: TODAY, by: 'day' });
    expect(cell.calls).toEqual({ count: day.calls.length, minutes: day.calls.length * MINUTES_EACH });
    const tasks: readonly { state: string; estimateMinutes: number }[] = await server.source.query(
      `select state, estimate_minutes as "estimateMinutes" from task where assignee_id = $1 and due_on = $2`,
      [ayesha, TODAY],
    );
    const of = (...states: string[]) =>
      tasks.filter(({ state }) => states.includes(state)).reduce((sum, task) => sum + task.estimateMinutes, 0);
    const today = tide.days.find(({ date }) => date === TODAY);
    expect(today?.done).toBe(of('done', 'toCheck') + (rung ?? 0) * MINUTES_EACH);
    expect(today?.open).toBe(of('open', 'underWay') + (open ?? 0) * MINUTES_EACH);
    // The week before says what was rung; the weeks ahead what the quota asks for, day by day.
    const wanted = new Map(day.week.map((one) => [one.on, one.wanted]));
    const tomorrow = tide.days.find(({ date }) => date === '2026-11-25');
    expect(tomorrow?.projected).toBeGreaterThanOrEqual((wanted.get('2026-11-25') ?? 0) * MINUTES_EACH);
    expect(wanted.get('2026-11-25')).toBeGreaterThan(0);

    const load = await get('/api/workload', { by: 'day', from: '2026-11-23' });
    const row = load.rows.find((one: { person: { id: string } | null }) => one.person?.id === ayesha);
    expect(row.cells[1]).toMatchObject({ done: today?.done, open: today?.open });
    expect(row.cells[2].foreseen).toBe(tomorrow?.projected);

    const morning: Overview = await get('/api/overview');
    const rhona: CallDay = await get('/api/calls', { person: (await server.person('Rhona Vick')).id, on: TODAY });
    const all = [...day.calls, ...rhona.calls];
    expect(morning.today.calls).toEqual({
      all: all.length,
      made: all.filter(({ state }) => state === 'rung').length,
      minutes: all.length * MINUTES_EACH,
      finishedMinutes: all.filter(({ state }) => state === 'rung').length * MINUTES_EACH,
    });
  });
});
