import { type CivilDay, mondayOf, type Weekday } from '../civil-date/civil-day.ts';
import { dayOfIso, type IsoDate, isoOfDay } from '../civil-date/iso-date.ts';
import { monthIndexOf, monthStart } from '../civil-date/month.ts';
import { DAYS_A_WEEK } from '../people/week-hours.ts';
import { MAX_DISTANCE, type MonthsRule, type Recurrence, type Rule, type WeeksRule, type YearsRule } from './rule.ts';

/**
 * The same recurrence with each of its dates so many days later, or earlier where it is less than nothing, before any
 * convention moves them off days off. Null where none of our rules can say that: rules by working days, on completion, from
 * elsewhere, with weekdays left out, and weeks whose days would come into different ones.
 * It may give some before what was its first one, of the same week, month or year: whoever uses the answer says from which day
 * on it holds.
 * @param days whole, from -366 to 366
 */
export function movedBy(recurrence: Recurrence, days: number): Recurrence | null {
  if (days === 0) return recurrence;
  const { start, rules, end, except } = recurrence;
  const moved = rules.map((rule) => ruleMovedBy(rule, days));
  if (moved.includes(null)) return null;
  const begins = startMovedBy(recurrence, days);
  if (begins === null) return null;
  return {
    ...recurrence,
    start: begins === start ? start : begins,
    rules: moved.filter((rule) => rule !== null),
    end: end.kind === 'on' ? { ...end, date: later(end.date, days) } : end,
    ...(except === undefined ? {} : { except: except.map((date) => later(date, days)) }),
  };
}

const later = (date: IsoDate, days: number): IsoDate => isoOfDay(dayOfIso(date) + days);

function ruleMovedBy(rule: Rule, days: number): Rule | null {
  switch (rule.kind) {
    case 'days':
      return rule.except.length === 0 ? rule : null;
    case 'weeks':
      return { ...rule, on: rule.on.map((weekday) => placeOf(weekday, days).weekday).sort((a, b) => a - b) };
    case 'months':
    case 'years':
      return atPlacesMovedBy(rule, days);
    case 'dates':
      return { ...rule, dates: rule.dates.map((date) => later(date, days)) };
    case 'workingDays':
    case 'rrule':
    case 'follows':
      return null;
  }
}

/** The weekday so many days from another, and how many weeks further it lies. */
function placeOf(weekday: Weekday, days: number): { readonly weekday: Weekday; readonly weeks: number } {
  const place = weekday - 1 + days;
  const weeks = Math.floor(place / DAYS_A_WEEK);
  return { weekday: (place - weeks * DAYS_A_WEEK + 1) as Weekday, weeks };
}

/** A rule at places: its dates lie so many days before or after them. */
function atPlacesMovedBy<R extends MonthsRule | YearsRule>(rule: R, days: number): R | null {
  const { away, ...at } = rule;
  if (away !== undefined && away.of !== 'day') return null;
  const now = (away === undefined ? 0 : away.way === 'before' ? -away.amount : away.amount) + days;
  if (Math.abs(now) > MAX_DISTANCE) return null;
  if (now === 0) return at as R;
  return { ...rule, away: { amount: Math.abs(now), of: 'day', way: now < 0 ? 'before' : 'after' } };
}

/** A day on or before another from which rules at places are counted as from their start; null where that is out of all reckoning. */
function startOfPlaces(rules: readonly Rule[], start: CivilDay, upTo: CivilDay): IsoDate | null {
  const [month, needed] = [monthIndexOf(start), monthIndexOf(upTo)];
  if (month === needed) return isoOfDay(upTo);
  const periods = rules.flatMap((rule) =>
    rule.kind === 'months' ? rule.every : rule.kind === 'years' ? rule.every * MONTHS_A_YEAR : [],
  );
  const period = periods.reduce(leastCommonMultiple, 1);
  const begins = month - Math.ceil((month - needed) / period) * period;
  return begins < MONTHS_A_YEAR ? null : isoOfDay(monthStart(begins));
}

const MONTHS_A_YEAR = 12;

function leastCommonMultiple(a: number, b: number): number {
  let [greater, rest] = [a, b];
  while (rest > 0) [greater, rest] = [rest, greater % rest];
  return (a / greater) * b;
}

/** The day from which intervals are counted afterwards; null where no one day does for all rules. */
function startMovedBy({ start, rules, end }: Recurrence, days: number): IsoDate | null {
  const from = dayOfIso(start);
  const weekly = rules.filter((rule): rule is WeeksRule => rule.kind === 'weeks');
  const counted = rules.filter(({ kind }) => kind === 'days');
  const atPlaces = rules.some(({ kind }) => kind === 'months' || kind === 'years');
  if (atPlaces) {
    if (weekly.length + counted.length > 0 || end.kind === 'after') return null;
    // Their places stay where they are, and so does the month or year from which they are counted.
    return days > 0 ? start : startOfPlaces(rules, from, from + days);
  }
  if (weekly.length === 0) return later(start, days);
  const weeks = new Set(
    weekly.flatMap((rule) => (rule.every === 1 ? [] : rule.on.map((weekday) => placeOf(weekday, days).weeks))),
  );
  const moved = from + days;
  const goesOn = weeks.size === 0 || (weeks.size === 1 && weeks.has((mondayOf(moved) - mondayOf(from)) / DAYS_A_WEEK));
  if (goesOn) return isoOfDay(moved);
  // Its week is what counts; a number of dates, or of days, is counted from the very day.
  if (weeks.size > 1 || counted.length > 0 || end.kind === 'after') return null;
  const [by = 0] = weeks;
  return isoOfDay(mondayOf(from) + by * DAYS_A_WEEK);
}
