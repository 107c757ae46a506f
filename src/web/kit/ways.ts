// biome-ignore-all lint/style/noRestrictedImports: this is where it is said as people like to see it
import {
  type CivilDay,
  columnOf,
  type IsoTime,
  monthShort,
  sayDate as sayDateIn,
  sayDay as sayDayIn,
  sayDayOfMonth as sayDayOfMonthIn,
  sayNear as sayNearIn,
  sayTime as sayTimeIn,
  sayTimeSpan as sayTimeSpanIn,
  USUAL_WAYS,
  type Ways,
  type Weekday,
  weekdayOf,
  weekdayShort,
  weekdaysInOrder,
  yearMonthDay,
} from '../../core/index.ts';

/**
 * How this browser shows dates and times: as whoever is signed in likes to see them. Said once, where the workspace is
 * known, so that no part has to be handed it; whoever changes it draws the page anew.
 */
let ways: Ways = USUAL_WAYS;

export function showIn(as: Ways): void {
  ways = as;
}

export const waysShown = (): Ways => ways;

/** "Nov 2026", of any of its days. */
export const sayMonth = (day: CivilDay): string => `${monthShort(yearMonthDay(day).month)} ${yearMonthDay(day).year}`;
/** "24 Nov" */
export const sayDayOfMonth = (day: CivilDay): string => sayDayOfMonthIn(day, ways);
/** "24 Nov 2026" */
export const sayDate = (day: CivilDay): string => sayDateIn(day, ways);
/** "Tue 24 Nov", with the year when it is not the one of `today`. */
export const sayDay = (day: CivilDay, today: CivilDay): string => sayDayIn(day, today, ways);
/** "Tue 24 Nov", of whatever year. */
export const sayShortDay = (day: CivilDay): string => `${weekdayShort(weekdayOf(day))} ${sayDayOfMonth(day)}`;
/** "today", "tomorrow", "yesterday", "Fri" within the coming week, then "Fri 6 Nov". */
export const sayNear = (day: CivilDay, today: CivilDay): string => sayNearIn(day, today, ways);
/** "08:30", or "8:30 am" */
export const sayTime = (time: IsoTime): string => sayTimeIn(time, ways);
/** The clock time of a civil moment. */
export const timeOf = (moment: string): string => sayTime(moment.slice(11, 16));
/** "08:00–09:30" */
export const sayTimeSpan = (from: IsoTime, to: IsoTime): string => sayTimeSpanIn(from, to, ways);
/** The weekdays, the one first on which a week begins. */
export const weekdays = (): Weekday[] => weekdaysInOrder(ways);
/** How many days of a week lie before a day. */
export const daysIntoWeek = (day: CivilDay): number => columnOf(weekdayOf(day), ways);
