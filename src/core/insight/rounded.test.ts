import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { roundedTogether } from './rounded.ts';

describe('rounded figures', () => {
  it('add up to their rounded total, none of them a unit or more from what it is', () => {
    expect(roundedTogether([90, 90, 90, 90], 60)).toEqual([2, 2, 1, 1]);
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 10_000 }), { maxLength: 30 }), (parts) => {
        const rounded = roundedTogether(parts, 60);
        const sum = (of: readonly number[]) => of.reduce((total, one) => total + one, 0);
        expect(sum(rounded)).toBe(Math.round(sum(parts) / 60));
        for (const [i, one] of rounded.entries()) expect(Math.abs(one - (parts[i] ?? 0) / 60)).toBeLessThanOrEqual(1);
      }),
    );
  });
});
