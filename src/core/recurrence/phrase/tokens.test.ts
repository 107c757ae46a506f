import { describe, expect, it } from 'vitest';
import { dayOfIso } from '../../civil-date/iso-date.ts';
import { PhraseCursor } from './cursor.ts';
import { cardinalNamed, monthNamed, ordinalNamed, phraseTokens, weekdayNamed } from './tokens.ts';

const kinds = (text: string) => phraseTokens(text).map(({ kind, text: piece }) => `${kind} ${piece}`);

describe('the pieces of a phrase', () => {
  it('are words, numbers, ordinals, dates and marks, in small letters', () => {
    expect(kinds('Every 2 Weeks, on the 15th')).toEqual([
      'word every',
      'number 2',
      'word weeks',
      'mark ,',
      'word on',
      'word the',
      'ordinal 15th',
    ]);
  });

  it('hold dates in figures, as Britain writes them, or none where there is no such day', () => {
    expect(phraseTokens('2027-03-01 01/03/2027 1.3.2027 31/02/2027')).toMatchObject([
      { kind: 'date', day: dayOfIso('2027-03-01') },
      { kind: 'date', day: dayOfIso('2027-03-01') },
      { kind: 'date', day: dayOfIso('2027-03-01') },
      { kind: 'date', day: null },
    ]);
  });

  it('join what a hyphen joins, but for weekdays and months', () => {
    expect(kinds('half-yearly twenty-first')).toEqual(['word halfyearly', 'word twentyfirst']);
    expect(kinds('Mon-Fri')).toEqual(['word mon', 'mark -', 'word fri']);
    expect(kinds('Jan–Mar')).toEqual(['word jan', 'mark –', 'word mar']);
  });

  it('pass over apostrophes, and keep a foreign rule whole', () => {
    expect(kinds('month’s end')).toEqual(['word months', 'word end']);
    expect(kinds('by RRULE FREQ=WEEKLY;BYDAY=MO,TU, and')).toEqual([
      'word by',
      'word rrule',
      'rrule FREQ=WEEKLY;BYDAY=MO,TU',
      'mark ,',
      'word and',
    ]);
  });

  it('know their places in the text', () => {
    for (const { at, end, text } of phraseTokens('  1st of  every Month '))
      expect('  1st of  every Month '.slice(at, end).toLowerCase()).toBe(text);
  });

  it('are names of weekdays, months and numbers', () => {
    expect([weekdayNamed('weds'), weekdayNamed('sundays'), weekdayNamed('day')]).toEqual([3, 7, null]);
    expect([monthNamed('sept'), monthNamed('may'), monthNamed('mon')]).toEqual([9, 5, null]);
    expect([cardinalNamed('twelve'), cardinalNamed('zero')]).toEqual([12, null]);
    expect([ordinalNamed('third'), ordinalNamed('thirtyfirst'), ordinalNamed('last')]).toEqual([3, 31, null]);
  });
});

describe('a place in a phrase', () => {
  it('goes back when nothing comes of it, and remembers how far it got', () => {
    const c = new PhraseCursor('every 2 bananas');
    const read = c.try(() => (c.word('every') && c.number() !== null && c.word('weeks') ? true : null));
    expect(read).toBeNull();
    expect(c.word('every')).toBe(true);
    expect(c.failure).toMatchObject({ token: { text: 'bananas' }, expected: ['weeks'] });
  });

  it('takes the longest of the words that fit', () => {
    const c = new PhraseCursor('last day of');
    expect(c.word('last', 'last day')).toBe(true);
    expect(c.word('of')).toBe(true);
    expect(c.isAtEnd).toBe(true);
  });

  it('looks ahead without moving, and does not miss what may be left out', () => {
    const c = new PhraseCursor('the 15th');
    expect(c.ahead(() => c.word('the'))).toBe(true);
    c.filler('a');
    c.filler('the');
    expect(c.ordinal()).toEqual({ n: 15, inFigures: true });
    expect(c.failure.expected).toEqual([]);
  });
});
