import { type Weekday, weekdayOf } from '../../civil-date/civil-day.ts';
import { isoOfDay } from '../../civil-date/iso-date.ts';
import { plural } from '../../wording/date-words.ts';
import type { DaysRule, FollowsRule, Milestone, MonthPoint, Rule, WeeksRule } from '../rule.ts';
import { isWorkingDay, MONDAY_TO_FRIDAY, readInterval, WEEKEND } from './common-words.ts';
import type { PhraseContext } from './context.ts';
import type { PhraseCursor } from './cursor.ts';
import { readDate, readDates, readDayAndMonth, readMonths, readNear, skipAnd } from './dates.ts';
import { isAwayAhead } from './distances.ts';
import { readFeast } from './feasts.ts';
import { type Frequency, readEveryUnit, readFrequency, readNamed, skipSeparator } from './frequency.ts';
import { readMissing, readPoints } from './month-places.ts';
import {
  readAnchored,
  readEndsPlus,
  readMonthEnds,
  readMonthly,
  readMonthsOn,
  readPointsWithMonths,
  rulesOf,
} from './month-rules.ts';
import { readPartOfDay } from './times.ts';
import { readYearDay, readYearsOn, unsaidDay } from './year-rules.ts';

/** Rules as one part of a phrase says them. */
interface SaidRules {
  readonly rules: readonly Rule[];
  /** Which day is not said: it is the start's. */
  readonly isBare: boolean;
}

/** Rules joined by "and" or commas; null where none can be read. */
export function readRules(c: PhraseCursor, context: PhraseContext): Rule[] | null {
  const from = c.place;
  const first = readRule(c, context);
  if (!first) return null;
  const said = [first];
  for (;;) {
    const next = c.try(() => (skipAnd(c) ? readRule(c, context) : null));
    if (!next) break;
    said.push(next);
  }
  // "Monthly and on Fridays": a day that nobody said is never joined with what somebody did.
  if (said.length > 1 && said.some(({ isBare }) => isBare))
    return c.refuse(from, 'One part says how often and not on which day: say the day, like “monthly on the 15th”.');
  return said.flatMap(({ rules }) => rules);
}

/** One rule as said; a mix that needs several of ours gives several. */
function readRule(c: PhraseCursor, context: PhraseContext): SaidRules | null {
  return (
    c.try(() => one(readForeign(c))) ??
    c.try(() => one(readFollows(c))) ??
    c.try(() => several(readAnchored(c))) ??
    c.try(() => several(readEndsPlus(c))) ??
    c.try(() => one(readTimesAWeek(c))) ??
    c.try(() => readNamedFrequency(c, context)) ??
    c.try(() => readEvery(c, context)) ??
    c.try(() => one(readFeast(c))) ??
    c.try(() => one(readListed(c, context))) ??
    c.try(() => one(readOnce(c, context))) ??
    c.try(() => readDayThenFrequency(c)) ??
    c.try(() => one(readWeekdays(c))) ??
    c.try(() => one(readYearDay(c))) ??
    c.try(() => several(readMonthly(c))) ??
    null
  );
}

function one(rule: Rule | null): SaidRules | null {
  return rule && { rules: [rule], isBare: false };
}

function several(rules: readonly Rule[] | null): SaidRules | null {
  return rules && { rules, isBare: false };
}

function readForeign(c: PhraseCursor): Rule | null {
  c.filler('by');
  c.filler('rrule');
  const token = c.token('rrule');
  return token && { kind: 'rrule', text: token.text };
}

// ── after completion, on progress ──

function readFollows(c: PhraseCursor): FollowsRule | null {
  if (c.word('as soon as', 'once', 'when')) {
    const reaches = readMilestone(c);
    return reaches && { kind: 'follows', reaches, amount: 0, unit: 'day' };
  }
  const every = c.word('every', 'each');
  const amount = c.number() ?? (c.word('a', 'an') || every ? 1 : null);
  if (amount === null) return null;
  const unit = readUnit(c);
  if (!unit || !c.word('after', 'from', 'since', 'following')) return null;
  const reaches = c.try(() => readMilestone(c)) ?? (c.try(() => isCompletion(c)) ? 'done' : null);
  return reaches && { kind: 'follows', reaches, amount, unit };
}

const COMPLETION = [
  'completion',
  'completing',
  'finishing',
  'finish',
  'being done',
  'the last',
  'the last one',
  'the last time',
  'doing it',
];

/** "Completion", "the last"; the last Friday of a month, and the last but one, is a day. */
function isCompletion(c: PhraseCursor): true | null {
  if (!c.word(...COMPLETION)) return null;
  return c.ahead(
    () => c.weekday() !== null || isWorkingDay(c) || c.word('day', 'weekday', 'weekend day', 'but one', 'but two'),
  )
    ? null
    : true;
}

function readUnit(c: PhraseCursor): FollowsRule['unit'] | null {
  if (isWorkingDay(c)) return 'workingDay';
  if (c.word('days', 'day')) return 'day';
  if (c.word('weeks', 'week')) return 'week';
  return c.word('months', 'month') ? 'month' : null;
}

/** "(the last one) is done", "it is under way", "the last one is to be checked" */
function readMilestone(c: PhraseCursor): Milestone | null {
  c.filler('the last one', 'the last', 'the current one', 'the one before', 'the task', 'it');
  c.filler('is', 'was', 'has been', 'gets', 'was last', 'is last');
  if (c.word('done', 'finished', 'completed', 'complete')) return 'done';
  if (c.word('under way', 'underway', 'started', 'begun')) return 'underWay';
  return c.word('to be checked', 'to check', 'waiting for a check', 'handed in') ? 'toCheck' : null;
}

// ── how often, and on which day ──

/** "daily", "weekly on Tue", "fortnightly, Fridays", "monthly on the 15th", "quarterly", "yearly on 15 June" … */
function readNamedFrequency(c: PhraseCursor, context: PhraseContext): SaidRules | null {
  const from = c.place;
  const frequency = readNamed(c);
  return frequency && readOn(c, frequency, from, context);
}

/** "3 times a week on Mon, Wed and Fri" */
function readTimesAWeek(c: PhraseCursor): Rule | null {
  const from = c.place;
  const times =
    c.try(() => (c.word('twice a week', 'twice weekly') ? 2 : null)) ??
    c.try(() => {
      const n = c.number();
      return c.word('times a week', 'times per week', 'x a week', 'x per week', 'times weekly') ? n : null;
    });
  if (times === null) return null;
  skipSeparator(c);
  c.filler('on');
  const on = readWeekdayList(c);
  if (!on)
    return c.isAtEnd ? c.refuse(from, `On which ${times} days? Say them, like “every week on Mon and Thu”.`) : null;
  if (on.length !== times)
    return c.refuse(from, `${times} times a week, and ${plural(on.length, 'day')}: say as many days as times.`);
  return { kind: 'weeks', every: 1, on };
}

/** After how often: on which day, with "on", a comma, a dash or nothing between; else on the day of the start. */
function readOn(c: PhraseCursor, frequency: Frequency, from: number, context: PhraseContext): SaidRules | null {
  switch (frequency.unit) {
    case 'day':
      return readDays(c, frequency);
    case 'week':
      return readWeeks(c, frequency, from, context);
    case 'month':
    case 'quarter':
      return readMonthsOn(c, frequency, from, context);
    case 'year':
      return readYearsOn(c, frequency.every, context);
  }
}

function readDays(c: PhraseCursor, { every }: Frequency): SaidRules | null {
  const but = readBut(c);
  const on = every === 1 && !but ? c.try(() => readDayList(c)) : null;
  return one(on ? without({ kind: 'weeks', every: 1, on }, readBut(c)) : { kind: 'days', every, except: but ?? [] });
}

/** Weekdays after how often: "daily, Mon-Fri", "weekly on a Friday", "fortnightly, Fridays". */
function readDayList(c: PhraseCursor, again: readonly string[] = []): readonly Weekday[] | null {
  const isApart = skipSeparator(c);
  if (isApart) c.filler('on', 'on a', 'on the');
  else c.filler('on', 'on a', 'on the', 'every', 'each', 'a');
  return readWeekdayList(c, isApart ? [] : again);
}

/** "Fridays, fortnightly", "last working day, quarterly", "5 April, annually" */
function readDayThenFrequency(c: PhraseCursor): SaidRules | null {
  const from = c.place;
  const bare = (units: readonly Frequency['unit'][]): Frequency | null => {
    skipSeparator(c);
    const frequency = readFrequency(c);
    if (!frequency || !units.includes(frequency.unit)) return null;
    // "Friday, fortnightly on Tue" has two days.
    return c.ahead(() => isDayAhead(c)) ? null : frequency;
  };
  return (
    c.try(() => {
      c.filler('on', 'by');
      const on = readWeekdayList(c);
      const frequency = on && bare(['day', 'week']);
      if (!on || !frequency || (frequency.unit === 'day' && frequency.every > 1)) return null;
      return one({ kind: 'weeks', every: frequency.every, on });
    }) ??
    c.try(() => {
      const day = readYearDay(c);
      const frequency = day && bare(['year']);
      return frequency && one({ ...day, every: frequency.every });
    }) ??
    c.try(() => {
      c.filler('on', 'at');
      const on = readPoints(c);
      const frequency = on && bare(['month', 'quarter']);
      return on && frequency && several(rulesOf(c, from, frequency, on, readMissing(c)));
    })
  );
}

function isDayAhead(c: PhraseCursor): boolean {
  skipSeparator(c);
  c.filler('on', 'on the', 'the');
  return c.weekday() !== null || (c.ordinal() ?? c.month()) !== null;
}

/** "every 2 weeks on Tue", "every other Monday", "every weekday", "each month on the 15th", "every last Friday" … */
function readEvery(c: PhraseCursor, context: PhraseContext): SaidRules | null {
  const from = c.place;
  if (!c.word('every', 'each', 'all', 'any', 'once every')) return null;
  // "Every morning": when in the day is read after the rule.
  if (c.ahead(() => readPartOfDay(c) !== null)) return one({ kind: 'days', every: 1, except: [] });
  return (
    c.try(() => one(readMonthEnds(c))) ??
    // Before "every second …" is taken for an interval: "every second Tuesday of the month" is a place in it.
    c.try(() => several(readPointsWithMonths(c))) ??
    c.try(() => one(readEveryWorkingDay(c))) ??
    c.try(() => {
      const frequency = readEveryUnit(c);
      return frequency && readOn(c, frequency, from, context);
    }) ??
    c.try(() => one(readEveryWeekdays(c))) ??
    c.try(() => readEveryMonths(c, context)) ??
    c.try(() => several(readMonthly(c)))
  );
}

function readEveryWorkingDay(c: PhraseCursor): Rule | null {
  const every = readInterval(c);
  return isWorkingDay(c) ? { kind: 'workingDays', every } : null;
}

/** "every other Monday", "every Tue and Thu" */
function readEveryWeekdays(c: PhraseCursor): Rule | null {
  // "Every other weekday" is every second working day, or those of every other week.
  const isInTwo = c.when(
    () => c.word('other weekday', 'second weekday', 'alternate weekday') && c.pick('every other weekday', 2) === 0,
  );
  if (isInTwo) return { kind: 'workingDays', every: 2 };
  // "Every second Tuesday" is one in two, or the second of each month.
  const isNth = c.ahead(() => (c.ordinal()?.n ?? 0) > 1 && c.weekday() !== null);
  if (isNth && c.pick('every nth weekday', 2) === 1) return null;
  const every = readInterval(c);
  const on = readWeekdayList(c, againEvery(every));
  return on && without({ kind: 'weeks', every, on }, readBut(c));
}

/** "every January on the 1st", "every March 15" */
function readEveryMonths(c: PhraseCursor, context: PhraseContext): SaidRules | null {
  const yearDay = c.try(() => readYearDay(c));
  if (yearDay) return one(yearDay);
  const months = readMonths(c);
  if (!months) return null;
  const on = c.try(() => {
    skipSeparator(c);
    return c.word('on') ? readPoints(c) : null;
  });
  const rule = (points: readonly MonthPoint[]): Rule => ({
    kind: 'months',
    every: 1,
    months,
    on: points,
    missing: readMissing(c),
  });
  return on ? one(rule(on)) : { rules: [rule(unsaidDay(c, context))], isBare: true };
}

function readWeeks(
  c: PhraseCursor,
  { every, isOnce, twice }: Frequency,
  from: number,
  context: PhraseContext,
): SaidRules | null {
  const on = c.try(() => readDayList(c, againEvery(every)));
  const bare = weekdayOf(context.start);
  // Twice a week, without a day: that of the start, and half a week on.
  const days: readonly Weekday[] = on ?? (twice ? [bare, (((bare + 2) % 7) + 1) as Weekday] : [bare]);
  const times = twice ? 2 : isOnce ? 1 : null;
  if (on && times !== null && on.length !== times)
    return c.refuse(
      from,
      `${times === 1 ? 'Once' : 'Twice'}, and ${plural(on.length, 'day')}: say as many days as times.`,
    );
  const rule: WeeksRule = { kind: 'weeks', every, on: [...days] };
  return { rules: [on ? without(rule, readBut(c)) : rule], isBare: !on };
}

/** "Mondays", "Mon, Wed and Fri", "weekends", "on weekdays but Wed" */
function readWeekdays(c: PhraseCursor): Rule | null {
  c.filler('on', 'by');
  if (c.word('alternate')) {
    const others = readWeekdayList(c, []);
    return others && { kind: 'weeks', every: 2, on: others };
  }
  if (isWorkingDay(c)) return { kind: 'workingDays', every: 1 };
  const on = readWeekdayList(c);
  return on && without({ kind: 'weeks', every: 1, on }, readBut(c));
}

function without(rule: WeeksRule, left: readonly Weekday[] | null): WeeksRule {
  const on = rule.on.filter((weekday) => !left?.includes(weekday));
  return on.length > 0 ? { ...rule, on } : rule;
}

/** "every Monday and every Tuesday" is one rule; "every 2 weeks on Mon and every Tue" is two, of which one comes weekly. */
function againEvery(every: number): readonly string[] {
  return every === 1 ? EVERY : [];
}

const EVERY = ['every', 'each'];

/** @param again words that may be said once more before each */
export function readWeekdayList(c: PhraseCursor, again: readonly string[] = EVERY): Weekday[] | null {
  const first = readWeekdayRange(c);
  if (!first) return null;
  const found = [...first];
  for (;;) {
    const next = c.try(() => {
      // "Mon wed fri", "Mon/Wed/Fri"
      if (!skipAnd(c) && !c.mark('/') && !c.ahead(() => c.weekday() !== null)) return null;
      c.filler('on');
      const isAgain = again.length > 0 && c.filler(...again);
      const at = c.place;
      // "Mondays and Friday before the 25th"
      if (c.ahead(() => c.weekday() !== null && isAwayAhead(c)))
        return c.refuse(
          at,
          'Those weekdays up to that day, or one counted from it? Say “and the Friday before …” for one.',
        );
      const range = readWeekdayRange(c);
      // "every week on Mon and every weekday": as two rules are written.
      return isAgain && (range === MONDAY_TO_FRIDAY || range === WEEKEND) ? null : range;
    });
    if (!next) return [...new Set(found)].sort((a, b) => a - b);
    found.push(...next);
  }
}

function readWeekdayRange(c: PhraseCursor): readonly Weekday[] | null {
  if (c.word('weekdays only', 'weekdays', 'weekday')) return MONDAY_TO_FRIDAY;
  if (c.when(() => c.filler('m') && c.mark('/') && c.filler('w') && c.mark('/') && c.filler('f'))) return [1, 3, 5];
  if (c.word('mwf', 'm w f')) return [1, 3, 5];
  if (c.word('tth', 'tuth')) return [2, 4];
  if (c.word('weekends', 'weekend', 'weekend days', 'weekend day')) return WEEKEND;
  const from = c.weekday();
  // "Friday before the 25th" is one day of the month.
  if (from === null || isAwayAhead(c)) return null;
  const to = c.try(() => {
    const last = c.mark('-', '–', '—') || c.word('to', 'through', 'until') ? c.weekday() : null;
    // "Every Friday until Friday 18 December" ends there.
    return last === null || c.ahead(() => readDayAndMonth(c) !== null) ? null : last;
  });
  if (to === null) return [from as Weekday];
  return Array.from({ length: ((to - from + 7) % 7) + 1 }, (_, i) => (((from - 1 + i) % 7) + 1) as Weekday);
}

/** "but Sun", "except weekends": weekdays left out. */
export function readBut(c: PhraseCursor): DaysRule['except'] | null {
  return c.try(() => {
    c.mark(',');
    if (!c.word('but', 'except', 'except for', 'excluding', 'other than', 'apart from', 'not')) return null;
    c.filler('not');
    c.filler('on');
    // "but Mon, every weekday": what comes every so often is another rule, and not left out of this one.
    const left = readWeekdayList(c, []);
    return left && left.length < 7 ? left : null;
  });
}

// ── listed dates ──

function readDayWithoutYear(c: PhraseCursor, from: number): number | null {
  if (!skipAnd(c) || c.ahead(() => c.word('every', 'yearly', 'annually'))) return null;
  // "11th of Feb" is one of every year.
  if (c.ahead(() => readDayAndMonth(c)?.hasOf === true)) return null;
  const day = readDate(c, from);
  return day === null || c.ahead(() => c.word('every year', 'each year', 'yearly')) ? null : day;
}

/** "on 3 Mar 2027 and 5 Apr 2027", "2027-03-03, 2027-04-05" */
function readListed(c: PhraseCursor, { today }: PhraseContext): Rule | null {
  c.filler('once', 'once only', 'just once');
  c.filler('on');
  const days = readDates(c, today, 'with a year');
  if (!days) return null;
  // "3 March 2027 and 5 April": the one after it, or each year's.
  const from = Math.max(...days);
  const more =
    c.ahead(() => readDayWithoutYear(c, from) !== null) && c.pick('a day without its year', 2) === 0
      ? c.try(() => readDayWithoutYear(c, from))
      : null;
  return { kind: 'dates', dates: [...days, ...(more === null ? [] : [more])].map(isoOfDay) };
}

/** "tomorrow", "next Monday", "Friday 4 December": one day, and no more */
function readOnce(c: PhraseCursor, { today }: PhraseContext): Rule | null {
  c.filler('once', 'once only', 'just once');
  c.filler('on');
  const isNear = c.ahead(() => c.word('today', 'tomorrow', 'next', 'this'));
  const isDated = c.ahead(() => c.weekday() !== null && readDayAndMonth(c) !== null);
  if (!isNear && !isDated) return null;
  const day = isNear ? readNear(c, today) : readDate(c, today);
  return day === null ? null : { kind: 'dates', dates: [isoOfDay(day)] };
}
