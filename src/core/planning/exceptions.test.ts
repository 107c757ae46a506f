import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { longestClosure } from '../calendar/closed-season.ts';
import { makeCalendar } from '../calendar/iso-calendar.ts';
import { isoOfDay } from '../civil-date/iso-date.ts';
import { anyDay, anyFullRecurrence } from '../recurrence/generated.ts';
import { parsePhrase } from '../recurrence/phrase/reader.ts';
import type { Recurrence } from '../recurrence/rule.ts';
import { occurrencesWithinHorizon } from './horizon.ts';
import { planBetween } from './iso-plan.ts';
import { isDated, planDays } from './plan.ts';
import type { Exception, PlannedSchedule, Revision } from './schedule-plan.ts';
import { PLAIN_TIMING } from './timing.ts';

const calendar = makeCalendar({
  workingWeekdays: [1, 2, 3, 4, 5],
  holidays: ['2026-12-25', '2026-12-28', '2027-01-01', '2027-03-26', '2027-03-29'],
});
const schedule = (phrase: string, rest: Partial<PlannedSchedule> = {}): PlannedSchedule => ({
  recurrence: parsePhrase(phrase, { start: '2026-11-01' }),
  timing: PLAIN_TIMING,
  ...rest,
});
/** Each date as "nominal→on", or with why it makes no task. */
const plan = (planned: PlannedSchedule, from: string, to: string) =>
  planBetween(planned, calendar, from, to).map((one) =>
    one.kind === 'omitted'
      ? `${one.nominal} ${one.because}`
      : one.nominal === one.on
        ? one.on
        : `${one.nominal}→${one.on}`,
  );

describe('exceptions', () => {
  it('skip one, move one, add one and change one', () => {
    const planned = schedule('every Monday', {
      exceptions: [
        { kind: 'skip', date: '2026-12-07' },
        { kind: 'move', date: '2026-12-14', to: '2026-12-16' },
        { kind: 'add', date: '2026-12-19' },
        { kind: 'change', date: '2026-12-21', change: { startTime: '14:00' } },
      ],
    });
    expect(plan(planned, '2026-12-01', '2026-12-31')).toEqual([
      '2026-12-07 skipped',
      '2026-12-14→2026-12-16',
      '2026-12-19',
      '2026-12-21',
      '2026-12-28',
    ]);
    const occurrences = planBetween(planned, calendar, '2026-12-14', '2026-12-21');
    expect(occurrences).toMatchObject([
      { nominal: '2026-12-14', moved: 'by hand', startTime: null },
      { nominal: '2026-12-19', isAdded: true },
      { nominal: '2026-12-21', startTime: '14:00' },
    ]);
  });

  it('move one as far as wanted, and it is found where it went and no longer where it was', () => {
    const planned = schedule('every Monday', { exceptions: [{ kind: 'move', date: '2026-12-14', to: '2027-06-05' }] });
    expect(plan(planned, '2027-06-01', '2027-06-06')).toEqual(['2026-12-14→2027-06-05']);
    expect(plan(planned, '2026-12-08', '2026-12-20')).toEqual([]);
  });

  it('move one onto a day off when that is said by hand', () => {
    const planned = schedule('every Friday, or the working day before', {
      exceptions: [{ kind: 'move', date: '2026-12-25', to: '2026-12-26' }],
    });
    expect(plan(planned, '2026-12-20', '2026-12-30')).toEqual(['2026-12-25→2026-12-26']);
  });

  it('make one occurrence of two that are moved together: the one that falls there by itself', () => {
    const planned = schedule('every Monday and Wednesday', {
      exceptions: [{ kind: 'move', date: '2026-12-07', to: '2026-12-09' }],
    });
    expect(plan(planned, '2026-12-07', '2026-12-09')).toEqual(['2026-12-07 same day as another', '2026-12-09']);
  });

  it('do nothing where the rule has no such date', () => {
    const exceptions: Exception[] = [
      { kind: 'skip', date: '2026-12-08' },
      { kind: 'move', date: '2026-12-09', to: '2026-12-10' },
    ];
    expect(plan(schedule('every Monday', { exceptions }), '2026-12-07', '2026-12-13')).toEqual(['2026-12-07']);
  });

  it('keep what is added, even where the rule would move it', () => {
    const planned = schedule('every Friday, or the working day before', {
      exceptions: [{ kind: 'add', date: '2026-12-25' }],
    });
    expect(plan(planned, '2026-12-24', '2026-12-25')).toEqual(['2026-12-25']);
  });
});

describe('a pause', () => {
  it('makes nothing from its first day on until the day that runs again, and the gap shows', () => {
    const planned = schedule('every Monday', { pauses: [{ from: '2026-12-07', to: '2026-12-21' }] });
    expect(plan(planned, '2026-12-01', '2026-12-31')).toEqual([
      '2026-12-07 paused',
      '2026-12-14 paused',
      '2026-12-21',
      '2026-12-28',
    ]);
  });
});

describe('closed seasons', () => {
  it('leave dates out', () => {
    expect(plan(schedule('15th of each month, not in Jan'), '2026-12-01', '2027-02-28')).toEqual([
      '2026-12-15',
      '2027-01-15 closed',
      '2027-02-15',
    ]);
  });

  it('over the new year', () => {
    expect(plan(schedule('every Friday, not from 15 Dec to 10 Jan'), '2026-12-11', '2027-01-15')).toEqual([
      '2026-12-11',
      '2026-12-18 closed',
      '2026-12-25 closed',
      '2027-01-01 closed',
      '2027-01-08 closed',
      '2027-01-15',
    ]);
  });

  it('move dates out as off any day off, and never move one in', () => {
    const planned = schedule('15th of each month, or the working day before, moved out of Jan');
    // Thursday 31 December is the last working day before the season.
    expect(plan(planned, '2026-12-01', '2027-02-28')).toEqual(['2026-12-15', '2027-01-15→2026-12-31', '2027-02-15']);
    expect(
      plan(
        schedule('31st of Dec, or the nearest working day, moved out of 30 Dec to 20 Jan'),
        '2026-12-01',
        '2027-02-28',
      ),
    ).toEqual(['2026-12-31→2026-12-29']);
  });

  it('count for an end after so many only the dates that remain', () => {
    expect(
      plan(schedule('15th of each month, not in Jan, 3 times'), '2026-11-01', '2027-06-30').filter(
        (one) => !one.includes(' '),
      ),
    ).toEqual(['2026-11-15', '2026-12-15', '2027-02-15']);
  });
});

describe('revisions', () => {
  const revision = (from: string, phrase: string): Revision => ({
    from,
    recurrence: parsePhrase(phrase, { start: from }),
    timing: { ...PLAIN_TIMING, dueTime: '12:00' },
  });

  it('let another rule take over from a day on, and the series stays one', () => {
    const planned = schedule('every Monday', { revisions: [revision('2026-12-10', 'every Tuesday')] });
    expect(plan(planned, '2026-12-01', '2026-12-22')).toEqual(['2026-12-07', '2026-12-15', '2026-12-22']);
    expect(planBetween(planned, calendar, '2026-12-07', '2026-12-15')).toMatchObject([
      { dueTime: null },
      { dueTime: '12:00' },
    ]);
  });

  it('hold each until the next, in whatever order they are stored', () => {
    const revisions = [revision('2027-01-01', 'first Friday of each month'), revision('2026-12-10', 'every Tuesday')];
    expect(plan(schedule('every Monday', { revisions }), '2026-12-20', '2027-02-10')).toEqual([
      '2026-12-22',
      '2026-12-29',
      '2027-01-01',
      '2027-02-05',
    ]);
  });

  it('make one occurrence of two dates that meet at the border', () => {
    const planned = schedule('last day of each month, or the working day after', {
      revisions: [revision('2027-02-01', '1st of each month')],
    });
    // Sunday 31 January moves to Monday 1 February, where the new rule has one of its own.
    expect(plan(planned, '2027-01-25', '2027-02-05')).toEqual(['2027-01-31 same day as another', '2027-02-01']);
  });
});

const lastOne = (nominal: string, reachedOn: string | null, count: number) => ({
  nominal,
  reached: { done: reachedOn, underWay: reachedOn, toCheck: reachedOn },
  count,
});

describe('a rule on completion', () => {
  const planned = (last: PlannedSchedule['last'] = null, phrase = 'every 10 working days after completion') =>
    schedule(phrase, { last, recurrence: { ...parsePhrase(phrase, { start: '2026-11-24' }) } });
  const known = (one: PlannedSchedule) =>
    planDays(one, calendar, 20_000, 21_400)
      .filter(isDated)
      .filter(({ isForeseen }) => !isForeseen)
      .map(({ on }) => isoOfDay(on));

  it('knows the first, and foresees the others as if each were done on its day', () => {
    expect(known(planned())).toEqual(['2026-11-24']);
    expect(plan(planned(), '2026-11-24', '2026-12-31')).toEqual(['2026-11-24', '2026-12-08', '2026-12-22']);
  });

  it('waits while the last one is open, and then counts from the day it was done', () => {
    expect(known(planned(lastOne('2026-11-24', null, 1)))).toEqual(['2026-11-24']);
    expect(known(planned(lastOne('2026-11-24', '2026-11-27', 1)))).toEqual(['2026-12-11']);
  });

  it('makes only what is known', () => {
    const span = { from: 20_000, upTo: 21_400 };
    expect(occurrencesWithinHorizon(planned(), calendar, span)).toHaveLength(1);
    expect(occurrencesWithinHorizon(planned(lastOne('2026-11-24', '2026-11-27', 1)), calendar, span)).toHaveLength(1);
  });

  it('owes the first even when its start is past', () => {
    const span = { from: 20_900, upTo: 20_930 };
    expect(occurrencesWithinHorizon(planned(), calendar, span).map(({ on }) => isoOfDay(on))).toEqual(['2026-11-24']);
  });

  it('ends after so many', () => {
    const phrase = 'every 2 weeks after completion, 2 times';
    expect(known(planned(lastOne('2026-11-24', '2026-11-27', 1), phrase))).toEqual(['2026-12-11']);
    expect(known(planned(lastOne('2026-12-11', '2026-12-14', 2), phrase))).toEqual([]);
  });

  it('goes on from the last one of another rule, but not before its own first day', () => {
    const phrase = '2 weeks after completion';
    const revised = (last: PlannedSchedule['last']) =>
      schedule('every Monday until 31 Dec 2026', {
        last,
        revisions: [
          { from: '2027-01-05', recurrence: parsePhrase(phrase, { start: '2027-01-05' }), timing: PLAIN_TIMING },
        ],
      });
    const january = (one: PlannedSchedule) => known(one).filter((date) => date >= '2027-01-01');
    expect(january(revised(lastOne('2026-12-28', '2026-12-29', 5)))).toEqual(['2027-01-12']);
    expect(january(revised(lastOne('2026-12-14', '2026-12-15', 3)))).toEqual(['2027-01-05']);
    expect(january(revised(lastOne('2026-12-28', null, 5)))).toEqual(['2027-01-05']);
    expect(january(revised(lastOne('2027-01-05', '2027-01-08', 6)))).toEqual(['2027-01-22']);
  });

  it('goes a month on by the date, or to the end of a shorter month', () => {
    expect(known(planned(lastOne('2027-01-31', '2027-01-31', 1), 'every month after completion'))).toEqual([
      '2027-02-28',
    ]);
  });

  it('“as soon as” comes on the day itself, never on the day of the one before', () => {
    const phrase = 'as soon as the last one is under way';
    expect(known(planned(lastOne('2026-11-24', '2026-11-26', 1), phrase))).toEqual(['2026-11-26']);
    expect(known(planned(lastOne('2026-11-24', '2026-11-24', 1), phrase))).toEqual(['2026-11-25']);
  });
});

const everOpen = ({ closed }: Recurrence) => longestClosure(closed?.seasons ?? []) < 360;

describe('any plan', () => {
  const anySchedule: fc.Arbitrary<PlannedSchedule> = fc
    .record({
      recurrence: anyFullRecurrence,
      revision: fc.option(fc.record({ from: anyDay.map(isoOfDay), recurrence: anyFullRecurrence }), { nil: undefined }),
      days: fc.uniqueArray(anyDay.map(isoOfDay), { maxLength: 4 }),
    })
    .map(({ recurrence, revision, days: [skip, move, to, add] }) => ({
      recurrence,
      timing: PLAIN_TIMING,
      revisions: revision ? [{ ...revision, timing: PLAIN_TIMING }] : [],
      exceptions: [
        ...(skip ? [{ kind: 'skip' as const, date: skip }] : []),
        ...(move && to ? [{ kind: 'move' as const, date: move, to }] : []),
        ...(add ? [{ kind: 'add' as const, date: add }] : []),
      ],
    }));

  it('does not depend on the window asked, is in order, and has one task a day', () => {
    fc.assert(
      fc.property(
        anySchedule,
        anyDay,
        fc.integer({ min: 0, max: 200 }),
        fc.integer({ min: 0, max: 200 }),
        (planned, from, a, b) => {
          // Closed all year there is no working day to move to: the contract refuses that.
          fc.pre(
            everOpen(planned.recurrence) && (planned.revisions ?? []).every(({ recurrence }) => everOpen(recurrence)),
          );
          const whole = planDays(planned, calendar, from, from + a + b);
          const parts = [
            ...planDays(planned, calendar, from, from + a),
            ...planDays(planned, calendar, from + a + 1, from + a + b),
          ];
          expect(whole).toEqual(parts);
          const days = whole.filter(isDated).map(({ on }) => on);
          expect(days).toEqual([...new Set(days)].sort((x, y) => x - y));
          expect(new Set(whole.map(({ nominal }) => nominal)).size).toBe(whole.length);
        },
      ),
      { numRuns: 300 },
    );
  });
});
