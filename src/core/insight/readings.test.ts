import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isoOfDay } from '../civil-date/iso-date.ts';
import { liesOutside, type Reading, readingSeries } from './readings.ts';

const limit = fc.option(fc.integer({ min: -20, max: 20 }), { nil: null });
const reading: fc.Arbitrary<Reading> = fc.record({
  series: fc.constantFrom('gap of A', 'gap of B', 'loop'),
  label: fc.constantFrom('Gap', 'Loop'),
  unit: fc.constantFrom('mm', 'Ω'),
  taskId: fc.uuid(),
  on: fc.integer({ min: 738_000, max: 739_500 }).map(isoOfDay),
  value: fc.integer({ min: -25, max: 25 }),
  least: limit,
  most: limit,
});

describe('readings over time', () => {
  it('stand in the order of their days, each once, in the unit of now', () => {
    fc.assert(
      fc.property(fc.array(reading, { maxLength: 60 }), (readings) => {
        const all = readingSeries(readings);
        for (const { series, unit, label, readings: of, outside } of all) {
          expect(of.map(({ on }) => on)).toEqual(of.map(({ on }) => on).sort());
          expect([of.at(-1)?.unit, of.at(-1)?.label]).toEqual([unit, label]);
          const comparable = readings.filter((one) => one.series === series && one.unit === unit);
          expect(new Set(of)).toEqual(new Set(comparable));
          expect(outside).toBe(comparable.filter(liesOutside).length);
        }
        expect(all.map(({ series }) => series).sort()).toEqual(
          [...new Set(readings.map(({ series }) => series))].sort(),
        );
        const shares = all.map(({ outside, readings: of }) => outside / of.length);
        expect(shares).toEqual([...shares].sort((a, b) => b - a));
      }),
    );
  });

  it('are outside beyond a limit, and not on it', () => {
    const at = (value: number, least: number | null, most: number | null) => liesOutside({ value, least, most });
    expect([at(3, null, 3), at(3.01, null, 3), at(0.5, 0.5, null), at(0.4, 0.5, null), at(9, null, null)]).toEqual([
      false,
      true,
      false,
      true,
      false,
    ]);
  });
});
