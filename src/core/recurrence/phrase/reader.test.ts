import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { canonicalRecurrence } from '../canonical.ts';
import { anyFullRecurrence } from '../generated.ts';
import { parsePhrase, readPhrase, tryPhrase } from './reader.ts';
import { writePhrase } from './writer.ts';

/** Read on Tuesday 24 November 2026. */
const TODAY = { start: '2026-11-24', today: '2026-11-24' };

describe('a phrase', () => {
  it('is read back as the same recurrence, whatever it says', () => {
    fc.assert(
      fc.property(anyFullRecurrence, (recurrence) => {
        const canonical = canonicalRecurrence(recurrence);
        expect(parsePhrase(writePhrase(canonical))).toEqual(canonical);
        expect(parsePhrase(writePhrase(canonical, { start: 'unsaid' }), { start: canonical.start })).toEqual(canonical);
      }),
      { numRuns: Number(process.env.RUNS ?? 500) },
    );
  });

  it('is written the same for a recurrence and its canonical form', () => {
    fc.assert(
      fc.property(anyFullRecurrence, (recurrence) => {
        const canonical = canonicalRecurrence(recurrence);
        expect(canonicalRecurrence(canonical)).toEqual(canonical);
      }),
    );
  });

  it('may say where it starts', () => {
    expect(parsePhrase('every Monday from 1 March 2027 until 30 Sep 2027', TODAY)).toEqual({
      start: '2027-03-01',
      rules: [{ kind: 'weeks', every: 1, on: [1] }],
      end: { kind: 'on', date: '2027-09-30' },
      dayOff: 'none',
    });
    expect(parsePhrase('starting on 3 May 2027, monthly', TODAY)).toMatchObject({
      start: '2027-05-03',
      rules: [{ kind: 'months', on: [{ kind: 'date', day: 3 }] }],
    });
    expect(parsePhrase('fortnightly from 3 May 2027', TODAY)).toMatchObject({ rules: [{ every: 2, on: [1] }] });
    expect(parsePhrase('every Monday from March 2027', TODAY).start).toBe('2027-03-01');
    expect(parsePhrase('every Monday starting next Monday', TODAY).start).toBe('2026-11-30');
    expect(parsePhrase('weekly from tomorrow', TODAY)).toMatchObject({ start: '2026-11-25', rules: [{ on: [3] }] });
    expect(writePhrase(parsePhrase('every Monday from 1 March 2027'))).toBe('every week on Mon from 1 Mar 2027');
  });

  it('without a start begins on a Monday, the 1st of a January long ago', () => {
    expect(writePhrase(parsePhrase('weekly'))).toBe('every week on Mon');
    expect(writePhrase(parsePhrase('monthly'))).toBe('1st of each month');
    expect(writePhrase(parsePhrase('yearly'))).toBe('yearly on 1 January');
  });
});

describe('a phrase with times of day', () => {
  const times = (text: string) => {
    const meaning = tryPhrase(text, TODAY);
    if (!meaning) throw new Error(`“${text}” was not read`);
    const { startTime, dueTime } = meaning.times ?? { startTime: null, dueTime: null };
    return [writePhrase(meaning.recurrence, { start: 'unsaid' }), startTime, dueTime];
  };

  it.each([
    ['weekdays at 9am', 'every weekday', '09:00', null],
    ['Mon-Fri 9am-5pm', 'every weekday', '09:00', '17:00'],
    ['every Monday 08:00 to 09:30', 'every week on Mon', '08:00', '09:30'],
    ['every Monday from 8am to 9.30am', 'every week on Mon', '08:00', '09:30'],
    ['every Monday between 8am and 10am', 'every week on Mon', '08:00', '10:00'],
    ['every Monday by 5pm', 'every week on Mon', null, '17:00'],
    ['15th of each month, by noon', '15th of each month', null, '12:00'],
    ['at 9am every Monday', 'every week on Mon', '09:00', null],
    ['every Monday at 9am, by 17:00', 'every week on Mon', '09:00', '17:00'],
    ['daily at 7.15 p.m.', 'every day', '19:15', null],
    ['every day at 12am', 'every day', '00:00', null],
    ['every day at 12:30pm', 'every day', '12:30', null],
    ['every Friday until 30/09/2027 at 9am', 'every week on Fri until 30 Sep 2027', '09:00', null],
    ['every Friday', 'every week on Fri', null, null],
  ])('%s', (text, ...wanted) => {
    expect(times(text)).toEqual(wanted);
  });

  it('gives them to each thing that it may mean, and never drops them where they can’t be taken', () => {
    const reading = readPhrase('every second Tuesday at 9am', TODAY);
    expect(reading.kind === 'choose' && reading.choices.map((one) => one.times?.startTime)).toEqual(['09:00', '09:00']);
    expect(() => parsePhrase('weekdays at 9am')).toThrow('A time of day can’t be taken here');
  });

  it('goes forward', () => {
    const reading = readPhrase('every Monday 17:00 to 09:00', TODAY);
    expect(reading.kind === 'unread' && reading.problem.message).toContain(
      'From 17:00 to 09:00 is over before it begins',
    );
  });
});

describe('a phrase of quarters and years', () => {
  const again = (text: string, yearStarts: number) => {
    const options = { ...TODAY, yearStarts };
    const written = writePhrase(parsePhrase(text, options), { start: 'unsaid', yearStarts });
    // Whatever it says is read as the same again.
    expect(writePhrase(parsePhrase(written, options), { start: 'unsaid', yearStarts })).toBe(written);
    return written;
  };

  it.each([
    [1, 'quarter end', 'last day of every quarter'],
    [2, 'quarter end', 'last day of every quarter'],
    [2, 'last day of Mar, Jun, Sep and Dec', 'last day of Mar, Jun, Sep and Dec'],
    [2, 'last day of Jan, Apr, Jul and Oct', 'last day of every quarter'],
    [4, 'year end', 'yearly on 31 March'],
    [3, 'year end', 'yearly on the last day of February'],
    [4, '30 days after the end of the financial year', 'yearly, 30 days after 31 March'],
    [4, 'start of the financial year', 'yearly on 1 April'],
    [4, 'tenth Monday of the year', 'tenth Monday of the year'],
    [4, 'first working day of the year', 'yearly on the first working day of April'],
    [2, '30th working day of the quarter', 'thirtieth working day of every quarter'],
  ])('that begins in month %i: “%s”', (yearStarts, text, written) => {
    expect(again(text, yearStarts)).toBe(written);
  });

  it('has the months of the year it is of', () => {
    const [rule] = parsePhrase('quarter end', { ...TODAY, yearStarts: 2 }).rules;
    expect(rule).toMatchObject({ months: [1, 4, 7, 10] });
    const reading = readPhrase('end of the financial year', TODAY);
    expect(reading.kind === 'unread' && reading.problem.message).toContain('set it in Settings');
  });
});

describe('times of day in a phrase', () => {
  it.each([
    ['every evening at 6', '18:00', null],
    ['every night', '20:00', null],
    ['Monday mornings at 9:30', '09:30', null],
    ['every afternoon at 2', '14:00', null],
    ['Fridays, 9–10 am', '09:00', '10:00'],
    ['Fridays 11 to 2pm', '11:00', '14:00'],
    ['Fridays 2-4pm', '14:00', '16:00'],
    ['Fridays 10-12 noon', '10:00', '12:00'],
    ['between 9 and 11 am on Fridays', '09:00', '11:00'],
    ['every Friday, by 12 noon', null, '12:00'],
    ['every Mon 8-9 am until 3 March', '08:00', '09:00'],
  ])('are read: “%s”', (text, startTime, dueTime) => {
    const reading = readPhrase(text, TODAY);
    expect(reading.kind === 'read' && reading.times).toEqual({ startTime, dueTime });
  });
});
