import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PhraseError, parsePhrase, readPhrase } from './reader.ts';
import { writePhrase } from './writer.ts';

/** Read on Tuesday 24 November 2026. */
const TODAY = { start: '2026-11-24', today: '2026-11-24' };
const again = (text: string) => writePhrase(parsePhrase(text, TODAY), { start: 'unsaid' });

describe('a phrase that contradicts itself, or says what no rule can say yet', () => {
  it.each([
    ['every week from Monday 27 November', '27 Nov 2026 is a Friday, not a Monday.'],
    ['every Friday until Sat 18 December 2026', '18 Dec 2026 is a Friday, not a Saturday.'],
    ['3 times a week on Mon and Wed', '3 times a week, and 2 days'],
    ['twice a week on Mondays', '2 times a week, and 1 day'],
    ['once a week on Mon and Thu', 'Once, and 2 days'],
    ['once a month on the 1st and 15th', 'Once, and 2 days'],
    ['twice a month on the 5th', 'Twice a month, and 1 day'],
    ['monthly and on Fridays', 'One part says how often and not on which day'],
    ['weekly, 15th', 'One part says how often and not on which day'],
    ['15th, weekly', 'One part says how often and not on which day'],
    ['quarterly, every week on Fri', 'One part says how often and not on which day'],
    ['13th Friday of every quarter', 'A place so far into the quarter'],
    ['29th of the quarter', 'A place so far into the quarter'],
    ['last Friday after the 15th', 'could be any'],
    ['every Monday and Friday before the 25th', 'Those weekdays up to that day, or one counted from it?'],
    ['2 days and 3 working days before month end', 'say it in one of them'],
    ['500 days after quarter end', 'further than 366 days'],
  ])('%s is not read, and is told why', (text, message) => {
    const reading = readPhrase(text, TODAY);
    expect(reading.kind).toBe('unread');
    if (reading.kind === 'unread') {
      expect(reading.problem.message).toContain(message);
      expect(reading.problem.suggestion).toBeNull();
    }
  });
});

describe('a phrase that can’t be read', () => {
  const problem = (text: string) => {
    const reading = readPhrase(text, TODAY);
    if (reading.kind !== 'unread') throw new Error(`“${text}” was ${reading.kind}`);
    return reading.problem;
  };

  it.each([
    ['every teusdy', 6, 6, null],
    ['evry Monday', 0, 4, 'every Monday'],
    ['every Mondy and Friday', 6, 5, 'every monday and Friday'],
    ['15th of eech month', 8, 4, '15th of each month'],
    ['every 2 weaks on Tue', 8, 5, 'every 2 weeks on Tue'],
    ['yearly on 15 Jnue', 13, 4, 'yearly on 15 june'],
    ['every Friday untill 30 Sep 2027', 13, 6, 'every Friday until 30 Sep 2027'],
    ['every 2', 7, 0, null],
    ['every', 5, 0, null],
    ['every Friday, or the working day', 32, 0, null],
    ['every week on Mon and', 21, 0, null],
    ['every Friday please', 13, 6, 'every Friday'],
  ])('%s is not understood at %i', (text, at, length, suggestion) => {
    expect(problem(text)).toMatchObject({ at, length });
    expect(problem(text).suggestion).toBe(suggestion);
  });

  it('says what was expected', () => {
    expect(problem('every 2 bananas').message).toContain('“bananas” is not understood after “every 2”');
    expect(problem('every 2 bananas').expected).toContain('weeks');
    expect(problem('every Friday until').expected).toContain('a date like “3 Mar 2027”');
    expect(problem('15th of').message).toContain('Something is missing after “15th of”');
    expect(problem('').message).toContain('Say when');
    expect(problem('bananas').message).toContain('begin like “every Mon”');
  });

  it('says so when there is too much, or a time of day', () => {
    expect(problem('every day at 8am and 4pm').message).toContain('make another schedule for each further time');
    expect(problem('every Monday at 25:00')).toMatchObject({
      at: 16,
      length: 5,
      message: expect.stringContaining('There is no time 25:00'),
    });
    expect(problem('every day '.repeat(300)).message).toContain('longer than 2000 characters');
    expect(problem('every Friday until 30 Feb 2027')).toMatchObject({ at: 19, message: 'There is no 30 Feb 2027.' });
    expect(problem('on 2027-02-30')).toMatchObject({ at: 3, message: 'There is no 2027-02-30.' });
  });

  it.each([
    'ad hoc',
    'as needed',
    'when required',
    'on request',
    'after each use',
    'when it breaks',
    'every 500 km',
    'every 250 running hours',
  ])('%s: says what is done instead', (text) => {
    expect(problem(text)).toMatchObject({ at: 0, suggestion: null, message: expect.stringContaining('by hand') });
  });

  it.each([
    ['every 4 hours', 'one task a day at the most'],
    ['twice a day', 'one task a day at the most'],
    ['every odd week', 'Odd and even weeks change places'],
    ['second week of the month', 'A week may lie in two months'],
    ['the Monday of the first full week', 'A week may lie in two months'],
    ['every Monday, or the Wednesday after if that is a holiday', 'Another weekday than the one beside'],
    ['25th, or the Friday before if it is a weekend or a holiday', 'Another weekday than the one beside'],
    ['Mon and Thu, or the Friday after if that is a holiday', 'Another weekday than the one beside'],
    ['end of the tax year', 'differs from country to country'],
    ['three times a week', 'On which 3 days?'],
    ['monthly on the 5th in March', 'say “yearly” for one'],
    ['3 working days before Good Friday', 'So far from there can’t be counted'],
  ])('%s: says why not, and what could be said', (text, message) => {
    expect(problem(text)).toMatchObject({ suggestion: null, message: expect.stringContaining(message) });
  });

  it.each(['second week of March', 'every Monday starting next season', 'even Mondays', 'every spring'])(
    '%s: no word of a phrase is taken for another one',
    (text) => expect(problem(text).suggestion).toBeNull(),
  );

  it('tells a fault in an RRULE by its place', () => {
    expect(problem('RRULE:FREQ=HOURLY')).toMatchObject({ message: expect.stringContaining('finer than a day') });
    expect(problem('by RRULE FREQ=DAILY;INTERVAL=0').at).toBe(20);
  });

  it('has a suggestion only where that can be read', () => {
    for (const text of ['every teusdy', 'monthly on teh 15th', 'fornigtly', 'evry 2 wekks', 'lst Friday']) {
      const { suggestion } = problem(text);
      if (suggestion !== null) expect(readPhrase(suggestion, TODAY).kind).toBe('read');
    }
  });

  it('is thrown with all of that by parsePhrase', () => {
    expect(() => parsePhrase('evry tuesday')).toThrow(PhraseError);
    expect(() => parsePhrase('evry tuesday')).toThrow('Did you mean “every tuesday”?');
  });

  it('never fails in another way, whatever is typed', () => {
    const words = fc.constantFrom(
      'every',
      'on',
      'the',
      'of',
      'and',
      ',',
      'last',
      '15th',
      'Mon',
      'March',
      '2027',
      'working',
      'day',
      'until',
      'not',
      'or',
      '2',
      'in',
      'from',
      'to',
      'weeks',
      'after',
      'before',
      'x',
      '–',
      '\u00e9',
      'FREQ=',
    );
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.array(words, { maxLength: 12 }).map((list) => list.join(' ')),
        ),
        (text) => {
          const reading = readPhrase(text, TODAY);
          if (reading.kind === 'read') expect(again(writePhrase(reading.recurrence, { start: 'unsaid' }))).toBeTruthy();
          else if (reading.kind === 'choose')
            for (const { phrase } of reading.choices) expect(readPhrase(phrase, TODAY).kind).toBe('read');
          else expect(reading.problem.at).toBeLessThanOrEqual(text.length);
        },
      ),
      { numRuns: 800 },
    );
  });
});
