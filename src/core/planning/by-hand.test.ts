import { describe, expect, it } from 'vitest';
import { makeCalendar } from '../calendar/iso-calendar.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { parsePhrase } from '../recurrence/phrase/reader.ts';
import {
  addDate,
  type ByHand,
  changeDate,
  changeOf,
  dropRevision,
  endBefore,
  moveDate,
  moveWithin,
  pauseFrom,
  pauseOn,
  putBack,
  resumeFrom,
  reviseFrom,
  skipDate,
  skipWithin,
} from './by-hand.ts';
import { isDated, planDays } from './plan.ts';
import { PLAIN_TIMING } from './timing.ts';

const calendar = makeCalendar({ workingWeekdays: [1, 2, 3, 4, 5], holidays: [] });
const day = dayOfIso;
const mondays: ByHand = {
  recurrence: parsePhrase('every Monday', { start: '2026-11-23' }),
  timing: PLAIN_TIMING,
  pauses: [],
  exceptions: [],
  revisions: [],
};
const december = (schedule: ByHand) =>
  planDays(schedule, calendar, day('2026-12-01'), day('2026-12-31'))
    .filter(isDated)
    .map(({ on }) => isoOfDay(on).slice(8));

describe('changes by hand', () => {
  it('skip, move and add single dates, and put them back', () => {
    expect(december(mondays)).toEqual(['07', '14', '21', '28']);
    const skipped = skipDate(mondays, day('2026-12-07'));
    expect(december(skipped)).toEqual(['14', '21', '28']);
    const moved = moveDate(skipped, day('2026-12-14'), day('2026-12-16'));
    expect(december(moved)).toEqual(['16', '21', '28']);
    const added = addDate(moved, day('2026-12-30'));
    expect(december(added)).toEqual(['16', '21', '28', '30']);
    const back = ['2026-12-07', '2026-12-14', '2026-12-30'].reduce((draft, date) => putBack(draft, day(date)), added);
    expect(back).toEqual(mondays);
  });

  it('keep one exception of a kind for each date', () => {
    const twice = moveDate(
      moveDate(mondays, day('2026-12-14'), day('2026-12-15')),
      day('2026-12-14'),
      day('2026-12-17'),
    );
    expect(twice.exceptions).toEqual([{ kind: 'move', date: '2026-12-14', to: '2026-12-17' }]);
    expect(skipDate(twice, day('2026-12-14')).exceptions).toEqual([{ kind: 'skip', date: '2026-12-14' }]);
  });

  it('change one field after the other of a date, and take it all away', () => {
    const later = changeDate(mondays, day('2026-12-14'), { startTime: '14:00' });
    const both = changeDate(later, day('2026-12-14'), { ...changeOf(later, day('2026-12-14')), dueTime: null });
    expect(changeOf(both, day('2026-12-14'))).toEqual({ startTime: '14:00', dueTime: null });
    expect(changeDate(both, day('2026-12-14'), {})).toEqual(mondays);
  });

  it('pause from a day, up to the next pause, and run again', () => {
    const paused = pauseFrom(mondays, day('2026-12-10'));
    expect(december(paused)).toEqual(['07']);
    const again = resumeFrom(paused, day('2026-12-25'));
    expect(december(again)).toEqual(['07', '28']);
    expect(pauseOn(again, day('2026-12-24'))).toEqual({ from: '2026-12-10', to: '2026-12-25' });
    expect(pauseOn(again, day('2026-12-25'))).toBeNull();
    expect(pauseFrom(again, day('2026-12-01')).pauses[0]).toEqual({ from: '2026-12-01', to: '2026-12-10' });
    expect(resumeFrom(paused, day('2026-12-10')).pauses).toEqual([]);
  });

  it('pause up to a day that is known already, or to the next pause', () => {
    expect(pauseFrom(mondays, day('2026-12-10'), day('2026-12-20')).pauses).toEqual([
      { from: '2026-12-10', to: '2026-12-20' },
    ]);
    const later = pauseFrom(mondays, day('2026-12-14'));
    expect(pauseFrom(later, day('2026-12-10'), day('2026-12-20')).pauses[0]?.to).toBe('2026-12-14');
  });

  it('leave out or move all dates of a span, by days or working days', () => {
    expect(december(skipWithin(mondays, calendar, day('2026-12-10'), day('2026-12-21')))).toEqual(['07', '28']);
    const span = { from: day('2026-12-10'), to: day('2026-12-31') };
    expect(december(moveWithin(mondays, calendar, span, { amount: 2, unit: 'day' }))).toEqual(['07', '16', '23', '30']);
    expect(december(moveWithin(mondays, calendar, span, { amount: -1, unit: 'workingDay' }))).toEqual([
      '07',
      '11',
      '18',
      '25',
    ]);
  });

  it('move one that was moved already on from where it is', () => {
    const once = moveDate(mondays, day('2026-12-14'), day('2026-12-16'));
    const span = { from: day('2026-12-15'), to: day('2026-12-17') };
    expect(december(moveWithin(once, calendar, span, { amount: 1, unit: 'day' }))).toEqual(['07', '17', '21', '28']);
  });
});

describe('an end', () => {
  it('makes the day before the last, and drops rules that would begin later', () => {
    const { draft } = reviseFrom(mondays, day('2026-12-20'));
    const ended = endBefore(draft, day('2026-12-15'));
    expect(december(ended)).toEqual(['07', '14']);
    expect(ended.revisions).toEqual([]);
    expect(december(endBefore(mondays, day('2026-12-14')))).toEqual(['07']);
  });

  it('ends the rule that is in force by then, and leaves the earlier ones', () => {
    const { draft } = reviseFrom(mondays, day('2026-12-10'));
    const ended = endBefore(draft, day('2026-12-22'));
    expect(december(ended)).toEqual(['07', '14', '21']);
    expect(ended.recurrence.end).toEqual({ kind: 'never' });
    expect(dropRevision(reviseFrom(mondays, day('2026-12-15')).draft, 1)).toEqual(mondays);
  });
});
