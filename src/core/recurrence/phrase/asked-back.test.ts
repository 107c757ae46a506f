import { describe, expect, it } from 'vitest';
import { HABIT_WORDS, PHRASE_HABITS, type PhraseHabits } from './habits.ts';
import { parsePhrase, readPhrase, tryPhrase } from './reader.ts';
import { writePhrase } from './writer.ts';

/** Read on Tuesday 24 November 2026. */
const TODAY = { start: '2026-11-24', today: '2026-11-24' };
const again = (text: string) => writePhrase(parsePhrase(text, TODAY), { start: 'unsaid' });

describe('a phrase that may mean several things', () => {
  const choices = (text: string) => {
    const reading = readPhrase(text, TODAY);
    if (reading.kind !== 'choose') throw new Error(`“${text}” was ${reading.kind}`);
    return reading.choices;
  };

  it.each([
    ['biweekly', 'every 2 weeks on Tue', 'every week on Tue and Fri'],
    ['bimonthly', 'every 2 months on the 24th', '1st and 15th of each month'],
    ['semi-monthly', '1st and 15th of each month', '15th and last day of each month'],
    ['twice a month', '1st and 15th of each month', '15th and last day of each month'],
    ['every second Tuesday', 'every 2 weeks on Tue', 'second Tuesday of each month'],
    ['every third Friday', 'every 3 weeks on Fri', 'third Friday of each month'],
    ['every other weekday', 'every 2 working days', 'every 2 weeks on weekdays'],
    ['bi-weekly on Mondays and Thursdays', 'every 2 weeks on Mon and Thu', 'every week on Mon and Thu'],
    ['on 3/4/2027', 'on 3 Apr 2027', 'on 4 Mar 2027'],
    ['every Friday until 3/4/2027', 'every week on Fri until 3 Apr 2027', 'every week on Fri until 4 Mar 2027'],
    ['monthly on Fridays', 'first Friday of each month', 'last Friday of each month', 'every week on Fri'],
    ['quarterly', 'every 3 months on the 24th', 'last day of every quarter', '1st of every quarter'],
    [
      'quarterly in Jan, Apr, Jul and Oct',
      '1st of every quarter',
      'last day of Jan, Apr, Jul and Oct',
      '24th of every quarter',
    ],
    ['end of each week', 'every week on Sun, or the working day before', 'every week on Fri'],
    ['every Monday from next Friday', 'every week on Mon from 4 Dec 2026', 'every week on Mon from 27 Nov 2026'],
    ['every April', '1st of Apr', 'last day of Apr', '24th of Apr'],
    ['once a year, in March', 'yearly on 1 March', 'yearly on the last day of March', 'yearly on 24 March'],
    ['3 March 2027 and 5 April', 'on 3 Mar 2027 and 5 Apr 2027', 'on 3 Mar 2027 and yearly on 5 April'],
    [
      '15th and last working day',
      '15th and the last working day of each month',
      'fifteenth and last working day of each month',
    ],
    ['the 1st and the 3rd Monday', 'first and third Monday of each month', '1st and the third Monday of each month'],
    [
      'every second Tuesday until 3/4/2027',
      'every 2 weeks on Tue until 3 Apr 2027',
      'second Tuesday of each month until 3 Apr 2027',
      'every 2 weeks on Tue until 4 Mar 2027',
      'second Tuesday of each month until 4 Mar 2027',
    ],
  ])('%s is asked back', (text, ...wanted) => {
    expect(choices(text).map(({ phrase }) => phrase)).toEqual(wanted);
    for (const { phrase, recurrence } of choices(text))
      expect(parsePhrase(phrase, { ...TODAY, start: recurrence.start })).toEqual(recurrence);
    expect(tryPhrase(text, TODAY)).toBeNull();
    expect(() => parsePhrase(text, TODAY)).toThrow('This can mean “');
  });

  it.each([
    ['every Monday at 9', 'every week on Mon at 09:00', 'every week on Mon at 21:00'],
    ['every Monday at 3', 'every week on Mon at 15:00', 'every week on Mon at 03:00'],
    ['Mon 8-10', 'every week on Mon, 08:00 to 10:00', 'every week on Mon, 20:00 to 22:00'],
    ['Mon 1 to 3', 'every week on Mon, 13:00 to 15:00', 'every week on Mon, 01:00 to 03:00'],
  ])('%s is asked back: each choice says its times', (text, ...wanted) => {
    expect(choices(text).map(({ phrase }) => phrase)).toEqual(wanted);
    for (const { phrase, recurrence, times } of choices(text))
      expect(readPhrase(phrase, TODAY)).toEqual({ kind: 'read', recurrence, times });
  });

  it('gives the four likeliest where there are more', () => {
    const text = 'monthly on Fridays until 3/4/2027';
    expect(choices(text)).toHaveLength(4);
    expect(readPhrase(text, TODAY)).toMatchObject({ hasMore: true });
    expect(() => parsePhrase(text, TODAY)).toThrow('and perhaps something else: say which');
    expect(readPhrase('every second Tuesday until 3/4/2027', TODAY)).toMatchObject({ hasMore: false });
  });

  it.each([
    ['biweekly on Friday', 'every 2 weeks on Fri'],
    ['biannually on the 1st', 'every 6 months on the 1st'],
    ['twice a month on the 5th and 20th', '5th and 20th of each month'],
    ['3/25/2027', 'on 25 Mar 2027'],
    ['25/3/2027', 'on 25 Mar 2027'],
    ['3 March 2027 and yearly on 5 April', 'on 3 Mar 2027 and yearly on 5 April'],
  ])('%s is not: what else is said leaves one meaning', (text, written) => {
    expect(again(text)).toBe(written);
  });

  it('is not asked again once it is settled how people here speak', () => {
    const [first, second] = choices('every Friday until 3/4/2027');
    expect([first?.habits, second?.habits]).toEqual([{ 'day and month': 0 }, { 'day and month': 1 }]);
    const read = (text: string, habits: PhraseHabits) => {
      const reading = readPhrase(text, { ...TODAY, habits });
      return reading.kind === 'read' ? writePhrase(reading.recurrence, { start: 'unsaid' }) : reading.kind;
    };
    expect(read('every Friday until 3/4/2027', { 'day and month': 1 })).toBe('every week on Fri until 4 Mar 2027');
    expect(read('biweekly', { biweekly: 0 })).toBe('every 2 weeks on Tue');
    expect(read('biweekly', { biweekly: 1 })).toBe('every week on Tue and Fri');
    expect(read('every second Tuesday', { biweekly: 1 })).toBe('choose');
    for (const habit of PHRASE_HABITS) expect(HABIT_WORDS[habit].means).toHaveLength(2);
  });
});
