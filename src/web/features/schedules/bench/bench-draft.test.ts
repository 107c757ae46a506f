import { describe, expect, it } from 'vitest';
import {
  dayOfIso,
  isDated,
  isoOfDay,
  makeCalendar,
  parsePhrase,
  planDays,
  reviseFrom,
  stretchAt,
} from '../../../../core/index.ts';
import { type BenchDraft, freshDraft, plannedOf, withRecurrence } from './bench-draft.ts';

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
