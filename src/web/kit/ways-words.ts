// biome-ignore-all lint/style/noRestrictedImports: this is where it is said as people like to see it
import {
  CLOCKS,
  civilDay,
  DATE_ORDERS,
  sayDate,
  sayTime,
  USUAL_WAYS,
  type Ways,
  WEEK_STARTS,
  weekdayName,
} from '../../core/index.ts';

/** A date and a time that show the order and the clock. */
const dateIn = (order: Pick<Ways, 'dateOrder'>): string => sayDate(civilDay(2026, 11, 24), order);
const timeIn = (clock: Ways['clock']): string => sayTime('14:30', { ...USUAL_WAYS, clock });

/** What may be chosen of each way, with an example of it. */
export const WEEK_START_WORDS = WEEK_STARTS.map((weekday) => [weekday, weekdayName(weekday)] as const);
export const DATE_ORDER_WORDS = DATE_ORDERS.map((dateOrder) => [dateOrder, dateIn({ dateOrder })] as const);
export const CLOCK_WORDS = CLOCKS.map((clock) => [clock, timeIn(clock)] as const);

/** "A week begins on a Monday, dates are shown as 24 Nov 2026, times as 14:30" */
export function sayWays(ways: Ways): string {
  return `A week begins on a ${weekdayName(ways.weekStarts)}, dates are shown as ${dateIn(ways)}, times as ${timeIn(ways.clock)}`;
}
