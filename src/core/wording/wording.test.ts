import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { sayAway } from './away.ts';
import { joinAnd, ordinal, plural, readDate, sayDate, sayDay, sayNear } from './date-words.ts';
import { readDuration, sayDuration, sayHours } from './duration.ts';
import { fillTitle, hasToken, patternOfTitle, TITLE_TOKENS, titleProblems } from './title.ts';

const today = dayOfIso('2026-11-24');

describe('dates in words', () => {
  it('say the year only when it is not this one', () => {
    expect(sayDay(today, today)).toBe('Tue 24 Nov');
    expect(sayDay(dayOfIso('2027-01-01'), today)).toBe('Fri 1 Jan 2027');
  });

  it('call near days by their names', () => {
    expect([-1, 0, 1, 3, 7].map((n) => sayNear(today + n, today))).toEqual([
      'yesterday',
      'today',
      'tomorrow',
      'Fri',
      'Tue 1 Dec',
    ]);
  });

  it.each([
    ['2026-11-24', 'today'],
    ['2026-11-25', 'tomorrow'],
    ['2026-11-23', 'yesterday'],
    ['2026-12-04', 'in 10 days'],
    ['2026-11-20', '4 days ago'],
    ['2027-01-23', 'in 1 month'],
    ['2027-04-24', 'in 5 months'],
    ['2027-11-23', 'in 11 months'],
    ['2027-11-24', 'in a year'],
    ['2028-12-01', 'in 2 years'],
    ['2025-11-20', 'a year ago'],
  ])('say how far %s is: %s', (date, words) => {
    expect(sayAway(dayOfIso(date), today)).toBe(words);
  });

  it.each([
    ['2027-02-01', '2027-02-01'],
    ['1 Feb 2027', '2027-02-01'],
    ['Mon 1 February 2027', '2027-02-01'],
    ['1st feb', '2027-02-01'],
    ['24 nov', '2026-11-24'],
    ['23 Nov', '2027-11-23'],
  ])('read %j as %s', (text, expected) => {
    const day = readDate(text, today);
    expect(day === null ? null : isoOfDay(day)).toBe(expected);
  });

  it.each(['31 Feb 2027', 'soon', '', '1', '1 Foo', '2027-02-30'])('do not read %j', (text) => {
    expect(readDate(text, today)).toBeNull();
  });

  it('read what they write', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 60_000 }), (day) => {
        expect(readDate(sayDate(day), today)).toBe(day);
      }),
    );
  });

  it('put words together', () => {
    expect(joinAnd([])).toBe('');
    expect(joinAnd(['a', 'b', 'c'])).toBe('a, b and c');
    expect([1, 2, 3, 4, 11, 12, 13, 21, 22, 31].map(ordinal)).toEqual([
      '1st',
      '2nd',
      '3rd',
      '4th',
      '11th',
      '12th',
      '13th',
      '21st',
      '22nd',
      '31st',
    ]);
    expect(plural(1, 'task')).toBe('1 task');
    expect(plural(0, 'person', 'people')).toBe('0 people');
  });
});

describe('durations', () => {
  it.each([
    [1, '1 min'],
    [45, '45 min'],
    [60, '1 h'],
    [65, '1 h 05'],
    [195, '3 h 15'],
  ])('of %d minutes are said as %s, and read back', (minutes, words) => {
    expect(sayDuration(minutes)).toBe(words);
    expect(readDuration(words)).toBe(minutes);
  });

  it('are read as people type them', () => {
    expect(['45', '90m', '1.5 h', '2 hours', '1h30'].map(readDuration)).toEqual([45, 90, 90, 120, 90]);
    expect(['', 'long', '-5', '1:30'].map(readDuration)).toEqual([null, null, null, null]);
  });

  it('in hours are rounded for a figure', () => {
    expect([90, 2160, 75_000].map(sayHours)).toEqual(['1.5', '36', '1,250']);
  });
});

describe('a title pattern', () => {
  const context = {
    on: dayOfIso('2026-11-24'),
    client: 'Edda Rushworth',
    asset: 'Quiet Harriet',
    person: 'Kit Sorrell',
  };

  it('is filled in with the date in several forms, the client, the asset and the person', () => {
    const pattern = TITLE_TOKENS.map(({ name }) => `{${name}}`).join(' | ');
    expect(fillTitle(pattern, { ...context, type: 'arrival', number: 12 })).toBe(
      '24 Nov 2026 | 24 Nov | 2026-11-24 | Tuesday | 48 | November | Q4 | 2026 | Edda Rushworth | Quiet Harriet | Kit Sorrell | arrival | 12',
    );
  });

  it('leaves nothing behind where there is no client', () => {
    const none = { ...context, client: null, asset: null };
    expect(fillTitle('Gas and shore power · {asset} · {month}', none)).toBe('Gas and shore power · November');
    expect(fillTitle('{client}, {asset} inspection', none)).toBe('inspection');
    expect(fillTitle('Call {client}', none)).toBe('Call');
    expect(fillTitle('Mooring chain {asset}, {month}', none)).toBe('Mooring chain, November');
    expect(fillTitle('{client}: {asset} inspection', none)).toBe(': inspection');
  });

  it('does not care for the case of a token', () => {
    expect(fillTitle('{Month} { year }', context)).toBe('November 2026');
  });

  it('suggests the token that was meant', () => {
    expect(titleProblems('Payroll {mounth}')).toEqual([
      { at: 8, message: '{mounth} is not a token. Did you mean {month}?' },
    ]);
    expect(titleProblems('{xyzzyxyzzy}')[0]?.message).toContain('There are {date}');
    expect(titleProblems('Payroll {month')[0]?.message).toContain('is not closed');
    expect(titleProblems('Payroll }')[0]?.message).toContain('closes nothing');
    expect(titleProblems('Payroll {month} {week}')).toEqual([]);
  });

  it('survives any text', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 300 }), (text) => {
        titleProblems(text);
        expect(fillTitle(text, context)).toBe(fillTitle(text, context).trim());
      }),
    );
  });
});

describe('a pattern told from a title', () => {
  const context = { on: today, client: 'Anselm Foyle', asset: 'Grey Wagtail', person: 'Kit Sorrell' };

  it.each([
    ['Gas check · Grey Wagtail · November', 'Gas check · {asset} · {month}'],
    ['Lift 24 Nov 2026 for Anselm Foyle', 'Lift {date} for {client}'],
    ['Lifts, Tuesday 24 Nov', 'Lifts, {weekday} {day}'],
    ['Novembers past', 'Novembers past'],
    ['Odd {braces} 2026', 'Odd braces {year}'],
  ])('%j becomes %j', (title, pattern) => {
    expect(patternOfTitle(title, context)).toBe(pattern);
    expect(titleProblems(pattern)).toEqual([]);
  });

  it('makes the same title again', () => {
    const title = 'Gas check · Grey Wagtail · 2026-11-24, Q4';
    expect(fillTitle(patternOfTitle(title, context), context)).toBe(title);
  });

  it('tells whether a token is used', () => {
    expect([hasToken('Round {Number}', 'number'), hasToken('number', 'number')]).toEqual([true, false]);
  });
});
