import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { plainWeek } from '../people/week-hours.ts';
import { type AssignmentRule, assign } from './assignment.ts';
import { NOTHING_ASKED } from './availability.ts';
import { readList, sayList } from './list-text.ts';
import { goesOnAfter, inListOrder, type Listed, listedTwice, placeInList } from './listed.ts';
import { peopleHere } from './people-here.ts';
import { handedOn, namedFrom } from './people-in-rule.ts';
import { sayWhy } from './why-words.ts';

const TODAY = dayOfIso('2026-11-24');
const PEOPLE = [
  { id: 'j', name: 'Joss Penhale' },
  { id: 'k', name: 'Kit Sorrell' },
  { id: 't', name: 'Tamsin Wray' },
];
const nameOf = (id: string) => PEOPLE.find((one) => one.id === id)?.name ?? '?';
const FIRST = dayOfIso('2026-01-01');
/** Lines of a few days with gaps of none to some between them, in order. */
const list = fc
  .array(fc.tuple(fc.integer({ min: 0, max: 9 }), fc.integer({ min: 1, max: 40 }), fc.constantFrom('j', 'k', 't')), {
    minLength: 1,
    maxLength: 40,
  })
  .map((lines) => {
    let day = FIRST;
    return inListOrder(
      lines.map(([gap, days, personId]): Listed => {
        const from = day + gap;
        day = from + days;
        return { from: isoOfDay(from), to: isoOfDay(day - 1), personId };
      }),
    );
  });
const read = (text: string, of: Partial<Parameters<typeof readList>[1]> = {}) =>
  readList(text, { today: TODAY, people: PEOPLE, holds: 'day', dayFirst: null, ...of });
const lines = (text: string, of: Partial<Parameters<typeof readList>[1]> = {}) =>
  read(text, of).list.map(({ from, to, personId }) => `${from}${to === from ? '' : `/${to}`} ${personId}`);

describe('a list of who has which days', () => {
  it('finds the line of every day, and tells where a day without one stands', () => {
    fc.assert(
      fc.property(list, fc.integer({ min: -20, max: 2000 }), (all, n) => {
        const date = isoOfDay(FIRST + n);
        const found = placeInList(all, FIRST + n);
        const line = all.findIndex(({ from, to }) => from <= date && date <= to);
        if (line >= 0) expect(found).toEqual({ kind: 'on it', at: line });
        else {
          const [first, last] = [all[0]?.from ?? '', all.at(-1)?.to ?? ''];
          expect(found.kind).toBe(date < first ? 'before' : date > last ? 'after' : 'between');
        }
      }),
    );
    expect(() => placeInList([], FIRST)).toThrow(RangeError);
  });

  it('is written as lines that are read back as the same, and has no day twice', () => {
    fc.assert(
      fc.property(list, (all) => {
        const found = read(sayList(all, PEOPLE));
        expect(found.faults).toEqual([]);
        expect(found.list).toEqual(all);
        expect(listedTwice(found.list)).toBeNull();
      }),
    );
  });

  it('goes to somebody else from a day on, and what lies before stays', () => {
    fc.assert(
      fc.property(list, fc.constantFrom('k', 't', null), fc.integer({ min: 0, max: 300 }), (all, to, n) => {
        const today = FIRST + n;
        const rule: AssignmentRule = { v: 1, kind: 'listed', list: all, goesOn: goesOnAfter(all), cover: 'next' };
        const after = handedOn(rule, 'j', to, today, () => 0);
        if (after.kind !== 'listed') {
          expect(to).toBeNull();
          return;
        }
        expect(namedFrom(after, today).has('j')).toBe(false);
        const whose = (of: readonly Listed[], day: number) => {
          const place = placeInList(of, day);
          return place.kind === 'on it' ? of[place.at]?.personId : undefined;
        };
        for (let day = FIRST; day < FIRST + 340; day += 3) {
          const before = whose(all, day);
          expect(whose(after.list, day)).toBe(before === 'j' && day >= today ? (to ?? undefined) : before);
        }
      }),
    );
  });

  const week = plainWeek(450, [1, 2, 3, 4, 5]);
  const crew = PEOPLE.map(({ id }) => ({
    ...{
      id,
      roles: [],
      team: null,
      weeks: [week],
      weeksFrom: '2026-01-01',
      shifts: [],
      shiftChanges: [],
      worksFrom: null,
      worksUntil: null,
    },
    ...{ tickets: [], deputyId: null },
    leave: id === 'k' ? [{ from: '2026-12-02', to: '2026-12-02', half: null }] : [],
  }));
  const whoOn = (date: string, rest: Partial<Extract<AssignmentRule, { kind: 'listed' }>> = {}) => {
    const rule: AssignmentRule = {
      ...{ v: 1, kind: 'listed', goesOn: null, cover: 'next' },
      list: read('30 Nov to 4 Dec, Kit\n7 Dec to 11 Dec, Joss\n15 Dec, Tamsin').list,
      ...rest,
    };
    const found = assign(rule, {
      ...{
        nominal: dayOfIso(date),
        on: dayOfIso(date),
        estimateMinutes: 30,
        asked: NOTHING_ASKED,
        usualPersonId: null,
      },
      ...{ people: peopleHere(crew), datesBetween: (after, upTo) => upTo - after },
      loadOf: () => ({ minutes: 0, capacity: 2250, lastHad: null }),
    });
    return `${found.kind === 'one' ? found.personId : 'nobody'}: ${sayWhy(found, nameOf, TODAY)}`;
  };

  it('gives each date to whoever stands there, the next of it where that one is away, and beyond it to turns or nobody', () => {
    expect(whoOn('2026-12-01')).toBe('k: as listed');
    expect(whoOn('2026-12-02')).toBe('j: Kit Sorrell is away until Wed 2 Dec, Joss Penhale instead');
    expect(whoOn('2026-11-27')).toBe('nobody: the list begins later');
    expect(whoOn('2026-12-14')).toBe('nobody: not on the list');
    expect(whoOn('2026-12-16')).toBe('nobody: the list ends before it');
    const goesOn = goesOnAfter(read('30 Nov, Kit\n7 Dec, Joss\n14 Dec, Tamsin', { holds: 'week' }).list);
    expect(goesOn).toEqual({
      ...{ length: { per: 'week', on: 1 }, swaps: [] },
      rosters: [{ from: '2026-12-21', people: ['k', 'j', 't'] }],
    });
    expect(whoOn('2026-12-30', { goesOn })).toBe('j: turn 2 of 3');
  });
});

describe('the text of a list', () => {
  it.each<[string, string[], Partial<Parameters<typeof readList>[1]>?]>([
    ['30 Nov Kit\n1 Dec Joss', ['2026-11-30 k', '2026-12-01 j']],
    ['Kit\t30 Nov\nTamsin Wray\tMon 7 December 2026', ['2026-11-30 k', '2026-12-07 t']],
    // A first line names the columns; several days of one person in a row are one line.
    ['Date,Who\n2026-12-01,kit\n2026-12-02,kit\n\n2026-12-03,joss', ['2026-12-01/2026-12-02 k', '2026-12-03 j']],
    // Without years: the first is the nearest to today, each further the next.
    ['9 Nov: Kit\n1 Feb: Joss\n1 Dec: Tamsin', ['2026-11-09 k', '2027-02-01 j', '2027-12-01 t']],
    ['30 Nov – 4 Dec; Kit\n7 Dec to 11 Dec; Joss', ['2026-11-30/2026-12-04 k', '2026-12-07/2026-12-11 j']],
    ['30 Nov\t4 Dec\tKit', ['2026-11-30/2026-12-04 k']],
    ['28 Dec to 3 Jan, Kit', ['2026-12-28/2027-01-03 k']],
    ['week 49\tKit\nW1 2027\tJoss', ['2026-11-30/2026-12-06 k', '2027-01-04/2027-01-10 j']],
    ['30 Nov, Kit\n7 Dec, Joss', ['2026-11-30/2026-12-06 k', '2026-12-07/2026-12-13 j'], { holds: 'week' }],
    // Numbers whose order one of them tells for all, or that is settled.
    ['30/11/2026, Kit\n1/12/2026, Joss', ['2026-11-30 k', '2026-12-01 j']],
    ['12/1/26, Kit', ['2026-12-01 k'], { dayFirst: false }],
    // One that has its year first says nothing of the order of others; one whose first number is no month says its own.
    ['2026-11-30, Kit\n5/5/2027, Joss\n30/12/2026, Tamsin', ['2026-11-30 k', '2026-12-30 t', '2027-05-05 j']],
    ['\tKit\tJoss\n30 Nov\tx\t\n1 Dec\t\tx', ['2026-11-30 k', '2026-12-01 j']],
    ['\t30 Nov\t1 Dec\nKit\t1\t\nJoss\t\t✓', ['2026-11-30 k', '2026-12-01 j']],
  ])('%j', (text, expected, of) => {
    expect(read(text, of).faults).toEqual([]);
    expect(lines(text, of)).toEqual(expected);
  });

  it.each<[string, number, string, string?]>([
    ['30 Nov, Kit\n1 Dec, Jos Penhale', 2, 'Nobody here is called “Jos Penhale”.', 'Joss Penhale'],
    ['30 Nov Kit\nKit', 2, 'There is no day in “Kit”: write it like “30 Nov, Kit”.'],
    ['30 Nov', 1, 'There is no name beside “30 Nov”.'],
    ['Tue 30 Nov 2026, Kit', 1, '30 Nov 2026 is a Mon, not a Tue: put one of them right.'],
    ['30 Nov, Kit\n30 Nov 2026, Joss', 2, '30 Nov 2026 is Kit Sorrell’s already, by line 1: one person has a day.'],
    ['30 Nov, Kit\n30 Nov 2026, Kit', 2, '30 Nov 2026 stands in line 1 already.'],
    ['3/4/2027, Kit', 1, '“3/4/2027” may have the day first or the month: write the month as a word, or 2026-11-30.'],
    [
      '2026-11-30, Kit\n3/4/2027, Joss',
      2,
      '“3/4/2027” may have the day first or the month: write the month as a word, or 2026-11-30.',
    ],
    ['\tKit\tJoss\n30 Nov\tx\tx', 2, '30 Nov 2026 is Kit Sorrell’s already, by line 2: one person has a day.'],
    ['5 Dec 2026 to 1 Dec 2026, Kit', 1, '1 Dec 2026 lies before 5 Dec 2026.'],
    ['week 54, Kit', 1, 'There is no week 54.'],
  ])('%j is told by its line', (text, line, message, suggestion) => {
    expect(read(text).faults[0]).toEqual({ line, message, suggestion: suggestion ?? null });
  });

  it('is read in a moment, however long and whatever it is, and says where it is too long', () => {
    const day = (n: number) => isoOfDay(FIRST + n);
    const long = Array.from({ length: 1500 }, (_, i) => `${day(2 * i)}, ${PEOPLE[i % 3]?.name}`).join('\n');
    expect(read(long).faults).toEqual([]);
    expect(read(`${long}\n1 Jan 2040, Kit`).faults[0]?.message).toBe(
      'A list has 1500 lines at most: leave out what is over.',
    );
    const grid = ['\tKit\tJoss', ...Array.from({ length: 1499 }, (_, i) => `${day(i)}\t${i % 2 ? 'x\t' : '\tx'}`)].join(
      '\n',
    );
    expect(read(grid).list).toHaveLength(1499);
    // A line without bound would take minutes.
    expect(read(Array.from({ length: 200 }, () => ' a'.repeat(2000)).join('\n')).list).toEqual([]);
  });

  it('may mean weeks where all days fall on one weekday, and takes any text without falling over', () => {
    expect(read('30 Nov, Kit\n7 Dec, Joss').mayBeWeeks).toBe(true);
    expect(read('30 Nov, Kit\n1 Dec, Joss').mayBeWeeks).toBe(false);
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...'30 Nov,\t\n;–Kit to w4/2026'.split(''), 'Kit', '30 Nov'), { maxLength: 60 }),
        (parts) => {
          const { list: found, faults } = read(parts.join(''));
          if (faults.length === 0) expect(listedTwice(found)).toBeNull();
        },
      ),
    );
  });
});
