import { describe, expect, it } from 'vitest';
import { onTimeOf, sayDone, sayEnd, sayHowLate } from './log-words.ts';

const done = { state: 'done', dueOn: '2026-11-20', dueTime: '10:00' } as const;

describe('an entry of the logbook', () => {
  it.each([
    ['2026-11-20T09:58', '09:58'],
    ['2026-11-21T09:12', 'Sat 09:12'],
    ['2026-11-30T09:12', 'Mon 30 Nov, 09:12'],
    ['2026-11-18T16:00', 'Wed 18 Nov, 16:00'],
  ])('that was done at %s is told as %s', (doneAt, words) => {
    expect(sayEnd({ ...done, doneAt })).toBe(words);
  });

  it('that was given up says so', () => {
    expect(sayEnd({ ...done, state: 'skipped', doneAt: null })).toBe('skipped');
  });

  it('says how late it was, to the minute on its day', () => {
    expect(sayHowLate({ ...done, late: true, daysLate: 0, doneAt: '2026-11-20T10:03' })).toBe('3 min late');
    expect(sayHowLate({ ...done, late: true, daysLate: 1, doneAt: '2026-11-21T09:12' })).toBe('1 day late');
    expect(sayHowLate({ ...done, late: false, daysLate: 0, doneAt: '2026-11-20T09:58' })).toBe('');
  });

  it('counts what lapsed and what is still open as due, what was skipped not', () => {
    expect(onTimeOf({ onTime: 8, late: 1, lapsed: 1, open: 2 })).toEqual({ due: 12, onTime: 8 });
    expect([sayDone({ count: 4, done: 4 }), sayDone({ count: 4, done: 2 })]).toEqual(['4 done', '2 of 4 done']);
  });
});
