import { describe, expect, it } from 'vitest';
import { makeCalendar } from '../calendar/iso-calendar.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { parsePhrase } from '../recurrence/phrase/reader.ts';
import { isDated, planDays } from './plan.ts';
import { PLAIN_TIMING } from './timing.ts';

/** Friday, Saturday and Monday at Christmas, Friday at New Year. */
const calendar = makeCalendar({
  workingWeekdays: [1, 2, 3, 4, 5],
  holidays: ['2026-12-25', '2026-12-26', '2026-12-28', '2027-01-01'],
});

const worked = (phrase: string, from: string, to: string) =>
  planDays(
    { recurrence: parsePhrase(phrase, { start: '2026-11-24' }), timing: PLAIN_TIMING },
    calendar,
    dayOfIso(from),
    dayOfIso(to),
  )
    .filter(isDated)
    .map(({ on }) => isoOfDay(on))
    .join(' ');

describe('days off, where only some of them count', () => {
  it.each([
    ['every day, not on holidays', '2026-12-24', '2026-12-29', '2026-12-24 2026-12-27 2026-12-29'],
    ['every Saturday except bank holidays', '2026-12-19', '2027-01-02', '2026-12-19 2027-01-02'],
    ['every day, skipped on weekends', '2026-12-24', '2026-12-29', '2026-12-24 2026-12-25 2026-12-28 2026-12-29'],
    // The 28th of November is a Saturday and stays.
    ['28th, if a bank holiday the working day after', '2026-11-24', '2026-12-31', '2026-11-28 2026-12-29'],
    // The working day before a Saturday is none that is a holiday itself.
    [
      '26th, or the working day before if it is a weekend',
      '2026-11-24',
      '2027-01-31',
      '2026-11-26 2026-12-24 2027-01-26',
    ],
    ['25th, or the working day before if it is a weekend', '2026-12-01', '2026-12-31', '2026-12-25'],
    ['25th, or the working day before', '2026-12-01', '2026-12-31', '2026-12-24'],
    [
      '25th, or the working day after if it is a holiday, moved out of 20 Dec to 3 Jan',
      '2026-11-24',
      '2027-01-31',
      '2026-11-25 2027-01-04 2027-01-25',
    ],
  ])('%s from %s to %s', (phrase, from, to, dates) => {
    expect(worked(phrase, from, to)).toBe(dates);
  });
});
