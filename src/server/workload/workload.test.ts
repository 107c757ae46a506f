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

  it('tells of one site the work there and at what stands there, of whoever has any', async () => {
    const [{ id: site }] = await server.source.query(`select id from asset where name = 'Lee Quay'`);
    const { starts: mondays, rows, ...of } = await weeks({ site });
    expect(of).toMatchObject({ site: { id: site, name: 'Lee Quay' } });
    const all = await weeks();
    const byHand = await server.source.query(
      `select sum(t.estimate_minutes)::int as minutes from task t join asset a on a.id = t.asset_id
       where (a.id = $1 or a.site_id = $1) and t.due_on between $2::date and $2::date + 6 and t.state not in ('skipped', 'lapsed')`,
      [site, '2026-11-23'],
    );
    const week = mondays.indexOf('2026-11-23');
    const sum = rows.reduce((minutes, { cells }) => minutes + (cells[week]?.done ?? 0) + (cells[week]?.open ?? 0), 0);
    expect(sum).toBe(byHand[0].minutes);
    expect(sum).toBeGreaterThan(0);
    expect(rows.length).toBeLessThan(all.rows.length);
    expect(rows.some(({ cells }) => cells.some(({ foreseen }) => foreseen > 0))).toBe(true);
    for (const { person, cells } of rows)
      for (const [i, from] of mondays.entries()) {
        const cell = cells[i];
        const here = all.rows.find((row) => row.person?.id === person?.id)?.cells[i];
        expect(here?.capacity).toBe(cell?.capacity);
        if (i < week || i > week + 5) continue;
        const { body } = await ines
          .get('/api/workload/cell')
          .query({ ...(person ? { person: person.id } : {}), from, site })
          .expect(200);
        const minutes = (lines: readonly { estimateMinutes: number }[]) =>
          lines.reduce((added, { estimateMinutes }) => added + estimateMinutes, 0);
        expect([minutes(body.tasks), minutes(body.foreseen)]).toEqual([
          ...[(cell?.done ?? 0) + (cell?.open ?? 0), cell?.foreseen ?? 0],
        ]);
      }
    const [{ id: berth }] = await server.source.query(`select id from asset where not is_site limit 1`);
    await ines.get('/api/workload').query({ site: berth }).expect(404);
  });

  it('keeps turns fair: of one schedule’s turns one task goes in a week, to somebody who had fewer of them', async () => {
    const asked = { week: '2026-12-07', role: 'dock crew' };
    const { body } = await ines.get('/api/workload/evenable').query(asked).expect(200);
    const { tasks } = body as Evenable;
    const rows: { id: string; scheduleId: string; personId: string }[] = await server.source.query(
      `select id, schedule_id as "scheduleId", assignee_id as "personId" from task where id = any($1::uuid[]) and why->>'by' = 'turn'`,
      [tasks.map(({ id }) => id)],
    );
    expect(rows.length).toBeGreaterThan(1);
    const free = rows.filter(({ id }) => (tasks.find((one) => one.id === id)?.mayGoTo.length ?? 0) > 0);
    expect(free.length).toBeGreaterThan(0);
    expect(new Set(free.map(({ scheduleId }) => scheduleId)).size).toBe(free.length);
    for (const { id, scheduleId, personId } of free) {
      const had: { personId: string; times: number }[] = await server.source.query(
        `select assignee_id as "personId", count(*)::int as times from task where schedule_id = $1 and step_key = ''
           and due_on between '2026-10-19' and '2026-12-13' and state not in ('skipped', 'lapsed') group by 1`,
        [scheduleId],
      );
      const times = (who: string) => had.find((one) => one.personId === who)?.times ?? 0;
      const task = tasks.find((one) => one.id === id);
      for (const to of task?.mayGoTo ?? []) {
        expect(times(to)).toBeLessThan(times(personId));
        expect(task?.had?.[to]).toBe(times(to));
      }
      expect(task?.had?.[personId]).toBe(times(personId));
    }
    // Once one of a week was given to somebody, the others of it stay.
    const [one] = free;
    const edited = `update task set edited = $2::jsonb where id = $1`;
    await server.source.query(edited, [one?.id, '["assigneeId"]']);
    const { body: after } = await ines.get('/api/workload/evenable').query(asked).expect(200);
    const same = rows.filter(({ scheduleId }) => scheduleId === one?.scheduleId).map(({ id }) => id);
    expect((after as Evenable).tasks.filter(({ id, mayGoTo }) => same.includes(id) && mayGoTo.length > 0)).toEqual([]);
    await server.source.query(edited, [one?.id, '[]']);
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

  it('is evened out among those whose shifts lie while the work is to be done', async () => {
    const week = '2026-12-07';
    const evenable = async () =>
      (await ines.get('/api/workload/evenable').query({ week, role: 'yard' }).expect(200)).body as Evenable;
    const timed = async () => {
      const { tasks } = await evenable();
      return tasks.filter(({ title, mayGoTo }) => title.startsWith('Lifts') && mayGoTo.length > 0);
    };
    const [bram, selwyn] = [(await server.person('Bram Hollis')).id, (await server.person('Selwyn Dace')).id];
    const [before] = (await timed()).filter(({ personId }) => personId === bram);
    expect(before?.mayGoTo).toContain(selwyn);
    await server.source.query(`update task set start_time = '08:30', due_time = '10:00' where id = $1`, [before?.id]);
    const late = JSON.stringify([
      { week: 0, weekdays: [1, 2, 3, 4, 5], from: '13:00', to: '21:00', breakMinutes: 30, role: null },
    ]);
    const { shifts } = await server.person('Selwyn Dace');
    await server.source.query('update person set shifts = $2 where id = $1', [selwyn, late]);
    const { tasks } = await evenable();
    expect(tasks.find(({ id }) => id === before?.id)?.mayGoTo).toEqual([bram]);
    const moves = [{ id: before?.id, version: before?.version, to: selwyn }];
    await ines.post('/api/workload/moves').send({ moves }).expect(409);
    await server.source.query('update person set shifts = $2 where id = $1', [selwyn, JSON.stringify(shifts)]);
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
