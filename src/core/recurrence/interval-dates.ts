import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import { type CivilDay, mondayOf, weekdayOf } from '../civil-date/civil-day.ts';
import { dayOfIso } from '../civil-date/iso-date.ts';
import { NO_DAY, weekdayMask } from './month-point.ts';
import type { DatesRule, DaysRule, WeeksRule, WorkingDaysRule } from './rule.ts';
import type { RuleDates } from './rule-dates.ts';

/** Rules that step by a fixed number of days, weeks or working days, and listed dates. */

export function daysDates({ every, except }: DaysRule, start: CivilDay): RuleDates {
  const left = weekdayMask(except);
  const firstStep = (from: CivilDay) => (from <= start ? start : start + Math.ceil((from - start) / every) * every);
  return {
    addBetween(into, from, to) {
      for (let day = firstStep(from); day <= to; day += every) {
        if ((left & (1 << weekdayOf(day))) === 0) into.push(day);
      }
    },
    firstFrom(from, to) {
      let day = firstStep(from);
      // After seven steps the weekdays come round again.
      for (let step = 0; step < 7 && day <= to; step++, day += every) {
        if ((left & (1 << weekdayOf(day))) === 0) return day;
      }
      return NO_DAY;
    },
  };
}

export function weeksDates({ every, on }: WeeksRule, start: CivilDay): RuleDates {
  const period = every * 7;
  const origin = mondayOf(start);
  const mask = weekdayMask(on);
  /** Days after Monday, in order. */
  const offsets = [0, 1, 2, 3, 4, 5, 6].filter((offset) => (mask & (1 << (offset + 1))) !== 0);
  /** For each day after Monday, the next offset that is chosen. */
  const nextOffset = [0, 1, 2, 3, 4, 5, 6].map((day) => offsets.find((offset) => offset >= day) ?? NO_DAY);
  const [firstOffset = NO_DAY] = offsets;
  return {
    addBetween(into, from, to) {
      const first = from < start ? start : from;
      for (let monday = origin + Math.floor((first - origin) / period) * period; monday <= to; monday += period) {
        for (let i = 0; i < offsets.length; i++) {
          const day = monday + (offsets[i] as number);
          if (day >= first && day <= to) into.push(day);
        }
      }
    },
    firstFrom(from, to) {
      const first = from < start ? start : from;
      const monday = origin + Math.floor((first - origin) / period) * period;
      const within = first - monday < 7 ? (nextOffset[first - monday] as number) : NO_DAY;
      const day = within === NO_DAY ? monday + period + firstOffset : monday + within;
      return day <= to ? day : NO_DAY;
    },
  };
}

export function workingDaysDates({ every }: WorkingDaysRule, start: CivilDay, calendar: WorkingCalendar): RuleDates {
  const origin = calendar.numberOf(start - 1) + 1;
  return numberedDates(origin, every, start, calendar);
}

/** Every so many working days by their number, from one of them on. */
export function numberedDates(origin: number, every: number, start: CivilDay, calendar: WorkingCalendar): RuleDates {
  const firstNumber = (from: CivilDay) => {
    const number = calendar.numberOf((from < start ? start : from) - 1) + 1;
    return number <= origin ? origin : origin + Math.ceil((number - origin) / every) * every;
  };
  return {
    addBetween(into, from, to) {
      const last = calendar.numberOf(to);
      for (let number = firstNumber(from); number <= last; number += every) into.push(calendar.dayNumbered(number));
    },
    firstFrom(from, to) {
      const day = calendar.dayNumbered(firstNumber(from));
      return day <= to ? day : NO_DAY;
    },
  };
}

/** @throws InvalidDateError */
export function datesDates({ dates }: DatesRule, start: CivilDay): RuleDates {
  const days = dates
    .map(dayOfIso)
    .filter((day) => day >= start)
    .sort((a, b) => a - b);
  return {
    addBetween(into, from, to) {
      for (const day of days) if (day >= from && day <= to) into.push(day);
    },
    firstFrom(from, to) {
      const day = days.find((date) => date >= from) ?? NO_DAY;
      return day <= to ? day : NO_DAY;
    },
  };
}
