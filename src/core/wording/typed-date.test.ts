import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { yearMonthDay } from '../civil-date/civil-day.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { sayDate } from './date-words.ts';
import { readTypedDate } from './typed-date.ts';

/** A Tuesday. */
const today = dayOfIso('2026-11-24');
const read = (text: string) => {
  const typed = readTypedDate(text, today);
  return typed.kind === 'day' ? isoOfDay(typed.day) : typed.kind === 'several' ? typed.days.map(isoOfDay) : null;
};

describe('a typed date', () => {
  it.each([
    ['today', '2026-11-24'],
    ['Tomorrow', '2026-11-25'],
    ['friday', '2026-11-27'],
    ['on fri', '2026-11-27'],
    ['monday', '2026-11-30'],
    ['this tuesday', '2026-11-24'],
    ['1.2.2027', '2027-02-01'],
    ['1.2.27', '2027-02-01'],
    ['24.12.', '2026-12-24'],
    ['13/2/2027', '2027-02-13'],
    ['2/13/2027', '2027-02-13'],
    ['2/2/2027', '2027-02-02'],
    ['1 Feb 28', '2028-02-01'],
    ['Feb 1, 28', '2028-02-01'],
    ['1 Feb', '2027-02-01'],
    ['29 Feb 2028', '2028-02-29'],
  ])('%j is %s', (text, expected) => expect(read(text)).toBe(expected));

  it.each([
    ['1/2/2027', ['2027-02-01', '2027-01-02']],
    ['next monday', ['2026-11-30', '2026-12-07']],
    ['next tuesday', ['2026-12-01', '2026-12-08']],
    ['tuesday', ['2026-11-24', '2026-12-01']],
  ])('%j can be read two ways, and both are told', (text, expected) => expect(read(text)).toEqual(expected));

  it.each(['31 feb 2027', '31.2.2027', '0/0/2027', 'soon', '', '1', 'fr', 'next', '2027', '29 Feb 27'])(
    '%j is none',
    (text) => expect(read(text)).toBeNull(),
  );

  it('is read back as it is written, and day first with dots, on any day', () => {
    fc.assert(
      fc.property(fc.integer({ min: 11_000, max: 47_000 }), (day) => {
        const { year, month, day: date } = yearMonthDay(day);
        expect(readTypedDate(sayDate(day), today)).toEqual({ kind: 'day', day });
        expect(readTypedDate(`${date}.${month}.${year}`, today)).toEqual({ kind: 'day', day });
      }),
    );
  });
});
