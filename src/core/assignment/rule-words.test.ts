import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { type AssignmentRule, type Group, givenTo } from './assignment.ts';
import { handedOn, namedFrom, namedIn } from './people-in-rule.ts';
import { goesOnWith, type TurnLength, turnOn } from './roster.ts';
import { callNames, type RuleReadingContext, readRule, sayRule } from './rule-words.ts';

const PEOPLE = [
  { id: 'j', name: 'Joss Penhale' },
  { id: 'k', name: 'Kit Sorrell' },
  { id: 't', name: 'Tamsin Wray' },
  { id: 'b', name: 'Bram Hollis' },
  { id: 'c', name: 'Bram Oakes' },
];
const TODAY = dayOfIso('2026-11-24');
const context: RuleReadingContext = {
  today: TODAY,
  people: PEOPLE,
  roles: ['dock crew', 'yard'],
  teams: ['Long Quay'],
  datesBetween: (after, upTo) => upTo - after,
};
const read = (text: string, before: AssignmentRule = givenTo(null)) => {
  const reading = readRule(text, before, context);
  return reading.kind === 'read' ? reading.rule : reading;
};
const turns = (people: readonly string[], length: TurnLength = { per: 'week', on: 1 }): AssignmentRule => ({
  ...{ v: 1, kind: 'inTurn', cover: 'next' },
  turns: { length, rosters: [{ from: '2026-11-16', people }], swaps: [] },
});

/** A week each, from this one on. */
const listed = (people: readonly string[]): AssignmentRule => ({
  ...{ v: 1, kind: 'listed', cover: 'next', goesOn: null },
  list: people.map((personId, i) => {
    const monday = dayOfIso('2026-11-23') + 7 * i;
    return { from: isoOfDay(monday), to: isoOfDay(monday + 6), personId };
  }),
});

describe('who does it in words', () => {
  it.each<[AssignmentRule, string]>([
    [givenTo(null), 'nobody yet'],
    [givenTo('j'), 'Joss Penhale'],
    [givenTo('gone'), 'somebody who is not here'],
    [turns(['j', 'k', 'b']), 'in turn: Joss, Kit, Bram Hollis, weekly'],
    [turns(['j'], { per: 'week', on: 4 }), 'in turn: Joss, weekly from Thu'],
    [turns(['j', 'k'], { per: 'occurrence' }), 'in turn: Joss, Kit, each time'],
    [listed(['j', 'k']), 'as listed until 6 Dec 2026: Joss and Kit'],
    [
      listed(['j', 'k', 't', 'b', 'c', 'j']),
      'as listed until 3 Jan 2027: Joss, Kit, Tamsin, Bram Hollis and Bram Oakes',
    ],
    [{ v: 1, kind: 'anyOf', group: { of: 'role', role: 'dock crew' } }, 'any of dock crew'],
    [{ v: 1, kind: 'eachOf', group: { of: 'team', team: 'Long Quay' }, daysOffToo: true }, 'each of team Long Quay'],
    [{ v: 1, kind: 'leastToDo', group: { of: 'people', ids: ['j', 'k'] } }, 'least to do of Joss and Kit'],
    [
      { v: 1, kind: 'usualPerson', otherwiseId: 'k', daysOffToo: true, cover: 'deputy' },
      'the client’s usual person, else Kit Sorrell',
    ],
  ])('%j is %s', (rule, words) => expect(sayRule(rule, context)).toBe(words));

  it.each<[string, object]>([
    ['kit', givenTo('k')],
    ['nobody', givenTo(null)],
    ['The client', { v: 1, kind: 'client' }],
    ['the client’s own contact', { v: 1, kind: 'client' }],
    ['In turn: kit, joss, monthly', { kind: 'inTurn', turns: { length: { per: 'month' } } }],
    ['each of everybody', { kind: 'eachOf', group: { of: 'everyone' } }],
    ['any of the yard', { kind: 'anyOf', group: { of: 'role', role: 'yard' } }],
    ['any one of kit, joss', { kind: 'anyOf', group: { of: 'people', ids: ['k', 'j'] } }],
    ['least to do of long quay', { kind: 'leastToDo', group: { of: 'team', team: 'Long Quay' } }],
    ['client’s usual person, else kit', { kind: 'usualPerson', otherwiseId: 'k' }],
  ])('“%s” is read', (text, rule) => expect(read(text)).toMatchObject(rule));

  it.each([
    ['bram', '“bram” may be Bram Hollis or Bram Oakes: write the whole name.', null],
    ['joss penhal', 'Nobody here is called “joss penhal”.', 'Joss Penhale'],
    ['tamsn', 'Nobody here is called “tamsn”.', 'Tamsin Wray'],
    ['in turn:', 'Say who takes turns: “in turn: Joss, Kit, weekly”.', null],
    ['as listed', 'A list of who has which days is changed on the schedule’s own page.', null],
    ['any of the yrd', 'No role, team or person here is called “the yrd”.', null],
  ])('“%s” is refused with why', (text, message, suggestion) => {
    const reading = read(text);
    expect(reading).toMatchObject({ kind: 'unread', message });
    if (suggestion !== null) expect(reading).toMatchObject({ suggestion });
  });

  const id = fc.constantFrom(...PEOPLE.map((one) => one.id));
  const group = fc.oneof<fc.Arbitrary<Group>[]>(
    fc.constantFrom('dock crew', 'yard').map((role) => ({ of: 'role', role })),
    fc.constant({ of: 'role', role: 'dock crew', onShift: true }),
    fc.constant({ of: 'team', team: 'Long Quay' }),
    fc.constant({ of: 'everyone' }),
    fc.uniqueArray(id, { minLength: 1 }).map((ids) => ({ of: 'people', ids })),
  );
  const length = fc.oneof<fc.Arbitrary<TurnLength>[]>(
    fc.constant({ per: 'occurrence' }),
    fc.constant({ per: 'month' }),
    fc.constantFrom(1, 2, 3, 4, 5, 6, 7).map((on) => ({ per: 'week', on: on as 1 })),
  );
  const people = fc.array(id, { minLength: 1, maxLength: 6 });
  const rule = fc.oneof<fc.Arbitrary<AssignmentRule>[]>(
    fc.option(id).map((one) => givenTo(one)),
    fc.tuple(people, length).map(([ids, per]) => turns(ids, per)),
    fc
      .tuple(group, fc.boolean())
      .map(([of, daysOffToo]): AssignmentRule => ({ v: 1, kind: 'eachOf', group: of, daysOffToo })),
    fc.tuple(fc.constantFrom('anyOf', 'leastToDo'), group).map(([kind, of]) => ({ v: 1, kind, group: of })),
    fc.constant<AssignmentRule>({ v: 1, kind: 'client' }),
    fc.option(id).map((otherwiseId) => ({ v: 1, kind: 'usualPerson', otherwiseId, daysOffToo: true, cover: 'deputy' })),
  );

  it('are read back as whom and how often they say, whatever was there before', () => {
    fc.assert(
      fc.property(rule, rule, (one, before) => {
        const found = read(sayRule(one, context), before);
        expect('kind' in found && found.kind).toBe(one.kind);
        if ('message' in found) return;
        expect(new Set(namedFrom(found, TODAY))).toEqual(new Set(namedFrom(one, TODAY)));
        if (one.kind === 'inTurn' && found.kind === 'inTurn') expect(found.turns.length).toEqual(one.turns.length);
        if ('group' in one) expect(found).toMatchObject({ group: one.group });
      }),
    );
  });

  it('leave a rule that they say already as it is', () => {
    fc.assert(
      fc.property(rule, (one) => {
        expect(read(sayRule(one, context), one)).toBe(one);
      }),
    );
    const list = listed(['j', 'k']);
    expect(read(sayRule(list, context), list)).toBe(list);
  });
});

describe('an order that is changed', () => {
  const id = fc.constantFrom<string>('a', 'b', 'c', 'd', 'e');
  const order = fc.uniqueArray(id, { minLength: 1 });
  const day = fc.integer({ min: TODAY, max: TODAY + 60 });
  const each = (after: number, upTo: number) => upTo - after;

  it('leaves the past as it was, and the turn with whoever has it, if they stay', () => {
    fc.assert(
      fc.property(order, order, day, fc.integer({ min: 1, max: 40 }), (before, after, on, back) => {
        const of = {
          length: { per: 'week', on: 1 } as const,
          rosters: [{ from: '2026-11-16', people: before }],
          swaps: [],
        };
        const next = goesOnWith(of, on, after, each);
        expect(turnOn(next, on - back, each).personId).toBe(turnOn(of, on - back, each).personId);
        const holder = turnOn(of, on, each).personId;
        if (after.includes(holder)) expect(turnOn(next, on, each).personId).toBe(holder);
      }),
    );
  });

  it('keeps everybody’s turns before a day where somebody joins at its end', () => {
    fc.assert(
      fc.property(order, day, fc.integer({ min: 1, max: 60 }), (before, on, back) => {
        const of = {
          length: { per: 'occurrence' } as const,
          rosters: [{ from: '2026-11-16', people: before }],
          swaps: [],
        };
        const joined = goesOnWith(of, on, [...before, 'z'] as string[], each);
        expect(turnOn(joined, on - back, each)).toEqual(turnOn(of, on - back, each));
      }),
    );
  });
});

describe('what somebody held', () => {
  it('is handed on from a day, and names nobody who is gone after it', () => {
    const rule = turns(['j', 'k', 't']);
    const handed = handedOn(rule, 'k', 'b', TODAY, context.datesBetween);
    expect([...namedFrom(handed, TODAY)].sort()).toEqual(['b', 'j', 't']);
    // What has been is theirs still.
    expect(namedIn(handed).has('k')).toBe(true);
    const at = (of: AssignmentRule, date: string) =>
      of.kind === 'inTurn' ? turnOn(of.turns, dayOfIso(date), context.datesBetween).personId : '';
    // Kit had the week of 23 November by the order.
    expect([at(rule, '2026-11-24'), at(handed, '2026-11-24'), at(handed, '2026-11-30')]).toEqual(['k', 'b', 't']);
    expect(handedOn(turns(['k']), 'k', null, TODAY, context.datesBetween)).toEqual(givenTo(null));
    expect(handedOn(givenTo('k'), 'k', 'j', TODAY, context.datesBetween)).toMatchObject({ personId: 'j' });
    expect(handedOn(givenTo('t'), 'k', 'j', TODAY, context.datesBetween)).toEqual(givenTo('t'));
  });

  it('calls people by their first names, unless two have the same', () => {
    expect([...callNames(PEOPLE).values()]).toEqual(['Joss', 'Kit', 'Tamsin', 'Bram Hollis', 'Bram Oakes']);
  });
});
