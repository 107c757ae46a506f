import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import {
  type Leave,
  type LeaveImpact,
  type Lists,
  listsSchema,
  type Schedule,
  type Task,
} from '../../contract/index.ts';
import { type AssignmentRule, givenTo } from '../../core/index.ts';
import { plainInput, weekly } from '../testing/schedules.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { newTemplate, ownTask } from '../testing/work.ts';

let server: TestServer;
let ines: Agent;
const idOf = new Map<string, string>();
const id = (name: string) => idOf.get(name) ?? '';
beforeAll(async () => {
  server = await testServer();
  ines = await server.browser('Ines Calloway');
  for (const name of ['Joss Penhale', 'Nadia Orme', 'Kit Sorrell', 'Tamsin Wray', 'Wilf Ardley'])
    idOf.set(name.split(' ')[0] ?? '', (await server.person(name)).id);
});
afterAll(() => server.stop());

/** A schedule on some weekdays of a new template, given by a rule. */
async function made(
  assignment: AssignmentRule,
  rules: object[] = [{ kind: 'weeks', every: 1, on: [1, 2, 3, 4, 5] }],
  of: object = {},
) {
  const words = { name: 'Round', titlePattern: 'Round of {person}', estimateMinutes: 60 };
  const templateId = await newTemplate(ines, { ...words, ...of });
  const input = { ...plainInput(templateId), assignment, timing: { ...plainInput(templateId).timing, dueTime: null } };
  const { body } = await ines
    .post('/api/schedules')
    .send({ ...input, recurrence: { ...weekly(1), rules } })
    .expect(200);
  return body.schedule as Schedule;
}

const tasks = (scheduleId: string) =>
  server.source.query<{ id: string; on: string; who: string | null; title: string; why: { by: string } | null }[]>(
    `select t.id, work_on as "on", (select split_part(name, ' ', 1) from person p where p.id = t.assignee_id) as who, title, why
     from task t where schedule_id = $1 order by work_on`,
    [scheduleId],
  );
const who = async (scheduleId: string, from: string, to: string) =>
  (await tasks(scheduleId)).flatMap(({ on, who: name }) => (on >= from && on <= to ? (name ?? '–') : [])).join(' ');

const inTurn = (...people: string[]): AssignmentRule => ({
  ...{ v: 1, kind: 'inTurn', cover: 'next' },
  turns: {
    length: { per: 'week', on: 1 },
    rosters: [{ from: '2026-11-23', people: people.map(id) }],
    swaps: [],
  },
});
const leaveOf = (from: string, to = from, half: Leave['half'] = null) => ({ from, to, half, note: '' });
const enter = async (name: string, leave: object, by = ines) =>
  (
    await by
      .post(`/api/people/${id(name)}/leave`)
      .send(leave)
      .expect(200)
  ).body as { leave: Leave; changeId: string };
const takeBack = ({ id: leaveId, version }: Leave, by = ines) =>
  by.post(`/api/leave/${leaveId}/take-back`).send({ version });
/** Writes something else of a person. @returns the change */
async function changed(name: string, of: object): Promise<string> {
  const { body: team } = await ines.get('/api/team').expect(200);
  const found = team.members.find((one: { id: string }) => one.id === id(name));
  const { id: _, signsIn: __, invitedUntil: ___, loads: ____, ...fields } = found;
  const { body } = await ines
    .put(`/api/people/${id(name)}`)
    .send({ ...fields, ...of })
    .expect(200);
  return body.changeId;
}
beforeEach(() => server.source.query('delete from leave; update person set deputy_id = null'));

describe('hours of a person', () => {
  it('that change give what nobody has seen to others, which an undo takes back', async () => {
    const { id: scheduleId } = await made(inTurn('Joss', 'Nadia'));
    const changeId = await changed('Joss', { weeks: [[450, 450, 0, 450, 450, 0, 0]] });
    expect(await who(scheduleId, '2026-12-07', '2026-12-11')).toBe('Joss Joss Nadia Joss Joss');
    await ines.post(`/api/changes/${changeId}/undo`).expect(200);
    expect(await who(scheduleId, '2026-12-07', '2026-12-11')).toBe('Joss Joss Joss Joss Joss');
  });
});

describe('turns of a schedule', () => {
  it('give its tasks to each in order, named in their titles and with the reason', async () => {
    const { id: scheduleId, who: words } = await made(inTurn('Joss', 'Nadia'));
    expect(words).toBe('in turn: Joss, Nadia, weekly');
    expect(await who(scheduleId, '2026-11-24', '2026-12-11')).toBe(
      'Joss Joss Joss Joss Nadia Nadia Nadia Nadia Nadia Joss Joss Joss Joss Joss',
    );
    const [first] = await tasks(scheduleId);
    expect(first).toMatchObject({ title: 'Round of Joss Penhale', why: { by: 'turn', place: 1, of: 2 } });
    const { body } = await ines.get(`/api/tasks/${first?.id}`).expect(200);
    expect((body as Task).whyWho).toBe('turn 1 of 2');
  });

  it('go to the next while somebody is away, seen or not, and come back when that is taken back', async () => {
    const { id: scheduleId } = await made(inTurn('Joss', 'Nadia'));
    const before = await tasks(scheduleId);
    const { leave } = await enter('Joss', leaveOf('2026-11-24', '2026-11-26'));
    expect(await who(scheduleId, '2026-11-24', '2026-11-27')).toBe('Nadia Nadia Nadia Joss');
    const [shown] = await tasks(scheduleId);
    expect(((await ines.get(`/api/tasks/${shown?.id}`)).body as Task).whyWho).toBe(
      'Joss is away until Thu, Nadia instead',
    );
    await takeBack(leave).expect(200);
    expect((await tasks(scheduleId)).map(({ who: name }) => name)).toEqual(before.map(({ who: name }) => name));
  });

  it('are put back exactly by an undo, and what is begun stays', async () => {
    const { id: scheduleId } = await made(inTurn('Joss', 'Nadia'));
    const [first] = await tasks(scheduleId);
    await (await server.browser('Joss Penhale')).post(`/api/tasks/${first?.id}/start`).expect(200);
    const before = await tasks(scheduleId);
    const { changeId } = await enter('Joss', leaveOf('2026-11-24', '2026-11-27'));
    expect(await who(scheduleId, '2026-11-24', '2026-11-27')).toBe('Joss Nadia Nadia Nadia');
    await ines.post(`/api/changes/${changeId}/undo`).expect(200);
    expect(await tasks(scheduleId)).toEqual(before);
    expect((await ines.get('/api/leave').expect(200)).body.leave).toEqual([]);
  });
});

describe('a list of who has which days', () => {
  const line = (from: string, to: string, name: string) => ({ from, to, personId: id(name) });
  const listed = (...list: readonly object[]) =>
    ({ v: 1, kind: 'listed', list, goesOn: null, cover: 'next' }) as AssignmentRule;

  it('gives each date to whoever stands there, nobody beyond it, and the next of it while that one is away', async () => {
    const rule = listed(line('2026-11-23', '2026-11-27', 'Kit'), line('2026-11-30', '2026-12-02', 'Joss'));
    const { id: scheduleId, who: words } = await made(rule);
    expect(words).toBe('as listed until 2 Dec 2026: Kit and Joss');
    expect(await who(scheduleId, '2026-11-24', '2026-12-03')).toBe('Kit Kit Kit Kit Joss Joss Joss –');
    await enter('Joss', leaveOf('2026-12-01'));
    expect(await who(scheduleId, '2026-11-30', '2026-12-02')).toBe('Joss Kit Joss');
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

describe('work given by name', () => {
  it('goes to whoever takes over, or to nobody, and comes back', async () => {
    const { id: scheduleId } = await made(givenTo(id('Nadia')));
    await server.source.query('update person set deputy_id = $2 where id = $1', [id('Nadia'), id('Tamsin')]);
    const { leave } = await enter('Nadia', leaveOf('2026-12-01', '2026-12-02'));
    // Tamsin does not work on Tuesdays.
    expect(await who(scheduleId, '2026-11-30', '2026-12-03')).toBe('Nadia – Tamsin Nadia');
    await takeBack(leave).expect(200);
    expect(await who(scheduleId, '2026-11-30', '2026-12-03')).toBe('Nadia Nadia Nadia Nadia');
  });

  it('by hand as well: a captured task is covered and given back', async () => {
    await server.source.query('update person set deputy_id = $2 where id = $1', [id('Nadia'), id('Joss')]);
    const line = { title: 'Paint the hut', on: '2026-11-27', dueOn: '2026-11-27', startTime: null, dueTime: null };
    const { body } = await ines
      .post('/api/tasks')
      .send({ ...line, assigneeId: id('Nadia'), clientId: null, assetId: null, estimateMinutes: 30 })
      .expect(200);
    const taskId = body.tasks[0].id as string;
    const holder = async () => ((await ines.get(`/api/tasks/${taskId}`)).body as Task).assignee?.name;
    const { leave } = await enter('Nadia', leaveOf('2026-11-27'));
    expect(await holder()).toBe('Joss Penhale');
    await takeBack(leave).expect(200);
    expect(await holder()).toBe('Nadia Orme');
  });
});

describe('leave', () => {
  it('is shown before it is entered as entering does it', async () => {
    const { id: scheduleId } = await made(inTurn('Joss', 'Nadia'));
    const days = leaveOf('2026-12-07', '2026-12-11');
    const { body } = await ines
      .post(`/api/people/${id('Joss')}/leave/impact`)
      .send(days)
      .expect(200);
    const impact = body as LeaveImpact;
    expect(impact).toMatchObject({ days: 5, holidays: 0 });
    const told = impact.items.filter((item) => item.scheduleId === scheduleId);
    expect(told.map(({ on, fate, to, why }) => [on, fate, to?.name, why])[0]).toEqual([
      '2026-12-07',
      'goes',
      'Nadia Orme',
      'next in turn',
    ]);
    const nadia = impact.receivers.find(({ person }) => person.name === 'Nadia Orme');
    expect(nadia?.weeks[0]?.after).toBeGreaterThanOrEqual((nadia?.weeks[0]?.before ?? 0) + 300);
    expect(await who(scheduleId, '2026-12-07', '2026-12-11')).toBe('Joss Joss Joss Joss Joss');
    await enter('Joss', days);
    expect(await who(scheduleId, '2026-12-07', '2026-12-11')).toBe(
      told.map(({ to }) => to?.name.split(' ')[0]).join(' '),
    );
  });

  it('is asked for by whoever it is for, changes nothing until it is given, and can be refused or taken back until then', async () => {
    const { id: scheduleId } = await made(inTurn('Kit', 'Joss'));
    const kit = await server.browser('Kit Sorrell');
    const { leave } = await enter('Kit', leaveOf('2026-12-08', '2026-12-09'), kit);
    expect(leave).toMatchObject({ state: 'asked', decidedBy: null, days: 2, mayTakeBack: true });
    expect(await who(scheduleId, '2026-12-08', '2026-12-09')).toBe('Kit Kit');
    await kit.put(`/api/leave/${leave.id}/state`).send({ version: 1, state: 'given' }).expect(403);
    await ines.post(`/api/leave/${leave.id}/impact`).expect(200);
    await ines.put(`/api/leave/${leave.id}/state`).send({ version: 1, state: 'given' }).expect(200);
    expect(await who(scheduleId, '2026-12-08', '2026-12-09')).toBe('Joss Joss');
    const again = await ines.put(`/api/leave/${leave.id}/state`).send({ version: 2, state: 'refused' }).expect(409);
    expect(again.body.detail).toBe('That is decided already.');
    await kit.post(`/api/leave/${leave.id}/take-back`).send({ version: 2 }).expect(403);
    const other = await enter('Kit', leaveOf('2026-12-16'), kit);
    await takeBack(other.leave, kit).expect(200);
    const third = await enter('Kit', leaveOf('2026-12-17'), kit);
    const refused = await ines
      .put(`/api/leave/${third.leave.id}/state`)
      .send({ version: 1, state: 'refused' })
      .expect(200);
    expect(refused.body.leave).toMatchObject({ state: 'refused', decidedBy: 'Ines Calloway' });
  });

  it('that is taken back is not put back over other leave of its days', async () => {
    const { leave } = await enter('Joss', leaveOf('2026-11-25', '2026-11-27'));
    const { body: taken } = await takeBack(leave).expect(200);
    const other = await enter('Joss', leaveOf('2026-11-26'));
    const { body } = await ines.post(`/api/changes/${taken.changeId}/undo`).expect(422);
    expect(body.errors[0].message).toMatch(/Joss Penhale is away on .* already/);
    await ines.post(`/api/changes/${other.changeId}/undo`).expect(200);
    await ines.post(`/api/changes/${taken.changeId}/undo`).expect(200);
    expect((await ines.get('/api/leave').expect(200)).body.leave).toMatchObject([{ from: '2026-11-25' }]);
  });

  it('that is undone gives back what was made while it held, too', async () => {
    const { changeId } = await enter('Joss', leaveOf('2026-11-24', '2026-12-04'));
    const { id: scheduleId } = await made(inTurn('Joss', 'Nadia'));
    expect(await who(scheduleId, '2026-11-25', '2026-11-27')).toBe('Nadia Nadia Nadia');
    const shown = await tasks(scheduleId);
    await ines.post(`/api/changes/${changeId}/undo`).expect(200);
    const now = await tasks(scheduleId);
    expect(now.filter(({ who: name }, i) => name !== shown[i]?.who).length).toBeGreaterThan(0);
  });

  it('of half a day leaves the work where it is', async () => {
    const { id: scheduleId } = await made(inTurn('Joss', 'Nadia'));
    await enter('Joss', leaveOf('2026-11-25', '2026-11-25', 'morning'));
    expect(await who(scheduleId, '2026-11-24', '2026-11-26')).toBe('Joss Joss Joss');
  });

  it('is refused with what is wrong: twice on a day, backwards, of others', async () => {
    await enter('Joss', leaveOf('2026-12-01', '2026-12-04'));
    const twice = await ines
      .post(`/api/people/${id('Joss')}/leave`)
      .send(leaveOf('2026-12-04'))
      .expect(422);
    expect(twice.body.errors[0].message).toBe(
      'Joss Penhale is away from Tue 1 Dec to Fri 4 Dec already: change or take back that one.',
    );
    await ines
      .post(`/api/people/${id('Joss')}/leave`)
      .send(leaveOf('2026-12-09', '2026-12-08'))
      .expect(422);
    await ines
      .post(`/api/people/${id('Joss')}/leave`)
      .send(leaveOf('2026-12-09', '2026-12-10', 'morning'))
      .expect(422);
    const nadia = await server.browser('Nadia Orme');
    await nadia
      .post(`/api/people/${id('Joss')}/leave`)
      .send(leaveOf('2026-12-09'))
      .expect(403);
    const ada = await server.browser('Ada Winn');
    await ada
      .post(`/api/people/${id('Joss')}/leave`)
      .send(leaveOf('2026-12-09'))
      .expect(404);
  });
});

describe('what any one of several may take', () => {
  it('stands on the sheets of all of them until one takes it; the other is told who', async () => {
    const { id: scheduleId } = await made({ v: 1, kind: 'anyOf', group: { of: 'role', role: 'dock crew' } });
    const [first] = await tasks(scheduleId);
    const sheetOf = async (name: string, by: Agent) =>
      (await by.get(`/api/people/${id(name)}/day-sheet`).expect(200)).body.offered.tasks.map(
        (task: { id: string }) => task.id,
      );
    const [joss, nadia] = [await server.browser('Joss Penhale'), await server.browser('Nadia Orme')];
    expect(await sheetOf('Joss', joss)).toContain(first?.id);
    expect(await sheetOf('Nadia', nadia)).toContain(first?.id);
    const bram = await server.browser('Bram Hollis');
    await bram.post(`/api/tasks/${first?.id}/claim`).expect(403);
    const both = await Promise.all([joss, nadia].map((by) => by.post(`/api/tasks/${first?.id}/claim`)));
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
    expect(both.find(({ status }) => status === 409)?.body.detail).toMatch(
      /^(Joss Penhale|Nadia Orme) has it already\.$/,
    );
    expect(await sheetOf('Nadia', nadia)).not.toContain(first?.id);
    // A change of the schedule leaves it with whoever took it.
    const { body: now } = await ines.get(`/api/schedules/${scheduleId}`);
    const [taken] = await tasks(scheduleId);
    const set = { timing: { ...now.timing, dueTime: '17:00' } };
    const reach = { open: true, also: [] };
    await ines
      .post('/api/schedules/changes')
      .send({ changes: [{ id: scheduleId, version: now.version, set }], reach })
      .expect(200);
    expect((await tasks(scheduleId))[0]?.who).toBe(taken?.who);
    const taker = taken?.who === 'Joss' ? joss : nadia;
    await taker.post(`/api/tasks/${first?.id}/give-back`).expect(200);
    expect(await sheetOf('Nadia', nadia)).toContain(first?.id);
  });

  it('is anyone’s, or each one’s who has hours, where it is for everyone', async () => {
    const everyone = { of: 'everyone' } as const;
    const { id: anyId, who: words } = await made({ v: 1, kind: 'anyOf', group: everyone });
    expect(words).toBe('any of everyone');
    const [first] = await tasks(anyId);
    const bram = await server.browser('Bram Hollis');
    const sheet = await bram.get(`/api/people/${(await server.person('Bram Hollis')).id}/day-sheet`).expect(200);
    expect(sheet.body.offered.tasks).toContainEqual(expect.objectContaining({ id: first?.id, offeredTo: 'anyone' }));
    await bram.post(`/api/tasks/${first?.id}/claim`).expect(200);
    const { id: eachId } = await made({ v: 1, kind: 'eachOf', group: everyone, daysOffToo: true }, [
      { kind: 'weeks', every: 1, on: [1] },
    ]);
    const names = (await tasks(eachId)).flatMap(({ on, who: name }) => (on === '2026-12-07' ? [name] : []));
    expect(names).toContain('Bram');
    // Odile owns the place, and works no hours in it.
    expect(names).not.toContain('Odile');
  });
});

describe('what each of several does', () => {
  const EACH: AssignmentRule = { v: 1, kind: 'eachOf', group: { of: 'people', ids: [] }, daysOffToo: true };
  const each = (...names: string[]): AssignmentRule => ({ ...EACH, group: { of: 'people', ids: names.map(id) } });
  const monday = [{ kind: 'weeks', every: 1, on: [1] }];
  const heads = async (scheduleId: string, from: string, to = from) =>
    (await tasks(scheduleId))
      .flatMap(({ on, who: name }) => (on >= from && on <= to ? [`${on.slice(5)} ${name ?? '–'}`] : []))
      .sort();

  it('is one task a head, once however often it is made; joiners have theirs from their first day, leavers none after their last', async () => {
    const { id: scheduleId, who: words } = await made(each('Joss', 'Nadia', 'Kit'), monday);
    expect(words).toBe('each of Joss, Nadia and Kit');
    expect(await heads(scheduleId, '2026-11-30')).toEqual(['11-30 Joss', '11-30 Kit', '11-30 Nadia']);
    const [first] = await tasks(scheduleId);
    const task = (await ines.get(`/api/tasks/${first?.id}`).expect(200)).body as Task;
    expect(task).toMatchObject({
      title: `Round of ${task.assignee?.name}`,
      whyWho: 'each has one',
      mayChooseNext: false,
    });
    await ines.post('/api/runs').send({}).expect(200);
    expect(await heads(scheduleId, '2026-11-30')).toHaveLength(3);
    const joined = await changed('Kit', { worksFrom: '2026-12-08', worksUntil: '2026-12-15' });
    expect(await heads(scheduleId, '2026-11-30', '2026-12-21')).toEqual(
      ['11-30', '12-07', '12-14', '12-21'].flatMap((day) =>
        (day === '12-14' ? ['Joss', 'Kit', 'Nadia'] : ['Joss', 'Nadia']).map((name) => `${day} ${name}`),
      ),
    );
    await ines.post(`/api/changes/${joined}/undo`).expect(200);
    expect(await heads(scheduleId, '2026-12-21')).toEqual(['12-21 Joss', '12-21 Kit', '12-21 Nadia']);
  });

  it('is deleted for one alone and stays so, and is not done by whoever is away, which is told before', async () => {
    const { id: scheduleId } = await made(each('Joss', 'Nadia'), monday);
    const [gone] = (await tasks(scheduleId)).filter(({ on, who: name }) => on === '2026-12-07' && name === 'Nadia');
    const deletion = await ines.get(`/api/tasks/${gone?.id}`).expect(200);
    const { body } = await ines
      .post('/api/tasks/changes')
      .send({ tasks: [{ id: gone?.id, version: deletion.body.version }], deed: { kind: 'delete' } })
      .expect(200);
    await ines.post('/api/runs').send({}).expect(200);
    expect(await heads(scheduleId, '2026-12-07')).toEqual(['12-07 Joss']);
    await ines.post(`/api/changes/${body.changeId}/undo`).expect(200);
    expect(await heads(scheduleId, '2026-12-07')).toEqual(['12-07 Joss', '12-07 Nadia']);
    const asked = leaveOf('2026-12-14');
    const { body: told } = await ines
      .post(`/api/people/${id('Joss')}/leave/impact`)
      .send(asked)
      .expect(200);
    const item = (told as LeaveImpact).items.find((one) => one.scheduleId === scheduleId);
    expect(item).toMatchObject({ fate: 'dropped', to: null, why: 'each who is there has one' });
    await enter('Joss', asked);
    expect(await heads(scheduleId, '2026-12-14')).toEqual(['12-14 Nadia']);
  });

  it('is counted by a rehearsed fill for each, and goes with whoever leaves, back by an undo', async () => {
    const { id: scheduleId } = await made({ ...EACH, group: { of: 'role', role: 'dock crew' } }, monday);
    const span = { scheduleIds: [scheduleId], from: '2027-02-01', to: '2027-02-14' };
    const { body } = await ines.post('/api/fills/rehearsal').send(span).expect(200);
    // Seven of them are here by then.
    expect(body.rows[0]).toMatchObject({ new: 14, there: 0 });
    const before = await heads(scheduleId, '2026-11-30', '2026-12-21');
    expect(before).toContain('12-14 Wilf');
    const { body: team } = await ines.get('/api/team').expect(200);
    const { version } = team.members.find((one: { id: string }) => one.id === id('Wilf'));
    const to = { tasksTo: id('Joss'), schedulesTo: null, templatesTo: null, signOffsTo: null };
    const left = await ines
      .post(`/api/people/${id('Wilf')}/hand-over`)
      .send({ ...to, version, lastDay: '2026-12-08' })
      .expect(200);
    // What is theirs up to the last day stays theirs; nobody has another's.
    expect(await heads(scheduleId, '2026-11-30', '2026-12-21')).toEqual(
      before.filter((one) => !one.endsWith('Wilf') || one < '12-08'),
    );
    await ines.post(`/api/changes/${left.body.changeId}/undo`).expect(200);
    expect(await heads(scheduleId, '2026-11-30', '2026-12-21')).toEqual(before);
  });

  it('has a date for each of them: none waits for the last one', async () => {
    const templateId = await newTemplate(ines, {});
    const input = { ...plainInput(templateId), assignment: each('Joss') };
    const after = { kind: 'follows', reaches: 'done', amount: 2, unit: 'week' };
    const { body } = await ines.post('/api/schedules').send({ ...input, recurrence: { ...weekly(1), rules: [after] } });
    expect(body.errors?.[0]).toMatchObject({ path: 'assignment' });
  });
});

describe('whoever has the least to do', () => {
  it('is told when a task is made, with the load it was told by, and keeps it', async () => {
    const people = { of: 'people', ids: [id('Joss'), id('Wilf')] } as const;
    const { id: scheduleId } = await made({ v: 1, kind: 'leastToDo', group: people });
    const before = await tasks(scheduleId);
    expect(before.every(({ why }) => why?.by === 'least to do')).toBe(true);
    // On holidays nobody is there.
    expect([...new Set(before.flatMap(({ who: name }) => name ?? []))].sort()).toEqual(['Joss', 'Wilf']);
    // Whatever else comes to one of them, what is made stays as it is.
    const heavy = await made(givenTo(id(before[0]?.who ?? '')));
    expect(heavy.who).not.toBe('');
    const { body } = await ines.get(`/api/schedules/${scheduleId}`);
    const set = { pauses: [{ from: '2027-03-01', to: '2027-03-02' }] };
    await ines
      .post('/api/schedules/changes')
      .send({ changes: [{ id: scheduleId, version: body.version, set }], reach: { open: true, also: [] } })
      .expect(200);
    expect(await tasks(scheduleId)).toEqual(before);
  });
});

describe('tickets that work asks for', () => {
  const RADIO = { tickets: ['radio'] };
  const holds = (until: string | null) => ({ tickets: [{ name: 'radio', until }] });
  beforeEach(async () => {
    await server.source.query(
      `update person set version = version + 1, tickets = case when id = $1 then $2::jsonb else '[]' end`,
      [id('Joss'), JSON.stringify(holds('2026-12-08').tickets)],
    );
  });

  it('pass over whoever lacks one, move what nobody has seen when one ends sooner, and come back by an undo', async () => {
    await changed('Nadia', holds(null));
    const { id: scheduleId } = await made(inTurn('Joss', 'Nadia', 'Kit'), undefined, RADIO);
    // From the second week on it is Nadia's turn, then Kit's, who has none; Joss holds it up to the 8th.
    expect(await who(scheduleId, '2026-11-26', '2026-12-11')).toBe(
      'Joss Joss Nadia Nadia Nadia Nadia Nadia Joss Joss Nadia Nadia Nadia',
    );
    const changeId = await changed('Joss', holds('2026-12-04'));
    expect(await who(scheduleId, '2026-12-07', '2026-12-11')).toBe('Nadia Nadia Nadia Nadia Nadia');
    await ines.post(`/api/changes/${changeId}/undo`).expect(200);
    expect(await who(scheduleId, '2026-12-07', '2026-12-11')).toBe('Joss Joss Nadia Nadia Nadia');
  });

  it('hold for whoever has it by name, for steps too; by hand somebody else can be given it, which is said', async () => {
    const step = { assignee: { by: 'person', personId: id('Kit') }, tickets: ['radio'] };
    const of = { steps: [ownTask('call', 0, step as object)] };
    const { id: scheduleId } = await made(givenTo(id('Nadia')), [{ kind: 'weeks', every: 1, on: [2] }], {
      ...of,
      ...RADIO,
    });
    const [main, call] = await tasks(scheduleId);
    expect([main?.who, call?.who]).toEqual([null, null]);
    const task = (await ines.get(`/api/tasks/${main?.id}`).expect(200)).body as Task;
    expect(task).toMatchObject({ tickets: ['radio'], whyWho: 'Nadia has no ticket “radio”, and nobody else can' });
    await ines
      .post('/api/tasks/changes')
      .send({ tasks: [{ id: task.id, version: task.version }], deed: { kind: 'give', personId: id('Nadia') } })
      .expect(200);
    expect((await ines.get(`/api/tasks/${main?.id}`)).body).toMatchObject({
      lackedTicket: 'radio',
      tickets: ['radio'],
    });
  });

  it('keep what any one may take from the sheets of those who lack one, who can’t take it either', async () => {
    const { id: scheduleId } = await made(
      { v: 1, kind: 'anyOf', group: { of: 'role', role: 'dock crew' } },
      undefined,
      RADIO,
    );
    const [first] = await tasks(scheduleId);
    const offered = async (name: string, by: Agent) =>
      (await by.get(`/api/people/${id(name)}/day-sheet`).expect(200)).body.offered.tasks.some(
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
    await ines.post(`/api/changes/${body.changeId}/undo`).expect(200);
    expect([(await server.person('Joss Penhale')).tickets[0]?.name, await ofTemplate()]).toEqual([
      'radio',
      ['radio', 'signals'],
    ]);
  });
});
