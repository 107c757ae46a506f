import { type CivilDay, type Weekday, weekdayOf, yearMonthDay } from '../civil-date/civil-day.ts';
import { isoOfDay } from '../civil-date/iso-date.ts';
import type { PhraseCursor } from './phrase-cursor.ts';
import { readDates, readMonthRange, readMonths, skipAnd } from './phrase-dates.ts';
import type { DaysRule, FollowsRule, Milestone, MissingDay, MonthPoint, Rule, WeeksRule } from './rule.ts';

/** What a phrase leaves unsaid is taken from here. */
export interface PhraseContext {
  /** Where the recurrence starts, for "weekly" or "monthly" without a day. */
  readonly start: CivilDay;
  /** Dates without a year are the next ones from here on. */
  readonly today: CivilDay;
}

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
  const reaches = c.word('completion', 'completing', 'finishing', 'finish', 'being done', 'the last', 'doing it')
    ? 'done'
    : readMilestone(c);
  // "After the last one is done" begins with "the last" as well.
  const past = reaches && c.try(() => readMilestone(c, { subjectRead: true }));
  return reaches && { kind: 'follows', reaches: past ?? reaches, amount, unit };
}

function readUnit(c: PhraseCursor): FollowsRule['unit'] | null {
  if (isWorkingDay(c)) return 'workingDay';
  if (c.word('days', 'day')) return 'day';
  if (c.word('weeks', 'week')) return 'week';
  return c.word('months', 'month') ? 'month' : null;
}

/** "(the last one) is done", "it is under way", "the last one is to be checked" */
function readMilestone(c: PhraseCursor, options: { subjectRead?: boolean } = {}): Milestone | null {
  if (options.subjectRead) c.word('one', 'task');
  else c.word('the last one', 'the last', 'the current one', 'the one before', 'the task', 'it');
  c.filler('is', 'was', 'has been', 'gets');
  if (c.word('done', 'finished', 'completed', 'complete')) return 'done';
  if (c.word('under way', 'underway', 'started', 'begun')) return 'underWay';
  return c.word('to be checked', 'to check', 'waiting for a check', 'handed in') ? 'toCheck' : null;
}

function isWorkingDay(c: PhraseCursor): boolean {
  return c.word(
    'working days',
    'working day',
    'workdays',
    'workday',
    'business days',
    'business day',
    'work days',
    'work day',
  );
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

function dates(...days: number[]): MonthPoint[] {
  return days.map((day) => ({ kind: 'date', day }));
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

/** "2", "other", "second", or nothing for every single one. */
function readInterval(c: PhraseCursor): number {
  if (c.word('other', 'alternate')) return 2;
  c.filler('single');
  // "Every first Monday" is a place in the month.
  return c.number() ?? c.try(() => atLeastTwo(c.ordinal()?.n)) ?? 1;
}

function atLeastTwo(n: number | undefined): number | null {
  return n !== undefined && n >= 2 ? n : null;
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
  const on = readWeekdayList(c);
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
    return readWeekdayList(c);
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

const MONDAY_TO_FRIDAY: readonly Weekday[] = [1, 2, 3, 4, 5];
const WEEKEND: readonly Weekday[] = [6, 7];

function readWeekdayList(c: PhraseCursor): Weekday[] | null {
  const first = readWeekdayRange(c);
  if (!first) return null;
  const found = [...first];
  for (;;) {
    const next = c.try(() => {
      if (!skipAnd(c)) return null;
      c.filler('on');
      c.filler('every', 'each');
      return readWeekdayRange(c);
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
    const left = readWeekdayList(c);
    return left && left.length < 7 ? left : null;
  });
}

// ── monthly and yearly ──

/** After "monthly", "every 2 months": on which days of the month. */
function readMonthsOn(c: PhraseCursor, every: number, context: PhraseContext): Rule {
  const from =
    every > 1 ? c.try(() => (c.word('from', 'starting in', 'beginning in') ? readFirstMonth(c) : null)) : null;
  const on = c.try(() => {
    c.mark(',');
    if (!c.word('on', 'at')) return null;
    return readPoints(c);
  });
  const within = from === null ? c.try(() => (c.word('in') ? readMonths(c) : null)) : null;
  const missing = readMissing(c);
  const cycle = from === null ? null : monthsFrom(from, every);
  return {
    kind: 'months',
    every: cycle ? 1 : every,
    months: cycle ?? within ?? [],
    on: on ?? dates(yearMonthDay(context.start).day),
    missing,
  };
}

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

/** After "yearly", "every 2 years": "on 15 June", "on the first Monday of May", "in March". */
function readYearsOn(c: PhraseCursor, every: number, context: PhraseContext): Rule {
  const said = c.try(() => {
    c.filler('on');
    const day = c.try(() => readYearDay(c));
    if (day) return day;
    c.filler('the');
    const on = readPoints(c);
    if (!on || !c.word('of', 'in')) return null;
    const months = readMonths(c);
    return months && ({ kind: 'years', every, months, on, missing: readMissing(c) } as const);
  });
  if (said && said.kind === 'years') return { ...said, every };
  const { month, day } = yearMonthDay(context.start);
  const months = c.try(() => (c.word('in') ? readMonths(c) : null));
  const on = (months && c.try(() => (c.word('on') ? readPoints(c) : null))) ?? dates(day);
  return { kind: 'years', every, months: months ?? [month], on, missing: readMissing(c) };
}

/** "15 June", "June 15", "1 and 15 March and September", "29 February, or the 28th": yearly. */
function readYearDay(c: PhraseCursor): Extract<Rule, { kind: 'years' }> | null {
  c.filler('on');
  c.filler('the');
  const days = c.try(() => readDayNumbers(c));
  const months = readMonths(c);
  if (!months) return null;
  const on = days ?? c.try(() => readDayNumbers(c));
  // "May 2027" is no day of May.
  if (!on || c.try(() => c.number()) !== null) return null;
  c.filler('every year', 'each year', 'yearly');
  const isLeapDay = months.join() === '2' && on.join() === '29';
  return {
    kind: 'years',
    every: 1,
    months,
    on: dates(...on),
    missing: (isLeapDay && readLeapDay(c)) || readMissing(c),
  };
}

function readDayNumbers(c: PhraseCursor): number[] | null {
  const days: number[] = [];
  do {
    const day = c.number() ?? c.ordinal()?.n ?? null;
    if (day === null || day < 1 || day > 31) return null;
    days.push(day);
  } while (c.when(() => skipAnd(c) && c.ahead(() => (c.number() ?? c.ordinal()) !== null)));
  return days;
}

function readLeapDay(c: PhraseCursor): MissingDay | null {
  return c.try(() => {
    c.mark(',');
    if (c.word('in leap years only', 'only in leap years', 'leap years only')) return 'omit';
    if (!c.word('or', 'else')) return null;
    c.filler('on');
    c.filler('the');
    if (c.when(() => c.ordinal()?.n === 28 || c.number() === 28)) {
      c.filler('february', 'feb', 'of february');
      return 'last';
    }
    return c.when(() => readYearDayIs(c, 1, 3)) ? 'next' : null;
  });
}

function readYearDayIs(c: PhraseCursor, day: number, month: number): boolean {
  const days = readDayNumbers(c);
  c.filler('of');
  return days?.join() === String(day) && readMonths(c)?.join() === String(month);
}

/** "15th and last working day of each month", "month end", "the last Friday of every quarter". */
function readMonthly(c: PhraseCursor): Rule[] | null {
  const named = readMonthEnds(c);
  if (named) return [named];
  c.filler('on', 'at');
  return readPointsWithMonths(c) ?? readPointsAlone(c);
}

function readMonthEnds(c: PhraseCursor): Rule | null {
  return c.try(() => {
    c.filler('on', 'at', 'by');
    c.filler('the');
    c.filler('every', 'each');
    const ends = (on: MonthPoint[], months: number[]): Rule => ({
      kind: 'months',
      every: 1,
      months,
      on,
      missing: 'last',
    });
    if (
      c.word(
        'month end',
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
        'quarterend',
        'end of the quarter',
        'end of each quarter',
        'end of every quarter',
        'end of quarter',
      )
    )
      return ends(dates(-1), QUARTER_ENDS);
    if (
      c.word(
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
        'start of the quarter',
        'start of each quarter',
        'start of every quarter',
        'beginning of each quarter',
        'beginning of every quarter',
      )
    )
      return ends(dates(1), QUARTER_STARTS);
    if (c.word('year end', 'yearend', 'end of the year', 'end of each year', 'end of every year'))
      return { kind: 'years', every: 1, months: [12], on: dates(31), missing: 'last' };
    return null;
  });
}

const QUARTER_ENDS = [3, 6, 9, 12];
const QUARTER_STARTS = [1, 4, 7, 10];

function readPointsAlone(c: PhraseCursor): Rule[] | null {
  // A bare number is a count or a date of some month, not a place in every month.
  if (c.ahead(() => c.number() !== null)) return null;
  const on = readPoints(c);
  return on && [{ kind: 'months', every: 1, months: [], on, missing: readMissing(c) }];
}

function readPointsWithMonths(c: PhraseCursor): Rule[] | null {
  return c.try(() => {
    const on = readPoints(c);
    if (!on) return null;
    const inMonths = c.word('of', 'in', 'on');
    return readMonthChoice(c, on, inMonths);
  });
}

/** After the points: "of each month", "every quarter", "of Mar and Sep", "of every third month", "of the year". */
function readMonthChoice(c: PhraseCursor, on: readonly MonthPoint[], hasOf: boolean): Rule[] | null {
  const rule = (every: number, months: readonly number[]): Rule[] => [
    { kind: 'months', every, months, on, missing: readMissing(c) },
  ];
  const each = c.word('each', 'every', 'the', 'a', 'any');
  if (each) {
    if (c.word('month', 'calendar month')) return rule(1, []);
    if (c.word('quarter', 'calendar quarter')) return inQuarters(on, readMissing(c));
    if (c.word('year')) return inYears(on);
    const every = c.try(() => {
      const n = readInterval(c);
      return c.word('months', 'month') ? n : null;
    });
    if (every !== null) return rule(every, []);
  }
  if (hasOf ? c.word('month') : !each && c.word('monthly')) return rule(1, []);
  if (hasOf ? c.word('quarter') : !each && c.word('quarterly')) return inQuarters(on, readMissing(c));
  if (!each && !hasOf) return null;
  const range = c.try(() => readMonthRange(c));
  const months = range ?? readMonths(c);
  if (!months) return null;
  c.filler('each year', 'every year');
  return rule(1, months);
}

/** Places counted from the end are in a quarter's last month, the others in its first. */
function inQuarters(on: readonly MonthPoint[], missing: MissingDay): Rule[] {
  const fromEnd = on.filter(isFromTheEnd);
  const fromStart = on.filter((point) => !isFromTheEnd(point));
  const rule = (points: readonly MonthPoint[], months: readonly number[]): Rule[] =>
    points.length > 0 ? [{ kind: 'months', every: 1, months, on: points, missing }] : [];
  return [...rule(fromStart, QUARTER_STARTS), ...rule(fromEnd, QUARTER_ENDS)];
}

function inYears(on: readonly MonthPoint[]): Rule[] {
  const rule = (points: readonly MonthPoint[], month: number): Rule[] =>
    points.length > 0 ? [{ kind: 'years', every: 1, months: [month], on: points, missing: 'last' }] : [];
  return [
    ...rule(
      on.filter((point) => !isFromTheEnd(point)),
      1,
    ),
    ...rule(on.filter(isFromTheEnd), 12),
  ];
}

function isFromTheEnd(point: MonthPoint): boolean {
  return point.kind === 'date' ? point.day < 0 : point.nth < 0;
}

/** Places in a month, joined: "1st and 15th", "first and third Monday", "15th and last working day". */
function readPoints(c: PhraseCursor): MonthPoint[] | null {
  c.filler('the');
  const points: MonthPoint[] = [];
  do {
    const more = readPoint(c);
    if (!more) return null;
    points.push(...more);
  } while (c.when(() => skipAnd(c) && c.ahead(() => isPlace(c))));
  return points;
}

/** One place in a month, or several that share their noun. */
function readPoint(c: PhraseCursor): MonthPoint[] | null {
  c.filler('the', 'on the');
  c.filler('day', 'days', 'date', 'dates');
  const first = readPlace(c);
  if (!first) return null;
  const shared = c.try(() => {
    const places = [first];
    while (c.when(() => skipAnd(c))) {
      c.filler('the');
      const next = readPlace(c);
      // "1st and third Monday" is the 1st and the third Monday; only words share with words, and figures with figures.
      if (!next || next.inFigures !== first.inFigures) return null;
      places.push(next);
      const noun = next.isDate ? null : c.try(() => readNoun(c));
      if (noun && (!first.inFigures || noun.kind === 'weekday')) return places.map(({ n }) => pointOf(n, noun));
      if (noun) return null;
    }
    return null;
  });
  if (shared) return shared;
  // “2 working days” is no place in a month.
  const noun = first.isDate ? null : c.try(() => readNoun(c));
  if (noun) return [pointOf(first.n, noun)];
  if (first.inFigures || first.n > 5 || first.isDate) return [{ kind: 'date', day: first.n }];
  if (first.n === -1 || first.n > 0) {
    c.expect('day');
    c.expect('working day');
    c.expect('[a weekday]');
    // "1st and last of the month", "the third": a date all the same.
    return [{ kind: 'date', day: first.n }];
  }
  return null;
}

interface PlaceWord {
  /** From 1, or from the end: -1 is the last. */
  readonly n: number;
  readonly inFigures: boolean;
  /** A plain number, which can only be a date. */
  readonly isDate: boolean;
}

function readPlace(c: PhraseCursor): PlaceWord | null {
  if (c.word('last but one', 'penultimate', 'next to last')) return { n: -2, inFigures: false, isDate: false };
  if (c.word('last but two')) return { n: -3, inFigures: false, isDate: false };
  if (c.word('last', 'final')) return { n: -1, inFigures: false, isDate: false };
  const ordinal = c.try(() => c.ordinal());
  if (ordinal) {
    if (ordinal.n < 1 || ordinal.n > 31) return null;
    if (c.word('last', 'to last', 'from last')) return { n: -ordinal.n, inFigures: ordinal.inFigures, isDate: false };
    return { ...ordinal, isDate: false };
  }
  const number = c.try(() => c.number());
  return number === null || number < 1 || number > 31 ? null : { n: number, inFigures: true, isDate: true };
}

function isPlace(c: PhraseCursor): boolean {
  c.filler('the', 'on the');
  return readPlace(c) !== null;
}

type Noun =
  | { readonly kind: 'workingDay' }
  | { readonly kind: 'day' }
  | { readonly kind: 'weekday'; readonly weekdays: readonly Weekday[] };

function readNoun(c: PhraseCursor): Noun | null {
  if (isWorkingDay(c)) return { kind: 'workingDay' };
  if (c.word('days', 'day')) return { kind: 'day' };
  if (c.word('weekday', 'weekdays')) return { kind: 'weekday', weekdays: MONDAY_TO_FRIDAY };
  if (c.word('weekend day', 'weekend days', 'day of the weekend')) return { kind: 'weekday', weekdays: WEEKEND };
  const first = c.weekday();
  if (first === null) return null;
  const weekdays = [first as Weekday];
  for (;;) {
    const next = c.try(() => (c.word('or') ? c.weekday() : null));
    if (next === null) return { kind: 'weekday', weekdays };
    weekdays.push(next as Weekday);
  }
}

function pointOf(n: number, noun: Noun): MonthPoint {
  if (noun.kind === 'day') return { kind: 'date', day: n };
  if (noun.kind === 'workingDay') return { kind: 'workingDay', nth: n };
  const [first] = noun.weekdays;
  return noun.weekdays.length === 1 && first !== undefined
    ? { kind: 'weekday', nth: n, weekday: first }
    : { kind: 'anyWeekday', nth: n, weekdays: noun.weekdays };
}

/** What is said of months without the day; the last day where nothing is. */
function readMissing(c: PhraseCursor): MissingDay {
  const said = c.try((): MissingDay | null => {
    c.mark(',');
    if (c.word('where there is one', 'if there is one', 'when there is one', 'where it exists', 'if it exists'))
      return 'omit';
    if (!c.word('or', 'else')) return null;
    c.filler('on');
    c.filler('the');
    if (c.word('last day', 'last day of the month', 'month end', 'last')) return c.word('working') ? null : 'last';
    if (c.when(() => c.ordinal()?.n === 1))
      return c.word('after', 'of the next', 'of the month after', 'of the next month') ? 'next' : null;
    return null;
  });
  return said ?? 'last';
}

// ── listed dates ──

/** "on 3 Mar 2027 and 5 Apr 2027", "2027-03-03, 2027-04-05" */
function readListed(c: PhraseCursor, { today }: PhraseContext): Rule | null {
  c.filler('on');
  const days = readDates(c, today, 'with a year');
  return days && { kind: 'dates', dates: days.map(isoOfDay) };
}
