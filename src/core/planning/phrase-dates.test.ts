import { describe, expect, it } from 'vitest';
import { makeCalendar } from '../calendar/iso-calendar.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { parsePhrase } from '../recurrence/phrase/reader.ts';
import { isDated, planDays } from './plan.ts';
import { PLAIN_TIMING } from './timing.ts';

/** Phrases that are easily read wrongly, and the days on which they are worked, worked out by hand. */

const calendar = makeCalendar({
  workingWeekdays: [1, 2, 3, 4, 5],
  holidays: [
    ...['2026-12-25', '2026-12-28', '2027-01-01', '2027-03-26', '2027-03-29', '2027-05-03', '2027-05-31'],
    '2027-08-30',
  ],
});

/** A Tuesday, the last day of a month, and a holiday. */
const STARTS = { T: '2026-11-24', E: '2026-11-30', H: '2026-12-25' } as const;

function worked(phrase: string, start: string, count: number): string {
  const from = dayOfIso(start);
  const schedule = { recurrence: parsePhrase(phrase, { start, today: start }), timing: PLAIN_TIMING };
  return planDays(schedule, calendar, from, from + 800)
    .filter(isDated)
    .slice(0, count)
    .map(({ on }) => isoOfDay(on))
    .join(' ');
}

/** Lines of a phrase, where it starts, and its first dates; a year stands once and holds for what follows. */
const CLASSES: readonly (readonly [heading: string, lines: string])[] = [
  [
    'how often and which day, with a comma, a dash or nothing between',
    `
    weekly, on Mondays | T | 2026: 11-30 12-07 12-14
    weekly - Mondays | E | 2026: 11-30 12-07 12-14
    weekly; Friday | H | 2026: 12-25 2027: 01-01 01-08
    Friday, weekly | T | 2026: 11-27 12-04 12-11
    fortnightly, Friday | T | 2026: 11-27 12-11 12-25
    Friday, fortnightly | E | 2026: 12-04 12-18 2027: 01-01
    monthly, 15th | T | 2026: 12-15 2027: 01-15 02-15
    15th, monthly | E | 2026: 12-15 2027: 01-15 02-15
    monthly - the 31st | E | 2026: 11-30 12-31 2027: 01-31
    monthly, last Friday | H | 2026: 12-25 2027: 01-29 02-26
    daily, Mon-Fri | T | 2026: 11-24 11-25 11-26
    annually, 5 April | T | 2027: 04-05 2028: 04-05
    5 April, annually | E | 2027: 04-05 2028: 04-05
    yearly, first Monday of May | T | 2027: 05-03 2028: 05-01
    quarterly, last working day | T | 2026: 12-31 2027: 03-31 06-30
    last working day, quarterly | E | 2026: 12-31 2027: 03-31 06-30
    every two weeks, Tuesday and Thursday | T | 2026: 11-24 11-26 12-08
    every 2 months, 10th | T | 2027: 01-10 03-10 05-10
    weekly, on a Friday | H | 2026: 12-25 2027: 01-01 01-08
    half-yearly, 1 January and 1 July | T | 2027: 01-01 07-01 2028: 01-01
    monthly: 1st and 15th | T | 2026: 12-01 12-15 2027: 01-01`,
  ],
  [
    'places in words and in figures',
    `
    1st and last Friday | T | 2026: 11-27 12-04 12-25
    first and last Friday | T | 2026: 11-27 12-04 12-25
    5th and 10th working day | T | 2026: 12-07 12-14 2027: 01-08
    fifth and tenth working day | T | 2026: 12-07 12-14 2027: 01-08
    1st and 3rd Monday | E | 2026: 12-07 12-21 2027: 01-04
    first and third Monday | E | 2026: 12-07 12-21 2027: 01-04
    2nd and 4th Tuesday | T | 2026: 11-24 12-08 12-22
    second and fourth Tuesday | T | 2026: 11-24 12-08 12-22
    1st, 2nd and 3rd working day | T | 2026: 12-01 12-02 12-03
    first three working days | T | 2026: 12-01 12-02 12-03
    last two working days | T | 2026: 11-27 11-30 12-30
    1st and last day | T | 2026: 11-30 12-01 12-31
    1st and 15th | T | 2026: 12-01 12-15 2027: 01-01
    first and fifteenth | T | 2026: 12-01 12-15 2027: 01-01
    1st and 15th day | T | 2026: 12-01 12-15 2027: 01-01
    1st and last working day | H | 2026: 12-31 2027: 01-04 01-29
    first and last working day | H | 2026: 12-31 2027: 01-04 01-29
    3rd Thursday and last Friday | T | 2026: 11-27 12-17 12-25
    third Thursday and the last Friday | T | 2026: 11-27 12-17 12-25
    20th and last Friday | T | 2026: 11-27 12-20 12-25`,
  ],
  [
    'quarters and years',
    `
    quarterly on the last working day | T | 2026: 12-31 2027: 03-31 06-30
    last working day quarterly | T | 2026: 12-31 2027: 03-31 06-30
    last working day of every quarter | E | 2026: 12-31 2027: 03-31 06-30
    quarterly on the 15th | T | 2027: 01-15 04-15 07-15
    15th of every quarter | T | 2027: 01-15 04-15 07-15
    first Monday of the quarter | T | 2027: 01-04 04-05 07-05
    quarter end | H | 2026: 12-31 2027: 03-31 06-30
    start of each quarter | T | 2027: 01-01 04-01 07-01
    every 3 months on the 15th | T | 2027: 02-15 05-15 08-15
    every 3 months on the last day | T | 2026: 11-30 2027: 02-28 05-31
    5th Friday of every quarter | T | 2027: 01-29 04-30 07-30
    fifth Friday of the quarter | H | 2027: 01-29 04-30 07-30
    30th working day of the quarter | T | 2027: 02-12 05-13 08-11
    tenth Monday of the year | T | 2027: 03-08 2028: 03-06
    last Friday of the year | T | 2026: 12-25 2027: 12-31
    first working day of the year | T | 2027: 01-04 2028: 01-03
    10th of the second month of every quarter | T | 2027: 02-10 05-10 08-10
    last day of the quarter | E | 2026: 12-31 2027: 03-31 06-30
    quarterly, 10 days after quarter end | T | 2027: 01-10 04-10 07-10
    20th of the first month of each quarter | T | 2027: 01-20 04-20 07-20`,
  ],
  [
    'bank holidays, which are no weekends',
    `
    every day except bank holidays | H | 2026: 12-26 12-27 12-29
    every Saturday except bank holidays | H | 2026: 12-26 2027: 01-02 01-09
    7th, if a bank holiday the working day after | T | 2026: 12-07 2027: 01-07 02-07
    28th, if a bank holiday the working day after | T | 2026: 11-28 12-29 2027: 01-28
    1st of each month or the working day after if that is a holiday | T | 2026: 12-01 2027: 01-04 02-01
    1st, or the previous working day if it is a bank holiday | T | 2026: 12-01 12-31 2027: 02-01
    every Friday except bank holidays | H | 2027: 01-08 01-15 01-22
    every Friday, not on days off | H | 2027: 01-08 01-15 01-22
    every Monday unless it is a bank holiday | T | 2026: 11-30 12-07 12-14
    25th, or the working day before | T | 2026: 11-25 12-24 2027: 01-25
    25th, or the working day before if it is a holiday | T | 2026: 11-25 12-24 2027: 01-25
    25th, or the working day before if it falls on a weekend | T | 2026: 11-25 12-25 2027: 01-25
    26th, or next working day if it falls on a weekend | T | 2026: 11-26 12-29 2027: 01-26
    every weekend except bank holidays | T | 2026: 11-28 11-29 12-05
    daily skipping public holidays | H | 2026: 12-26 12-27 12-29
    every day, skipping weekends | H | 2026: 12-25 12-28 12-29
    Mon-Fri excl. bank hols | H | 2026: 12-29 12-30 12-31
    15th, skipping weekends | T | 2026: 12-15 2027: 01-15 02-15
    1st, if it's a weekend or bank holiday the next working day | T | 2026: 12-01 2027: 01-04 02-01
    last working day of each week | H | 2026: 12-31 2027: 01-08 01-15`,
  ],
];

function linesOf(text: string): [phrase: string, start: keyof typeof STARTS, dates: string][] {
  return text
    .trim()
    .split('\n')
    .map((line) => {
      const [phrase = '', start = '', dates = ''] = line.split('|').map((piece) => piece.trim());
      let year = '';
      const whole = dates.split(' ').flatMap((piece) => {
        if (!piece.endsWith(':')) return `${year}-${piece}`;
        year = piece.slice(0, -1);
        return [];
      });
      return [phrase, start as keyof typeof STARTS, whole.join(' ')];
    });
}

describe.each(CLASSES)('%s', (_, text) => {
  it.each(linesOf(text))('%s from %s: %s', (phrase, start, dates) => {
    expect(worked(phrase, STARTS[start], dates.split(' ').length)).toBe(dates);
  });
});
