import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { CallDay, ListedCall, QuotaInput, QuotaLook, SeveralQuotasLook } from '../../contract/index.ts';
import {
  dayOfIso,
  isInPool,
  isoOfDay,
  type Pool,
  type PoolCondition,
  shuffled,
  USUAL_OUTCOMES,
  whyNotRung,
} from '../../core/index.ts';
import { TEST_NOW } from '../testing/clock.ts';
import { mailTo } from '../testing/mails.ts';
import { type Agent, type TestServer, testServer } from '../testing/test-server.ts';
import { makeLists } from './making.ts';
import { CONTACTS, conditionSql, HAS_NUMBER, NOT_NEVER, Params, restedSql, shuffledSql } from './pool-sql.ts';
import { STANDING_FIELDS, type StandingRow, standingOf } from './stored/index.ts';

const TODAY = '2026-11-24';
let server: TestServer;
let ines: Agent;
let ayesha: Agent;
let people: { ayesha: string; rhona: string };
beforeAll(async () => {
  server = await testServer();
  // What the demo has of calls would be taken from the same pool.
  await server.source.query(
    'delete from call; delete from call_list; delete from call_standing; delete from call_quota',
  );
  ines = await server.browser('Ines Calloway');
  ayesha = await server.browser('Ayesha Quill');
  people = { ayesha: (await server.person('Ayesha Quill')).id, rhona: (await server.person('Rhona Vick')).id };
});
afterAll(() => server.stop());

const says = (rest: Partial<QuotaInput['says']> = {}): QuotaInput['says'] => ({
  amount: { count: 6, per: 'day', share: 'same', mostADay: null, holidays: 'off', leave: 'off' },
  group: { of: 'role', role: 'berth adviser' },
  pool: { v: 1, conditions: [{ kind: 'notRungFor', days: 30 }] },
  ...{ first: 'neverRung', usualFirst: true, gap: 2, carryDays: 1, readyAt: '08:00', mails: true },
  ...{ minutesEach: 10, asks: ['Do they stay?'] },
  ...rest,
});
let made = 0;
const quotaInput = (rest: Partial<QuotaInput> = {}): QuotaInput => ({
  ...{ name: `Calls ${++made}`, from: TODAY, endsOn: null, pauses: [], says: says(), ...rest },
});
const newQuota = async (rest: Partial<QuotaInput> = {}) =>
  (await ines.post('/api/quotas').send(quotaInput(rest)).expect(200)).body as {
    quota: { id: string; version: number; name: string };
    changeId: string;
  };
const makeAll = async () => makeLists(await server.scope(), server.address);
const dayOf = async (person: string, on = TODAY, by = ines): Promise<CallDay> =>
  (await by.get('/api/calls').query({ person, on }).expect(200)).body;
const rung = (by: Agent, call: ListedCall, outcome: string, rest: object = {}) =>
  by.post(`/api/calls/${call.id}/rung`).send({ version: call.version, outcome, note: '', ...rest });
const undo = (changeId: string, by = ines) => by.post(`/api/changes/${changeId}/undo`).send({});
const standing = async (contactId: string) => {
  const [row] = await server.source.query<StandingRow[]>(
    `select ${STANDING_FIELDS} from call_standing s where s.contact_id = $1`,
    [contactId],
  );
  return row ? standingOf(row) : null;
};
/** Until the end of a test it is another day. */
async function on<T>(date: string, work: () => Promise<T>): Promise<T> {
  server.clock.set(date);
  try {
    return await work();
  } finally {
    server.clock.set(TEST_NOW);
  }
}

describe('the lists of a day', () => {
  it('are the same in a rehearsal and when they are made', async () => {
    const { quota, changeId } = await newQuota({ from: '2026-11-25', says: says({ mails: false, usualFirst: false }) });
    const body = {
      ...quotaInput({ from: '2026-11-25', says: says({ mails: false, usualFirst: false }) }),
      name: undefined,
    };
    const look = (
      await ines
        .post('/api/quotas/look')
        .send({ ...body, quotaId: quota.id })
        .expect(200)
    ).body as QuotaLook;
    expect(look.first.on).toBe('2026-11-25');
    await on('2026-11-25T09:00', async () => {
      await makeAll();
      for (const { id, calls } of look.first.lists) {
        const there = (await dayOf(id, '2026-11-25')).calls.filter(({ quotaId }) => quotaId === quota.id);
        expect(there.map(({ contact }) => contact.name)).toEqual(calls.map(({ contact }) => contact.name));
      }
    });
    await undo(changeId).expect(200);
  });

  it('are what was shown before, made once, each with a mail of names and numbers; nobody stands on two', async () => {
    const look = (
      await ines
        .post('/api/quotas/look')
        .send({ ...quotaInput(), name: undefined, quotaId: null })
        .expect(200)
    ).body as QuotaLook;
    expect(look.people.map(({ name, weeks }) => [name, weeks[0]?.days.slice(0, 5)])).toEqual([
      ['Ayesha Quill', expect.arrayContaining([6])],
      ['Rhona Vick', expect.arrayContaining([6])],
    ]);
    const { all, after, notNever, withNumber, free } = look.funnel;
    expect([all, ...after, notNever, withNumber, free]).toEqual(
      [all, ...after, notNever, withNumber, free].sort((a, b) => b - a),
    );
    expect(look.forecast.days).toHaveLength(84);
    const { quota } = await newQuota();
    expect(await makeAll()).toBe(2);
    expect(await makeAll()).toBe(0);
    const lists = [await dayOf(people.ayesha), await dayOf(people.rhona)];
    const ids = lists.flatMap(({ calls }) => calls.map(({ contact }) => contact.id));
    expect(ids).toHaveLength(12);
    expect(new Set(ids).size).toBe(12);
    expect(lists[0]?.week.find(({ on: day }) => day === TODAY)).toEqual({ on: TODAY, wanted: 6, made: 0 });
    expect(lists[0]?.quotas).toMatchObject([{ name: quota.name, asks: ['Do they stay?'], minutesEach: 10 }]);
    const mail = await mailTo(server, 'ayesha@ternquay.example');
    expect(mail.text).toContain(lists[0]?.calls[0]?.number);
    expect(mail.text).toContain('/calls');
    // The first lists of another one leave those out who stand on a list of the day.
    const other = await newQuota();
    expect(await makeAll()).toBe(2);
    const both = (await dayOf(people.ayesha)).calls.map(({ contact }) => contact.id);
    expect(new Set(both).size).toBe(both.length);
    for (const { changeId } of [other]) await undo(changeId).expect(200);
    await server.source.query('delete from call where list_id in (select id from call_list where quota_id = $1)', [
      other.quota.id,
    ]);
    await server.source.query('delete from call_list where quota_id = $1', [other.quota.id]);
  });

  it('wait for their time, and are nobody’s while the quota is paused or over', async () => {
    const late = await newQuota({ says: says({ readyAt: '15:00' }) });
    await newQuota({ pauses: [{ from: TODAY, to: null }] });
    await newQuota({ from: '2026-12-01' });
    expect(await makeAll()).toBe(0);
    await on(`${TODAY}T15:00`, async () => expect(await makeAll()).toBe(2));
    await server.source.query('delete from call where list_id in (select id from call_list where quota_id = $1)', [
      late.quota.id,
    ]);
  });
});

describe('a call', () => {
  it('is said how it went: promised calls come back on their day, others rest; each is undone whole', async () => {
    const all = (await dayOf(people.ayesha)).calls;
    const { quotaId } = all.find(({ why }) => why.kind === 'neverRung') as ListedCall;
    // Of three clients: what is known of one tells of all of their contacts.
    const calls = new Map(all.flatMap((one) => (one.quotaId === quotaId ? [[one.client.id, one] as const] : [])));
    const [first, second, third] = [...calls.values()] as [ListedCall, ListedCall, ListedCall];
    const before = await standing(first.contact.id);
    const reached = (await rung(ayesha, first, 'reached', { note: 'Stays.' }).expect(200)).body;
    expect(reached.call).toMatchObject({ state: 'rung', note: 'Stays.', outcome: { key: 'reached' } });
    expect(await standing(first.contact.id)).toMatchObject({ lastRungOn: dayOfIso(TODAY), tries: 0 });
    expect((await dayOf(people.ayesha)).week.find(({ on: day }) => day === TODAY)?.made).toBe(1);
    // Said once more it takes the place of what was said before.
    const again = (await rung(ayesha, reached.call, 'no-answer').expect(200)).body;
    expect(await standing(first.contact.id)).toMatchObject({ tries: 1, againOn: dayOfIso('2026-11-27') });
    await rung(ayesha, reached.call, 'reached').expect(409);
    await undo(again.changeId, ayesha).expect(200);
    await undo(reached.changeId, ayesha).expect(200);
    expect(await standing(first.contact.id)).toEqual(
      before ?? { ...(await standing(first.contact.id)), tries: 0, lastRungOn: null },
    );

    const callBack = { on: '2026-11-26', at: '14:00', personId: people.ayesha };
    await rung(ayesha, second, 'call-back', { callBack, note: 'after lunch' }).expect(200);
    expect((await dayOf(people.ayesha)).promised).toMatchObject([
      { contact: second.contact, callBack, note: 'after lunch' },
    ]);
    await rung(ayesha, third, 'never').expect(200);
    const known = (await ines.get(`/api/calls/${second.id}/before`).expect(200)).body;
    expect(known.counts.call).toBe(0);
    await on('2026-11-26T09:00', async () => {
      await makeAll();
      const list = (await dayOf(people.ayesha, '2026-11-26')).calls;
      expect(list[0]).toMatchObject({ contact: second.contact, why: { kind: 'promised', at: '14:00' } });
      expect(list[0]?.last).toMatchObject({ outcome: 'call back', note: 'after lunch' });
      // What was promised before comes back with the undo, on the lists of the quota that it was promised by.
      const before = await standing(second.contact.id);
      expect(before?.callBack).toMatchObject({ quotaId, personId: people.ayesha });
      const kept = (await rung(ayesha, list[0] as ListedCall, 'declined').expect(200)).body;
      expect((await standing(second.contact.id))?.callBack).toBeNull();
      await undo(kept.changeId, ayesha).expect(200);
      expect(await standing(second.contact.id)).toEqual(before);
      // Two days later what was not rung was carried over for a day, and is dropped by now.
      expect(list.filter(({ why }) => why.kind === 'carriedOver')).toEqual([]);
      expect(list.map(({ contact }) => contact.id)).not.toContain(third.contact.id);
    });
    const [{ states }] = await server.source.query<[{ states: string[] }]>(
      `select array_agg(distinct state) as states from call where list_on = $1`,
      [TODAY],
    );
    expect(states.sort()).toEqual(['dropped', 'rung']);
  });

  it('is carried over to the next working day', async () => {
    const { quota } = await newQuota({ from: '2026-12-01', says: says({ mails: false }) });
    const left = await on('2026-12-01T09:00', async () => {
      await makeAll();
      return (await dayOf(people.rhona, '2026-12-01')).calls.filter(({ quotaId }) => quotaId === quota.id);
    });
    await on('2026-12-02T09:00', async () => {
      await makeAll();
      const carried = (await dayOf(people.rhona, '2026-12-02')).calls.filter(({ why }) => why.kind === 'carriedOver');
      expect(carried.map(({ contact }) => contact.id)).toEqual(
        expect.arrayContaining(left.slice(0, 1).map(({ contact }) => contact.id)),
      );
    });
  });

  it('is said by whoever the list is of, or who does all work, in words that can be', async () => {
    const { calls } = await on('2026-12-02T09:00', () => dayOf(people.rhona, '2026-12-02'));
    const open = calls.find(({ state }) => state === 'open') as ListedCall;
    await rung(ayesha, open, 'reached').expect(403);
    await rung(ines, open, 'sung').expect(422);
    const refused = await rung(ines, open, 'call-back').expect(422);
    expect(refused.body.errors[0]).toMatchObject({ path: 'callBack', message: expect.stringMatching(/which day/) });
    await rung(ines, open, 'call-back', { callBack: { on: '2026-11-01', at: null, personId: people.rhona } }).expect(
      422,
    );
    const later = (await ines.post(`/api/calls/${open.id}/later`).send({ version: open.version }).expect(200)).body;
    expect(later.call.place).toBeGreaterThan(open.place);
    await undo(later.changeId).expect(200);
  });
});

describe('a promise', () => {
  it('of a quota that is over stays in sight until somebody rings', async () => {
    const { quota } = await newQuota({ from: '2026-12-07', endsOn: '2026-12-07', says: says({ mails: false }) });
    const promised = await on('2026-12-07T09:00', async () => {
      await makeAll();
      const { calls } = await dayOf(people.rhona, '2026-12-07');
      const call = calls.find(({ quotaId, state }) => quotaId === quota.id && state === 'open') as ListedCall;
      const callBack = { on: '2026-12-08', at: null, personId: people.rhona };
      await rung(ines, call, 'call-back', { callBack }).expect(200);
      return call.contact;
    });
    await on('2026-12-10T09:00', async () => {
      await makeAll();
      const { promised: owed } = await dayOf(people.rhona, '2026-12-10');
      expect(owed.map(({ contact, callBack }) => [contact.id, callBack.on])).toContainEqual([
        promised.id,
        '2026-12-08',
      ]);
    });
  });
});

describe('a quota', () => {
  it('is refused in words, changed from a day, and undone', async () => {
    const { quota, changeId } = await newQuota();
    const refusal = async (rest: Partial<QuotaInput>) =>
      (await ines.post('/api/quotas').send(quotaInput(rest)).expect(422)).body.errors[0].message;
    expect(await refusal({ name: quota.name })).toMatch(/already/);
    expect(await refusal({ from: '2026-11-01' })).toMatch(/today on/);
    expect(await refusal({ endsOn: '2026-11-01' })).toMatch(/before it begins/);
    expect(await refusal({ says: says({ group: { of: 'role', role: 'pirate' } }) })).toMatch(/no role/);
    expect(await refusal({ says: says({ pool: { v: 1, conditions: [{ kind: 'plans', ids: [] }] } }) })).toMatch(/plan/);
    await ayesha.post('/api/quotas').send(quotaInput()).expect(403);
    const changed = quotaInput({ name: quota.name, from: '2027-04-01', says: says({ gap: 9 }) });
    const saved = (
      await ines
        .put(`/api/quotas/${quota.id}`)
        .send({ ...changed, version: 1 })
        .expect(200)
    ).body;
    expect(saved.quota.terms.map(({ from }: { from: string }) => from)).toEqual([TODAY, '2027-04-01']);
    await ines
      .put(`/api/quotas/${quota.id}`)
      .send({ ...changed, version: 1 })
      .expect(409);
    await undo(saved.changeId).expect(200);
    await undo(changeId).expect(200);
    const { quotas } = (await ines.get('/api/quotas').expect(200)).body;
    expect(quotas.find(({ id }: { id: string }) => id === quota.id)).toMatchObject({
      ...{ endsOn: '2026-11-23', terms: [{ from: TODAY }] },
    });
  });
});

describe('several quotas', () => {
  it('are paused, go on and end at once as was looked at, those that it changes alone; one undo takes it back', async () => {
    const made = [await newQuota(), await newQuota()];
    const ids = made.map(({ quota }) => quota.id);
    const deed = { kind: 'pause', on: '2026-12-07' } as const;
    const look: SeveralQuotasLook = (await ines.post('/api/quotas/several/look').send({ ids, deed }).expect(200)).body;
    expect(look.quotas.map(({ id }) => id).sort()).toEqual([...ids].sort());
    const [ayeshas] = look.quotas[0]?.changed ?? [];
    expect(ayeshas).toMatchObject({ name: 'Ayesha Quill' });
    expect(ayeshas?.weeks.map(({ was, now }) => was === now)).toEqual([true, true, false, false, false, false]);
    expect(ayeshas?.weeks.slice(2).every(({ now }) => now === 0)).toBe(true);
    const of = look.quotas.map(({ id, version }) => ({ id, version }));
    const saved = (await ines.post('/api/quotas/several').send({ of, deed }).expect(200)).body;
    expect(saved.count).toBe(2);
    await ines.post('/api/quotas/several').send({ of, deed }).expect(409);
    const again: SeveralQuotasLook = (await ines.post('/api/quotas/several/look').send({ ids, deed }).expect(200)).body;
    expect([again.quotas, again.same.length]).toEqual([[], 2]);
    const early = { kind: 'end', on: '2026-11-01' };
    await ines.post('/api/quotas/several/look').send({ ids, deed: early }).expect(422);
    await undo(saved.changeId).expect(200);
    const { quotas } = (await ines.get('/api/quotas').expect(200)).body;
    for (const id of ids) expect(quotas.find((one: { id: string }) => one.id === id)).toMatchObject({ pauses: [] });
    for (const { changeId } of made) await undo(changeId).expect(200);
  });
});

describe('fifty-five a week for two', () => {
  it('are exact beside a holiday and a day of leave; a change from a day is told by name and week', async () => {
    const amount = {
      count: 55,
      per: 'week',
      share: 'same',
      mostADay: null,
      holidays: 'madeUp',
      leave: 'madeUp',
    } as const;
    const input = quotaInput({ from: '2026-12-07', says: says({ amount, mails: false }) });
    const lookAt = async (body: object): Promise<QuotaLook> =>
      (await ines.post('/api/quotas/look').send(body).expect(200)).body;
    const { name: _, ...asked } = input;
    const before = await lookAt({ ...asked, quotaId: null });
    expect(before.changed).toBeNull();
    await ines
      .post(`/api/people/${people.ayesha}/leave`)
      .send({ from: '2026-12-16', to: '2026-12-16', half: null })
      .expect(200);
    const look = await lookAt({ ...asked, quotaId: null });
    const weekOf = (of: QuotaLook, person: string, monday: string) =>
      of.people.find(({ id }) => id === person)?.weeks.find((week) => week.monday === monday);
    const sum = (days: readonly (number | null)[] = []) => days.reduce<number>((all, count) => all + (count ?? 0), 0);
    // The day of leave has none; the week has all of them, on the days that are left.
    const away = weekOf(look, people.ayesha, '2026-12-14');
    expect([sum(away?.days), away?.days[2], away?.off]).toEqual([55, null, 0]);
    expect(sum(weekOf(before, people.ayesha, '2026-12-14')?.days)).toBe(55);
    // Christmas Day is a Friday, and Boxing Day is kept on the Monday after.
    const christmas = weekOf(look, people.ayesha, '2026-12-21');
    expect([sum(christmas?.days), christmas?.days[4]]).toEqual([55, null]);
    const full = christmas?.days.filter((count) => count !== null) ?? [];
    expect(Math.max(...full.map(Number)) - Math.min(...full.map(Number))).toBeLessThanOrEqual(1);
    const { quota, changeId } = await newQuota(input);
    const off = { ...amount, holidays: 'off', leave: 'off' } as const;
    const changed = await lookAt({
      ...asked,
      from: '2026-12-07',
      says: says({ amount: off, mails: false }),
      quotaId: quota.id,
    });
    const ayeshas = changed.changed?.find(({ id }) => id === people.ayesha)?.weeks;
    expect(ayeshas?.find(({ monday }) => monday === '2026-12-14')).toMatchObject({ was: 55, now: 44 });
    expect(ayeshas?.find(({ monday }) => monday === '2026-12-21')).toMatchObject({ was: 55, now: 44 });
    await undo(changeId).expect(200);
  });
});

describe('a quota that becomes another one day', () => {
  it('is foreseen with what is rung until then: by who rings it now, from the next day with lists on', async () => {
    const { quota, changeId } = await newQuota({ from: TODAY, says: says({ mails: false }) });
    const twice = { ...says().amount, count: 12 };
    const { name: _, ...asked } = quotaInput({ from: '2026-12-14', says: says({ mails: false, amount: twice }) });
    const lookAt = async (quotaId: string | null): Promise<QuotaLook> =>
      (
        await ines
          .post('/api/quotas/look')
          .send({ ...asked, quotaId })
          .expect(200)
      ).body;
    const { funnel, forecast, first } = await lookAt(quota.id);
    expect([funnel.on, forecast.days[0]?.on, first.on]).toEqual([TODAY, TODAY, '2026-12-14']);
    const wantedOn = (on: string) => forecast.days.find((day) => day.on === on)?.wanted;
    expect([TODAY, '2026-12-08', '2026-12-11', '2026-12-14', '2026-12-15'].map(wantedOn)).toEqual([12, 12, 6, 24, 24]);
    expect(forecast.days.at(-1)?.on).toBe('2027-03-07');
    // One that is new begins with a pool from which nobody has taken.
    const fresh = await lookAt(null);
    expect([fresh.funnel.on, fresh.forecast.days[0]?.on]).toEqual(['2026-12-14', '2026-12-14']);
    const then = forecast.days.find(({ on }) => on === '2026-12-14')?.free ?? 0;
    expect(then).toBeLessThan(fresh.forecast.days[0]?.free ?? 0);
    await undo(changeId).expect(200);
  });
});

describe('a pool that has run dry', () => {
  it('is said before and after: too few are found, the list is shorter, and nobody is rung too soon', async () => {
    const pool = {
      v: 1,
      conditions: [{ kind: 'field', key: 'agreement', test: { kind: 'within', days: 1 } }],
    } as const;
    const input = quotaInput({ from: TODAY, says: says({ pool, mails: false }) });
    const { name: _, ...asked } = input;
    const look: QuotaLook = (
      await ines
        .post('/api/quotas/look')
        .send({ ...asked, quotaId: null })
        .expect(200)
    ).body;
    expect(look.forecast.dryOn).toBe(look.first.on);
    expect(look.first.lists.every(({ found, wanted }) => found === 0 && wanted === 6)).toBe(true);
    const { quota, changeId } = await newQuota(input);
    expect(await makeAll()).toBe(2);
    const day = await dayOf(people.ayesha);
    expect(day.calls.filter(({ quotaId }) => quotaId === quota.id)).toEqual([]);
    expect(day.quotas.map(({ id }) => id)).toContain(quota.id);
    await undo(changeId).expect(200);
  });
});

describe('a pool', () => {
  it('is told in SQL as the core tells it, and shuffled alike', async () => {
    const scope = await server.scope();
    const [{ id: planId }] = await server.source.query<[{ id: string }]>('select id from service_plan limit 1');
    const fields = scope.workspace.clientFields;
    const anyField = fc.constantFrom(...fields).chain((field): fc.Arbitrary<PoolCondition> => {
      const tests = {
        date: fc.integer({ min: 0, max: 400 }).map((days) => ({ kind: 'within' as const, days })),
        number: fc.record({
          kind: fc.constantFrom('atLeast' as const, 'atMost' as const),
          value: fc.integer({ min: 0, max: 20 }),
        }),
        choice: fc.subarray([...field.choices]).map((values) => ({ kind: 'isOneOf' as const, values })),
        text: fc.constant({ kind: 'isSaid' as const }),
      };
      const said = fc.constantFrom({ kind: 'isSaid' as const }, { kind: 'isUnsaid' as const });
      return fc.oneof(tests[field.kind], said).map((test) => ({ kind: 'field', key: field.key, test }));
    });
    const anyCondition: fc.Arbitrary<PoolCondition> = fc.oneof(
      fc.constant<PoolCondition>({ kind: 'plans', ids: [planId] }),
      fc.constant<PoolCondition>({ kind: 'usualPeople', ids: [people.ayesha, people.rhona] }),
      fc.constant<PoolCondition>({ kind: 'neverRung' }),
      fc.integer({ min: 1, max: 60 }).map((days): PoolCondition => ({ kind: 'notRungFor', days })),
      ...(fields.length > 0 ? [anyField] : []),
    );
    const contacts = await scope.sql<
      StandingRow & { id: string; number: string; usualPersonId: string | null; fields: object; planIds: string[] }
    >(
      `select k.id, k.telephone as number, c.usual_person_id as "usualPersonId", c.fields, ${STANDING_FIELDS},
         array(select plan_id from on_plan o where o.client_id = c.id and o.undone_at is null and (o.off_on is null or o.off_on > $2)) as "planIds"
       from ${CONTACTS} where k.workspace_id = $1 order by k.id`,
      [scope.today],
    );
    expect(contacts.length).toBeGreaterThan(50);
    const day = scope.now.day;
    await fc.assert(
      fc.asyncProperty(
        fc.array(anyCondition, { maxLength: 3 }),
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 0, max: 2 ** 32 - 1 }),
        async (conditions, gap, seed) => {
          const params = new Params();
          const pool: Pool = { v: 1, conditions };
          const where = [
            ...conditions.map((one) => conditionSql(one, day, params)),
            NOT_NEVER,
            HAS_NUMBER,
            restedSql(day, gap, params),
          ];
          const rows = await scope.sql<{ id: string; lot: number }>(
            `select k.id, ${shuffledSql('k.id', seed, params)} as lot from ${CONTACTS} where k.workspace_id = $1 and ${where.join(' and ')} order by k.id`,
            params.values,
          );
          const expected = contacts.filter((one) => {
            const known = standingOf(one);
            const contact = {
              ...one,
              lastRungOn: known.lastRungOn,
              againOn: known.againOn,
              fields: one.fields as never,
            };
            return (
              known.callBack === null &&
              whyNotRung(known, { number: one.number, day, gap }) === null &&
              isInPool(pool, contact, day)
            );
          });
          expect(rows).toEqual(expected.map(({ id }) => ({ id, lot: shuffled(id, seed) })));
        },
      ),
      { numRuns: 60 },
    );
    expect(isoOfDay(day)).toBe(TODAY);
    expect(scope.workspace.outcomes).toEqual(USUAL_OUTCOMES);
  });
});
