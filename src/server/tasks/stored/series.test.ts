import { afterAll, beforeAll, expect, it } from 'vitest';
import type { TaskState } from '../../../core/index.ts';
import type { Scope } from '../../platform/scope.ts';
import { type TestServer, testServer } from '../../testing/test-server.ts';
import { pastTasksOf, seriesUpTo } from './series.ts';

let server: TestServer;
let scope: Scope;
beforeAll(async () => {
  server = await testServer();
  scope = await server.scope();
  // Each of three has one of every date of a schedule: one as it is, one lapsed, one still to be done.
  for (const state of ['lapsed', 'open'])
    await server.source.query(
      `insert into task select (jsonb_populate_record(t, jsonb_build_object('id', gen_random_uuid(), 'head', gen_random_uuid(), 'state', $1::text,
         'done_at', null, 'done_by', null, 'started_at', null, 'on_time', null))).*
       from task t where schedule_id = (select schedule_id from task where step_key = '' and schedule_id is not null and state = 'open'
         group by 1 order by count(*) desc, 1 limit 1) and head = '' and step_key = ''`,
      [state],
    );
});
afterAll(() => server.stop());

interface Row {
  readonly id: string;
  readonly scheduleId: string;
  readonly nominalDate: string;
  readonly state: TaskState;
  readonly head: string;
}

const SHOWN = 8;
const ENDED: readonly TaskState[] = ['done', 'skipped', 'lapsed'];

/** All that shows of each series, a task for each date: told the long way, from all there is. */
async function shown(): Promise<Map<string, Row[]>> {
  const rows = await scope.sql<Row>(
    `select id, schedule_id as "scheduleId", nominal_date as "nominalDate", state, head from task
     where workspace_id = $1 and schedule_id is not null and step_key = '' and (appears_on <= $2::date or state <> 'open')`,
    [scope.today],
  );
  const series = new Map<string, Map<string, Row>>();
  const comesFirst = (a: Row, b: Row) =>
    ENDED.includes(a.state) === ENDED.includes(b.state) ? a.head < b.head : !ENDED.includes(a.state);
  for (const row of rows) {
    const dates = series.get(row.scheduleId) ?? new Map<string, Row>();
    const there = dates.get(row.nominalDate);
    if (!there || comesFirst(row, there)) dates.set(row.nominalDate, row);
    series.set(row.scheduleId, dates);
  }
  return new Map(
    [...series].map(([id, dates]) => [
      id,
      [...dates.values()].sort((a, b) => (a.nominalDate < b.nominalDate ? -1 : 1)),
    ]),
  );
}

it('are the last eight dates of each series, one task of each, the unfinished one first', async () => {
  const series = await shown();
  const past = await pastTasksOf(scope, [...series.keys()]);
  expect(series.size).toBeGreaterThan(40);
  for (const [id, rows] of series) {
    const told = (past.get(id) ?? []).map(({ nominalDate }) => nominalDate);
    const last = rows.slice(-SHOWN).map(({ nominalDate }) => nominalDate);
    // Those that are still to be done stand there however long past they are.
    expect(told.filter((date) => last.includes(date))).toEqual(last);
  }
});

it('are as far as to the date of a task, in the middle of its series as at its end', async () => {
  const series = await shown();
  const asked = [...series.values()].flatMap((rows) => [rows[Math.floor(rows.length / 2)], rows.at(-1)]);
  const tasks = [...new Set(asked)].filter((row) => row !== undefined);
  const told = await seriesUpTo(scope, tasks);
  let whole = 0;
  for (const task of tasks) {
    const rows = (series.get(task.scheduleId) ?? []).filter(({ nominalDate }) => nominalDate <= task.nominalDate);
    const last = rows.slice(-SHOWN);
    if (last.length === SHOWN) whole++;
    expect((told.get(task.id) ?? []).map(({ taskId }) => taskId)).toEqual(last.map(({ id }) => id));
  }
  expect(whole).toBeGreaterThan(20);
});
