import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { admitted, daysWaited, type MadeOne, type Overlap } from './overlap.ts';

const WAIT: Overlap = { kind: 'wait', limitDays: 5 };
const owedOf = (...nominals: number[]) => nominals.map((nominal) => ({ nominal, on: nominal }));
const nominals = (list: readonly { readonly nominal: number }[]) => list.map(({ nominal }) => nominal);

describe('a schedule that waits', () => {
  it.each<[string, readonly MadeOne[], number[], number[]]>([
    ['nothing is made yet', [], [1], [2, 3]],
    ['the last one is open', [{ nominal: 0, isOver: false }], [], [1, 2, 3]],
    ['the first of these is open', [{ nominal: 1, isOver: false }], [1], [2, 3]],
    ['the first of these is over', [{ nominal: 1, isOver: true }], [1, 2], [3]],
  ])('makes one at a time where %s', (_, made, now, waiting) => {
    const parted = admitted(owedOf(1, 2, 3), WAIT, made);
    expect([nominals(parted.now), nominals(parted.waiting)]).toEqual([now, waiting]);
  });

  it('never has two open, and loses none', () => {
    const numbers = fc.uniqueArray(fc.nat(20), { maxLength: 10 });
    fc.assert(
      fc.property(
        numbers,
        fc.uniqueArray(fc.record({ nominal: fc.nat(20), isOver: fc.boolean() }), {
          selector: ({ nominal }) => nominal,
        }),
        (owed, made) => {
          const { now, waiting } = admitted(owedOf(...owed), WAIT, made);
          expect([...nominals(now), ...nominals(waiting)].sort()).toEqual([...owed].sort());
          const over = new Set(made.filter(({ isOver }) => isOver).map(({ nominal }) => nominal));
          expect(now.filter(({ nominal }) => !over.has(nominal)).length).toBeLessThanOrEqual(1);
        },
      ),
    );
  });

  it('tells for how long', () => {
    expect(daysWaited(owedOf(12, 10), 14)).toBe(4);
    expect(daysWaited(owedOf(10), 10)).toBe(0);
    expect(daysWaited(owedOf(10), 9)).toBeNull();
    expect(daysWaited([], 9)).toBeNull();
  });
});

describe('a schedule that does not', () => {
  it.each<Overlap>([{ kind: 'add' }, { kind: 'lapse' }])('makes all: %j', (overlap) => {
    expect(nominals(admitted(owedOf(1, 2), overlap, [{ nominal: 0, isOver: false }]).now)).toEqual([1, 2]);
  });
});
