import { describe, expect, it } from 'vitest';
import { makeCalendar } from '../calendar/iso-calendar.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { dayFollowing } from './follows-dates.ts';
import { nextOccurrence, occurrencesBetween } from './occurrences.ts';
import type { FollowsRule, Recurrence } from './rule.ts';

const calendar = makeCalendar({ workingWeekdays: [1, 2, 3, 4, 5], holidays: ['2026-12-25', '2026-12-28'] });
const rule = (amount: number, unit: FollowsRule['unit'] = 'day'): FollowsRule => ({
  kind: 'follows',
  reaches: 'done',
  amount,
  unit,
});
const following = (follows: FollowsRule, last: string, reached: string) =>
  isoOfDay(dayFollowing(follows, dayOfIso(last), dayOfIso(reached), calendar));

describe('what comes after one that was done on a day', () => {
  it.each<[FollowsRule, string, string, string]>([
    [rule(3), '2026-11-24', '2026-11-27', '2026-11-30'],
    [rule(2, 'week'), '2026-11-24', '2026-11-27', '2026-12-11'],
    [rule(1, 'month'), '2027-01-31', '2027-01-31', '2027-02-28'],
    [rule(1, 'month'), '2027-01-31', '2027-02-15', '2027-03-15'],
    [rule(13, 'month'), '2027-01-31', '2027-01-31', '2028-02-29'],
    [rule(1, 'workingDay'), '2026-12-24', '2026-12-24', '2026-12-29'],
    [rule(10, 'workingDay'), '2026-12-21', '2026-12-22', '2027-01-07'],
    [rule(0), '2026-11-24', '2026-11-26', '2026-11-26'],
  ])('%j after %s, done on %s, is %s', (follows, last, reached, expected) => {
    expect(following(follows, last, reached)).toBe(expected);
  });

  it('is never on the date that names the one before, even when that was done early', () => {
    expect(following(rule(0), '2026-11-24', '2026-11-24')).toBe('2026-11-25');
    expect(following(rule(3), '2026-11-24', '2026-11-18')).toBe('2026-11-25');
  });
});

describe('what is foreseen of it', () => {
  const foreseen = (follows: FollowsRule, start: string, to: string) =>
    occurrencesBetween({ start, rules: [follows], end: { kind: 'never' }, dayOff: 'none' }, start, to, calendar);

  it('are its dates as if each were done on its own day', () => {
    expect(foreseen(rule(2, 'week'), '2026-11-24', '2026-12-31')).toEqual(['2026-11-24', '2026-12-08', '2026-12-22']);
    expect(foreseen(rule(5, 'workingDay'), '2026-12-18', '2027-01-10')).toEqual([
      '2026-12-18',
      '2026-12-29',
      '2027-01-05',
    ]);
  });

  it('keeps to the end of the month once it was there', () => {
    expect(foreseen(rule(1, 'month'), '2026-12-31', '2027-05-01')).toEqual([
      '2026-12-31',
      '2027-01-31',
      '2027-02-28',
      '2027-03-28',
      '2027-04-28',
    ]);
  });

  it('begins with a start on a day off', () => {
    expect(foreseen(rule(1, 'workingDay'), '2026-11-28', '2026-12-02')).toEqual([
      '2026-11-28',
      '2026-11-30',
      '2026-12-01',
      '2026-12-02',
    ]);
  });

  it('is only the first where the next comes “as soon as”', () => {
    expect(foreseen(rule(0), '2026-11-24', '2027-11-24')).toEqual(['2026-11-24']);
  });

  it('is found from far away', () => {
    const monthly: Recurrence = {
      start: '1990-01-15',
      rules: [rule(1, 'month')],
      end: { kind: 'never' },
      dayOff: 'none',
    };
    expect(nextOccurrence(monthly, '2026-11-24')).toBe('2026-12-15');
  });
});
