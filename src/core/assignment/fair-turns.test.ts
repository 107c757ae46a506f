import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fairTakers, type TurnTask } from './fair-turns.ts';

const PEOPLE = ['a', 'b', 'c', 'd'];
const taskOf = (id: string, personId: string, minutes = 60, scheduleId = 'walk'): TurnTask => ({
  ...{ id, personId, minutes, scheduleId },
});
const spread = (had: ReadonlyMap<string, number>) => [...had.values()].reduce((sum, times) => sum + times * times, 0);

describe('turns in a week that is evened out', () => {
  it('go from whoever had the work most often, the longest first, to whoever had it less often', () => {
    const had = new Map(Object.entries({ a: 3, b: 3, c: 2, d: 0 }));
    const week = [taskOf('mon', 'c'), taskOf('tue', 'a', 30), taskOf('wed', 'b', 45)];
    expect(fairTakers(week, () => had)).toEqual(
      new Map<string, readonly string[]>([
        ['mon', []],
        ['tue', []],
        ['wed', ['c', 'd']],
      ]),
    );
  });

  it('stay where one of the week was given away already, and where whoever covers stands in no roster', () => {
    expect(fairTakers([taskOf('mon', 'a')], () => null).get('mon')).toEqual([]);
    expect(fairTakers([taskOf('mon', 'x')], () => new Map([['a', 4]])).get('mon')).toEqual([]);
  });

  it('never get less fair, whichever of them go to whom', () => {
    const schedules = ['walk', 'count', 'lights'];
    fc.assert(
      fc.property(
        fc.array(
          fc.record({ at: fc.constantFrom(...schedules), who: fc.constantFrom(...PEOPLE), minutes: fc.nat(240) }),
        ),
        fc.array(fc.array(fc.nat(9), { minLength: 4, maxLength: 4 }), { minLength: 3, maxLength: 3 }),
        fc.infiniteStream(fc.nat()),
        (drawn, counts, choices) => {
          const tasks = drawn.map(({ at, who, minutes }, i) => taskOf(`t${i}`, who, minutes + 1, at));
          const had = new Map(
            schedules.map((id, i) => {
              // Whoever has so many in this week has had as many at the least.
              const inWeek = (who: string) =>
                tasks.filter(({ scheduleId, personId }) => scheduleId === id && personId === who).length;
              return [id, new Map(PEOPLE.map((who, n) => [who, (counts[i]?.[n] ?? 0) + inWeek(who)]))] as const;
            }),
          );
          const takers = fairTakers(tasks, (id) => had.get(id) ?? null);
          const after = new Map([...had].map(([id, of]) => [id, new Map(of)]));
          for (const { id, scheduleId, personId } of tasks) {
            const may = takers.get(id) ?? [];
            const to = may[(choices.next().value ?? 0) % Math.max(1, may.length)];
            const of = after.get(scheduleId);
            if (to === undefined || !of) continue;
            of.set(personId, (of.get(personId) ?? 0) - 1);
            of.set(to, (of.get(to) ?? 0) + 1);
          }
          for (const id of schedules)
            expect(spread(after.get(id) ?? new Map())).toBeLessThanOrEqual(spread(had.get(id) ?? new Map()));
        },
      ),
    );
  });
});
