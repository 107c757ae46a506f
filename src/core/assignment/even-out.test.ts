import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type EvenPerson, type EvenTask, evenOut, isBetter, unevennessOf } from './even-out.ts';

const person = (id: string, capacity = 2250): EvenPerson => ({ id, capacity });
const task = (
  id: string,
  personId: string,
  minutes: number,
  mayGoTo: readonly string[] = ['a', 'b', 'c'],
): EvenTask => ({
  ...{ id, personId, minutes, mayGoTo },
});
const afterwards = (people: readonly EvenPerson[], tasks: readonly EvenTask[]): EvenTask[] => {
  const moves = new Map(evenOut(people, tasks).map(({ taskId, to }) => [taskId, to]));
  return tasks.map((one) => ({ ...one, personId: moves.get(one.id) ?? one.personId }));
};

/** The most even week there is, by trying all. */
function best(people: readonly EvenPerson[], tasks: readonly EvenTask[]) {
  let found = unevennessOf(people, tasks);
  const tryFrom = (at: number, now: EvenTask[]) => {
    const one = tasks[at];
    if (!one) {
      const next = unevennessOf(people, now);
      if (isBetter(next, found)) found = next;
      return;
    }
    for (const personId of new Set([one.personId, ...one.mayGoTo])) tryFrom(at + 1, [...now, { ...one, personId }]);
  };
  tryFrom(0, []);
  return found;
}

const people = fc
  .record({
    a: fc.integer({ min: 0, max: 2400 }),
    b: fc.integer({ min: 300, max: 2400 }),
    c: fc.integer({ min: 300, max: 2400 }),
  })
  .map(({ a, b, c }) => [person('a', a), person('b', b), person('c', c)]);
const tasks = (most: number) =>
  fc
    .array(
      fc.record({
        personId: fc.constantFrom('a', 'b', 'c'),
        minutes: fc.oneof(fc.integer({ min: 5, max: 480 }), fc.constantFrom(15, 30, 60, 120)),
        mayGoTo: fc.subarray(['a', 'b', 'c']),
      }),
      { maxLength: most },
    )
    .map((all) => all.map((one, i) => task(`t${i}`, one.personId, one.minutes, one.mayGoTo)));

describe('a week that is evened out', () => {
  it('has whoever is most over come down first, by one move where one is enough', () => {
    const week = [task('walk', 'a', 600), task('count', 'a', 300), task('check', 'b', 300)];
    expect(evenOut([person('a', 600), person('b', 800)], week)).toEqual([{ taskId: 'count', from: 'a', to: 'b' }]);
  });

  it('exchanges two where no move alone helps', () => {
    const week = [task('long', 'a', 500), task('short', 'b', 300), task('own', 'a', 100, [])];
    const moves = evenOut([person('a', 480), person('b', 480)], week);
    expect(moves).toEqual([
      { taskId: 'long', from: 'a', to: 'b' },
      { taskId: 'short', from: 'b', to: 'a' },
    ]);
  });

  it('leaves what must stay, and what is even already', () => {
    expect(evenOut([person('a', 100), person('b')], [task('begun', 'a', 600, [])])).toEqual([]);
    expect(evenOut([person('a'), person('b')], [task('one', 'a', 60), task('other', 'b', 60)])).toEqual([]);
    expect(evenOut([], [])).toEqual([]);
  });

  it('refuses work of somebody who is not among the people', () => {
    expect(() => evenOut([person('a')], [task('x', 'z', 60)])).toThrow('z has work');
  });

  it('goes on where whoever gave work away may not have it back, which opens another way', () => {
    const who = [person('a', 912), person('b', 300), person('c', 961)];
    const week = [
      ...[task('t0', 'c', 83, []), task('t1', 'c', 30, ['a', 'b']), task('t2', 'a', 120, []), task('t3', 'c', 58, [])],
      ...[task('t4', 'a', 15, []), task('t5', 'a', 78, ['a', 'b']), task('t6', 'a', 60, ['c'])],
      ...[task('t7', 'a', 15, ['c']), task('t8', 'a', 25, ['b'])],
    ];
    expect(evenOut(who, week)).not.toEqual([]);
    expect(evenOut(who, afterwards(who, week))).toEqual([]);
  });

  it('is never worse, gives work to nobody who may not have it, and has nothing left to propose', () => {
    fc.assert(
      fc.property(people, tasks(24), (who, week) => {
        const moves = evenOut(who, week);
        const then = afterwards(who, week);
        expect(isBetter(unevennessOf(who, week), unevennessOf(who, then))).toBe(false);
        for (const { taskId, from, to } of moves) {
          const moved = week.find(({ id }) => id === taskId);
          expect(moved?.personId).toBe(from);
          expect(moved?.mayGoTo).toContain(to);
        }
        expect(evenOut(who, then)).toEqual([]);
      }),
    );
  });

  it('comes within a twentieth of the best there is', () => {
    fc.assert(
      fc.property(people, tasks(7), (who, week) => {
        const [found, optimum] = [unevennessOf(who, afterwards(who, week)), best(who, week)];
        const most = Math.max(...who.map(({ capacity }) => capacity));
        expect(most + found.over).toBeLessThanOrEqual((most + optimum.over) * 1.05);
        if (Math.abs(found.over - optimum.over) < 1)
          expect(found.spread).toBeLessThanOrEqual(optimum.spread * 1.05 + 1);
      }),
      { numRuns: 150 },
    );
  });
});
