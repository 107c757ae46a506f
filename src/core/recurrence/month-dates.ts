import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { type MonthIndex, monthIndexOf, monthStart } from '../civil-date/month.ts';
import { spend } from '../reckoning.ts';
import { shiftOf } from './distance.ts';
import { NO_DAY, type PointFinder, pointFinder } from './month-point.ts';
import type { MonthsRule, YearsRule } from './rule.ts';
import type { RuleDates } from './rule-dates.ts';

/** Rules that name places in months, every N months or years, or dates so far from them. */
export function monthDates(rule: MonthsRule | YearsRule, start: CivilDay, calendar: WorkingCalendar): RuleDates {
  const finders = rule.on.map((point) => pointFinder(point, rule.missing, calendar));
  const shift = rule.away ? shiftOf(rule.away, calendar) : null;
  const monthFrom = monthCycle(rule, monthIndexOf(start));
  // The month before too: "the first of the next month" for a day it lacks may fall into the window.
  const lead = rule.missing === 'next' ? 1 : 0;
  const firstMonth = (from: CivilDay) => monthFrom(monthIndexOf(shift ? shift.earliest(from) : from) - lead);
  const lastMonth = (to: CivilDay) => monthIndexOf(shift ? shift.latest(to) : to);
  /** The day of one of the points in a month. */
  const dayOf = (find: PointFinder, index: MonthIndex): CivilDay => {
    const place = find(monthStart(index), monthStart(index + 1));
    return shift && place !== NO_DAY ? shift.from(place) : place;
  };
  return {
    addBetween(into, from, to) {
      const first = from < start ? start : from;
      if (first > to) return;
      const last = lastMonth(to);
      spend(Math.max(0, last - monthIndexOf(first)));
      for (let index = firstMonth(first); index <= last; index = monthFrom(index + 1)) {
        for (let i = 0; i < finders.length; i++) {
          const day = dayOf(finders[i] as PointFinder, index);
          if (day >= first && day <= to) into.push(day);
        }
      }
    },
    firstFrom(from, to) {
      const first = from < start ? start : from;
      if (first > to) return NO_DAY;
      const last = lastMonth(to);
      for (let index = firstMonth(first); index <= last; index = monthFrom(index + 1)) {
        spend(finders.length);
        // The earliest of this month is no later than anything of the months after it.
        let earliest = NO_DAY;
        for (let i = 0; i < finders.length; i++) {
          const day = dayOf(finders[i] as PointFinder, index);
          if (day >= first && day < earliest) earliest = day;
        }
        if (earliest <= to) return earliest;
      }
      return NO_DAY;
    },
  };
}

/** No month of the rule follows. */
const NO_MONTH: MonthIndex = NO_DAY;

/** For a rule, a way to find the first of its months at or after any month. */
function monthCycle(rule: MonthsRule | YearsRule, startIndex: MonthIndex): (from: MonthIndex) => MonthIndex {
  const startYear = startIndex - (startIndex % 12);
  if (rule.kind === 'months' && rule.months.length === 0) {
    const { every } = rule;
    return (from) => {
      const over = modulo(from - startIndex, every);
      return over === 0 ? from : from + every - over;
    };
  }
  /** For each month 0–11, the next one of the rule in the same year, or 12. */
  const inYear = Array.from({ length: 12 }, (_, month) => {
    const later = rule.months.filter((chosen) => chosen - 1 >= month);
    return later.length > 0 ? Math.min(...later) - 1 : 12;
  });
  if (rule.kind === 'years') {
    const period = rule.every * 12;
    return (from) => {
      let at = from;
      const over = modulo(at - startYear, period);
      if (over >= 12) at += period - over;
      const month = at % 12;
      const next = inYear[month] as number;
      // None left in this year: the first of the rule's next year.
      return next < 12 ? at - month + next : at - month + period + (inYear[0] as number);
    };
  }
  const { every } = rule;
  return (from) => {
    const over = modulo(from - startIndex, every);
    let index = over === 0 ? from : from + every - over;
    // Steps of N months meet the same months of the year again after twelve steps.
    for (let step = 0; step < 12; step++, index += every) if (inYear[index % 12] === index % 12) return index;
    return NO_MONTH;
  };
}

function modulo(a: number, n: number): number {
  const rest = a % n;
  return rest < 0 ? rest + n : rest;
}
