import { describe, expect, it } from 'vitest';
import { WEEKDAYS_ONLY } from '../calendar/working-calendar.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { latestDays, NO_VISITS, sayNoticePeriod, termsOf, type VisitRules, visitTimes } from './visit-terms.ts';

const RULES: VisitRules = {
  ...NO_VISITS,
  ways: [
    { name: 'by post', kind: 'post', onItsWay: { days: 2, unit: 'workingDay' } },
    { name: 'by hand', kind: 'hand', onItsWay: { days: 0, unit: 'day' } },
    { name: 'by mail', kind: 'mail', onItsWay: { days: 0, unit: 'day' } },
  ],
  terms: [
    {
      type: 'routine',
      period: { days: 7, unit: 'day', countsReceipt: false, countsVisit: false },
      ways: ['by mail', 'by post'],
    },
  ],
};

describe('the terms of a visit', () => {
  it('are those of its type, with the ways it may go; others need no notice', () => {
    expect(termsOf(RULES, 'arrival')).toBeNull();
    expect(termsOf(RULES, null)).toBeNull();
    expect(termsOf(RULES, 'routine')?.ways.map(({ name }) => name)).toEqual(['by post', 'by mail']);
  });

  it('tell the latest day by each way, the latest of them first', () => {
    const terms = termsOf(RULES, 'routine');
    if (!terms) throw new Error();
    const days = latestDays(dayOfIso('2026-12-01'), terms, WEEKDAYS_ONLY);
    expect(days.map(({ way, on }) => [way.name, isoOfDay(on)])).toEqual([
      ['by mail', '2026-11-23'],
      ['by post', '2026-11-19'],
    ]);
  });

  it.each([
    [false, false, '7 days, those of the letter and of the visit not counted'],
    [true, false, '7 days, that of the letter counted'],
    [false, true, '7 days, that of the visit counted'],
    [true, true, '7 days, those of the letter and of the visit counted'],
  ])('say which days count: of the letter %s, of the visit %s', (countsReceipt, countsVisit, words) => {
    expect(sayNoticePeriod({ days: 7, unit: 'day', countsReceipt, countsVisit })).toBe(words);
  });

  it('come at the times of the work itself, else between those of its type', () => {
    const none = { startTime: null, dueTime: null };
    const terms = RULES.terms.map((one) => ({ ...one, window: { from: '09:00', to: '16:00' } }));
    expect(visitTimes(none, { terms }, 'routine')).toEqual({ startTime: '09:00', dueTime: '16:00' });
    expect(visitTimes({ startTime: '11:00', dueTime: null }, { terms }, 'routine')).toEqual({
      startTime: '11:00',
      dueTime: null,
    });
    expect(visitTimes(none, { terms }, 'arrival')).toEqual(none);
  });
});
