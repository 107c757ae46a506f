import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { WEEKDAYS_ONLY } from '../calendar/working-calendar.ts';
import { dayOfIso } from '../civil-date/iso-date.ts';
import type { OwnField } from '../own-fields/own-fields.ts';
import { forecastPool, type PoolAhead, shareThatLasts } from './forecast.ts';
import type { WhyListed } from './picking.ts';
import {
  conditionProblem,
  fitsCondition,
  isInPool,
  type PoolCondition,
  type PoolContact,
  sayCondition,
} from './pool.ts';
import { type Quota, type QuotaTerms, quotaAfter, quotaWith, termsOn } from './quota.ts';
import { type Follows, NEVER_RUNG, standingAfter, USUAL_OUTCOMES, whyNotRung } from './standing.ts';
import { sayWhyListed } from './why-words.ts';

const TODAY = dayOfIso('2026-11-24');

describe('a call', () => {
  const outcome = (key: string) => USUAL_OUTCOMES.find((one) => one.key === key) ?? (USUAL_OUTCOMES[0] as never);
  const call = (key: string, before = NEVER_RUNG, callBack: Parameters<typeof standingAfter>[1]['callBack'] = null) =>
    standingAfter(before, { on: TODAY, outcome: outcome(key), callBack, number: '1' }, WEEKDAYS_ONLY);

  it('that nobody answers is tried again after working days, so many times, and then rests', () => {
    let standing = call('no-answer');
    // The third working day after Tuesday 24 November.
    expect(standing).toMatchObject({ tries: 1, againOn: dayOfIso('2026-11-27'), lastRungOn: TODAY });
    for (let tries = 2; tries < 4; tries++) {
      standing = call('no-answer', standing);
      expect(standing.tries).toBe(tries);
    }
    expect(call('no-answer', standing)).toMatchObject({ tries: 0, againOn: null });
    expect(call('reached', standing)).toMatchObject({ tries: 0, againOn: null });
  });

  it('keeps a promise, makes another, and is over for good where they do not want to be rung', () => {
    const promise = { on: TODAY + 3, at: '14:00', personId: 'me', quotaId: 'q' };
    const standing = call('call-back', NEVER_RUNG, promise);
    expect(standing.callBack).toEqual(promise);
    expect(call('reached', standing).callBack).toBeNull();
    expect(() => call('call-back')).toThrow(/not said/);
    expect(call('declined').aloneUntil).toBe(TODAY + 180);
    const of = (follows: Follows) =>
      standingAfter(
        NEVER_RUNG,
        { on: TODAY, outcome: { isReached: true, follows }, callBack: null, number: '1' },
        WEEKDAYS_ONLY,
      );
    const on = { number: '1', day: TODAY + 9999, gap: 1 };
    expect(whyNotRung(of({ kind: 'leftAlone', days: null }), on)).toBe('alone');
    expect(whyNotRung(of({ kind: 'neverCalled' }), on)).toBe('never');
    expect(whyNotRung(call('wrong-number'), on)).toBe('wrong number');
    expect(whyNotRung(call('wrong-number'), { ...on, number: '2' })).toBeNull();
    expect(whyNotRung(NEVER_RUNG, { ...on, number: '' })).toBe('no number');
  });

  it('keeps the days between two calls, but for a promise', () => {
    const rung = { ...NEVER_RUNG, lastRungOn: TODAY };
    const on = (days: number) => ({ number: '1', day: TODAY + days, gap: 5 });
    expect([whyNotRung(rung, on(4)), whyNotRung(rung, on(5))]).toEqual(['too soon', null]);
    const promised = { ...rung, callBack: { on: TODAY + 1, at: null, personId: 'me', quotaId: 'q' } };
    expect([whyNotRung(promised, on(0)), whyNotRung(promised, on(1))]).toEqual(['too soon', null]);
    expect(whyNotRung({ ...rung, againOn: TODAY + 9 }, on(8))).toBe('too soon');
  });
});

describe('a pool', () => {
  const fields: OwnField[] = [
    { key: 'ends', name: 'contract ends', kind: 'date', choices: [] },
    { key: 'kind', name: 'berth', kind: 'choice', choices: ['resident', 'winter'] },
    { key: 'length', name: 'length', kind: 'number', choices: [] },
    { key: 'note', name: 'remark', kind: 'text', choices: [] },
  ];
  const contact: PoolContact = {
    ...{ planIds: ['p1'], usualPersonId: 'kit', lastRungOn: TODAY - 40, againOn: null },
    fields: { ends: '2027-02-28', kind: 'winter', length: 11 },
  };
  const field = (key: string, test: Extract<PoolCondition, { kind: 'field' }>['test']): PoolCondition => ({
    ...{ kind: 'field', key, test },
  });
  const names = { plans: new Map([['p1', 'Resident berth']]), people: new Map([['kit', 'Kit Sorrell']]), fields };

  it.each<[PoolCondition, boolean, string]>([
    [{ kind: 'plans', ids: ['p1', 'p2'] }, true, 'on Resident berth or one that is gone'],
    [{ kind: 'plans', ids: ['p2'] }, false, 'on one that is gone'],
    [{ kind: 'usualPeople', ids: ['kit'] }, true, 'looked after by Kit Sorrell'],
    [field('ends', { kind: 'within', days: 96 }), true, 'contract ends within 96 days'],
    [field('ends', { kind: 'within', days: 95 }), false, 'contract ends within 95 days'],
    [field('ends', { kind: 'within', days: 0 }), false, 'contract ends is today'],
    [field('kind', { kind: 'isOneOf', values: ['resident', 'winter'] }), true, 'berth is resident or winter'],
    [field('length', { kind: 'atLeast', value: 11 }), true, 'length is 11 or more'],
    [field('length', { kind: 'atMost', value: 10 }), false, 'length is 10 or less'],
    [field('note', { kind: 'isSaid' }), false, 'remark is said'],
    [field('note', { kind: 'isUnsaid' }), true, 'remark is not said'],
    [{ kind: 'notRungFor', days: 40 }, true, 'not rung for 40 days'],
    [{ kind: 'notRungFor', days: 41 }, false, 'not rung for 41 days'],
    [{ kind: 'neverRung' }, false, 'never rung'],
  ])('asks %j', (condition, fits, words) => {
    expect(fitsCondition(condition, contact, TODAY)).toBe(fits);
    expect(isInPool({ v: 1, conditions: [condition] }, contact, TODAY)).toBe(fits);
    expect(sayCondition(condition, names)).toBe(words);
    expect(conditionProblem(condition, fields)).toBeNull();
  });

  it('takes whoever is to be tried again, however short a time ago', () => {
    const again = { ...contact, lastRungOn: TODAY - 3, againOn: TODAY };
    expect(fitsCondition({ kind: 'notRungFor', days: 30 }, again, TODAY)).toBe(true);
  });

  it('says what can’t be asked', () => {
    const said = (condition: PoolCondition) => conditionProblem(condition, fields);
    expect(said(field('gone', { kind: 'isSaid' }))).toMatch(/no such field/);
    expect(said(field('note', { kind: 'within', days: 3 }))).toBe('That can’t be asked of remark.');
    expect(said(field('kind', { kind: 'isOneOf', values: ['summer'] }))).toBe('berth is never “summer”.');
    expect(said({ kind: 'plans', ids: [] })).toBe('Choose a plan.');
  });
});

describe('a quota', () => {
  const says = (gap: number): QuotaTerms => ({
    amount: { count: 1, per: 'day', share: 'same', mostADay: null, holidays: 'off', leave: 'off' },
    group: { of: 'role', role: 'yard' },
    pool: { v: 1, conditions: [] },
    ...{ first: 'neverRung', usualFirst: true, gap, carryDays: 0, readyAt: '08:00', mails: false, minutesEach: 5 },
    asks: [],
  });
  const rest = { endsOn: null, pauses: [] };
  const begun = quotaWith(null, { ...rest, from: '2026-11-02', says: says(1) }, TODAY);

  it('says from which day on what it says; what was to come later is over', () => {
    const changed = quotaWith(begun, { ...rest, from: '2026-12-07', says: says(2) }, TODAY);
    const again = quotaWith(changed, { ...rest, from: '2026-12-01', says: says(3) }, TODAY);
    const gaps = (of: Quota, ...dates: string[]) => dates.map((date) => termsOn(of, dayOfIso(date))?.gap ?? null);
    expect(gaps(changed, '2026-11-01', '2026-12-06', '2026-12-07')).toEqual([null, 1, 2]);
    expect(gaps(again, '2026-11-30', '2026-12-01', '2026-12-07')).toEqual([1, 3, 3]);
    // The same again changes no terms, but where others were to come.
    expect(quotaWith(begun, { ...rest, from: '2026-12-01', says: says(1) }, TODAY).terms).toBe(begun.terms);
    expect(gaps(quotaWith(changed, { ...rest, from: '2026-12-01', says: says(1) }, TODAY), '2026-12-09')).toEqual([1]);
  });

  it('that has not begun begins on the day that is said, and asks for nothing while it is paused or over', () => {
    const coming = quotaWith(null, { ...rest, from: '2026-12-01', says: says(1) }, TODAY);
    const moved = quotaWith(coming, { ...rest, from: '2026-12-10', says: says(2) }, TODAY);
    expect(moved).toMatchObject({ startsOn: '2026-12-10', terms: [{ from: '2026-12-10' }] });
    const paused = { ...begun, endsOn: '2026-12-11', pauses: [{ from: '2026-12-01', to: '2026-12-03' }] };
    const on = ['2026-11-30', '2026-12-01', '2026-12-02', '2026-12-03', '2026-12-11', '2026-12-12'];
    expect(on.map((date) => termsOn(paused, dayOfIso(date)) !== null)).toEqual([true, false, false, true, true, false]);
  });

  describe('what is done with several quotas', () => {
    const isOn = (quota: Quota | null, on: string) => quota !== null && termsOn(quota, dayOfIso(on)) !== null;

    it('pauses from a day, and goes on from another', () => {
      const paused = quotaAfter(begun, { kind: 'pause', on: '2026-12-07' });
      expect([isOn(paused, '2026-12-06'), isOn(paused, '2026-12-07'), isOn(paused, '2027-06-01')]).toEqual([
        true,
        false,
        false,
      ]);
      expect(quotaAfter(paused as Quota, { kind: 'pause', on: '2026-12-20' })).toBeNull();
      const sooner = quotaAfter(paused as Quota, { kind: 'pause', on: '2026-12-01' });
      expect(sooner?.pauses).toEqual([{ from: '2026-12-01', to: null }]);
      const again = quotaAfter(paused as Quota, { kind: 'goOn', on: '2027-01-04' });
      expect([isOn(again, '2027-01-03'), isOn(again, '2027-01-04')]).toEqual([false, true]);
      expect(quotaAfter(paused as Quota, { kind: 'goOn', on: '2026-12-07' })?.pauses).toEqual([]);
      expect(quotaAfter(begun, { kind: 'goOn', on: '2027-01-04' })).toBeNull();
    });

    it('ends on a day; what is over is nobody’s to pause', () => {
      const ended = quotaAfter(begun, { kind: 'end', on: '2026-12-31' });
      expect([isOn(ended, '2026-12-31'), isOn(ended, '2027-01-01')]).toEqual([true, false]);
      expect(quotaAfter(ended as Quota, { kind: 'end', on: '2026-12-31' })).toBeNull();
      expect(quotaAfter(ended as Quota, { kind: 'pause', on: '2027-01-04' })).toBeNull();
      expect(quotaAfter(begun, { kind: 'end', on: '2026-11-01' })).toBeNull();
    });
  });
});

describe('a reason', () => {
  it.each<[WhyListed, string]>([
    [{ kind: 'promised', on: '2026-11-24', at: '11:00' }, 'call back asked for 11:00'],
    [{ kind: 'promised', on: '2026-11-24', at: null }, 'call back asked for today'],
    [{ kind: 'promised', on: '2026-11-20', at: '11:00' }, 'call back owed since Fri 20 Nov for 11:00'],
    [{ kind: 'carriedOver', from: '2026-11-23' }, 'left over from Mon 23 Nov'],
    [{ kind: 'neverRung' }, 'never rung'],
    [{ kind: 'triedAgain', tries: 2, lastOn: '2026-11-20' }, 'third try'],
    [{ kind: 'rungBefore', lastOn: '2026-08-22' }, 'last rung 94 days ago'],
  ])('%j is said as %s', (why, words) => expect(sayWhyListed(why, TODAY)).toBe(words));
});

describe('a forecast', () => {
  const pool = (rest: Partial<PoolAhead> = {}): PoolAhead => ({
    ...{ free: 100, comes: new Map(), goes: new Map(), promised: new Map(), ...rest },
  });
  const rules = (wanted: number, rest = {}) => ({
    ...{ from: TODAY, to: TODAY + 83, wants: () => wanted, comeBack: 0, comeBackAfter: 30, ...rest },
  });

  it('runs dry on the day on which there are fewer left than wanted', () => {
    expect(forecastPool(pool(), rules(10)).dryOn).toBe(TODAY + 10);
    expect(forecastPool(pool({ free: 105 }), rules(10)).days[10]).toMatchObject({ free: 5, wanted: 10, found: 5 });
    expect(forecastPool(pool({ comes: new Map([[TODAY + 4, 20]]) }), rules(10)).dryOn).toBe(TODAY + 12);
    expect(forecastPool(pool({ goes: new Map([[TODAY + 5, 40]]) }), rules(10)).dryOn).toBe(TODAY + 8);
    // Promised calls are made first and take nothing from the pool.
    expect(forecastPool(pool({ promised: new Map([[TODAY, 10]]) }), rules(10)).dryOn).toBe(TODAY + 11);
    expect(forecastPool(pool(), rules(10, { comeBack: 100, comeBackAfter: 10 })).dryOn).toBeNull();
  });

  it('gives no more than there is, and the share that lasts does', () => {
    const some = fc.dictionary(fc.integer({ min: 0, max: 83 }).map(String), fc.integer({ min: 0, max: 60 }), {
      maxKeys: 8,
    });
    const byDay = (said: Record<string, number>) =>
      new Map(Object.entries(said).map(([at, n]) => [TODAY + Number(at), n]));
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 900 }),
        some,
        some,
        some,
        fc.integer({ min: 0, max: 40 }),
        fc.integer({ min: 0, max: 100 }),
        (free, comes, goes, promised, wanted, comeBack) => {
          const ahead = pool({ free, comes: byDay(comes), goes: byDay(goes), promised: byDay(promised) });
          const given = rules(wanted, { comeBack });
          const { days, dryOn } = forecastPool(ahead, given);
          for (const day of days) {
            expect(day.found).toBeLessThanOrEqual(day.wanted);
            expect(day.free).toBeGreaterThanOrEqual(0);
            if (dryOn === null || day.day < dryOn) expect(day.found).toBe(day.wanted);
          }
          const share = shareThatLasts(ahead, given);
          if (dryOn === null) expect(share).toBe(100);
          else expect(share).toBeLessThan(100);
        },
      ),
      // All of it lasts, 99 of a hundred do not.
      { examples: [[32, { 1: 1, 2: 29, 30: 4 }, { 29: 25 }, {}, 2, 96]] },
    );
  });
});
