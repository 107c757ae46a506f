import { daysInMonth, type Weekday, yearMonthDay } from '../../civil-date/civil-day.ts';
import { plural } from '../../wording/date-words.ts';
import {
  type Distance,
  MAX_DISTANCE,
  type MissingDay,
  type MonthPoint,
  type MonthsRule,
  type Rule,
  type YearsRule,
} from '../rule.ts';
import { isWorkingDay, readInterval } from './common-words.ts';
import type { PhraseContext } from './context.ts';
import type { PhraseCursor } from './cursor.ts';
import { readMonthRange, readMonths, skipAnd } from './dates.ts';
import { awayFrom, isAwayAhead, readDistance, type SaidDistance } from './distances.ts';
import { daysFromEaster, easterRule, furtherFromEaster, readFeast } from './feasts.ts';
import { type Frequency, skipSeparator } from './frequency.ts';
import { dates, readMissing, readPoints, readPointsBefore } from './month-places.ts';
import {
  distanceInto,
  isFromTheEnd,
  lastMonth,
  leavesItsMonth,
  type Period,
  quarterEnds,
  quarterStarts,
} from './quarter-places.ts';
import { readYearDay, unsaidDay } from './year-rules.ts';

/** Rules of a frequency in months or quarters on some places. */
export function rulesOf(
  c: PhraseCursor,
  at: number,
  { unit, every }: Frequency,
  on: readonly MonthPoint[],
  missing: MissingDay,
): Rule[] | null {
  if (unit === 'quarter' && every === 1) return inQuarters(c, at, on, missing);
  return [{ kind: 'months', every: unit === 'quarter' ? every * 3 : every, months: [], on, missing }];
}

/**
 * After "monthly", "every 2 months", "quarterly": on which days of the month, or of the quarter; without, on the day of the start.
 * @param at where the frequency begins
 */
export function readMonthsOn(
  c: PhraseCursor,
  frequency: Frequency,
  at: number,
  context: PhraseContext,
): { readonly rules: readonly Rule[]; readonly isBare: boolean } | null {
  const every = frequency.unit === 'quarter' ? frequency.every * 3 : frequency.every;
  const from =
    every > 1 ? c.try(() => (c.word('from', 'starting in', 'beginning in') ? readFirstMonth(c) : null)) : null;
  // "Every month except August on the 1st"
  const but = every === 1 && from === null ? c.try(() => readMonthsBut(c, frequency)) : null;
  const days = from === null && !but ? c.try(() => readDaysOfYear(c, 12 / every)) : null;
  if (days) return { rules: days, isBare: false };
  const away = from === null ? c.try(() => readAwayAfter(c, frequency)) : null;
  if (away) return { rules: away, isBare: false };
  const before = c.try(() => readPointsAfter(c, frequency));
  const weekdays = before ? null : c.try(() => readWeekdaysAfter(c, frequency));
  if (weekdays) return weekdays;
  const within = but ?? (from === null ? c.try(() => (c.word('in') ? readMonths(c) : null)) : null);
  // "Quarterly in January, April, July and October on the 5th"
  const said = before ?? (within ? c.try(() => readPointsAfter(c, frequency)) : null);
  const wrong = contradictionOf(frequency, said, within);
  if (wrong !== null) return c.refuse(at, wrong);
  const cycle = from === null ? cycleOf(within, every, frequency) : monthsFrom(from, every);
  return rulesOfMonths(c, at, frequency, context, said, cycle, within);
}

/** Why days and months can't be meant as often as it is said; null where they can. */
function contradictionOf(
  { unit, every, isOnce, isNamed, twice }: Frequency,
  on: readonly MonthPoint[] | null,
  within: readonly number[] | null,
): string | null {
  if (on && twice && on.length !== 2) return `Twice a month, and ${plural(on.length, 'day')}: say two days.`;
  if (on && isOnce && on.length > 1)
    return `Once, and ${on.length} days: say “monthly on the …” for more than one day a month.`;
  return unit === 'month' && every === 1 && isNamed && within?.length === 1
    ? 'Monthly, and in one month of the year: say “yearly” for one, or more months.'
    : null;
}

/** @param cycle the months of the year, where the interval meets the same ones every year and they are said */
function rulesOfMonths(
  c: PhraseCursor,
  at: number,
  frequency: Frequency,
  context: PhraseContext,
  said: readonly MonthPoint[] | null,
  cycle: readonly number[] | null,
  within: readonly number[] | null,
): { readonly rules: readonly Rule[]; readonly isBare: boolean } | null {
  const every = frequency.unit === 'quarter' ? frequency.every * 3 : frequency.every;
  const on = said ?? (frequency.twice ? TWICE[frequency.twice] : null);
  const missing = readMissing(c);
  if (on && cycle === null && within === null) {
    const rules = rulesOf(c, at, frequency, on, missing);
    return rules && { rules, isBare: false };
  }
  if (!on && !cycle && frequency.unit === 'quarter' && every === 3 && within === null)
    return { rules: unsaidInQuarter(c, context), isBare: true };
  const rule: Rule = {
    kind: 'months',
    every: cycle ? 1 : every,
    months: cycle ?? within ?? [],
    on: on ?? (frequency.unit === 'quarter' ? unsaidDay(c, context) : dates(yearMonthDay(context.start).day)),
    missing,
  };
  return { rules: [rule], isBare: on === null };
}

/** The months of "quarterly in March, June, September and December", which say themselves what is counted from where. */
function cycleOf(within: readonly number[] | null, every: number, { isNamed, unit }: Frequency): number[] | null {
  if (!within || every === 1 || (!isNamed && unit !== 'quarter')) return null;
  const [first = 1] = within;
  const cycle = monthsFrom(first, every);
  return cycle?.join() === within.join() ? cycle : null;
}

/** "every month but August", with a day after it: the others */
function readMonthsBut(c: PhraseCursor, frequency: Frequency): number[] | null {
  c.mark(',');
  if (!c.word('but', 'except', 'except in', 'but not in', 'apart from', 'excluding')) return null;
  const left = c.try(() => readMonthRange(c)) ?? readMonths(c);
  // Without a day after it, the months are those that are closed; "except 25 Dec" is a date.
  if (!left || left.length > 11 || c.ahead(() => readPointsAfter(c, frequency) === null)) return null;
  return Array.from({ length: 12 }, (_, i) => i + 1).filter((month) => !left.includes(month));
}

/** "Half-yearly on 1 January and 1 July": as many days of the year as it comes in it. */
function readDaysOfYear(c: PhraseCursor, count: number): Rule[] | null {
  skipSeparator(c);
  c.filler('on');
  const days: Extract<Rule, { kind: 'years' }>[] = [];
  do {
    const day = readYearDay(c);
    if (!day) return null;
    days.push(day);
  } while (c.when(() => skipAnd(c) && c.ahead(() => readYearDay(c) !== null)));
  const all = days.reduce((sum, { months, on }) => sum + months.length * on.length, 0);
  if (all !== count || count < 2) return null;
  const [first] = days;
  // The same day of each: one rule.
  if (
    first &&
    days.every(({ on, missing }) => JSON.stringify([on, missing]) === JSON.stringify([first.on, first.missing]))
  )
    return [
      { kind: 'months', every: 1, months: days.flatMap(({ months }) => months), on: first.on, missing: first.missing },
    ];
  return days;
}

const TWICE = { first: dates(1, 15), second: dates(15, -1) } as const;

/** "Quarterly", and no day: so often from the start on, or at either end of the quarter. */
function unsaidInQuarter(c: PhraseCursor, context: PhraseContext): Rule[] {
  const { day } = yearMonthDay(context.start);
  switch (c.pick('day of the quarter', 3)) {
    case 1:
      return [{ kind: 'months', every: 1, months: quarterEnds(c.yearStarts), on: dates(-1), missing: 'last' }];
    case 2:
      return [{ kind: 'months', every: 1, months: quarterStarts(c.yearStarts), on: dates(1), missing: 'last' }];
    default:
      return [{ kind: 'months', every: 3, months: [], on: dates(day), missing: 'last' }];
  }
}

/** "Monthly on Fridays": the first of each month, the last, or every one. */
function readWeekdaysAfter(c: PhraseCursor, { unit, every }: Frequency): { rules: Rule[]; isBare: boolean } | null {
  skipSeparator(c);
  if (unit !== 'month' || every !== 1) return null;
  c.filler('on', 'on a');
  const weekday = c.weekday() as Weekday | null;
  if (weekday === null) return null;
  const which = c.pick('which weekday of the month', 3);
  const rule: Rule =
    which === 2
      ? { kind: 'weeks', every: 1, on: [weekday] }
      : {
          kind: 'months',
          every: 1,
          months: [],
          on: [{ kind: 'weekday', nth: which === 0 ? 1 : -1, weekday }],
          missing: 'last',
        };
  return { rules: [rule], isBare: false };
}

/** "on the 15th", ", 15th", "- last Friday of the month": places whose period may be said once more, but no other one. */
function readPointsAfter(c: PhraseCursor, { unit, every }: Frequency): MonthPoint[] | null {
  skipSeparator(c);
  c.filler('on', 'at', 'by');
  const points = readPointsBefore(c, unit === 'quarter' ? QUARTER_AGAIN : every === 1 ? MONTH_AGAIN : []);
  // "Monthly, 5 April" is no day of every month.
  return points && c.ahead(() => c.month() !== null) ? null : points;
}

/** ", 3 working days before the last day", "on the Friday before the 25th", "quarterly, 10 days after quarter end" */
function readAwayAfter(c: PhraseCursor, frequency: Frequency): Rule[] | null {
  const at = c.place;
  const { unit, every } = frequency;
  skipSeparator(c);
  const distance = readDistance(c);
  if (!distance) return null;
  c.filler('the');
  const ends = c.try(() => readMonthEnds(c));
  if (ends) {
    const fits = ends.kind === 'months' && every === 1 && ends.months.length === (unit === 'quarter' ? 4 : 0);
    return fits ? moved(c, at, [ends], distance) : null;
  }
  const on = readPointsBefore(c, unit === 'quarter' ? QUARTER_AGAIN : every === 1 ? MONTH_AGAIN : []);
  if (!on || c.ahead(() => c.month() !== null)) return null;
  const within = every > 1 && unit === 'month' ? c.try(() => (c.word('in') ? readMonths(c) : null)) : null;
  const rules = rulesOf(c, at, frequency, on, readMissing(c));
  return rules && moved(c, at, within ? rules.map((rule) => ({ ...rule, months: within })) : rules, distance);
}

/** "3 working days before month end", "Friday before the 25th", "10 days after the last day of every quarter", "a week before 31 January" */
export function readAnchored(c: PhraseCursor): Rule[] | null {
  const at = c.place;
  const distance = readDistance(c);
  const rules = distance && (c.try(() => readPlaces(c)) ?? null);
  return distance && rules && moved(c, at, rules, distance);
}

/** "quarter end plus 7 days", "month end + 3 working days": the distance after its place. */
export function readEndsPlus(c: PhraseCursor): Rule[] | null {
  const at = c.place;
  const ends = readMonthEnds(c);
  if (!ends) return null;
  c.filler('each month', 'every month', 'each quarter', 'every quarter', 'each year', 'every year');
  if (!c.word('plus') && !c.mark('+')) return null;
  const amount = c.number();
  const of = isWorkingDay(c) ? 'workingDay' : c.word('days', 'day') ? 'day' : c.word('weeks', 'week') ? 'week' : null;
  if (amount === null || of === null || amount < 1 || amount * (of === 'week' ? 7 : 1) > MAX_DISTANCE) return null;
  // "… plus 2 days before the 5th" counts from there.
  if (isAwayAhead(c)) return null;
  const away: Distance = { amount: of === 'week' ? amount * 7 : amount, of: of === 'week' ? 'day' : of, way: 'after' };
  return moved(c, at, [ends], { months: 0, away });
}

/** What dates are counted from. */
function readPlaces(c: PhraseCursor): Rule[] | null {
  const ends = readMonthEnds(c);
  if (ends) {
    c.filler('each month', 'every month', 'each quarter', 'every quarter', 'each year', 'every year');
    return [ends];
  }
  const feast = c.try(() => readFeast(c));
  if (feast) return [feast];
  const yearDay = c.try(() => readYearDay(c));
  if (yearDay) return [yearDay];
  c.filler('each', 'every');
  return readPointsWithMonths(c) ?? readPointsAlone(c);
}

function moved(c: PhraseCursor, at: number, rules: readonly Rule[], distance: SaidDistance): Rule[] | null {
  const all = rules.map((rule) => {
    if (rule.kind !== 'months' && rule.kind !== 'years') return null;
    return rule.away ? fromFeast(rule, distance) : awayFrom(rule, distance);
  });
  if (all.every((rule) => rule !== null)) return all;
  return c.refuse(at, 'So far from there can’t be counted: say the day itself, or count from a date.');
}

/** "2 days after Good Friday": so many days from Easter. */
function fromFeast(rule: MonthsRule | YearsRule, { months, away }: SaidDistance): YearsRule | null {
  const days = rule.kind === 'years' && months === 0 ? daysFromEaster(rule) : null;
  const further = days === null || !away ? null : furtherFromEaster(days, away);
  return further === null || Math.abs(further) > MAX_DISTANCE ? null : easterRule(further);
}

const MONTH_AGAIN = ['of each month', 'of every month', 'of the month', 'each month', 'every month', 'in the month'];

const QUARTER_AGAIN = ['of each quarter', 'of every quarter', 'of the quarter', 'each quarter', 'every quarter'];

/** A month on its own: "from February", where "from February 2027" or "from 3 February" is a start. */
function readFirstMonth(c: PhraseCursor): number | null {
  const month = c.month();
  return month === null || c.try(() => c.number()) !== null ? null : month;
}

/** The months of a year that an interval meets from one of them, where it meets the same ones every year. */
function monthsFrom(month: number, every: number): number[] | null {
  if (12 % every !== 0) return null;
  return Array.from({ length: 12 / every }, (_, i) => ((month - 1 + i * every) % 12) + 1).sort((a, b) => a - b);
}

/** "15th and the last working day of each month", "month end", "the last Friday of every quarter". */
export function readMonthly(c: PhraseCursor): Rule[] | null {
  const named = readMonthEnds(c);
  if (named) return [named];
  c.filler('on', 'at', 'by');
  return readPointsWithMonths(c) ?? readPointsAlone(c);
}

export function readMonthEnds(c: PhraseCursor): MonthsRule | YearsRule | null {
  return c.try(() => {
    c.filler('on', 'at', 'by');
    c.filler('the');
    c.filler('every', 'each');
    const financial = c.try(() => readFinancialYear(c));
    if (financial) return financial;
    const ends = (on: MonthPoint[], months: number[]): MonthsRule => ({
      kind: 'months',
      every: 1,
      months,
      on,
      missing: 'last',
    });
    if (
      c.word(
        'month end',
        'eom',
        'monthend',
        'end of the month',
        'end of month',
        'end of each month',
        'end of every month',
        'months end',
      )
    )
      return ends(dates(-1), []);
    if (
      c.word(
        'quarter end',
        'eoq',
        'quarterend',
        'end of the quarter',
        'end of each quarter',
        'end of every quarter',
        'end of quarter',
        'quarters end',
      )
    )
      return ends(dates(-1), quarterEnds(c.yearStarts));
    if (
      c.word(
        'start of month',
        'beginning of month',
        'start of the month',
        'start of each month',
        'start of every month',
        'beginning of the month',
        'beginning of each month',
        'beginning of every month',
      )
    )
      return ends(dates(1), []);
    if (
      c.word(
        'start of quarter',
        'beginning of quarter',
        'beginning of the quarter',
        'start of the quarter',
        'start of each quarter',
        'start of every quarter',
        'beginning of each quarter',
        'beginning of every quarter',
      )
    )
      return ends(dates(1), quarterStarts(c.yearStarts));
    if (c.word('midmonth', 'mid month', 'the middle of the month', 'middle of the month', 'middle of each month'))
      return ends(dates(15), []);
    if (
      c.word(
        'start of year',
        'beginning of year',
        'start of the year',
        'start of each year',
        'start of every year',
        'beginning of the year',
      )
    )
      return { kind: 'years', every: 1, months: [c.yearStarts], on: dates(1), missing: 'last' };
    if (
      c.word(
        'year end',
        'eoy',
        'yearend',
        'years end',
        'end of year',
        'end of the year',
        'end of each year',
        'end of every year',
      )
    )
      return yearEnd(c.yearStarts);
    return null;
  });
}

/** The last day of a year, by its date; of a February by its place. */
function yearEnd(yearStarts: number): YearsRule {
  const month = lastMonth(yearStarts);
  return {
    kind: 'years',
    every: 1,
    months: [month],
    on: dates(month === 2 ? -1 : daysInMonth(2000, month)),
    missing: 'last',
  };
}

/** "end of the financial year", where the workspace says that it is another than the calendar's. */
function readFinancialYear(c: PhraseCursor): YearsRule | null {
  const at = c.place;
  const isEnd = c.word(
    'financial year end',
    'end of the financial year',
    'end of financial year',
    'end of each financial year',
  );
  if (
    !isEnd &&
    !c.word('start of the financial year', 'start of each financial year', 'beginning of the financial year')
  )
    return null;
  if (c.yearStarts === 1)
    return c.refuse(
      at,
      'The financial year is set to begin in January: say the date, like “31 March”, or set it in Settings.',
    );
  return isEnd
    ? yearEnd(c.yearStarts)
    : { kind: 'years', every: 1, months: [c.yearStarts], on: dates(1), missing: 'last' };
}

function readPointsAlone(c: PhraseCursor): Rule[] | null {
  // A bare number is a count or a date of some month, not a place in every month.
  if (c.ahead(() => c.number() !== null)) return null;
  const on = readPoints(c);
  return on && [{ kind: 'months', every: 1, months: [], on, missing: readMissing(c) }];
}

export function readPointsWithMonths(c: PhraseCursor): Rule[] | null {
  const at = c.place;
  return c.try(() => {
    const on = readPoints(c);
    if (!on) return null;
    const inMonths = c.word('of', 'in', 'on');
    return readMonthChoice(c, at, on, inMonths);
  });
}

/** "the second month of every quarter": 1 to 3 */
function readMonthOfQuarter(c: PhraseCursor): number | null {
  c.filler('the');
  const month = c.word('last', 'final') ? 3 : (c.ordinal()?.n ?? 0);
  if (month < 1 || month > 3 || !c.word('month of', 'month in')) return null;
  return c.word('each', 'every', 'the', 'a') && c.word('quarter', 'calendar quarter') ? month : null;
}

/** After the points: "of each month", "every quarter", "of Mar and Sep", "of every third month", "of the year". */
function readMonthChoice(c: PhraseCursor, at: number, on: readonly MonthPoint[], hasOf: boolean): Rule[] | null {
  const rule = (every: number, months: readonly number[]): Rule[] => [
    { kind: 'months', every, months, on, missing: readMissing(c) },
  ];
  const ofQuarter = hasOf ? c.try(() => readMonthOfQuarter(c)) : null;
  if (ofQuarter !== null)
    return rule(
      1,
      [0, 3, 6, 9].map((before) => before + ofQuarter),
    );
  const each = c.word('each', 'every', 'the', 'a', 'any');
  if (each) {
    if (c.word('month', 'calendar month', 'following month', 'next month', 'month after')) return rule(1, []);
    if (c.word('quarter', 'calendar quarter')) return inQuarters(c, at, on, readMissing(c));
    if (c.word('year')) return inYears(c, at, on);
    const every = c.try(() => {
      const n = readInterval(c);
      return c.word('months', 'month') ? n : null;
    });
    if (every !== null) return rule(every, []);
  }
  if (hasOf ? c.word('month') : !each && c.word('monthly')) return rule(1, []);
  if (hasOf ? c.word('quarter') : !each && c.word('quarterly')) return inQuarters(c, at, on, readMissing(c));
  if (!each && !hasOf) return null;
  const range = c.try(() => readMonthRange(c));
  const months = range ?? readMonths(c);
  if (!months) return null;
  c.filler('each year', 'every year');
  return rule(1, months);
}

/** Places counted from the end are in a quarter's last month, the others in its first, or so far from either end of it. */
function inQuarters(c: PhraseCursor, at: number, on: readonly MonthPoint[], missing: MissingDay): Rule[] | null {
  const rule = (points: readonly MonthPoint[], months: readonly number[]): Rule[] =>
    points.length > 0 ? [{ kind: 'months', every: 1, months, on: points, missing }] : [];
  return inPeriod(c, at, on, 'quarter', (points, isEnd) =>
    rule(points, isEnd ? quarterEnds(c.yearStarts) : quarterStarts(c.yearStarts)),
  );
}

function inYears(c: PhraseCursor, at: number, on: readonly MonthPoint[]): Rule[] | null {
  const rule = (points: readonly MonthPoint[], month: number): Rule[] =>
    points.length > 0 ? [{ kind: 'years', every: 1, months: [month], on: points, missing: 'last' }] : [];
  return inPeriod(c, at, on, 'year', (points, isEnd) => rule(points, isEnd ? lastMonth(c.yearStarts) : c.yearStarts));
}

/** @param ruleOf the rule of some places in the first or the last month of the period */
function inPeriod(
  c: PhraseCursor,
  at: number,
  on: readonly MonthPoint[],
  period: Period,
  ruleOf: (points: readonly MonthPoint[], isEnd: boolean) => Rule[],
): Rule[] | null {
  const near = on.filter((point) => !leavesItsMonth(point));
  const far = on
    .filter(leavesItsMonth)
    .map((point) => ({ isEnd: isFromTheEnd(point), away: distanceInto(point, period) }));
  if (far.some(({ away }) => away === null))
    return c.refuse(
      at,
      `A place so far into the ${period} may lie beyond it, or in any of its months: name the month.`,
    );
  return [
    ...ruleOf(
      near.filter((point) => !isFromTheEnd(point)),
      false,
    ),
    ...ruleOf(near.filter(isFromTheEnd), true),
    ...far.flatMap(({ isEnd, away }) =>
      ruleOf(dates(isEnd ? -1 : 1), isEnd).map((rule) => ({ ...rule, away: away as Distance }) as Rule),
    ),
  ];
}
