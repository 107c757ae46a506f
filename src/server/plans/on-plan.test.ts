import { describe, expect, it } from 'vitest';
import type { HistoryEntry, Impact, OnPlanLine, RollingLine } from '../../contract/index.ts';
import { ownChanges, type PlanItem } from '../../core/index.ts';
import { runMaking } from '../runs/index.ts';
import { Schedule } from '../schedules/index.ts';
import { TEST_NOW } from '../testing/clock.ts';
import { ids, inputOf, item, rule, TODAY, usingPlans } from '../testing/plans.ts';
import { changeSeveral, oneSchedule } from '../testing/schedules.ts';
import { silent } from '../testing/test-server.ts';
import { OWN_ASPECTS_SQL, PlanRecord, SCHEDULES_OF_PLAN } from './stored/index.ts';

const { at, twoItems, newPlan, freeClients, putOn, tasksOf, clientsOf, plansOf, undo, change } = usingPlans();

describe('a client of a plan', () => {
  it('goes with open tasks, or they stay; or goes over to another plan', async () => {
    const [plan, other] = [await newPlan(), await newPlan([item('walk', at.walk, 'every Friday')])];
    const clients = await freeClients(3);
    await putOn(plan, ids(clients)).expect(200);
    const onIt = (await clientsOf(plan.id)).clients;
    const before = await tasksOf(plan.id);
    const off = (line: OnPlanLine | undefined, tasks: 'go' | 'stay', to: object | null = null, path = '') =>
      at.ines.post(`/api/on-plan/off${path}`).send({
        ...{ clients: [{ id: line?.id, version: line?.version }], from: '2026-12-02', tasks, to },
      });
    const ofClient = async (at: number) =>
      (await tasksOf(plan.id)).filter(({ client }) => client === onIt[at]?.client.name);
    const had = await ofClient(0);
    const impact = (await off(onIt[0], 'go', null, '/impact').expect(200)).body as Impact;
    // What is started when somebody goes is told with it.
    const [{ id: bye = '' } = {}] = await at.server.source.query<{ id: string }[]>(
      `select id from template where name = 'Gas'`,
    );
    const withStart = (
      await at.ines
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
      at.ines.post(`/api/on-plan/${of?.id}/left-out`).send({ version, item: 'gas', assetId: null, why, from: TODAY });
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
    const schedule = await oneSchedule(at.ines, gasItem?.scheduleId ?? '');
    await changeSeveral(at.ines, [[schedule, { assignment: { v: 1, kind: 'nobody' } }]]).expect(200);
    expect((await plansOf(client?.id ?? '', plan.id))[0]?.items.find((one) => one.item === 'gas')).toMatchObject({
      ...{ aspects: ['who'], says: 'by nobody yet' },
    });
    const asPlan = { schedules: [schedule.id], from: TODAY };
    await at.ines.post(`/api/plans/${plan.id}/as-plan/impact`).send(asPlan).expect(200);
    await at.ines.post(`/api/plans/${plan.id}/as-plan`).send(asPlan).expect(200);
    expect((await plansOf(client?.id ?? '', plan.id))[0]?.items.find((one) => one.item === 'gas')?.aspects).toEqual([]);
    const entries = (await at.ines.get(`/api/schedules/${schedule.id}/history`).expect(200)).body
      .entries as HistoryEntry[];
    expect(entries.length).toBeGreaterThan(1);
  });

  it('is told what it lacks for a vessel that came later, and has it once that is taken in', async () => {
    const plan = await newPlan();
    const [client = { id: '', name: '' }] = await freeClients(1);
    await putOn(plan, ids([client])).expect(200);
    const walks = async () =>
      (await plansOf(client.id, plan.id))[0]?.items.filter(({ item: key }) => key === 'walk') ?? [];
    const had = await walks();
    expect(had.filter(({ scheduleId }) => scheduleId === null)).toEqual([]);
    const vessel = {
      ...{ clientId: client.id, name: 'Latecomer', place: '', tag: null, isSite: false, siteId: null },
      ...{ fields: {}, servesFrom: null, servesUntil: null },
    };
    await at.ines.post('/api/assets').send(vessel).expect(200);
    const lacking = (await walks()).filter(({ scheduleId }) => scheduleId === null);
    expect(lacking).toMatchObject([{ asset: 'Latecomer', leftOut: null, says: 'none yet', tasks: 0 }]);
    const [of] = await plansOf(client.id, plan.id);
    const assetId = lacking[0]?.assetId ?? '';
    const takeIn = (path = '') =>
      at.ines
        .post(`/api/on-plan/${of?.id}/left-out${path}`)
        .send({ version: of?.version, item: 'walk', assetId, why: null, from: TODAY });
    const impact = (await takeIn('/impact').expect(200)).body as Impact;
    expect(impact.figures.added).toBeGreaterThan(0);
    const taken = (await takeIn().expect(200)).body;
    expect(taken.tasks.made).toBe(impact.figures.added);
    expect((await walks()).map(({ scheduleId, leftOut }) => [scheduleId !== null, leftOut])).toEqual(
      [...had, null].map(() => [true, null]),
    );
    // What the worksheet tells of it.
    const [schedule] = await walks();
    const whole = await at.ines
      .post('/api/schedules/whole')
      .send({ ids: [schedule?.scheduleId] })
      .expect(200);
    expect(whole.body.schedules[0].plans).toContainEqual({ id: plan.id, name: plan.name });
    await undo(taken.changeId).expect(200);
    expect((await walks()).filter(({ scheduleId }) => scheduleId === null)).toHaveLength(1);

    // Two on one plan are not made one: its work would come twice.
    const [other = { id: '', name: '' }] = await freeClients(1);
    await putOn(plan, ids([other])).expect(200);
    const merge = await at.ines.post(`/api/clients/${client.id}/merge/look`).send({ otherId: other.id }).expect(409);
    expect(merge.body.detail).toMatch(/so its work would come twice: take .* off first/);
    expect(merge.body.detail).toContain(plan.name);
    expect([client.name, other.name].every((name) => merge.body.detail.includes(name))).toBe(true);
  });

  it('is asked about before the end of its year, and goes on for another one', async () => {
    const plan = await newPlan(twoItems(), { rollsOn: 'asks' });
    const clients = await freeClients(2);
    await putOn(plan, ids(clients)).expect(200);
    const rolling = async () =>
      ((await at.ines.get('/api/on-plan/rolling').expect(200)).body.clients as RollingLine[]).filter(
        (line) => line.plan.id === plan.id,
      );
    const [first, second] = await rolling();
    expect([first?.untilOn, first?.laterOn, second?.own]).toEqual(['2026-12-31', '2027-12-31', 0]);
    const roll = { clients: [{ id: first?.id, version: first?.version }] };
    await at.ines.post('/api/on-plan/roll/impact').send(roll).expect(200);
    const { body: saved } = await at.ines.post('/api/on-plan/roll').send(roll).expect(200);
    expect((await rolling()).map(({ id }) => id)).toEqual([second?.id]);
    const [on] = await plansOf(first?.client.id ?? '', plan.id);
    expect(on).toMatchObject({ untilOn: '2027-12-31', planTasks: on?.tasks });
    expect(on?.items.every(({ aspects }) => aspects.length === 0)).toBe(true);
    await at.ines.post('/api/on-plan/roll').send(roll).expect(409);
    // A change of the plan leaves the end of the year as it is.
    const [gasItem, walkItem] = twoItems();
    if (!gasItem || !walkItem) throw new Error('Two items.');
    const changed = [{ ...gasItem, recurrence: rule('second Monday of each month') }, walkItem];
    await change(plan, changed).expect(200);
    const [gasNow] = (await plansOf(second?.client.id ?? '', plan.id))[0]?.items ?? [];
    const { revisions, recurrence } = await oneSchedule(at.ines, gasNow?.scheduleId ?? '');
    expect((revisions.at(-1)?.recurrence ?? recurrence).end).toEqual({ kind: 'on', date: '2026-12-31' });
    await undo(saved.changeId).expect(409);
  });

  it('comes to a plan with the schedules that are there, and no task of it changes', async () => {
    const [{ id: templateId = '' } = {}] = await at.server.source.query<{ id: string }[]>(
      `select id from template where name = 'Gas and shore power'`,
    );
    const plan = await newPlan([
      item('boarding', templateId, 'first Tuesday of each month'),
      item('walk', at.walk, 'every Monday'),
    ]);
    const there = await at.server.source.query<{ id: string }[]>(
      `select id from schedule where template_id = $1 and deleted_at is null order by id`,
      [templateId],
    );
    const tasks = () =>
      at.server.source.query<object[]>('select to_jsonb(t) as t from task t where template_id = $1 order by id', [
        templateId,
      ]);
    const before = await tasks();
    const gather = (schedules: string[], key = 'boarding') =>
      at.ines.post(`/api/plans/${plan.id}/gathered`).send({ version: plan.version, item: key, schedules });
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
    const [kit, nadia] = [await at.server.person('Kit Sorrell'), await at.server.person('Nadia Orme')];
    const byKit = { v: 1, kind: 'person', personId: kit.id, daysOffToo: true, cover: 'deputy' } as const;
    const plan = await newPlan([item('walk', at.walk, 'first Monday of each month', { assignment: byKit })]);
    const [client] = await freeClients(1);
    await putOn(plan, ids(client ? [client] : [])).expect(200);
    const to = { tasksTo: nadia.id, schedulesTo: nadia.id, templatesTo: null, signOffsTo: null };
    const { body } = await at.ines
      .post(`/api/people/${kit.id}/hand-over`)
      .send({ version: kit.version, lastDay: null, ...to })
      .expect(200);
    expect((await at.ines.get(`/api/plans/${plan.id}`).expect(200)).body.items[0].who).toBe('Nadia Orme');
    expect((await plansOf(client?.id ?? '', plan.id))[0]?.items[0]?.aspects).toEqual([]);
    await undo(body.changeId).expect(200);
    expect((await at.ines.get(`/api/plans/${plan.id}`).expect(200)).body.items[0].who).toBe('Kit Sorrell');
    expect((await plansOf(client?.id ?? '', plan.id))[0]?.items[0]?.aspects).toEqual([]);
  });

  it('leaves what an item that is left out has made so far behind, and begins anew when it is taken in', async () => {
    const plan = await newPlan();
    const [client] = await freeClients(1);
    await putOn(plan, ids(client ? [client] : []), '2026-10-01').expect(200);
    const gasOf = async () => (await plansOf(client?.id ?? '', plan.id))[0]?.items.filter((one) => one.item === 'gas');
    const [before] = (await gasOf()) ?? [];
    const leave = async (why: string | null, assetId: string | null = null) =>
      at.ines.post(`/api/on-plan/${(await plansOf(client?.id ?? '', plan.id))[0]?.id}/left-out`).send({
        ...{ version: (await plansOf(client?.id ?? '', plan.id))[0]?.version, item: 'gas', assetId, why, from: TODAY },
      });
    const { changeId } = (await leave('on a buoy')).body;
    expect((await gasOf())?.map(({ leftOut }) => leftOut)).toEqual(['on a buoy']);
    const past = await oneSchedule(at.ines, before?.scheduleId ?? '');
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
      return at.ines
        .post('/api/on-plan/off')
        .send({ clients: [{ id: line?.id, version: line?.version }], from, tasks: 'go' });
    };
    expect((await off('2026-12-07')).status).toBe(200);
    const twice = await off('2026-12-21');
    expect([twice.status, twice.body.errors[0].message]).toEqual([422, expect.stringMatching(/goes already/)]);
  });

  it('takes as long as the plan says of each task of a set, or as is said of the client', async () => {
    const wrong = await at.ines
      .post('/api/plans')
      .send({
        ...{ name: 'No such task', note: '', rollsOn: 'itself' },
        items: [item('gas', at.gas, 'first Tuesday of each month', { stepMinutes: { seal: 5 } })],
      })
      .expect(422);
    expect(wrong.body.errors[0].message).toBe('“Gas” has no such task: load the page again.');
    const plan = await newPlan([item('gas', at.gas, 'first Tuesday of each month', { stepMinutes: { paper: 25 } })]);
    expect(plan.items[0]).toMatchObject({ minutes: 85, template: { estimateMinutes: 70 } });
    const [first, second] = await freeClients(2);
    const own = [{ item: 'gas', stepMinutes: { paper: 40 } }];
    await putOn(plan, [...ids(first ? [first] : []), { clientId: second?.id, own }]).expect(200);
    const minutes = (clientId = '') =>
      at.server.source.query<{ minutes: number[] }[]>(
        `select array_agg(distinct t.estimate_minutes order by t.estimate_minutes) as minutes from task t
         join schedule s on s.id = t.schedule_id join on_plan o on o.id = s.on_plan_id where o.plan_id = $1 and t.client_id = $2`,
        [plan.id, clientId],
      );
    expect([await minutes(first?.id), await minutes(second?.id)]).toEqual([
      [{ minutes: [25, 60] }],
      [{ minutes: [40, 60] }],
    ]);
    const { clients, counts } = await clientsOf(plan.id, { own: 'yes' });
    expect([counts.own, clients.map(({ own }) => own.map(({ says }) => says))]).toEqual([1, [['1 h 40']]]);
    const [ofSecond] = await plansOf(second?.id ?? '', plan.id);
    expect(ofSecond?.items.map(({ aspects, says }) => [aspects, says])).toEqual([[['estimate'], '1 h 40']]);
    // The plan says another estimate: it reaches whoever has none of their own.
    const { items } = inputOf(plan);
    await change(
      plan,
      items.map((one) => ({ ...one, stepMinutes: {} })),
    ).expect(200);
    expect([await minutes(first?.id), await minutes(second?.id)]).toEqual([
      [{ minutes: [10, 60] }],
      [{ minutes: [40, 60] }],
    ]);
  });

  it('is told in SQL as the core tells it', async () => {
    const rows = await at.server.source.query<{ id: string; aspects: string[] }[]>(
      `select s.id, ${OWN_ASPECTS_SQL} as aspects from ${SCHEDULES_OF_PLAN}`,
    );
    const repository = at.server.source.getRepository(Schedule);
    const plans = new Map((await at.server.source.getRepository(PlanRecord).find()).map((plan) => [plan.id, plan]));
    const onPlan = new Map(
      (await at.server.source.query<{ id: string; plan: string }[]>('select id, plan_id as plan from on_plan')).map(
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
    const plan = await newPlan([item('gas', at.gas, 'first Tuesday of each month')], { rollsOn: 'asks' });
    const clients = await freeClients(2);
    await putOn(plan, ids(clients)).expect(200);
    const [kept, ended] = (await clientsOf(plan.id)).clients;
    await at.ines
      .post('/api/on-plan/roll')
      .send({ clients: [{ id: kept?.id, version: kept?.version }] })
      .expect(200);
    at.server.clock.set('2027-01-04T09:00');
    await runMaking(await at.server.scope(), 'daily', silent);
    const inJanuary = (await tasksOf(plan.id)).filter(({ on }) => on >= '2027-01-01');
    expect(new Set(inJanuary.map(({ client }) => client))).toEqual(new Set([kept?.client.name]));
    // Long past its end, it still stands there to be looked through, and goes on until the end of the year that runs.
    const { clients: asked } = (await at.ines.get('/api/on-plan/rolling').expect(200)).body as {
      clients: RollingLine[];
    };
    expect(asked.find(({ id }) => id === ended?.id)).toMatchObject({ untilOn: '2026-12-31', laterOn: '2027-12-31' });
    at.server.clock.set(TEST_NOW);
  });
});
