import { rmSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';
import { pino } from 'pino';
import type { DataSource } from 'typeorm';
import { startPostgres } from '../scripts/postgres.mjs';
import { templateInputSchema } from '../src/contract/index.ts';
import { givenTo, USUAL_ASKING, USUAL_ESCALATION, USUAL_OUTCOMES } from '../src/core/index.ts';
import { dataSource } from '../src/server/data-source.ts';
import { impactOfUndo } from '../src/server/history/index.ts';
import { Person } from '../src/server/platform/identity/person.ts';
import { Workspace } from '../src/server/platform/identity/workspace.ts';
import { Scope } from '../src/server/platform/scope.ts';
import { carryOutFill, Run, rehearseFill, runMaking } from '../src/server/runs/index.ts';
import { changeSchedules, impactOfSchedules, scheduleRows } from '../src/server/schedules/index.ts';
import { impactOfTemplate, oneTemplate } from '../src/server/templates/index.ts';
import { line } from './measure.ts';
import { EACH_TIME, workload } from './workload.ts';

const SCHEDULES = 5000;
const USING_ONE_TEMPLATE = 400;
const TASKS = 20_000;
const ROUNDS = 3;
/** Rows of a bare INSERT: as many as the parameters of a statement allow, less some. */
const A_STATEMENT = 500;
const NOW = Date.parse('2026-11-24T10:40:00Z');
const log = pino({ level: 'silent' });
const folder = join(process.cwd(), '.cache', 'bench-postgres');

/** What each task says: as in the demo, and as a real procedure. In characters. */
interface Texts {
  readonly name: string;
  readonly instructions: number;
  /** Of all check lines together. */
  readonly lines: number;
}
const SHORT: Texts = { name: 'short', instructions: 199, lines: 197 };
const LONG: Texts = { name: 'long', instructions: 4096, lines: 675 };

const LINES = 4;
/** Of a line's text, what stands around it. */
const JSON_OF_A_LINE = 30;

/** The columns that say it. */
const SAID = [
  'instructions',
  'brief',
  'links',
  'work_type',
  'sign_off',
  'finish_with_last',
  'numbered',
  'check_lines',
  'demands',
];

rmSync(folder, { recursive: true, force: true });
// As it runs in use, with its waits for the disk.
const postgres = await startPostgres({ folder });
const source = await dataSource(postgres.url).initialize();
const pool = new pg.Pool({ connectionString: postgres.url, max: 1 });
try {
  await source.runMigrations();
  const verdicts = [];
  for (const texts of [SHORT, LONG]) verdicts.push(await making(source, texts));
  await rehearsals(source);
  for (const verdict of verdicts) console.log(verdict);
} finally {
  await pool.end();
  await source.destroy();
  await postgres.stop();
  rmSync(folder, { recursive: true, force: true });
}

/** A workspace of its own with so many schedules of one template. */
async function workspaceOf(source: DataSource, schedules: number, texts = SHORT): Promise<Scope> {
  const ids = (
    await source.query(
      `select gen_random_uuid() as workspace, gen_random_uuid() as person, gen_random_uuid() as template`,
    )
  )[0];
  await source.query(
    `insert into workspace (id, name, tagline, zone, working_weekdays, categories, work_types, horizon_days, make_time, made_on, is_demo, version, year_starts, phrase_habits, roles, teams, tickets, client_fields, asset_fields, skip_reasons, week_minutes, seasons, ways, done_stays_days, swaps_need_nod, visits, asking, outcomes, escalation, hearing)
     values ($1, 'Bench ' || $2, '', 'Europe/London', '[1,2,3,4,5]', '[]', '[]', 30, '04:00', null, true, 1, 1, '{}', '[]', '[]', '[]', '[]', '[]', '[]', '[450,450,450,450,450,0,0]', '[]', '{"weekStarts": 1, "dateOrder": "day first", "clock": 24}', 1, false, '{"ways": [], "terms": [], "letterhead": "", "answering": ""}', '${JSON.stringify(USUAL_ASKING)}', '${JSON.stringify(USUAL_OUTCOMES)}', '${JSON.stringify(USUAL_ESCALATION)}', '{}')`,
    [ids.workspace, ids.workspace],
  );
  await source.query(
    `insert into person (workspace_id, id, name, roles, access, telephone, weeks, weeks_from, shifts, shift_changes, ways, tickets, version)
     values ($1, $2, 'Wynn Abel', '["owner"]', 'manager', '', '[[420,420,420,420,420,0,0]]', '2024-01-01', '[]', '[]', '{}', '[]', 1)`,
    [ids.workspace, ids.person],
  );
  const lines = Array.from({ length: LINES }, (_, i) => ({
    kind: 'check',
    key: `c${i}`,
    text: wordsOf(texts.lines / LINES - JSON_OF_A_LINE, i),
    note: '',
    demands: [],
  }));
  await source.query(
    `insert into template (workspace_id, id, version, name, summary, title_pattern, instructions, links, priority, sign_off, finish_with_last,
       numbered, demands, estimate_minutes, assignment, tickets, steps, changed_at, changed_by)
     values ($1, $2, 1, 'Round', '', 'Round {weekday} {day}', $5, '[]', 'normal', null, false, false, '[]', 30, '{"v": 1, "kind": "nobody"}', '[]', $4, now(), $3)`,
    [ids.workspace, ids.template, ids.person, JSON.stringify(lines), `<p>${wordsOf(texts.instructions - 7, 0)}</p>`],
  );
  await source.query(
    `insert into schedule (workspace_id, id, version, template_id, client_id, asset_id, assignment, recurrence, timing, overlap, pauses,
       exceptions, revisions, settled_to, problem, created_at)
     select $1, gen_random_uuid(), 1, $2, null, null, $3::jsonb, rule, $4, '{"kind": "add"}', '[]', '[]', '[]', '2026-11-24', null, now()
     from jsonb_array_elements($5::jsonb) rule`,
    [
      ids.workspace,
      ids.template,
      JSON.stringify(givenTo(ids.person)),
      EACH_TIME,
      JSON.stringify(workload(schedules, '2024-11-01').map(({ ours }) => ({ v: 1, ...ours }))),
    ],
  );
  const workspace = await source.getRepository(Workspace).findOneByOrFail({ id: ids.workspace });
  const manager = await source.getRepository(Person).findOneByOrFail({ workspaceId: ids.workspace });
  return Scope.on(source, workspace, manager, { now: () => NOW, stands: true });
}

/** Text of so many characters that does not pack to nothing. */
function wordsOf(length: number, seed: number): string {
  let state = seed + 1;
  let text = '';
  while (text.length < length) {
    state = (state * 48_271) % 2_147_483_647;
    text += `${state.toString(36).slice(0, 3 + (state % 5))} `;
  }
  return text.slice(0, Math.max(1, Math.floor(length)));
}

/**
 * Making tasks, in turns with two bare multi-row INSERTs: of the same rows into the same table, and of the same tasks into
 * one that holds all that each says, as the table did before contents were stored once.
 */
async function making(source: DataSource, texts: Texts): Promise<string> {
  const scope = await workspaceOf(source, SCHEDULES, texts);
  const client = await pool.connect();
  try {
    return await rounds(scope, client, texts);
  } finally {
    client.release();
  }
}

/** A table as the one of tasks, but with what each says on it. */
async function fatTable(client: pg.PoolClient): Promise<void> {
  await client.query(`
    drop table if exists fat_task;
    create table fat_task (like task including all);
    alter table fat_task drop content_id, add instructions text not null, add brief text not null, add links jsonb not null, add work_type text,
      add sign_off jsonb, add finish_with_last boolean not null, add numbered boolean not null, add check_lines jsonb not null, add demands jsonb not null;
  `);
  const { rows } = await client.query<{ key: string }>(
    `select pg_get_constraintdef(oid) as key from pg_constraint where conrelid = 'task'::regclass and contype = 'f' and conname <> 'task_content'`,
  );
  for (const { key } of rows) await client.query(`alter table fat_task add ${key}`);
  await client.query(`create trigger watch_insert after insert on fat_task
    referencing new table as new_rows for each statement execute function watch_tasks()`);
}

/** @returns the verdict, in a line */
async function rounds(scope: Scope, client: pg.PoolClient, texts: Texts): Promise<string> {
  const times = { made: [] as number[], lean: [] as number[], fat: [] as number[] };
  const size = { lean: 0, fat: 0 };
  const heap: number[] = [];
  await fatTable(client);
  const empty = async () => {
    await client.query('delete from task; delete from run; truncate fat_task');
    await client.query('vacuum full task');
  };
  const sizeOf = async (table: string, count: number) =>
    (
      await client.query<{ bytes: number }>('select pg_total_relation_size($1::regclass)::float as bytes', [table])
    ).rows.map(({ bytes }) => bytes / count)[0] ?? 0;
  let count = 0;
  for (let round = 0; round < ROUNDS + 1; round++) {
    await empty();
    await client.query(`update schedule set settled_to = '2026-11-24'`);
    const began = performance.now();
    const run = await runMaking(scope, 'byHand', log);
    const made = performance.now() - began;
    if (run.made < TASKS) throw new Error(`Only ${run.made} tasks were made.`);
    count = run.made;
    size.lean = await sizeOf('task', count);
    const lean = (await client.query('select * from task')).rows;
    const fat = (
      await client.query(
        `select t.*, ${SAID.map((name) => `c.${name}`).join(', ')} from task t join work_content c on c.id = t.content_id`,
      )
    ).rows.map(({ content_id: _, ...row }) => row);
    await empty();
    const bareLean = await bareInsert(client, 'task', lean);
    await empty();
    const bareFat = await bareInsert(client, 'fat_task', fat);
    size.fat = await sizeOf('fat_task', count);
    // The first round warms all up.
    if (round > 0) {
      times.made.push(made);
      times.lean.push(bareLean);
      times.fat.push(bareFat);
    }
    global.gc?.();
    heap.push(process.memoryUsage().heapUsed / 1e6);
  }
  await client.query('delete from task; delete from run; drop table fat_task');
  const [made, lean, fat] = [median(times.made), median(times.lean), median(times.fat)];
  const rate = (milliseconds: number) => `${Math.round((count / milliseconds) * 1000)} rows a second`;
  console.log(
    `Making ${count.toLocaleString('en-GB')} tasks of ${SCHEDULES.toLocaleString('en-GB')} schedules, ${texts.name} texts (${texts.instructions} and ${texts.lines} characters)`,
  );
  line('planned, written and logged', made, rate(made));
  line('the same rows by a bare multi-row INSERT', lean, rate(lean));
  line('with all that each says on each, by a bare INSERT', fat, rate(fat));
  console.log(`  heap after each round: ${heap.map((mb) => `${mb.toFixed(0)} MB`).join(', ')}`);
  const kB = (bytes: number) => `${Math.round(bytes)} kB a thousand`;
  return `${texts.name} texts: ${(fat / made).toFixed(2)} of the bare INSERT of fat rows, ${(lean / made).toFixed(2)} of lean ones; ${kB(size.lean)} (fat ${Math.round(size.fat)})`;
}

async function bareInsert(
  client: pg.PoolClient,
  table: string,
  rows: readonly Record<string, unknown>[],
): Promise<number> {
  const columns = Object.keys(rows[0] ?? {});
  // Written out beforehand: what is measured is the database taking them.
  const values = rows.map((row) =>
    columns.map((column) => {
      const value = row[column];
      return value !== null && typeof value === 'object' && !(value instanceof Date) ? JSON.stringify(value) : value;
    }),
  );
  const began = performance.now();
  await client.query('begin');
  for (let at = 0; at < values.length; at += A_STATEMENT) {
    const batch = values.slice(at, at + A_STATEMENT);
    const places = batch
      .map((_, i) => `(${columns.map((__, j) => `$${i * columns.length + j + 1}`).join(',')})`)
      .join(',');
    await client.query(`insert into ${table} (${columns.join(',')}) values ${places}`, batch.flat());
  }
  await client.query('commit');
  return performance.now() - began;
}

/** What a manager waits for: a rehearsal of everything over a year, the Impact of a template and of many schedules. */
async function rehearsals(source: DataSource): Promise<void> {
  const all = await workspaceOf(source, SCHEDULES);
  const year = { from: '2026-11-25', to: '2027-11-24', scheduleIds: [] };
  await timed(`a rehearsal of ${SCHEDULES} schedules over a year`, async () => {
    const { rows } = await rehearseFill(all, year);
    return `${rows.reduce((sum, row) => sum + row.new, 0)} tasks`;
  });

  const some = await workspaceOf(source, USING_ONE_TEMPLATE);
  await runMaking(some, 'byHand', log);
  const [row] = await scheduleRows(some);
  if (!row) throw new Error('There are no schedules.');
  const template = await oneTemplate(some, row.templateId);
  const input = templateInputSchema.parse(template);
  await timed(`Impact of a template used by ${USING_ONE_TEMPLATE} schedules`, async () => {
    const { figures } = await impactOfTemplate(some, template.id, {
      ...input,
      version: template.version,
      estimateMinutes: 35,
      instructions: '<p>Walk it twice.</p>',
      reach: { open: false, also: [] },
    });
    return `${figures.changed} changed`;
  });
  const changes = (await scheduleRows(some)).map(({ id, version }) => ({
    id,
    version,
    set: { assignment: givenTo(null) },
  }));
  await timed(`Impact of a change of ${USING_ONE_TEMPLATE} schedules at once`, async () => {
    const { figures } = await impactOfSchedules(some, { changes, reach: { open: false, also: [] } });
    return `${figures.changed} changed`;
  });
  const { changeId } = await changeSchedules(some, { changes, reach: { open: false, also: [] } });
  await timed('Impact of undoing that from the history', async () => {
    const { figures } = await impactOfUndo(some, changeId);
    return `${figures.changed} changed`;
  });
  await fillMemory(all);
}

/** A year of everything, in batches: what it holds on to does not grow with it. */
async function fillMemory(scope: Scope): Promise<void> {
  const { rows } = await rehearseFill(scope, { from: '2026-11-25', to: '2027-11-24', scheduleIds: [] });
  const run = await scope.insert(Run, {
    id: scope.newId(),
    why: 'fill',
    startedAt: scope.instant,
    milliseconds: 0,
    ...{ made: 0, schedules: 0 },
    already: 0,
    problems: [],
    waits: [],
    leftOut: [],
    lapsed: 0,
    byId: null,
    fromDate: '2026-11-25',
    toDate: '2027-11-24',
    scheduleIds: rows.map(({ scheduleId }) => scheduleId),
    state: 'running',
    total: 0,
  });
  global.gc?.();
  const before = process.memoryUsage().heapUsed / 1e6;
  let most = 0;
  const watch = setInterval(() => {
    most = Math.max(most, process.memoryUsage().heapUsed / 1e6);
  }, 50);
  const began = performance.now();
  await carryOutFill(scope, run.id);
  clearInterval(watch);
  const { made } = await scope.one(Run, run.id, 'run');
  global.gc?.();
  const after = process.memoryUsage().heapUsed / 1e6;
  line(`a fill of a year of ${SCHEDULES} schedules`, performance.now() - began, `${made} tasks`);
  console.log(`  heap before ${before.toFixed(0)} MB, at most ${most.toFixed(0)} MB, after ${after.toFixed(0)} MB`);
}

async function timed(what: string, work: () => Promise<string>): Promise<void> {
  const times: number[] = [];
  let remark = '';
  for (let round = 0; round < ROUNDS + 1; round++) {
    const began = performance.now();
    remark = await work();
    times.push(performance.now() - began);
  }
  line(what, median(times.slice(1)), `${remark}; the first time ${Math.round(times[0] ?? 0)} ms`);
}

function median(values: readonly number[]): number {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;
}
