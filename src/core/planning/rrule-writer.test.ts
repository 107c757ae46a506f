import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { longestClosure } from '../calendar/closed-season.ts';
import { makeCalendar } from '../calendar/iso-calendar.ts';
import { WEEKDAYS_ONLY } from '../calendar/working-calendar.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { anyFullRecurrence, orTooMuch } from '../recurrence/generated.ts';
import { occurrencesBetween } from '../recurrence/occurrences.ts';
import { parsePhrase } from '../recurrence/phrase/reader.ts';
import { parseRRule } from '../recurrence/rrule/reader.ts';
import type { Recurrence } from '../recurrence/rule.ts';
import { isDated, planDays } from './plan.ts';
import { explainRRule, writeRRule } from './rrule-writer.ts';
import { PLAIN_TIMING } from './timing.ts';

const holidays = makeCalendar({
  workingWeekdays: [1, 2, 3, 4, 5],
  holidays: ['2026-12-25', '2026-12-28', '2027-01-01'],
});
const written = (phrase: string, calendar = WEEKDAYS_ONLY) =>
  writeRRule(parsePhrase(phrase, { start: '2026-11-24' }), { calendar, to: '2027-03-31' }).split('\n');

describe('a recurrence as RRULE', () => {
  it.each([
    ['every day but Sun', 'FREQ=DAILY;BYDAY=MO,TU,WE,TH,FR,SA'],
    ['every 3 days', 'FREQ=DAILY;INTERVAL=3'],
    ['every 2 weeks on Tue and Thu', 'FREQ=WEEKLY;INTERVAL=2;BYDAY=TU,TH'],
    ['1st and 15th of each month', 'FREQ=MONTHLY;BYMONTHDAY=1,15'],
    ['31st of each month, or the last day', 'FREQ=MONTHLY;BYMONTHDAY=28,29,30,31;BYSETPOS=-1'],
    ['31st of each month, where there is one', 'FREQ=MONTHLY;BYMONTHDAY=31'],
    ['last Friday of Mar and Sep', 'FREQ=MONTHLY;BYMONTH=3,9;BYDAY=-1FR'],
    ['last working day of each month', 'FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1'],
    ['last weekday of each month', 'FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1'],
    ['yearly on 15 June', 'FREQ=YEARLY;BYMONTH=6;BYMONTHDAY=15'],
    ['yearly on 29 February, or the 28th', 'FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=28,29;BYSETPOS=-1'],
    ['every 2 years on the first Monday of May', 'FREQ=YEARLY;INTERVAL=2;BYMONTH=5;BYDAY=1MO'],
    ['Friday before the 25th of each month', 'FREQ=MONTHLY;BYMONTHDAY=18,19,20,21,22,23,24;BYDAY=FR'],
    ['3 days before the last day of each month', 'FREQ=MONTHLY;BYMONTHDAY=-4'],
    ['10 days after the last day of every quarter', 'FREQ=MONTHLY;BYMONTH=1,4,7,10;BYMONTHDAY=10'],
    ['day after the first Monday of each month', 'FREQ=MONTHLY;BYMONTHDAY=2,3,4,5,6,7,8;BYDAY=TU'],
    ['yearly, 2 weeks before 5 April', 'FREQ=YEARLY;BYMONTH=3;BYMONTHDAY=-10'],
    ['by RRULE FREQ=YEARLY;BYYEARDAY=100', 'FREQ=YEARLY;BYYEARDAY=100'],
  ])('%s', (phrase, rule) => {
    expect(written(phrase)[1]).toBe(`RRULE:${rule}`);
    expect(written(phrase)).toHaveLength(2);
  });

  it('begins with its first occurrence, which other programs take the start to be', () => {
    expect(written('every week on Fri')[0]).toBe('DTSTART;VALUE=DATE:20261127');
  });

  it('begins with an occurrence where there are several rules too, or takes the start out', () => {
    expect(written('every week on Fri and last day of each month')[0]).toBe('DTSTART;VALUE=DATE:20261127');
    // Counted from the week of Tue 24 Nov, so that the 30th is none of the first rule.
    expect(written('every 2 weeks on Mon and last day of Dec')).toEqual([
      'DTSTART;VALUE=DATE:20261124',
      'RRULE:FREQ=WEEKLY;INTERVAL=2;BYDAY=MO',
      'RRULE:FREQ=MONTHLY;BYMONTH=12;BYMONTHDAY=-1',
      'EXDATE;VALUE=DATE:20261124',
    ]);
  });

  it('lists no date before the start', () => {
    const lines = written('on 3 Mar 2020 and 5 Apr 2027');
    expect(lines).toEqual(['DTSTART;VALUE=DATE:20270405', 'RDATE;VALUE=DATE:20270405']);
  });

  it('says ends, dates taken out and several rules', () => {
    expect(written('every week on Fri until 30 Sep 2027, except 25 Dec 2026').slice(1)).toEqual([
      'RRULE:FREQ=WEEKLY;BYDAY=FR;UNTIL=20270930',
      'EXDATE;VALUE=DATE:20261225',
    ]);
    expect(written('every week on Fri, 12 times')[1]).toBe('RRULE:FREQ=WEEKLY;BYDAY=FR;COUNT=12');
    expect(written('every week on Fri and last day of each month').slice(1)).toEqual([
      'RRULE:FREQ=WEEKLY;BYDAY=FR',
      'RRULE:FREQ=MONTHLY;BYMONTHDAY=-1',
    ]);
    expect(written('on 3 Mar 2027 and 5 Apr 2027')).toEqual([
      'DTSTART;VALUE=DATE:20270303',
      'RDATE;VALUE=DATE:20270303,20270405',
    ]);
  });

  it('lists the dates where RRULE can’t say them, and says so with the span', () => {
    const { text, remark } = explainRRule(parsePhrase('last working day of each month', { start: '2026-11-24' }), {
      calendar: holidays,
      to: '2027-01-31',
    });
    expect(text.split('\n')).toEqual([
      'DTSTART;VALUE=DATE:20261130',
      'RDATE;VALUE=DATE:20261130,20261231,20270129',
      'COMMENT:RRULE can’t say this rule\\, so its dates are listed\\, up to 31 Jan 2027\\; it goes on after that.',
    ]);
    expect(remark).toBe(
      'RRULE can’t say this rule, so its dates are listed, up to 31 Jan 2027; it goes on after that.',
    );
  });

  it('lists the dates on which it is worked, moved off days off', () => {
    expect(written('15th of each month, or the working day before', holidays)[1]).toBe(
      'RDATE;VALUE=DATE:20261215,20270115,20270215,20270315',
    );
  });

  it('counts over several rules by listing', () => {
    expect(written('every week on Mon and 1st of each month, 4 times').slice(1)).toEqual([
      'RDATE;VALUE=DATE:20261130,20261201,20261207,20261214',
      expect.stringContaining('all 4 of them'),
    ]);
  });

  it('is read back as the same dates', () => {
    fc.assert(
      fc.property(anyFullRecurrence, (recurrence) => {
        fc.pre(longestClosure(recurrence.closed?.seasons ?? []) < 360);
        const from = dayOfIso(recurrence.start);
        const to = from + 900;
        const worked = orTooMuch(() =>
          planDays({ recurrence, timing: PLAIN_TIMING }, WEEKDAYS_ONLY, from - 400, to)
            .filter(isDated)
            .map(({ on }) => isoOfDay(on)),
        );
        fc.pre(worked !== null && worked.length > 0);
        const text = orTooMuch(() => writeRRule(recurrence, { to: isoOfDay(to) }));
        fc.pre(text !== null);
        const again = parseRRule(text ?? '', recurrence.start);
        expect(occurrencesBetween(again, isoOfDay(from - 400), isoOfDay(to))).toEqual(worked);
      }),
      { numRuns: 400 },
    );
  });

  it('begins with an occurrence, or takes its start out, whatever the rules', () => {
    fc.assert(
      fc.property(anyFullRecurrence, ({ start, rules }) => {
        const recurrence: Recurrence = { start, rules, end: { kind: 'never' }, dayOff: 'none' };
        const text = orTooMuch(() => writeRRule(recurrence, { to: start })) ?? '';
        // One that never comes is refused when it is saved.
        const ever = orTooMuch(() => occurrencesBetween(recurrence, start, isoOfDay(dayOfIso(start) + 900))) ?? [];
        if (!text.includes('RRULE:') || ever.length === 0) return;
        const [, begin = ''] = /DTSTART;VALUE=DATE:(\d+)/.exec(text) ?? [];
        const out = /EXDATE;VALUE=DATE:(.*)/.exec(text)?.[1]?.split(',') ?? [];
        const day = `${begin.slice(0, 4)}-${begin.slice(4, 6)}-${begin.slice(6)}`;
        const isDate = occurrencesBetween(recurrence, day, day).length === 1;
        expect([text, isDate || out.includes(begin)]).toEqual([text, true]);
      }),
      { numRuns: 300 },
    );
  });
});
