import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { closedOn } from '../calendar/closed-season.ts';
import { WEEKDAYS_ONLY } from '../calendar/working-calendar.ts';
import { dayOfIso } from '../civil-date/iso-date.ts';
import { within } from '../reckoning.ts';
import { anyFullRecurrence } from './generated.ts';
import { rulesWithDates } from './never.ts';
import { occurrenceSeries } from './occurrences.ts';
import { parsePhrase } from './phrase/reader.ts';
import { leavesOutClosed } from './rule.ts';
import { ruleDates } from './rule-dates.ts';

const left = (phrase: string) => rulesWithDates(parsePhrase(phrase, { start: '2026-11-24' })).length;

describe('rules that never give a date', () => {
  it.each([
    ['30th of Feb, where there is one', 0],
    ['29th of Feb, where there is one', 1],
    ['31st of Apr and Jun, where there is one', 0],
    ['31st of Apr and Jul, where there is one', 1],
    ['31st of Apr, or the 1st after', 1],
    ['sixth Friday of each month', 0],
    ['fifth Friday of Feb', 1],
    ['ninth weekend day of each month', 1],
    ['eleventh weekend day of each month', 0],
    ['last working day of Aug, not in Aug', 0],
    ['last working day of Aug, not from 1 Aug to 30 Aug', 1],
    ['last working day of Aug and 30th of Feb, where there is one, not in Aug', 0],
    ['last working day of Aug and 15th of Mar, not in Aug', 1],
    ['every week on Mon, not from Jan to Dec', 0],
    ['every day, not from Feb to Dec, not from 1 Jan to 30 Jan', 1],
    ['31st of Aug, moved out of Aug, or the working day after', 1],
  ])('%s: %i of them may', (phrase, wanted) => {
    expect(left(phrase)).toBe(wanted);
  });

  it('are those of a place that no month has, though a date it lacked would be made up for', () => {
    const friday = parsePhrase('sixth Friday of each month', { start: '2026-11-24' });
    const rules = friday.rules.map((rule) => ({ ...rule, missing: 'next' as const }));
    expect(rulesWithDates({ ...friday, rules: rules as typeof friday.rules })).toEqual([]);
  });

  it.each([
    [27, 1],
    [28, 0],
  ])('are those of day %i from the end of all but Sundays: %i of them may', (nth, wanted) => {
    const first = parsePhrase('first weekend day of each month', { start: '2026-11-24' });
    const on = [{ kind: 'anyWeekday', nth: -nth, weekdays: [3, 5, 6, 1, 4, 2] }] as const;
    const rules = first.rules.map((rule) => ({ ...rule, on }));
    expect(rulesWithDates({ ...first, rules: rules as unknown as typeof first.rules })).toHaveLength(wanted);
  });

  it('are told at once, however they are closed', () => {
    const phrase = 'last working day of Aug and 30th of Feb, where there is one, not in Aug';
    const never = parsePhrase(phrase, { start: '2026-11-24' });
    expect(within(1000, () => occurrenceSeries(never, WEEKDAYS_ONLY).next(dayOfIso('2026-11-23')))).toBe(null);
  });

  it('have no date when each day is looked at', () => {
    fc.assert(
      fc.property(anyFullRecurrence, (recurrence) => {
        const kept = rulesWithDates(recurrence);
        const start = dayOfIso(recurrence.start);
        const isClosed = leavesOutClosed(recurrence) ? closedOn(recurrence.closed?.seasons ?? []) : () => false;
        for (const rule of recurrence.rules.filter((one) => !kept.includes(one))) {
          const days: number[] = [];
          // Eight years hold a leap day, whenever they begin.
          ruleDates(rule, start, WEEKDAYS_ONLY).addBetween(days, start, start + 2922);
          expect(days.filter((day) => !isClosed(day))).toEqual([]);
        }
      }),
      { numRuns: 400 },
    );
  });
});
