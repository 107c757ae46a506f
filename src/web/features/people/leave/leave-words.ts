import type { Leave } from '../../../../contract/index.ts';
import { type CivilDay, dayOfIso, plural } from '../../../../core/index.ts';
import { sayDay } from '../../../kit/ways.ts';

/** "Thu 26 to Fri 27 Nov", "the morning of Tue 1 Dec". */
export function sayLeaveDays({ from, to, half }: Pick<Leave, 'from' | 'to' | 'half'>, today: CivilDay): string {
  const day = (date: string) => sayDay(dayOfIso(date), today);
  if (half !== null) return `the ${half} of ${day(from)}`;
  return from === to ? day(from) : `${day(from)} to ${day(to)}`;
}

/** "5 days", "half a day" */
export function sayCount(days: number): string {
  return days === 0.5 ? 'half a day' : plural(days, 'day');
}
