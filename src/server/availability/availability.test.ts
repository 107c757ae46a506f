import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { Leave, LeaveImpact, Task } from '../../contract/index.ts';
import { givenTo } from '../../core/index.ts';
import { type Crew, crewOf } from '../testing/crew.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';

let server: TestServer;
let crew: Crew;
let ines: Agent;
beforeAll(async () => {
  server = await testServer();
  crew = await crewOf(server);
  ines = crew.ines;
});
afterAll(() => server.stop());
beforeEach(() => {
  server.clock.set('2026-11-24T10:40');
  return crew.allThere();
});

describe('hours of a person', () => {
  it('that change give what nobody has seen to others, which an undo takes back', async () => {
    const { id: scheduleId } = await crew.made(crew.inTurn('Joss', 'Nadia'));
    const changeId = await crew.changed('Joss', { weeks: [[450, 450, 0, 450, 450, 0, 0]] });
    expect(await crew.who(scheduleId, '2026-12-07', '2026-12-11')).toBe('Joss Joss Nadia Joss Joss');
    await crew.undo(changeId);
    expect(await crew.who(scheduleId, '2026-12-07', '2026-12-11')).toBe('Joss Joss Joss Joss Joss');
  });
});

describe('turns of a schedule', () => {
  it('give its tasks to each in order, named in their titles and with the reason', async () => {
    const { id: scheduleId, who: words } = await crew.made(crew.inTurn('Joss', 'Nadia'));
    expect(words).toBe('in turn: Joss, Nadia, weekly');
    expect(await crew.who(scheduleId, '2026-11-24', '2026-12-11')).toBe(
      'Joss Joss Joss Joss Nadia Nadia Nadia Nadia Nadia Joss Joss Joss Joss Joss',
    );
    const [first] = await crew.tasks(scheduleId);
    expect(first).toMatchObject({ title: 'Round of Joss Penhale', why: { by: 'turn', place: 1, of: 2 } });
    const { body } = await ines.get(`/api/tasks/${first?.id}`).expect(200);
    expect((body as Task).whyWho).toBe('turn 1 of 2');
  });

  it('go to the next while somebody is away, seen or not, and come back when that is taken back', async () => {
    const { id: scheduleId } = await crew.made(crew.inTurn('Joss', 'Nadia'));
    const before = await crew.tasks(scheduleId);
    const { leave } = await crew.enter('Joss', crew.leaveOf('2026-11-24', '2026-11-26'));
    expect(await crew.who(scheduleId, '2026-11-24', '2026-11-27')).toBe('Nadia Nadia Nadia Joss');
    const [shown] = await crew.tasks(scheduleId);
    expect(((await ines.get(`/api/tasks/${shown?.id}`)).body as Task).whyWho).toBe(
      'Joss is away until Thu, Nadia instead',
    );
    await crew.takeBack(leave).expect(200);
    expect((await crew.tasks(scheduleId)).map(({ who: name }) => name)).toEqual(before.map(({ who: name }) => name));
  });

  it('are put back exactly by an undo, and what is begun stays', async () => {
    const { id: scheduleId } = await crew.made(crew.inTurn('Joss', 'Nadia'));
    const [first] = await crew.tasks(scheduleId);
    await (await server.browser('Joss Penhale')).post(`/api/tasks/${first?.id}/start`).expect(200);
    const before = await crew.tasks(scheduleId);
    const { changeId } = await crew.enter('Joss', crew.leaveOf('2026-11-24', '2026-11-27'));
    expect(await crew.who(scheduleId, '2026-11-24', '2026-11-27')).toBe('Joss Nadia Nadia Nadia');
    await crew.undo(changeId);
    expect(await crew.tasks(scheduleId)).toEqual(before);
    expect((await ines.get('/api/leave').expect(200)).body.leave).toEqual([]);
  });
});

describe('work given by name', () => {
  it('goes to whoever takes over, or to nobody, and comes back', async () => {
    const { id: scheduleId } = await crew.made(givenTo(crew.id('Nadia')));
    await server.source.query('update person set deputy_id = $2 where id = $1', [crew.id('Nadia'), crew.id('Tamsin')]);
    const { leave } = await crew.enter('Nadia', crew.leaveOf('2026-12-01', '2026-12-02'));
    // Tamsin does not work on Tuesdays.
    expect(await crew.who(scheduleId, '2026-11-30', '2026-12-03')).toBe('Nadia – Tamsin Nadia');
    await crew.takeBack(leave).expect(200);
    expect(await crew.who(scheduleId, '2026-11-30', '2026-12-03')).toBe('Nadia Nadia Nadia Nadia');
  });

  it('by hand as well: a captured task is covered and given back', async () => {
    await server.source.query('update person set deputy_id = $2 where id = $1', [crew.id('Nadia'), crew.id('Joss')]);
    const line = { title: 'Paint the hut', on: '2026-11-27', dueOn: '2026-11-27', startTime: null, dueTime: null };
    const { body } = await ines
      .post('/api/tasks')
      .send({ ...line, assigneeId: crew.id('Nadia'), clientId: null, assetId: null, estimateMinutes: 30 })
      .expect(200);
    const taskId = body.tasks[0].id as string;
    const holder = async () => ((await ines.get(`/api/tasks/${taskId}`)).body as Task).assignee?.name;
    const { leave } = await crew.enter('Nadia', crew.leaveOf('2026-11-27'));
    expect(await holder()).toBe('Joss Penhale');
    await crew.takeBack(leave).expect(200);
    expect(await holder()).toBe('Nadia Orme');
  });
});

describe('leave with somebody chosen to take over', () => {
  it('gives turns and what is given by name to those, as it was shown before, and takes it back', async () => {
    const turns = await crew.made(crew.inTurn('Joss', 'Nadia', 'Kit'));
    const byName = await crew.made(givenTo(crew.id('Joss')));
    const cover = { turns: { personId: crew.id('Kit') }, name: { personId: crew.id('Nadia') } };
    const days = { ...crew.leaveOf('2026-11-24', '2026-11-27'), cover };
    const { body } = await ines
      .post(`/api/people/${crew.id('Joss')}/leave/impact`)
      .send(days)
      .expect(200);
    const impact = body as LeaveImpact;
    const of = (how: string, id: string) =>
      impact.items.filter((item) => item.how === how && item.scheduleId === id).map(({ to }) => to?.name);
    expect(of('turns', turns.id)).toEqual(['Kit Sorrell', 'Kit Sorrell', 'Kit Sorrell', 'Kit Sorrell']);
    expect(of('name', byName.id)).toEqual(['Nadia Orme', 'Nadia Orme', 'Nadia Orme', 'Nadia Orme']);
    expect(impact.counts.turns).toBe(
      impact.items.filter(({ how, fate }) => how === 'turns' && fate !== 'stays').length,
    );
    expect(impact.peers.map(({ person }) => person.name)).toContain('Nadia Orme');
    expect(impact.peers.map(({ person }) => person.name)).not.toContain('Joss Penhale');
    const room = impact.peers.map(({ minutes, capacity }) => capacity - minutes);
    expect(room).toEqual([...room].sort((a, b) => b - a));
    const { leave } = await crew.enter('Joss', days);
    expect(leave.cover).toEqual(cover);
    expect(await crew.who(turns.id, '2026-11-24', '2026-11-27')).toBe('Kit Kit Kit Kit');
    expect(await crew.who(byName.id, '2026-11-24', '2026-11-27')).toBe('Nadia Nadia Nadia Nadia');
    await crew.takeBack(leave).expect(200);
    expect(await crew.who(turns.id, '2026-11-24', '2026-11-27')).toBe('Joss Joss Joss Joss');
    expect(await crew.who(byName.id, '2026-11-24', '2026-11-27')).toBe('Joss Joss Joss Joss');
  });

  it('exchanges turns that are missed for later ones of others, as it was shown before, and gives them back', async () => {
    const { id } = await crew.made(crew.inTurn('Joss', 'Nadia', 'Kit'));
    const cover = { turns: 'exchange', name: null };
    const days = { ...crew.leaveOf('2026-11-30', '2026-12-04'), cover };
    const [asItWas, exchanged] = ['Nadia Kit', 'Kit Nadia'];
    // Kit has no hours on Mondays.
    const weeks = async () => {
      const of = async (from: string, to: string) => new Set((await crew.who(id, from, to)).split(' '));
      return [...(await of('2026-12-01', '2026-12-04')), ...(await of('2026-12-08', '2026-12-11'))].join(' ');
    };
    const { body } = await ines
      .post(`/api/people/${crew.id('Nadia')}/leave/impact`)
      .send(days)
      .expect(200);
    const impact = body as LeaveImpact;
    expect(impact.exchanges.filter(({ scheduleId }) => scheduleId === id)).toMatchObject([
      {
        missed: { first: '2026-11-30', last: '2026-12-04', dates: 5 },
        taken: { first: '2026-12-07', last: '2026-12-11', person: { name: 'Kit Sorrell' } },
      },
    ]);
    expect(impact.items.find(({ scheduleId, on }) => scheduleId === id && on === '2026-12-01')).toMatchObject({
      ...{ fate: 'goes', how: 'turns', to: { name: 'Kit Sorrell' }, why: 'for a later turn' },
    });
    expect(await weeks()).toBe(asItWas);
    const { changeId } = await crew.enter('Nadia', days);
    expect(await weeks()).toBe(exchanged);
    await crew.undo(changeId);
    expect(await weeks()).toBe(asItWas);
    const { leave } = await crew.enter('Nadia', days);
    const { body: back } = await crew.takeBack(leave).expect(200);
    expect(back.exchangesKept).toBe(0);
    expect(await weeks()).toBe(asItWas);
    // Undone in turn, they are exchanged once more.
    await crew.undo(back.changeId);
    expect(await weeks()).toBe(exchanged);
    const [again] = (await ines.get('/api/leave').expect(200)).body.leave as Leave[];
    // What has begun stays as it is.
    server.clock.set('2026-12-01T10:40');
    const { body: late } = await crew.takeBack(again as Leave).expect(200);
    expect(late.exchangesKept).toBe(impact.exchanges.filter(({ taken }) => taken !== null).length);
    expect(await crew.who(id, '2026-12-07', '2026-12-11')).toBe('Nadia Nadia Nadia Nadia Nadia');
  });

  it('exchanges turns of leave that was asked for once it is given, and not what is missed in part', async () => {
    const whole = await crew.made(crew.inTurn('Joss', 'Nadia', 'Kit'));
    const nadia = await server.browser('Nadia Orme');
    const { leave } = await crew.enter('Nadia', crew.leaveOf('2026-11-30', '2026-12-24'), nadia);
    const cover = { turns: 'exchange', name: null };
    const { body: shown } = await ines.post(`/api/leave/${leave.id}/impact`).send({ cover }).expect(200);
    const ofWhole = (shown as LeaveImpact).exchanges.filter(({ scheduleId }) => scheduleId === whole.id);
    expect(ofWhole.map(({ missed, taken }) => [missed.first, taken?.first])).toEqual([
      ['2026-11-30', '2026-12-28'],
      ['2026-12-21', '2027-01-04'],
    ]);
    const decided = { version: leave.version, state: 'given', cover };
    const { body: given } = await ines.put(`/api/leave/${leave.id}/state`).send(decided).expect(200);
    expect(await crew.who(whole.id, '2026-12-01', '2026-12-02')).toBe('Kit Kit');
    await crew.undo(given.changeId);
    expect(await crew.who(whole.id, '2026-12-01', '2026-12-02')).toBe('Nadia Nadia');
  });

  it('is chosen by whoever gives it, of somebody else who works here', async () => {
    const { id: scheduleId } = await crew.made(crew.inTurn('Joss', 'Nadia', 'Kit'));
    const joss = await server.browser('Joss Penhale');
    const days = crew.leaveOf('2026-12-15', '2026-12-18');
    const cover = { turns: { personId: crew.id('Kit') }, name: null };
    const address = `/api/people/${crew.id('Joss')}/leave`;
    await joss
      .post(address)
      .send({ ...days, cover })
      .expect(403);
    const { leave } = await crew.enter('Joss', days, joss);
    for (const personId of [crew.id('Joss'), '019e5eb8-0000-7000-8000-0000000000aa']) {
      const wrong = { version: leave.version, state: 'given', cover: { turns: null, name: { personId } } };
      const { body } = await ines.put(`/api/leave/${leave.id}/state`).send(wrong).expect(422);
      expect(body.errors[0]).toMatchObject({ path: 'cover.name' });
    }
    const { body: shown } = await ines.post(`/api/leave/${leave.id}/impact`).send({ cover }).expect(200);
    expect(
      (shown as LeaveImpact).items
        .filter((item) => item.scheduleId === scheduleId)
        .every(({ to }) => to?.name === 'Kit Sorrell'),
    ).toBe(true);
    const { body: given } = await ines
      .put(`/api/leave/${leave.id}/state`)
      .send({ version: leave.version, state: 'given', cover })
      .expect(200);
    expect(await crew.who(scheduleId, '2026-12-15', '2026-12-18')).toMatch(/^Kit( Kit)*$/);
    // Taken back as it was asked for: nobody is chosen any more.
    await crew.undo(given.changeId);
    expect((await ines.get('/api/leave').expect(200)).body.leave[0]).toMatchObject({ state: 'asked', cover: null });
  });
});

describe('leave', () => {
  it('is shown before it is entered as entering does it', async () => {
    const { id: scheduleId } = await crew.made(crew.inTurn('Joss', 'Nadia'));
    const days = crew.leaveOf('2026-12-07', '2026-12-11');
    const { body } = await ines
      .post(`/api/people/${crew.id('Joss')}/leave/impact`)
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
    expect(await crew.who(scheduleId, '2026-12-07', '2026-12-11')).toBe('Joss Joss Joss Joss Joss');
    await crew.enter('Joss', days);
    expect(await crew.who(scheduleId, '2026-12-07', '2026-12-11')).toBe(
      told.map(({ to }) => to?.name.split(' ')[0]).join(' '),
    );
  });

  it('is asked for by whoever it is for, changes nothing until it is given, and can be refused or taken back until then', async () => {
    const { id: scheduleId } = await crew.made(crew.inTurn('Kit', 'Joss'));
    const kit = await server.browser('Kit Sorrell');
    const { leave } = await crew.enter('Kit', crew.leaveOf('2026-12-08', '2026-12-09'), kit);
    expect(leave).toMatchObject({ state: 'asked', decidedBy: null, days: 2, mayTakeBack: true });
    expect(await crew.who(scheduleId, '2026-12-08', '2026-12-09')).toBe('Kit Kit');
    await kit.put(`/api/leave/${leave.id}/state`).send({ version: 1, state: 'given' }).expect(403);
    await ines.post(`/api/leave/${leave.id}/impact`).expect(200);
    await ines.put(`/api/leave/${leave.id}/state`).send({ version: 1, state: 'given' }).expect(200);
    expect(await crew.who(scheduleId, '2026-12-08', '2026-12-09')).toBe('Joss Joss');
    const again = await ines.put(`/api/leave/${leave.id}/state`).send({ version: 2, state: 'refused' }).expect(409);
    expect(again.body.detail).toBe('That is decided already.');
    await kit.post(`/api/leave/${leave.id}/take-back`).send({ version: 2 }).expect(403);
    const other = await crew.enter('Kit', crew.leaveOf('2026-12-16'), kit);
    await crew.takeBack(other.leave, kit).expect(200);
    const third = await crew.enter('Kit', crew.leaveOf('2026-12-17'), kit);
    const refused = await ines
      .put(`/api/leave/${third.leave.id}/state`)
      .send({ version: 1, state: 'refused' })
      .expect(200);
    expect(refused.body.leave).toMatchObject({ state: 'refused', decidedBy: 'Ines Calloway' });
  });

  it('that is taken back is not put back over other leave of its days', async () => {
    const { leave } = await crew.enter('Joss', crew.leaveOf('2026-11-25', '2026-11-27'));
    const { body: taken } = await crew.takeBack(leave).expect(200);
    const other = await crew.enter('Joss', crew.leaveOf('2026-11-26'));
    const { body } = await ines.post(`/api/changes/${taken.changeId}/undo`).expect(422);
    expect(body.errors[0].message).toMatch(/Joss Penhale is away on .* already/);
    await crew.undo(other.changeId);
    await crew.undo(taken.changeId);
    expect((await ines.get('/api/leave').expect(200)).body.leave).toMatchObject([{ from: '2026-11-25' }]);
  });

  it('that is undone gives back what was made while it held, too', async () => {
    const { changeId } = await crew.enter('Joss', crew.leaveOf('2026-11-24', '2026-12-04'));
    const { id: scheduleId } = await crew.made(crew.inTurn('Joss', 'Nadia'));
    expect(await crew.who(scheduleId, '2026-11-25', '2026-11-27')).toBe('Nadia Nadia Nadia');
    const shown = await crew.tasks(scheduleId);
    await crew.undo(changeId);
    const now = await crew.tasks(scheduleId);
    expect(now.filter(({ who: name }, i) => name !== shown[i]?.who).length).toBeGreaterThan(0);
  });

  it('of half a day leaves the work where it is', async () => {
    const { id: scheduleId } = await crew.made(crew.inTurn('Joss', 'Nadia'));
    await crew.enter('Joss', crew.leaveOf('2026-11-25', '2026-11-25', 'morning'));
    expect(await crew.who(scheduleId, '2026-11-24', '2026-11-26')).toBe('Joss Joss Joss');
  });

  it('is refused with what is wrong: twice on a day, backwards, of others', async () => {
    await crew.enter('Joss', crew.leaveOf('2026-12-01', '2026-12-04'));
    const twice = await ines
      .post(`/api/people/${crew.id('Joss')}/leave`)
      .send(crew.leaveOf('2026-12-04'))
      .expect(422);
    expect(twice.body.errors[0].message).toBe(
      'Joss Penhale is away from Tue 1 Dec to Fri 4 Dec already: change or take back that one.',
    );
    await ines
      .post(`/api/people/${crew.id('Joss')}/leave`)
      .send(crew.leaveOf('2026-12-09', '2026-12-08'))
      .expect(422);
    await ines
      .post(`/api/people/${crew.id('Joss')}/leave`)
      .send(crew.leaveOf('2026-12-09', '2026-12-10', 'morning'))
      .expect(422);
    const nadia = await server.browser('Nadia Orme');
    await nadia
      .post(`/api/people/${crew.id('Joss')}/leave`)
      .send(crew.leaveOf('2026-12-09'))
      .expect(403);
    const ada = await server.browser('Ada Winn');
    await ada
      .post(`/api/people/${crew.id('Joss')}/leave`)
      .send(crew.leaveOf('2026-12-09'))
      .expect(404);
  });
});

describe('what any one of several may take', () => {
  it('stands on the sheets of all of them until one takes it; the other is told who', async () => {
    const { id: scheduleId } = await crew.made({ v: 1, kind: 'anyOf', group: { of: 'role', role: 'dock crew' } });
    const [first] = await crew.tasks(scheduleId);
    const sheetOf = async (name: string, by: Agent) =>
      (await by.get(`/api/people/${crew.id(name)}/day-sheet`).expect(200)).body.offered.tasks.map(
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
    const [taken] = await crew.tasks(scheduleId);
    const set = { timing: { ...now.timing, dueTime: '17:00' } };
    const reach = { open: true, also: [] };
    await ines
      .post('/api/schedules/changes')
      .send({ changes: [{ id: scheduleId, version: now.version, set }], reach })
      .expect(200);
    expect((await crew.tasks(scheduleId))[0]?.who).toBe(taken?.who);
    const taker = taken?.who === 'Joss' ? joss : nadia;
    await taker.post(`/api/tasks/${first?.id}/give-back`).expect(200);
    expect(await sheetOf('Nadia', nadia)).toContain(first?.id);
  });

  it('is anyone’s, or each one’s who has hours, where it is for everyone', async () => {
    const everyone = { of: 'everyone' } as const;
    const { id: anyId, who: words } = await crew.made({ v: 1, kind: 'anyOf', group: everyone });
    expect(words).toBe('any of everyone');
    const [first] = await crew.tasks(anyId);
    const bram = await server.browser('Bram Hollis');
    const sheet = await bram.get(`/api/people/${(await server.person('Bram Hollis')).id}/day-sheet`).expect(200);
    expect(sheet.body.offered.tasks).toContainEqual(expect.objectContaining({ id: first?.id, offeredTo: 'anyone' }));
    await bram.post(`/api/tasks/${first?.id}/claim`).expect(200);
    const { id: eachId } = await crew.made({ v: 1, kind: 'eachOf', group: everyone, daysOffToo: true }, [
      { kind: 'weeks', every: 1, on: [1] },
    ]);
    const names = (await crew.tasks(eachId)).flatMap(({ on, who: name }) => (on === '2026-12-07' ? [name] : []));
    expect(names).toContain('Bram');
    // Odile owns the place, and works no hours in it.
    expect(names).not.toContain('Odile');
  });
});

describe('whoever has the least to do', () => {
  it('is told when a task is made, with the load it was told by, and keeps it', async () => {
    const people = { of: 'people', ids: [crew.id('Joss'), crew.id('Wilf')] } as const;
    const { id: scheduleId } = await crew.made({ v: 1, kind: 'leastToDo', group: people });
    const before = await crew.tasks(scheduleId);
    expect(before.every(({ why }) => why?.by === 'least to do')).toBe(true);
    // On holidays nobody is there.
    expect([...new Set(before.flatMap(({ who: name }) => name ?? []))].sort()).toEqual(['Joss', 'Wilf']);
    // Whatever else comes to one of them, what is made stays as it is.
    const heavy = await crew.made(givenTo(crew.id(before[0]?.who ?? '')));
    expect(heavy.who).not.toBe('');
    const { body } = await ines.get(`/api/schedules/${scheduleId}`);
    const set = { pauses: [{ from: '2027-03-01', to: '2027-03-02' }] };
    await ines
      .post('/api/schedules/changes')
      .send({ changes: [{ id: scheduleId, version: body.version, set }], reach: { open: true, also: [] } })
      .expect(200);
    expect(await crew.tasks(scheduleId)).toEqual(before);
  });
});
