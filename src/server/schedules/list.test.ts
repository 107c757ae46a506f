import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { LINES_A_PAGE, type Schedule, scheduleEndpoints, scheduleSchema } from '../../contract/index.ts';
import { dayOfIso, isDated, NOBODY_YET, onlyPersonOf, shownDays } from '../../core/index.ts';
import { allSchedules, pause } from '../testing/schedules.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';

let server: TestServer;
let ines: Agent;
beforeEach(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
});
afterEach(() => server.stop());

const list = async (query: object = {}): Promise<Schedule[]> =>
  (await allSchedules(ines, query)).map((schedule) => scheduleSchema.parse(schedule));
const named = async (name: string, asset?: string): Promise<Schedule> => {
  const found = (await list()).find(
    (schedule) => schedule.template.name === name && (asset === undefined || schedule.asset?.name === asset),
  );
  if (!found) throw new Error(`the demo has no schedule of ${name}`);
  return found;
};

describe('the table of schedules', () => {
  it('holds all of them, each with its phrase, next date and the last eight', async () => {
    const schedules = await list();
    expect(schedules).toHaveLength(239);
    expect(await named('Payroll run')).toMatchObject({
      phrase: '15th and the last working day of each month, or the working day before',
      next: '2026-11-30',
      timesAYear: 24,
      who: 'Maud Ferrier',
    });
    for (const { lastEight } of schedules) {
      expect(lastEight.length).toBeLessThanOrEqual(8);
      expect(lastEight.map(({ on }) => on)).toEqual([...lastEight.map(({ on }) => on)].sort());
    }
  });

  it('leaves out what has not appeared from the last eight', async () => {
    const { lastEight } = await named('Pontoon inspection', 'Pontoon C');
    expect(lastEight.at(-1)).toMatchObject({ on: '2026-11-24' });
    expect(lastEight.every(({ state }) => state !== 'coming')).toBe(true);
  });

  it('shows today as next until today’s is done', async () => {
    const pontoon = await named('Pontoon inspection', 'Pontoon C');
    expect(pontoon.next).toBe('2026-11-24');
    const task = pontoon.lastEight.at(-1)?.taskId ?? '';
    for (const { key } of (await ines.get(`/api/tasks/${task}`)).body.steps)
      await ines.put(`/api/tasks/${task}/ticks`).send({ key, ticked: true });
    await ines.post(`/api/tasks/${task}/finish`).expect(200);
    expect((await named('Pontoon inspection', 'Pontoon C')).next).toBe('2026-12-01');
  });

  it('counts what is late', async () => {
    const late = (await list()).reduce((sum, { lateCount }) => sum + lateCount, 0);
    // A schedule is as late as its main tasks; the tideline counts those of their own in a set as well.
    const [steps] = await server.source.query(
      `select count(*)::int as count from task where step_key <> '' and state in ('open', 'underWay') and due_on < '2026-11-24'
       and workspace_id = (select workspace_id from person where name = 'Ines Calloway')`,
    );
    expect(late + steps.count).toBe((await ines.get('/api/tideline')).body.late);
    expect(late).toBeGreaterThan(0);
  });

  it('says which are paused, which have ended and which have a problem', async () => {
    const paused = (await list()).filter(({ state }) => state === 'paused');
    expect(paused).toHaveLength(1);
    await server.source.query(
      `update schedule set recurrence = jsonb_set(recurrence, '{end}', '{"kind":"on","date":"2026-10-30"}') where id = $1`,
      [(await named('Bank reconciliation')).id],
    );
    expect(await named('Bank reconciliation')).toMatchObject({ state: 'ended', next: null });
    await server.source.query(
      `insert into holiday (workspace_id, date, name) select id, d::date, 'closed' from workspace, generate_series(date '2026-11-01', date '2028-06-30', '1 day') d where name = 'Tern Quay' on conflict do nothing`,
    );
    // Skipped through the closure, it goes on after it; what must find a working day can't be planned.
    expect(await named('Deposit review')).toMatchObject({ state: 'running', next: '2028-09-29' });
    expect(await named('Payroll run')).toMatchObject({ state: 'problem', next: null });
    expect((await named('Payroll run')).problem).toContain('no working day within');
  });

  it('finds the next date of a rule that comes once in years', async () => {
    const calibration = await named('Fuel meter calibration');
    expect(calibration.next).toBe('2027-03-09');
    const leap = { kind: 'years', every: 1, months: [2], on: [{ kind: 'date', day: 29 }], missing: 'omit' };
    await server.source.query(
      `update schedule set recurrence = jsonb_set(recurrence, '{rules}', $2::jsonb) where id = $1`,
      [calibration.id, JSON.stringify([leap])],
    );
    expect((await named('Fuel meter calibration')).next).toBe('2028-02-29');
  });

  it('can be asked for one template’s', async () => {
    const { template } = await named('Gas and shore power');
    const ofIt = await list({ templateId: template.id });
    expect(ofIt).toHaveLength(32);
    expect(new Set(ofIt.map(({ template: { id } }) => id))).toEqual(new Set([template.id]));
    await ines.get('/api/schedules').query({ templateId: 'x' }).expect(422);
    await ines.get('/api/schedules/fitting').query({ from: '-00:01', to: '2026-10-01' }).expect(422);
  });

  const page = async (query: object = {}) =>
    scheduleEndpoints.list.answer.parse((await ines.get('/api/schedules').query(query).expect(200)).body);

  it('comes in pages from any place, each line as the schedule whole says it', async () => {
    const first = await page({ order: 'name' });
    const second = await page({ order: 'name', start: LINES_A_PAGE });
    expect([first.counts, second.counts]).toEqual(Array(2).fill({ fitting: 239, all: 239, problems: 0 }));
    const lines = [...first.lines, ...second.lines];
    while (lines.length < first.counts.all) lines.push(...(await page({ order: 'name', start: lines.length })).lines);
    const whole = await list();
    expect(lines.map(({ id }) => id)).toEqual(whole.map(({ id }) => id));
    for (const [i, { template, ...line }] of lines.entries()) expect(whole[i]).toMatchObject({ ...line, template });
    expect((await page({ start: 4000 })).lines).toEqual([]);
  });

  it('tells ids from any place, with a mark that stays as long as none of those that fit has changed', async () => {
    const ids = async (query: object) =>
      scheduleEndpoints.fitting.answer.parse((await ines.get('/api/schedules/fitting').query(query).expect(200)).body);
    const all = await ids({ order: 'name' });
    const rest = await ids({ order: 'name', start: 30 });
    expect([all.ids.length, all.more, rest.mark, rest.isAll]).toEqual([239, null, all.mark, true]);
    expect(rest.ids).toEqual(all.ids.slice(30));
    expect(rest.versions).toEqual(all.versions.slice(30));
    await pause(ines, await named('Payroll run'));
    expect((await ids({ order: 'name' })).mark).not.toBe(all.mark);
  });

  it('is ordered by next date, those without one last, or by who has it', async () => {
    const dates = (await page()).lines.map(({ next }) => next ?? '9999');
    expect(dates).toEqual([...dates].sort());
    const people = (await page({ order: 'who' })).lines.map(({ who }) => (who === NOBODY_YET ? '' : who.toLowerCase()));
    expect(people).toEqual([...people].sort());
  });

  it('leaves out what does not fit, and counts it', async () => {
    const nadia = await server.person('Nadia Orme');
    const whole = await list();
    const hers = await server.source.query<{ id: string }[]>('select id from client where usual_person_id = $1', [
      nadia.id,
    ]);
    const isUsual = ({ assignment, client }: Schedule) =>
      assignment.kind === 'usualPerson' && hers.some(({ id }) => id === client?.id);
    const each: [object, (schedule: Schedule) => boolean][] = [
      [
        { find: 'pontoon TUE' },
        ({ template, phrase }) => template.name.startsWith('Pontoon') && phrase.includes('Tue'),
      ],
      [{ find: 'orme' }, ({ assignment }) => JSON.stringify(assignment).includes(nadia.id)],
      // By name, as one of the dock crew, or as whoever looks after the client.
      [
        { person: nadia.id },
        (schedule) =>
          /dock crew/.test(JSON.stringify(schedule.assignment)) ||
          JSON.stringify(schedule.assignment).includes(nadia.id) ||
          isUsual(schedule),
      ],
      [{ category: 'inspection' }, ({ template }) => template.category === 'inspection'],
      [{ state: 'paused' }, ({ state }) => state === 'paused'],
      [{ state: 'late' }, ({ lateCount }) => lateCount > 0],
      [{ state: 'nobody' }, ({ assignment }) => assignment.kind === 'nobody'],
    ];
    for (const [query, fits] of each) {
      const { counts } = await page(query);
      const wanted = whole.filter(fits).map(({ id }) => id);
      expect([query, counts.fitting, counts.all]).toEqual([query, wanted.length, 239]);
      expect(new Set((await list(query)).map(({ id }) => id))).toEqual(new Set(wanted));
    }
    expect((await list({ state: 'late' })).length).toBeGreaterThan(0);
    expect((await list({ find: 'pontoon' })).length).toBeGreaterThan(0);
  });

  it('can be of those with a date in some days, of two years at most', async () => {
    const onTuesday = await list({ from: '2026-12-01', to: '2026-12-01' });
    const calendar = await (await server.scope()).calendar();
    const day = dayOfIso('2026-12-01');
    const wanted = (await list()).filter((one) => shownDays(one, calendar, day, day).some(isDated));
    expect(onTuesday.map(({ id }) => id)).toEqual(wanted.map(({ id }) => id));
    expect(onTuesday.length).toBeGreaterThan(3);
    for (const query of [
      { from: '2026-12-02', to: '2026-12-01' },
      { from: '0001-01-01', to: '9999-12-31' },
    ])
      await ines.get('/api/schedules').query(query).expect(422);
  });

  it('comes to figures, of those that fit', async () => {
    const { template } = await named('Gas and shore power');
    const whole = await list({ templateId: template.id });
    const { body } = await ines.get('/api/schedules/figures').query({ templateId: template.id }).expect(200);
    expect(body).toEqual({
      schedules: 32,
      clients: new Set(whole.map(({ client }) => client?.id)).size,
      people: new Set(whole.flatMap(({ assignment }) => onlyPersonOf(assignment) ?? [])).size,
      timesAYear: whole.reduce((sum, { state, timesAYear }) => sum + (state === 'running' ? timesAYear : 0), 0),
    });
  });

  it('is empty for a workspace that has only begun', async () => {
    const ada = await server.browser('Ada Winn');
    expect((await ada.get('/api/schedules').expect(200)).body).toEqual({
      start: 0,
      lines: [],
      counts: { fitting: 0, all: 0, problems: 0 },
    });
    expect((await ada.get('/api/tideline').expect(200)).body).toMatchObject({ late: 0, scope: 'all of Heron Yard' });
  });
});
