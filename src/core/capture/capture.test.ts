import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { readCapture, subjectsSaid } from './capture.ts';
import { plainWords } from './words.ts';

/** A Tuesday. */
const today = dayOfIso('2026-11-24');
const names = {
  people: ['Bram Hollis', 'Ayesha Quill', 'Kit Sorrell', 'Kit Marlowe', 'Ines Calloway'].map((name) => ({ name })),
  subjects: ['Crane 1', 'Crane 12', 'Fuel dock', 'Quiet Harriet', 'Curlew’s Cry', 'Anselm Foyle'].map((name) => ({
    name,
  })),
};

function read(text: string, keep: readonly string[] = []) {
  const { on, person, about, parts, offer, ...rest } = readCapture(text, today, names, new Set(keep));
  return { ...rest, on: on && isoOfDay(on), person: person?.name ?? null, about: about?.name ?? null };
}

const plain = {
  on: null,
  isBy: false,
  startTime: null,
  dueTime: null,
  person: null,
  about: null,
  estimateMinutes: null,
};

describe('a captured line', () => {
  it('is understood part by part', () => {
    expect(read('ring the crane firm friday 10:00 for Crane 1 to Bram 20 min')).toEqual({
      ...plain,
      title: 'Ring the crane firm',
      on: '2026-11-27',
      startTime: '10:00',
      about: 'Crane 1',
      person: 'Bram Hollis',
      estimateMinutes: 20,
    });
  });

  it.each([
    ['today', '2026-11-24'],
    ['tomorrow', '2026-11-25'],
    ['fri', '2026-11-27'],
    ['on Friday', '2026-11-27'],
    ['tue', '2026-12-01'],
    ['next wed', '2026-12-02'],
    ['next week', '2026-11-30'],
    ['3 dec', '2026-12-03'],
    ['dec 3', '2026-12-03'],
    ['3rd of December', '2026-12-03'],
    ['Thu 3 Dec', '2026-12-03'],
    ['3 mar', '2027-03-03'],
    ['14 feb 2028', '2028-02-14'],
    ['2026-12-31', '2026-12-31'],
    ['in 3 days', '2026-11-27'],
    ['in two weeks', '2026-12-08'],
    ['in a fortnight', '2026-12-08'],
    ['next month', '2026-12-01'],
    ['wendesday', '2026-11-25'],
  ])('reads the day in “paint the shed %s”', (words, on) => {
    expect(read(`paint the shed ${words}`)).toEqual({ ...plain, title: 'Paint the shed', on });
    expect(read(`${words} paint the shed`)).toEqual({ ...plain, title: 'Paint the shed', on });
  });

  it.each([
    ['14:00', '14:00', null],
    ['at 9', '09:00', null],
    ['at 3', '15:00', null],
    ['at 9-5', '09:00', '17:00'],
    ['at 9.30', '09:30', null],
    ['9am', '09:00', null],
    ['2:30pm', '14:30', null],
    ['12am', '00:00', null],
    ['noon', '12:00', null],
    ['10:00-11:30', '10:00', '11:30'],
    ['from 10-12', '10:00', '12:00'],
    ['by 16:00', null, '16:00'],
  ])('reads the time in “walk the quay %s”', (words, startTime, dueTime) => {
    expect(read(`walk the quay ${words}`)).toMatchObject({ title: 'Walk the quay', startTime, dueTime });
  });

  it.each([
    ['45 min', 45],
    ['90m', 90],
    ['1 h 30', 90],
    ['1.5 hours', 90],
    ['for 2 hours', 120],
    ['half an hour', 30],
    ['an hour', 60],
  ])('reads the estimate in “wash down %s”', (words, estimateMinutes) => {
    expect(read(`wash down ${words}`)).toEqual({ ...plain, title: 'Wash down', estimateMinutes });
  });

  it('tells by a day from on it', () => {
    expect(read('send the letters by fri')).toMatchObject({ on: '2026-11-27', isBy: true });
    expect(read('send the letters fri')).toMatchObject({ on: '2026-11-27', isBy: false });
  });

  it('takes the longest name that fits, with either apostrophe', () => {
    expect(read('grease for Crane 12')).toMatchObject({ about: 'Crane 12', title: 'Grease' });
    expect(read("key for curlew's cry")).toMatchObject({ about: 'Curlew’s Cry', title: 'Key' });
  });

  it.each([
    'walk to the fuel dock',
    'to whom it may concern',
    'look for cracks',
    'call 3 members',
    'read page 12',
    'order 2 fenders',
    'talk to Kit about ropes',
    'Plan B',
    'check 3.5 bar',
  ])('leaves “%s” as it is', (text) => {
    expect(read(text)).toEqual({ ...plain, title: text.charAt(0).toUpperCase() + text.slice(1) });
  });

  it('knows two of one first name apart by the last', () => {
    expect(read('ropes to Marlowe').person).toBe('Kit Marlowe');
    expect(read('ropes to Kit Sorrell').person).toBe('Kit Sorrell');
  });

  it('lets the later of two of a kind count, and keeps the earlier in the title', () => {
    expect(read('move friday lift to Ayesha monday')).toMatchObject({
      title: 'Move friday lift',
      on: '2026-11-30',
      person: 'Ayesha Quill',
    });
  });

  it('leaves in the title what was taken back into it', () => {
    expect(read('sun deck wash')).toMatchObject({ title: 'Deck wash', on: '2026-11-29' });
    expect(read('sun deck wash', ['sun'])).toMatchObject({ title: 'Sun deck wash', on: null });
    expect(read('give keys to bram fri', ['to bram'])).toMatchObject({
      title: 'Give keys to bram',
      person: null,
      on: '2026-11-27',
    });
  });

  it('offers names as they begin', () => {
    const offered = (text: string) => readCapture(text, today, names).offer?.choices.map(({ one }) => one.name) ?? null;
    expect(offered('ring to k')).toEqual(['Kit Marlowe', 'Kit Sorrell']);
    expect(offered('ring for cra')).toEqual(['Crane 1', 'Crane 12']);
    expect(offered('ring for harr')).toEqual(['Quiet Harriet']);
    expect(offered('ring for Crane 1')).toEqual(['Crane 1', 'Crane 12']);
    expect(offered('ring to bram hollis')).toBeNull();
    expect(offered("key for curlew's cry")).toBeNull();
    expect(offered('ring to ')).toBeNull();
    expect(offered('ring zed')).toBeNull();
  });

  it('says where it may name a client or an asset, so that these can be looked up first', () => {
    expect(subjectsSaid('ring about the ropes')).toEqual([]);
    expect(subjectsSaid('ropes for Curlew’s Cry, friday')).toEqual([["curlew's", 'cry', 'friday']]);
    expect(subjectsSaid('look for cracks for Crane 12')).toEqual([
      ['cracks', 'for', 'crane', '12'],
      ['crane', '12'],
    ]);
    expect(subjectsSaid('wait for')).toEqual([]);
    expect(subjectsSaid('for a b c d e f g h i')[0]).toHaveLength(7);
    expect(subjectsSaid('for x '.repeat(30))).toHaveLength(8);
  });

  it('reads the same with the names looked up as with all of them', () => {
    const word = fc.constantFrom(
      'for',
      'to',
      'crane',
      '1',
      '12',
      'fuel',
      'dock',
      'bram',
      'fri',
      'Quiet',
      'Harriet',
      'x',
    );
    fc.assert(
      fc.property(fc.array(word, { maxLength: 12 }), (typed) => {
        const text = typed.join(' ');
        const whole = subjectsSaid(text).flatMap((said) => said.map((_, i) => said.slice(0, i + 1).join(' ')));
        const found = names.subjects.filter(({ name }) => whole.includes(plainWords(name).join(' ')));
        const { offer: _, ...all } = readCapture(text, today, names);
        const { offer: __, ...few } = readCapture(text, today, { ...names, subjects: found });
        expect(few).toEqual(all);
      }),
    );
  });

  it('says where each part stands', () => {
    const text = 'ring fri to Bram, 20 min';
    expect(readCapture(text, today, names).parts.map(({ kind, at, end }) => [kind, text.slice(at, end)])).toEqual([
      ['when', 'fri'],
      ['who', 'to Bram,'],
      ['estimate', '20 min'],
    ]);
  });

  it('never loses a word, and never fails, whatever is typed', () => {
    const word = fc.constantFrom(
      'to',
      'for',
      'by',
      'at',
      'next',
      'in',
      '3',
      'dec',
      'fri',
      'bram',
      'crane',
      '1',
      '20',
      'min',
      'zinc',
      '–',
      '10:00',
      'an',
      'hour',
      '99:99',
    );
    fc.assert(
      fc.property(fc.array(word, { maxLength: 12 }), (typed) => {
        const text = typed.join(' ');
        const { title, parts } = readCapture(text, today, names);
        const letters = (s: string) => [...s.toLowerCase().replace(/[\s]/g, '')].sort().join('');
        expect(letters(title + parts.map((part) => part.text).join(''))).toBe(letters(text));
      }),
    );
  });
});
