import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { WEEKDAYS_ONLY } from './calendar/working-calendar.ts';
import { dayOfIso } from './civil-date/iso-date.ts';
import { reckoningFault } from './planning/reckoning-fault.ts';
import { PLAIN_TIMING } from './planning/timing.ts';
import { spend, TooMuchReckoningError, within } from './reckoning.ts';
import { occurrenceSeries } from './recurrence/occurrences.ts';
import { recurrenceProblems } from './recurrence/recurrence-problems.ts';
import type { Recurrence, Rule } from './recurrence/rule.ts';

const TODAY = dayOfIso('2026-11-27');
const CLOSED_BUT_ONE_DAY = { seasons: [{ from: '01-01', to: '12-30' }], dates: 'omit' } as const;

const recurrence = (rules: readonly Rule[], rest: Partial<Recurrence> = {}): Recurrence => ({
  start: '2026-11-24',
  rules,
  end: { kind: 'never' },
  dayOff: 'none',
  ...rest,
});
const rrule = (text: string): Rule => ({ kind: 'rrule', text });
const fault = (one: Recurrence) => reckoningFault({ recurrence: one, timing: PLAIN_TIMING }, WEEKDAYS_ONLY, TODAY);

describe('a question', () => {
  it('ends with a sentence where it would take more steps than it may, also as a part of another', () => {
    expect(() => within(10, () => spend(11))).toThrow(TooMuchReckoningError);
    expect(() => within(10, () => within(1000, () => spend(11)))).toThrow('takes too long to work out');
    expect(within(10, () => [within(4, () => spend(4)), spend(6)])).toEqual([undefined, undefined]);
    expect(() => within(10, () => [within(4, () => spend(4)), spend(7)])).toThrow(TooMuchReckoningError);
  });

  it('leaves nothing of its limit behind, whether it was answered or not', () => {
    expect(() => within(1, () => spend(2))).toThrow(TooMuchReckoningError);
    expect(() => spend(1_000_000)).not.toThrow();
  });
});

describe('a rule that looks through thousands of years', () => {
  const rare = rrule('FREQ=YEARLY;BYMONTH=1,5;BYMONTHDAY=1,5,-19;BYDAY=5TU,SU,FR');

  it('is refused in words', () => {
    const twelve = recurrence(
      Array.from({ length: 12 }, () => rare),
      { closed: CLOSED_BUT_ONE_DAY },
    );
    expect(recurrenceProblems(twelve, WEEKDAYS_ONLY)).toEqual([
      { path: 'rules', message: expect.stringContaining('takes too long to work out') },
    ]);
  });

  it('counts for no longer than any other, however far back it begins', () => {
    const friday13 = recurrence([rrule('FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13;COUNT=9999')], { start: '0001-01-01' });
    expect(fault(friday13)).toContain('takes too long to work out');
  });

  it.each([
    ['every 29 February that is a Monday', rrule('FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=29;BYDAY=MO'), '1990-01-01'],
    ['every Friday the 13th', rrule('FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13'), '1970-01-01'],
    ['every day for thirty years', { kind: 'days', every: 1, except: [] } as const, '1996-01-01'],
  ])('is not %s', (_, rule, start) => {
    expect(fault(recurrence([rule], { start }))).toBeNull();
  });

  it('never holds anybody up: any foreign rule, closed for all but a day of the year, is answered or refused', () => {
    const part = (name: string, values: fc.Arbitrary<string>) =>
      fc.array(values, { maxLength: 3 }).map((list) => (list.length === 0 ? '' : `;${name}=${list.join(',')}`));
    const whole = (least: number, most: number) =>
      fc
        .integer({ min: least, max: most })
        .filter((n) => n !== 0)
        .map(String);
    const text = fc
      .tuple(
        fc.constantFrom('DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY').map((freq) => `FREQ=${freq}`),
        fc.integer({ min: 1, max: 50 }).map((n) => `;INTERVAL=${n}`),
        part('BYMONTH', whole(1, 12)),
        part('BYMONTHDAY', whole(-31, 31)),
        part('BYDAY', fc.constantFrom('MO', 'TU', 'SU', 'FR')),
        part('BYSETPOS', whole(-3, 3)),
        fc.constantFrom('', ';COUNT=9999'),
      )
      .map((parts) => parts.join(''))
      .filter((rule) => !rule.includes('BYSETPOS') || /BYDAY|BYMONTH/.test(rule));
    let steps = 0;
    fc.assert(
      fc.property(fc.array(text, { minLength: 1, maxLength: 12 }), fc.boolean(), (texts, isClosed) => {
        const one = recurrence(texts.map(rrule), {
          start: '1900-01-01',
          ...(isClosed ? { closed: CLOSED_BUT_ONE_DAY } : {}),
        });
        try {
          if (fault(one) === null) within(300_000, () => occurrenceSeries(one, WEEKDAYS_ONLY).next(TODAY));
        } catch (error) {
          // A rule of the generator that can't be read, or one too many steps: told in words either way.
          expect((error as Error).message.length).toBeGreaterThan(20);
        }
        steps++;
      }),
      { numRuns: 60 },
    );
    expect(steps).toBe(60);
  });
});
