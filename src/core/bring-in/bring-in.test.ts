import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { civilDay, daysInMonth } from '../civil-date/civil-day.ts';
import { isoOfDay } from '../civil-date/iso-date.ts';
import { asWritten, defused } from './cells.ts';
import { bringFields } from './fields.ts';
import { guessColumns } from './guess.ts';
import { whoIsMeant } from './people-names.ts';
import { readRow } from './row.ts';
import { dayOrderOf, readFileDate, readFileNumber } from './values.ts';

const FIELDS = bringFields('clients', {
  client: [{ key: 'insured', name: 'insured until', kind: 'date', choices: [] }],
  asset: [{ key: 'length', name: 'length, m', kind: 'number', choices: [] }],
});

describe('a cell', () => {
  it('is shown by a spreadsheet and never reckoned, and comes back as it was written', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.string().map((text) => `=${text}`),
          fc.string().map((text) => `'+${text}`),
        ),
        (text) => {
          expect(asWritten(defused(text))).toBe(/^'[=+\-@\t\r]/.test(text) ? text.slice(1) : text);
          expect(/^[=+@\t\r]/.test(defused(text))).toBe(false);
        },
      ),
    );
    expect([defused('-5'), defused('-5+3'), defused('+44 1632'), defused('a=b')]).toEqual([
      '-5',
      "'-5+3",
      "'+44 1632",
      'a=b',
    ]);
  });
});

describe('a date of a file', () => {
  it('is read in the order told, however it is written', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1970, max: 2069 }),
        fc.integer({ min: 1, max: 12 }),
        fc.integer({ min: 1, max: 31 }),
        fc.constantFrom('/', '.', '-'),
        fc.boolean(),
        (year, month, day, mark, isShort) => {
          const isThere = day <= daysInMonth(year, month);
          const expected = isThere ? { value: isoOfDay(civilDay(year, month, day)) } : { problem: expect.any(String) };
          const written = isShort ? String(year).slice(2) : String(year);
          expect(readFileDate([day, month, written].join(mark), 'day first')).toEqual(expected);
          expect(readFileDate([month, day, written].join(mark), 'month first')).toEqual(expected);
          expect(readFileDate([year, month, day].join(mark), 'month first')).toEqual(expected);
        },
      ),
    );
  });

  it.each([
    ['1 Feb 2027', '2027-02-01'],
    ['February 1, 2027', '2027-02-01'],
    ['2027-02-28T00:00:00Z', '2027-02-28'],
    ['28/02/2027 00:00', '2027-02-28'],
  ])('“%s” is %s', (text, value) => expect(readFileDate(text, 'day first')).toEqual({ value }));

  it.each([
    ['31/02/2027', '“31/02/2027”: there is no 31 February 2027'],
    ['02/28/2027', '“02/28/2027”: there is no month 28'],
    ['soon', '“soon” is no date'],
    ['1 Feb', '“1 Feb” is no date'],
    ['01/01/0027', '“01/01/0027” is of a year that is not ours'],
  ])('“%s” is refused in words', (text, problem) => expect(readFileDate(text, 'day first')).toEqual({ problem }));

  it('tells the order of all where one of them can be nothing else', () => {
    expect(dayOrderOf(['01/02/2027', '28/02/2027', '03/03/2027'])).toEqual({
      ...{ order: 'day first', example: '28/02/2027', either: 1 },
      only: { 'day first': 1, 'month first': 0 },
    });
    expect(dayOrderOf(['02/28/2027']).order).toBe('month first');
    expect(dayOrderOf(['01/02/2027', '2027-02-28']).order).toBeNull();
    expect(dayOrderOf(['28/02/2027', '02/28/2027']).order).toBeNull();
  });
});

describe('a number of a file', () => {
  it.each([
    ['9.4', 9.4],
    ['9,4', 9.4],
    ['1 250', 1250],
    ['1,250.50', 1250.5],
    ['1.250,50', 1250.5],
    ['1,234,567', 1_234_567],
    ['0.125', 0.125],
    ['-3', -3],
  ])('“%s” is %d', (text, value) => expect(readFileNumber(text)).toEqual({ value }));

  it.each(['1,234', '9.4.3', '12,34,567', 'a', '', '1,,2', '--1', '1,250.5.5'])('“%s” is not guessed', (text) =>
    expect(readFileNumber(text)).toEqual({ problem: expect.any(String) }),
  );

  it('is the same again in every way of writing', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 9_999_999 }), fc.integer({ min: 10, max: 99 }), (whole, hundredths) => {
        const value = Number(`${whole}.${hundredths}`);
        const grouped = whole.toLocaleString('en-GB');
        for (const text of [`${grouped}.${hundredths}`, `${grouped.replaceAll(',', '.')},${hundredths}`])
          expect(readFileNumber(text)).toEqual({ value });
      }),
    );
  });
});

describe('a name of a person', () => {
  const people = ['Ayesha Quill', 'Rhona Vick', 'Rhys Vale', 'Kit Sorrell'].map((name) => ({ id: name, name }));

  it.each([
    ['A. Quill', 'Ayesha Quill'],
    ['Quill, Ayesha', 'Ayesha Quill'],
    ['ayesha', 'Ayesha Quill'],
    ['Rhona V', 'Rhona Vick'],
    ['KIT SORRELL', 'Kit Sorrell'],
  ])('“%s” is %s', (text, id) => expect(whoIsMeant(text, people)).toEqual({ kind: 'one', id }));

  it('is nobody where it is nobody, and nobody is taken where it can be two', () => {
    expect(whoIsMeant('Tomas', people)).toEqual({ kind: 'none' });
    expect(whoIsMeant('', people)).toEqual({ kind: 'none' });
    expect(whoIsMeant('R. V.', people)).toEqual({ kind: 'several' });
    expect(whoIsMeant('Kit Sorrell Quill', people)).toEqual({ kind: 'none' });
  });
});

describe('a column', () => {
  const guess = (names: string[], samples: string[][] = []) => guessColumns(FIELDS, names, samples);

  it('is known by its name, as it is taken out and as others call it', () => {
    expect(guess(FIELDS.map(({ name }) => name))).toEqual(FIELDS.map(({ key }) => key));
    expect(guess(['Holder', 'Boat', 'Berth', 'E-mail', 'Tel', 'Adviser', 'Insured until', 'col_11'])).toEqual([
      ...['name', 'asset', 'place', 'email', 'telephone', 'usualPerson', 'own.insured', null],
    ]);
  });

  it('says what became of work, whatever it is called, where all of it says that', () => {
    const history = bringFields('history', { client: [], asset: [] });
    const columns = (cells: string[]) => guessColumns(history, ['Job', 'Result'], [['Winter service'], cells]);
    expect(columns(['done', '', 'Missed'])).toEqual(['title', 'state']);
    expect(columns(['done', 'a new belt'])).toEqual(['title', 'note']);
  });

  it('is known by what stands in it, and becomes nothing twice', () => {
    expect(
      guess(
        ['x', 'y'],
        [
          ['a@b.example', '', 'c@d.example'],
          ['01632 960 118', '+44 1632'],
        ],
      ),
    ).toEqual(['email', 'telephone']);
    expect(guess(['mail', 'email'])).toEqual(['email', null]);
    expect(guess(['number'], [['4711', '4712']])).toEqual([null]);
  });
});

describe('a line', () => {
  const reading = {
    columns: ['name', 'email', 'own.insured', 'asset.length', null, 'usualPerson'],
    fields: new Map(FIELDS.map((field) => [field.key, field])),
    dayOrder: 'day first' as const,
    turnsNames: false,
    people: new Map([
      ['a quill', 'ayesha'],
      ['tomas', null],
    ]),
  };

  it('is read cell by cell, and each that can’t be has its sentence', () => {
    expect(readRow(['Nell Iddon', 'n@b.example', '28/02/2027', '9,4', 'x', 'A. Quill'], reading)).toEqual({
      problems: [],
      values: {
        ...{ name: 'Nell Iddon', email: 'n@b.example', 'own.insured': '2027-02-28', 'asset.length': 9.4 },
        usualPerson: 'ayesha',
      },
    });
    expect(readRow(['', 'n at b', '31/02/2027', '1,234', '', 'Tomas', 'more'], reading).problems).toEqual([
      { column: null, message: 'It has 7 cells, the head only 6' },
      { column: 1, message: '“n at b” is no mail address' },
      { column: 2, message: '“31/02/2027”: there is no 31 February 2027' },
      { column: 3, message: '“1,234” can be 1234 or 1.234: write which' },
      { column: 0, message: 'The client is missing' },
    ]);
  });

  it.each([
    ['Iddon-Vane, Nell', 'Nell Iddon-Vane'],
    ['  Roe ,Mara ', 'Mara Roe'],
    ['Nell Iddon', 'Nell Iddon'],
    ['Lusk, Piran, and Co', 'Lusk, Piran, and Co'],
    ['Lusk,', 'Lusk,'],
  ])('puts the first name of “%s” first only where that is asked for', (written, turned) => {
    const cells = [written, '', '', '', '', ''];
    expect(readRow(cells, { ...reading, turnsNames: true }).values['name']).toBe(turned);
    expect(readRow(cells, reading).values['name']).toBe(written.trim());
  });

  it('says so where a name is one too many to be told apart', () => {
    const cells = ['Nell', '', '', '', '', 'Somebody Else'];
    expect(readRow(cells, reading).problems).toMatchObject([
      { column: 5, message: expect.stringContaining('too many names') },
    ]);
  });

  it('is never a fault, whatever stands in it', () => {
    fc.assert(
      fc.property(fc.array(fc.string(), { maxLength: 9 }), (cells) => {
        const { problems } = readRow(cells, reading);
        expect(problems.every(({ message }) => message.length > 5)).toBe(true);
      }),
    );
  });
});
