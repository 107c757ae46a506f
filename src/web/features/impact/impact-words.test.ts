import { describe, expect, it } from 'vitest';
import type { Impact } from '../../../contract/index.ts';
import { groupsOf, needsLook, sayDeed } from './impact-words.ts';

const impact = (figures: Partial<Impact['figures']>, rest: Partial<Impact> = {}): Impact => ({
  figures: {
    added: 0,
    changed: 0,
    removed: 0,
    keptByHand: 0,
    keptShowing: 0,
    keptBegun: 0,
    keptLacking: 0,
    ...figures,
  },
  items: [],
  years: [],
  datesBefore: 12,
  datesAfter: 12,
  ...rest,
});

describe('an impact', () => {
  it.each([
    [{ changed: 14, added: 8 }, 'Change 14 tasks and add 8'],
    [{ changed: 1 }, 'Change 1 task'],
    [{ added: 1, removed: 2 }, 'Add 1 task and take back 2'],
    [{ changed: 3, added: 2, removed: 1 }, 'Change 3 tasks, add 2 and take back 1'],
    [{ keptShowing: 4 }, 'Save, no task changes'],
  ])('of %j is done by “%s”', (figures, words) => {
    expect(sayDeed(impact(figures))).toBe(words);
  });

  it('of tasks that are skipped or deleted says so first', () => {
    expect(sayDeed(impact({ removed: 1, added: 1 }), 'skip')).toBe('Skip 1 task and add 1');
    expect(sayDeed(impact({ removed: 3 }), 'delete')).toBe('Delete 3 tasks');
    expect(groupsOf(impact({ removed: 3 }), 'delete').map(({ word }) => word)).toEqual(['deleted']);
  });

  it('is looked at where it does or leaves something', () => {
    expect(needsLook(impact({}))).toBe(false);
    expect(needsLook(impact({ keptBegun: 3 }))).toBe(false);
    expect(needsLook(impact({ keptByHand: 1 }))).toBe(true);
    expect(needsLook(impact({}, { datesAfter: 24 }))).toBe(true);
  });

  it('is told in groups, each task in one', () => {
    const item = {
      taskId: null,
      scheduleId: '',
      title: '',
      about: null,
      who: null,
      on: '2026-11-24',
      state: 'open',
      fields: [],
    } as const;
    const groups = groupsOf(
      impact(
        { changed: 1, keptByHand: 2 },
        {
          items: [
            { ...item, kind: 'changed', because: null, fields: [] },
            { ...item, kind: 'kept', because: 'written on', fields: [] },
            { ...item, kind: 'kept', because: 'edited by hand', fields: [] },
          ],
        },
      ),
    );
    expect(groups.map(({ key, count, items }) => [key, count, items.length])).toEqual([
      ['changed', 1, 1],
      ['keptByHand', 2, 2],
    ]);
  });
});
