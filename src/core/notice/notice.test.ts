import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { makeCalendar } from '../calendar/iso-calendar.ts';
import { WEEKDAYS_ONLY, type WorkingCalendar, workingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay, Weekday } from '../civil-date/civil-day.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import {
  type DeliveryWay,
  daysOfNotice,
  earliestVisit,
  earliestVisitFrom,
  isInTime,
  latestSending,
  type NoticePeriod,
  receivedOn,
} from './notice.ts';

const CLEAR: NoticePeriod = { days: 7, unit: 'day', countsReceipt: false, countsVisit: false };
const BY_HAND: DeliveryWay = { name: 'by hand', kind: 'hand', onItsWay: { days: 0, unit: 'day' } };
const POST: DeliveryWay = { name: 'post', kind: 'post', onItsWay: { days: 2, unit: 'workingDay' } };
const christmas = makeCalendar({
  workingWeekdays: WEEKDAYS_ONLY.workingWeekdays,
  holidays: ['2026-12-25', '2026-12-28'],
});

describe('a notice', () => {
  it.each([
    // Seven clear days before Tue 1 Dec: the 24th to the 30th lie between, so it is received on the 23rd.
    ['2026-12-01', CLEAR, BY_HAND, '2026-11-23'],
    ['2026-12-01', { ...CLEAR, countsReceipt: true }, BY_HAND, '2026-11-24'],
    ['2026-12-01', { ...CLEAR, countsVisit: true }, BY_HAND, '2026-11-24'],
    ['2026-12-01', { ...CLEAR, countsReceipt: true, countsVisit: true }, BY_HAND, '2026-11-25'],
    // Two working days in the post: on Thursday the 19th, to be there on Monday.
    ['2026-12-01', CLEAR, POST, '2026-11-19'],
    // The day that comes out is a Sunday: it goes on the Friday before.
    ['2026-11-30', CLEAR, BY_HAND, '2026-11-20'],
    ['2026-12-01', { ...CLEAR, days: 0 }, BY_HAND, '2026-12-01'],
    // Three clear working days before Thu 31 Dec, over Christmas: the 30th, 29th and 24th.
    ['2026-12-31', { ...CLEAR, days: 3, unit: 'workingDay' }, BY_HAND, '2026-12-23'],
  ] as const)('for a visit on %s with %j by %j goes on %s at the latest', (visit, period, way, sent) => {
    expect(isoOfDay(latestSending(dayOfIso(visit), period, way, christmas))).toBe(sent);
  });

  it('that is late has its visit moved on to the first working day that is early enough', () => {
    const { send, visit } = earliestVisitFrom(dayOfIso('2026-11-28'), CLEAR, POST, WEEKDAYS_ONLY);
    // It goes on Monday the 30th, is there on Wednesday the 2nd; the 10th has the 3rd to the 9th before it.
    expect([isoOfDay(send), isoOfDay(visit)]).toEqual(['2026-11-30', '2026-12-10']);
  });

  const day = fc.integer({ min: dayOfIso('2026-01-01'), max: dayOfIso('2027-12-31') });
  const unit = fc.constantFrom('day' as const, 'workingDay' as const);
  const period: fc.Arbitrary<NoticePeriod> = fc.record({
    ...{ days: fc.nat(30), unit },
    ...{ countsReceipt: fc.boolean(), countsVisit: fc.boolean() },
  });
  const way: fc.Arbitrary<DeliveryWay> = fc.record({
    name: fc.constant('post'),
    kind: fc.constant('post' as const),
    onItsWay: fc.record({ days: fc.nat(6), unit }),
  });
  const calendar: fc.Arbitrary<WorkingCalendar> = fc
    .tuple(
      fc.uniqueArray(fc.integer({ min: 1, max: 7 }) as fc.Arbitrary<Weekday>, { minLength: 1 }),
      fc.array(day, { maxLength: 40 }),
    )
    .map(([weekdays, holidays]) => workingCalendar(weekdays, new Map(holidays.map((one) => [one, 'off']))));

  /** Day by day, as somebody with a paper calendar does it. */
  function counted(receipt: CivilDay, visit: CivilDay, of: NoticePeriod, by: WorkingCalendar): number {
    let n = 0;
    for (let at = receipt; at <= visit; at++) {
      const isLeftOut = (at === receipt && !of.countsReceipt) || (at === visit && !of.countsVisit);
      if (!isLeftOut && (of.unit === 'day' || by.isWorkingDay(at))) n += 1;
    }
    return n;
  }

  it('has as many days as are counted on paper', () => {
    fc.assert(
      fc.property(day, fc.nat(40), period, calendar, (receipt, later, of, by) => {
        expect(daysOfNotice(receipt, receipt + later, of, by)).toBe(counted(receipt, receipt + later, of, by));
      }),
    );
  });

  it('goes in time on its latest day, and on no working day after that', () => {
    fc.assert(
      fc.property(day, period, way, calendar, (visit, of, by, days) => {
        const latest = latestSending(visit, of, by, days);
        expect(days.isWorkingDay(latest)).toBe(true);
        expect(isInTime(latest, visit, of, by, days)).toBe(true);
        expect(receivedOn(latest, by, days)).toBeLessThanOrEqual(visit);
        for (let later = latest + 1; later <= visit; later++)
          if (days.isWorkingDay(later)) expect(isInTime(later, visit, of, by, days)).toBe(false);
      }),
    );
  });

  it('is early enough for the earliest visit, and for none before it', () => {
    fc.assert(
      fc.property(day, period, way, calendar, (sent, of, by, days) => {
        const earliest = earliestVisit(sent, of, by, days);
        expect(isInTime(sent, earliest, of, by, days)).toBe(true);
        for (let before = sent; before < earliest; before++) expect(isInTime(sent, before, of, by, days)).toBe(false);
      }),
    );
  });
});
