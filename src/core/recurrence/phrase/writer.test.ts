import { describe, expect, it } from 'vitest';
import { makeCalendar } from '../../calendar/iso-calendar.ts';
import { monthsRule } from '../generated.ts';
import { recurrenceProblems } from '../recurrence-problems.ts';
import type { MonthPoint, Recurrence, Rule } from '../rule.ts';
import { NO_START, phraseParts, writePhrase } from './writer.ts';

const recurrence = (rules: readonly Rule[], rest: Partial<Recurrence> = {}): Recurrence => ({
  start: NO_START,
  rules,
  end: { kind: 'never' },
  dayOff: 'none',
  ...rest,
});
const date = (day: number): MonthPoint => ({ kind: 'date', day });
const working = (nth: number): MonthPoint => ({ kind: 'workingDay', nth });
const nth = (n: number, weekday: 1 | 2 | 3 | 4 | 5 | 6 | 7): MonthPoint => ({ kind: 'weekday', nth: n, weekday });
const years = (month: number, on: MonthPoint[], rest: Partial<Extract<Rule, { kind: 'years' }>> = {}): Rule => ({
  kind: 'years',
  every: 1,
  months: [month],
  on,
  missing: 'last',
  ...rest,
});

describe('a rule in words', () => {
  it.each<[Rule, string]>([
    [{ kind: 'days', every: 1, except: [] }, 'every day'],
    [{ kind: 'days', every: 10, except: [] }, 'every 10 days'],
    [{ kind: 'days', every: 1, except: [7, 1] }, 'every day but Mon and Sun'],
    [{ kind: 'weeks', every: 1, on: [5, 1, 2, 3, 4] }, 'every weekday'],
    [{ kind: 'weeks', every: 2, on: [4, 2] }, 'every 2 weeks on Tue and Thu'],
    [{ kind: 'weeks', every: 1, on: [5] }, 'every week on Fri'],
    [monthsRule([date(15), date(1)]), '1st and 15th of each month'],
    [monthsRule([working(-1), date(15)]), '15th and the last working day of each month'],
    [monthsRule([working(-1)], { months: [3, 6, 9, 12] }), 'last working day of every quarter'],
    [monthsRule([working(1)], { months: [1, 4, 7, 10] }), 'first working day of every quarter'],
    [monthsRule([date(7)], { months: [2, 5, 8, 11] }), '7th of Feb, May, Aug and Nov'],
    [monthsRule([nth(1, 5)]), 'first Friday of each month'],
    [monthsRule([date(-2)]), 'last but one day of each month'],
    [monthsRule([date(18)], { every: 6 }), 'every 6 months on the 18th'],
    [monthsRule([date(31)]), '31st of each month, or the last day'],
    [monthsRule([date(31)], { missing: 'omit' }), '31st of each month, where there is one'],
    [monthsRule([date(30)], { missing: 'next' }), '30th of each month, or the 1st after'],
    [years(6, [date(15)]), 'yearly on 15 June'],
    [years(3, [nth(2, 2)]), 'yearly on the second Tuesday of March'],
    [years(2, [date(29)]), 'yearly on 29 February, or the 28th'],
    [years(2, [date(29)], { missing: 'next' }), 'yearly on 29 February, or 1 March'],
    [years(2, [date(29)], { missing: 'omit', every: 4 }), 'every 4 years on 29 February, in leap years only'],
  ])('%j reads %s', (rule, words) => {
    expect(writePhrase(recurrence([rule]))).toBe(words);
  });

  it('says what happens on a day off, and when it ends', () => {
    const friday: Rule = { kind: 'weeks', every: 1, on: [5] };
    expect(writePhrase(recurrence([friday], { dayOff: 'preceding' }))).toBe(
      'every week on Fri, or the working day before',
    );
    expect(writePhrase(recurrence([friday], { dayOff: 'skip', end: { kind: 'on', date: '2027-09-30' } }))).toBe(
      'every week on Fri, not on days off until 30 Sep 2027',
    );
    expect(writePhrase(recurrence([friday], { end: { kind: 'after', count: 12 } }))).toBe(
      'every week on Fri, 12 times',
    );
  });

  it('joins several rules, and tells which part is about which', () => {
    const both = recurrence([{ kind: 'weeks', every: 1, on: [1] }, monthsRule([working(-1)])], { dayOff: 'following' });
    expect(writePhrase(both)).toBe('every week on Mon and last working day of each month, or the working day after');
    expect(phraseParts(both).map(({ about }) => about.kind)).toEqual(['rule', 'link', 'rule', 'link', 'dayOff']);
  });
});

describe('what makes a recurrence impossible', () => {
  const calendar = makeCalendar({ workingWeekdays: [1, 2, 3, 4, 5], holidays: [] });
  const problem = (rec: Recurrence) => recurrenceProblems(rec, calendar)[0];

  it.each([
    [recurrence([monthsRule([date(31)], { months: [2], missing: 'omit' })]), 'rules', 'This never happens'],
    [recurrence([monthsRule([working(23)], { months: [2] })]), 'rules', 'This never happens'],
    [recurrence([]), 'rules', 'there is no rule yet'],
    [
      recurrence([{ kind: 'weeks', every: 1, on: [1] }], {
        start: '2026-01-01',
        end: { kind: 'on', date: '2025-12-31' },
      }),
      'end.date',
      'It ends on 31 Dec 2025, before it starts on 1 Jan 2026',
    ],
    [
      recurrence([{ kind: 'weeks', every: 1, on: [1] }], {
        start: '2026-01-01',
        end: { kind: 'on', date: '2026-01-03' },
      }),
      'end.date',
      'the first would be 5 Jan 2026',
    ],
    [recurrence([{ kind: 'weeks', every: 1, on: [1] }], { start: '2026-02-30' }), 'start', 'is not a date'],
  ])('%j is refused at %s', (rec, path, words) => {
    expect(problem(rec)?.path).toBe(path);
    expect(problem(rec)?.message).toContain(words);
  });

  it('is nothing where dates come, however rarely', () => {
    expect(
      problem(recurrence([years(2, [date(29)], { missing: 'omit', every: 100 })], { start: '2000-01-01' })),
    ).toBeUndefined();
  });
});
