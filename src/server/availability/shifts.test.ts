import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { type Crew, crewOf } from '../testing/crew.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';

let server: TestServer;
let crew: Crew;
let ines: Agent;
beforeAll(async () => {
  server = await testServer();
  crew = await crewOf(server);
  ines = crew.ines;
  await server.source.query('delete from clocking');
});
beforeEach(() => server.clock.set('2026-11-24T10:40'));
afterAll(() => server.stop());

const shift = (from: string, to: string, of: object = {}) => ({ from, to, breakMinutes: 0, role: null, ...of });
const weekdays = (days: readonly number[], from: string, to: string, of: object = {}) => ({
  ...shift(from, to),
  ...{ week: 0, weekdays: days },
  ...of,
});
const memberOf = async (name: string) => {
  const { body } = await ines.get('/api/team').expect(200);
  const found = body.members.find((one: { id: string }) => one.id === crew.id(name));
  const { id: _, signsIn: __, invitedUntil: ___, loads: ____, nextTurn: _____, ...fields } = found;
  return fields;
};
const refused = async (name: string, of: object) => {
  const { body } = await ines
    .put(`/api/people/${crew.id(name)}`)
    .send({ ...(await memberOf(name)), ...of })
    .expect(422);
  return body.errors.map(({ path, message }: { path: string; message: string }) => `${path}: ${message}`);
};

describe('shifts', () => {
  it('tell the hours of the week, by which work is shared out, and are put back as they were', async () => {
    await crew.allThere();
    const before = await memberOf('Kit');
    const change = await crew.changed('Kit', {
      shifts: [
        weekdays([1, 2, 3], '07:00', '15:00', { breakMinutes: 30 }),
        weekdays([5], '22:00', '06:00', { role: 'dock crew' }),
      ],
    });
    expect((await memberOf('Kit')).weeks).toEqual([[450, 450, 450, 0, 480, 0, 0]]);
    await crew.undo(change);
    expect(await memberOf('Kit')).toMatchObject({ weeks: before.weeks, shifts: before.shifts });
  });

  it('that can’t be are refused with what is wrong', async () => {
    const twice = [weekdays([1, 2], '07:00', '15:00'), weekdays([2], '14:00', '18:00')];
    expect(await refused('Kit', { shifts: twice })).toEqual(['shifts.1: Two shifts lie at the same time.']);
    expect(await refused('Kit', { shifts: [weekdays([1], '07:00', '08:00', { breakMinutes: 60 })] })).toEqual([
      'shifts.0: The break is as long as the shift, or longer.',
    ]);
    expect(
      await refused('Kit', {
        weeks: [[480, 0, 0, 0, 0, 0, 0]],
        shifts: [weekdays([1], '07:00', '15:00', { role: 'office' })],
      }),
    ).toEqual(['shifts: “office” is no role of theirs: choose another for that shift.']);
    expect(await refused('Kit', { shifts: [weekdays([1], '7', '15:00')] })).toEqual([
      'shifts.0.from: This is not a time: write it HH:MM, 00:00 to 23:59.',
    ]);
    expect(
      await refused('Kit', { weeks: [[0, 0, 0, 0, 0, 0, 0]], shifts: [weekdays([1], '07:00', '15:00', { week: 1 })] }),
    ).toEqual(['shifts.0: That week does not take turns with the other.']);
    expect(await refused('Kit', { weeks: [[450, 450, 450, 450, 450, 0, 0]] })).toEqual([
      'weeks: The hours of a week follow from its shifts: change those.',
    ]);
  });

  it('follow a role that is called something else', async () => {
    await crew.changed('Wilf', {
      shifts: [weekdays([1, 2], '07:00', '15:00', { role: 'dock crew' })],
      shiftChanges: [{ on: '2026-12-01', shifts: [shift('08:00', '12:00', { role: 'dock crew' })] }],
    });
    const { body: lists } = await ines.get('/api/settings/lists').expect(200);
    const names = (all: readonly { name: string }[]) => all.map(({ name }) => ({ was: name, name }));
    const input = {
      ...lists,
      ...{ roles: names(lists.roles), teams: names(lists.teams), tickets: names(lists.tickets) },
    };
    const roles = input.roles.map((one: { was: string; name: string }) =>
      one.was === 'dock crew' ? { ...one, name: 'dock hands' } : one,
    );
    const { body } = await ines
      .put('/api/settings/lists')
      .send({ ...input, roles })
      .expect(200);
    expect(await memberOf('Wilf')).toMatchObject({
      roles: ['dock hands'],
      shifts: [{ role: 'dock hands', from: '07:00' }],
      shiftChanges: [{ on: '2026-12-01', shifts: [{ role: 'dock hands' }] }],
    });
    await crew.undo(body.changeId);
    expect(await memberOf('Wilf')).toMatchObject({ shifts: [{ role: 'dock crew' }] });
  });
});

describe('hours of a single day', () => {
  it('move the work of that day alone, told before they are saved, and the undo brings it back', async () => {
    await crew.allThere();
    const { id } = await crew.made(crew.inTurn('Joss', 'Nadia'));
    expect(await crew.who(id, '2026-11-24', '2026-11-27')).toBe('Joss Joss Joss Joss');
    const fields = await memberOf('Joss');
    const shiftChanges = [{ on: '2026-11-25', shifts: [] }];
    const { body: impact } = await ines
      .post(`/api/people/${crew.id('Joss')}/impact`)
      .send({ ...fields, shiftChanges })
      .expect(200);
    const { items } = impact;
    expect(items.find(({ scheduleId }: { scheduleId: string }) => scheduleId === id)).toMatchObject({
      ...{ on: '2026-11-25', fate: 'goes', to: { name: 'Nadia Orme' } },
    });
    expect(await crew.who(id, '2026-11-24', '2026-11-27')).toBe('Joss Joss Joss Joss');
    const change = await crew.changed('Joss', { shiftChanges });
    expect(await crew.who(id, '2026-11-24', '2026-11-27')).toBe('Joss Nadia Joss Joss');
    await crew.undo(change);
    expect(await crew.who(id, '2026-11-24', '2026-11-27')).toBe('Joss Joss Joss Joss');
    await ines
      .post(`/api/people/${crew.id('Joss')}/impact`)
      .send(fields)
      .expect(409);
  });

  it('bring somebody work on a day on which their week has none', async () => {
    const { id } = await crew.made({ v: 1, kind: 'leastToDo', group: { of: 'people', ids: [crew.id('Joss')] } }, [
      { kind: 'weeks', every: 1, on: [6] },
    ]);
    expect(await crew.who(id, '2026-11-28', '2026-11-28')).toBe('–');
    await crew.changed('Joss', { shiftChanges: [{ on: '2026-11-28', shifts: [shift('08:00', '12:00')] }] });
    expect(await crew.who(id, '2026-11-28', '2026-12-05')).toBe('Joss –');
  });
});

describe('work for those on shift in a role', () => {
  it('stands on the sheets of those alone, by its times, and of whoever is clocked on', async () => {
    await crew.allThere();
    const onShift = { of: 'role', role: 'dock crew', onShift: true } as const;
    const { id } = await crew.made({ v: 1, kind: 'anyOf', group: onShift });
    const late = await crew.made({ v: 1, kind: 'anyOf', group: onShift }, undefined);
    const at = { startTime: '16:00', dueTime: '17:00' };
    const { body: now } = await ines.get(`/api/schedules/${late.id}`).expect(200);
    await ines
      .post('/api/schedules/changes')
      .send({
        changes: [{ id: late.id, version: now.version, set: { timing: { ...now.timing, ...at } } }],
        reach: { open: true, also: [] },
      })
      .expect(200);
    await crew.changed('Joss', { shifts: [weekdays([1, 2, 3, 4, 5], '07:00', '15:00')], shiftChanges: [] });
    await crew.changed('Nadia', { shifts: [weekdays([1, 2, 3, 4, 5], '14:00', '22:00')] });
    const scheduleOf = new Map(
      [...(await crew.tasks(id)), ...(await crew.tasks(late.id))].map((task) => [task.id, task.on] as const),
    );
    const lateIds = new Set((await crew.tasks(late.id)).map((task) => task.id));
    const sheetOf = async (name: string, date: string) => {
      const { body } = await ines.get(`/api/people/${crew.id(name)}/day-sheet?date=${date}`).expect(200);
      return body.offered.tasks
        .filter((task: { id: string }) => scheduleOf.get(task.id) === date)
        .map((task: { id: string }) => (lateIds.has(task.id) ? 'at four' : 'any time'))
        .sort()
        .join(', ');
    };
    expect(await sheetOf('Joss', '2026-11-24')).toBe('any time');
    expect(await sheetOf('Nadia', '2026-11-24')).toBe('any time, at four');
    // Wilf has hours, but nobody knows when.
    await crew.changed('Wilf', { shifts: [], shiftChanges: [] });
    expect(await sheetOf('Wilf', '2026-11-24')).toBe('');
    const wilf = await server.browser('Wilf Ardley');
    await wilf
      .post(`/api/people/${crew.id('Wilf')}/clock/on`)
      .send({})
      .expect(200);
    expect(await sheetOf('Wilf', '2026-11-24')).toBe('any time, at four');
    expect(await sheetOf('Wilf', '2026-11-25')).toBe('');
    const { body: sheet } = await ines.get(`/api/people/${crew.id('Joss')}/day-sheet`).expect(200);
    expect(sheet.person).toMatchObject({ shifts: [{ from: '07:00', to: '15:00' }], capacityMinutes: 480 });
    // Whoever is away has no shift then, and may clock all the same.
    await crew.enter('Joss', crew.leaveOf('2026-11-25'));
    const { body: away } = await ines.get(`/api/people/${crew.id('Joss')}/day-sheet?date=2026-11-25`).expect(200);
    expect(away.person).toMatchObject({ shifts: [], hasShifts: true, capacityMinutes: 0 });
    expect(await sheetOf('Joss', '2026-11-25')).toBe('');
  });
});

describe('work that nobody is on shift for', () => {
  it('is told weeks ahead by its dates, as far as nobody has it, and no longer once somebody is', async () => {
    await crew.allThere();
    await server.source.query("update person set shifts = '[]', shift_changes = '[]'");
    const onShift = { of: 'role', role: 'dock crew', onShift: true } as const;
    const { id: scheduleId } = await crew.made({ v: 1, kind: 'anyOf', group: onShift }, [
      { kind: 'weeks', every: 1, on: [3] },
    ]);
    const gaps = async () => {
      const { body } = await ines.get('/api/shifts/gaps').expect(200);
      return body.gaps.find((gap: { scheduleId: string }) => gap.scheduleId === scheduleId);
    };
    const all = ['11-25', '12-02', '12-09', '12-16', '12-23', '12-30'].map((day) => `2026-${day}`);
    const after = ['2027-01-06', '2027-01-13'];
    expect(await gaps()).toMatchObject({ work: 'Round', group: 'dock crew on shift', days: [...all, ...after] });
    await crew.changed('Kit', { shifts: [weekdays([3], '07:00', '15:00')] });
    expect(await gaps()).toBeUndefined();
    await crew.enter('Kit', crew.leaveOf('2026-12-01', '2026-12-11'));
    expect((await gaps()).days).toEqual(['2026-12-02', '2026-12-09']);
    const [first] = (await crew.tasks(scheduleId)).filter(({ on }) => on === '2026-12-02');
    await ines.post(`/api/tasks/${first?.id}/claim`).expect(200);
    expect((await gaps()).days).toEqual(['2026-12-09']);
  });
});

describe('the clock', () => {
  it('is one’s own, or a manager’s for others, each once, and the last of it can be taken back', async () => {
    const [kit, nadia] = [await server.browser('Kit Sorrell'), await server.browser('Nadia Orme')];
    const path = (deed: string) => `/api/people/${crew.id('Kit')}/clock${deed}`;
    server.clock.set('2026-11-24T06:52');
    const { body: on } = await kit.post(path('/on')).send({}).expect(200);
    expect(on).toMatchObject({ on: '2026-11-24T06:52', off: null, by: null });
    expect((await kit.post(path('/on')).send({}).expect(409)).body.detail).toBe(
      'Kit Sorrell is on already, since 06:52.',
    );
    await nadia.post(path('/off')).send({}).expect(403);
    await kit.post(path('/off')).send({ at: '06:55' }).expect(403);
    const { body: now } = await nadia.get('/api/clock/on').expect(200);
    expect(now.on.map(({ personId }: { personId: string }) => personId)).toContain(crew.id('Kit'));
    server.clock.set('2026-11-24T15:10');
    const early = await ines.post(path('/off')).send({ at: '06:50' }).expect(422);
    expect(early.body.errors).toEqual([{ path: 'at', message: 'Kit Sorrell came on at 06:52: say a later time.' }]);
    await ines.post(path('/off')).send({ at: '15:30' }).expect(422);
    const { body: off } = await ines.post(path('/off')).send({ at: '15:00' }).expect(200);
    expect(off).toMatchObject({ off: '2026-11-24T15:00', by: 'Ines Calloway' });
    await kit.post(path('/take-back')).send({ id: off.id }).expect(403);
    expect((await ines.post(path('/take-back')).send({ id: off.id }).expect(200)).body.on).toMatchObject({ off: null });
    expect((await ines.post(path('/take-back')).send({ id: off.id }).expect(200)).body.on).toBeNull();
    await ines.post(path('/take-back')).send({ id: off.id }).expect(409);
    expect((await kit.get(path('')).expect(200)).body.clockings).toEqual([]);
    await nadia.get(path('')).expect(403);
  });

  it('lets one of two who clock somebody at once through', async () => {
    const path = `/api/people/${crew.id('Tamsin')}/clock/on`;
    const both = await Promise.all([1, 2].map(() => ines.post(path).send({})));
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
  });
});
