import { describe, expect, it } from 'vitest';
import { makeCalendar } from '../calendar/iso-calendar.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { monthIndexOf } from '../civil-date/month.ts';
import { parsePhrase } from '../recurrence/phrase/reader.ts';
import { nextDated } from './next-dated.ts';
import { outlook, planYear } from './outlook.ts';
import { isDated, planDays } from './plan.ts';
import { type PlannedSchedule, revisionAfter, revisionOn } from './schedule-plan.ts';
import { PLAIN_TIMING } from './timing.ts';

const calendar = makeCalendar({
  workingWeekdays: [1, 2, 3, 4, 5],
  holidays: ['2026-12-25', '2026-12-28', '2027-01-01'],
});
const today = dayOfIso('2026-11-24');
const schedule = (phrase: string, rest: Partial<PlannedSchedule> = {}): PlannedSchedule => ({
  recurrence: parsePhrase(phrase, { start: '2026-01-01' }),
  timing: PLAIN_TIMING,
  ...rest,
});

describe('the outlook of a schedule', () => {
  it('leaves out a date whose task was deleted on purpose, which the plan goes on giving', () => {
    const plain = schedule('every Friday');
    const deleted = { ...plain, deleted: ['2026-12-04', '2026-12-05'] };
    const { next, coming, timesAYear } = outlook(deleted, calendar, today, 30);
    expect(next.filter((one) => !isDated(one))).toEqual([
      { kind: 'omitted', nominal: dayOfIso('2026-12-04'), on: dayOfIso('2026-12-04'), because: 'deleted' },
    ]);
    expect(coming).toHaveLength(outlook(plain, calendar, today, 30).coming.length);
    expect(timesAYear).toBe(outlook(plain, calendar, today, 30).timesAYear - 1);
    const after = dayOfIso('2026-11-28');
    expect(nextDated(deleted, calendar, after)?.on).toBe(dayOfIso('2026-12-11'));
    expect(planYear(deleted, calendar, monthIndexOf(today)).occurrences).toContainEqual(next[1]);
    expect(planDays(deleted, calendar, after, after + 30)).toEqual(planDays(plain, calendar, after, after + 30));
  });

  it('shows twelve dated ones, and what is left out between them', () => {
    const { next } = outlook(schedule('every Friday, not in Jan'), calendar, today, 30);
    expect(next.filter(isDated)).toHaveLength(12);
    expect(next.filter((one) => !isDated(one))).toHaveLength(5);
    expect(next.at(-1)).toMatchObject({ kind: 'dated', on: dayOfIso('2027-03-19') });
  });

  it('shows fewer where the schedule ends before', () => {
    const { next, timesAYear } = outlook(schedule('every Friday until 11 Dec 2026'), calendar, today, 30);
    expect(next).toHaveLength(3);
    expect(timesAYear).toBe(3);
  });

  it('counts the coming year, whatever day it begins', () => {
    for (const day of [today, dayOfIso('2026-12-31'), dayOfIso('2028-02-29')])
      expect(outlook(schedule('15th of each month'), calendar, day, 90)).toMatchObject({
        timesAYear: 12,
        minutesAYear: 1080,
      });
  });

  it('is paged by the year', () => {
    const planned = schedule('every Friday');
    const month = monthIndexOf(today);
    const years = [-1, 0, 1].map((n) => planYear(planned, calendar, month + n * 12));
    expect(years.map(({ from, to }) => [isoOfDay(from), isoOfDay(to)])).toEqual([
      ['2025-11-01', '2026-10-31'],
      ['2026-11-01', '2027-10-31'],
      ['2027-11-01', '2028-10-31'],
    ]);
    // It starts in January 2026: before, there is nothing.
    expect(years[0]?.occurrences[0]).toMatchObject({ on: dayOfIso('2026-01-02') });
  });
});

describe('the next one', () => {
  it('is found near, and years away', () => {
    expect(isoOfDay(nextDated(schedule('every Friday'), calendar, today)?.on ?? 0)).toBe('2026-11-27');
    const rare = schedule('yearly on 29 February, in leap years only');
    expect(isoOfDay(nextDated(rare, calendar, today)?.on ?? 0)).toBe('2028-02-29');
  });

  it('is the first that fits', () => {
    const friday = schedule('every Friday', { exceptions: [{ kind: 'skip', date: '2026-12-04' }] });
    const found = nextDated(friday, calendar, today, ({ on }) => on > dayOfIso('2026-11-27'));
    expect(isoOfDay(found?.on ?? 0)).toBe('2026-12-11');
  });

  it('is none after the end, and none while paused for good', () => {
    expect(nextDated(schedule('every Friday until 1 Nov 2026'), calendar, today)).toBeNull();
    expect(
      nextDated(schedule('every Friday', { pauses: [{ from: '2026-11-01', to: null }] }), calendar, today),
    ).toBeNull();
  });
});

describe('the rule in force', () => {
  const revised = schedule('every Friday', {
    revisions: [
      { from: '2027-06-01', recurrence: parsePhrase('every Monday'), timing: PLAIN_TIMING },
      { from: '2027-01-01', recurrence: parsePhrase('every Tuesday'), timing: PLAIN_TIMING },
    ],
  });
  const weekday = (date: string) => {
    const [rule] = revisionOn(revised, date).recurrence.rules;
    return rule?.kind === 'weeks' ? rule.on[0] : undefined;
  };

  it('is the schedule’s own, then each revision’s from its day on', () => {
    expect(['2026-12-31', '2027-01-01', '2027-05-31', '2027-06-01'].map(weekday)).toEqual([5, 2, 2, 1]);
  });

  it('tells which one comes next', () => {
    expect(revisionAfter(revised, '2026-11-24')?.from).toBe('2027-01-01');
    expect(revisionAfter(revised, '2027-01-01')?.from).toBe('2027-06-01');
    expect(revisionAfter(revised, '2027-06-01')).toBeNull();
  });
});
