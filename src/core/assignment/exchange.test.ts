import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { plainWeek } from '../people/week-hours.ts';
import { People } from './assignment.ts';
import { NOTHING_ASKED, unavailableOn, type Worker } from './availability.ts';
import { exchangesOf } from './exchange.ts';
import { type Turns, turnOn } from './roster.ts';
import { workedTurnsOf } from './turn-spans.ts';

const MONDAY = dayOfIso('2026-11-30');
const WEEKDAYS = [1, 2, 3, 4, 5] as const;
const worker = (id: string, of: Partial<Worker> = {}): Worker => ({
  ...{ id, weeks: [plainWeek(450, [...WEEKDAYS])], weeksFrom: MONDAY, worksFrom: null, worksUntil: null },
  ...{ shifts: [], shiftChanges: new Map(), leave: [], tickets: [], deputyId: null },
  ...of,
});
const peopleOf = (all: readonly Worker[]) => new People(new Map(all.map((one) => [one.id, one])), () => []);
const away = (from: number, to: number) => ({ leave: [{ from: MONDAY + from, to: MONDAY + to }] });
const turnsOf = (people: readonly string[], per: 'week' | 'occurrence' = 'week'): Turns => ({
  length: per === 'week' ? { per, on: 1 } : { per },
  rosters: [{ from: '2026-11-30', people }],
  swaps: [],
});
const count = (after: number, upTo: number) => upTo - after;
/** On each weekday, of so many weeks. */
const dates = (weeks: number) =>
  Array.from({ length: weeks * 7 }, (_, n) => ({ nominal: MONDAY + n, on: MONDAY + n })).filter((_, n) => n % 7 < 5);
const found = (
  people: readonly Worker[],
  {
    from,
    to,
    per = 'week',
    today = from,
  }: { readonly from: number; readonly to: number; readonly per?: 'week' | 'occurrence'; readonly today?: number },
  weeks = 8,
) => {
  const order = people.map(({ id }) => id);
  return exchangesOf(workedTurnsOf(turnsOf(order, per), dates(weeks), count), 'kit', {
    ...{ today: MONDAY + today, from: MONDAY + from, to: MONDAY + to, people: peopleOf(people) },
    askedOf: () => NOTHING_ASKED,
  });
};
const said = (all: ReturnType<typeof found>) => [
  ...all.exchanges.map(
    ({ missed, taken }) => `${missed.first - MONDAY} for ${taken.first - MONDAY} of ${taken.personId}`,
  ),
  ...all.without.map((turn) => `${turn.first - MONDAY} for none`),
];

describe('turns that somebody who is away gives for later ones', () => {
  it('go to whoever has the first turn after it that both can do', () => {
    expect(said(found([worker('kit', away(0, 6)), worker('joss'), worker('nadia')], { from: 0, to: 6 }))).toEqual([
      '0 for 7 of joss',
    ]);
  });

  it('pass over whoever is away as well, and turns for which one of the two is', () => {
    const joss = worker('joss', away(2, 2));
    expect(said(found([worker('kit', away(0, 6)), joss, worker('nadia')], { from: 0, to: 6 }))).toEqual([
      '0 for 14 of nadia',
    ]);
    // Still away when the next turn is done.
    const all = [worker('kit', away(0, 9)), worker('joss'), worker('nadia')];
    expect(said(found(all, { from: 0, to: 9 }))).toEqual(['0 for 14 of nadia']);
  });

  it('go where all that is left of one is a day off', () => {
    const kit = worker('kit', { ...away(1, 6), weeks: [plainWeek(450, [2, 3, 4, 5])] });
    expect(said(found([kit, worker('joss')], { from: 1, to: 6, today: 0 }))).toEqual(['0 for 7 of joss']);
  });

  it('stay where only a part is missed, where they have begun, and where nobody can', () => {
    expect(said(found([worker('kit', away(0, 3)), worker('joss')], { from: 0, to: 3 }))).toEqual([]);
    expect(said(found([worker('kit', away(-7, 6)), worker('joss')], { from: -7, to: 6, today: 1 }))).toEqual([]);
    expect(said(found([worker('kit', away(0, 6)), worker('joss', away(0, 60))], { from: 0, to: 6 }))).toEqual([
      '0 for none',
    ]);
  });

  it('are exchanged each for another one', () => {
    const all = [worker('kit', away(0, 4)), worker('joss'), worker('nadia')];
    expect(said(found(all, { from: 0, to: 4, per: 'occurrence' }, 3))).toEqual(['0 for 7 of joss', '3 for 8 of nadia']);
  });

  it('leave everybody with as many as before, and nobody with one for which they are away', () => {
    const someone = (id: string) =>
      fc
        .record({ from: fc.integer({ min: -3, max: 30 }), length: fc.integer({ min: 0, max: 12 }) })
        .map(({ from, length }) => worker(id, away(from, from + length)));
    fc.assert(
      fc.property(
        fc.tuple(someone('kit'), someone('joss'), someone('nadia'), someone('wilf')),
        fc.constantFrom('week' as const, 'occurrence' as const),
        (people, per) => {
          const [leave] = people[0].leave;
          if (!leave) return;
          const turns = turnsOf(
            people.map(({ id }) => id),
            per,
          );
          const days = dates(10);
          const { exchanges } = exchangesOf(workedTurnsOf(turns, days, count), 'kit', {
            ...{ today: MONDAY, from: leave.from, to: leave.to, people: peopleOf(people) },
            askedOf: () => NOTHING_ASKED,
          });
          const swaps = exchanges.map(({ missed, taken }) => ({
            one: isoOfDay(missed.first),
            other: isoOfDay(taken.first),
          }));
          const exchanged: Turns = { ...turns, swaps };
          const had = (of: Turns, id: string) =>
            workedTurnsOf(of, days, count).filter(({ personId }) => personId === id).length;
          for (const { id } of people) expect(had(exchanged, id)).toBe(had(turns, id));
          for (const { missed, taken } of exchanges) {
            expect(turnOn(exchanged, missed.first, count).personId).toBe(taken.personId);
            for (const [id, turn] of [
              [taken.personId, missed],
              ['kit', taken],
            ] as const) {
              const one = people.find((each) => each.id === id) as Worker;
              const why = turn.days.map((day) => unavailableOn(one, day, NOTHING_ASKED)?.because);
              expect(why).not.toContain('away');
              expect(why).toContain(undefined);
            }
          }
        },
      ),
    );
  });
});
