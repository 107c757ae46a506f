import { spawn } from 'node:child_process';
import { createECDH, randomBytes } from 'node:crypto';
import { readdirSync, readFileSync, rmSync } from 'node:fs';
import { createServer } from 'node:http';
import { join } from 'node:path';
import { build } from './build.mjs';
import { freePort, startPostgres } from './postgres.mjs';
import { POSTGRES, requireDebian, requirePackages } from './requirements.mjs';
import { root } from './root.mjs';
import { runScript, Stop } from './say.mjs';

const KILLS = Number(process.env.KILLS ?? 50);
const PERIOD = { from: '2027-01-01', to: '2027-12-31', scheduleIds: [] };
/** Kills while lists of calls are made, and quotas of which they are made each time. */
const LIST_KILLS = Number(process.env.LIST_KILLS ?? 20);
const QUOTAS = 25;
/** Kills while it is told who has which work now, and how many tasks change hands before each. */
const BELL_KILLS = Number(process.env.BELL_KILLS ?? 30);
const HANDED_ON = 300;
const MOST_LIST_MS = 60_000;
/** People who are invited by mail before each look whether to kill. */
const INVITED = 3;
/** No longer than this in all, however slow the machine. */
const MOST_MS = 15 * 60_000;
/** Nor this for the last mails, which wait for their next try. */
const MOST_POST_MS = 5 * 60_000;

/**
 * npm run faults: fills a year and invites people by mail with two processes working, kills one or both of them at random
 * points, starts them again, and counts what is missing and what is double; then the same while lists of calls are made, and
 * while it is told who has which work now. Ends with `N tasks, 0 missing, 0 doubled`, `N lists, 0 missing, 0 twice`, `N changes of
 * hands, 0 not told, 0 told twice` and `N mails, 0 missing, 0 twice`.
 */
await runScript(async () => {
  requirePackages();
  requireDebian(POSTGRES);
  await build();
  const { default: pg } = await import('pg');
  const folder = join(root, '.cache', 'faults-postgres');
  const files = join(root, '.cache', 'faults-files');
  for (const old of [folder, files]) rmSync(old, { recursive: true, force: true });
  const postgres = await startPostgres({ folder, fast: true });
  const port = await freePort();
  const database = new pg.Pool({ connectionString: postgres.url, max: 2 });
  const address = `http://127.0.0.1:${port}`;
  const random = randomFrom(20_261_125);
  const servers = { web: null, worker: null };

  const start = async (name) => {
    const server = spawn(process.execPath, [join(root, 'dist', 'server', 'main.js')], {
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
      env: {
        ...process.env,
        NODE_ENV: 'production',
        LOG_LEVEL: 'fatal',
        DATABASE_URL: postgres.url,
        JOLLY_FILES: files,
        PORT: name === 'web' ? String(port) : '0',
        JOLLY_ROLES: name === 'web' ? 'web,worker' : 'worker',
        JOLLY_NOW: '2026-11-24T10:40',
      },
    });
    servers[name] = server;
    await new Promise((resolve, reject) => {
      server.once('message', resolve);
      server.once('exit', (code) => reject(new Stop(`The ${name} server ended by itself (${code}).`)));
    });
    server.removeAllListeners('exit');
  };
  const kill = async (name) => {
    const server = servers[name];
    const gone = new Promise((resolve) => server.once('exit', resolve));
    // With all its parts, in one moment: none of them hears that the others are gone.
    const parts = partsOf(server.pid);
    for (const pid of [server.pid, ...parts]) process.kill(pid, 'SIGKILL');
    await gone;
  };

  await start('web');
  await start('worker');
  let cookie = '';
  const ask = async (method, path, body) => {
    const response = await fetch(`${address}/api${path}`, {
      method,
      headers: { Origin: address, 'Content-Type': 'application/json', cookie },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    cookie = response.headers.get('set-cookie')?.split(';')[0] ?? cookie;
    const answer = await response.json();
    if (!response.ok) throw new Stop(`${method} ${path}: ${answer.detail}`);
    return answer;
  };
  const [ines] = (await database.query(`select id from person where name = 'Ines Calloway'`)).rows;
  await ask('POST', '/session/demo', { personId: ines.id });
  const { rows } = await ask('POST', '/fills/rehearsal', PERIOD);
  const expected = rows.reduce((sum, row) => sum + row.new, 0);

  const began = Date.now();
  const total = { tasks: 0, missing: 0, doubled: 0 };
  let invited = 0;
  const invite = async () => {
    const n = ++invited;
    await ask('POST', '/people', {
      ...{
        name: `Invited ${n}`,
        email: `invited${n}@faults.example`,
        telephone: '',
        roles: [],
        team: null,
        tickets: [],
      },
      ...{
        access: 'member',
        weeks: [[0, 0, 0, 0, 0, 0, 0]],
        weeksFrom: '2026-11-24',
        worksFrom: null,
        worksUntil: null,
        ...{ shifts: [], shiftChanges: [], deputyId: null },
      },
      invite: true,
    });
  };
  let kills = 0;
  let rounds = 0;
  while (kills < KILLS) {
    if (Date.now() - began > MOST_MS) throw new Stop(`Only ${kills} of ${KILLS} kills in the time there is.`);
    rounds++;
    const { run } = await ask('POST', '/fills', PERIOD);
    const state = async () => (await database.query('select state, made from run where id = $1', [run.id])).rows[0];
    while ((await state()).state === 'running') {
      for (let i = 0; i < INVITED; i++) await invite();
      await pause(20 + random(900));
      if (kills >= KILLS || (await state()).state !== 'running') continue;
      const which = [['web'], ['worker'], ['web', 'worker']][random(3)];
      await Promise.all(which.map(kill));
      kills++;
      const { made } = await state();
      console.log(`  kill ${kills}: ${which.join(' and ')}, with ${made} of ${expected} made`);
      await Promise.all(which.map(start));
    }
    const [made] = (await database.query('select count(*)::int as n from task where run_id = $1', [run.id])).rows;
    const [doubles] = (
      await database.query(
        `select count(*)::int as n from (select 1 from task where schedule_id is not null
         group by workspace_id, schedule_id, nominal_date, step_key, head having count(*) > 1) twice`,
      )
    ).rows;
    total.tasks += made.n;
    total.missing += expected - made.n;
    total.doubled += doubles.n;
    await ask('POST', `/runs/${run.id}/undo`);
  }
  console.log(
    `${rounds} fills of ${expected} tasks, ${kills} kills, ${Math.round((Date.now() - began) / 1000)} s with two workers`,
  );
  console.log(`${total.tasks} tasks, ${total.missing} missing, ${total.doubled} doubled`);
  const lists = await killWhileListing({ database, ask, kill, start, random });
  console.log(
    `${lists.made} lists made anew after ${lists.kills} kills, ${lists.missing} missing, ${lists.twice} twice; ${lists.mailsMissing} of their mails missing, ${lists.mailsTwice} twice`,
  );
  const bells = await killWhileTelling({ database, kill, start, random });
  console.log(
    `${bells.tasks} changes of hands, ${bells.kills} kills, ${bells.missing} not told, ${bells.twice} told twice; of ${bells.lines} lines by mail ${bells.mailsMissing} missing, ${bells.mailsTwice} twice`,
  );
  console.log(
    `${bells.signs} signs to devices, ${bells.signsMissing} missing; ${bells.signsAgain} sent once more after a kill, under the same tag`,
  );
  const mails = await countMails(database, invited);
  console.log(
    `${mails.all} mails, ${mails.missing} missing, ${mails.twice} twice; ${mails.again} handed over once more after a kill, under the same Message-ID`,
  );
  await Promise.all(['web', 'worker'].map(kill));
  await database.end();
  await postgres.stop();
  process.exit(
    total.missing +
      total.doubled +
      mails.missing +
      mails.twice +
      lists.missing +
      lists.twice +
      lists.mailsMissing +
      lists.mailsTwice +
      bells.missing +
      bells.twice +
      bells.mailsMissing +
      bells.mailsTwice +
      bells.signsMissing ===
      0
      ? 0
      : 1,
  );
});

/** Has the lists of a day made over and over, kills whoever makes them in the middle, and counts what is there in the end. */
async function killWhileListing({ database, ask, kill, start, random }) {
  const one = async (text, values) => (await database.query(text, values)).rows[0];
  for (let n = 1; n <= QUOTAS; n++)
    await ask('POST', '/quotas', {
      ...{ name: `Faults ${n}`, from: '2026-11-24', endsOn: null, pauses: [] },
      says: {
        amount: { count: 1, per: 'day', share: 'same', mostADay: null, holidays: 'off', leave: 'off' },
        group: { of: 'role', role: 'berth adviser' },
        pool: { v: 1, conditions: [] },
        ...{ first: 'neverRung', usualFirst: false, gap: 1, carryDays: 0, readyAt: '08:00', mails: true },
        ...{ minutesEach: 10, asks: [] },
      },
    });
  const mine = `quota_id in (select id from call_quota where name like 'Faults %')`;
  const count = async () => (await one(`select count(*)::int as n from call_list where ${mine}`)).n;
  const list = () =>
    database.query(
      `select graphile_worker.add_job('lists', json_build_object('workspaceId', workspace_id), job_key := 'lists:' || workspace_id)
       from call_quota where name = 'Faults 1'`,
    );
  const [found] = (await database.query(`select count(*)::int as n from person where roles ? 'berth adviser'`)).rows;
  const expected = QUOTAS * found.n;
  const total = { made: 0, kills: 0, missing: 0, twice: 0, mailsMissing: 0, mailsTwice: 0 };
  while (total.kills < LIST_KILLS) {
    await database.query(`delete from call where list_id in (select id from call_list where ${mine})`);
    await database.query(`delete from call_list where ${mine}`);
    await database.query(`update call_quota set made_on = null where name like 'Faults %'`);
    await list();
    await pause(100 + random(1200));
    const which = [['web'], ['worker'], ['web', 'worker']][random(3)];
    await Promise.all(which.map(kill));
    total.kills++;
    console.log(`  kill ${total.kills}: ${which.join(' and ')}, with ${await count()} of ${expected} lists made`);
    await Promise.all(which.map(start));
    await list();
    const began = Date.now();
    while ((await count()) < expected && Date.now() - began < MOST_LIST_MS) await pause(100);
    const there = await one(
      `select count(distinct (quota_id, person_id))::int as pairs, count(*)::int as lists,
         count(*) filter (where (select count(*) from call where list_id = l.id) <> l.wanted)::int as uneven,
         count(*) filter (where (select count(*) from mail where reason = 'calls ' || l.id) = 0)::int as unsaid,
         count(*) filter (where (select count(*) from mail where reason = 'calls ' || l.id) > 1)::int as "saidTwice"
       from call_list l where ${mine}`,
    );
    const doubled = await one(
      `select count(*)::int as n from (select 1 from call where list_on = '2026-11-24' and state <> 'carried' group by contact_id having count(*) > 1) twice`,
    );
    total.made += there.lists;
    total.missing += expected - there.pairs + there.uneven;
    total.twice += there.lists - there.pairs + doubled.n;
    total.mailsMissing += there.unsaid;
    total.mailsTwice += there.saidTwice;
  }
  return total;
}

/** Gives work to and fro, kills whoever tells of it in the middle, and counts what stands on the bells and left by mail. */
async function killWhileTelling({ database, kill, start, random }) {
  const one = async (text, values) => (await database.query(text, values)).rows[0];
  const people = (
    await database.query(`select id from person where name in ('Nadia Orme', 'Kit Sorrell') order by name`)
  ).rows;
  const { workspaceId } = await one(`select workspace_id as "workspaceId" from person where id = $1`, [people[0].id]);
  const work = `select id from task where workspace_id = '${workspaceId}' and state = 'open' and due_on > '2026-11-24' order by due_on, id limit ${HANDED_ON}`;
  const tasks = (await database.query(work)).rows.map(({ id }) => id);
  const hear = () =>
    database.query(
      `select graphile_worker.add_job(job, json_build_object('workspaceId', $1::text), job_key := job || ':' || $1::text)
       from unnest(array['hear', 'push']) job`,
      [workspaceId],
    );
  const settled = async () =>
    (
      await one(
        `select not exists (select from untold)
           and not exists (select from message where mail in ('undecided', 'waits') or push in ('undecided', 'waits')) as is`,
      )
    ).is;
  const give = (personId) =>
    database.query('update task set assignee_id = $1 where id = any($2::uuid[])', [personId, tasks]);
  const untilSettled = async () => {
    const began = Date.now();
    while (!(await settled()) && Date.now() - began < MOST_LIST_MS) {
      await hear();
      await pause(300);
    }
  };
  const devices = await startDevices(database, workspaceId, people);
  await give(people[0].id);
  await untilSettled();
  await database.query(`delete from message; delete from mail where kind = 'message'`);
  const total = { tasks: 0, kills: 0, missing: 0, twice: 0, lines: 0, mailsMissing: 0, mailsTwice: 0 };
  Object.assign(total, { signs: 0, signsMissing: 0, signsAgain: 0 });
  for (let to = 1; total.kills < BELL_KILLS; to = 1 - to) {
    await give(people[to].id);
    await hear();
    await pause(random(2500));
    const which = [['web'], ['worker'], ['web', 'worker']][random(3)];
    await Promise.all(which.map(kill));
    total.kills++;
    await Promise.all(which.map(start));
    // Whoever fell holds what it was sending: as if that had run out.
    await database.query('update message set push_held = null');
    await untilSettled();
    const told = await one(
      `select coalesce(sum(more + 1), 0)::int as n from message where person_id = $1 and kind = 'hands' and (title like '%yours from%' or text like 'yours now%')`,
      [people[to].id],
    );
    total.tasks += tasks.length;
    total.missing += Math.max(0, tasks.length - told.n);
    total.twice += Math.max(0, told.n - tasks.length);
    const lines = await one(`select count(*)::int as n from message where mail = 'sent'`);
    const mailed = await one(
      `select coalesce(sum(regexp_count(text, 'Open: ')), 0)::int as n from mail where kind = 'message'`,
    );
    total.lines += lines.n;
    total.mailsMissing += Math.max(0, lines.n - mailed.n);
    total.mailsTwice += Math.max(0, mailed.n - lines.n);
    console.log(
      `  kill ${total.kills}: ${which.join(' and ')}, ${told.n} of ${tasks.length} told, ${mailed.n} of ${lines.n} lines mailed`,
    );
    const signs = (await database.query(`select id from message where push = 'sent'`)).rows;
    const came = devices.takeAway();
    total.signs += signs.length;
    // Gathered ones come under the tag of the first of theirs: of a person there is one sign at least.
    total.signsMissing += Math.max(0, Math.min(1, signs.length) - came.length);
    if (signs.length <= 3)
      total.signsMissing += signs.filter(({ id }) => !came.includes(id.replaceAll('-', ''))).length;
    total.signsAgain += came.length - new Set(came).size;
    await database.query(`delete from message; delete from mail where kind = 'message'`);
  }
  await devices.stop();
  return total;
}

/** A phone for each, and where it is pushed to: what comes is known by its topic, which is the same for the same sign. */
async function startDevices(database, workspaceId, people) {
  let topics = [];
  const server = createServer((request, response) => {
    request.resume();
    request.on('end', () => {
      topics.push(request.headers.topic);
      response.writeHead(201).end();
    });
  });
  await new Promise((resolve) => server.listen(0, '127.0.0.1', resolve));
  for (const { id } of people) {
    const keys = createECDH('prime256v1').generateKeys('base64url');
    await database.query(
      `insert into push_device (workspace_id, id, person_id, endpoint, p256dh, auth, name, added_at)
       values ($1, gen_random_uuid(), $2, $3, $4, $5, 'phone', now())`,
      [workspaceId, id, `http://127.0.0.1:${server.address().port}/${id}`, keys, randomBytes(16).toString('base64url')],
    );
  }
  return {
    takeAway() {
      const came = topics;
      topics = [];
      return came;
    },
    stop: () => new Promise((resolve) => server.close(resolve)),
  };
}

/** Waits for the last of them, and counts what has come: by the addresses, each of which was invited once. */
async function countMails(database, invited) {
  const one = async (text) => (await database.query(text)).rows[0].n;
  const began = Date.now();
  const waiting = () => one(`select count(*)::int as n from mail where state = 'waiting'`);
  while ((await waiting()) > 0 && Date.now() - began < MOST_POST_MS) await pause(500);
  const to = `substring(raw from 'invited[0-9]+@faults[.]example')`;
  const come = await one(
    `select count(distinct ${to})::int as n from received_mail where raw like '%@faults.example%'`,
  );
  return {
    all: invited,
    missing: invited - come,
    twice: await one(
      `select count(*)::int as n from (select 1 from received_mail where raw like '%@faults.example%' group by ${to} having count(*) > 1) twice`,
    ),
    again: await one(`select count(*)::int as n from received_mail where times > 1`),
  };
}

/** The processes that a process has begun. */
function partsOf(parent) {
  return readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .filter((pid) => {
      try {
        // The name in brackets may hold anything; the parent is the second field behind it (proc(5)).
        return Number(readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ').at(-1).split(' ')[1]) === parent;
      } catch {
        // It has ended meanwhile.
        return false;
      }
    })
    .map(Number);
}

function pause(milliseconds) {
  return new Promise((resolve) => setTimeout(resolve, milliseconds));
}

/** Whole numbers below a bound, the same every time. */
function randomFrom(seed) {
  let state = seed;
  return (bound) => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0;
    return Math.floor((state / 2 ** 32) * bound);
  };
}
