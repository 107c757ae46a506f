import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type {
  HistoryEntry,
  Impact,
  OnPlanLine,
  PlanInput,
  PlanItemInput,
  PlanLine,
  PlanLook,
  PlanOfClient,
  PutOnLook,
  RollingLine,
  ServicePlan,
} from '../../contract/index.ts';
import { ownChanges, PLAIN_TIMING, type PlanItem, parsePhrase } from '../../core/index.ts';
import { runMaking } from '../runs/index.ts';
import { Schedule } from '../schedules/index.ts';
import { TEST_NOW } from '../testing/clock.ts';
import { changeSeveral, oneSchedule } from '../testing/schedules.ts';
import { type Agent, silent, type TestServer, testServer } from '../testing/test-server.ts';
import { newTemplate, ownTask } from '../testing/work.ts';
import { OWN_ASPECTS_SQL, PlanRecord, SCHEDULES_OF_PLAN } from './stored/index.ts';

let server: TestServer;
let ines: Agent;
let gas: string;
let walk: string;
const TODAY = '2026-11-24';
const rule = (phrase: string) => parsePhrase(phrase, { start: '2026-01-01' });
const USUAL = { v: 1, kind: 'usualPerson', otherwiseId: null, daysOffToo: false, cover: 'deputy' } as const;

beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  gas = await newTemplate(ines, {
    name: 'Gas',
    titlePattern: 'Gas {client}',
    estimateMinutes: 60,
    steps: [ownTask('paper', 2)],
  });
  walk = await newTemplate(ines, { name: 'Look aboard', titlePattern: 'Look aboard {asset}', estimateMinutes: 20 });
});
afterAll(() => server.stop());

const item = (key: string, templateId: string, phrase: string, rest: Partial<PlanItemInput> = {}): PlanItemInput => ({
  ...{ key, templateId, counts: 'joining', after: { amount: 0, unit: 'day' }, recurrence: rule(phrase) },
  timing: { ...PLAIN_TIMING, appears: { amount: -1, unit: 'workingDay' } },
  ...{ overlap: { kind: 'add' }, assignment: USUAL, estimateMinutes: null, each: 'client', ...rest },
});
const twoItems = (): PlanItemInput[] => [
  item('gas', gas, 'first Tuesday of each month'),
  item('walk', walk, '15th of each month, or the working day after', { each: 'asset' }),
];
let made = 0;
async function newPlan(items = twoItems(), rest: Partial<PlanInput> = {}): Promise<ServicePlan> {
  const input = { name: `Plan ${++made}`, note: '', rollsOn: 'itself', items, ...rest };
  return (await ines.post('/api/plans').send(input).expect(200)).body.plan;
}
const inputOf = ({ name, note, rollsOn, items }: ServicePlan): PlanInput => ({
  ...{ name, note, rollsOn },
  items: items.map(({ template: _t, phrase: _p, who: _w, ...one }) => one),
});
/** Clients of the demo whom somebody looks after, others each time. */
let asked = 0;
async function freeClients(count: number): Promise<{ id: string; name: string }[]> {
  const all = await server.source.query<{ id: string; name: string }[]>(
    'select id, name from client where archived_at is null and usual_person_id is not null order by name',
  );
  asked += count;
  return all
    .concat(all)
    .slice((asked - count) % all.length)
    .slice(0, count);
}
const putOn = (plan: ServicePlan, clients: object[], from = '2026-12-01', path = '') =>
  ines.post(`/api/plans/${plan.id}/clients${path}`).send({ version: plan.version, from, clients });
const ids = (clients: readonly { id: string }[]) => clients.map(({ id }) => ({ clientId: id }));
const tasksOf = (planId: string): Promise<{ title: string; on: string; client: string; who: string | null }[]> =>
  server.source.query(
    `select t.title, t.work_on as "on", c.name as client, p.name as who from task t join schedule s on s.id = t.schedule_id
     join on_plan o on o.id = s.on_plan_id join client c on c.id = t.client_id left join person p on p.id = t.assignee_id
     where o.plan_id = $1 order by t.work_on, c.name, t.title`,
    [planId],
  );
const clientsOf = async (planId: string, query: object = {}) =>
  (await ines.get(`/api/plans/${planId}/clients`).query(query).expect(200)).body as {
    clients: OnPlanLine[];
    more: string | null;
    counts: { all: number; own: number; changes: number };
  };
const plansOf = async (clientId: string, planId: string): Promise<PlanOfClient[]> =>
  ((await ines.get(`/api/clients/${clientId}/plans`).expect(200)).body.plans as PlanOfClient[]).filter(
    ({ plan }) => plan.id === planId,
  );
const undo = (changeId: string) => ines.post(`/api/changes/${changeId}/undo`).send({});
const change = (plan: ServicePlan, items: PlanItemInput[], from = TODAY, path = '') => {
  const body = { version: plan.version, from, plan: { ...inputOf(plan), items } };
  return path === ''
    ? ines.put(`/api/plans/${plan.id}`).send(body)
    : ines.post(`/api/plans/${plan.id}${path}`).send(body);
};

describe('a plan', () => {
  it('is told with what its items come to, and has a name of its own', async () => {
    const plan = await newPlan();
    expect(
      plan.items.map(({ template, phrase, who }) => [template.name, template.estimateMinutes, phrase, who]),
    ).toEqual([
      ['Gas', 70, 'first Tuesday of each month', 'the client’s usual person'],
      ['Look aboard', 20, '15th of each month, or the working day after', 'the client’s usual person'],
    ]);
    const { plans } = (await ines.get('/api/plans').expect(200)).body as { plans: PlanLine[] };
    expect(plans.find(({ id }) => id === plan.id)).toMatchObject({ clients: 0, tasksEach: 36, minutesEach: 12 * 90 });
    const twice = await ines.post('/api/plans').send(inputOf(plan)).expect(422);
    expect(twice.body.errors[0].message).toBe(`There is a plan “${plan.name}” already.`);
  });

  it('takes only items that can be', async () => {
    const wrong = async (rest: Partial<PlanItemInput>) =>
      (
        await ines
          .post('/api/plans')
          .send({ name: 'Wrong', note: '', rollsOn: 'itself', items: [{ ...item('a', gas, 'every Monday'), ...rest }] })
          .expect(422)
      ).body.errors[0].message;
    expect(await wrong({ templateId: '00000000-0000-4000-8000-000000000000' })).toBe('There is no such template.');
    expect(await wrong({ recurrence: { ...rule('every Monday'), rules: [] } })).toMatch(/no rule yet/);
    expect(
      await wrong({
        counts: 'plan',
        recurrence: { ...rule('every 2 weeks on Monday'), end: { kind: 'after', count: 3 } },
      }),
    ).toMatch(/from the day a client joins/);
    const gone = { v: 1, kind: 'person', personId: '00000000-0000-4000-8000-000000000000' } as const;
    expect(await wrong({ assignment: { ...gone, daysOffToo: true, cover: 'deputy' } })).toMatch(/no such person/);
  });

  it('keeps its templates from being removed, and its clients keep it from the archive', async () => {
    const plan = await newPlan();
    expect((await ines.delete(`/api/templates/${gas}`).expect(409)).body.detail).toMatch(/service plan/);
    await putOn(plan, ids(await freeClients(1))).expect(200);
    const archived = await ines
      .put(`/api/plans/${plan.id}/archived`)
      .send({ version: plan.version, archived: true })
      .expect(422);
    expect(archived.body.errors[0].message).toMatch(/take them off first/);
  });
});

describe('putting clients on a plan', () => {
  it('makes what was shown before, each with what is different for it, and one undo takes all of it out', async () => {
    const plan = await newPlan();
    const clients = await freeClients(4);
    const [first, second] = clients;
    const chosen = clients.map(({ id }) => ({
      clientId: id,
      own:
        id === first?.id
          ? [{ item: 'gas', recurrence: rule('first Thursday of each month') }]
          : id === second?.id
            ? [{ item: 'walk', leftOut: 'lies on a buoy' }]
            : [],
    }));
    const look = (await putOn(plan, chosen, '2026-12-01', '/look').expect(200)).body as PutOnLook;
    expect(await tasksOf(plan.id)).toEqual([]);
    const { body: saved } = await putOn(plan, chosen).expect(200);
    const tasks = await tasksOf(plan.id);
    expect(tasks).toHaveLength(look.figures.tasksNow);
    expect(saved).toMatchObject({ clients: 4, tasks: { made: look.figures.tasksNow } });
    expect(look.figures).toMatchObject({ clients: 4, own: 1, leftOut: 1 });
    for (const { client, now } of look.clients)
      expect([client.name, tasks.filter((task) => task.client === client.name).length]).toEqual([client.name, now]);
    const days = new Map<string, number>();
    for (const { on } of tasks) days.set(on, (days.get(on) ?? 0) + 1);
    expect(look.days.filter(({ now }) => now > 0).map(({ on, now }) => [on, now])).toEqual([...days].sort());
    const thursday = tasks.find(({ client, title }) => client === first?.name && title.startsWith('Gas'));
    expect(thursday?.on).toBe('2026-12-03');
    expect(tasks.filter(({ client, title }) => client === second?.name && title.startsWith('Look'))).toEqual([]);
    const names = await server.source.query(
      `select p.name from client c join person p on p.id = c.usual_person_id where c.id = $1`,
      [first?.id],
    );
    expect(thursday?.who).toBe(names[0].name);
    const onIt = await clientsOf(plan.id);
    expect(onIt.counts).toEqual({ all: 4, own: 2, changes: 2 });
    expect(
      (await clientsOf(plan.id, { own: 'yes' })).clients.flatMap(({ own }) => own.map(({ says }) => says)).sort(),
    ).toEqual(['first Thursday of each month', 'left out']);
    await undo(saved.changeId).expect(200);
    expect(await tasksOf(plan.id)).toEqual([]);
    expect((await clientsOf(plan.id)).counts.all).toBe(0);
  });

  it('starts what is to be done once in the same go, and one undo takes that out too', async () => {
    const plan = await newPlan();
    const clients = await freeClients(2);
    const [{ id: templateId = '' } = {}] = await server.source.query<{ id: string }[]>(
      `select id from template where name = 'New berth-holder'`,
    );
    const start = { templateId, on: '2026-12-07', without: ['lift'] };
    const body = { version: plan.version, from: '2026-12-01', clients: ids(clients), start };
    const look = (await ines.post(`/api/plans/${plan.id}/clients/look`).send(body).expect(200)).body as PutOnLook;
    expect(look.started).toHaveLength(5);
    expect(look.started.map(({ on }) => on)).toContain('2026-12-14');
    const started = () =>
      server.source.query<{ title: string; on: string }[]>(
        `select title, work_on as "on" from task where template_id = $1 and client_id = any($2::uuid[]) and set_on = '2026-12-07'`,
        [templateId, clients.map(({ id }) => id)],
      );
    expect(await started()).toEqual([]);
    const { body: saved } = await ines.post(`/api/plans/${plan.id}/clients`).send(body).expect(200);
    expect(await started()).toHaveLength(10);
    expect(saved.tasks.made).toBe(look.figures.tasksNow);
    const titles = (await started()).map(({ title }) => title);
    expect(look.started.every(({ title }) => titles.includes(title))).toBe(true);
    await undo(saved.changeId).expect(200);
    expect([await started(), await tasksOf(plan.id)]).toEqual([[], []]);
  });

  it('makes as much as was shown however many they are, and is undone whole', async () => {
    const plan = await newPlan(
      Array.from({ length: 9 }, (_, n) =>
        item(
          `i${n}`,
          n % 2 ? gas : walk,
          `${n + 1}th of each month`.replace('1th', '1st').replace('2th', '2nd').replace('3th', '3rd'),
        ),
      ),
    );
    const clients = await freeClients(48);
    const look = (await putOn(plan, ids(clients), '2026-12-01', '/look').expect(200)).body as PutOnLook;
    // More than are written at once.
    expect(look.figures.schedules).toBe(432);
    const { body } = await putOn(plan, ids(clients)).expect(200);
    expect(body.tasks.made).toBe(look.figures.tasksNow);
    expect(await tasksOf(plan.id)).toHaveLength(look.figures.tasksNow);
    await undo(body.changeId).expect(200);
    expect(await tasksOf(plan.id)).toEqual([]);
  });

  it('is refused for whoever is on it already, in the archive, or from another version', async () => {
    const plan = await newPlan();
    const [client] = await freeClients(1);
    await putOn(plan, [{ clientId: client?.id }]).expect(200);
    const twice = await putOn(plan, [{ clientId: client?.id }]).expect(422);
    expect(twice.body.errors[0].message).toBe(`${client?.name} is on ${plan.name} already, since 1 Dec 2026.`);
    await putOn({ ...plan, version: 9 }, [{ clientId: client?.id }]).expect(409);
    const [other] = await freeClients(1);
    const own = [{ item: 'no', recurrence: rule('every Monday') }];
    expect((await putOn(plan, [{ clientId: other?.id, own }]).expect(422)).body.errors[0].message).toMatch(
      /no such item/,
    );
    await putOn(plan, [{ clientId: '00000000-0000-4000-8000-000000000000' }]).expect(404);
  });

  it('ends with the year where the plan asks before it goes on', async () => {
    const plan = await newPlan(twoItems(), { rollsOn: 'asks' });
    const [client] = await freeClients(1);
    await putOn(plan, [{ clientId: client?.id }]).expect(200);
    const [of] = await plansOf(client?.id ?? '', plan.id);
    expect(of).toMatchObject({ untilOn: '2026-12-31' });
    const [one] = of?.items ?? [];
    expect((await oneSchedule(ines, one?.scheduleId ?? '')).recurrence.end).toEqual({ kind: 'on', date: '2026-12-31' });
  });
});

describe('a change of a plan', () => {
  it('reaches all its clients from its day as its Impact says, and leaves alone what is a client’s own', async () => {
    const plan = await newPlan();
    const clients = await freeClients(4);
    await putOn(plan, ids(clients)).expect(200);
    const onIt = (await clientsOf(plan.id)).clients;
    const own = (await plansOf(onIt[0]?.client.id ?? '', plan.id))[0]?.items[0]?.scheduleId ?? '';
    await changeSeveral(ines, [
      [await oneSchedule(ines, own), { recurrence: { ...rule('first Thursday of each month'), start: '2026-12-01' } }],
    ]).expect(200);
    const before = await tasksOf(plan.id);
    const [first, second] = twoItems();
    if (!first || !second) throw new Error('Two items.');
    const changed = [{ ...first, recurrence: rule('first Wednesday of each month') }, second];
    const look = (
      await ines
        .post('/api/plan-look')
        .send({ planId: plan.id, plan: { ...inputOf(plan), items: changed }, from: TODAY })
        .expect(200)
    ).body as PlanLook;
    expect([look.changes, look.keepsCount, look.keeps[0]?.client.name]).toEqual([3, 1, onIt[0]?.client.name]);
    const impact = (await change(plan, changed, TODAY, '/impact').expect(200)).body as Impact;
    const { body: saved } = await change(plan, changed).expect(200);
    expect(saved.tasks).toMatchObject({
      made: impact.figures.added,
      changed: impact.figures.changed,
      removed: impact.figures.removed,
    });
    const after = await tasksOf(plan.id);
    const gasDays = after.filter(({ title }) => title.startsWith('Gas')).map(({ on, client }) => [client, on]);
    for (const [client, on] of gasDays) expect(on).toBe(client === onIt[0]?.client.name ? '2026-12-03' : '2026-12-02');
    await undo(saved.changeId).expect(200);
    expect(await tasksOf(plan.id)).toEqual(before);
    const back = (await ines.get(`/api/plans/${plan.id}`).expect(200)).body as ServicePlan;
    expect(back.items[0]?.phrase).toBe('first Tuesday of each month');
  });

  it('is undone with the schedules that it wrote, never by itself', async () => {
    const plan = await newPlan();
    await putOn(plan, ids(await freeClients(2))).expect(200);
    const [first, second] = twoItems();
    if (!first || !second) throw new Error('Two items.');
    const changed = [{ ...first, recurrence: rule('first Friday of each month') }, second];
    const { body: saved } = await change(plan, changed).expect(200);
    const { entries } = (await ines.get(`/api/plans/${plan.id}/history`).expect(200)).body as {
      entries: HistoryEntry[];
    };
    expect(entries[0]?.undo).toEqual({ changeId: saved.changeId, together: null });
    const [alone] = await server.source.query<{ id: string }[]>(
      `select id from change where joined_id = $1 and subject = 'plan'`,
      [saved.changeId],
    );
    expect((await undo(alone?.id ?? '').expect(409)).body.detail).toMatch(/all that was done in one go/);
    await undo(saved.changeId).expect(200);
    expect((await clientsOf(plan.id)).counts.own).toBe(0);
  });

  it('that counts from later leaves what is made for days before it; new items come, and those taken out go', async () => {
    const plan = await newPlan();
    const clients = await freeClients(2);
    await putOn(plan, ids(clients)).expect(200);
    const before = await tasksOf(plan.id);
    const [first] = twoItems();
    if (!first) throw new Error('An item.');
    const later = [{ ...first, recurrence: rule('first Friday of each month') }, item('new', walk, 'every Monday')];
    const saved = (await change(plan, later, '2027-01-04').expect(200)).body;
    expect((await tasksOf(plan.id)).filter(({ on }) => on < '2027-01-01')).toEqual(before);
    const [of] = await plansOf(clients[0]?.id ?? '', plan.id);
    expect(of?.items.map((one) => [one.item, one.aspects, one.tasks > 0])).toEqual([
      ['gas', [], true],
      ['new', [], true],
    ]);
    const look = (
      await ines
        .post('/api/plan-look')
        .send({ planId: plan.id, plan: inputOf(saved.plan), from: TODAY })
        .expect(200)
    ).body as PlanLook;
    expect(look.changes).toBe(0);
    const news = look.items.find(({ key }) => key === 'new');
    expect(news?.before).toEqual(news?.after);
    expect(news?.after.slice(0, 4).map(({ tasks }) => tasks)).toEqual([0, 0, 8, 8]);
    const back = await undo(saved.changeId).expect(200);
    expect(back.body.said).toMatch(/as it was before/);
    expect(await tasksOf(plan.id)).toEqual(before);
  });

  it('is refused from a day that is past, and where somebody else has changed it', async () => {
    const plan = await newPlan();
    expect((await change(plan, twoItems(), '2026-11-23').expect(422)).body.errors[0].message).toMatch(/from today on/);
    await change(plan, twoItems()).expect(200);
    await change(plan, twoItems()).expect(409);
    const other = [{ ...(twoItems()[0] as PlanItemInput), templateId: walk }];
    const now = (await ines.get(`/api/plans/${plan.id}`).expect(200)).body as ServicePlan;
    expect((await change(now, other).expect(422)).body.errors[0].message).toMatch(/stays what it is/);
  });
});

describe('a client of a plan', () => {
  it('goes with open tasks, or they stay; or goes over to another plan', async () => {
    const [plan, other] = [await newPlan(), await newPlan([item('walk', walk, 'every Friday')])];
    const clients = await freeClients(3);
    await putOn(plan, ids(clients)).expect(200);
    const onIt = (await clientsOf(plan.id)).clients;
    const before = await tasksOf(plan.id);
    const off = (line: OnPlanLine | undefined, tasks: 'go' | 'stay', to: object | null = null, path = '') =>
      ines.post(`/api/on-plan/off${path}`).send({
        ...{ clients: [{ id: line?.id, version: line?.version }], from: '2026-12-02', tasks, to },
      });
    const ofClient = async (at: number) =>
      (await tasksOf(plan.id)).filter(({ client }) => client === onIt[at]?.client.name);
    const had = await ofClient(0);
    const impact = (await off(onIt[0], 'go', null, '/impact').expect(200)).body as Impact;
    // What is started when somebody goes is told with it.
    const [{ id: bye = '' } = {}] = await server.source.query<{ id: string }[]>(
      `select id from template where name = 'Gas'`,
    );
    const withStart = (
      await ines
        .post('/api/on-plan/off/impact')
        .send({
          ...{ clients: [{ id: onIt[0]?.id, version: onIt[0]?.version }], from: '2026-12-02', tasks: 'go' },
          start: { templateId: bye, on: '2026-12-02' },
        })
        .expect(200)
    ).body as Impact;
    expect(withStart.figures.added).toBe(impact.figures.added + 2);
    expect(withStart.items.filter(({ kind }) => kind === 'added').map(({ about }) => about)).toContain(
      onIt[0]?.client.name,
    );
    const gone = (await off(onIt[0], 'go').expect(200)).body;
    expect(gone.tasks.removed).toBe(impact.figures.removed);
    expect((await ofClient(0)).every(({ on }) => on <= '2026-12-03')).toBe(true);
    expect((await ofClient(0)).length).toBeLessThan(had.length);
    await off(onIt[0], 'go').expect(409);
    const stays = (await off(onIt[1], 'stay').expect(200)).body;
    expect(stays.tasks).toMatchObject({ removed: 0, changed: 0 });
    expect((await clientsOf(plan.id)).clients.map(({ offOn }) => offOn)).toEqual(['2026-12-02', '2026-12-02', null]);
    const to = { planId: other.id, version: other.version };
    const moved = (await off(onIt[2], 'go', to).expect(200)).body;
    expect((await clientsOf(other.id)).clients.map(({ client, fromOn }) => [client.id, fromOn])).toEqual([
      [onIt[2]?.client.id, '2026-12-02'],
    ]);
    expect((await tasksOf(other.id)).length).toBeGreaterThan(2);
    for (const { changeId } of [moved, stays, gone]) await undo(changeId).expect(200);
    expect(await tasksOf(plan.id)).toEqual(before);
    expect(await tasksOf(other.id)).toEqual([]);
  });

  it('does without an item, has it again, and gives its own up', async () => {
    const plan = await newPlan();
    const [client] = await freeClients(1);
    await putOn(plan, ids(client ? [client] : [])).expect(200);
    const [of] = await plansOf(client?.id ?? '', plan.id);
    const leave = (version: number | undefined, why: string | null) =>
      ines.post(`/api/on-plan/${of?.id}/left-out`).send({ version, item: 'gas', assetId: null, why, from: TODAY });
    await leave(of?.version, 'the agreement runs to 2029').expect(200);
    expect((await tasksOf(plan.id)).filter(({ title }) => title.startsWith('Gas'))).toEqual([]);
    const [without] = await plansOf(client?.id ?? '', plan.id);
    expect(without?.items.find((one) => one.item === 'gas')).toMatchObject({
      leftOut: 'the agreement runs to 2029',
      tasks: 0,
    });
    expect((await leave(without?.version, 'again').expect(422)).body.errors[0].message).toMatch(
      /does without it already/,
    );
    await leave(without?.version, null).expect(200);
    const [again] = await plansOf(client?.id ?? '', plan.id);
    const gasItem = again?.items.find((one) => one.item === 'gas');
    expect(gasItem?.leftOut).toBeNull();
    const schedule = await oneSchedule(ines, gasItem?.scheduleId ?? '');
    await changeSeveral(ines, [[schedule, { assignment: { v: 1, kind: 'nobody' } }]]).expect(200);
    expect((await plansOf(client?.id ?? '', plan.id))[0]?.items.find((one) => one.item === 'gas')).toMatchObject({
      ...{ aspects: ['who'], says: 'by nobody yet' },
    });
    const asPlan = { schedules: [schedule.id], from: TODAY };
    await ines.post(`/api/plans/${plan.id}/as-plan/impact`).send(asPlan).expect(200);
    await ines.post(`/api/plans/${plan.id}/as-plan`).send(asPlan).expect(200);
    expect((await plansOf(client?.id ?? '', plan.id))[0]?.items.find((one) => one.item === 'gas')?.aspects).toEqual([]);
    const entries = (await ines.get(`/api/schedules/${schedule.id}/history`).expect(200)).body
      .entries as HistoryEntry[];
    expect(entries.length).toBeGreaterThan(1);
  });

  it('is asked about before the end of its year, and goes on for another one', async () => {
    const plan = await newPlan(twoItems(), { rollsOn: 'asks' });
    const clients = await freeClients(2);
    await putOn(plan, ids(clients)).expect(200);
    const rolling = async () =>
      ((await ines.get('/api/on-plan/rolling').expect(200)).body.clients as RollingLine[]).filter(
        (line) => line.plan.id === plan.id,
      );
    const [first, second] = await rolling();
    expect([first?.untilOn, first?.laterOn, second?.own]).toEqual(['2026-12-31', '2027-12-31', 0]);
    const roll = { clients: [{ id: first?.id, version: first?.version }] };
    await ines.post('/api/on-plan/roll/impact').send(roll).expect(200);
    const { body: saved } = await ines.post('/api/on-plan/roll').send(roll).expect(200);
    expect((await rolling()).map(({ id }) => id)).toEqual([second?.id]);
    const [on] = await plansOf(first?.client.id ?? '', plan.id);
    expect(on).toMatchObject({ untilOn: '2027-12-31', planTasks: on?.tasks });
    expect(on?.items.every(({ aspects }) => aspects.length === 0)).toBe(true);
    await ines.post('/api/on-plan/roll').send(roll).expect(409);
    // A change of the plan leaves the end of the year as it is.
    const [gasItem, walkItem] = twoItems();
    if (!gasItem || !walkItem) throw new Error('Two items.');
    const changed = [{ ...gasItem, recurrence: rule('second Monday of each month') }, walkItem];
    await change(plan, changed).expect(200);
    const [gasNow] = (await plansOf(second?.client.id ?? '', plan.id))[0]?.items ?? [];
    const { revisions, recurrence } = await oneSchedule(ines, gasNow?.scheduleId ?? '');
    expect((revisions.at(-1)?.recurrence ?? recurrence).end).toEqual({ kind: 'on', date: '2026-12-31' });
    await undo(saved.changeId).expect(409);
  });

  it('comes to a plan with the schedules that are there, and no task of it changes', async () => {
    const [{ id: templateId = '' } = {}] = await server.source.query<{ id: string }[]>(
      `select id from template where name = 'Gas and shore power'`,
    );
    const plan = await newPlan([
      item('boarding', templateId, 'first Tuesday of each month'),
      item('walk', walk, 'every Monday'),
    ]);
    const there = await server.source.query<{ id: string }[]>(
      `select id from schedule where template_id = $1 and deleted_at is null order by id`,
      [templateId],
    );
    const tasks = () =>
      server.source.query<object[]>('select to_jsonb(t) as t from task t where template_id = $1 order by id', [
        templateId,
      ]);
    const before = await tasks();
    const gather = (schedules: string[], key = 'boarding') =>
      ines.post(`/api/plans/${plan.id}/gathered`).send({ version: plan.version, item: key, schedules });
    const { body } = await gather(there.map(({ id }) => id)).expect(200);
    expect(body).toMatchObject({ schedules: there.length, clients: there.length });
    expect(await tasks()).toEqual(before);
    const onIt = await clientsOf(plan.id);
    expect([onIt.counts.all, onIt.counts.own]).toEqual([there.length, there.length]);
    expect(onIt.clients[0]?.own.some(({ leftOut }) => leftOut !== null)).toBe(true);
    expect((await gather(there.slice(0, 1).map(({ id }) => id)).expect(422)).body.errors[0].message).toMatch(
      /of a plan already/,
    );
    expect(
      (
        await gather(
          there.slice(0, 1).map(({ id }) => id),
          'walk',
        ).expect(422)
      ).body.errors[0].message,
    ).toMatch(/another template/);
    await undo(body.changeId).expect(200);
    expect((await clientsOf(plan.id)).counts.all).toBe(0);
    expect((await tasks()).length).toBe(before.length);
  });

  it('stays as the plan says when whoever a plan names hands all work over', async () => {
    const [kit, nadia] = [await server.person('Kit Sorrell'), await server.person('Nadia Orme')];
    const byKit = { v: 1, kind: 'person', personId: kit.id, daysOffToo: true, cover: 'deputy' } as const;
    const plan = await newPlan([item('walk', walk, 'first Monday of each month', { assignment: byKit })]);
    const [client] = await freeClients(1);
    await putOn(plan, ids(client ? [client] : [])).expect(200);
    const to = { tasksTo: nadia.id, schedulesTo: nadia.id, templatesTo: null, signOffsTo: null };
    const { body } = await ines
      .post(`/api/people/${kit.id}/hand-over`)
      .send({ version: kit.version, lastDay: null, ...to })
      .expect(200);
    expect((await ines.get(`/api/plans/${plan.id}`).expect(200)).body.items[0].who).toBe('Nadia Orme');
    expect((await plansOf(client?.id ?? '', plan.id))[0]?.items[0]?.aspects).toEqual([]);
    await undo(body.changeId).expect(200);
    expect((await ines.get(`/api/plans/${plan.id}`).expect(200)).body.items[0].who).toBe('Kit Sorrell');
    expect((await plansOf(client?.id ?? '', plan.id))[0]?.items[0]?.aspects).toEqual([]);
  });

  it('leaves what an item that is left out has made so far behind, and begins anew when it is taken in', async () => {
    const plan = await newPlan();
    const [client] = await freeClients(1);
    await putOn(plan, ids(client ? [client] : []), '2026-10-01').expect(200);
    const gasOf = async () => (await plansOf(client?.id ?? '', plan.id))[0]?.items.filter((one) => one.item === 'gas');
    const [before] = (await gasOf()) ?? [];
    const leave = async (why: string | null, assetId: string | null = null) =>
      ines.post(`/api/on-plan/${(await plansOf(client?.id ?? '', plan.id))[0]?.id}/left-out`).send({
        ...{ version: (await plansOf(client?.id ?? '', plan.id))[0]?.version, item: 'gas', assetId, why, from: TODAY },
      });
    const { changeId } = (await leave('on a buoy')).body;
    expect((await gasOf())?.map(({ leftOut }) => leftOut)).toEqual(['on a buoy']);
    const past = await oneSchedule(ines, before?.scheduleId ?? '');
    expect([past.state, past.recurrence.end]).toEqual(['ended', { kind: 'on', date: '2026-11-23' }]);
    const one = await leave(null, '00000000-0000-4000-8000-000000000000');
    expect([one.status, one.body.errors[0].message]).toEqual([422, expect.stringMatching(/take it in for all/)]);
    await leave(null);
    const now = await gasOf();
    expect(now?.map(({ leftOut, state }) => [leftOut, state])).toEqual([[null, 'running']]);
    expect(now?.[0]?.scheduleId).not.toBe(before?.scheduleId);
    expect((await clientsOf(plan.id)).counts.changes).toBe(0);
    await undo(changeId).expect(409);
  });

  it('goes once, and not on two days', async () => {
    const plan = await newPlan();
    await putOn(plan, ids(await freeClients(1))).expect(200);
    const off = async (from: string) => {
      const [line] = (await clientsOf(plan.id)).clients;
      return ines
        .post('/api/on-plan/off')
        .send({ clients: [{ id: line?.id, version: line?.version }], from, tasks: 'go' });
    };
    expect((await off('2026-12-07')).status).toBe(200);
    const twice = await off('2026-12-21');
    expect([twice.status, twice.body.errors[0].message]).toEqual([422, expect.stringMatching(/goes already/)]);
  });

  it('is told in SQL as the core tells it', async () => {
    const rows = await server.source.query<{ id: string; aspects: string[] }[]>(
      `select s.id, ${OWN_ASPECTS_SQL} as aspects from ${SCHEDULES_OF_PLAN}`,
    );
    const repository = server.source.getRepository(Schedule);
    const plans = new Map((await server.source.getRepository(PlanRecord).find()).map((plan) => [plan.id, plan]));
    const onPlan = new Map(
      (await server.source.query<{ id: string; plan: string }[]>('select id, plan_id as plan from on_plan')).map(
        (one) => [one.id, one.plan],
      ),
    );
    let own = 0;
    for (const { id, aspects } of rows) {
      const schedule = (await repository.findOneByOrFail({ id })) as Schedule;
      const of = plans
        .get(onPlan.get(schedule.onPlanId ?? '') ?? '')
        ?.items.find(({ key }) => key === schedule.planItem);
      expect([id, aspects]).toEqual([id, ownChanges(of as PlanItem, schedule)]);
      if (aspects.length > 0) own++;
    }
    expect(own).toBeGreaterThan(2);
  });
});

describe('the end of a year', () => {
  it('comes: who was kept has work in the new one, and who was not has none', async () => {
    const plan = await newPlan([item('gas', gas, 'first Tuesday of each month')], { rollsOn: 'asks' });
    const clients = await freeClients(2);
    await putOn(plan, ids(clients)).expect(200);
    const [kept, ended] = (await clientsOf(plan.id)).clients;
    await ines
      .post('/api/on-plan/roll')
      .send({ clients: [{ id: kept?.id, version: kept?.version }] })
      .expect(200);
    server.clock.set('2027-01-04T09:00');
    await runMaking(await server.scope(), 'daily', silent);
    const inJanuary = (await tasksOf(plan.id)).filter(({ on }) => on >= '2027-01-01');
    expect(new Set(inJanuary.map(({ client }) => client))).toEqual(new Set([kept?.client.name]));
    // Long past its end, it still stands there to be looked through, and goes on until the end of the year that runs.
    const { clients: asked } = (await ines.get('/api/on-plan/rolling').expect(200)).body as { clients: RollingLine[] };
    expect(asked.find(({ id }) => id === ended?.id)).toMatchObject({ untilOn: '2026-12-31', laterOn: '2027-12-31' });
    server.clock.set(TEST_NOW);
  });
});
