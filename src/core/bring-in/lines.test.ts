import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { givenTo } from '../assignment/assignment.ts';
import { WEEKDAYS_ONLY } from '../calendar/working-calendar.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { FRESH_TIMING, type Offset } from '../planning/timing.ts';
import { canonicalRecurrence } from '../recurrence/canonical.ts';
import { anyRecurrence } from '../recurrence/generated.ts';
import { parsePhrase } from '../recurrence/phrase/reader.ts';
import type { CellContext, CellSchedule } from '../worksheet/cells.ts';
import { readScheduleLine, writeScheduleLine } from './schedule-line.ts';
import { readStepLine, type StepLine, writeStepLine } from './step-line.ts';
import { readFileState } from './task-state.ts';

const context: CellContext = {
  today: dayOfIso('2026-11-24'),
  people: [
    { id: 'nadia', name: 'Nadia Orme' },
    { id: 'bram', name: 'Bram Hollis' },
  ],
  roles: ['dock crew'],
  teams: [],
  yearStarts: 1,
  habits: {},
  seasons: [],
  calendar: WEEKDAYS_ONLY,
  plans: null,
};
const fresh: CellSchedule = {
  assignment: givenTo(null),
  recurrence: parsePhrase('every day', { start: '2026-11-24' }),
  timing: FRESH_TIMING,
  ...{ pauses: [], exceptions: [], revisions: [], plans: null },
};

describe('a line of schedules', () => {
  const read = (values: Record<string, string>, base = fresh) => {
    const reading = readScheduleLine(values, base, context);
    return 'problems' in reading ? reading.problems : reading.schedule;
  };

  it('says when, who, from when and until when; what it leaves out stays', () => {
    expect(
      read({ when: 'every 2 weeks on Mon', who: 'bram', from: '2027-02-01', until: '2027-06-30', due: '1 day' }),
    ).toEqual({
      ...fresh,
      assignment: givenTo('bram'),
      recurrence: {
        ...parsePhrase('every 2 weeks on Mon', { start: '2027-02-01' }),
        end: { kind: 'on', date: '2027-06-30' },
      },
      timing: { ...FRESH_TIMING, due: { amount: 1, unit: 'day' } },
    });
    expect(read({})).toBe(fresh);
  });

  it('says what is wrong at the field that says it, and all of it', () => {
    expect(read({ when: 'every blue moon', who: 'Osric', until: '2026-11-01' })).toEqual([
      { key: 'when', message: expect.any(String), offers: [] },
      { key: 'who', message: expect.any(String), offers: [] },
      { key: 'until', message: 'Its last day lies before its first, 24 Nov 2026' },
    ]);
  });

  it('asks where a phrase has two readings', () => {
    expect(read({ when: 'biweekly' })).toEqual([
      {
        ...{ key: 'when', message: expect.stringContaining('This can mean') },
        offers: ['every 2 weeks on Tue', 'every week on Tue and Fri'],
      },
    ]);
  });

  it('ends what holds last, and begins what was never changed', () => {
    const weekly = parsePhrase('every week on Tue', { start: '2026-03-03' });
    const changed: CellSchedule = {
      ...fresh,
      recurrence: parsePhrase('every month on the 1st', { start: '2025-01-01' }),
      revisions: [{ from: '2026-03-03', recurrence: weekly, timing: FRESH_TIMING }],
    };
    expect(read({ from: '2026-01-01', until: '2027-01-31' }, changed)).toEqual({
      ...changed,
      revisions: [
        {
          from: '2026-03-03',
          recurrence: { ...weekly, end: { kind: 'on', date: '2027-01-31' } },
          timing: FRESH_TIMING,
        },
      ],
    });
  });

  it('is read as the schedule that it was written from', () => {
    // On the day there is nothing to count in.
    const anyOffset: fc.Arbitrary<Offset> = fc
      .tuple(fc.integer({ min: -30, max: 0 }), fc.constantFrom('day' as const, 'workingDay' as const))
      .map(([amount, unit]) => ({ amount, unit: amount === 0 ? 'day' : unit }));
    fc.assert(
      fc.property(
        anyRecurrence,
        fc.constantFrom('nadia', 'bram', null),
        anyOffset,
        fc.option(fc.integer({ min: 0, max: 900 }), { nil: null }),
        (recurrence, who, appears, lasts) => {
          const ended = canonicalRecurrence({
            ...recurrence,
            end:
              lasts === null ? { kind: 'never' } : { kind: 'on', date: isoOfDay(dayOfIso(recurrence.start) + lasts) },
          });
          const schedule: CellSchedule = {
            ...fresh,
            recurrence: ended,
            assignment: givenTo(who),
            timing: { ...FRESH_TIMING, appears },
          };
          const again = readScheduleLine(
            writeScheduleLine(schedule, context),
            { ...fresh, recurrence: { ...fresh.recurrence, start: ended.start } },
            context,
          );
          expect(again).toEqual({ schedule });
        },
      ),
    );
  });
});

describe('a line with a step', () => {
  it('is a check line, or a task of its own with its day', () => {
    expect(readStepLine({ step: 'Read the meter', stepNote: 'both dials' })).toEqual({
      step: { text: 'Read the meter', note: 'both dials', own: null },
    });
    expect(readStepLine({ step: 'Order the paint', stepMinutes: 20, stepDay: '2 working days before' })).toEqual({
      step: {
        ...{ text: 'Order the paint', note: '' },
        own: { estimateMinutes: 20, offset: { amount: -2, unit: 'workingDay' } },
      },
    });
    expect(readStepLine({})).toEqual({ step: null });
  });

  it.each([
    [{ stepNote: 'both dials' }, 'step', 'It says something of a step, and not which'],
    [
      { step: 'x', stepDay: '2 days after' },
      'stepMinutes',
      'A step with a day of its own is a task: say how long it takes',
    ],
    [
      { step: 'x', stepMinutes: 5, stepDay: '2 days' },
      'stepDay',
      '“2 days”: write it like “2 working days before” or “3 days after”',
    ],
    [
      { step: 'x', stepMinutes: 5, stepDay: 'soon' },
      'stepDay',
      '“soon”: write it like “2 working days before” or “3 days after”',
    ],
  ])('says what is missing of %o', (values, key, message) => {
    expect(readStepLine(values as Record<string, string | number>)).toEqual({ problem: { key, message } });
  });

  it('is read as the step that it was written from', () => {
    const anyStep: fc.Arbitrary<StepLine> = fc.record({
      text: fc.string({ minLength: 1 }),
      note: fc.string(),
      own: fc.option(
        fc.record({
          estimateMinutes: fc.integer({ min: 1, max: 6000 }),
          offset: fc.record({
            amount: fc.integer({ min: -300, max: 300 }),
            unit: fc.constantFrom('day' as const, 'workingDay' as const),
          }),
        }),
        { nil: null },
      ),
    });
    fc.assert(
      fc.property(anyStep, (step) => {
        // On the day there is nothing to count in.
        const own =
          step.own?.offset.amount === 0 ? { ...step.own, offset: { amount: 0, unit: 'day' as const } } : step.own;
        expect(readStepLine(writeStepLine({ ...step, own }))).toEqual({ step: { ...step, own } });
      }),
    );
  });
});

it.each([
  ['Done ', 'done'],
  ['CLOSED', 'done'],
  ['in progress', 'open'],
  ['missed', 'skipped'],
  ['cancelled', 'skipped'],
  ['blue', null],
  ['', null],
] as const)('knows what became of work that is “%s”', (text, state) => {
  expect(readFileState(text)).toBe(state);
});
