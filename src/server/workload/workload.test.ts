import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Evenable, LoadOfPerson } from '../../contract/index.ts';
import { evenOut } from '../../core/index.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Agent;
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
});
afterAll(() => server.stop());

const weeks = async (query: object = {}, by = ines) =>
  (await by.get('/api/workload').query(query).expect(200)).body as { starts: string[]; rows: LoadOfPerson[] };
const rowOf = (rows: readonly LoadOfPerson[], name: string) => rows.find(({ person }) => person?.name === name);

describe('the workload', () => {
  it('tells of everybody by the week what is made, foreseen, and can be done', async () => {
    const { starts: mondays, rows } = await weeks();
    expect(mondays).toHaveLength(12);
    expect(mondays).toContain('2026-11-23');
    const at = mondays.indexOf('2026-12-07');
    const bram = rowOf(rows, 'Bram Hollis');
    const [made] = await server.source.query(
      `select sum(estimate_minutes)::int as minutes from task t join person p on p.id = t.assignee_id
       where p.name = 'Bram Hollis' and due_on between '2026-12-07' and '2026-12-13' and state not in ('skipped', 'lapsed')`,
    );
    expect(bram?.cells[at]).toMatchObject({ open: made.minutes, capacity: 2250, isAway: false });
    const past = rowOf(rows, 'Nadia Orme')?.cells[0];
    expect(past?.done).toBeGreaterThan(0);
    expect(rowOf(rows, 'Nadia Orme')?.cells.at(-1)?.foreseen).toBeGreaterThan(0);
    // Oskar is away from 21 December on, over the holidays.
    expect(rowOf(rows, 'Oskar Tindle')?.cells[mondays.indexOf('2026-12-21')]).toMatchObject({
      capacity: 0,
      isAway: true,
    });
    expect(rowOf(rows, 'Gwen Astley')?.cells.every(({ capacity }) => capacity === 0) ?? true).toBe(true);
  });

  it('tells the same by the day: it adds up to the week, with the hours and the leave of each day, and what is behind it', async () => {
    const { starts: days, rows } = await weeks({ by: 'day', from: '2026-12-09' });
    expect(days).toHaveLength(28);
    // From the Monday of that week on.
    expect(days[0]).toBe('2026-12-07');
    const { starts: mondays, rows: byWeek } = await weeks();
    for (const { person, cells } of rows) {
      const week = byWeek.find((row) => row.person?.id === person?.id)?.cells[mondays.indexOf('2026-12-07')];
      const sum = (figure: 'done' | 'open' | 'foreseen' | 'capacity') =>
        cells.slice(0, 7).reduce((all, cell) => all + cell[figure], 0);
      expect([sum('done'), sum('open'), sum('foreseen'), sum('capacity')], person?.name).toEqual([
        ...[week?.done ?? 0, week?.open ?? 0, week?.foreseen ?? 0, week?.capacity ?? 0],
      ]);
    }
    const oskar = rowOf(rows, 'Oskar Tindle');
    const on = (date: string) => oskar?.cells[days.indexOf(date)];
    expect([on('2026-12-18')?.capacity, on('2026-12-19')?.capacity]).toEqual([420, 0]);
    expect([on('2026-12-18')?.isAway, on('2026-12-19')?.isAway, on('2026-12-21')?.isAway]).toEqual([
      false,
      false,
      true,
    ]);
    const bram = rowOf(rows, 'Bram Hollis');
    const { body } = await ines
      .get('/api/workload/cell')
      .query({ person: bram?.person?.id, from: '2026-12-08', by: 'day' })
      .expect(200);
    expect(body.tasks.length).toBeGreaterThan(0);
    expect(body.tasks.every(({ dueOn }: { dueOn: string }) => dueOn === '2026-12-08')).toBe(true);
    const minutes = body.tasks.reduce((all: number, one: { estimateMinutes: number }) => all + one.estimateMinutes, 0);
    expect(minutes).toBe(bram?.cells[1]?.open);
  });

  it('lists the tasks behind a figure, and adds up to it, of nobody and beyond what is kept as well', async () => {
    const nadia = (await server.person('Nadia Orme')).id;
    const sum = (of: readonly { estimateMinutes: number }[]) => of.reduce((all, one) => all + one.estimateMinutes, 0);
    for (const from of ['2026-10-12', '2026-12-07']) {
      const { starts: mondays, rows } = await weeks({ from });
      expect(
        sum(
          (rows.find(({ person }) => person === null)?.cells ?? []).map((cell) => ({ estimateMinutes: cell.foreseen })),
        ),
      ).toBeGreaterThan(0);
      for (const [person, row] of [
        [{ person: nadia }, rowOf(rows, 'Nadia Orme')],
        [{}, rows.find((one) => one.person === null)],
      ] as const)
        for (const week of mondays.slice(4, 9)) {
          const { body } = await ines
            .get('/api/workload/cell')
            .query({ ...person, from: week })
            .expect(200);
          const cell = row?.cells[mondays.indexOf(week)];
          expect(sum(body.tasks), week).toBe((cell?.done ?? 0) + (cell?.open ?? 0));
          expect(sum(body.foreseen), week).toBe(cell?.foreseen ?? 0);
          expect(body.count).toBe(body.tasks.length + body.foreseen.length);
        }
    }
  });

  it('is evened out by moves, each to somebody who is there, in one go that one undo takes back', async () => {
    const asked = { week: '2026-12-07', role: 'yard' };
    const { body } = await ines.get('/api/workload/evenable').query(asked).expect(200);
    const { people, tasks } = body as Evenable;
    const moves = evenOut(people, tasks);
    expect(moves.length).toBeGreaterThan(0);
    const versionOf = new Map(tasks.map(({ id, version }) => [id, version]));
    const sent = moves.map(({ taskId, to }) => ({ id: taskId, version: versionOf.get(taskId) ?? 0, to }));
    // Whoever has been away since it was proposed gets none of it.
    const { to } = sent[0] ?? { to: '' };
    await server.source.query(
      `insert into leave (workspace_id, id, version, person_id, from_on, to_on, state, note, asked_at)
       select workspace_id, '019e5eb8-0000-7000-8000-0000000000aa', 1, id, $2, $3, 'given', '', now() from person where id = $1`,
      [to, '2026-12-07', '2026-12-11'],
    );
    const gone = await ines.post('/api/workload/moves').send({ moves: sent }).expect(409);
    expect(gone.body.errors[0].message).toMatch(/ can’t have “.* on its day any more/);
    await server.source.query('delete from leave where person_id = $1 and from_on = $2', [to, '2026-12-07']);
    const { body: done } = await ines.post('/api/workload/moves').send({ moves: sent }).expect(200);
    expect(done.moved).toBe(moves.length);
    const again = (await ines.get('/api/workload/evenable').query(asked).expect(200)).body as Evenable;
    expect(evenOut(again.people, again.tasks)).toEqual([]);
    const stale = await ines.post('/api/workload/moves').send({ moves: sent }).expect(409);
    expect(stale.body.errors[0].message).toMatch(/has been changed or begun since/);
    await ines.post(`/api/changes/${done.changeId}/undo`).expect(200);
    const back = (await ines.get('/api/workload/evenable').query(asked).expect(200)).body as Evenable;
    expect(back.tasks.map(({ id, personId }) => [id, personId])).toEqual(
      tasks.map(({ id, personId }) => [id, personId]),
    );
  });

  it('is for those who plan to move, and tells what makes no sense', async () => {
    const nadia = await server.browser('Nadia Orme');
    const moves = [
      { id: '019e5eb8-0000-7000-8000-000000000000', version: 1, to: (await server.person('Kit Sorrell')).id },
    ];
    await nadia.post('/api/workload/moves').send({ moves }).expect(403);
    await nadia.get('/api/workload').expect(200);
    await ines.get('/api/workload/evenable').query({ week: '2026-12-07' }).expect(422);
    await ines.get('/api/workload/evenable').query({ week: '2026-11-02', role: 'yard' }).expect(409);
    const empty = await weeks({}, await server.browser('Ada Winn'));
    expect(empty.rows.map(({ person }) => person?.name)).toEqual(['Ada Winn']);
  });
});
