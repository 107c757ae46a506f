import { createHash } from 'node:crypto';
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';
import { pino } from 'pino';
import type { DataSource } from 'typeorm';
import { startPostgres } from '../scripts/postgres.mjs';
import { NO_VISITS, USUAL_ASKING, USUAL_ESCALATION, USUAL_OUTCOMES, type VisitRules } from '../src/core/index.ts';
import { dataSource } from '../src/server/data-source.ts';
import { Person } from '../src/server/platform/identity/person.ts';
import { Workspace } from '../src/server/platform/identity/workspace.ts';
import { Scope } from '../src/server/platform/scope.ts';
import { runMaking } from '../src/server/runs/index.ts';
import { compactEndedCounts } from '../src/server/tasks/stored/index.ts';
import { EACH_TIME, workload } from './workload.ts';

/** The clock of the bench, which stands. */
export const NOW = Date.parse('2026-11-24T10:40:00Z');
const TODAY = '2026-11-24';

/** What one large workspace holds, beside two hundred small ones. */
export const SIZES = {
  schedules: 10_000,
  templates: 300,
  people: 200,
  clients: 3_000,
  assets: 8_000,
  /** Over three past years; those ahead are made by the daily run. */
  pastTasks: 960_000,
  changesOfEach: 3,
  files: 50_000,
  smallWorkspaces: 200,
} as const;

const ID = '01937000-0000-7000-8000-0000000000ff';

/** Whether a folder holds this database already, as this version would make it. */
function isMade(folder: string, migrations: readonly string[]): boolean {
  const mark = join(folder, 'lists-made');
  return existsSync(mark) && readFileSync(mark, 'utf8') === markOf(migrations);
}

function markOf(migrations: readonly string[]): string {
  return createHash('sha256')
    .update(JSON.stringify([SIZES, migrations, 2]))
    .digest('hex');
}

/** The database, on a PostgreSQL of its own: made once, and kept below `.cache`. */
export async function largeDatabase() {
  const folder = join(process.cwd(), '.cache', 'lists-postgres');
  const migrations = dataSource('').options.migrations as { name: string }[];
  const names = Object.values(migrations).map(({ name }) => name);
  const isThere = isMade(folder, names);
  if (!isThere) rmSync(folder, { recursive: true, force: true });
  const postgres = await startPostgres({ folder });
  const source = await dataSource(postgres.url, { longestMs: 0 }).initialize();
  const client = new pg.Client({
    connectionString: postgres.url,
    options: '-c jit=off -c parallel_setup_cost=8000',
  });
  await client.connect();
  if (!isThere) {
    console.log('Making the database …');
    await source.runMigrations({ transaction: 'each' });
    await fillDatabase(source, client);
    writeFileSync(join(folder, 'lists-made'), markOf(names));
  }
  // As every night does.
  await compactEndedCounts(source);
  await client.query('vacuum analyze ended_count');
  return {
    url: postgres.url,
    filesFolder: join(folder, 'files'),
    source,
    client,
    async close() {
      await client.end();
      await source.destroy();
      await postgres.stop();
    },
  };
}

/** Steps in as somebody of the large workspace, who has an account then; gives the cookie. */
export async function entered(client: pg.ClientBase, address: string, personId: string): Promise<string> {
  await client.query(
    `insert into account (id, email, password_hash) values ($1::uuid, $1::uuid || '@ternquay.example', '') on conflict do nothing`,
    [personId],
  );
  await client.query('update person set account_id = id where id = $1::uuid and account_id is null', [personId]);
  const answer = await fetch(`${address}/api/session/demo`, {
    method: 'POST',
    headers: { Origin: address, 'Content-Type': 'application/json' },
    body: JSON.stringify({ personId }),
  });
  if (answer.status !== 200) throw new Error(`Nobody could sign in: ${await answer.text()}`);
  return answer.headers.get('set-cookie')?.split(';')[0] ?? '';
}

/** A scope of the large workspace's manager. */
export async function largeScope(source: DataSource): Promise<Scope> {
  const workspace = await source.getRepository(Workspace).findOneByOrFail({ id: ID });
  const manager = await source.getRepository(Person).findOneByOrFail({ workspaceId: ID, access: 'manager' });
  return Scope.on(source, workspace, manager, { now: () => NOW, stands: true });
}

const VISITS: VisitRules = {
  ...NO_VISITS,
  ways: [
    { name: 'by mail', kind: 'mail', onItsWay: { days: 0, unit: 'day' } },
    { name: 'by post', kind: 'post', onItsWay: { days: 2, unit: 'workingDay' } },
  ],
  terms: [
    {
      type: 'boarding',
      period: { days: 7, unit: 'day', countsReceipt: false, countsVisit: true },
      ways: ['by mail', 'by post'],
    },
  ],
};

/** Fills an empty, migrated database. */
async function fillDatabase(source: DataSource, client: pg.ClientBase): Promise<void> {
  const step = async (what: string, text: string, params: unknown[] = []) => {
    const began = performance.now();
    await client.query(text, params);
    console.log(`  ${what.padEnd(28)} ${((performance.now() - began) / 1000).toFixed(1)} s`);
  };
  const { rows: indexes } = await client.query<{ name: string; def: string }>(
    `select indexname as name, indexdef as def from pg_indexes where tablename in ('task', 'change') and indexname !~ '(pkey|made_once)$'`,
  );
  for (const { name } of indexes) await client.query(`drop index ${name}`);
  // Told from words, in the form that ids have.
  await client.query(`create function pg_temp.bench_id(words text) returns uuid language sql immutable as
    $$ select (substr(md5(words), 1, 12) || '7' || substr(md5(words), 14, 3) || '8' || substr(md5(words), 18, 15))::uuid $$`);
  await step(
    'workspaces',
    `insert into workspace (id, name, tagline, zone, working_weekdays, categories, work_types, horizon_days, make_time, made_on, is_demo, version, year_starts, phrase_habits, roles, teams, tickets, client_fields, asset_fields, skip_reasons, week_minutes, seasons, ways, done_stays_days, swaps_need_nod, visits, asking, outcomes, escalation, hearing)
     select case n when 0 then '${ID}'::uuid else pg_temp.bench_id('workspace ' || n) end, 'Harbour ' || n, '', 'Europe/London', '[1,2,3,4,5]',
       '[{"name": "inspection", "dot": "petrol"}, {"name": "office", "dot": "blue"}]', '[]', 30, '04:00', null, true, 1, 1, '{}', '["dock crew"]', '[]', '[]', '[]', '[]', '[]', '[450,450,450,450,450,0,0]', '[]', '{"weekStarts": 1, "dateOrder": "day first", "clock": 24}', 1, false, '{"ways": [], "terms": [], "letterhead": "", "answering": ""}', '${JSON.stringify(USUAL_ASKING)}', '${JSON.stringify(USUAL_OUTCOMES)}', '${JSON.stringify(USUAL_ESCALATION)}', '{}'
     from generate_series(0, ${SIZES.smallWorkspaces}) n`,
  );
  await step(
    'people, clients, assets',
    `insert into person (workspace_id, id, account_id, name, roles, access, telephone, weeks, weeks_from, shifts, shift_changes, ways, tickets, version)
       select '${ID}', pg_temp.bench_id('person ' || n), null, 'Person ' || to_char(n, 'FM000'), '["dock crew"]', case n when 1 then 'manager' else 'member' end, '', '[[420,420,420,420,420,0,0]]', '2024-01-01', '[]', '[]', '{}', '[]', 1 from generate_series(1, ${SIZES.people}) n;
     insert into client (workspace_id, id, name, address, notes, fields, version)
       select '${ID}', pg_temp.bench_id('client ' || n), 'Client ' || to_char(n, 'FM0000'), '', '', '{}', 1 from generate_series(1, ${SIZES.clients}) n;
     insert into asset (workspace_id, id, client_id, name, place, tag, is_site, fields, version)
       select '${ID}', pg_temp.bench_id('asset ' || n), pg_temp.bench_id('client ' || (1 + n % ${SIZES.clients})), 'Vessel ' || to_char(n, 'FM0000'), 'berth ' || n, null, false, '{}', 1
       from generate_series(1, ${SIZES.assets}) n;
     insert into person (workspace_id, id, account_id, name, roles, access, telephone, weeks, weeks_from, shifts, shift_changes, ways, tickets, version)
       select id, pg_temp.bench_id('person of ' || id), null, 'Wynn Abel', '["owner"]', 'manager', '', '[[420,420,420,420,420,0,0]]', '2024-01-01', '[]', '[]', '{}', '[]', 1 from workspace where id <> '${ID}'`,
  );
  const lines = Array.from({ length: 5 }, (_, i) => ({
    kind: 'check',
    key: `c${i}`,
    text: `Look at point ${i + 1} of it`,
    note: '',
    demands: [],
  }));
  await step(
    'templates',
    `insert into template (workspace_id, id, version, name, summary, title_pattern, category, instructions, links, priority, work_type, sign_off,
       finish_with_last, numbered, demands, estimate_minutes, assignment, tickets, steps, archived_at, changed_at, changed_by)
     select '${ID}', pg_temp.bench_id('template ' || n), 1, 'Round ' || to_char(n, 'FM000'), 'What is looked at', 'Round ' || n || ' {asset}', 'inspection',
       '<p>' || repeat('Walk it from end to end and look at each joint. ', 4) || '</p>', '[]', 'normal', null, null, false, false, '[]', 30,
       '{"v": 1, "kind": "nobody"}', '[]', $1::jsonb, null, now(), null
     from generate_series(1, ${SIZES.templates}) n`,
    [JSON.stringify(lines)],
  );
  // One template is used by 2,000 schedules, the others by the rest of them.
  await step(
    'schedules',
    `insert into schedule (workspace_id, id, version, template_id, client_id, asset_id, assignment, recurrence, timing, overlap, pauses,
       exceptions, revisions, settled_to, problem, created_at, deleted_at)
     select '${ID}', pg_temp.bench_id('schedule ' || n), 1, pg_temp.bench_id('template ' || case when n <= 2000 then 1 else 2 + n % ${SIZES.templates - 1} end),
       pg_temp.bench_id('client ' || (1 + (n % ${SIZES.assets}) % ${SIZES.clients})), pg_temp.bench_id('asset ' || (n % ${SIZES.assets} + case when n % ${SIZES.assets} = 0 then ${SIZES.assets} else 0 end)),
       jsonb_build_object('v', 1, 'kind', 'person', 'personId', pg_temp.bench_id('person ' || (1 + n % ${SIZES.people})), 'daysOffToo', true, 'cover', 'deputy'), rule, $1, '{"kind": "add"}', '[]', '[]', '[]', '${TODAY}', null, now(), null
     from jsonb_array_elements($2::jsonb) with ordinality as rules (rule, n)`,
    [EACH_TIME, JSON.stringify(workload(SIZES.schedules, '2024-11-01').map(({ ours }) => ({ v: 1, ...ours })))],
  );
  await step(
    'contents',
    `insert into work_content (workspace_id, id, instructions, brief, links, work_type, sign_off, finish_with_last, numbered, check_lines, demands, instructions_hash, rest_id)
     select '${ID}', work_content_id(instructions, '', '[]', null, null, false, false, lines, '[]'), instructions, '', '[]', null, null, false, false, lines, '[]',
       md5(instructions), work_content_id('', '', '[]', null, null, false, false, lines, '[]')
     from (select distinct instructions, (select jsonb_agg(step - 'kind') from jsonb_array_elements(steps) step) as lines from template) t`,
  );
  // One of them asks for a figure besides.
  await step(
    'a content with a reading',
    `insert into work_content (workspace_id, id, instructions, brief, links, work_type, sign_off, finish_with_last, numbered, check_lines, demands, instructions_hash, rest_id)
     select workspace_id, work_content_id(instructions, '', '[]', null, null, false, false, check_lines, $1), instructions, '', '[]', null, null, false, false, check_lines, $1,
       md5(instructions), work_content_id('', '', '[]', null, null, false, false, check_lines, $1)
     from work_content where workspace_id = '${ID}' limit 1`,
    [JSON.stringify([{ key: 'gap', label: 'Gap', kind: 'number', unit: 'mm', least: 0, most: 20 }])],
  );
  const perSchedule = SIZES.pastTasks / SIZES.schedules;
  await step(
    'tasks of the past',
    `insert into task (workspace_id, id, version, template_id, template_version, set_id, set_on, set_index, schedule_id, nominal_date, step_key, head,
       title, content_id, priority, estimate_minutes, answers, ticks, note, note_pinned, client_id, asset_id, assignee_id, state, work_on, appears_on,
       starts_on, due_on, start_time, due_time, zone, started_at, done_at, done_by, signed_at, signed_by, sent_back, edited, run_id, made_at)
     select s.workspace_id, (lpad(to_hex(1700000000000 - k::bigint * 900000000 + s.n * 10), 12, '0') || '7' || substr(md5(s.id || ' ' || k), 1, 3) || '8' || substr(md5(s.id || ' ' || k), 4, 15))::uuid,
       3, s.template_id, 1, pg_temp.bench_id('set ' || s.id || k), d.day, 0, s.id, d.day, '', '', 'Round of ' || a.name, case when k % 9 = 0 then read.id else plain.id end, 'normal', 30,
       case when k % 9 = 0 and r < 0.93 then jsonb_build_object('gap', jsonb_build_object('value', (r * 24)::int, 'at', d.day, 'by', s.person_id, 'remark', '')) else '{}' end, '{}', case when k % 9 = 0 then 'The second cleat is loose.' else '' end, false, s.client_id, s.asset_id, s.person_id,
       case when r < 0.93 then 'done' when r < 0.97 then 'skipped' when r < 0.998 then 'lapsed' else 'open' end,
       d.day, d.day - 1, d.day, d.day, '08:00', '12:00', null,
       case when r < 0.93 then d.day + time '08:05' end, case when r < 0.93 then d.day + time '09:00' end, case when r < 0.93 then s.person_id end,
       null, null, '[]', '[]', null, d.day - 30
     from (select *, (assignment->>'personId')::uuid as person_id, row_number() over (order by id) as n from schedule where workspace_id = '${ID}') s
     join asset a on a.workspace_id = s.workspace_id and a.id = s.asset_id
     cross join generate_series(1, ${perSchedule}) k
     cross join lateral (select date '${TODAY}' - 2 - (k * 11 + s.n % 11)::int as day, ('x' || substr(md5(s.id || ' fate ' || k), 1, 7))::bit(28)::int / 268435456.0 as r) d
     cross join (select id from work_content where workspace_id = '${ID}' and demands <> '[]') read
     cross join (select id from work_content where workspace_id = '${ID}' and demands = '[]' limit 1) plain`,
  );
  await step(
    'history',
    `insert into change (workspace_id, id, at, actor_id, subject, subject_id, action, fields, undone_at, joined_id, watch_id)
     select t.workspace_id, gen_random_uuid(), t.made_at + k * interval '1 day', t.assignee_id, 'task', t.id,
       (array['started', 'edited', 'finished'])[k], case k when 2 then jsonb_build_object('assigneeId', jsonb_build_object('from', null, 'to', t.assignee_id))
         else '{"state": {"from": "open", "to": "underWay"}}' end, null, null, null
     from task t cross join generate_series(1, ${SIZES.changesOfEach}) k`,
  );
  await step(
    'files',
    `insert into file (workspace_id, id, upload_key, template_id, task_id, demand_key, name, media_type, bytes, stored, is_picture, is_kept, uploaded_at, uploaded_by, removed_at)
     select workspace_id, gen_random_uuid(), gen_random_uuid(), null, id, null, 'quay.jpg', 'image/jpeg', 200000, 'bench', true, false, done_at, assignee_id, null
     from task where state = 'done' order by md5(id::text) limit ${SIZES.files}`,
  );
  for (const { def } of indexes) await step('an index', def);
  // What the one template says is announced: the tasks of its 2,000 schedules that are made from here on are visits.
  await step(
    'visits',
    `update template set work_type = 'boarding' where workspace_id = '${ID}' and id = pg_temp.bench_id('template 1');
     update workspace set work_types = '["boarding"]', visits = '${JSON.stringify(VISITS)}' where id = '${ID}'`,
  );
  const began = performance.now();
  const run = await runMaking(await largeScope(source), 'daily', pino({ level: 'silent' }));
  // Nobody has to hear of how it was made.
  await client.query('delete from untold');
  console.log(
    `  ${'the daily run'.padEnd(28)} ${((performance.now() - began) / 1000).toFixed(1)} s, ${run.made} tasks`,
  );
  await client.query('vacuum analyze');
}
