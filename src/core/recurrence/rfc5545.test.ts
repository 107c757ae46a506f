import { describe, expect, it } from 'vitest';
import { occurrencesBetween } from './occurrences.ts';
import type { End, MonthPoint, Rule } from './rule.ts';

/**
 * The examples of RFC 5545, section 3.8.5.3, that our rules can say, as dates.
 * Their start is 2 September 1997, a Tuesday, where nothing else is said.
 */

const times = (count: number): End => ({ kind: 'after', count });
const until = (date: string): End => ({ kind: 'on', date });
const NEVER: End = { kind: 'never' };
const date = (day: number): MonthPoint => ({ kind: 'date', day });
const nth = (n: number, weekday: 1 | 2 | 3 | 4 | 5 | 6 | 7): MonthPoint => ({ kind: 'weekday', nth: n, weekday });
const months = (every: number, ...on: MonthPoint[]): Rule => ({
  kind: 'months',
  every,
  months: [],
  on,
  missing: 'omit',
});
const years = (every: number, inMonths: number[], ...on: MonthPoint[]): Rule => ({
  kind: 'years',
  every,
  months: inMonths,
  on,
  missing: 'omit',
});
const weeks = (every: number, ...on: (1 | 2 | 3 | 4 | 5 | 6 | 7)[]): Rule => ({ kind: 'weeks', every, on });

interface Example {
  readonly name: string;
  readonly rule: Rule;
  readonly end?: End;
  readonly start?: string;
  /** The dates the RFC lists; where it goes on "…", those it names. */
  readonly dates: string;
  /** Up to where they are listed. */
  readonly to?: string;
}

const EXAMPLES: readonly Example[] = [
  {
    name: 'daily for 10 occurrences',
    rule: { kind: 'days', every: 1, except: [] },
    end: times(10),
    dates:
      '1997-09-02 1997-09-03 1997-09-04 1997-09-05 1997-09-06 1997-09-07 1997-09-08 1997-09-09 1997-09-10 1997-09-11',
  },
  {
    name: 'every other day',
    rule: { kind: 'days', every: 2, except: [] },
    to: '1997-10-02',
    dates:
      '1997-09-02 1997-09-04 1997-09-06 1997-09-08 1997-09-10 1997-09-12 1997-09-14 1997-09-16 1997-09-18 1997-09-20 1997-09-22 1997-09-24 1997-09-26 1997-09-28 1997-09-30 1997-10-02',
  },
  {
    name: 'every 10 days, 5 occurrences',
    rule: { kind: 'days', every: 10, except: [] },
    end: times(5),
    dates: '1997-09-02 1997-09-12 1997-09-22 1997-10-02 1997-10-12',
  },
  {
    name: 'weekly for 10 occurrences',
    rule: weeks(1, 2),
    end: times(10),
    dates:
      '1997-09-02 1997-09-09 1997-09-16 1997-09-23 1997-09-30 1997-10-07 1997-10-14 1997-10-21 1997-10-28 1997-11-04',
  },
  {
    name: 'every other week on Tuesday and Thursday, for 8 occurrences',
    rule: weeks(2, 2, 4),
    end: times(8),
    dates: '1997-09-02 1997-09-04 1997-09-16 1997-09-18 1997-09-30 1997-10-02 1997-10-14 1997-10-16',
  },
  {
    name: 'weekly on Tuesday and Thursday until 7 October',
    rule: weeks(1, 2, 4),
    end: until('1997-10-06'),
    dates:
      '1997-09-02 1997-09-04 1997-09-09 1997-09-11 1997-09-16 1997-09-18 1997-09-23 1997-09-25 1997-09-30 1997-10-02',
  },
  {
    name: 'every other week on Monday, Wednesday and Friday until 24 December 1997, from Monday 1 September',
    rule: weeks(2, 1, 3, 5),
    start: '1997-09-01',
    end: until('1997-12-23'),
    dates:
      '1997-09-01 1997-09-03 1997-09-05 1997-09-15 1997-09-17 1997-09-19 1997-09-29 1997-10-01 1997-10-03 1997-10-13 1997-10-15 1997-10-17 1997-10-27 1997-10-29 1997-10-31 1997-11-10 1997-11-12 1997-11-14 1997-11-24 1997-11-26 1997-11-28 1997-12-08 1997-12-10 1997-12-12 1997-12-22',
  },
  {
    name: 'every other week with weeks from Monday: the example that WKST=MO decides',
    rule: weeks(2, 2, 7),
    start: '1997-08-05',
    end: times(4),
    dates: '1997-08-05 1997-08-10 1997-08-19 1997-08-24',
  },
  {
    name: 'monthly on the first Friday for 10 occurrences',
    rule: months(1, nth(1, 5)),
    start: '1997-09-05',
    end: times(10),
    dates:
      '1997-09-05 1997-10-03 1997-11-07 1997-12-05 1998-01-02 1998-02-06 1998-03-06 1998-04-03 1998-05-01 1998-06-05',
  },
  {
    name: 'every other month on the first and last Sunday for 10 occurrences',
    rule: months(2, nth(1, 7), nth(-1, 7)),
    start: '1997-09-07',
    end: times(10),
    dates:
      '1997-09-07 1997-09-28 1997-11-02 1997-11-30 1998-01-04 1998-01-25 1998-03-01 1998-03-29 1998-05-03 1998-05-31',
  },
  {
    name: 'monthly on the second-to-last Monday for 6 months',
    rule: months(1, nth(-2, 1)),
    start: '1997-09-22',
    end: times(6),
    dates: '1997-09-22 1997-10-20 1997-11-17 1997-12-22 1998-01-19 1998-02-16',
  },
  {
    name: 'monthly on the third-to-the-last day',
    rule: months(1, date(-3)),
    start: '1997-09-28',
    to: '1998-02-28',
    dates: '1997-09-28 1997-10-29 1997-11-28 1997-12-29 1998-01-29 1998-02-26',
  },
  {
    name: 'monthly on the 2nd and 15th for 10 occurrences',
    rule: months(1, date(2), date(15)),
    end: times(10),
    dates:
      '1997-09-02 1997-09-15 1997-10-02 1997-10-15 1997-11-02 1997-11-15 1997-12-02 1997-12-15 1998-01-02 1998-01-15',
  },
  {
    name: 'monthly on the first and last day for 10 occurrences',
    rule: months(1, date(1), date(-1)),
    start: '1997-09-30',
    end: times(10),
    dates:
      '1997-09-30 1997-10-01 1997-10-31 1997-11-01 1997-11-30 1997-12-01 1997-12-31 1998-01-01 1998-01-31 1998-02-01',
  },
  {
    name: 'every 18 months on the 10th to the 15th for 10 occurrences',
    rule: months(18, date(10), date(11), date(12), date(13), date(14), date(15)),
    start: '1997-09-10',
    end: times(10),
    dates:
      '1997-09-10 1997-09-11 1997-09-12 1997-09-13 1997-09-14 1997-09-15 1999-03-10 1999-03-11 1999-03-12 1999-03-13',
  },
  {
    name: 'every Tuesday, every other month',
    rule: months(2, nth(1, 2), nth(2, 2), nth(3, 2), nth(4, 2), nth(5, 2)),
    to: '1998-03-31',
    dates:
      '1997-09-02 1997-09-09 1997-09-16 1997-09-23 1997-09-30 1997-11-04 1997-11-11 1997-11-18 1997-11-25 1998-01-06 1998-01-13 1998-01-20 1998-01-27 1998-03-03 1998-03-10 1998-03-17 1998-03-24 1998-03-31',
  },
  {
    name: 'yearly in June and July for 10 occurrences',
    rule: years(1, [6, 7], date(10)),
    start: '1997-06-10',
    end: times(10),
    dates:
      '1997-06-10 1997-07-10 1998-06-10 1998-07-10 1999-06-10 1999-07-10 2000-06-10 2000-07-10 2001-06-10 2001-07-10',
  },
  {
    name: 'every other year in January, February and March for 10 occurrences',
    rule: years(2, [1, 2, 3], date(10)),
    start: '1997-03-10',
    end: times(10),
    dates:
      '1997-03-10 1999-01-10 1999-02-10 1999-03-10 2001-01-10 2001-02-10 2001-03-10 2003-01-10 2003-02-10 2003-03-10',
  },
  {
    name: 'every Thursday in March',
    rule: years(1, [3], nth(1, 4), nth(2, 4), nth(3, 4), nth(4, 4), nth(5, 4)),
    start: '1997-03-13',
    to: '1999-03-31',
    dates:
      '1997-03-13 1997-03-20 1997-03-27 1998-03-05 1998-03-12 1998-03-19 1998-03-26 1999-03-04 1999-03-11 1999-03-18 1999-03-25',
  },
  {
    name: 'an invalid date is left out: the 15th and 30th from January 2007',
    rule: months(1, date(15), date(30)),
    start: '2007-01-15',
    end: times(5),
    dates: '2007-01-15 2007-01-30 2007-02-15 2007-03-15 2007-03-30',
  },
];

describe('the examples of RFC 5545', () => {
  it.each(EXAMPLES)('$name', ({ rule, end = NEVER, start = '1997-09-02', dates, to = '2010-12-31' }) => {
    const found = occurrencesBetween({ start, rules: [rule], end, dayOff: 'none' }, start, to);
    expect(found).toEqual(dates.split(' '));
  });

  it('daily in January for three years, as a rule by date and as one by weekday', () => {
    const everyDate = years(1, [1], ...Array.from({ length: 31 }, (_, i) => date(i + 1)));
    const dates = occurrencesBetween(
      { start: '1998-01-01', rules: [everyDate], end: until('2000-01-31'), dayOff: 'none' },
      '1998-01-01',
      '2001-12-31',
    );
    expect(dates).toHaveLength(93);
    expect([dates[0], dates[30], dates[31], dates.at(-1)]).toEqual([
      '1998-01-01',
      '1998-01-31',
      '1999-01-01',
      '2000-01-31',
    ]);
  });

  it('the last working day of each month, which is BYDAY=MO…FR with BYSETPOS=-1', () => {
    const rule = months(1, { kind: 'workingDay', nth: -1 });
    expect(
      occurrencesBetween(
        { start: '1997-09-29', rules: [rule], end: NEVER, dayOff: 'none' },
        '1997-09-01',
        '1998-03-31',
      ),
    ).toEqual(['1997-09-30', '1997-10-31', '1997-11-28', '1997-12-31', '1998-01-30', '1998-02-27', '1998-03-31']);
  });
});
