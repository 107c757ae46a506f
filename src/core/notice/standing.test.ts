import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { WEEKDAYS_ONLY } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { dayOfIso } from '../civil-date/iso-date.ts';
import { isInTime } from './notice.ts';
import { isToSend, type NoticeState, noticeStanding, type WrittenNotice } from './standing.ts';
import { NO_VISITS, termsOf, USUAL_REMIND, type VisitRules } from './visit-terms.ts';

const RULES: VisitRules = {
  ...NO_VISITS,
  ways: [
    { name: 'by hand', kind: 'hand', onItsWay: { days: 0, unit: 'day' } },
    { name: 'by post', kind: 'post', onItsWay: { days: 2, unit: 'workingDay' } },
  ],
  terms: [
    {
      type: 'routine',
      period: { days: 7, unit: 'day', countsReceipt: false, countsVisit: true },
      ways: ['by hand', 'by post'],
    },
  ],
};
const rules = termsOf(RULES, 'routine');
if (!rules) throw new Error('There are terms.');
const day = (iso: string): CivilDay => dayOfIso(iso);
const VISIT = day('2026-12-01');
const written = (of: Partial<WrittenNotice> = {}): WrittenNotice => ({
  ...{ way: 'by post', visitOn: VISIT, sentOn: null, isRefused: false },
  ...of,
});

describe('the standing of a notice', () => {
  // By hand until Tue 24 Nov, by post until Fri 20 Nov.
  it.each<[string, WrittenNotice | null, string, NoticeState, string | null, boolean | null]>([
    ['nothing is written', null, '2026-11-24', 'notWritten', '2026-11-24', null],
    ['nothing is written on the day after', null, '2026-11-25', 'tooLate', '2026-11-24', null],
    ['it lies there', written(), '2026-11-20', 'written', '2026-11-20', null],
    ['it lies there too long for its way', written(), '2026-11-21', 'tooLate', '2026-11-20', null],
    ['it is in the post', written({ sentOn: day('2026-11-19') }), '2026-11-20', 'onItsWay', '2026-11-20', true],
    ['it is there', written({ sentOn: day('2026-11-19') }), '2026-11-23', 'received', '2026-11-20', true],
    ['it went late', written({ sentOn: day('2026-11-23') }), '2026-11-27', 'received', '2026-11-20', false],
    [
      'the visit was moved',
      written({ sentOn: VISIT - 12, visitOn: VISIT - 1 }),
      '2026-11-24',
      'elsewhere',
      '2026-11-20',
      null,
    ],
    [
      'the mail came back',
      written({ sentOn: VISIT - 12, isRefused: true }),
      '2026-11-24',
      'refused',
      '2026-11-20',
      null,
    ],
    ['none is needed', written({ way: null }), '2026-11-30', 'notNeeded', null, null],
    [
      'its way is none any more',
      written({ way: 'pigeon', sentOn: VISIT - 8 }),
      '2026-11-24',
      'received',
      '2026-11-24',
      true,
    ],
  ])('where %s', (_, of, today, state, sendBy, inTime) => {
    expect(noticeStanding(VISIT, rules, of, day(today), WEEKDAYS_ONLY)).toMatchObject({
      ...{ state, sendBy: sendBy === null ? null : day(sendBy), inTime },
    });
  });

  it('says in time of what went exactly where it was early enough', () => {
    const before = fc.integer({ min: 0, max: 30 });
    fc.assert(
      fc.property(before, fc.constantFrom('by hand', 'by post'), (days, name) => {
        const way = RULES.ways.find((one) => one.name === name);
        if (!way) throw new Error('There is such a way.');
        // What goes goes on a working day.
        const sentOn = VISIT - days;
        fc.pre(WEEKDAYS_ONLY.isWorkingDay(sentOn));
        const told = noticeStanding(VISIT, rules, written({ way: name, sentOn }), VISIT, WEEKDAYS_ONLY);
        expect(told.inTime).toBe(isInTime(sentOn, VISIT, rules.terms.period, way, WEEKDAYS_ONLY));
        expect(isToSend(told.state)).toBe(false);
      }),
    );
  });
});

describe('the reminder of a notice', () => {
  it('comes so many working days before it has to go, while it is still to go', () => {
    fc.assert(
      fc.property(
        fc.option(fc.integer({ min: 0, max: 30 }), { nil: undefined }),
        fc.integer({ min: VISIT, max: VISIT + 40 }),
        fc.integer({ min: -60, max: 0 }),
        fc.constantFrom(
          null,
          written(),
          written({ sentOn: VISIT - 20 }),
          written({ way: null }),
          written({ isRefused: true }),
        ),
        (remind, visit, ago, of) => {
          const terms = { ...rules, terms: { ...rules.terms, remind } };
          const { state, sendBy, remindOn } = noticeStanding(visit, terms, of, visit + ago, WEEKDAYS_ONLY);
          expect(remindOn === null).toBe(!isToSend(state));
          if (remindOn === null || sendBy === null) return;
          const between = Array.from({ length: sendBy - remindOn }, (_, i) => remindOn + i);
          expect(between.filter((one) => WEEKDAYS_ONLY.isWorkingDay(one))).toHaveLength(remind ?? USUAL_REMIND);
          expect(WEEKDAYS_ONLY.isWorkingDay(remindOn)).toBe(true);
        },
      ),
    );
  });
});
