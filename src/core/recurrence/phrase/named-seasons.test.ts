import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { closedOn } from '../../calendar/closed-season.ts';
import { dayOfIso } from '../../civil-date/iso-date.ts';
import { restOfYear } from './named-seasons.ts';
import { readPhrase, readSeasonList } from './reader.ts';
import { writePhrase } from './writer.ts';

const SEASONS = [
  { name: 'winter', spans: [{ from: '11-15', to: '03-14' }] },
  {
    name: 'Term time',
    spans: [
      { from: '01-06', to: '03-31' },
      { from: '09-05', to: '12-20' },
    ],
  },
  { name: 'term', spans: [{ from: '09-05', to: '12-20' }] },
];
const TODAY = { start: '2026-11-24', today: '2026-11-24', seasons: SEASONS };

describe('a season by the name that it has here', () => {
  it.each([
    ['every Friday in winter', 'every week on Fri, not from 15 Mar to 14 Nov'],
    ['every Friday during the winter', 'every week on Fri, not from 15 Mar to 14 Nov'],
    ['every Friday, only in winter', 'every week on Fri, not from 15 Mar to 14 Nov'],
    ['every Friday, not in winter', 'every week on Fri, not from 15 Nov to 14 Mar'],
    ['every Friday outside winter', 'every week on Fri, not from 15 Nov to 14 Mar'],
    ['every Friday except winter', 'every week on Fri, not from 15 Nov to 14 Mar'],
    ['Mondays in term time', 'every week on Mon, not from 1 Apr to 4 Sep, not from 21 Dec to 5 Jan'],
    ['Mondays in Term', 'every week on Mon, not from 21 Dec to 4 Sep'],
    ['10th working day of the month but not in term', 'tenth working day of each month, not from 5 Sep to 20 Dec'],
  ])('“%s” is read with its dates', (text, written) => {
    const reading = readPhrase(text, TODAY);
    if (reading.kind !== 'read') throw new Error(`“${text}” was ${reading.kind}`);
    expect(writePhrase(reading.recurrence, { start: 'unsaid' })).toBe(written);
    // What is written says the dates, and needs no name.
    const again = readPhrase(written, { start: TODAY.start, today: TODAY.today });
    expect(again.kind === 'read' && again.recurrence).toEqual(reading.recurrence);
  });

  it('is nothing where nobody has named it', () => {
    const reading = readPhrase('every Friday in summer', TODAY);
    expect(reading.kind === 'unread' && reading.problem.message).toContain('“summer” is not understood');
  });

  it('can be said in a list of seasons', () => {
    expect(readSeasonList('Jul, term', SEASONS)).toEqual([
      { from: '07-01', to: '07-31' },
      { from: '09-05', to: '12-20' },
    ]);
  });
});

describe('the rest of the year', () => {
  const monthDay = fc
    .integer({ min: dayOfIso('2000-01-01'), max: dayOfIso('2000-12-31') })
    .map((day) => new Date(day * 86_400_000).toISOString().slice(5, 10));
  const spans = fc.array(fc.record({ from: monthDay, to: monthDay }), { minLength: 1, maxLength: 4 });

  it('is every day that is in no span, and no other', () => {
    fc.assert(
      fc.property(spans, (some) => {
        const [isIn, isOut] = [closedOn(some), closedOn(restOfYear(some))];
        for (let day = dayOfIso('2027-12-01'); day < dayOfIso('2029-03-02'); day++) expect(isOut(day)).toBe(!isIn(day));
      }),
      { numRuns: 60 },
    );
  });
});
