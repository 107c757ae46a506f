import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOfIso } from '../civil-date/iso-date.ts';
import {
  fillLetter,
  LETTER_LANGUAGE_TAGS,
  LETTER_LANGUAGES,
  LETTER_TOKEN_NAMES,
  type LetterText,
  type LetterToken,
  type LetterValues,
  letterProblems,
  sayDayIn,
  sayWindow,
  textOfRuns,
} from './letter.ts';

const NONE = Object.fromEntries(LETTER_TOKEN_NAMES.map((name) => [name, ''])) as Record<LetterToken, string>;
const LETTER: LetterText = {
  subject: 'Coming aboard {asset}',
  body: [
    { kind: 'paragraph', runs: [{ text: 'Dear { Contact }, on ' }, { text: '{date}{window}', bold: true }] },
    { kind: 'bullet', runs: [{ text: '{pigeon} stays' }] },
  ],
};

describe('a letter', () => {
  it('is filled in run by run: what was filled in is told from what stands there, and keeps its form', () => {
    const values: LetterValues = { ...NONE, asset: 'Marram', contact: 'Jory Dunnock', date: 'Tuesday' };
    const filled = fillLetter(LETTER, values);
    expect(filled.subject).toEqual([
      { text: 'Coming aboard ', token: null },
      { text: 'Marram', token: 'asset' },
    ]);
    expect(filled.body[0]?.runs).toEqual([
      { text: 'Dear ', token: null },
      { text: 'Jory Dunnock', token: 'contact' },
      { text: ', on ', token: null },
      { text: 'Tuesday', bold: true, token: 'date' },
    ]);
    expect(filled.body[1]?.runs).toEqual([{ text: '{pigeon} stays', token: null }]);
    expect(filled.empty).toEqual(['window']);
  });

  it.each([
    ['{dat}', 0, 'Did you mean {date}?'],
    ['on {date', 3, 'not closed'],
    ['on } then', 3, 'closes nothing'],
    ['{xyzzy}', 0, 'There are {client}'],
  ])('says what is wrong with “%s”', (text, at, message) => {
    expect(letterProblems(text)).toEqual([{ at, message: expect.stringContaining(message) }]);
  });

  it('has nothing wrong with any of its tokens, and leaves none of them standing', () => {
    const words = fc.stringMatching(/^[a-zà-ž ,.]{0,12}$/);
    const piece = fc.oneof(
      words,
      fc.constantFrom(...LETTER_TOKEN_NAMES).map((name) => `{${name}}`),
    );
    const text = fc.array(piece, { maxLength: 8 }).map((pieces) => pieces.join(''));
    const values = Object.fromEntries(LETTER_TOKEN_NAMES.map((name) => [name, `<${name}>`])) as LetterValues;
    fc.assert(
      fc.property(text, text, (subject, of) => {
        expect([...letterProblems(subject), ...letterProblems(of)]).toEqual([]);
        const filled = fillLetter({ subject, body: [{ kind: 'heading', runs: [{ text: of, italic: true }] }] }, values);
        const all = textOfRuns(filled.subject) + textOfRuns(filled.body[0]?.runs ?? []);
        expect(all).toBe((subject + of).replace(/\{(\w+)\}/g, '<$1>'));
        expect(filled.body[0]?.runs.every(({ italic, text: said }) => italic && said !== '')).toBe(true);
        expect(filled.empty).toEqual([]);
      }),
    );
  });

  it('says days and hours in its language', () => {
    const day = dayOfIso('2026-11-24');
    expect(sayDayIn(day, 'en-GB')).toBe('Tuesday 24 November 2026');
    expect(sayDayIn(day, 'de-DE')).toBe('Dienstag, 24. November 2026');
    expect(sayDayIn(day, 'fr-FR')).toBe('mardi 24 novembre 2026');
    expect([
      sayWindow('09:00', '10:00', 'de-DE'),
      sayWindow('09:00', '09:00', 'de-DE'),
      sayWindow('09:00', null, 'de-DE'),
      sayWindow(null, '10:00', 'en-GB'),
      sayWindow(null, null, 'fr-FR'),
    ]).toEqual(['09:00–10:00', '09:00', 'ab 09:00', 'until 10:00', '']);
    for (const tag of LETTER_LANGUAGE_TAGS) {
      expect(LETTER_LANGUAGES[tag].replaces(sayDayIn(day, tag))).toContain('2026');
      expect(Intl.DateTimeFormat.supportedLocalesOf(tag)).toEqual([tag]);
    }
  });
});
