import { describe, expect, it } from 'vitest';
import { nextOccurrence, occurrencesBetween } from '../occurrences.ts';
import { parseRRule } from './reader.ts';

/**
 * The examples of RFC 5545, section 3.8.5.3, that are daily or coarser, as dates. Each begins at 09:00 in New York on
 * 2 September 1997, a Tuesday, where nothing else is said.
 */

interface Example {
  readonly name: string;
  readonly rule: string;
  readonly start?: string;
  /** The dates the RFC lists; where it goes on "…", those it names. */
  readonly dates: string;
  /** Up to where they are listed, for rules that go on. */
  readonly to?: string;
}

const EXAMPLES: readonly Example[] = [
  {
    name: 'daily for 10 occurrences',
    rule: 'FREQ=DAILY;COUNT=10',
    dates:
      '1997-09-02 1997-09-03 1997-09-04 1997-09-05 1997-09-06 1997-09-07 1997-09-08 1997-09-09 1997-09-10 1997-09-11',
  },
  {
    name: 'every other day',
    rule: 'FREQ=DAILY;INTERVAL=2',
    to: '1997-10-02',
    dates:
      '1997-09-02 1997-09-04 1997-09-06 1997-09-08 1997-09-10 1997-09-12 1997-09-14 1997-09-16 1997-09-18 1997-09-20 1997-09-22 1997-09-24 1997-09-26 1997-09-28 1997-09-30 1997-10-02',
  },
  {
    name: 'every 10 days, 5 occurrences',
    rule: 'FREQ=DAILY;INTERVAL=10;COUNT=5',
    dates: '1997-09-02 1997-09-12 1997-09-22 1997-10-02 1997-10-12',
  },
  {
    name: 'weekly for 10 occurrences',
    rule: 'FREQ=WEEKLY;COUNT=10',
    dates:
      '1997-09-02 1997-09-09 1997-09-16 1997-09-23 1997-09-30 1997-10-07 1997-10-14 1997-10-21 1997-10-28 1997-11-04',
  },
  {
    name: 'weekly until 24 December',
    rule: 'FREQ=WEEKLY;UNTIL=19971224T000000Z',
    dates:
      '1997-09-02 1997-09-09 1997-09-16 1997-09-23 1997-09-30 1997-10-07 1997-10-14 1997-10-21 1997-10-28 1997-11-04 1997-11-11 1997-11-18 1997-11-25 1997-12-02 1997-12-09 1997-12-16 1997-12-23',
  },
  {
    name: 'every other week',
    rule: 'FREQ=WEEKLY;INTERVAL=2;WKST=SU',
    to: '1998-02-17',
    dates:
      '1997-09-02 1997-09-16 1997-09-30 1997-10-14 1997-10-28 1997-11-11 1997-11-25 1997-12-09 1997-12-23 1998-01-06 1998-01-20 1998-02-03 1998-02-17',
  },
  {
    name: 'weekly on Tuesday and Thursday for five weeks',
    rule: 'FREQ=WEEKLY;UNTIL=19971007T000000Z;WKST=SU;BYDAY=TU,TH',
    dates:
      '1997-09-02 1997-09-04 1997-09-09 1997-09-11 1997-09-16 1997-09-18 1997-09-23 1997-09-25 1997-09-30 1997-10-02',
  },
  {
    name: 'the same by count',
    rule: 'FREQ=WEEKLY;COUNT=10;WKST=SU;BYDAY=TU,TH',
    dates:
      '1997-09-02 1997-09-04 1997-09-09 1997-09-11 1997-09-16 1997-09-18 1997-09-23 1997-09-25 1997-09-30 1997-10-02',
  },
  {
    name: 'every other week on Monday, Wednesday and Friday until 24 December',
    rule: 'FREQ=WEEKLY;INTERVAL=2;UNTIL=19971224T000000Z;WKST=SU;BYDAY=MO,WE,FR',
    start: '1997-09-01',
    dates:
      '1997-09-01 1997-09-03 1997-09-05 1997-09-15 1997-09-17 1997-09-19 1997-09-29 1997-10-01 1997-10-03 1997-10-13 1997-10-15 1997-10-17 1997-10-27 1997-10-29 1997-10-31 1997-11-10 1997-11-12 1997-11-14 1997-11-24 1997-11-26 1997-11-28 1997-12-08 1997-12-10 1997-12-12 1997-12-22',
  },
  {
    name: 'every other week on Tuesday and Thursday, 8 occurrences',
    rule: 'FREQ=WEEKLY;INTERVAL=2;COUNT=8;WKST=SU;BYDAY=TU,TH',
    dates: '1997-09-02 1997-09-04 1997-09-16 1997-09-18 1997-09-30 1997-10-02 1997-10-14 1997-10-16',
  },
  {
    name: 'monthly on the first Friday for 10 occurrences',
    rule: 'FREQ=MONTHLY;COUNT=10;BYDAY=1FR',
    start: '1997-09-05',
    dates:
      '1997-09-05 1997-10-03 1997-11-07 1997-12-05 1998-01-02 1998-02-06 1998-03-06 1998-04-03 1998-05-01 1998-06-05',
  },
  {
    name: 'monthly on the first Friday until 24 December',
    rule: 'FREQ=MONTHLY;UNTIL=19971224T000000Z;BYDAY=1FR',
    start: '1997-09-05',
    dates: '1997-09-05 1997-10-03 1997-11-07 1997-12-05',
  },
  {
    name: 'every other month on the first and last Sunday, 10 occurrences',
    rule: 'FREQ=MONTHLY;INTERVAL=2;COUNT=10;BYDAY=1SU,-1SU',
    start: '1997-09-07',
    dates:
      '1997-09-07 1997-09-28 1997-11-02 1997-11-30 1998-01-04 1998-01-25 1998-03-01 1998-03-29 1998-05-03 1998-05-31',
  },
  {
    name: 'monthly on the last but one Monday for 6 months',
    rule: 'FREQ=MONTHLY;COUNT=6;BYDAY=-2MO',
    start: '1997-09-22',
    dates: '1997-09-22 1997-10-20 1997-11-17 1997-12-22 1998-01-19 1998-02-16',
  },
  {
    name: 'monthly on the third last day',
    rule: 'FREQ=MONTHLY;BYMONTHDAY=-3',
    start: '1997-09-28',
    to: '1998-02-28',
    dates: '1997-09-28 1997-10-29 1997-11-28 1997-12-29 1998-01-29 1998-02-26',
  },
  {
    name: 'monthly on the 2nd and 15th for 10 occurrences',
    rule: 'FREQ=MONTHLY;COUNT=10;BYMONTHDAY=2,15',
    dates:
      '1997-09-02 1997-09-15 1997-10-02 1997-10-15 1997-11-02 1997-11-15 1997-12-02 1997-12-15 1998-01-02 1998-01-15',
  },
  {
    name: 'monthly on the first and last day for 10 occurrences',
    rule: 'FREQ=MONTHLY;COUNT=10;BYMONTHDAY=1,-1',
    start: '1997-09-30',
    dates:
      '1997-09-30 1997-10-01 1997-10-31 1997-11-01 1997-11-30 1997-12-01 1997-12-31 1998-01-01 1998-01-31 1998-02-01',
  },
  {
    name: 'every 18 months on the 10th to 15th, 10 occurrences',
    rule: 'FREQ=MONTHLY;INTERVAL=18;COUNT=10;BYMONTHDAY=10,11,12,13,14,15',
    start: '1997-09-10',
    dates:
      '1997-09-10 1997-09-11 1997-09-12 1997-09-13 1997-09-14 1997-09-15 1999-03-10 1999-03-11 1999-03-12 1999-03-13',
  },
  {
    name: 'every Tuesday, every other month',
    rule: 'FREQ=MONTHLY;INTERVAL=2;BYDAY=TU',
    to: '1998-03-31',
    dates:
      '1997-09-02 1997-09-09 1997-09-16 1997-09-23 1997-09-30 1997-11-04 1997-11-11 1997-11-18 1997-11-25 1998-01-06 1998-01-13 1998-01-20 1998-01-27 1998-03-03 1998-03-10 1998-03-17 1998-03-24 1998-03-31',
  },
  {
    name: 'yearly in June and July for 10 occurrences',
    rule: 'FREQ=YEARLY;COUNT=10;BYMONTH=6,7',
    start: '1997-06-10',
    dates:
      '1997-06-10 1997-07-10 1998-06-10 1998-07-10 1999-06-10 1999-07-10 2000-06-10 2000-07-10 2001-06-10 2001-07-10',
  },
  {
    name: 'every other year in January, February and March for 10 occurrences',
    rule: 'FREQ=YEARLY;INTERVAL=2;COUNT=10;BYMONTH=1,2,3',
    start: '1997-03-10',
    dates:
      '1997-03-10 1999-01-10 1999-02-10 1999-03-10 2001-01-10 2001-02-10 2001-03-10 2003-01-10 2003-02-10 2003-03-10',
  },
  {
    name: 'every third year on the 1st, 100th and 200th day, 10 occurrences',
    rule: 'FREQ=YEARLY;INTERVAL=3;COUNT=10;BYYEARDAY=1,100,200',
    start: '1997-01-01',
    dates:
      '1997-01-01 1997-04-10 1997-07-19 2000-01-01 2000-04-09 2000-07-18 2003-01-01 2003-04-10 2003-07-19 2006-01-01',
  },
  {
    name: 'every 20th Monday of the year',
    rule: 'FREQ=YEARLY;BYDAY=20MO',
    start: '1997-05-19',
    to: '1999-12-31',
    dates: '1997-05-19 1998-05-18 1999-05-17',
  },
  {
    name: 'Monday of week 20',
    rule: 'FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO',
    start: '1997-05-12',
    to: '1999-12-31',
    dates: '1997-05-12 1998-05-11 1999-05-17',
  },
  {
    name: 'every Thursday in March',
    rule: 'FREQ=YEARLY;BYMONTH=3;BYDAY=TH',
    start: '1997-03-13',
    to: '1999-03-31',
    dates:
      '1997-03-13 1997-03-20 1997-03-27 1998-03-05 1998-03-12 1998-03-19 1998-03-26 1999-03-04 1999-03-11 1999-03-18 1999-03-25',
  },
  {
    name: 'every Thursday, but only in June, July and August',
    rule: 'FREQ=YEARLY;BYDAY=TH;BYMONTH=6,7,8',
    start: '1997-06-05',
    to: '1998-06-30',
    dates:
      '1997-06-05 1997-06-12 1997-06-19 1997-06-26 1997-07-03 1997-07-10 1997-07-17 1997-07-24 1997-07-31 1997-08-07 1997-08-14 1997-08-21 1997-08-28 1998-06-04 1998-06-11 1998-06-18 1998-06-25',
  },
  {
    name: 'every Friday the 13th',
    rule: 'EXDATE;TZID=America/New_York:19970902T090000\nRRULE:FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13',
    to: '2000-12-31',
    dates: '1998-02-13 1998-03-13 1998-11-13 1999-08-13 2000-10-13',
  },
  {
    name: 'the first Saturday that follows the first Sunday of the month',
    rule: 'FREQ=MONTHLY;BYDAY=SA;BYMONTHDAY=7,8,9,10,11,12,13',
    start: '1997-09-13',
    to: '1998-06-30',
    dates:
      '1997-09-13 1997-10-11 1997-11-08 1997-12-13 1998-01-10 1998-02-07 1998-03-07 1998-04-11 1998-05-09 1998-06-13',
  },
  {
    name: 'every four years, the first Tuesday after a Monday in November',
    rule: 'FREQ=YEARLY;INTERVAL=4;BYMONTH=11;BYDAY=TU;BYMONTHDAY=2,3,4,5,6,7,8',
    start: '1996-11-05',
    to: '2004-12-31',
    dates: '1996-11-05 2000-11-07 2004-11-02',
  },
  {
    name: 'the third of Tuesday, Wednesday and Thursday in the month, for three months',
    rule: 'FREQ=MONTHLY;COUNT=3;BYDAY=TU,WE,TH;BYSETPOS=3',
    start: '1997-09-04',
    dates: '1997-09-04 1997-10-07 1997-11-06',
  },
  {
    name: 'the last but one weekday of the month',
    rule: 'FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-2',
    start: '1997-09-29',
    to: '1998-03-31',
    dates: '1997-09-29 1997-10-30 1997-11-27 1997-12-30 1998-01-29 1998-02-26 1998-03-30',
  },
  {
    name: 'several times a day, as dates',
    rule: 'FREQ=DAILY;BYHOUR=9,10,11,12,13,14,15,16;BYMINUTE=0,20,40',
    to: '1997-09-04',
    dates: '1997-09-02 1997-09-03 1997-09-04',
  },
  {
    name: 'weeks that begin on Monday',
    rule: 'FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=MO',
    start: '1997-08-05',
    dates: '1997-08-05 1997-08-10 1997-08-19 1997-08-24',
  },
  {
    name: 'weeks that begin on Sunday',
    rule: 'FREQ=WEEKLY;INTERVAL=2;COUNT=4;BYDAY=TU,SU;WKST=SU',
    start: '1997-08-05',
    dates: '1997-08-05 1997-08-17 1997-08-19 1997-08-31',
  },
  {
    name: 'an invalid date is left out: the 15th and 30th',
    rule: 'FREQ=MONTHLY;BYMONTHDAY=15,30;COUNT=5',
    start: '2007-01-15',
    dates: '2007-01-15 2007-01-30 2007-02-15 2007-03-15 2007-03-30',
  },
];

const reading = (rule: string, start = '1997-09-02') =>
  parseRRule(`DTSTART;TZID=America/New_York:${start.replaceAll('-', '')}T090000\n${rule}`, start);

describe('the examples of RFC 5545', () => {
  it.each(EXAMPLES)('$name', ({ rule, start, dates, to = '2010-12-31' }) => {
    expect(occurrencesBetween(reading(rule, start), start ?? '1997-09-02', to)).toEqual(dates.split(' '));
  });

  it.each(EXAMPLES)('$name, one after the other', ({ rule, start, dates }) => {
    const recurrence = reading(rule, start);
    const wanted = dates.split(' ');
    let after = '1997-01-01'.localeCompare(start ?? '1997-09-02') < 0 ? '1996-12-31' : '1996-01-01';
    for (const date of wanted) {
      expect(nextOccurrence(recurrence, after)).toBe(date);
      after = date;
    }
  });

  it.each([
    'FREQ=YEARLY;UNTIL=20000131T140000Z;BYMONTH=1;BYDAY=SU,MO,TU,WE,TH,FR,SA',
    'FREQ=DAILY;UNTIL=20000131T140000Z;BYMONTH=1',
  ])('every day in January, for three years, as %s', (rule) => {
    const dates = occurrencesBetween(reading(rule, '1998-01-01'), '1998-01-01', '2001-12-31');
    expect(dates).toHaveLength(93);
    expect([dates[0], dates[30], dates[31], dates.at(-1)]).toEqual([
      '1998-01-01',
      '1998-01-31',
      '1999-01-01',
      '2000-01-31',
    ]);
  });

  it('daily until 24 December, midnight in Greenwich: the 23rd at 09:00 in New York is the last', () => {
    const dates = occurrencesBetween(reading('FREQ=DAILY;UNTIL=19971224T000000Z'), '1997-09-02', '1998-01-31');
    expect(dates).toHaveLength(113);
    expect(dates.at(-1)).toBe('1997-12-23');
  });
});
