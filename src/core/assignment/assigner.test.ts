import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { WEEKDAYS_ONLY } from '../calendar/working-calendar.ts';
import { mondayOf } from '../civil-date/civil-day.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { plainWeek } from '../people/week-hours.ts';
import { isDated, planDays } from '../planning/plan.ts';
import type { PlannedSchedule } from '../planning/schedule-plan.ts';
import { PLAIN_TIMING } from '../planning/timing.ts';
import { occurrenceSeries } from '../recurrence/occurrences.ts';
import { parsePhrase } from '../recurrence/phrase/reader.ts';
import { type AssigningContext, assigner } from './assigner.ts';
import type { AssignmentRule } from './assignment.ts';
import { Loads } from './loads.ts';
import { type Colleague, peopleHere } from './people-here.ts';
import { datesBetweenOf } from './turn-dates.ts';

const START = '2026-11-02';
const TODAY = dayOfIso('2026-11-24');
const colleague = (id: string, of: Partial<Colleague> = {}): Colleague => ({
  ...{ id, roles: ['crew'], team: null, weeks: [plainWeek(450, [1, 2, 3, 4, 5])], weeksFrom: START },
  ...{ shifts: [], shiftChanges: [], worksFrom: null, worksUntil: null, leave: [], tickets: [], deputyId: null },
  ...of,
});
const CREW = ['a', 'b', 'c'].map((id) => colleague(id));
const planned = (phrase: string, rest: Partial<PlannedSchedule> = {}): PlannedSchedule => ({
  recurrence: parsePhrase(phrase, { start: START }),
  timing: PLAIN_TIMING,
  ...rest,
});
function contextOf(
  schedule: PlannedSchedule,
  crew = CREW,
  of: Partial<AssigningContext> = {},
  rule: AssignmentRule = EACH_TIME,
): AssigningContext {
  const people = peopleHere(crew);
  return {
    ...{ calendar: WEEKDAYS_ONLY, people, usualPersonId: null, estimateMinutes: 60, tickets: [] },
    datesBetween: datesBetweenOf(schedule, WEEKDAYS_ONLY, rule),
    loads: new Loads(people.workers, () => false, []),
    ...of,
  };
}
const EACH_TIME: Extract<AssignmentRule, { kind: 'inTurn' }> = {
  ...{ v: 1, kind: 'inTurn', cover: 'next' },
  turns: { length: { per: 'occurrence' }, rosters: [{ from: START, people: ['a', 'b', 'c'] }], swaps: [] },
};
function whose(schedule: PlannedSchedule, rule: AssignmentRule, from: number, to: number, crew = CREW) {
  const assign = assigner(rule, contextOf(schedule, crew, {}, rule));
  return planDays(schedule, WEEKDAYS_ONLY, from, to)
    .filter(isDated)
    .map((one) => {
      const given = assign(one);
      return [isoOfDay(one.nominal).slice(5), given.kind === 'one' ? given.personId : '–'] as const;
    });
}
const said = (pairs: readonly (readonly [string, string])[]) => pairs.map((pair) => pair.join(' '));

describe('who has the dates of a schedule', () => {
  it('takes turns by the dates of the rule: one that is skipped or moved uses its turn up', () => {
    const mondays = planned('every Monday', {
      exceptions: [
        { kind: 'skip', date: '2026-11-09' },
        { kind: 'move', date: '2026-11-16', to: '2026-11-18' },
        { kind: 'add', date: '2026-11-20' },
        { kind: 'change', date: '2026-11-30', change: { assigneeId: 'c' } },
      ],
    });
    expect(said(whose(mondays, EACH_TIME, dayOfIso(START), dayOfIso('2026-12-07')))).toEqual([
      '11-02 a',
      '11-16 c',
      // What is put beside the rule is whoever's turn it is.
      '11-20 c',
      '11-23 a',
      // Named by hand, which changes nothing for the next.
      '11-30 c',
      '12-07 c',
    ]);
  });

  it('leaves the turn of a date that is skipped to the next one, where that is said', () => {
    const passing: AssignmentRule = {
      ...EACH_TIME,
      turns: { ...EACH_TIME.turns, length: { per: 'occurrence', skipped: 'passes on' } },
    };
    const skipped = (...dates: string[]) =>
      planned('every Monday', { exceptions: dates.map((date) => ({ kind: 'skip', date })) });
    const inWords = (schedule: PlannedSchedule, rule: AssignmentRule) =>
      said(whose(schedule, rule, dayOfIso(START), dayOfIso('2026-11-30')));
    expect(inWords(skipped('2026-11-09'), EACH_TIME)).toEqual(['11-02 a', '11-16 c', '11-23 a', '11-30 b']);
    expect(inWords(skipped('2026-11-09'), passing)).toEqual(['11-02 a', '11-16 b', '11-23 c', '11-30 a']);
    expect(inWords(skipped('2026-11-09', '2026-11-16'), passing)).toEqual(['11-02 a', '11-23 b', '11-30 c']);
  });

  it('goes on over a change of the rule', () => {
    const revised = planned('every Monday', {
      revisions: [
        {
          from: '2026-11-23',
          recurrence: parsePhrase('every Thursday', { start: '2026-11-23' }),
          timing: PLAIN_TIMING,
        },
      ],
    });
    expect(said(whose(revised, EACH_TIME, dayOfIso(START), dayOfIso('2026-12-04')))).toEqual([
      ...['11-02 a', '11-09 b', '11-16 c', '11-26 a', '12-03 b'],
    ]);
  });

  it('counts on from the last one where the next waits for it', () => {
    const follows = planned('2 weeks after completion', {
      last: {
        nominal: '2026-11-16',
        reached: { done: '2026-11-17', underWay: null, toCheck: null },
        count: 4,
      },
    });
    // The fifth of its series, and foreseen ones after it.
    expect(whose(follows, EACH_TIME, TODAY, TODAY + 40).map(([, id]) => id)).toEqual(['b', 'c', 'a']);
  });

  const phrases = [
    'every weekday',
    'every Monday',
    'every 3 days',
    '1st and 15th of each month',
    'first Monday of each month',
  ];
  it('does not depend on the window that is asked for, nor on what was asked before', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...phrases),
        fc.constantFrom('occurrence', 'week', 'month'),
        fc.integer({ min: -20, max: 200 }),
        fc.integer({ min: 0, max: 60 }),
        (phrase, per, offset, span) => {
          const schedule = planned(phrase);
          const length = per === 'week' ? ({ per, on: 1 } as const) : ({ per } as const);
          const rule: AssignmentRule = {
            ...{ v: 1, kind: 'inTurn', cover: 'next' },
            turns: { length, rosters: [{ from: START, people: ['a', 'b', 'c'] }], swaps: [] },
          };
          const [from, to] = [TODAY + offset, TODAY + offset + span];
          const wide = new Map(whose(schedule, rule, TODAY - 60, TODAY + 320));
          for (const [date, id] of whose(schedule, rule, from, to)) expect(id).toBe(wide.get(date));
        },
      ),
    );
  });

  it('counts dates as they are listed', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...phrases),
        fc.integer({ min: -30, max: 400 }),
        fc.integer({ min: -30, max: 400 }),
        (phrase, a, b) => {
          const schedule = planned(phrase);
          const [low, high] = [TODAY + Math.min(a, b), TODAY + Math.max(a, b)];
          const count = datesBetweenOf(schedule, WEEKDAYS_ONLY, EACH_TIME)(TODAY + a, TODAY + b);
          const listed =
            low === high ? 0 : [...occurrenceSeries(schedule.recurrence, WEEKDAYS_ONLY).between(low + 1, high)].length;
          expect(count).toBe(a <= b ? listed : 0 - listed);
        },
      ),
    );
  });

  it('gives to whoever has the least to do, each date on top of the ones before, and leaves what is settled', () => {
    const schedule = planned('every weekday');
    const rule: AssignmentRule = { v: 1, kind: 'leastToDo', group: { of: 'role', role: 'crew' } };
    const week = whose(schedule, rule, TODAY, TODAY + 3).map(([, id]) => id);
    // Four dates of a week: the fourth goes to whoever has not had it for longest.
    expect(new Set(week.slice(0, 3)).size).toBe(3);
    expect(week[3]).toBe(week[0]);
    const people = peopleHere(CREW);
    const busy = new Loads(people.workers, () => false, [
      { personId: 'a', monday: mondayOf(TODAY), minutes: 600 },
      { personId: 'b', monday: mondayOf(TODAY), minutes: 300 },
    ]);
    const why = { by: 'least to do', load: { personId: 'a', minutes: 0, capacity: 2250 }, passedOver: [] } as const;
    const settled = new Map([[TODAY, { personId: 'a', why }]]);
    const assign = assigner(rule, contextOf(schedule, CREW, { loads: busy, settled }));
    const [first, second] = planDays(schedule, WEEKDAYS_ONLY, TODAY, TODAY + 1)
      .filter(isDated)
      .map(assign);
    expect(first).toEqual({ kind: 'one', personId: 'a', why });
    expect(second).toMatchObject({ personId: 'c', why: { by: 'least to do' } });
  });

  it('is never somebody who is away, for any rule that covers', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 20 }), fc.integer({ min: 0, max: 10 }), (from, days) => {
        const leave = [{ from: isoOfDay(TODAY + from), to: isoOfDay(TODAY + from + days), half: null }];
        const crew = [colleague('a', { leave }), colleague('b'), colleague('c')];
        for (const [date, id] of whose(planned('every weekday'), EACH_TIME, TODAY, TODAY + 31, crew)) {
          const day = dayOfIso(`${date < '11' ? '2027' : '2026'}-${date}`);
          if (id === 'a') expect(day < TODAY + from || day > TODAY + from + days).toBe(true);
          expect(id).not.toBe('–');
        }
      }),
    );
  });
});
