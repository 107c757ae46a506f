import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import supertest from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { seedWhenEmpty } from '../../../demo/seed.ts';
import { freePort, type OwnPostgres, startPostgres } from '../../../scripts/postgres.mjs';
import type { FillRow, Run } from '../../contract/index.ts';
import { givenTo } from '../../core/index.ts';
import { dataSource } from '../data-source.ts';
import { startServer } from '../server.ts';
import { TEST_NOW, testClock } from '../testing/clock.ts';
import { allSchedules } from '../testing/schedules.ts';
import { silent } from '../testing/test-server.ts';

/** A PostgreSQL of our own, to be stopped and started. */
let folder: string;
let postgres: OwnPostgres;
let port: number;
let server: Awaited<ReturnType<typeof startServer>>;
const start = async () => {
  postgres = await startPostgres({ folder: join(folder, 'postgres'), fast: true, port });
};

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'jolly-outage-'));
  port = await freePort();
  await start();
  const clock = testClock(TEST_NOW);
  server = await startServer({
    databaseUrl: postgres.url,
    filesFolder: join(folder, 'files'),
    port: 0,
    clock,
    log: silent,
    webFolder: null,
    roles: { web: true, worker: true },
    prepare: (source, files) => seedWhenEmpty(source, files, clock, { withEmptyWorkspace: false, origin: '' }),
  });
}, 120_000);
afterAll(async () => {
  await server.stop();
  await postgres.stop();
  await rm(folder, { recursive: true, force: true });
}, 60_000);

const query = async <Row>(text: string): Promise<Row[]> => {
  const source = await dataSource(postgres.url).initialize();
  try {
    return await source.query<Row[]>(text);
  } finally {
    await source.destroy();
  }
};
const soon = async <T>(look: () => Promise<T | null>): Promise<T> => {
  for (let tries = 0; tries < 300; tries++) {
    const seen = await look();
    if (seen !== null) return seen;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error('It never came.');
};

describe('a database that goes in the middle of a fill and of an edit, and comes back', () => {
  it('is said in words, loses nothing, and the fill goes on by itself: nothing missing, nothing double', async () => {
    const address = `http://127.0.0.1:${server.port}`;
    const ines = supertest.agent(address).set('Origin', address);
    const [person] = await query<{ id: string }>(`select id from person where name = 'Ines Calloway'`);
    await ines.post('/api/session/demo').send({ personId: person?.id }).expect(200);
    const schedules = await allSchedules(ines);
    const [{ id = '', version = 0 } = {}] = schedules;
    const edit = { changes: [{ id, version, set: { assignment: givenTo(null) } }] };

    const period = { from: '2027-01-01', to: '2027-12-31' };
    const { rows } = (await ines.post('/api/fills/rehearsal').send(period).expect(200)).body as { rows: FillRow[] };
    const expected = rows.reduce((sum, row) => sum + row.new, 0);
    // Somebody holds a schedule of the last batch, so that the fill stands in the middle for certain.
    const holder = new pg.Client({ connectionString: postgres.url });
    holder.on('error', () => undefined);
    await holder.connect();
    await holder.query('begin');
    const last = rows.findLast((row) => row.new > 0);
    await holder.query('select 1 from schedule where id = $1 for update', [last?.scheduleId]);
    const { run } = (await ines.post('/api/fills').send(period).expect(200)).body as { run: Run };
    const runNow = async (): Promise<Run> => (await ines.get(`/api/runs/${run.id}`)).body.run;
    // Some of it is made, not all.
    const begun = await soon(async () => {
      const now = await runNow();
      return now.made > 0 ? now : null;
    });
    expect(begun).toMatchObject({ state: 'running' });
    expect(begun.made).toBeLessThan(expected);

    await postgres.stop();
    const refused = await ines.post('/api/schedules/changes').send(edit).expect(503);
    expect(refused.body.detail).toBe(
      'The database does not answer just now. Nothing was saved; try again in a moment.',
    );
    await ines.get('/api/schedules').expect(503);
    await start();

    // The same edit, as it stood on the screen, is taken now.
    await soon(async () => ((await ines.post('/api/schedules/changes').send(edit)).status === 200 ? true : null));
    const done = await soon(async () => {
      const now = await runNow();
      return now?.state === 'done' ? now : null;
    });
    expect(done).toMatchObject({ made: expected, problemCount: 0 });
    const [found] = await query<{ made: string; doubled: string }>(
      `select count(*) as made, count(*) - count(distinct (schedule_id, nominal_date, step_key, head)) as doubled
       from task where run_id = '${run.id}'`,
    );
    expect(found).toEqual({ made: expected, doubled: 0 });
  }, 120_000);
});
