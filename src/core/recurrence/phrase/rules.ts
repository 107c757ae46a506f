import { type Weekday, weekdayOf, yearMonthDay } from '../../civil-date/civil-day.ts';
import { isoOfDay } from '../../civil-date/iso-date.ts';
import type { DaysRule, FollowsRule, Milestone, Rule, WeeksRule } from '../rule.ts';
import { isWorkingDay, MONDAY_TO_FRIDAY, readInterval, WEEKEND } from './common-words.ts';
import type { PhraseContext } from './context.ts';
import type { PhraseCursor } from './cursor.ts';
import { readDates, readMonths, skipAnd } from './dates.ts';
import {
  dates,
  readMissing,
  readMonthEnds,
  readMonthly,
  readMonthsOn,
  readPoints,
  readPointsWithMonths,
  readYearDay,
  readYearsOn,
} from './month-rules.ts';

/** Rules joined by "and" or commas; null where none can be read. */
export function readRules(c: PhraseCursor, context: PhraseContext): Rule[] | null {
  const first = readRule(c, context);
  if (!first) return null;
  const rules = [...first];
  for (;;) {
    const next = c.try(() => (skipAnd(c) ? readRule(c, context) : null));
    if (!next) return rules;
    rules.push(...next);
  }
}

/** One rule as said; a mix that needs several of ours gives several. */
function readRule(c: PhraseCursor, context: PhraseContext): Rule[] | null {
  return (
    c.try(() => one(readForeign(c))) ??
    c.try(() => one(readFollows(c))) ??
    c.try(() => one(readNamedFrequency(c, context))) ??
    c.try(() => readEvery(c, context)) ??
    c.try(() => one(readListed(c, context))) ??
    c.try(() => one(readWeekdays(c))) ??
    c.try(() => one(readYearDay(c))) ??
    c.try(() => readMonthly(c)) ??
    null
  );
}

function one(rule: Rule | null): Rule[] | null {
  return rule && [rule];
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
  const reaches = c.try(() => readMilestone(c)) ?? (c.word(...COMPLETION) ? 'done' : null);
  return reaches && { kind: 'follows', reaches, amount, unit };
}

const COMPLETION = ['completion', 'completing', 'finishing', 'finish', 'being done', 'the last', 'doing it'];

function readUnit(c: PhraseCursor): FollowsRule['unit'] | null {
  if (isWorkingDay(c)) return 'workingDay';
  if (c.word('days', 'day')) return 'day';
  if (c.word('weeks', 'week')) return 'week';
  return c.word('months', 'month') ? 'month' : null;
}

/** "(the last one) is done", "it is under way", "the last one is to be checked" */
function readMilestone(c: PhraseCursor): Milestone | null {
  c.filler('the last one', 'the last', 'the current one', 'the one before', 'the task', 'it');
  c.filler('is', 'was', 'has been', 'gets');
  if (c.word('done', 'finished', 'completed', 'complete')) return 'done';
  if (c.word('under way', 'underway', 'started', 'begun')) return 'underWay';
  return c.word('to be checked', 'to check', 'waiting for a check', 'handed in') ? 'toCheck' : null;
}

// ── weekly ──

/** "daily", "weekly on Tue", "fortnightly", "monthly on the 15th", "quarterly", "yearly on 15 June" … */
function readNamedFrequency(c: PhraseCursor, context: PhraseContext): Rule | null {
  if (c.word('daily')) return { kind: 'days', every: 1, except: readBut(c) ?? [] };
  if (c.word('weekly', 'once a week')) return readWeeks(c, 1, context);
  if (c.word('fortnightly', 'once a fortnight', 'a fortnight')) return readWeeks(c, 2, context);
  if (c.word('twice a week', 'twice weekly') || c.when(() => c.number() !== null && c.word('times a week'))) {
    c.filler('on');
    const on = readWeekdayList(c);
    return on && { kind: 'weeks', every: 1, on };
  }
  if (c.word('twice a month', 'twice monthly')) return readTwiceAMonth(c);
  if (c.word('monthly', 'once a month')) return readMonthsOn(c, 1, context);
  if (c.word('quarterly', 'once a quarter')) return readMonthsOn(c, 3, context);
  if (c.word('halfyearly', 'half yearly', 'twice a year', 'twice yearly', 'sixmonthly', 'six monthly'))
    return readMonthsOn(c, 6, context);
  if (c.word('yearly', 'annually', 'once a year', 'annual')) return readYearsOn(c, 1, context);
  return null;
}

function readTwiceAMonth(c: PhraseCursor): Rule {
  const on = c.try(() => (c.word('on') ? readPoints(c) : null)) ?? dates(1, 15);
  return { kind: 'months', every: 1, months: [], on, missing: readMissing(c) };
}

/** "every 2 weeks on Tue", "every other Monday", "every weekday", "each month on the 15th", "every last Friday" … */
function readEvery(c: PhraseCursor, context: PhraseContext): Rule[] | null {
  if (!c.word('every', 'each', 'all', 'any')) return null;
  return (
    c.try(() => one(readMonthEnds(c))) ??
    // Before "every second …" is taken for an interval: "every second Tuesday of the month" is a place in it.
    c.try(() => readPointsWithMonths(c)) ??
    c.try(() => one(readEveryUnit(c, readInterval(c), context))) ??
    c.try(() => one(readEveryMonths(c, context))) ??
    c.try(() => readMonthly(c))
  );
}

function readEveryUnit(c: PhraseCursor, every: number, context: PhraseContext): Rule | null {
  if (isWorkingDay(c)) return { kind: 'workingDays', every };
  if (c.word('days', 'day')) return { kind: 'days', every, except: readBut(c) ?? [] };
  if (c.word('weeks', 'week')) return readWeeks(c, every, context);
  if (c.word('fortnights', 'fortnight')) return readWeeks(c, every * 2, context);
  if (c.word('months', 'month')) return readMonthsOn(c, every, context);
  if (c.word('quarters', 'quarter')) return readMonthsOn(c, every * 3, context);
  if (c.word('half years', 'half year', 'halfyear', 'halfyears')) return readMonthsOn(c, every * 6, context);
  if (c.word('years', 'year')) return readYearsOn(c, every, context);
  const on = readWeekdayList(c, againEvery(every));
  return on && without({ kind: 'weeks', every, on }, readBut(c));
}

/** "every January on the 1st", "every March 15" */
function readEveryMonths(c: PhraseCursor, context: PhraseContext): Rule | null {
  const yearDay = c.try(() => readYearDay(c));
  if (yearDay) return yearDay;
  const months = readMonths(c);
  if (!months) return null;
  const on = c.try(() => (c.word('on') ? readPoints(c) : null)) ?? dates(yearMonthDay(context.start).day);
  return { kind: 'months', every: 1, months, on, missing: readMissing(c) };
}

function readWeeks(c: PhraseCursor, every: number, context: PhraseContext): WeeksRule {
  const on = c.try(() => {
    c.filler('on', 'every', 'each');
    return readWeekdayList(c, againEvery(every));
  });
  return without({ kind: 'weeks', every, on: on ?? [weekdayOf(context.start)] }, on && readBut(c));
}

/** "Mondays", "Mon, Wed and Fri", "weekends", "on weekdays but Wed" */
function readWeekdays(c: PhraseCursor): Rule | null {
  c.filler('on');
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
function readWeekdayList(c: PhraseCursor, again: readonly string[] = EVERY): Weekday[] | null {
  const first = readWeekdayRange(c);
  if (!first) return null;
  const found = [...first];
  for (;;) {
    const next = c.try(() => {
      if (!skipAnd(c)) return null;
      c.filler('on');
      const isAgain = again.length > 0 && c.filler(...again);
      const range = readWeekdayRange(c);
      // "every week on Mon and every weekday": as two rules are written.
      return isAgain && range === MONDAY_TO_FRIDAY ? null : range;
    });
    if (!next) return [...new Set(found)].sort((a, b) => a - b);
    found.push(...next);
  }
}

function readWeekdayRange(c: PhraseCursor): readonly Weekday[] | null {
  if (c.word('weekdays', 'weekday')) return MONDAY_TO_FRIDAY;
  if (c.word('weekends', 'weekend', 'weekend days', 'weekend day')) return WEEKEND;
  const from = c.weekday();
  if (from === null) return null;
  const to = c.try(() => (c.mark('-', '–', '—') || c.word('to', 'through', 'until') ? c.weekday() : null));
  if (to === null) return [from as Weekday];
  return Array.from({ length: ((to - from + 7) % 7) + 1 }, (_, i) => (((from - 1 + i) % 7) + 1) as Weekday);
}

/** "but Sun", "except weekends": weekdays left out. */
function readBut(c: PhraseCursor): DaysRule['except'] | null {
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

/** "on 3 Mar 2027 and 5 Apr 2027", "2027-03-03, 2027-04-05" */
function readListed(c: PhraseCursor, { today }: PhraseContext): Rule | null {
  c.filler('on');
  const days = readDates(c, today, 'with a year');
  return days && { kind: 'dates', dates: days.map(isoOfDay) };
}
