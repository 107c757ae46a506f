import { type CivilDay, type Weekday, weekdayOf } from '../civil-date/civil-day.ts';

/**
 * Which days are worked. Days off are the weekdays outside the working week, and the holidays.
 * Working days are numbered, so that counting them, however many, never means walking over them.
 */
export interface WorkingCalendar {
  isWorkingDay(day: CivilDay): boolean;
  /** Name of the holiday on that day, if it is one. */
  holidayName(day: CivilDay): string | undefined;
  /** The number of the last working day up to and including a day; only differences between numbers mean anything. */
  numberOf(day: CivilDay): number;
  /** The working day with a number. */
  dayNumbered(number: number): CivilDay;
  readonly workingWeekdays: readonly Weekday[];
  /** Days that are holidays, in order. */
  readonly holidays: readonly CivilDay[];
}

/** No working day within this many days ends the search for one: the calendar has none that anyone would wait for. */
const LONGEST_CLOSURE = 400;

export class NoWorkingDayError extends Error {
  override readonly name = 'NoWorkingDayError';
  constructor() {
    super(
      `The calendar has no working day within ${LONGEST_CLOSURE} days: give it a working weekday, or shorten the holidays.`,
    );
  }
}

/**
 * A calendar from ISO weekdays (1 Monday … 7 Sunday) and holidays by civil day.
 * @throws RangeError when there is no working weekday at all.
 */
export function workingCalendar(
  workingWeekdays: readonly Weekday[],
  holidays: ReadonlyMap<CivilDay, string>,
): WorkingCalendar {
  let mask = 0;
  for (const weekday of workingWeekdays) {
    if (!Number.isInteger(weekday) || weekday < 1 || weekday > 7) {
      throw new RangeError(`${weekday} is not a weekday: 1 is Monday, 7 is Sunday.`);
    }
    mask |= 1 << weekday;
  }
  if (mask === 0) throw new RangeError('A working week needs at least one weekday.');

  const worked = [0, 1, 2, 3, 4, 5, 6].filter((i) => (mask & (1 << (i + 1))) !== 0);
  /** How many of the week's first 0, 1 … 7 days are worked. */
  const before = [0, 1, 2, 3, 4, 5, 6, 7].map((n) => worked.filter((i) => i < n).length);
  const holidayDays = [...holidays.keys()].sort((a, b) => a - b);
  const lost = lostDays(holidayDays.filter((day) => (mask & (1 << weekdayOf(day))) !== 0));

  const numberOf = (day: CivilDay) => {
    const week = Math.floor((day + 3) / 7);
    return week * worked.length + (before[day + 4 - week * 7] as number) - lost.upTo(day);
  };
  const weekdayNumbered = (number: number) => {
    const week = Math.floor((number - 1) / worked.length);
    return week * 7 + (worked[number - 1 - week * worked.length] as number) - 3;
  };
  return {
    isWorkingDay: (day) => (mask & (1 << weekdayOf(day))) !== 0 && !lost.has(day),
    holidayName: (day) => holidays.get(day),
    numberOf,
    dayNumbered(number) {
      // The weekday that would have the number without holidays, then as many further on as holidays have taken away so far.
      for (let seeking = number; ; ) {
        const day = weekdayNumbered(seeking);
        const found = number + lost.upTo(day);
        if (found === seeking) return day;
        seeking = found;
      }
    },
    workingWeekdays,
    holidays: holidayDays,
  };
}

/**
 * Working days that holidays take away, given in order: whether a day is one, and how many there are up to a day.
 * A table over the years that have holidays, as every occurrence of a plan asks it several times.
 */
function lostDays(days: readonly CivilDay[]): { has(day: CivilDay): boolean; upTo(day: CivilDay): number } {
  const first = days[0] ?? 0;
  const last = days.at(-1) ?? -1;
  const counts = new Int32Array(last - first + 1);
  for (const day of days) counts[day - first] = 1;
  for (let i = 1; i < counts.length; i++) counts[i] = (counts[i] as number) + (counts[i - 1] as number);
  const upTo = (day: CivilDay) => (day < first ? 0 : day >= last ? days.length : (counts[day - first] as number));
  return { has: (day) => day >= first && day <= last && upTo(day) !== upTo(day - 1), upTo };
}

/** Monday to Friday, no holidays: what a rule means where no workspace says otherwise. */
export const WEEKDAYS_ONLY: WorkingCalendar = workingCalendar([1, 2, 3, 4, 5], new Map());

/** The first working day on or after a day. */
export function workingDayFrom(day: CivilDay, calendar: WorkingCalendar): CivilDay {
  for (let n = 0; n <= LONGEST_CLOSURE; n++) if (calendar.isWorkingDay(day + n)) return day + n;
  throw new NoWorkingDayError();
}

/** The last working day on or before a day. */
export function workingDayUpTo(day: CivilDay, calendar: WorkingCalendar): CivilDay {
  for (let n = 0; n <= LONGEST_CLOSURE; n++) if (calendar.isWorkingDay(day - n)) return day - n;
  throw new NoWorkingDayError();
}

/**
 * The working day n after (n > 0) or before (n < 0) a day, both strictly;
 * for 0 the day itself if it is worked, else the following working day.
 */
export function shiftWorkingDays(day: CivilDay, n: number, calendar: WorkingCalendar): CivilDay {
  const number = calendar.numberOf(day);
  // A day off has the number of the working day before it, which for n = -1 is the answer.
  const skipped = n <= 0 && !calendar.isWorkingDay(day) ? 1 : 0;
  return calendar.dayNumbered(number + n + skipped);
}

/** Working days after `from`, up to and including `to`; negative when `to` is earlier. */
export function workingDaysBetween(from: CivilDay, to: CivilDay, calendar: WorkingCalendar): number {
  return calendar.numberOf(to) - calendar.numberOf(from);
}
