import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { seedOf, shuffled } from './lots.ts';
import { type Candidate, type PickRules, pickLists } from './picking.ts';
import { type CallStanding, FOR_GOOD, NEVER_RUNG, whyNotRung } from './standing.ts';

const TODAY = dayOfIso('2026-11-24');
const idOf = (n: number) =>
  `01937000-0000-7000-8000-${Math.imul(n + 1, 0x9e3779b1)
    .toString(16)
    .replace('-', 'f')
    .padStart(12, '0')}`;
const person = (n: number) => `01937000-0000-7000-8000-0000000a000${n}`;
const candidate = (n: number, standing: Partial<CallStanding> = {}, rest: Partial<Candidate> = {}): Candidate => ({
  contactId: idOf(n),
  number: `01632 960 ${n}`,
  standing: { ...NEVER_RUNG, ...standing },
  ...{ usualPersonId: null, carried: null, ...rest },
});
const rules = (wants: readonly number[], rest: Partial<PickRules> = {}): PickRules => ({
  day: TODAY,
  wants: new Map(wants.map((n, i) => [person(i), n])),
  ...{ gap: 2, first: 'neverRung', usualFirst: true, seed: seedOf(idOf(99), TODAY) },
  ...rest,
});
const rung = (daysAgo: number, rest: Partial<CallStanding> = {}) => ({ lastRungOn: TODAY - daysAgo, ...rest });
const listed = (lists: ReturnType<typeof pickLists>, n = 0) => lists.get(person(n)) ?? [];
const kinds = (lists: ReturnType<typeof pickLists>, n = 0) => listed(lists, n).map(({ why }) => why.kind);

describe('the list of a day', () => {
  it('has promised calls at their time, then what was left over, never rung, tried again, and longest ago', () => {
    const callBack = (at: string | null) => ({ on: TODAY, at, personId: person(0), quotaId: 'q' });
    const lists = pickLists(
      [
        candidate(1, rung(90)),
        candidate(2, rung(118)),
        candidate(3, rung(4, { tries: 2, againOn: TODAY })),
        candidate(4),
        candidate(5, rung(1), { carried: null }),
        candidate(6, rung(1, { callBack: callBack('14:00') })),
        candidate(7, rung(5, { callBack: callBack(null) })),
        candidate(8, rung(5, { callBack: callBack('09:30') })),
        candidate(9, rung(60), { carried: { personId: person(0), from: isoOfDay(TODAY - 1) } }),
      ],
      rules([8]),
    );
    expect(listed(lists).map(({ contactId }) => contactId)).toEqual([8, 6, 7, 9, 4, 3, 2, 1].map(idOf));
    expect(kinds(lists).slice(3)).toEqual(['carriedOver', 'neverRung', 'triedAgain', 'rungBefore', 'rungBefore']);
    const other = pickLists([candidate(1, rung(90)), candidate(4)], rules([1], { first: 'rungBefore' }));
    expect(kinds(other)).toEqual(['rungBefore']);
  });

  it('keeps a promise beyond the number, and where whoever gave it is away', () => {
    const promised = (n: number, by: number) =>
      candidate(n, rung(3, { callBack: { on: TODAY - 1, at: '10:00', personId: person(by), quotaId: 'q' } }));
    expect(listed(pickLists([promised(1, 0), promised(2, 0)], rules([1])))).toHaveLength(2);
    const lists = pickLists([promised(1, 7), promised(2, 7)], rules([0, 0]));
    expect([...lists.values()].flat()).toHaveLength(2);
    expect(pickLists([promised(1, 7)], rules([])).size).toBe(0);
  });

  it('gives whom somebody looks after to them, while there is room', () => {
    const of = (n: number, who: number) => candidate(n, {}, { usualPersonId: person(who) });
    const lists = pickLists([of(1, 1), of(2, 1), of(3, 1), of(4, 5)], rules([2, 2]));
    expect(listed(lists, 1).filter(({ contactId }) => [1, 2, 3].map(idOf).includes(contactId))).toHaveLength(2);
    expect([...lists.values()].flat()).toHaveLength(4);
  });
});

const anyStanding: fc.Arbitrary<CallStanding> = fc.record({
  lastRungOn: fc.option(fc.integer({ min: TODAY - 200, max: TODAY })),
  tries: fc.integer({ min: 0, max: 4 }),
  againOn: fc.option(fc.integer({ min: TODAY - 5, max: TODAY + 5 }), { freq: 2 }),
  aloneUntil: fc.option(fc.constantFrom(TODAY - 1, TODAY, FOR_GOOD), { freq: 1 }),
  callBack: fc.option(
    fc.record({
      on: fc.integer({ min: TODAY - 2, max: TODAY + 2 }),
      at: fc.constantFrom(null, '09:00', '16:30'),
      personId: fc.constantFrom(...[0, 1, 2, 9].map(person)),
      quotaId: fc.constant('q'),
    }),
    { freq: 1 },
  ),
  isNeverCalled: fc.boolean(),
  wrongNumber: fc.option(fc.constantFrom('01632 960 5', 'x'), { freq: 1 }),
});
const anyCandidates = fc
  .array(fc.tuple(anyStanding, fc.option(fc.constantFrom(...[0, 1, 2].map(person))), fc.boolean()), { maxLength: 60 })
  .map((all) =>
    all.map(([standing, usualPersonId, isCarried], n) =>
      candidate(n, standing, {
        usualPersonId,
        carried: isCarried ? { personId: person(n % 3), from: isoOfDay(TODAY - 1) } : null,
      }),
    ),
  );
const anyWants = fc.array(fc.integer({ min: 0, max: 12 }), { minLength: 1, maxLength: 3 });

describe('lists', () => {
  it('have nobody twice, nobody who must not be rung, and no more than the number but for promises', () => {
    fc.assert(
      fc.property(anyCandidates, anyWants, fc.boolean(), (candidates, wants, usualFirst) => {
        const lists = pickLists(candidates, rules(wants, { usualFirst }));
        const all = [...lists.values()].flat();
        expect(new Set(all.map(({ contactId }) => contactId)).size).toBe(all.length);
        const byId = new Map(candidates.map((one) => [one.contactId, one]));
        for (const { contactId } of all) {
          const { standing, number } = byId.get(contactId) as Candidate;
          expect(whyNotRung(standing, { number, day: TODAY, gap: 2 })).toBeNull();
        }
        for (const [i, want] of wants.entries()) {
          const fromPool = listed(lists, i).filter(({ why }) => why.kind !== 'promised');
          expect(fromPool.length).toBeLessThanOrEqual(want);
        }
        const promised = candidates.filter(
          ({ standing, number }) =>
            standing.callBack !== null &&
            standing.callBack.on <= TODAY &&
            whyNotRung(standing, { number, day: TODAY, gap: 2 }) === null,
        );
        expect(all.filter(({ why }) => why.kind === 'promised')).toHaveLength(promised.length);
      }),
    );
  });

  it('are the same whatever order the candidates come in, and change by one at most where one is added', () => {
    fc.assert(
      fc.property(anyCandidates, anyWants, anyStanding, fc.integer(), (candidates, wants, standing, turn) => {
        const before = pickLists(candidates, rules(wants));
        const turned = [...candidates.slice(turn % 7), ...candidates.slice(0, turn % 7)].reverse();
        expect(pickLists([...new Set(turned)], rules(wants))).toEqual(
          pickLists([...new Set([...candidates.slice(turn % 7), ...candidates.slice(0, turn % 7)])], rules(wants)),
        );
        const after = pickLists([...candidates, candidate(900, { ...standing, callBack: null })], rules(wants));
        const ids = (lists: typeof before) => new Set([...lists.values()].flat().map(({ contactId }) => contactId));
        const [was, is] = [ids(before), ids(after)];
        expect([...is].filter((id) => !was.has(id)).every((id) => id === idOf(900))).toBe(true);
        expect([...was].filter((id) => !is.has(id)).length).toBeLessThanOrEqual(1);
      }),
    );
  });

  it('of another day are in another order', () => {
    const order = (day: number) =>
      Array.from({ length: 40 }, (_, n) => n).sort(
        (a, b) => shuffled(idOf(a), seedOf(idOf(99), day)) - shuffled(idOf(b), seedOf(idOf(99), day)),
      );
    expect(order(TODAY)).not.toEqual(order(TODAY + 1));
    expect(new Set(order(TODAY)).size).toBe(40);
  });
});
