import type { Weekday } from '../../civil-date/civil-day.ts';
import { type Distance, MAX_DISTANCE, type MonthsRule, type Way, type YearsRule } from '../rule.ts';
import { isWorkingDay } from './common-words.ts';
import type { PhraseCursor } from './cursor.ts';
import { skipAnd } from './dates.ts';

/** How far from a place, as it is said: months go to another month with the same place, the rest away from there. */
export interface SaidDistance {
  /** Months on, or back where negative. */
  readonly months: number;
  readonly away: Distance | null;
}

/** "3 working days before", "the day after", "first working day on or after", "a month and 7 days after" */
export function readDistance(c: PhraseCursor): SaidDistance | null {
  c.filler('on the', 'on', 'the');
  return c.try(() => readCounted(c)) ?? c.try(() => readRanked(c));
}

/** "3 working days before", "two weeks after", "day after", "a month and 7 days after" */
function readCounted(c: PhraseCursor): SaidDistance | null {
  let [months, days, workingDays] = [0, 0, 0];
  do {
    const said = c.try(() => c.number());
    const count = said ?? (c.filler('a', 'an', 'one') ? 1 : null);
    if (count === null && months + days + workingDays > 0) return null;
    const amount = count ?? 1;
    c.filler('full', 'clear', 'calendar');
    if (isWorkingDay(c)) workingDays += amount;
    else if (c.word('days', 'day')) days += amount;
    else if (c.word('weeks', 'week')) days += amount * 7;
    else if (c.word('fortnights', 'fortnight')) days += amount * 14;
    else if (c.word('months', 'month')) months += amount;
    else return null;
  } while (c.when(() => skipAnd(c) && c.ahead(() => c.number() !== null || c.word('a', 'an'))));
  const at = c.place;
  const way = readWay(c);
  if (way !== 'before' && way !== 'after') return null;
  if (days > 0 && workingDays > 0) return c.refuse(at, 'Days and working days together: say it in one of them.');
  if (Math.max(days, workingDays) > MAX_DISTANCE || months > 12)
    return c.refuse(at, `That is further than ${MAX_DISTANCE} days: count from a place that is nearer.`);
  const away: Distance | null =
    workingDays > 0
      ? { amount: workingDays, of: 'workingDay', way }
      : days > 0
        ? { amount: days, of: 'day', way }
        : null;
  return { months: way === 'before' ? -months : months, away };
}

/** "first working day on or after", "Friday before", "the second Monday after", "last working day before" */
function readRanked(c: PhraseCursor): SaidDistance | null {
  const at = c.place;
  const isLast = c.word('last', 'previous', 'preceding');
  const isNext = !isLast && c.word('next', 'following');
  const rank = isLast || isNext ? 1 : (c.try(() => c.ordinal())?.n ?? 1);
  // "Fridays before the 25th" are several.
  if (c.ahead(() => c.word(...WEEKDAYS_MANY))) return null;
  const of = isWorkingDay(c) ? 'workingDay' : (c.weekday() as Weekday | null);
  if (of === null) return null;
  const way = readWay(c);
  if (way === null || rank < 1 || rank > MAX_DISTANCE) return null;
  const isBefore = way === 'before' || way === 'onOrBefore';
  if (isBefore ? isNext : isLast)
    return c.refuse(
      at,
      'The last one after a day, or the next one before it, could be any: say the first, or the date.',
    );
  return { months: 0, away: { amount: rank, of, way } };
}

const WEEKDAYS_MANY = ['mondays', 'tuesdays', 'wednesdays', 'thursdays', 'fridays', 'saturdays', 'sundays', 'workdays'];

/** "before", "on or after"; not where a time of day follows: "Friday before 5pm". */
function readWay(c: PhraseCursor): Way | null {
  c.filler('immediately', 'just', 'directly');
  const way: Way | null = c.word('on or after', 'on or following', 'on or next after')
    ? 'onOrAfter'
    : c.word('on or before', 'on or prior to', 'on or preceding')
      ? 'onOrBefore'
      : c.word('before', 'prior to', 'ahead of', 'preceding')
        ? 'before'
        : c.word('after', 'following')
          ? 'after'
          : null;
  return way === null || c.ahead(() => c.token('time') !== null) ? null : way;
}

/** Whether what was just read is counted from a place: "Friday" of "Friday before the 25th". */
export function isAwayAhead(c: PhraseCursor): boolean {
  return c.ahead(() => readWay(c) !== null);
}

/** A rule at places, so far from them; null where so many months on can't be said of it. */
export function awayFrom<R extends MonthsRule | YearsRule>(rule: R, { months, away }: SaidDistance): R | null {
  const rest = away ? { ...rule, away } : rule;
  if (months === 0 || (rule.kind === 'months' && rule.months.length === 0 && rule.every === 1)) return rest;
  // Counted in steps of its own, a rule can't be moved on by some of them.
  if (rule.every > 1) return null;
  return { ...rest, months: rule.months.map((month) => ((month - 1 + months + 24) % 12) + 1).sort((a, b) => a - b) };
}
