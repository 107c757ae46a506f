import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { impactSchema, stepsSchema } from '../../contract/index.ts';
import { listenAs } from '../testing/listening.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Agent;
const MANY = 2_418;
const FOLLOW = '01937000-0000-7000-8000-000000000001';
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  // As many more of one that was captured, told apart by their titles.
  const columns: { name: string }[] = await server.source.query(
    `select quote_ident(column_name) as name from information_schema.columns where table_schema = current_schema() and table_name = 'task'`,
  );
  const values = columns.map(({ name }) =>
    name === 'id'
      ? 'gen_random_uuid()'
      : name === 'set_id'
        ? 'gen_random_uuid()'
        : name === 'title'
          ? `'Buoy ' || n`
          : ['work_on', 'starts_on', 'appears_on', 'due_on'].includes(name)
            ? `date '2026-12-01' + n % 40`
            : name,
  );
  await server.source.query(
    `insert into task (${columns.map(({ name }) => name).join(', ')})
     select ${values.join(', ')} from (select * from task where title = 'Bin store gate, hinge') one, generate_series(1, ${MANY}) n`,
  );
});
afterAll(() => server.stop());

/** What is told of how far work is. */
const FOLLOW_UNDO = '01937eb0-beac-7000-8000-0000000000f2';
const stepsIn = (heard: string) =>
  [...heard.matchAll(/event: steps\ndata: (.*)\n/g)].map(([, data = '']) => stepsSchema.parse(JSON.parse(data)));

describe('all tasks that match', () => {
  it('are moved by three days in one go, and put back by one undo', async () => {
    const { tasks } = (await ines.get('/api/task-list/chosen').query({ find: 'buoy', order: 'due' }).expect(200)).body;
    expect(tasks).toHaveLength(MANY);
    const body = {
      tasks: tasks.map(({ id, version }: { id: string; version: number }) => ({ id, version })),
      deed: { kind: 'move', by: { amount: 3, unit: 'day' } },
      follow: FOLLOW,
    };
    const [ofInes, ofKit] = [await listenAs(server, 'Ines Calloway'), await listenAs(server, 'Kit Sorrell')];
    const days = async () =>
      (
        await server.source.query(
          `select md5(string_agg((to_jsonb(task) - 'version')::text, ',' order by title)) as of, min(work_on) as first from task where title like 'Buoy %'`,
        )
      )[0];
    const before = await days();
    const impact = impactSchema.parse((await ines.post('/api/tasks/changes/impact').send(body).expect(200)).body);
    expect(impact.figures.changed).toBe(MANY);
    const { changed, changeId } = (await ines.post('/api/tasks/changes').send(body).expect(200)).body;
    expect(changed).toBe(MANY);
    const expectTold = (follow: string) => {
      const told = stepsIn(ofInes.heard).filter(({ key }) => key === follow);
      expect(told.length).toBeGreaterThan(1);
      for (const { done, of } of told) {
        expect(of % MANY).toBe(0);
        expect(done).toBeLessThanOrEqual(of);
      }
    };
    expectTold(FOLLOW);
    expect((await days()).first).toBe('2026-12-04');
    await ines.post(`/api/changes/${changeId}/undo`).send({ follow: FOLLOW_UNDO }).expect(200);
    expect(await days()).toEqual(before);
    expectTold(FOLLOW_UNDO);
    expect(stepsIn(ofKit.heard)).toEqual([]);
    ofInes.close();
    ofKit.close();
  });
});
