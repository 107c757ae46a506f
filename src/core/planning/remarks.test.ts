import { describe, expect, it } from 'vitest';
import { assigner } from '../assignment/assigner.ts';
import type { AssignmentRule } from '../assignment/assignment.ts';
import { Loads } from '../assignment/loads.ts';
import { type Colleague, peopleHere } from '../assignment/people-here.ts';
import { datesBetweenOf } from '../assignment/turn-dates.ts';
import { makeCalendar } from '../calendar/iso-calendar.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { plainWeek } from '../people/week-hours.ts';
import { monthsRule } from '../recurrence/generated.ts';
import type { MonthPoint, Recurrence, Rule } from '../recurrence/rule.ts';
import { outlook } from './outlook.ts';
import { namedFor } from './plan.ts';
import type { RemarkContext } from './remark.ts';
import { remarks } from './remarks.ts';
import type { PlannedSchedule } from './schedule-plan.ts';
import { PLAIN_TIMING } from './timing.ts';

const today = dayOfIso('2026-11-24');
const calendar = makeCalendar({
  workingWeekdays: [1, 2, 3, 4, 5],
  holidays: [
    { date: '2026-12-25', name: 'Christmas Day' },
    { date: '2026-12-28', name: 'Boxing Day (substitute)' },
    { date: '2027-01-01', name: 'New Year’s Day' },
  ],
});
const date = (day: number): MonthPoint => ({ kind: 'date', day });
/** All dates given to one person, or to nobody, but for those that say otherwise themselves. */
const given = (id: string | null): NonNullable<RemarkContext['who']> => ({
  nameOf: (name) => name,
  whose: (occurrence) => {
    const named = namedFor(occurrence);
    const personId = named === undefined ? id : named;
    return personId === null
      ? { kind: 'nobody', why: null }
      : { kind: 'one', personId, why: { by: 'name', passedOver: [] } };
  },
});

function say(rules: Rule[], rest: Partial<Recurrence> = {}, pauses: PlannedSchedule['pauses'] = []): string[] {
  const schedule: PlannedSchedule = {
    recurrence: { start: '2026-11-24', rules, end: { kind: 'never' }, dayOff: 'none', ...rest },
    timing: PLAIN_TIMING,
    pauses,
  };
  return remarks(schedule, outlook(schedule, calendar, today, 30), { calendar, today }).map(({ text }) => text);
}

describe('remarks on a plan', () => {
  it('are none where there is nothing to say', () => {
    expect(say([{ kind: 'weeks', every: 1, on: [3] }])).toEqual([]);
  });

  it('say whose ticket ends before dates that would be theirs, and where they go', () => {
    const schedule: PlannedSchedule = {
      recurrence: {
        start: '2026-11-24',
        rules: [{ kind: 'weeks', every: 4, on: [3] }],
        end: { kind: 'never' },
        dayOff: 'none',
      },
      timing: PLAIN_TIMING,
    };
    const ends = dayOfIso('2027-09-10');
    const crew = ['Bram', 'Selwyn', 'Gwen'].map(
      (id): Colleague => ({
        ...{ id, roles: ['yard'], team: null, weeks: [plainWeek(450, [1, 2, 3, 4, 5])], weeksFrom: '2026-11-24' },
        shifts: [],
        shiftChanges: [],
        ...{ worksFrom: null, worksUntil: null, leave: [], deputyId: null },
        tickets: id === 'Gwen' ? [] : [{ name: 'hoist', until: id === 'Selwyn' ? isoOfDay(ends) : null }],
      }),
    );
    const say = (rule: AssignmentRule, of = crew) => {
      const people = peopleHere(of);
      const whose = assigner(rule, {
        ...{ calendar, people, usualPersonId: null, estimateMinutes: 30, tickets: ['hoist'] },
        datesBetween: datesBetweenOf(schedule, calendar, rule),
        loads: new Loads(people.workers, () => false, []),
      });
      return remarks(schedule, outlook(schedule, calendar, today, 30), {
        ...{ calendar, today },
        who: { whose, nameOf: (id) => id },
      })
        .filter(({ kind }) => kind === 'no ticket')
        .map(({ text }) => text);
    };
    const toSelwyn: AssignmentRule = { v: 1, kind: 'person', personId: 'Selwyn', daysOffToo: true, cover: 'nobody' };
    expect(say(toSelwyn)).toEqual([
      'Selwyn holds the ticket “hoist” until Fri 10 Sep 2027: 2 dates after that go to nobody: Wed 29 Sep 2027 and Wed 27 Oct 2027.',
    ]);
    const covered = crew.map((one) => (one.id === 'Selwyn' ? { ...one, deputyId: 'Bram' } : one));
    expect(say({ ...toSelwyn, cover: 'deputy' }, covered)[0]).toContain('2 dates after that go to others');
    // Named, and never qualified; in a role that is nothing to remark on.
    expect(say({ ...toSelwyn, personId: 'Gwen' })[0]).toMatch(
      /^Gwen does not hold the ticket “hoist”: 1[34] dates go to nobody/,
    );
    expect(say({ v: 1, kind: 'anyOf', group: { of: 'role', role: 'yard' } })).toHaveLength(1);
  });

  it('say in which weeks somebody has more to do with it than they can, as far as those are made', () => {
    const schedule: PlannedSchedule = {
      recurrence: {
        start: '2026-11-24',
        rules: [{ kind: 'weeks', every: 1, on: [1, 3] }],
        end: { kind: 'never' },
        dayOff: 'none',
      },
      timing: PLAIN_TIMING,
    };
    const say = (minutes: number, madeTo = dayOfIso('2026-12-13')) =>
      remarks(schedule, outlook(schedule, calendar, today, 30), {
        ...{ calendar, today },
        who: { ...given('Kit'), load: { minutes, madeTo, of: () => ({ minutes: 2100, capacity: 2250 }) } },
      })
        .filter(({ kind }) => kind === 'over capacity')
        .map(({ text }) => text);
    expect(say(75)).toEqual([]);
    // This week has one date of it left, the others two; the week after the next two is not made yet.
    expect(say(90)).toEqual([
      'Kit has 38 h of work in the week of Mon 30 Nov with this, of 37.5 h that there are.',
      'Kit has 38 h of work in the week of Mon 7 Dec with this, of 37.5 h that there are.',
    ]);
    expect(say(900, dayOfIso('2026-11-28'))).toEqual([]);
  });

  it('say that what comes every so often passes its first date over, with the start that would not', () => {
    expect(say([{ kind: 'years', every: 5, months: [6], on: [date(1)], missing: 'last' }])).toEqual([
      'It first comes on Sun 1 Jun 2031: so often is counted from its start, Tue 24 Nov. Begun on Tue 1 Jun 2027, it would come that day.',
    ]);
    const late = (...asked: Parameters<typeof say>) =>
      say(...asked).filter((text) => text.startsWith('It first comes'));
    const everyOther: Rule = { kind: 'weeks', every: 2, on: [1] };
    expect(late([everyOther])[0]).toContain('It first comes on Mon 7 Dec:');
    expect(late([everyOther], { start: '2026-11-30' })).toEqual([]);
    // Begun long ago: it is in step already.
    expect(late([everyOther], { start: '2026-03-10' })).toEqual([]);
    expect(late([{ kind: 'weeks', every: 2, on: [3] }])).toEqual([]);
    expect(late([monthsRule([date(15)], { every: 3 })])[0]).toContain('It first comes on Mon 15 Feb 2027:');
    expect(late([monthsRule([date(28)], { every: 3 })])).toEqual([]);
  });

  it('name the dates that are moved, and count the rest', () => {
    const sentences = say([monthsRule([date(1), date(15)])], { dayOff: 'following' });
    expect(sentences).toHaveLength(1);
    expect(sentences[0]).toMatch(/^\d+ of the 24 are moved off a day off: Fri 1 Jan 2027, .* and \d+ more\.$/);
  });

  it('name the holidays that dates are left on', () => {
    expect(say([{ kind: 'years', every: 1, months: [12], on: [date(25)], missing: 'last' }])).toEqual([
      '1 date in the coming year lands on a day off: Fri 25 Dec (Christmas Day).',
    ]);
  });

  it('say what is skipped, in the right number', () => {
    expect(
      say([{ kind: 'years', every: 1, months: [12], on: [date(25)], missing: 'last' }], { dayOff: 'skip' })[0],
    ).toBe('1 date on a day off is skipped: Fri 25 Dec (Christmas Day).');
    expect(say([{ kind: 'weeks', every: 1, on: [5] }], { dayOff: 'skip' })[0]).toBe(
      '2 dates on days off are skipped: Fri 25 Dec (Christmas Day) and Fri 1 Jan 2027 (New Year’s Day).',
    );
  });

  it('say when dates fall together', () => {
    expect(say([{ kind: 'days', every: 1, except: [] }], { dayOff: 'following' }).join(' ')).toMatch(
      /\d+ dates would land on the same day as another/,
    );
  });

  it.each([
    [29, 'last', 'The 29th is missing in 1 of 12 months; the last day is taken instead.'],
    [30, 'next', 'The 30th is missing in 1 of 12 months; the 1st of the next month is taken instead.'],
    [31, 'omit', 'The 31st is missing in 5 of 12 months; those are left out.'],
  ] as const)('count the months without the %dth', (day, missing, words) => {
    expect(say([monthsRule([date(day)], { missing })])[0]).toBe(words);
  });

  it('say nothing of months that all have the day', () => {
    expect(say([monthsRule([date(31)], { months: [1, 3, 5] })], { dayOff: 'nearest' }).join(' ')).not.toContain(
      'missing',
    );
  });

  it.each([
    ['last', '29 February comes every four years; in the others the 28th is taken.'],
    ['next', '29 February comes every four years; in the others 1 March is taken.'],
    ['omit', '29 February comes every four years; in the others there is none.'],
  ] as const)('say what happens to 29 February with %s', (missing, words) => {
    expect(say([{ kind: 'years', every: 1, months: [2], on: [date(29)], missing }])[0]).toBe(words);
  });

  it('say that it has ended, or that nothing will be made', () => {
    const weekly: Rule[] = [{ kind: 'weeks', every: 1, on: [2] }];
    expect(say(weekly, { start: '2026-01-01', end: { kind: 'on', date: '2026-06-30' } })[0]).toBe(
      'It has ended: its last day was Tue 30 Jun.',
    );
    expect(say(weekly, { start: '2026-01-01', end: { kind: 'after', count: 5 } })[0]).toBe(
      'It has ended: all 5 times are in the past.',
    );
    expect(say(weekly, {}, [{ from: '2026-11-01', to: null }])[0]).toBe(
      'Nothing will be made: every date is skipped, closed or paused.',
    );
  });

  const planned = (
    rest: Partial<PlannedSchedule> = {},
    rules: Rule[] = [{ kind: 'weeks', every: 1, on: [3] }],
  ): PlannedSchedule => ({
    recurrence: { start: '2026-11-24', rules, end: { kind: 'never' }, dayOff: 'none' },
    timing: PLAIN_TIMING,
    ...rest,
  });
  const kinds = (schedule: PlannedSchedule, context: Partial<RemarkContext>) =>
    remarks(schedule, outlook(schedule, calendar, today, 30), { calendar, today, ...context });

  it('name the dates that nobody is to do', () => {
    expect(kinds(planned(), { who: given(null) })).toMatchObject([{ kind: 'nobody assigned', count: 52 }]);
    const once = planned({ exceptions: [{ kind: 'change', date: '2026-12-02', change: { assigneeId: null } }] });
    expect(kinds(once, { who: given('maud') })).toMatchObject([
      { kind: 'nobody assigned', count: 1, text: 'Nobody is to do it on Wed 2 Dec.' },
    ]);
    expect(kinds(planned(), { who: given('maud') })).toEqual([]);
  });

  it('count the days on which the same person has the same work twice', () => {
    const other = planned({}, [monthsRule([{ kind: 'weekday', nth: 1, weekday: 3 }])]);
    expect(kinds(planned(), { others: [other] })).toMatchObject([{ kind: 'twice a day', count: 12 }]);
  });

  it('tell when it appears too late to give notice', () => {
    const inTime = planned({ timing: { ...PLAIN_TIMING, appears: { amount: -7, unit: 'day' } } });
    const post = { name: 'by post', kind: 'post', onItsWay: { days: 2, unit: 'workingDay' } } as const;
    const hand = { name: 'by hand', kind: 'hand', onItsWay: { days: 0, unit: 'day' } } as const;
    const period = { days: 7, unit: 'day', countsReceipt: true, countsVisit: false } as const;
    const terms = { type: 'routine', period, ways: ['by post'] };
    // It appears a week before: by hand that is early enough, by post it is not.
    expect(kinds(inTime, { notice: { terms, ways: [post, hand] } })).toEqual([]);
    expect(kinds(inTime, { notice: { terms, ways: [post] } })).toMatchObject([{ kind: 'notice too short', count: 52 }]);
    expect(kinds(planned(), { notice: { terms, ways: [hand] } })).toMatchObject([
      {
        ...{ kind: 'notice too short', count: 52 },
        text: expect.stringContaining('A visit of the type routine is announced 7 days, that of the letter counted:'),
      },
    ]);
  });

  it('tell when a change changes nothing for two years', () => {
    const before = planned();
    const same = planned({ recurrence: { ...before.recurrence, end: { kind: 'on', date: '2032-01-01' } } });
    expect(kinds(same, { before })).toMatchObject([{ kind: 'no change' }]);
    const other = planned({}, [{ kind: 'weeks', every: 1, on: [4] }]);
    expect(kinds(other, { before }).map(({ kind }) => kind)).not.toContain('no change');
    expect(kinds(before, { before })).toEqual([]);
    const later = planned({ recurrence: { ...before.recurrence, end: { kind: 'on', date: '2028-06-01' } } });
    expect(kinds(later, { before }).map(({ kind }) => kind)).not.toContain('no change');
  });

  it('count the dates of a closed season', () => {
    const closed = { seasons: [{ from: '01-01', to: '01-31' }], dates: 'omit' } as const;
    expect(kinds(planned({ recurrence: { ...planned().recurrence, closed } }), {})).toMatchObject([
      {
        kind: 'closed',
        count: 4,
        text: '4 dates in the closed season are left out: Wed 6 Jan 2027, Wed 13 Jan 2027, Wed 20 Jan 2027 and Wed 27 Jan 2027.',
      },
    ]);
  });
});
