import { afterAll, beforeAll, expect, it } from 'vitest';
import { givenTo } from '../core/index.ts';
import { runMaking } from './runs/making.ts';
import { allSchedules } from './testing/schedules.ts';
import { type Agent, silent, type TestServer, testServer } from './testing/test-server.ts';

let server: TestServer;
let ines: Agent;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
});
afterAll(() => server.stop());

let turn = 0;
/** One after the other, so that all have their turn. */
const inTurn = <T>(choices: readonly T[]): T => choices[turn++ % choices.length] as T;

const answers: { readonly what: string; readonly status: number }[] = [];
async function ask(what: string, asked: Promise<{ status: number; body: { changeId?: string } }>) {
  const { status, body } = await asked;
  answers.push({ what, status });
  return status === 200 ? (body.changeId ?? null) : null;
}

/** Does something and takes it back, as often as it is told. */
async function repeatedly(rounds: number, what: string, act: () => Promise<string | null>) {
  for (let i = 0; i < rounds; i++) {
    const changeId = await act();
    if (changeId === null) continue;
    await ask(`impact of undoing: ${what}`, ines.post(`/api/changes/${changeId}/undo/impact`));
    await ask(`undo: ${what}`, ines.post(`/api/changes/${changeId}/undo`));
  }
}

it('many people and runs at once wait for each other, are refused with a reason or are begun again; nothing is doubled', async () => {
  const [kit, nadia] = [(await server.person('Kit Sorrell')).id, (await server.person('Nadia Orme')).id];
  const openTasks = (count: number, which = 'true') =>
    server.source.query<{ id: string; version: number }[]>(
      `select id, version from task where state = 'open' and work_on >= '2026-11-24' and ${which}
       order by md5(id::text || $2) limit $1`,
      [count, String(turn++)],
    );
  const manyTasks = async () => {
    const deed = inTurn([
      { kind: 'give', personId: nadia },
      { kind: 'skip', reason: 'The quay is shut.' },
      { kind: 'delete' },
      { kind: 'move', by: { amount: 1, unit: 'day' } },
    ]);
    return ask(`tasks: ${deed.kind}`, ines.post('/api/tasks/changes').send({ tasks: await openTasks(25), deed }));
  };
  const manySchedules = async () => {
    const schedules = await allSchedules(ines);
    const set = inTurn([
      { assignment: givenTo(inTurn([kit, nadia])) },
      { pauses: [{ from: '2026-11-26', to: '2026-12-10' }] },
      { isDeleted: true },
    ]);
    const changes = schedules.filter((_, i) => (i + turn) % 4 === 0).map(({ id, version }) => ({ id, version, set }));
    return ask('schedules', ines.post('/api/schedules/changes').send({ changes }));
  };
  const oneTask = async () => {
    const [task] = await openTasks(
      1,
      `content_id in (select id from work_content where demands = '[]' and check_lines = '[]')`,
    );
    if (!task) return null;
    return ask('finish', ines.post(`/api/tasks/${task.id}/finish`).send({}));
  };
  const aRun = async () => {
    await runMaking(await server.scope(), 'byHand', silent);
    return null;
  };
  await Promise.all([
    repeatedly(2, 'tasks', manyTasks),
    repeatedly(2, 'tasks', manyTasks),
    repeatedly(1, 'schedules', manySchedules),
    repeatedly(1, 'schedules', manySchedules),
    repeatedly(4, 'finish', oneTask),
    repeatedly(4, 'finish', oneTask),
    repeatedly(2, 'run', aRun),
  ]);
  expect(answers.filter(({ status }) => ![200, 404, 409].includes(status))).toEqual([]);
  expect(answers.filter(({ what, status }) => status === 200 && what.startsWith('undo')).length).toBeGreaterThan(5);
  const doubled = await server.source.query(
    `select schedule_id, nominal_date, step_key, head from task where schedule_id is not null group by 1, 2, 3, 4 having count(*) > 1`,
  );
  expect(doubled).toEqual([]);
}, 90_000);
