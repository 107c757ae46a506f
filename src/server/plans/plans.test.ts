import { describe, expect, it } from 'vitest';
import type {
  HistoryEntry,
  Impact,
  PlanItemInput,
  PlanLine,
  PlanLook,
  PutOnLook,
  ServicePlan,
} from '../../contract/index.ts';
import { ids, inputOf, item, rule, TODAY, usingPlans } from '../testing/plans.ts';
import { changeSeveral, oneSchedule } from '../testing/schedules.ts';

const { at, twoItems, newPlan, freeClients, putOn, tasksOf, clientsOf, plansOf, undo, change } = usingPlans();

describe('a plan', () => {
  it('is told with what its items come to, and has a name of its own', async () => {
    const plan = await newPlan();
    expect(
      plan.items.map(({ template, phrase, who }) => [template.name, template.estimateMinutes, phrase, who]),
    ).toEqual([
      ['Gas', 70, 'first Tuesday of each month', 'the client’s usual person'],
      ['Look aboard', 20, '15th of each month, or the working day after', 'the client’s usual person'],
    ]);
    const { plans } = (await at.ines.get('/api/plans').expect(200)).body as { plans: PlanLine[] };
    expect(plans.find(({ id }) => id === plan.id)).toMatchObject({ clients: 0, tasksEach: 36, minutesEach: 12 * 90 });
    const twice = await at.ines.post('/api/plans').send(inputOf(plan)).expect(422);
    expect(twice.body.errors[0].message).toBe(`There is a plan “${plan.name}” already.`);
  });

  it('takes only items that can be', async () => {
    const wrong = async (rest: Partial<PlanItemInput>) =>
      (
        await at.ines
          .post('/api/plans')
          .send({
            name: 'Wrong',
            note: '',
            rollsOn: 'itself',
            items: [{ ...item('a', at.gas, 'every Monday'), ...rest }],
          })
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
    expect((await at.ines.delete(`/api/templates/${at.gas}`).expect(409)).body.detail).toMatch(/service plan/);
    await putOn(plan, ids(await freeClients(1))).expect(200);
    const archived = await at.ines
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
    const names = await at.server.source.query(
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
    const [{ id: templateId = '' } = {}] = await at.server.source.query<{ id: string }[]>(
      `select id from template where name = 'New berth-holder'`,
    );
    const start = { templateId, on: '2026-12-07', without: ['lift'] };
    const body = { version: plan.version, from: '2026-12-01', clients: ids(clients), start };
    const look = (await at.ines.post(`/api/plans/${plan.id}/clients/look`).send(body).expect(200)).body as PutOnLook;
    expect(look.started).toHaveLength(5);
    expect(look.started.map(({ on }) => on)).toContain('2026-12-14');
    const started = () =>
      at.server.source.query<{ title: string; on: string }[]>(
        `select title, work_on as "on" from task where template_id = $1 and client_id = any($2::uuid[]) and set_on = '2026-12-07'`,
        [templateId, clients.map(({ id }) => id)],
      );
    expect(await started()).toEqual([]);
    const { body: saved } = await at.ines.post(`/api/plans/${plan.id}/clients`).send(body).expect(200);
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
          n % 2 ? at.gas : at.walk,
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
    expect((await oneSchedule(at.ines, one?.scheduleId ?? '')).recurrence.end).toEqual({
      kind: 'on',
      date: '2026-12-31',
    });
  });
});

describe('a change of a plan', () => {
  it('reaches all its clients from its day as its Impact says, and leaves alone what is a client’s own', async () => {
    const plan = await newPlan();
    const clients = await freeClients(4);
    await putOn(plan, ids(clients)).expect(200);
    const onIt = (await clientsOf(plan.id)).clients;
    const own = (await plansOf(onIt[0]?.client.id ?? '', plan.id))[0]?.items[0]?.scheduleId ?? '';
    await changeSeveral(at.ines, [
      [
        await oneSchedule(at.ines, own),
        { recurrence: { ...rule('first Thursday of each month'), start: '2026-12-01' } },
      ],
    ]).expect(200);
    const before = await tasksOf(plan.id);
    const [first, second] = twoItems();
    if (!first || !second) throw new Error('Two items.');
    const changed = [{ ...first, recurrence: rule('first Wednesday of each month') }, second];
    const look = (
      await at.ines
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
    const back = (await at.ines.get(`/api/plans/${plan.id}`).expect(200)).body as ServicePlan;
    expect(back.items[0]?.phrase).toBe('first Tuesday of each month');
  });

  it('is undone with the schedules that it wrote, never by itself', async () => {
    const plan = await newPlan();
    await putOn(plan, ids(await freeClients(2))).expect(200);
    const [first, second] = twoItems();
    if (!first || !second) throw new Error('Two items.');
    const changed = [{ ...first, recurrence: rule('first Friday of each month') }, second];
    const { body: saved } = await change(plan, changed).expect(200);
    const { entries } = (await at.ines.get(`/api/plans/${plan.id}/history`).expect(200)).body as {
      entries: HistoryEntry[];
    };
    expect(entries[0]?.undo).toEqual({ changeId: saved.changeId, together: null });
    const [alone] = await at.server.source.query<{ id: string }[]>(
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
    const later = [{ ...first, recurrence: rule('first Friday of each month') }, item('new', at.walk, 'every Monday')];
    const saved = (await change(plan, later, '2027-01-04').expect(200)).body;
    expect((await tasksOf(plan.id)).filter(({ on }) => on < '2027-01-01')).toEqual(before);
    const [of] = await plansOf(clients[0]?.id ?? '', plan.id);
    expect(of?.items.map((one) => [one.item, one.aspects, one.tasks > 0])).toEqual([
      ['gas', [], true],
      ['new', [], true],
    ]);
    const look = (
      await at.ines
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
    const other = [{ ...(twoItems()[0] as PlanItemInput), templateId: at.walk }];
    const now = (await at.ines.get(`/api/plans/${plan.id}`).expect(200)).body as ServicePlan;
    expect((await change(now, other).expect(422)).body.errors[0].message).toMatch(/stays what it is/);
  });
});
