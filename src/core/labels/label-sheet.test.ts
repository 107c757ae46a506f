import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LABEL_FORMS, LABEL_SIZES, labelPlaces, labelsOfSheet } from './label-sheet.ts';

describe('labels on sheets', () => {
  it('lie on the sheet, beside each other, none twice and none on a place that is used', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...LABEL_SIZES),
        fc.integer({ min: 0, max: 100 }),
        fc.integer({ min: 1, max: 14 }),
        (size, count, first) => {
          const form = LABEL_FORMS[size];
          const places = labelPlaces(form, count, first);
          expect(places).toHaveLength(count);
          expect(new Set(places.map(({ sheet, x, y }) => `${sheet} ${x} ${y}`)).size).toBe(count);
          for (const { x, y } of places) {
            expect(x).toBeGreaterThanOrEqual(0);
            expect(y).toBeGreaterThanOrEqual(0);
            expect(x + form.width).toBeLessThanOrEqual(210);
            expect(y + form.height).toBeLessThanOrEqual(297);
          }
          const sheets = places.reduce((most, { sheet }) => Math.max(most, sheet + 1), 0);
          expect(sheets).toBe(count === 0 ? 0 : Math.ceil((count + first - 1) / labelsOfSheet(form)));
        },
      ),
    );
    expect(form('small').stepAcross).toBeGreaterThanOrEqual(form('small').width);
    expect(form('large').stepAcross).toBeGreaterThanOrEqual(form('large').width);
  });

  it('begin where there is a place', () => {
    expect(() => labelPlaces(form('small'), 1, 22)).toThrow(RangeError);
    expect(() => labelPlaces(form('large'), 1, 0)).toThrow(RangeError);
    expect(labelPlaces(form('small'), 2, 21).map(({ sheet }) => sheet)).toEqual([0, 1]);
  });
});

const form = (size: keyof typeof LABEL_FORMS) => LABEL_FORMS[size];
