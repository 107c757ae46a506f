import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOfIso } from '../civil-date/iso-date.ts';
import { plainWeek } from '../people/week-hours.ts';
import {
  type Assignment,
  type AssignmentContext,
  type AssignmentRule,
  assign,
  type Group,
  People,
} from './assignment.ts';
import { lackedTicket, minutesFor, NOTHING_ASKED, unavailableOn, type Worker } from './availability.ts';
import { COVERS, type Cover } from './cover.ts';
import { sayWhy } from './why-words.ts';

const TODAY = dayOfIso('2026-11-24');
const worker = (id: string, of: Partial<Worker> = {}): Worker => ({
  ...{ id, weeks: [plainWeek(450, [1, 2, 3, 4, 5])], weeksFrom: TODAY, worksFrom: null, worksUntil: null },
  ...{ leave: [], tickets: [], deputyId: null },
  ...of,
});
const CREW = [
  worker('joss'),
  worker('nadia', { leave: [{ from: dayOfIso('2026-11-23'), to: dayOfIso('2026-11-27') }], deputyId: 'wilf' }),
  worker('kit', { weeks: [plainWeek(450, [2, 3, 4, 5, 6])] }),
  worker('wilf', { deputyId: 'joss', tickets: [{ name: 'crane', until: dayOfIso('2026-12-31') }] }),
];

function context(of: Partial<AssignmentContext> = {}, crew: readonly Worker[] = CREW): AssignmentContext {
  return {
    ...{ nominal: TODAY, on: of.nominal ?? TODAY, estimateMinutes: 30, asked: NOTHING_ASKED },
    people: new People(new Map(crew.map((one) => [one.id, one])), (group: Group) =>
      group.of === 'people' ? group.ids : crew.map(({ id }) => id),
    ),
    usualPersonId: null,
    datesBetween: (after, upTo) => upTo - after,
    loadOf: (id) => ({ minutes: id.length * 60, capacity: 2250, lastHad: null }),
    ...of,
  };
}
const inTurn = (cover: Cover): AssignmentRule => ({
  v: 1,
  kind: 'inTurn',
  cover,
  turns: {
    length: { per: 'week', on: 1 },
    rosters: [{ from: '2026-11-16', people: ['joss', 'nadia', 'kit', 'wilf'] }],
    swaps: [],
  },
});
const CRANE = { tickets: ['crane'], isHoliday: false };
const EVERYBODY: Group = { of: 'role', role: 'dock crew' };
const said = (rule: AssignmentRule, of: Partial<AssignmentContext> = {}, crew = CREW) =>
  sayWhy(assign(rule, context(of, crew)), (id) => id, TODAY);
const whose = (assignment: Assignment) => (assignment.kind === 'one' ? assignment.personId : null);

describe('who does the work of a date', () => {
  it.each<[Cover, string | null, string]>([
    ['next', 'kit', 'nadia is away until Fri, kit instead'],
    ['deputy', 'wilf', 'nadia is away until Fri, wilf instead'],
    ['leastToDo', 'kit', 'nadia is away until Fri, kit instead'],
    ['nobody', null, 'nadia is away until Fri, and nobody else can'],
  ])('where it is the turn of somebody who is away, and %s covers', (cover, id, why) => {
    expect(whose(assign(inTurn(cover), context()))).toBe(id);
    expect(said(inTurn(cover))).toBe(why);
  });

  it('is whoever’s turn it is, by its place', () => {
    expect(said(inTurn('next'), { nominal: dayOfIso('2026-11-30'), on: dayOfIso('2026-12-01') })).toBe('turn 3 of 4');
    // A turn belongs to the date that the rule gives; who is there, to the day on which it is worked.
    expect(said(inTurn('next'), { nominal: dayOfIso('2026-11-30'), on: dayOfIso('2026-11-30') })).toBe(
      'kit is off, wilf instead',
    );
  });

  it('is never somebody without the ticket that it asks for, nor after that has run out', () => {
    const rule: AssignmentRule = { v: 1, kind: 'leastToDo', group: EVERYBODY };
    expect(whose(assign(rule, context({ asked: CRANE })))).toBe('wilf');
    const later = { asked: CRANE, nominal: dayOfIso('2027-01-04') };
    expect(assign(rule, context(later)).kind).toBe('nobody');
    expect(said({ v: 1, kind: 'person', personId: 'joss', daysOffToo: false, cover: 'nobody' }, { asked: CRANE })).toBe(
      'joss has no ticket “crane”, and nobody else can',
    );
  });

  it('is whoever has the least to do for their hours, then whoever has not had it for longest', () => {
    const rule: AssignmentRule = { v: 1, kind: 'leastToDo', group: { of: 'people', ids: ['joss', 'kit', 'wilf'] } };
    expect(said(rule)).toBe('least to do this week: 3 of 37.5 h');
    const loadOf = (id: string) => ({
      minutes: 600,
      capacity: id === 'joss' ? 1200 : 2400,
      lastHad: id === 'kit' ? TODAY - 1 : TODAY - 8,
    });
    expect(whose(assign(rule, context({ loadOf })))).toBe('wilf');
  });

  it('is the client’s usual person, and somebody else where there is none', () => {
    const rule: AssignmentRule = {
      ...{ v: 1, kind: 'usualPerson', otherwiseId: 'kit', daysOffToo: false, cover: 'deputy' },
    };
    expect(said(rule, { usualPersonId: 'joss' })).toBe('looks after the client');
    expect(said(rule, { usualPersonId: 'nadia' })).toBe('nadia is away until Fri, wilf instead');
    expect(said(rule)).toBe('always');
    expect(said({ ...rule, otherwiseId: null })).toBe('nobody is named yet');
  });

  it('is somebody who is named also on a day off of theirs, where that is said, and not while they are away', () => {
    const monday = dayOfIso('2026-11-30');
    const rule = { v: 1, kind: 'person', personId: 'kit', daysOffToo: true, cover: 'nobody' } as const;
    expect(said(rule, { nominal: monday })).toBe('always');
    expect(said({ ...rule, daysOffToo: false }, { nominal: monday })).toBe('kit is off, and nobody else can');
    expect(said({ ...rule, personId: 'nadia' })).toBe('nadia is away until Fri, and nobody else can');
  });

  it('is any one of those who are there', () => {
    expect(assign({ v: 1, kind: 'anyOf', group: EVERYBODY }, context())).toMatchObject({
      kind: 'anyOf',
      personIds: ['joss', 'kit', 'wilf'],
    });
  });

  it('is each of those who are there, those without hours on the day too where that is said, never who is away', () => {
    const ids = (daysOffToo: boolean, of: Partial<AssignmentContext> = {}) => {
      const found = assign({ v: 1, kind: 'eachOf', group: EVERYBODY, daysOffToo }, context(of));
      return found.kind === 'eachOf' ? found.personIds : found.kind;
    };
    const monday = { nominal: dayOfIso('2026-11-30'), on: dayOfIso('2026-11-30') };
    expect(ids(false)).toEqual(['joss', 'kit', 'wilf']);
    expect(ids(false, monday)).toEqual(['joss', 'nadia', 'wilf']);
    expect(ids(true, monday)).toEqual(['joss', 'nadia', 'kit', 'wilf']);
    expect(ids(true, { asked: CRANE })).toEqual(['wilf']);
    expect(ids(true, { asked: CRANE, ...monday, on: dayOfIso('2027-01-04') })).toBe('nobody');
    expect(said({ v: 1, kind: 'eachOf', group: EVERYBODY, daysOffToo: true }, monday)).toBe('one for each of 4 people');
  });

  it('ends where deputies stand in for each other in a ring', () => {
    const ring = [
      worker('a', { deputyId: 'b', worksUntil: dayOfIso('2026-11-01') }),
      worker('b', { deputyId: 'c', worksFrom: dayOfIso('2027-01-01') }),
      worker('c', { deputyId: 'b', leave: [{ from: dayOfIso('2026-11-24'), to: dayOfIso('2026-11-24') }] }),
    ];
    expect(said({ v: 1, kind: 'person', personId: 'a', daysOffToo: true, cover: 'deputy' }, {}, ring)).toBe(
      'a has left, b is not here yet and c is away until today, and nobody else can',
    );
  });

  const leave = fc.record({
    from: fc.integer({ min: TODAY - 5, max: TODAY + 5 }),
    to: fc.integer({ min: TODAY - 2, max: TODAY + 9 }),
  });
  const someone = (id: string) =>
    fc
      .record({
        leave: fc.array(leave, { maxLength: 2 }),
        days: fc.subarray([1, 2, 3, 4, 5, 6, 7] as const),
        deputyId: fc.constantFrom(null, 'a', 'b', 'c', 'd'),
        // Some hold it for good, some until a day among those that are asked for, some not at all.
        crane: fc.constantFrom([], [null], [TODAY + 4], [TODAY + 20]),
      })
      .map(({ leave: away, days, deputyId, crane }) =>
        worker(id, {
          ...{ leave: away, weeks: [plainWeek(450, days)], deputyId },
          tickets: crane.map((until) => ({ name: 'crane', until })),
        }),
      );
  const crew = fc.tuple(someone('a'), someone('b'), someone('c'), someone('d'));

  it('is never somebody who is not there or lacks a ticket, whoever covers and whatever day it is', () => {
    fc.assert(
      fc.property(
        crew,
        fc.constantFrom(...COVERS),
        fc.integer({ min: 0, max: 13 }),
        fc.boolean(),
        fc.constantFrom([], ['crane']),
        (all, cover, n, isHoliday, tickets) => {
          const on = TODAY + n;
          const asked = { tickets, isHoliday };
          const rules: AssignmentRule[] = [
            {
              ...(inTurn(cover) as Extract<AssignmentRule, { kind: 'inTurn' }>),
              turns: {
                length: { per: 'occurrence' },
                rosters: [{ from: '2026-11-20', people: ['a', 'b', 'c', 'a', 'd'] }],
                swaps: [],
              },
            },
            { v: 1, kind: 'person', personId: 'b', daysOffToo: false, cover },
            { v: 1, kind: 'leastToDo', group: EVERYBODY },
          ];
          for (const rule of rules) {
            const id = whose(assign(rule, context({ nominal: on, on, asked }, all)));
            const found = all.find((one) => one.id === id);
            if (id !== null) expect(found && unavailableOn(found, on, asked)).toBeNull();
            // Where nobody has it though the next one covers, nobody of the roster is there.
            else if (rule.kind === 'leastToDo' || (rule.kind === 'inTurn' && cover === 'next'))
              expect(all.every((one) => unavailableOn(one, on, asked) !== null)).toBe(true);
          }
          // Whoever has days without hours as well has them with their tickets alone.
          const always: AssignmentRule = { v: 1, kind: 'person', personId: 'b', daysOffToo: true, cover };
          const id = whose(assign(always, context({ nominal: on, on, asked }, all)));
          const found = all.find((one) => one.id === id);
          expect(found === undefined ? null : lackedTicket(found, tickets, on)).toBeNull();
        },
      ),
    );
  });
});

describe('the minutes that somebody has', () => {
  it.each([
    [[], 450],
    [[{ from: dayOfIso('2026-11-24'), to: dayOfIso('2026-11-24'), half: 'morning' as const }], 225],
    [
      [
        { from: dayOfIso('2026-11-20'), to: dayOfIso('2026-11-24'), half: 'afternoon' as const },
        { from: dayOfIso('2026-11-24'), to: dayOfIso('2026-11-24'), half: 'morning' as const },
      ],
      0,
    ],
    [[{ from: dayOfIso('2026-11-20'), to: dayOfIso('2026-11-30') }], 0],
  ])('are those of their week, less their leave', (away, minutes) => {
    expect(minutesFor(worker('a', { leave: away }), TODAY, { isHoliday: false })).toBe(minutes);
    expect(minutesFor(worker('a', { leave: away }), TODAY, { isHoliday: true })).toBe(0);
  });
});
