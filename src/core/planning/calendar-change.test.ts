import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { makeCalendar } from '../calendar/iso-calendar.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { anyFullRecurrence } from '../recurrence/generated.ts';
import { daysToCompare } from './calendar-change.ts';
import { planDays } from './plan.ts';
import type { PlannedSchedule } from './schedule-plan.ts';
import { PLAIN_TIMING } from './timing.ts';

const HOLIDAYS = ['2026-12-25', '2026-12-28', '2027-01-01', '2027-03-26', '2027-03-29', '2027-05-03', '2027-05-31'];
const WITHIN = { from: dayOfIso('2026-09-23'), to: dayOfIso('2027-11-23') };
const WEEK = [1, 2, 3, 4, 5];

describe('the days that are compared when the calendar changes', () => {
  const offset = fc.record({ amount: fc.integer({ min: -12, max: 0 }), unit: fc.constantFrom('day', 'workingDay') });
  const due = offset.map(({ amount, unit }) => ({ amount: -amount, unit }) as const);
  const timing = fc.record({ appears: offset, starts: offset, due });
  const day = fc.integer({ min: WITHIN.from - 100, max: WITHIN.to + 200 });

  it('are all on which a plan can be another', () => {
    fc.assert(
      fc.property(
        anyFullRecurrence,
        timing,
        day,
        fc.integer({ min: 0, max: 9 }),
        (recurrence, offsets, first, length) => {
          const schedule = { recurrence, timing: { ...PLAIN_TIMING, ...offsets } } as PlannedSchedule;
          const changed = { from: first, to: first + length };
          const days = Array.from({ length: length + 1 }, (_, i) => isoOfDay(first + i));
          const before = makeCalendar({ workingWeekdays: WEEK, holidays: HOLIDAYS });
          const after = makeCalendar({ workingWeekdays: WEEK, holidays: [...new Set([...HOLIDAYS, ...days])] });
          const plans = (from: number, to: number) => {
            try {
              return [before, after].map((calendar) => JSON.stringify(planDays(schedule, calendar, from, to)));
            } catch {
              // What can't be planned is the same by both, or is told as a problem.
              return ['', ''];
            }
          };
          const [then, now] = plans(WITHIN.from, WITHIN.to);
          fc.pre(then !== now);
          const near = daysToCompare(schedule, changed, WITHIN, { beside: 0 });
          expect(near).not.toBeNull();
          const [nearThen, nearNow] = near ? plans(near.from, near.to) : [];
          expect(nearThen).not.toBe(nearNow);
        },
      ),
      { numRuns: Number(process.env.RUNS ?? 300) },
    );
  });

  it('are few for a rule that looks at days off near its dates, and none far from them', () => {
    const weekly = (dayOff: 'following' | 'none'): PlannedSchedule => ({
      recurrence: {
        start: '2026-01-05',
        rules: [{ kind: 'weeks', every: 1, on: [1] }],
        end: { kind: 'never' },
        dayOff,
      },
      timing: PLAIN_TIMING,
    });
    const changed = { from: dayOfIso('2027-03-10'), to: dayOfIso('2027-03-10') };
    const near = daysToCompare(weekly('following'), changed, WITHIN, { beside: 0 });
    expect(near && near.to - near.from).toBeLessThan(260);
    const farOff = { from: dayOfIso('2030-03-11'), to: dayOfIso('2030-03-11') };
    expect(daysToCompare(weekly('following'), farOff, WITHIN, { beside: 0 })).toBeNull();
    const counted = { ...weekly('following').recurrence, rules: [{ kind: 'workingDays', every: 3 }] } as const;
    expect(daysToCompare({ ...weekly('none'), recurrence: counted }, changed, WITHIN, { beside: 0 })?.to).toBe(
      WITHIN.to,
    );
  });
});
