import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOfIso } from '../civil-date/iso-date.ts';
import { type BandedTask, bandOf, compareTimes } from './day-bands.ts';
import { dayLoads } from './day-load.ts';
import { addedUp, percentOf } from './on-time.ts';
import { isOverdue, lookOf, sayLate } from './task-state.ts';

const today = dayOfIso('2026-11-24');
const now = { day: today, minutes: 640 };
const task = (rest: Partial<BandedTask> = {}): BandedTask => ({
  state: 'open',
  appearsOn: today,
  startsOn: today,
  dueOn: today,
  dueMinutes: null,
  doneOn: null,
  doneMinutes: null,
  heldUntil: null,
  ...rest,
});

describe('the look of a task', () => {
  it('is coming until the day it appears', () => {
    expect(lookOf(task({ appearsOn: today + 1, dueOn: today + 3 }), now).state).toBe('coming');
    expect(lookOf(task({ appearsOn: today, dueOn: today + 3 }), now).state).toBe('open');
    expect(lookOf(task({ appearsOn: today + 1, dueOn: today + 3, state: 'underWay' }), now).state).toBe('underWay');
  });

  it('is late after its day, or after its time on the day', () => {
    expect(lookOf(task({ dueOn: today - 3 }), now)).toEqual({ state: 'open', late: true, daysLate: 3, heldUp: false });
    expect(lookOf(task({ dueMinutes: 639 }), now).late).toBe(true);
    expect(lookOf(task({ dueMinutes: 640 }), now).late).toBe(false);
    expect(lookOf(task(), now).late).toBe(false);
  });

  it('stays done late for good, by the day it was done', () => {
    expect(lookOf(task({ state: 'done', dueOn: today - 9, doneOn: today - 8, doneMinutes: 500 }), now)).toEqual({
      state: 'done',
      late: true,
      daysLate: 1,
      heldUp: false,
    });
    expect(lookOf(task({ state: 'done', dueOn: today - 9, doneOn: today - 9, doneMinutes: 500 }), now).late).toBe(
      false,
    );
  });

  it('is never late once skipped or lapsed', () => {
    expect(lookOf(task({ state: 'skipped', dueOn: today - 9 }), now).late).toBe(false);
    expect(lookOf(task({ state: 'lapsed', dueOn: today - 9 }), now).late).toBe(false);
  });

  it('is held up until the day that was said, and then back by itself', () => {
    const held = task({ dueOn: today - 1, heldUntil: today + 1 });
    expect(lookOf(held, now)).toEqual({ state: 'open', late: true, daysLate: 1, heldUp: true });
    expect([isOverdue(lookOf(held, now)), bandOf(held, today, now)]).toEqual([false, 'thisDay']);
    const back = lookOf(held, { day: today + 1, minutes: 0 });
    expect([back.heldUp, back.daysLate, isOverdue(back)]).toEqual([false, 2, true]);
    expect(lookOf({ ...held, state: 'done', doneOn: today, doneMinutes: 600 }, now).heldUp).toBe(false);
    expect(lookOf({ ...held, state: 'skipped' }, now).heldUp).toBe(false);
  });

  it('says how late in words', () => {
    const late = (daysLate: number) => sayLate({ daysLate });
    expect([late(0), late(1), late(4)]).toEqual(['late today', '1 day late', '4 days late']);
  });
});

describe('the bands of a day sheet', () => {
  it.each<[string, Partial<BandedTask>, ReturnType<typeof bandOf>]>([
    ['due yesterday', { dueOn: today - 1 }, 'late'],
    ['due today', {}, 'thisDay'],
    ['begun and due later', { startsOn: today - 1, dueOn: today + 2 }, 'thisDay'],
    ['under way before its start', { state: 'underWay', startsOn: today + 2, dueOn: today + 2 }, 'thisDay'],
    ['appeared, starting later', { appearsOn: today, startsOn: today + 20, dueOn: today + 20 }, 'coming'],
    ['starting within the week', { appearsOn: today + 3, startsOn: today + 5, dueOn: today + 5 }, 'coming'],
    ['starting after the week', { appearsOn: today + 9, startsOn: today + 10, dueOn: today + 10 }, null],
    ['done today', { state: 'done', doneOn: today, dueOn: today - 2 }, 'thisDay'],
    ['done yesterday', { state: 'done', doneOn: today - 1 }, null],
    ['skipped, due today', { state: 'skipped' }, 'thisDay'],
  ])('put what is %s where it belongs today', (_, rest, band) => {
    expect(bandOf(task(rest), today, now)).toBe(band);
  });

  it('show another day by what is due on it', () => {
    expect(bandOf(task({ startsOn: today + 4, dueOn: today + 4 }), today + 4, now)).toBe('thisDay');
    expect(bandOf(task({ startsOn: today + 6, dueOn: today + 6 }), today + 4, now)).toBe('coming');
    expect(
      bandOf(task({ dueOn: today - 4, startsOn: today - 4, state: 'done', doneOn: today - 3 }), today - 4, now),
    ).toBe('thisDay');
    expect(bandOf(task({ dueOn: today - 9, startsOn: today - 9 }), today - 4, now)).toBeNull();
  });
});

describe('the load of days', () => {
  it('weighs finished, open and projected work by due date, and nothing given up', () => {
    const of = (rest: Partial<BandedTask>, minutes: number) => ({ ...task(rest), tasks: 1, minutes });
    const loads = dayLoads(
      [
        of({}, 30),
        of({ state: 'done', doneOn: today }, 45),
        // Finished, though somebody is still to look at it.
        of({ state: 'toCheck', doneOn: today }, 5),
        of({ state: 'skipped' }, 99),
        of({ dueOn: today + 1 }, 60),
        of({ dueOn: today + 9 }, 60),
        { dueOn: today + 1, state: 'underWay', tasks: 12, minutes: 240 },
      ],
      [{ dueOn: today + 1, estimateMinutes: 15 }],
      today,
      today + 1,
    );
    expect(loads).toEqual([
      { day: today, done: 50, open: 30, projected: 0, tasks: 3 },
      { day: today + 1, done: 0, open: 300, projected: 15, tasks: 13 },
    ]);
  });
});

describe('a share on time', () => {
  it('is all only where it is all, and none only where it is none', () => {
    fc.assert(
      fc.property(fc.nat(5000), fc.nat(5000), (onTime, late) => {
        const rate = percentOf({ due: onTime + late, onTime });
        if (onTime + late === 0) return rate === null;
        return rate !== null && (rate === 100) === (late === 0) && (rate === 0) === (onTime === 0);
      }),
    );
    expect([percentOf({ due: 1000, onTime: 999 }), percentOf({ due: 1000, onTime: 1 })]).toEqual([99, 1]);
    expect(percentOf({ due: 8, onTime: 7 })).toBe(88);
  });

  it('of several is told of all their work, not of their shares', () => {
    expect(
      percentOf(
        addedUp([
          { due: 1, onTime: 0 },
          { due: 9, onTime: 9 },
        ]),
      ),
    ).toBe(90);
  });
});

it('puts times in the order of the clock, and what has none last', () => {
  const times = [null, '13:00', '07:00', null, '09:30'];
  expect(times.sort(compareTimes)).toEqual(['07:00', '09:30', '13:00', null, null]);
});
