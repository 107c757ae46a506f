import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Weekday } from '../civil-date/civil-day.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { type DatesBetween, type Roster, type TurnLength, type Turns, turnOn } from './roster.ts';

/** Monday 16 November 2026. */
const FROM = '2026-11-16';
const daily: DatesBetween = (after, upTo) => upTo - after;
const WEEKLY: TurnLength = { per: 'week', on: 1 };
const turns = (of: Partial<Turns> = {}): Turns => ({
  length: WEEKLY,
  rosters: [{ from: FROM, people: ['joss', 'nadia', 'kit', 'tamsin', 'wilf'] }],
  swaps: [],
  ...of,
});
const whose = (of: Turns, date: string, datesBetween = daily) => turnOn(of, dayOfIso(date), datesBetween).personId;

const length = fc.oneof<fc.Arbitrary<TurnLength>[]>(
  fc.constant({ per: 'occurrence' }),
  fc.constant({ per: 'month' }),
  fc.integer({ min: 1, max: 7 }).map((on) => ({ per: 'week', on: on as Weekday })),
);
const day = fc.integer({ min: dayOfIso('2024-01-01'), max: dayOfIso('2029-12-31') });
const people = fc.uniqueArray(fc.constantFrom(...'abcdefgh'), { minLength: 1, maxLength: 8 });
const roster: fc.Arbitrary<Roster> = fc.record({ from: day.map(isoOfDay), people });

/** The first day of each of so many turns from a day on. */
function turnStarts({ length: { per } }: Turns, from: number, count: number): number[] {
  if (per === 'occurrence') return Array.from({ length: count }, (_, i) => from + i);
  if (per === 'week') return Array.from({ length: count }, (_, i) => from + 7 * i);
  const first = new Date(from * 86_400_000);
  return Array.from(
    { length: count },
    (_, i) => Date.UTC(first.getUTCFullYear(), first.getUTCMonth() + i, 15) / 86_400_000,
  );
}

describe('turns', () => {
  it('go through the roster by the week, from the weekday on which they change', () => {
    const dates = ['2026-11-16', '2026-11-22', '2026-11-23', '2026-12-14', '2026-12-20', '2026-12-21', '2026-11-15'];
    expect(dates.map((date) => whose(turns(), date))).toEqual([
      ...['joss', 'joss', 'nadia', 'wilf', 'wilf', 'joss'],
      // Before it began the order runs back.
      'wilf',
    ]);
    const fromThursday = turns({ length: { per: 'week', on: 4 } });
    // The roster's first day lies in the turn that began on Thursday 12 November.
    expect(['2026-11-18', '2026-11-19'].map((date) => whose(fromThursday, date))).toEqual(['joss', 'nadia']);
  });

  it('go through it by the month, and by the dates of a rule, which a skipped one uses up as well', () => {
    const monthly = turns({ length: { per: 'month' } });
    expect(['2026-11-01', '2026-11-30', '2026-12-01'].map((date) => whose(monthly, date))).toEqual([
      ...['joss', 'joss', 'nadia'],
    ]);
    const each = turns({ length: { per: 'occurrence' } });
    // Fridays: 20 and 27 November, 4 December.
    const fridays: DatesBetween = (after, upTo) => Math.floor((upTo + 6) / 7) - Math.floor((after + 6) / 7);
    expect(['2026-11-20', '2026-11-27', '2026-12-04'].map((date) => whose(each, date, fridays))).toEqual([
      ...['joss', 'nadia', 'kit'],
    ]);
  });

  it('are swapped whole, and a swap of what was swapped before goes on from there', () => {
    const swapped = turns({ swaps: [{ one: '2026-12-07', other: '2026-12-16' }] });
    expect(turnOn(swapped, dayOfIso('2026-12-09'), daily)).toMatchObject({ personId: 'wilf', insteadOf: 'tamsin' });
    expect(turnOn(swapped, dayOfIso('2026-12-14'), daily)).toMatchObject({ personId: 'tamsin', insteadOf: 'wilf' });
    expect(turnOn(swapped, dayOfIso('2026-12-21'), daily)).toMatchObject({ personId: 'joss', insteadOf: null });
    const twice = turns({ swaps: [...swapped.swaps, { one: '2026-12-07', other: '2026-12-21' }] });
    expect(['2026-12-07', '2026-12-14', '2026-12-21'].map((date) => whose(twice, date))).toEqual([
      ...['joss', 'tamsin', 'wilf'],
    ]);
  });

  it('are refused where nobody stands in the roster', () => {
    expect(() => turnOn(turns({ rosters: [] }), dayOfIso(FROM), daily)).toThrow(RangeError);
    expect(() => turnOn(turns({ rosters: [{ from: FROM, people: [] }] }), dayOfIso(FROM), daily)).toThrow(
      'nobody in it',
    );
  });

  it('give everybody as many as anybody, over whole rounds', () => {
    fc.assert(
      fc.property(length, roster, fc.integer({ min: 1, max: 6 }), (per, one, rounds) => {
        const all: Turns = { length: per, rosters: [one], swaps: [] };
        const counts = new Map<string, number>();
        for (const start of turnStarts(all, dayOfIso(one.from), one.people.length * rounds)) {
          const { personId } = turnOn(all, start, daily);
          counts.set(personId, (counts.get(personId) ?? 0) + 1);
        }
        expect([...counts.values()]).toEqual(one.people.map(() => rounds));
      }),
    );
  });

  it('are the same before a change of the roster, whatever changes', () => {
    fc.assert(
      fc.property(length, fc.array(roster, { minLength: 1, maxLength: 3 }), roster, day, (per, rosters, next, on) => {
        const begun = rosters.some(({ from }) => dayOfIso(from) <= on);
        fc.pre(begun && on < dayOfIso(next.from));
        const before: Turns = { length: per, rosters, swaps: [] };
        expect(turnOn({ ...before, rosters: [...rosters, next] }, on, daily)).toEqual(turnOn(before, on, daily));
      }),
    );
  });

  it('change hands in two places and nowhere else by a swap', () => {
    fc.assert(
      fc.property(length, roster, day, day, day, (per, one, first, second, on) => {
        const plain: Turns = { length: per, rosters: [one], swaps: [] };
        const swapped = { ...plain, swaps: [{ one: isoOfDay(first), other: isoOfDay(second) }] };
        const at = (of: Turns, where: number) => turnOn(of, where, daily).personId;
        expect(at(swapped, first)).toBe(at(plain, second));
        expect(at(swapped, second)).toBe(at(plain, first));
        const { insteadOf, personId } = turnOn(swapped, on, daily);
        expect(insteadOf ?? personId).toBe(at(plain, on));
      }),
    );
  });
});
