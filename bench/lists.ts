import { monitorEventLoopDelay } from 'node:perf_hooks';
import { setTimeout } from 'node:timers/promises';
import { pino } from 'pino';
import { freePort } from '../scripts/postgres.mjs';
import { GROUPS_A_PAGE, TASKS_OF_A_GROUP } from '../src/contract/index.ts';
import { startServer } from '../src/server/server.ts';
import { entered, largeDatabase, largeScope, NOW } from './lists-database.ts';

/**
 * npm run bench lists: every read that the interface makes, in a workspace of 10,000 schedules and a million tasks, one at
 * a time over loopback, beside the leanest SQL for the same rows in the same run. The database is made once and kept;
 * ONLY_READ=regex measures some of them.
 */

const LEAST_ROUNDS = 8;
const MOST_ROUNDS = 40;
/** However slow, no read is measured for longer. */
const LONGEST_MS = 12_000;
/** Below this the way over loopback says more than the database. */
const WORTH_COMPARING_MS = 5;

const large = await largeDatabase();
const { source, client } = large;
try {
  await measureAll();
} finally {
  await large.close();
}

interface Read {
  readonly what: string;
  readonly path: string;
  /** The leanest statement for the same rows. */
  readonly sql: string;
  readonly params: readonly unknown[];
}

async function reads(): Promise<Read[]> {
  const scope = await largeScope(source);
  const { id: w } = scope.workspace;
  const one = async (text: string) => (await source.query<{ id: string }[]>(text, [w]))[0]?.id ?? '';
  const person = await one(`select id from person where workspace_id = $1 and access <> 'manager' order by id limit 1`);
  const task = await one(
    `select id from task where workspace_id = $1 and state = 'open' and schedule_id is not null order by due_on desc, id limit 1`,
  );
  const template = await one(
    'select template_id as id from schedule where workspace_id = $1 group by 1 order by count(*) desc limit 1',
  );
  const schedule = await one('select id from schedule where workspace_id = $1 order by id limit 1');
  const client = await one(
    'select client_id as id from task where workspace_id = $1 and client_id is not null group by 1 order by count(*) desc limit 1',
  );
  const run = await one('select id from run where workspace_id = $1 order by made desc limit 1');
  const line = 'select id, title, state, due_on, start_time, due_time, estimate_minutes, client_id, asset_id from task';
  /** Sums of all groups, and the lines of the first few, as such an answer holds both. */
  const firstOfGroups = (key: string, which: string) => `
    select g.*, t.* from (
      select ${key} as key, count(*), sum(estimate_minutes) from task where workspace_id = $1 and ${which}
      group by 1 order by 1 nulls first limit ${GROUPS_A_PAGE}) g
    left join lateral (${line} where workspace_id = $1 and ${which} and ${key} = g.key order by due_on limit ${TASKS_OF_A_GROUP}) t on true`;
  return [
    {
      what: 'session',
      path: '/session',
      sql: 'select id, name, access from person where workspace_id = $1 limit 1',
      params: [w],
    },
    { what: 'clock', path: '/clock', sql: 'select zone from workspace where id = $1', params: [w] },
    {
      what: 'workspace',
      path: '/workspace',
      sql: 'select id, name, access from person where workspace_id = $1 union all select null, name, date::text from holiday where workspace_id = $1',
      params: [w],
    },
    {
      what: 'day sheet of a person',
      path: `/people/${person}/day-sheet`,
      sql: `${line} where workspace_id = $1 and assignee_id = $2 and (due_on between '2026-11-24' and '2026-12-01' or (state in ('open', 'underWay', 'toCheck') and due_on <= '2026-11-24'))`,
      params: [w, person],
    },
    {
      what: 'day sheet three weeks ahead',
      path: `/people/${person}/day-sheet?date=2026-12-15`,
      sql: `${line} where workspace_id = $1 and assignee_id = $2 and due_on between '2026-12-15' and '2026-12-22'`,
      params: [w, person],
    },
    {
      what: 'day sheet past the horizon',
      path: `/people/${person}/day-sheet?date=2027-03-16`,
      sql: `select id, recurrence from schedule where workspace_id = $1 and assignment->>'personId' = $2::text`,
      params: [w, person],
    },
    {
      what: 'tideline of everyone',
      path: '/tideline',
      sql: `select due_on, sum(estimate_minutes) filter (where state = 'done'), sum(estimate_minutes) filter (where state = 'open'), count(*) from task
        where workspace_id = $1 and due_on between '2026-11-17' and '2027-01-05' group by due_on`,
      params: [w],
    },
    {
      what: 'tideline of a person',
      path: `/tideline?person=${person}`,
      sql: `select due_on, sum(estimate_minutes) filter (where state = 'done'), count(*) from task
        where workspace_id = $1 and assignee_id = $2 and due_on between '2026-11-17' and '2027-01-05' group by due_on`,
      params: [w, person],
    },
    {
      what: 'schedules, a page',
      path: '/schedules',
      sql: 'select s.id, s.recurrence, t.name from schedule s join template t on t.workspace_id = s.workspace_id and t.id = s.template_id where s.workspace_id = $1 order by lower(t.name), s.id limit 50',
      params: [w],
    },
    {
      what: 'a page in the middle, by name',
      path: '/schedules?order=name&start=5000',
      sql: 'select s.id, s.recurrence, t.name from schedule s join template t on t.workspace_id = s.workspace_id and t.id = s.template_id where s.workspace_id = $1 order by lower(t.name), s.id offset 5000 limit 50',
      params: [w],
    },
    {
      what: 'schedules by words',
      path: '/schedules?find=mon+12',
      sql: `select s.id, s.recurrence, t.name from schedule s join template t on t.workspace_id = s.workspace_id and t.id = s.template_id where s.workspace_id = $1 and t.name ilike '%12%' order by lower(t.name), s.id limit 50`,
      params: [w],
    },
    {
      what: 'schedules with late work',
      path: '/schedules?state=late',
      sql: `select distinct schedule_id from task where workspace_id = $1 and state in ('open', 'underWay') and due_on < '2026-11-24'`,
      params: [w],
    },
    {
      what: 'schedules on a day',
      path: '/schedules?from=2026-12-01&to=2026-12-01',
      sql: 'select id, recurrence from schedule where workspace_id = $1',
      params: [w],
    },
    {
      what: 'ids of schedules that fit',
      path: '/schedules/fitting?find=1',
      sql: 'select id, version from schedule where workspace_id = $1',
      params: [w],
    },
    {
      what: 'figures of a template',
      path: `/schedules/figures?templateId=${template}`,
      sql: 'select id, recurrence from schedule where workspace_id = $1 and template_id = $2',
      params: [w, template],
    },
    {
      what: 'for whom, the first',
      path: '/subjects',
      sql: 'select id, client_id, name, place, tag from asset where workspace_id = $1 order by words limit 50',
      params: [w],
    },
    {
      what: 'for whom, by a word',
      path: '/subjects?q=client+12',
      sql: `select id, name from client where workspace_id = $1 and name ilike '%client 12%' order by name limit 50`,
      params: [w],
    },
    {
      what: 'for whom, by a letter',
      path: '/subjects?q=c',
      sql: `select id, name from client where workspace_id = $1 and name ilike 'c%' order by name limit 50`,
      params: [w],
    },
    {
      what: 'whom a line may mean',
      path: '/subjects/said?line=ring+about+the+ropes+for+client+12',
      sql: `select id, name from client where workspace_id = $1 and words like 'client 12%' order by words limit 5`,
      params: [w],
    },
    {
      what: 'a jump by name',
      path: '/find?q=12',
      sql: `select id, name from template where workspace_id = $1 and name ilike '%12%' order by name limit 8`,
      params: [w],
    },
    {
      what: 'clients, a page',
      path: '/clients',
      sql: `select id, name from client where workspace_id = $1 and archived_at is null order by words, id limit 51`,
      params: [w],
    },
    {
      what: 'clients by a vessel',
      path: '/clients?q=vessel+0777',
      sql: `select client_id from asset where workspace_id = $1 and ' ' || found_by like '%0777%'`,
      params: [w],
    },
    {
      what: 'a client',
      path: `/clients/${client}`,
      sql: 'select * from client where workspace_id = $1 and id = $2',
      params: [w, client],
    },
    {
      what: 'a year of a client’s work',
      path: `/clients/${client}/work`,
      sql: `${line} where workspace_id = $1 and client_id = $2 and due_on between '2026-06-01' and '2027-05-31' order by due_on, id`,
      params: [w, client],
    },
    {
      what: 'our own assets',
      path: '/assets',
      sql: `select id, name from asset where workspace_id = $1 and client_id is null order by words, id limit 51`,
      params: [w],
    },
    {
      what: 'lists of the settings',
      path: '/settings/lists',
      sql: `select role, count(*) from person, jsonb_array_elements_text(roles) role where workspace_id = $1 group by 1`,
      params: [w],
    },
    {
      what: 'template list',
      path: '/templates',
      sql: 'select id, name, summary, category from template where workspace_id = $1 order by lower(name), id',
      params: [w],
    },
    {
      what: 'template used by 2,000',
      path: `/templates/${template}`,
      sql: 'select * from template where workspace_id = $1 and id = $2',
      params: [w, template],
    },
    {
      what: 'its uses',
      path: `/templates/${template}/uses`,
      sql: 'select s.id, s.recurrence, a.name from schedule s left join asset a on a.workspace_id = s.workspace_id and a.id = s.asset_id where s.workspace_id = $1 and s.template_id = $2',
      params: [w, template],
    },
    {
      what: 'task sheet',
      path: `/tasks/${task}`,
      sql: 'select t.*, c.* from task t join work_content c on c.workspace_id = t.workspace_id and c.id = t.content_id where t.workspace_id = $1 and t.id = $2',
      params: [w, task],
    },
    {
      what: 'task history',
      path: `/tasks/${task}/history`,
      sql: 'select * from change where workspace_id = $1 and subject_id = $2 order by at desc',
      params: [w, task],
    },
    {
      what: 'run log',
      path: '/runs',
      sql: 'select id, why, started_at, made from run where workspace_id = $1 order by id desc limit 30',
      params: [w],
    },
    {
      what: 'a run',
      path: `/runs/${run}`,
      sql: 'select id, title, work_on from task where workspace_id = $1 and run_id = $2 order by work_on limit 100',
      params: [w, run],
    },
    {
      what: 'all tasks, late or this week',
      path: '/task-list?are=unfinished&due=byWeek&order=due',
      sql: `${line} where workspace_id = $1 and state in ('open', 'underWay', 'toCheck') and due_on <= '2026-11-29'
        order by due_on, due_time, id limit 61`,
      params: [w],
    },
    {
      what: 'all tasks, from the first',
      path: '/task-list?order=due',
      sql: `${line} where workspace_id = $1 order by due_on, due_time, id limit 61`,
      params: [w],
    },
    {
      what: 'all tasks, the most urgent',
      path: '/task-list?order=urgent',
      sql: `${line} where workspace_id = $1 and priority = 'normal' order by due_on, due_time, id limit 61`,
      params: [w],
    },
    {
      what: 'all tasks, finished last',
      path: '/task-list?order=finished',
      sql: `${line} where workspace_id = $1 and done_at is not null order by done_at desc, id desc limit 61`,
      params: [w],
    },
    {
      what: 'this week, by title',
      path: '/task-list?are=unfinished&due=byWeek&order=title',
      sql: `${line} where workspace_id = $1 and state in ('open', 'underWay', 'toCheck') and due_on <= '2026-11-29'
        order by lower(title), id limit 61`,
      params: [w],
    },
    {
      what: 'this week, every column',
      path: '/task-list?are=unfinished&due=byWeek&order=due&beside=lastEight,workType,template,site,phrase,appears,made',
      sql: `${line} where workspace_id = $1 and state in ('open', 'underWay', 'toCheck') and due_on <= '2026-11-29'
        order by due_on, due_time, id limit 61`,
      params: [w],
    },
    {
      what: 'what is let go at 1 year',
      path: '/retention/next?years=1',
      sql: `select count(*) from task where workspace_id = $1 and due_on < '2025-12-01' and state in ('done', 'skipped', 'lapsed')`,
      params: [w],
    },
    {
      what: 'what they come to',
      path: '/task-list/sums?are=unfinished&due=byWeek',
      sql: `select count(*), sum(estimate_minutes) from task
        where workspace_id = $1 and state in ('open', 'underWay', 'toCheck') and due_on <= '2026-11-29'`,
      params: [w],
    },
    {
      what: 'what all of them come to',
      path: '/task-list/sums',
      sql: 'select count(*), sum(estimate_minutes) from task where workspace_id = $1',
      params: [w],
    },
    {
      what: 'tasks by client',
      path: '/task-list/groups?are=unfinished&due=byWeek&by=client',
      sql: firstOfGroups('client_id', `state in ('open', 'underWay', 'toCheck') and due_on <= '2026-11-29'`),
      params: [w],
    },
    {
      what: 'late ones of a month, by person',
      path: '/task-list/groups?are=late&due=before&by=person',
      sql: firstOfGroups(
        'assignee_id',
        `state in ('open', 'underWay') and due_on between '2026-10-25' and '2026-11-24'`,
      ),
      params: [w],
    },
    {
      what: 'the morning page',
      path: '/overview',
      sql: `${line} where workspace_id = $1 and state in ('open', 'underWay') and due_on < '2026-11-24' order by due_on limit 8`,
      params: [w],
    },
    {
      what: 'visits, a page',
      path: '/visits',
      sql: `${line} where workspace_id = $1 and template_id = $2 and state in ('open', 'underWay') order by work_on, start_time, id limit 61`,
      params: [w, template],
    },
    {
      what: 'visits, the weeks',
      path: '/visits/weeks',
      sql: `select work_on, count(*) from task where workspace_id = $1 and template_id = $2 and state in ('open', 'underWay') group by 1`,
      params: [w, template],
    },
    {
      what: 'what is to be announced soon',
      path: '/visits?toSend=yes&sendWithin=3',
      sql: `${line} where workspace_id = $1 and template_id = $2 and state in ('open', 'underWay') and work_on <= '2026-12-04' order by work_on, start_time, id limit 61`,
      params: [w, template],
    },
    {
      what: 'on time, 24 weeks',
      path: '/on-time',
      sql: `select (due_on - '2026-06-08'::date) / 7, template_id, count(*), count(*) filter (where done_at <= due_on + interval '1 day') from task
        where workspace_id = $1 and due_on >= '2026-06-08' and due_on < '2026-11-23' and state <> 'skipped' group by 1, 2`,
      params: [w],
    },
    {
      what: 'logbook, rates of 26 weeks',
      path: '/logbook/rates?from=2026-05-25&to=2026-11-22',
      sql: `select (due_on - '2026-05-25'::date) / 7, state, count(*), count(*) filter (where done_at <= due_on + interval '1 day') from task
        where workspace_id = $1 and due_on between '2025-11-24' and '2026-11-22' group by 1, 2`,
      params: [w],
    },
    {
      what: 'logbook, rates of 3 years',
      path: '/logbook/rates?from=2023-11-27&to=2026-11-22',
      sql: `select (due_on - '2023-11-27'::date) / 7, state, count(*), count(*) filter (where done_at <= due_on + interval '1 day') from task
        where workspace_id = $1 and due_on between '2023-11-27' and '2026-11-22' group by 1, 2`,
      params: [w],
    },
    {
      what: 'logbook by schedule',
      path: '/logbook/by?by=schedule&from=2026-05-25&to=2026-11-22',
      sql: `select schedule_id, state, count(*), count(*) filter (where done_at <= due_on + interval '1 day') from task
        where workspace_id = $1 and due_on between '2026-05-25' and '2026-11-22' group by 1, 2`,
      params: [w],
    },
    {
      what: 'logbook, a week of days',
      path: '/logbook/days?from=2026-05-25&to=2026-11-22',
      sql: `${line} where workspace_id = $1 and due_on between '2026-11-16' and '2026-11-22' and state = 'done' limit 56`,
      params: [w],
    },
    {
      what: 'logbook, readings, 26 weeks',
      path: '/logbook/readings?from=2026-05-25&to=2026-11-22',
      sql: `select id, due_on, answers from task where workspace_id = $1 and due_on between '2026-05-25' and '2026-11-22'
        and answers <> '{}' order by due_on desc limit 2000`,
      params: [w],
    },
    {
      what: 'logbook, given to another',
      path: '/logbook/changes?what=given&from=2026-05-25&to=2026-11-22',
      sql: `select c.id, t.title from change c join task t on t.workspace_id = c.workspace_id and t.id = c.subject_id
        where c.workspace_id = $1 and c.subject = 'task' and c.action <> 'undone' and c.undone_at is null and c.fields ? 'assigneeId'
          and c.at between '2026-05-25' and '2026-11-23' order by c.at desc, c.id desc limit 50`,
      params: [w],
    },
    {
      what: 'the day of a role of 200',
      path: '/day-sheets?role=dock+crew',
      sql: `${line} where workspace_id = $1 and due_on = '2026-11-24' limit 400`,
      params: [w],
    },
    {
      what: 'wallchart, assets, 365 days',
      path: '/wallchart?rows=asset&by=day',
      sql: `select m.id, t.due_on, t.state, count(*) from (select id from asset where workspace_id = $1 order by name limit 500) m
        join task t on t.workspace_id = $1 and t.asset_id = m.id and t.due_on between '2026-06-01' and '2027-05-31' group by 1, 2, 3`,
      params: [w],
    },
    {
      what: 'wallchart, clients, 53 weeks',
      path: '/wallchart?rows=client',
      sql: `select m.id, (t.due_on - '2026-06-01'::date) / 7, t.state, count(*) from (select id from client where workspace_id = $1 order by name limit 500) m
        join task t on t.workspace_id = $1 and t.client_id = m.id and t.due_on between '2026-06-01' and '2027-06-06' group by 1, 2, 3`,
      params: [w],
    },
    {
      what: 'wallchart, people, 53 weeks',
      path: '/wallchart?rows=person',
      sql: `select assignee_id, (due_on - '2026-06-01'::date) / 7, state, count(*) from task
        where workspace_id = $1 and due_on between '2026-06-01' and '2027-06-06' group by 1, 2, 3`,
      params: [w],
    },
    {
      what: 'wallchart, schedules, a quarter',
      path: '/wallchart?rows=schedule&by=day&span=quarter',
      sql: `select m.id, t.due_on, t.state, count(*) from (select id from schedule where workspace_id = $1 order by id limit 500) m
        join task t on t.workspace_id = $1 and t.schedule_id = m.id and t.due_on between '2026-10-01' and '2026-12-31' group by 1, 2, 3`,
      params: [w],
    },
    {
      what: 'workload, 12 weeks',
      path: '/workload?by=week',
      sql: `select assignee_id, (due_on - '2026-10-12') / 7 as at, state, sum(estimate_minutes) from task
        where workspace_id = $1 and due_on between '2026-10-12' and '2027-01-03' group by 1, 2, 3`,
      params: [w],
    },
    {
      what: 'workload, 28 days',
      path: '/workload?by=day',
      sql: `select assignee_id, due_on, state, sum(estimate_minutes) from task
        where workspace_id = $1 and due_on between '2026-11-23' and '2026-12-20' group by 1, 2, 3`,
      params: [w],
    },
    {
      what: 'the team',
      path: '/team',
      sql: `select p.id, p.name, (select sum(estimate_minutes) from task t where t.workspace_id = $1 and t.assignee_id = p.id
        and t.due_on between '2026-11-23' and '2026-12-06') from person p where p.workspace_id = $1`,
      params: [w],
    },
    {
      what: 'who is there when',
      path: '/colleagues',
      sql: `select assignee_id, date_trunc('week', due_on), sum(estimate_minutes) from task
        where workspace_id = $1 and due_on >= '2026-11-23' and assignee_id is not null group by 1, 2`,
      params: [w],
    },
    {
      what: 'work at a time, of one',
      path: `/schedules/timed-work?people=${person}&from=2026-11-24&to=2026-12-24`,
      sql: `${line} where workspace_id = $1 and assignee_id = $2 and work_on between '2026-11-24' and '2026-12-24'`,
      params: [w, person],
    },
    {
      what: 'a schedule on the bench',
      path: `/schedules/${schedule}`,
      sql: 'select * from schedule where workspace_id = $1 and id = $2',
      params: [w, schedule],
    },
  ];
}

async function measureAll(): Promise<void> {
  const port = await freePort();
  const server = await startServer({
    databaseUrl: large.url,
    filesFolder: large.filesFolder,
    port,
    clock: { now: () => NOW, stands: true },
    log: pino({ level: 'fatal' }),
    webFolder: null,
    roles: { web: true, worker: false },
    prepare: async () => undefined,
  });
  try {
    const address = `http://127.0.0.1:${port}`;
    const { person } = await largeScope(source);
    const cookie = await entered(client, address, person?.id ?? '');
    let allowed: Allowed = { requests: MOST_ROUNDS, seconds: 0 };
    const get = async (path: string) => {
      const response = await fetch(`${address}/api${path}`, { headers: { cookie } });
      const bytes = (await response.arrayBuffer()).byteLength;
      if (response.status !== 200) throw new Error(`${path} answered ${response.status}.`);
      allowed = allowedBy(response.headers.get('ratelimit') ?? '');
      return bytes;
    };
    const worst = { ratio: 0, p95: 0, kB: 0, still: 0 };
    console.log(
      `${'what is read'.padEnd(28)} ${['kB', 'first', 'median', 'p95', 'SQL', 'ratio', 'stood still'].map((head) => head.padStart(12)).join('')}`,
    );
    const only = new RegExp(process.env['ONLY_READ'] ?? '');
    for (const { what, path, sql, params } of (await reads()).filter((read) => only.test(read.what))) {
      // Nobody may ask for more a minute: the rest of it is waited for between two reads.
      if (allowed.requests < MOST_ROUNDS + 2) await setTimeout(allowed.seconds * 1000);
      const still = monitorEventLoopDelay({ resolution: 5 });
      let bytes = 0;
      // What is kept is told by the first one.
      const from = performance.now();
      await get(path);
      const first = performance.now() - from;
      still.enable();
      const asked = await timed(async () => {
        bytes = await get(path);
      });
      still.disable();
      const lean = median(await timed(() => client.query(sql, [...params])));
      const ratio = median(asked) / lean;
      const kB = bytes / 1000;
      const p95 = [...asked].sort((a, b) => a - b)[Math.ceil(asked.length * 0.95) - 1] ?? 0;
      const isCompared = median(asked) > WORTH_COMPARING_MS;
      if (isCompared) worst.ratio = Math.max(worst.ratio, ratio);
      worst.p95 = Math.max(worst.p95, p95);
      worst.kB = Math.max(worst.kB, kB);
      worst.still = Math.max(worst.still, still.max / 1e6);
      const figures = [
        kB.toFixed(1),
        `${first.toFixed(0)} ms`,
        `${median(asked).toFixed(1)} ms`,
        `${p95.toFixed(1)} ms`,
        `${lean.toFixed(1)} ms`,
        isCompared ? ratio.toFixed(1) : '–',
        `${(still.max / 1e6).toFixed(0)} ms`,
      ];
      console.log(`${what.padEnd(28)} ${figures.map((figure) => figure.padStart(12)).join('')}`);
    }
    console.log(
      `worst: ${worst.ratio.toFixed(1)}x of the SQL, p95 ${worst.p95.toFixed(0)} ms, ${worst.kB.toFixed(0)} kB, stood still for ${worst.still.toFixed(0)} ms`,
    );
  } finally {
    await server.stop();
  }
}

interface Allowed {
  readonly requests: number;
  /** Until so many are allowed again. */
  readonly seconds: number;
}

/** What is left of a minute's requests (draft-ietf-httpapi-ratelimit-headers). */
function allowedBy(header: string): Allowed {
  const [, requests, seconds] = /;\s*r=(\d+);\s*t=(\d+)/.exec(header) ?? [];
  if (requests === undefined || seconds === undefined) throw new Error(`“${header}” says of no limit.`);
  return { requests: Number(requests), seconds: Number(seconds) };
}

/** Times in milliseconds, the first ones left out: they warm up. */
async function timed(work: () => Promise<unknown>): Promise<number[]> {
  const times: number[] = [];
  const began = performance.now();
  for (let round = 0; round < MOST_ROUNDS; round++) {
    if (round >= LEAST_ROUNDS && performance.now() - began > LONGEST_MS / 4) break;
    if (round > 2 && performance.now() - began > LONGEST_MS) break;
    const from = performance.now();
    await work();
    times.push(performance.now() - from);
  }
  return times.slice(times.length > 4 ? 2 : 1);
}

function median(values: readonly number[]): number {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;
}
