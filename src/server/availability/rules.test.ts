import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { type LeaveImpact, type Lists, listsSchema, type Task, templateInputSchema } from '../../contract/index.ts';
import { type AssignmentRule, givenTo } from '../../core/index.ts';
import { type Crew, crewOf } from '../testing/crew.ts';
import { plainInput, weekly } from '../testing/schedules.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { editOf, newTemplate, ownTask } from '../testing/work.ts';

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

describe('a list of who has which days', () => {
  const line = (from: string, to: string, name: string) => ({ from, to, personId: crew.id(name) });
  const listed = (...list: readonly object[]) =>
    ({ v: 1, kind: 'listed', list, goesOn: null, cover: 'next' }) as AssignmentRule;

  it('gives each date to whoever stands there, nobody beyond it, and the next of it while that one is away', async () => {
    const rule = listed(line('2026-11-23', '2026-11-27', 'Kit'), line('2026-11-30', '2026-12-02', 'Joss'));
    const { id: scheduleId, who: words } = await crew.made(rule);
    expect(words).toBe('as listed until 2 Dec 2026: Kit and Joss');
    expect(await crew.who(scheduleId, '2026-11-24', '2026-12-03')).toBe('Kit Kit Kit Kit Joss Joss Joss –');
    await crew.enter('Joss', crew.leaveOf('2026-12-01'));
    expect(await crew.who(scheduleId, '2026-11-30', '2026-12-02')).toBe('Joss Kit Joss');
  });

  it('has no day twice, and names nobody who is not here', async () => {
    const templateId = await newTemplate(ines, {});
    const refused = async (rule: AssignmentRule) =>
      (
        await ines
          .post('/api/schedules')
          .send({ ...plainInput(templateId), assignment: rule })
          .expect(422)
      ).body.errors[0];
    const twice = listed(line('2026-11-23', '2026-11-27', 'Kit'), line('2026-11-27', '2026-11-30', 'Joss'));
    expect((await refused(twice)).message).toBe('2026-11-27 stands on the list twice.');
    const stranger = { ...line('2026-11-23', '2026-11-27', 'Kit'), personId: '01937000-0000-7000-8000-00000000dead' };
    expect((await refused(listed(stranger))).message).toBe('There is no such person here.');
    const ends = listed(line('2026-11-27', '2026-11-23', 'Kit'));
    expect((await refused(ends)).message).toBe('A line of the list ends before it begins.');
  });
});

describe('what each of several does', () => {
  const EACH: AssignmentRule = { v: 1, kind: 'eachOf', group: { of: 'people', ids: [] }, daysOffToo: true };
  const each = (...names: string[]): AssignmentRule => ({
    ...EACH,
    group: { of: 'people', ids: names.map((name) => crew.id(name)) },
  });
  const monday = [{ kind: 'weeks', every: 1, on: [1] }];

  it('is one task a head, once however often it is made; joiners have theirs from their first day, leavers none after their last', async () => {
    const { id: scheduleId, who: words } = await crew.made(each('Joss', 'Nadia', 'Kit'), monday);
    expect(words).toBe('each of Joss, Nadia and Kit');
    expect(await crew.heads(scheduleId, '2026-11-30')).toEqual(['11-30 Joss', '11-30 Kit', '11-30 Nadia']);
    const [first] = await crew.tasks(scheduleId);
    const task = (await ines.get(`/api/tasks/${first?.id}`).expect(200)).body as Task;
    expect(task).toMatchObject({
      title: `Round of ${task.assignee?.name}`,
      whyWho: 'each has one',
      mayChooseNext: false,
    });
    await ines.post('/api/runs').send({}).expect(200);
    expect(await crew.heads(scheduleId, '2026-11-30')).toHaveLength(3);
    const joined = await crew.changed('Kit', { worksFrom: '2026-12-08', worksUntil: '2026-12-15' });
    expect(await crew.heads(scheduleId, '2026-11-30', '2026-12-21')).toEqual(
      ['11-30', '12-07', '12-14', '12-21'].flatMap((day) =>
        (day === '12-14' ? ['Joss', 'Kit', 'Nadia'] : ['Joss', 'Nadia']).map((name) => `${day} ${name}`),
      ),
    );
    await crew.undo(joined);
    expect(await crew.heads(scheduleId, '2026-12-21')).toEqual(['12-21 Joss', '12-21 Kit', '12-21 Nadia']);
  });

  it('is deleted for one alone and stays so, and is not done by whoever is away, which is told before', async () => {
    const { id: scheduleId } = await crew.made(each('Joss', 'Nadia'), monday);
    const [gone] = (await crew.tasks(scheduleId)).filter(
      ({ on, who: name }) => on === '2026-12-07' && name === 'Nadia',
    );
    const deletion = await ines.get(`/api/tasks/${gone?.id}`).expect(200);
    const { body } = await ines
      .post('/api/tasks/changes')
      .send({ tasks: [{ id: gone?.id, version: deletion.body.version }], deed: { kind: 'delete' } })
      .expect(200);
    await ines.post('/api/runs').send({}).expect(200);
    expect(await crew.heads(scheduleId, '2026-12-07')).toEqual(['12-07 Joss']);
    await crew.undo(body.changeId);
    expect(await crew.heads(scheduleId, '2026-12-07')).toEqual(['12-07 Joss', '12-07 Nadia']);
    const asked = crew.leaveOf('2026-12-14');
    const { body: told } = await ines
      .post(`/api/people/${crew.id('Joss')}/leave/impact`)
      .send(asked)
      .expect(200);
    const item = (told as LeaveImpact).items.find((one) => one.scheduleId === scheduleId);
    expect(item).toMatchObject({ fate: 'dropped', to: null, why: 'each who is there has one' });
    await crew.enter('Joss', asked);
    expect(await crew.heads(scheduleId, '2026-12-14')).toEqual(['12-14 Nadia']);
  });

  it('that shows already is not done by whoever is away that day, nor by who takes over for them, and comes back', async () => {
    await server.source.query('update person set deputy_id = $2 where id = $1', [crew.id('Joss'), crew.id('Tamsin')]);
    const { id: scheduleId } = await crew.made(each('Joss', 'Nadia'));
    expect(await crew.heads(scheduleId, '2026-11-24')).toEqual(['11-24 Joss', '11-24 Nadia']);
    const { body: told } = await ines
      .post(`/api/people/${crew.id('Joss')}/leave/impact`)
      .send(crew.leaveOf('2026-11-24'))
      .expect(200);
    expect((told as LeaveImpact).items.find((one) => one.scheduleId === scheduleId)).toMatchObject({ fate: 'dropped' });
    const { changeId } = await crew.enter('Joss', crew.leaveOf('2026-11-24'));
    expect(await crew.heads(scheduleId, '2026-11-24')).toEqual(['11-24 Nadia']);
    await crew.undo(changeId);
    expect(await crew.heads(scheduleId, '2026-11-24')).toEqual(['11-24 Joss', '11-24 Nadia']);
    // What is begun stays with whoever has begun it.
    const [own] = (await crew.tasks(scheduleId)).filter(({ on, who: name }) => on === '2026-11-24' && name === 'Joss');
    await (await server.browser('Joss Penhale')).post(`/api/tasks/${own?.id}/start`).expect(200);
    await crew.enter('Joss', crew.leaveOf('2026-11-24'));
    expect(await crew.heads(scheduleId, '2026-11-24')).toEqual(['11-24 Joss', '11-24 Nadia']);
  });

  it('is given to somebody else alone, never with all the others', async () => {
    const { id: scheduleId } = await crew.made(each('Joss', 'Nadia'), monday);
    const [one] = await crew.tasks(scheduleId);
    const edit = await editOf(ines, one?.id ?? '', { assigneeId: crew.id('Kit'), reach: 'later' });
    const editing = await ines.put(`/api/tasks/${one?.id}`).send(edit);
    expect(editing.body.errors?.[0]?.message).toMatch(/^Each of several has one of their own/);
  });

  it('is counted by a rehearsed fill for each, and goes with whoever leaves, back by an undo', async () => {
    const { id: scheduleId } = await crew.made({ ...EACH, group: { of: 'role', role: 'dock crew' } }, monday);
    const span = { scheduleIds: [scheduleId], from: '2027-02-01', to: '2027-02-14' };
    const { body } = await ines.post('/api/fills/rehearsal').send(span).expect(200);
    // Seven of them are here by then.
    expect(body.rows[0]).toMatchObject({ new: 14, there: 0 });
    const before = await crew.heads(scheduleId, '2026-11-30', '2026-12-21');
    expect(before).toContain('12-14 Wilf');
    const { body: team } = await ines.get('/api/team').expect(200);
    const { version } = team.members.find((one: { id: string }) => one.id === crew.id('Wilf'));
    const to = { tasksTo: crew.id('Joss'), schedulesTo: null, templatesTo: null, signOffsTo: null };
    const left = await ines
      .post(`/api/people/${crew.id('Wilf')}/hand-over`)
      .send({ ...to, version, lastDay: '2026-12-08' })
      .expect(200);
    // What is theirs up to the last day stays theirs; nobody has another's.
    expect(await crew.heads(scheduleId, '2026-11-30', '2026-12-21')).toEqual(
      before.filter((one) => !one.endsWith('Wilf') || one < '12-08'),
    );
    // Put right by hand, somebody who stays has them again.
    const stays = await crew.changed('Wilf', { worksUntil: null });
    expect(await crew.heads(scheduleId, '2026-11-30', '2026-12-21')).toEqual(before);
    await crew.undo(stays);
    await crew.undo(left.body.changeId);
    expect(await crew.heads(scheduleId, '2026-11-30', '2026-12-21')).toEqual(before);
  });

  it('has a date for each of them: none waits for the last one', async () => {
    const templateId = await newTemplate(ines, {});
    const input = { ...plainInput(templateId), assignment: each('Joss') };
    const after = { kind: 'follows', reaches: 'done', amount: 2, unit: 'week' };
    const { body } = await ines.post('/api/schedules').send({ ...input, recurrence: { ...weekly(1), rules: [after] } });
    expect(body.errors?.[0]).toMatchObject({ path: 'assignment' });
  });
});

describe('tickets that work asks for', () => {
  const RADIO = { tickets: ['radio'] };
  const holds = (until: string | null) => ({ tickets: [{ name: 'radio', until }] });
  beforeEach(async () => {
    await server.source.query(
      `update person set version = version + 1, tickets = case when id = $1 then $2::jsonb else '[]' end`,
      [crew.id('Joss'), JSON.stringify(holds('2026-12-08').tickets)],
    );
  });

  it('pass over whoever lacks one, move what nobody has seen when one ends sooner, and come back by an undo', async () => {
    await crew.changed('Nadia', holds(null));
    const { id: scheduleId } = await crew.made(crew.inTurn('Joss', 'Nadia', 'Kit'), undefined, RADIO);
    // From the second week on it is Nadia's turn, then Kit's, who has none; Joss holds it up to the 8th.
    expect(await crew.who(scheduleId, '2026-11-26', '2026-12-11')).toBe(
      'Joss Joss Nadia Nadia Nadia Nadia Nadia Joss Joss Nadia Nadia Nadia',
    );
    const changeId = await crew.changed('Joss', holds('2026-12-04'));
    expect(await crew.who(scheduleId, '2026-12-07', '2026-12-11')).toBe('Nadia Nadia Nadia Nadia Nadia');
    await crew.undo(changeId);
    expect(await crew.who(scheduleId, '2026-12-07', '2026-12-11')).toBe('Joss Joss Nadia Nadia Nadia');
  });

  it('that a template asks for from now on move what nobody has seen, which an undo puts back', async () => {
    await crew.changed('Nadia', holds(null));
    const schedule = await crew.made(crew.inTurn('Joss', 'Kit', 'Nadia'));
    const before = await crew.tasks(schedule.id);
    expect(await crew.who(schedule.id, '2026-12-01', '2026-12-03')).toBe('Kit Kit Kit');
    const template = (await ines.get(`/api/templates/${schedule.template.id}`).expect(200)).body;
    const asking = { ...templateInputSchema.parse(template), ...RADIO, version: template.version };
    const change = { ...asking, reach: { open: false, also: [] } };
    const { body: told } = await ines.post(`/api/templates/${template.id}/impact`).send(change).expect(200);
    expect(told.figures).toMatchObject({ changed: expect.any(Number), added: 0, removed: 0 });
    const { body } = await ines.put(`/api/templates/${template.id}`).send(change).expect(200);
    expect(await crew.who(schedule.id, '2026-12-01', '2026-12-03')).toBe('Nadia Nadia Nadia');
    await crew.undo(body.changeId);
    expect(await crew.tasks(schedule.id)).toEqual(before);
  });

  it('hold for whoever has it by name, for steps too; by hand somebody else can be given it, which is said', async () => {
    const step = { assignee: { by: 'person', personId: crew.id('Kit') }, tickets: ['radio'] };
    const of = { steps: [ownTask('call', 0, step as object)] };
    const { id: scheduleId } = await crew.made(givenTo(crew.id('Nadia')), [{ kind: 'weeks', every: 1, on: [2] }], {
      ...of,
      ...RADIO,
    });
    const [main, call] = await crew.tasks(scheduleId);
    expect([main?.who, call?.who]).toEqual([null, null]);
    const task = (await ines.get(`/api/tasks/${main?.id}`).expect(200)).body as Task;
    expect(task).toMatchObject({ tickets: ['radio'], whyWho: 'Nadia has no ticket “radio”, and nobody takes over' });
    await ines
      .post('/api/tasks/changes')
      .send({ tasks: [{ id: task.id, version: task.version }], deed: { kind: 'give', personId: crew.id('Nadia') } })
      .expect(200);
    expect((await ines.get(`/api/tasks/${main?.id}`)).body).toMatchObject({
      lackedTicket: 'radio',
      tickets: ['radio'],
    });
  });

  it('keep what any one may take from the sheets of those who lack one, who can’t take it either', async () => {
    const { id: scheduleId } = await crew.made(
      { v: 1, kind: 'anyOf', group: { of: 'role', role: 'dock crew' } },
      undefined,
      RADIO,
    );
    const [first] = await crew.tasks(scheduleId);
    const offered = async (name: string, by: Agent) =>
      (await by.get(`/api/people/${crew.id(name)}/day-sheet`).expect(200)).body.offered.tasks.some(
        (task: { id: string }) => task.id === first?.id,
      );
    const [joss, nadia] = [await server.browser('Joss Penhale'), await server.browser('Nadia Orme')];
    expect([await offered('Joss', joss), await offered('Nadia', nadia)]).toEqual([true, false]);
    const { body } = await nadia.post(`/api/tasks/${first?.id}/claim`).expect(403);
    expect(body.detail).toBe('It asks for the ticket “radio”, which you do not hold on 2026-11-24.');
    await joss.post(`/api/tasks/${first?.id}/claim`).expect(200);
  });

  it('join the list of the workspace, carry another name over to people and templates, and can’t leave while asked for', async () => {
    const templateId = await newTemplate(ines, {
      tickets: ['signals'],
      steps: [ownTask('call', 0, { tickets: ['radio', 'signals'] })],
    });
    const lists = async () => listsSchema.parse((await ines.get('/api/settings/lists').expect(200)).body);
    const found = await lists();
    expect(found.tickets.filter(({ name }) => name === 'radio' || name === 'signals')).toEqual([
      { name: 'radio', count: 1, asked: expect.any(Number) },
      { name: 'signals', count: 0, asked: 1 },
    ]);
    const named = (names: readonly { name: string }[]) => names.map(({ name }) => ({ was: name, name }));
    const input = ({ version, roles, teams, tickets, ...rest }: Lists) => ({
      ...rest,
      ...{ version, roles: named(roles), teams: named(teams), tickets: named(tickets) },
      clientFields: rest.clientFields.map(({ count: _, ...field }) => field),
      assetFields: rest.assetFields.map(({ count: _, ...field }) => field),
    });
    const without = { ...input(found), tickets: named(found.tickets).filter(({ name }) => name !== 'signals') };
    const { body: refused } = await ines.put('/api/settings/lists').send(without).expect(422);
    expect(refused.errors[0].message).toBe('“signals” can’t go: 1 template asks for it. Take it out there first.');
    const renamed = {
      ...input(found),
      tickets: named(found.tickets).map((one) => (one.was === 'radio' ? { ...one, name: 'VHF' } : one)),
    };
    const { body } = await ines.put('/api/settings/lists').send(renamed).expect(200);
    const ofTemplate = async () => (await ines.get(`/api/templates/${templateId}`).expect(200)).body.steps[0].tickets;
    expect([(await server.person('Joss Penhale')).tickets[0]?.name, await ofTemplate()]).toEqual([
      'VHF',
      ['VHF', 'signals'],
    ]);
    await crew.undo(body.changeId);
    expect([(await server.person('Joss Penhale')).tickets[0]?.name, await ofTemplate()]).toEqual([
      'radio',
      ['radio', 'signals'],
    ]);
  });
});
