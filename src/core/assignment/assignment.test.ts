import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Weekday } from '../civil-date/civil-day.ts';
import { dayOfIso } from '../civil-date/iso-date.ts';
import type { Shift } from '../people/shifts.ts';
import { plainWeek } from '../people/week-hours.ts';
import {
  type Assignment,
  type AssignmentContext,
  type AssignmentRule,
  assign,
  type Group,
  People,
} from './assignment.ts';
import {
  canHaveWhile,
  lackedTicket,
  minutesFor,
  NOTHING_ASKED,
  unavailableOn,
  type Worker,
  workedDays,
} from './availability.ts';
import { COVERS, type Cover, LEAVE_COVERS, type LeaveCover } from './cover-choice.ts';
import { mayComeToDo } from './people-in-rule.ts';
import { sayWhy } from './why-words.ts';

const TODAY = dayOfIso('2026-11-24');
const worker = (id: string, of: Partial<Worker> = {}): Worker => ({
  ...{ id, weeks: [plainWeek(450, [1, 2, 3, 4, 5])], weeksFrom: TODAY, worksFrom: null, worksUntil: null },
  ...{ shifts: [], shiftChanges: new Map(), leave: [], tickets: [], deputyId: null },
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
const CRANE = { ...NOTHING_ASKED, tickets: ['crane'], isHoliday: false };
const EVERYBODY: Group = { of: 'role', role: 'dock crew' };
const said = (rule: AssignmentRule, of: Partial<AssignmentContext> = {}, crew = CREW) =>
  sayWhy(assign(rule, context(of, crew)), (id) => id, TODAY);
const whose = (assignment: Assignment) => (assignment.kind === 'one' ? assignment.personId : null);

describe('who does the work of a date', () => {
  it.each<[Cover, string | null, string]>([
    ['next', 'kit', 'nadia is away until Fri, kit instead'],
    ['deputy', 'wilf', 'nadia is away until Fri, wilf instead'],
    ['leastToDo', 'kit', 'nadia is away until Fri, kit instead'],
    ['nobody', null, 'nadia is away until Fri, and nobody takes over'],
  ])('where it is the turn of somebody who is away, and %s covers', (cover, id, why) => {
    expect(whose(assign(inTurn(cover), context()))).toBe(id);
    expect(said(inTurn(cover))).toBe(why);
  });

  it.each<[LeaveCover, Cover, string | null, string | null]>([
    [{ turns: 'deputy', name: null }, 'next', 'wilf', null],
    [{ turns: null, name: 'deputy' }, 'next', 'kit', 'wilf'],
    [{ turns: 'nobody', name: { personId: 'kit' } }, 'next', null, 'kit'],
    [{ turns: 'next', name: 'nobody' }, 'deputy', 'kit', null],
    // Whoever was chosen is away too: then whoever takes over for them.
    [{ turns: { personId: 'away' }, name: { personId: 'away' } }, 'nobody', 'joss', 'joss'],
  ])('is as %j chooses for their leave, before what the work says', (cover, ofRule, turn, name) => {
    const [from, to] = [dayOfIso('2026-11-23'), dayOfIso('2026-11-27')];
    const away = [{ from, to, cover }];
    const crew = [
      ...CREW.map((one) => (one.id === 'nadia' ? { ...one, leave: away } : one)),
      worker('away', { leave: [{ from, to }], deputyId: 'joss' }),
    ];
    const byName = { v: 1, kind: 'person', personId: 'nadia', daysOffToo: true, cover: 'nobody' } as const;
    expect(whose(assign(inTurn(ofRule), context({}, crew)))).toBe(turn);
    expect(whose(assign(byName, context({}, crew)))).toBe(name);
    for (const id of [turn, name])
      if (id !== null)
        expect([
          ...mayComeToDo(inTurn(ofRule), context({}, crew).people, null),
          ...mayComeToDo(byName, context({}, crew).people, null),
        ]).toContain(id);
    // On all other days it is as the work says.
    const monday = { nominal: dayOfIso('2026-12-21'), on: dayOfIso('2026-12-21') };
    expect(whose(assign(inTurn(ofRule), context(monday, crew)))).toBe('nadia');
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
      'joss has no ticket “crane”, and nobody takes over',
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
    expect(said({ ...rule, daysOffToo: false }, { nominal: monday })).toBe('kit is off, and nobody takes over');
    expect(said({ ...rule, personId: 'nadia' })).toBe('nadia is away until Fri, and nobody takes over');
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
      'a has left, b is not here yet and c is away until today, and nobody takes over',
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

  it('is nobody but those who may come to do it by its rule, whatever is chosen for somebody’s leave', () => {
    const choice = fc.constantFrom(null, ...LEAVE_COVERS, ...['a', 'b', 'c', 'd'].map((personId) => ({ personId })));
    const covers = fc.array(fc.record({ turns: choice, name: choice }), { minLength: 4, maxLength: 4 });
    fc.assert(
      fc.property(
        crew,
        covers,
        fc.constantFrom(...COVERS),
        fc.integer({ min: 0, max: 13 }),
        (all, chosen, cover, n) => {
          const people = all.map((one, i): Worker => {
            const cover = chosen[i];
            return cover === undefined ? one : { ...one, leave: one.leave.map((away) => ({ ...away, cover })) };
          });
          const on = TODAY + n;
          const roster = (...order: string[]): AssignmentRule => ({
            ...{ v: 1, kind: 'inTurn', cover },
            turns: { length: { per: 'occurrence' }, rosters: [{ from: '2026-11-20', people: order }], swaps: [] },
          });
          const rules: AssignmentRule[] = [
            roster('a', 'b'),
            { v: 1, kind: 'person', personId: 'a', daysOffToo: true, cover },
            { v: 1, kind: 'usualPerson', otherwiseId: null, daysOffToo: true, cover },
          ];
          for (const rule of rules) {
            const found = context({ nominal: on, on, usualPersonId: 'c' }, people);
            const id = whose(assign(rule, found));
            if (id !== null) expect([...mayComeToDo(rule, found.people, 'c')]).toContain(id);
          }
        },
      ),
      { numRuns: 400 },
    );
  });

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
          const asked = { ...NOTHING_ASKED, tickets, isHoliday };
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

describe('those of a role who are on shift', () => {
  const early = { from: '07:00', to: '15:00', breakMinutes: 30, role: null };
  const night = { from: '22:00', to: '06:00', breakMinutes: 0, role: 'crew' };
  const onWeekdays = (shift: Shift, of: Partial<Worker> = {}) => ({
    ...{ shifts: [{ ...shift, week: 0, weekdays: [1, 2, 3, 4, 5] as Weekday[] }] },
    ...of,
  });
  const crew = [
    worker('early', onWeekdays(early)),
    worker('night', onWeekdays(night)),
    worker('desk', onWeekdays({ ...early, role: 'office' })),
    worker('untold'),
  ];
  const onShift: AssignmentRule = { v: 1, kind: 'anyOf', group: { of: 'role', role: 'crew', onShift: true } };
  const whoIn = (from: number, to: number, of: Partial<AssignmentContext> = {}, all: readonly Worker[] = crew) => {
    const asked = { ...NOTHING_ASKED, ...of.asked, window: { from, to } };
    const found = assign(onShift, context({ ...of, asked }, all));
    return found.kind === 'anyOf' ? found.personIds : [];
  };

  it('are those whose shift in it lies while the work is to be done, that of the night before too', () => {
    expect(whoIn(480, 600)).toEqual(['early']);
    expect(whoIn(300, 330)).toEqual(['night']);
    expect(whoIn(900, 1320)).toEqual([]);
    expect(whoIn(0, 1440)).toEqual(['early', 'night']);
    // Saturday has the end of Friday's night.
    expect(whoIn(300, 330, { nominal: TODAY + 4 })).toEqual(['night']);
    expect(whoIn(300, 330, { nominal: TODAY + 5 })).toEqual([]);
  });

  it('are not those who are away, on a holiday, or without the ticket', () => {
    const [first, second] = crew as [Worker, Worker];
    const away = { ...second, leave: [{ from: TODAY - 1, to: TODAY - 1 }] };
    expect(whoIn(300, 330, {}, [first, away])).toEqual([]);
    expect(whoIn(480, 600, { asked: { ...NOTHING_ASKED, isHoliday: true } })).toEqual([]);
    expect(whoIn(300, 330, { asked: { ...NOTHING_ASKED, isHoliday: true } })).toEqual(['night']);
    expect(whoIn(300, 330, { asked: { ...NOTHING_ASKED, wasHoliday: true } })).toEqual([]);
    expect(whoIn(480, 600, { asked: { ...NOTHING_ASKED, tickets: ['crane'] } })).toEqual([]);
    const found = assign(onShift, context({ asked: { ...NOTHING_ASKED, window: { from: 1000, to: 1010 } } }, [first]));
    expect(sayWhy(found, (id) => id, TODAY)).toBe('early is not on shift, and nobody else can');
  });

  it('can have other work only while they are, where their hours say when they lie', () => {
    const [first, , , untold] = crew as [Worker, Worker, Worker, Worker];
    const at = (from: number, to: number) => ({ ...NOTHING_ASKED, window: { from, to } });
    expect([at(480, 600), at(900, 960), NOTHING_ASKED].map((asked) => canHaveWhile(first, TODAY, asked))).toEqual([
      ...[true, false, true],
    ]);
    expect(canHaveWhile(untold, TODAY, at(900, 960))).toBe(true);
    expect(canHaveWhile(untold, TODAY + 4, at(900, 960))).toBe(false);
  });

  it('follow what is said of a date instead, on a holiday too', () => {
    const [first] = crew as [Worker];
    const late = { from: '14:00', to: '18:00', breakMinutes: 0, role: null };
    const changed = {
      ...first,
      shiftChanges: new Map([
        [TODAY, [late]],
        [TODAY + 1, []],
        [TODAY + 4, [late]],
      ]),
    };
    expect([whoIn(480, 600, {}, [changed]), whoIn(900, 960, {}, [changed])]).toEqual([[], ['early']]);
    expect(minutesFor(changed, TODAY, { isHoliday: true })).toBe(240);
    expect([TODAY + 1, TODAY + 2, TODAY + 4].map((day) => minutesFor(changed, day, { isHoliday: false }))).toEqual([
      0, 450, 240,
    ]);
    expect(unavailableOn(changed, TODAY + 1, NOTHING_ASKED)).toEqual({ because: 'off' });
    expect(workedDays(changed, { from: TODAY, to: TODAY + 4 }, (day) => day < TODAY + 3)).toEqual({
      days: 3,
      holidays: 1,
    });
  });
});
