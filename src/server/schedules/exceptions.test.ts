import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { type Schedule, type ScheduleInput, scheduleSchema } from '../../contract/index.ts';
import { givenTo, PLAIN_TIMING, parsePhrase } from '../../core/index.ts';
import { pause } from '../testing/schedules.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { templateNamed } from '../testing/work.ts';

let server: TestServer;
let ines: Agent;
let template: string;
let maud: string;
beforeEach(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  template = (await templateNamed(server, ines, 'Berth invoicing')).id;
  maud = (await server.person('Maud Ferrier')).id;
});
afterEach(() => server.stop());

const input = (phrase: string, rest: Partial<ScheduleInput> = {}): ScheduleInput => ({
  templateId: template,
  clientId: null,
  assetId: null,
  assignment: givenTo(maud),
  recurrence: parsePhrase(phrase, { start: '2026-11-24' }),
  timing: PLAIN_TIMING,
  overlap: { kind: 'add' },
  pauses: [],
  exceptions: [],
  revisions: [],
  ...rest,
});
const save = async (of: ScheduleInput): Promise<Schedule> =>
  scheduleSchema.parse((await ines.post('/api/schedules').send(of).expect(200)).body.schedule);
interface TaskOf {
  id: string;
  on: string;
  nominal: string;
  state: string;
  start: string | null;
  who: string | null;
  zone: string | null;
}
const tasksOf = ({ id }: Schedule): Promise<TaskOf[]> =>
  server.source.query(
    `select k.id, k.work_on as on, k.nominal_date as nominal, k.state, k.start_time as start, k.zone, p.name as who
     from task k left join person p on p.workspace_id = k.workspace_id and p.id = k.assignee_id
     where k.schedule_id = $1 order by k.nominal_date`,
    [id],
  );
const days = async (schedule: Schedule) => (await tasksOf(schedule)).map(({ on }) => on);
const tick = async (task: string, agent: Agent = ines) => {
  for (const { key } of (await agent.get(`/api/tasks/${task}`)).body.steps)
    await agent.put(`/api/tasks/${task}/ticks`).send({ key, ticked: true }).expect(200);
};

describe('a schedule with changes by hand', () => {
  it('makes its tasks by them, each under its nominal date', async () => {
    const ines2 = (await server.person('Ines Calloway')).id;
    const schedule = await save(
      input('every Monday', {
        exceptions: [
          { kind: 'skip', date: '2026-12-07' },
          { kind: 'move', date: '2026-12-14', to: '2026-12-16' },
          { kind: 'add', date: '2026-12-18' },
          { kind: 'change', date: '2026-12-21', change: { startTime: '14:00', assigneeId: ines2 } },
        ],
      }),
    );
    const tasks = await tasksOf(schedule);
    expect(tasks.map(({ nominal, on }) => (nominal === on ? on : `${nominal}→${on}`))).toEqual([
      '2026-11-30',
      '2026-12-14→2026-12-16',
      '2026-12-18',
      '2026-12-21',
    ]);
    expect(tasks.at(-1)).toMatchObject({ start: '14:00', who: 'Ines Calloway' });
    expect(tasks[0]).toMatchObject({ start: null, who: 'Maud Ferrier' });
  });

  it('moves tasks that nobody has seen when they are put back', async () => {
    const of = input('every Monday', { exceptions: [{ kind: 'move', date: '2026-12-14', to: '2026-12-16' }] });
    const schedule = await save(of);
    const { body } = await ines
      .put(`/api/schedules/${schedule.id}`)
      .send({ ...of, exceptions: [], version: schedule.version })
      .expect(200);
    expect(body.tasks).toMatchObject({ changed: 1, made: 0, removed: 0 });
    expect(await days(schedule)).toContain('2026-12-14');
  });

  it('runs by its revisions, as one series', async () => {
    const schedule = await save(
      input('every Monday', {
        revisions: [
          {
            from: '2026-12-10',
            recurrence: parsePhrase('every Tuesday', { start: '2026-12-10' }),
            timing: { ...PLAIN_TIMING, startTime: '09:00' },
          },
        ],
      }),
    );
    expect(schedule).toMatchObject({
      phrase: 'every week on Mon',
      nextPhrase: { from: '2026-12-10', phrase: 'every week on Tue' },
    });
    expect(await days(schedule)).toEqual(['2026-11-30', '2026-12-07', '2026-12-15', '2026-12-22']);
    server.clock.set('2026-12-20T09:00');
    const later = (await ines.get(`/api/schedules/${schedule.id}`)).body;
    expect(later).toMatchObject({ phrase: 'every week on Tue', nextPhrase: null });
    expect((await tasksOf(schedule)).map(({ start }) => start)).toEqual([null, null, '09:00', '09:00']);
  });

  it('keeps closed seasons, pauses, reminders and a zone, and gives them back', async () => {
    const of = input('every Friday, not in Jan', {
      pauses: [{ from: '2026-12-01', to: '2026-12-12' }],
      timing: {
        ...PLAIN_TIMING,
        dueTime: '17:00',
        zone: 'Australia/Sydney',
        reminders: [{ offset: { amount: -1, unit: 'workingDay' }, time: '09:00' }],
      },
    });
    const schedule = await save(of);
    expect(schedule).toMatchObject({ phrase: 'every week on Fri, not in Jan', pauses: of.pauses, timing: of.timing });
    expect(await days(schedule)).toEqual(['2026-11-27', '2026-12-18']);
    expect((await tasksOf(schedule))[0]?.zone).toBe('Australia/Sydney');
  });

  it('is late by the clock of its zone', async () => {
    const schedule = await save(
      input('every day', { timing: { ...PLAIN_TIMING, dueTime: '17:00', zone: 'Australia/Sydney' } }),
    );
    const [today] = await tasksOf(schedule);
    // 10:40 in London is 21:40 in Sydney.
    expect((await ines.get(`/api/tasks/${today?.id}`)).body).toMatchObject({
      on: '2026-11-24',
      late: true,
      zone: 'Australia/Sydney',
    });
  });

  it.each<[string, Partial<ScheduleInput> | object, string, string]>([
    [
      'a person from elsewhere',
      {
        exceptions: [
          { kind: 'change', date: '2026-12-14', change: { assigneeId: '0193a7b0-0000-7000-8000-000000000000' } },
        ],
      },
      'exceptions.0.change.assigneeId',
      'no such person',
    ],
    [
      'a pause that ends before it begins',
      { pauses: [{ from: '2026-12-10', to: '2026-12-01' }] },
      'pauses.0.to',
      'resumes before it pauses',
    ],
    [
      'a zone that does not exist',
      { timing: { ...PLAIN_TIMING, zone: 'Europe/Atlantis' } },
      'timing.zone',
      'no such time zone',
    ],
    [
      'a year closed throughout',
      {
        recurrence: {
          ...parsePhrase('every Friday'),
          closed: { seasons: [{ from: '01-01', to: '12-31' }], dates: 'omit' },
        },
      },
      'recurrence.closed.seasons',
      'Closed all year',
    ],
    [
      'a foreign rule finer than a day',
      { recurrence: { ...parsePhrase('every Friday'), rules: [{ kind: 'rrule', text: 'FREQ=HOURLY' }] } },
      'recurrence.rules.0.text',
      'finer than a day',
    ],
    [
      'an interval of 0',
      { recurrence: { ...parsePhrase('every Friday'), rules: [{ kind: 'workingDays', every: 0 }] } },
      'recurrence.rules.0.every',
      'At least 1',
    ],
    [
      'a rule on completion among others',
      {
        recurrence: {
          ...parsePhrase('every Friday'),
          rules: [...parsePhrase('every Friday').rules, ...parsePhrase('2 weeks after completion').rules],
        },
      },
      'recurrence.rules',
      'stands alone',
    ],
    [
      'a revision that never happens',
      {
        revisions: [
          { from: '2027-01-01', recurrence: parsePhrase('31st of Feb, where there is one'), timing: PLAIN_TIMING },
        ],
      },
      'revisions.0.recurrence.rules',
      'never happens',
    ],
    [
      'two revisions on one day',
      {
        revisions: [1, 2].map(() => ({
          from: '2027-01-01',
          recurrence: parsePhrase('every Friday'),
          timing: PLAIN_TIMING,
        })),
      },
      'revisions',
      'begin on the same day',
    ],
  ])('refuses %s in words', async (_, rest, path, words) => {
    const { body } = await ines
      .post('/api/schedules')
      .send({ ...input('every Monday'), ...rest })
      .expect(422);
    const found = body.errors.find((error: { path: string }) => error.path === path);
    expect(found, JSON.stringify(body.errors)).toBeDefined();
    expect(found.message).toContain(words);
  });
});

describe('changing what was changed by hand', () => {
  it('is undone as a whole, with its tasks', async () => {
    const of = input('every Monday');
    const schedule = await save(of);
    const before = await days(schedule);
    const { body } = await ines
      .put(`/api/schedules/${schedule.id}`)
      .send({
        ...of,
        version: schedule.version,
        exceptions: [{ kind: 'skip', date: '2026-12-07' }],
        pauses: [{ from: '2026-12-20', to: null }],
      })
      .expect(200);
    expect(await days(schedule)).toEqual(['2026-11-30', '2026-12-14']);
    await ines.post(`/api/changes/${body.changeId}/undo`).expect(200);
    expect(await days(schedule)).toEqual(before);
    expect((await ines.get(`/api/schedules/${schedule.id}`)).body).toMatchObject({ exceptions: [], pauses: [] });
  });

  it('is refused when someone else has changed the schedule meanwhile', async () => {
    const of = input('every Monday');
    const schedule = await save(of);
    await pause(ines, schedule);
    const { body } = await ines
      .put(`/api/schedules/${schedule.id}`)
      .send({ ...of, version: schedule.version, exceptions: [{ kind: 'skip', date: '2026-12-07' }] })
      .expect(409);
    expect(body.detail).toContain('Someone else changed this schedule');
    expect((await ines.get(`/api/schedules/${schedule.id}`)).body.exceptions).toEqual([]);
  });

  it('leaves alone a task that someone is at work on, wherever the rule would have it', async () => {
    const of = input('every day');
    const schedule = await save(of);
    const [today] = await tasksOf(schedule);
    await ines.post(`/api/tasks/${today?.id}/start`).expect(200);
    const { body } = await ines
      .put(`/api/schedules/${schedule.id}`)
      .send({ ...of, version: schedule.version, exceptions: [{ kind: 'move', date: '2026-11-24', to: '2026-11-28' }] })
      .expect(200);
    expect(body.tasks.kept).toBeGreaterThan(0);
    expect((await tasksOf(schedule))[0]).toMatchObject({ on: '2026-11-24', state: 'underWay' });
  });

  it('shows beyond the horizon as well, before anything is made', async () => {
    await save(
      input('1st of each month', {
        timing: { ...PLAIN_TIMING, startTime: '09:00' },
        exceptions: [{ kind: 'move', date: '2027-01-01', to: '2027-01-04' }],
      }),
    );
    const sheet = (await ines.get(`/api/people/${maud}/day-sheet`).query({ date: '2027-01-04' }).expect(200)).body;
    expect(sheet.projected).toContainEqual(expect.objectContaining({ on: '2027-01-04', startTime: '09:00' }));
    const before = (await ines.get(`/api/people/${maud}/day-sheet`).query({ date: '2027-01-01' }).expect(200)).body;
    expect(before.projected.filter(({ startTime }: { startTime: string }) => startTime === '09:00')).toEqual([]);
  });

  it('is made once, however many runs there are at the same moment', async () => {
    const schedule = await save(
      input('every Monday', {
        exceptions: [{ kind: 'add', date: '2026-12-18' }],
        revisions: [
          {
            from: '2026-12-10',
            recurrence: parsePhrase('every Tuesday', { start: '2026-12-10' }),
            timing: PLAIN_TIMING,
          },
        ],
      }),
    );
    const wanted = await days(schedule);
    await server.source.query('delete from task where schedule_id = $1', [schedule.id]);
    await Promise.all(Array.from({ length: 4 }, () => ines.post('/api/runs').expect(200)));
    expect(await days(schedule)).toEqual(wanted);
  });
});

describe('a schedule whose next task waits for the last one', () => {
  it('makes the first, and the next when that is done; undoing takes it back', async () => {
    const schedule = await save(input('every 10 working days after completion'));
    const [first] = await tasksOf(schedule);
    expect(await days(schedule)).toEqual(['2026-11-24']);
    await tick(first?.id ?? '');
    const { body } = await ines.post(`/api/tasks/${first?.id}/finish`).expect(200);
    expect(await days(schedule)).toEqual(['2026-11-24', '2026-12-08']);
    expect((await ines.get(`/api/tasks/${first?.id}`)).body.series.next).toMatchObject({ on: '2026-12-08' });
    await ines.post(`/api/changes/${body.changeId}/undo`).expect(200);
    expect(await days(schedule)).toEqual(['2026-11-24']);
  });

  it('makes the next as soon as the last one is under way', async () => {
    const schedule = await save(input('as soon as the last one is under way'));
    const [first] = await tasksOf(schedule);
    await ines.post(`/api/tasks/${first?.id}/start`).expect(200);
    expect(await days(schedule)).toEqual(['2026-11-24', '2026-11-25']);
  });

  it('does so too when a revision brings the rule', async () => {
    const schedule = await save(
      input('every Monday', {
        revisions: [
          {
            from: '2026-11-24',
            recurrence: parsePhrase('2 weeks after completion', { start: '2026-11-24' }),
            timing: PLAIN_TIMING,
          },
        ],
      }),
    );
    const [first] = await tasksOf(schedule);
    await tick(first?.id ?? '');
    await ines.post(`/api/tasks/${first?.id}/finish`).expect(200);
    expect(await days(schedule)).toEqual(['2026-11-24', '2026-12-08']);
  });

  it('makes no more by running again, however often', async () => {
    const schedule = await save(input('2 weeks after completion'));
    await ines.post('/api/runs').expect(200);
    server.clock.set('2027-02-01T08:00');
    await ines.post('/api/runs').expect(200);
    expect(await days(schedule)).toEqual(['2026-11-24']);
  });
});
