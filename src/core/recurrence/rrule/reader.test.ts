import { describe, expect, it } from 'vitest';
import { makeCalendar } from '../../calendar/iso-calendar.ts';
import { nextOccurrence, occurrencesBetween } from '../occurrences.ts';
import { writePhrase } from '../phrase/writer.ts';
import { RRuleError } from './parts.ts';
import { parseRRule } from './reader.ts';

const dates = (text: string, start: string, to: string) => occurrencesBetween(parseRRule(text, start), start, to);

describe('a foreign rule', () => {
  it.each([
    ['FREQ=DAILY', 'every day'],
    ['RRULE:FREQ=DAILY;BYDAY=MO,TU,WE,TH,FR', 'every day but Sat and Sun'],
    ['FREQ=WEEKLY;INTERVAL=2;BYDAY=TU,TH', 'every 2 weeks on Tue and Thu'],
    ['freq=weekly', 'every week on Tue'],
    ['FREQ=WEEKLY;BYDAY=SU;WKST=SU', 'every week on Sun'],
    ['FREQ=MONTHLY', '24th of each month'],
    ['FREQ=MONTHLY;BYMONTHDAY=1,15,-1', '1st, 15th and last day of each month'],
    ['FREQ=MONTHLY;BYMONTHDAY=31', '31st of each month, where there is one'],
    ['FREQ=MONTHLY;BYDAY=1MO,-1FR', 'first Monday and last Friday of each month'],
    ['FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1', 'last weekday of each month'],
    ['FREQ=MONTHLY;INTERVAL=3;BYMONTHDAY=15;COUNT=6', 'every 3 months on the 15th, 6 times'],
    ['FREQ=MONTHLY;BYMONTH=3,6,9,12;BYMONTHDAY=-1;UNTIL=20281231', 'last day of every quarter until 31 Dec 2028'],
    ['FREQ=YEARLY', 'yearly on 24 November'],
    ['FREQ=YEARLY;BYMONTH=6;BYMONTHDAY=15', 'yearly on 15 June'],
    ['FREQ=YEARLY;INTERVAL=2;BYMONTH=5;BYDAY=1MO', 'every 2 years on the first Monday of May'],
    ['RDATE;VALUE=DATE:20270303,20270405', 'on 3 Mar 2027 and 5 Apr 2027'],
    ['RRULE:FREQ=WEEKLY;BYDAY=FR\nEXDATE;VALUE=DATE:20261225', 'every week on Fri, except 25 Dec 2026'],
    ['RRULE:FREQ=WEEKLY;BYDAY=FR\r\nRDATE:20270301T090000Z', 'every week on Fri and on 1 Mar 2027'],
    ['RRULE:FREQ=WEEKLY;\r\n BYDAY=FR', 'every week on Fri'],
  ])('%j becomes “%s”', (text, phrase) => {
    expect(writePhrase(parseRRule(text, '2026-11-24'), { start: 'unsaid' })).toBe(phrase);
  });

  it.each([
    'FREQ=YEARLY;BYYEARDAY=1,100',
    'FREQ=YEARLY;BYWEEKNO=20;BYDAY=MO',
    'FREQ=YEARLY;BYDAY=20MO',
    'FREQ=MONTHLY;BYDAY=FR;BYMONTHDAY=13',
    'FREQ=WEEKLY;INTERVAL=2;BYDAY=TU,SU;WKST=SU',
    'FREQ=DAILY;BYMONTH=1',
    'FREQ=YEARLY;BYMONTH=1,7;BYDAY=MO;BYSETPOS=-1',
    'FREQ=MONTHLY;BYDAY=TU,TH',
  ])('%s is kept as it is', (text) => {
    expect(parseRRule(text, '2026-11-24').rules).toEqual([{ kind: 'rrule', text }]);
  });

  it('keeps its own count beside others, since ours is of all together', () => {
    const both = parseRRule('RRULE:FREQ=WEEKLY;BYDAY=MO;COUNT=2\nRRULE:FREQ=WEEKLY;BYDAY=FR', '2026-11-24');
    expect(both.end).toEqual({ kind: 'never' });
    expect(occurrencesBetween(both, '2026-11-24', '2026-12-18')).toEqual([
      '2026-11-27',
      '2026-11-30',
      '2026-12-04',
      '2026-12-07',
      '2026-12-11',
      '2026-12-18',
    ]);
  });

  it('counts dates taken out, as the RFC does', () => {
    expect(dates('RRULE:FREQ=DAILY;COUNT=3\nEXDATE;VALUE=DATE:20261125', '2026-11-24', '2026-12-31')).toEqual([
      '2026-11-24',
      '2026-11-26',
    ]);
  });

  it('ends with the last occurrence at or before a time in UTC', () => {
    const until = (start: string) => parseRRule(`FREQ=DAILY;UNTIL=20261126T080000Z`, start).end;
    expect(until('2026-11-24')).toEqual({ kind: 'on', date: '2026-11-26' });
    expect(until('2026-11-24T07:00')).toEqual({ kind: 'on', date: '2026-11-26' });
    expect(until('2026-11-24T09:00')).toEqual({ kind: 'on', date: '2026-11-25' });
    const sydney = parseRRule(
      'DTSTART;TZID=Australia/Sydney:20261124T180000\nRRULE:FREQ=DAILY;UNTIL=20261126T080000Z',
      '2026-11-24',
    );
    expect(sydney.end).toEqual({ kind: 'on', date: '2026-11-26' });
  });

  it.each([
    ['', 0, 'no RRULE'],
    ['FREQ=HOURLY', 0, 'finer than a day'],
    ['FREQ=DAILY;INTERVAL=0', 11, 'whole number from 1'],
    ['FREQ=DAILY;COUNT=3;UNTIL=20270101', 11, 'can’t both end'],
    ['FREQ=MONTHLY;BYDAY=XX', 13, '“XX” in BYDAY'],
    ['FREQ=MONTHLY;BYMONTHDAY=32', 13, '1 to 31'],
    ['RRULE:FREQ=WEEKLY;BYDAY=1MO', 18, 'makes no sense'],
    ['FREQ=DAILY;BYSETPOS=1', 11, 'needs another BY part'],
    ['FREQ=DAILY;COLOUR=RED', 11, 'COLOUR is not a part'],
    ['FREQ=DAILY;FREQ=DAILY', 11, 'twice'],
    ['INTERVAL=2', 0, 'should begin with'],
    ['RRULE:FREQ=DAILY\nEXDATE:tomorrow', 24, 'is not a date'],
    ['FREQ=DAILY;BYHOUR=9,10;COUNT=4', 11, 'one by one'],
  ])('%j is refused at %i', (text, at, words) => {
    expect(() => parseRRule(text, '2026-11-24')).toThrow(RRuleError);
    try {
      parseRRule(text, '2026-11-24');
    } catch (error) {
      expect(error).toMatchObject({ at, message: expect.stringContaining(words) });
    }
  });

  it('needs a start that is a date', () => {
    expect(() => parseRRule('FREQ=DAILY', 'tomorrow')).toThrow('not a date to start from');
  });
});

describe('BYSETPOS, as RFC 5545 says it', () => {
  it('chooses in the whole period, also in the first that the start cuts', () => {
    // The Mondays of November 2026 are 2, 9, 16, 23 and 30: from the 10th on, the second is gone and the fourth still the 23rd.
    expect(dates('FREQ=MONTHLY;BYDAY=MO;BYSETPOS=2,4', '2026-11-10', '2026-12-31')).toEqual([
      '2026-11-23',
      '2026-12-14',
      '2026-12-28',
    ]);
    expect(dates('FREQ=WEEKLY;BYDAY=MO,WE,FR;BYSETPOS=1', '2026-11-25', '2026-12-08')).toEqual([
      '2026-11-30',
      '2026-12-07',
    ]);
  });

  it('gives nothing past the end of the set', () => {
    expect(dates('FREQ=MONTHLY;BYDAY=MO;BYSETPOS=5', '2026-11-01', '2027-03-31')).toEqual(['2026-11-30', '2027-03-29']);
    expect(dates('FREQ=MONTHLY;BYDAY=MO;BYSETPOS=6', '2026-11-01', '2030-03-31')).toEqual([]);
  });

  it('chooses each day once', () => {
    expect(dates('FREQ=MONTHLY;BYDAY=SA;BYSETPOS=3,-2', '2023-01-01', '2023-01-31')).toEqual(['2023-01-21']);
  });

  it('works in years, over several months together', () => {
    expect(dates('FREQ=YEARLY;BYMONTH=1,7;BYDAY=MO;BYSETPOS=-1,1', '2026-01-01', '2027-12-31')).toEqual([
      '2026-01-05',
      '2026-07-27',
      '2027-01-04',
      '2027-07-26',
    ]);
  });
});

describe('dates of long ago and far ahead', () => {
  const calendar = makeCalendar({ workingWeekdays: [1, 2, 3, 4, 5], holidays: [] });

  it('are found without counting the days between', () => {
    expect(nextOccurrence(parseRRule('FREQ=DAILY;INTERVAL=7', '0001-01-01'), '9990-01-01', calendar)).toBe(
      '9990-01-08',
    );
    expect(nextOccurrence(parseRRule('FREQ=YEARLY;BYYEARDAY=366', '1990-01-01'), '2096-12-31', calendar)).toBe(
      '2104-12-31',
    );
    expect(nextOccurrence(parseRRule('FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=29', '1990-01-01'), '2096-03-01')).toBe(
      '2104-02-29',
    );
  });

  it('that never come are none', () => {
    expect(nextOccurrence(parseRRule('FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=30', '1990-01-01'), '1990-01-01')).toBeNull();
    expect(
      nextOccurrence(parseRRule('FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30;COUNT=4', '1990-01-01'), '1990-01-01'),
    ).toBeNull();
  });
});
