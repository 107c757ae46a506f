import { type CivilDay, yearMonthDay } from '../civil-date/civil-day.ts';
import { plural } from './date-words.ts';

/** From so many days on a distance is told in months, and from so many months on in years. */
const IN_MONTHS = 60;
const IN_YEARS = 12;

/** How far a day is from another: "today", "tomorrow", "in 10 days", "4 days ago", "in 5 months", "in a year". Months and years are whole ones. */
export function sayAway(day: CivilDay, today: CivilDay): string {
  const days = day - today;
  if (days === 0) return 'today';
  if (Math.abs(days) === 1) return days > 0 ? 'tomorrow' : 'yesterday';
  const words = sayLength(Math.min(day, today), Math.max(day, today));
  return days > 0 ? `in ${words}` : `${words} ago`;
}

function sayLength(from: CivilDay, to: CivilDay): string {
  if (to - from < IN_MONTHS) return plural(to - from, 'day');
  const months = monthsBetween(from, to);
  if (months < IN_YEARS) return plural(months, 'month');
  const years = Math.floor(months / 12);
  return years === 1 ? 'a year' : plural(years, 'year');
}

/** Whole months between two days, the earlier one first. */
function monthsBetween(from: CivilDay, to: CivilDay): number {
  const [a, b] = [yearMonthDay(from), yearMonthDay(to)];
  return (b.year - a.year) * 12 + b.month - a.month - (b.day < a.day ? 1 : 0);
}
