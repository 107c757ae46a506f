import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { scheduleInputSchema, type TimedAnswer } from '../../contract/index.ts';
import { givenTo } from '../../core/index.ts';
import { type Crew, crewOf } from '../testing/crew.ts';
import { plainInput, weekly } from '../testing/schedules.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { newTemplate, ownTask } from '../testing/work.ts';

let server: TestServer;
let crew: Crew;
let ines: Agent;
beforeAll(async () => {
  server = await testServer();
  crew = await crewOf(server);
  ines = crew.ines;
});
afterAll(() => server.stop());
beforeEach(() => crew.allThere());

describe('a step for any one of some', () => {
  const forYard = { assignee: { by: 'anyOf' as const, group: { of: 'role' as const, role: 'yard' } } };

  it('is offered to them, on a schedule or by hand, and becomes a step of the same again', async () => {
    await crew.allThere();
    const { id } = await crew.made(
      { v: 1, kind: 'person', personId: crew.id('Kit'), daysOffToo: true, cover: 'deputy' },
      [{ kind: 'weeks', every: 1, on: [3] }],
      {
        steps: [ownTask('lift', 0, forYard)],
      },
    );
    const bram = await server.browser('Bram Hollis');
    const bramId = (await server.person('Bram Hollis')).id;
    const offered = async (date: string) =>
      (await bram.get(`/api/people/${bramId}/day-sheet?date=${date}`).expect(200)).body.offered.tasks;
    const [task] = (await offered('2026-11-25')).filter(({ title }: { title: string }) => title === 'Task lift');
    expect(task).toMatchObject({ assignee: null, offeredTo: 'any of yard' });
    expect(await crew.heads(id, '2026-11-25')).toEqual(['11-25 Kit', '11-25 –']);
    const { body: again } = await crew.ines.get(`/api/tasks/${task.id}/as-template`).expect(200);
    expect(again.steps).toMatchObject([forYard]);
    await bram.post(`/api/tasks/${task.id}/claim`).expect(200);
    expect(await crew.heads(id, '2026-11-25')).toEqual(['11-25 Bram', '11-25 Kit']);
    const templateId = await newTemplate(crew.ines, { steps: [ownTask('lift', 0, forYard)] });
    const parts = ['', 'lift'].map((step) => ({
      step,
      on: '2026-11-24',
      startTime: null,
      dueTime: null,
      assigneeId: null,
    }));
    const { body } = await crew.ines
      .post(`/api/templates/${templateId}/start`)
      .send({ on: '2026-11-24', clientId: null, assetId: null, assigneeId: null, special: '', parts })
      .expect(200);
    expect(body.tasks.map(({ offeredTo }: { offeredTo: string | null }) => offeredTo)).toEqual([null, 'any of yard']);
  });
});

describe('a step with a rule of its own', () => {
  const stepOf = (assignee: object) => ownTask('lift', 0, { assignee } as object);
  const weekly3 = [{ kind: 'weeks', every: 1, on: [3] }];
  const ofStep = async (scheduleId: string) =>
    (
      await server.source.query<{ on: string; who: string | null; by: string | null }[]>(
        `select work_on as "on", split_part(p.name, ' ', 1) as who, why->>'by' as by from task t
         left join person p on p.workspace_id = t.workspace_id and p.id = t.assignee_id
         where t.schedule_id = $1 and t.step_key = 'lift' order by work_on`,
        [scheduleId],
      )
    ).map(({ on, who, by }) => `${on.slice(5)} ${who ?? '–'} ${by ?? ''}`.trim());

  it('goes to whoever of some has the least to do, and stays with them when the schedule is saved again', async () => {
    const group = { of: 'role', role: 'yard' };
    const schedule = await crew.made(givenTo(crew.id('Kit')), weekly3, { steps: [stepOf({ by: 'leastToDo', group })] });
    const before = await ofStep(schedule.id);
    expect(before[0]).toMatch(/^11-25 (Bram|Selwyn) least to do$/);
    expect(before.length).toBeGreaterThan(3);
    // Somebody has more to do by then: what is decided stays decided.
    const [first] = before.map((one) => one.split(' ')[1]);
    await server.source.query(
      `update task set estimate_minutes = 2000 where id = (select t.id from task t join person p on p.id = t.assignee_id
         where p.name like $1 || '%' and t.state = 'open' and t.due_on = '2026-11-26' limit 1)`,
      [first],
    );
    const { id, ...input } = schedule;
    const fields = Object.fromEntries(
      Object.keys(scheduleInputSchema.shape).map((key) => [key, input[key as keyof typeof input]]),
    );
    const { templateId, clientId, assetId } = { templateId: schedule.template.id, clientId: null, assetId: null };
    await ines
      .put(`/api/schedules/${id}`)
      .send({ ...fields, templateId, clientId, assetId, version: schedule.version, reach: { open: false, also: [] } })
      .expect(200);
    expect(await ofStep(id)).toEqual(before);
  });

  it('is covered while whoever is named for it is away, and is whoever looks after the client', async () => {
    await server.source.query('update person set deputy_id = $2 where id = $1', [crew.id('Joss'), crew.id('Kit')]);
    const named = await crew.made(givenTo(crew.id('Tamsin')), weekly3, {
      steps: [stepOf({ by: 'person', personId: crew.id('Joss') })],
    });
    const { leave } = await crew.enter('Joss', crew.leaveOf('2026-12-02'));
    expect((await ofStep(named.id)).slice(0, 3)).toEqual(['11-25 Joss name', '12-02 Kit name', '12-09 Joss name']);
    await crew.takeBack(leave).expect(200);
    expect((await ofStep(named.id))[1]).toBe('12-02 Joss name');
    // What is made while somebody is away is covered from the beginning.
    await crew.enter('Joss', crew.leaveOf('2026-12-09'));
    const later = await crew.made(givenTo(crew.id('Tamsin')), weekly3, {
      steps: [stepOf({ by: 'person', personId: crew.id('Joss') })],
    });
    expect((await ofStep(later.id))[2]).toBe('12-09 Kit name');

    const [{ id: clientId }] = await server.source.query('select id from client order by id limit 1');
    await server.source.query('update client set usual_person_id = $2 where id = $1', [clientId, crew.id('Nadia')]);
    const templateId = await newTemplate(ines, { steps: [stepOf({ by: 'usualPerson' })] });
    const { body } = await ines
      .post('/api/schedules')
      .send({
        ...plainInput(templateId),
        clientId,
        assignment: givenTo(crew.id('Tamsin')),
        recurrence: { ...weekly(1), rules: weekly3 },
      })
      .expect(200);
    expect((await ofStep(body.schedule.id))[0]).toBe('11-25 Nadia usual person');
  });
});

describe('work at a time', () => {
  it('is told of some people and days, without one schedule, for who can’t do two at once', async () => {
    const made = async (startTime: string | null, dueTime: string | null) => {
      const { id } = await crew.made(givenTo(crew.id('Kit')));
      await server.source.query(
        `update task set start_time = $2, due_time = $3 where schedule_id = $1 and work_on = '2026-11-26'`,
        [id, startTime, dueTime],
      );
      return id;
    };
    const [first, second, anyTime] = [
      await made('13:00', '14:00'),
      await made('13:30', null),
      await made(null, '14:00'),
    ];
    const ask = async (rest: object) =>
      (
        await ines
          .get('/api/schedules/timed-work')
          .query({ people: `${crew.id('Kit')},${crew.id('Joss')}`, from: '2026-11-26', to: '2026-11-26', ...rest })
          .expect(200)
      ).body as TimedAnswer;
    const starts = async (rest: object = {}) =>
      (await ask(rest)).work
        .filter(({ title }) => title.startsWith('Round'))
        .map(({ startTime, dueTime }) => [startTime, dueTime]);
    expect(await starts()).toEqual([
      ['13:00', '14:00'],
      ['13:30', null],
    ]);
    expect(await starts({ without: first })).toEqual([['13:30', null]]);
    expect(await starts({ without: second })).toEqual([['13:00', '14:00']]);
    expect(await starts({ from: '2026-11-27', to: '2026-11-27' })).toEqual([]);
    expect(await starts({ people: crew.id('Joss') })).toEqual([]);
    expect(anyTime).not.toBe(first);
    await ines
      .get('/api/schedules/timed-work')
      .query({ people: 'nobody', from: '2026-11-26', to: '2026-11-26' })
      .expect(422);
  });
});
