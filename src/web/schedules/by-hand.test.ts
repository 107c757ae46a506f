import { describe, expect, it } from 'vitest';
import { dayOfIso, isDated, isoOfDay, makeCalendar, parsePhrase, planDays } from '../../core/index.ts';
import { type BenchDraft, freshDraft, plannedOf, stretchAt, withRecurrence } from './bench-draft.ts';
import {
  addDate,
  changeDate,
  changeOf,
  dropRevision,
  moveDate,
  pauseFrom,
  pauseOn,
  putBack,
  resumeFrom,
  reviseFrom,
  skipDate,
} from './by-hand.ts';

const calendar = makeCalendar({ workingWeekdays: [1, 2, 3, 4, 5], holidays: [] });
const day = dayOfIso;
const mondays: BenchDraft = {
  ...freshDraft(day('2026-11-24'), {
    templateId: '',
    template: undefined,
    like: null,
    task: null,
    clientId: null,
    assetId: null,
  }),
  recurrence: parsePhrase('every Monday', { start: '2026-11-23' }),
};
const december = (draft: BenchDraft) =>
  planDays(plannedOf(draft), calendar, day('2026-12-01'), day('2026-12-31'))
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
});

describe('another rule from a day on', () => {
  it('begins with the same one, and is edited by itself', () => {
    const { draft, stretch } = reviseFrom(mondays, day('2026-12-15'));
    expect(stretch).toBe(1);
    expect(december(draft)).toEqual(['07', '14', '21', '28']);
    const tuesdays = withRecurrence(draft, 1, {
      ...stretchAt(draft, 1).recurrence,
      rules: [{ kind: 'weeks', every: 1, on: [2] }],
    });
    expect(december(tuesdays)).toEqual(['07', '14', '15', '22', '29']);
    expect(dropRevision(tuesdays, 1)).toEqual(mondays);
  });

  it('keeps the weeks of a rule that stays the same, and counts a new one from its own start', () => {
    const fortnightly = { ...mondays, recurrence: parsePhrase('every 2 weeks on Mon', { start: '2026-11-30' }) };
    const { draft } = reviseFrom(fortnightly, day('2026-12-08'));
    const closed = withRecurrence(draft, 1, { ...stretchAt(draft, 1).recurrence, dayOff: 'following' });
    expect(december(closed)).toEqual(['14', '28']);
    const other = withRecurrence(draft, 1, {
      ...stretchAt(draft, 1).recurrence,
      rules: [{ kind: 'weeks', every: 2, on: [3] }],
    });
    expect(december(other)).toEqual(['09', '23']);
  });

  it('moves with its start, and keeps the order of time', () => {
    const first = reviseFrom(mondays, day('2026-12-15')).draft;
    const { draft, stretch } = reviseFrom(first, day('2027-02-01'));
    expect(stretch).toBe(2);
    const earlier = withRecurrence(draft, 2, { ...stretchAt(draft, 2).recurrence, start: '2026-12-01' });
    expect(earlier.revisions.map(({ from }) => from)).toEqual(['2026-12-01', '2026-12-15']);
  });
});
