import type { Leave } from '../../../../contract/index.ts';
import {
  type CivilDay,
  dayOfIso,
  monthIndexOf,
  plural,
  weekdayOf,
  weekdayShort,
  yearMonthDay,
} from '../../../../core/index.ts';
import { sayDay, waysShown } from '../../../kit/ways.ts';

/** "Thu 26 to Fri 27 Nov", "the morning of Tue 1 Dec". */
export function sayLeaveDays({ from, to, half }: Pick<Leave, 'from' | 'to' | 'half'>, today: CivilDay): string {
  const day = (date: string) => sayDay(dayOfIso(date), today);
  if (half !== null) return `the ${half} of ${day(from)}`;
  return from === to ? day(from) : sayDays(dayOfIso(from), dayOfIso(to), today);
}

/** Days in a row; of one month its name stands once: "Tue 15 to Sat 19 Dec". */
function sayDays(from: CivilDay, to: CivilDay, today: CivilDay): string {
  const isShort = monthIndexOf(from) === monthIndexOf(to) && waysShown().dateOrder === 'day first';
  const first = isShort ? `${weekdayShort(weekdayOf(from))} ${yearMonthDay(from).day}` : sayDay(from, today);
  return `${first} to ${sayDay(to, today)}`;
}

/** Some days, those in a row together: "Tue 15, Thu 17 to Sat 19 Dec". */
export function sayDayList(days: readonly CivilDay[], today: CivilDay): string {
  const runs: { from: CivilDay; to: CivilDay }[] = [];
  for (const day of [...new Set(days)].sort((a, b) => a - b)) {
    const last = runs.at(-1);
    if (last && last.to + 1 === day) last.to = day;
    else runs.push({ from: day, to: day });
  }
  return runs.map(({ from, to }) => (from === to ? sayDay(from, today) : sayDays(from, to, today))).join(', ');
}

/** "5 days", "half a day" */
export function sayCount(days: number): string {
  return days === 0.5 ? 'half a day' : plural(days, 'day');
}
