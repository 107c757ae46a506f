import {
  type DaysOff,
  type Distance,
  type FollowsRule,
  isoOfDay,
  type MonthPoint,
  ordinal,
  ordinalWord,
  type Rule,
  type Way,
  type Weekday,
  weekdayName,
  weekdayOf,
  weekdayShort,
  yearMonthDay,
} from '../../../../core/index.ts';

/** How often, as people say it; each begins a rule that can then be changed. */
export type Frequency =
  | 'days'
  | 'weekdays'
  | 'workingDays'
  | 'weeks'
  | 'fortnight'
  | 'fourWeeks'
  | 'months'
  | 'twiceAMonth'
  | 'twoMonths'
  | 'quarter'
  | 'halfYear'
  | 'years'
  | 'dates'
  | 'completion'
  | 'progress'
  | 'rrule';

/** Those that can be chosen; a rule from elsewhere comes only by its own text. */
export const FREQUENCIES: readonly (readonly [Frequency, string])[] = [
  ['days', 'daily'],
  ['weekdays', 'on weekdays'],
  ['workingDays', 'by working days'],
  ['weeks', 'weekly'],
  ['fortnight', 'every two weeks'],
  ['fourWeeks', 'every four weeks, 13 a year'],
  ['months', 'monthly, 12 a year'],
  ['twiceAMonth', 'twice a month'],
  ['twoMonths', 'every two months'],
  ['quarter', 'quarterly'],
  ['halfYear', 'half-yearly'],
  ['years', 'yearly'],
  ['dates', 'on listed dates'],
  ['completion', 'after completion'],
  ['progress', 'as soon as the last one is …'],
];

export const FOREIGN: readonly [Frequency, string] = ['rrule', 'by a rule from elsewhere'];

/** A rule to begin with, fitted to the day it starts. */
export function ruleOf(frequency: Frequency, start: number): Rule {
  const weekday = weekdayOf(start);
  const { month, day } = yearMonthDay(start);
  const months = (every: number, ...days: number[]): Rule => ({
    kind: 'months',
    every,
    months: [],
    on: days.map((date) => ({ kind: 'date', day: date })),
    missing: 'last',
  });
  switch (frequency) {
    case 'days':
      return { kind: 'days', every: 1, except: [] };
    case 'weekdays':
      return { kind: 'weeks', every: 1, on: [1, 2, 3, 4, 5] };
    case 'workingDays':
      return { kind: 'workingDays', every: 10 };
    case 'weeks':
      return { kind: 'weeks', every: 1, on: [weekday] };
    case 'fortnight':
      return { kind: 'weeks', every: 2, on: [weekday] };
    case 'fourWeeks':
      return { kind: 'weeks', every: 4, on: [weekday] };
    case 'months':
      return months(1, day);
    case 'twiceAMonth':
      return months(1, 1, 15);
    case 'twoMonths':
      return months(2, day);
    case 'quarter':
      return months(3, day);
    case 'halfYear':
      return months(6, day);
    case 'years':
      return { kind: 'years', every: 1, months: [month], on: [{ kind: 'date', day }], missing: 'last' };
    case 'dates':
      return { kind: 'dates', dates: [isoOfDay(start)] };
    case 'completion':
      return { kind: 'follows', reaches: 'done', amount: 2, unit: 'week' };
    case 'progress':
      return { kind: 'follows', reaches: 'underWay', amount: 0, unit: 'day' };
    case 'rrule':
      return { kind: 'rrule', text: 'FREQ=WEEKLY' };
  }
}

/** The frequency whose words fit a rule best. */
export function frequencyOf(rule: Rule): Frequency {
  switch (rule.kind) {
    case 'days':
    case 'workingDays':
    case 'dates':
    case 'rrule':
    case 'years':
      return rule.kind;
    case 'weeks':
      if (rule.every === 1) return [...rule.on].sort().join() === '1,2,3,4,5' ? 'weekdays' : 'weeks';
      return rule.every === 2 ? 'fortnight' : rule.every === 4 ? 'fourWeeks' : 'weeks';
    case 'months':
      if (rule.every === 1)
        return rule.on.length === 2 && rule.on.every(({ kind }) => kind === 'date') ? 'twiceAMonth' : 'months';
      return rule.every === 2 ? 'twoMonths' : rule.every === 3 ? 'quarter' : rule.every === 6 ? 'halfYear' : 'months';
    case 'follows':
      return rule.amount === 0 ? 'progress' : 'completion';
  }
}

export const MILESTONE_CHOICES: readonly (readonly [FollowsRule['reaches'], string])[] = [
  ['done', 'done'],
  ['underWay', 'under way'],
  ['toCheck', 'to be checked'],
];

export function unitChoices(amount: number): readonly (readonly [FollowsRule['unit'], string])[] {
  const s = amount === 1 ? '' : 's';
  return [
    ['day', `day${s}`],
    ['workingDay', `working day${s}`],
    ['week', `week${s}`],
    ['month', `month${s}`],
  ];
}

const FROM_END = ['', 'last', 'last but one', 'third last'] as const;
const WEEKDAYS: readonly Weekday[] = [1, 2, 3, 4, 5, 6, 7];
const MONDAY_TO_FRIDAY: readonly Weekday[] = [1, 2, 3, 4, 5];
const WEEKEND: readonly Weekday[] = [6, 7];

/** Every place in a month that the form offers, under headings. */
export const POINT_GROUPS: readonly { readonly heading: string; readonly points: readonly MonthPoint[] }[] = [
  {
    heading: 'working days',
    points: [1, 2, 3, 4, 5, 10, -1, -2, -3].map((nth) => ({ kind: 'workingDay', nth })),
  },
  {
    heading: 'dates',
    points: [...Array.from({ length: 31 }, (_, i) => i + 1), -1, -2, -3].map((day) => ({ kind: 'date', day })),
  },
  {
    heading: 'weekdays',
    points: [1, 2, 3, 4, -1].flatMap((nth) =>
      WEEKDAYS.map((weekday): MonthPoint => ({ kind: 'weekday', nth, weekday })),
    ),
  },
  {
    heading: 'any weekday, holiday or not',
    points: [MONDAY_TO_FRIDAY, WEEKEND].flatMap((weekdays) =>
      [1, -1].map((nth): MonthPoint => ({ kind: 'anyWeekday', nth, weekdays })),
    ),
  },
];

export function pointKey(point: MonthPoint): string {
  switch (point.kind) {
    case 'date':
      return `date ${point.day}`;
    case 'weekday':
      return `weekday ${point.nth} ${point.weekday}`;
    case 'anyWeekday':
      return `anyWeekday ${point.nth} ${point.weekdays.join()}`;
    case 'workingDay':
      return `workingDay ${point.nth}`;
    case 'easter':
      return 'easter';
  }
}

export function pointWords(point: MonthPoint): string {
  const place = (nth: number) => (nth > 0 ? ordinalWord(nth) : fromEnd(nth));
  switch (point.kind) {
    case 'date':
      return point.day > 0 ? ordinal(point.day) : `${fromEnd(point.day)} day`;
    case 'weekday':
      return `${place(point.nth)} ${weekdayName(point.weekday)}`;
    case 'anyWeekday':
      return `${place(point.nth)} ${anyWeekdayWords(point.weekdays)}`;
    case 'workingDay':
      return `${place(point.nth)} working day`;
    case 'easter':
      return 'Easter Sunday';
  }
}

function anyWeekdayWords(weekdays: readonly Weekday[]): string {
  if (weekdays.join() === MONDAY_TO_FRIDAY.join()) return 'weekday, Mon to Fri';
  return weekdays.join() === WEEKEND.join() ? 'weekend day' : weekdays.map(weekdayShort).join(' or ');
}

function fromEnd(n: number): string {
  return FROM_END[-n] ?? `${ordinal(-n)} last`;
}

/** A point that the form does not offer stands among those that it does. */
export function groupsWith(point: MonthPoint): typeof POINT_GROUPS {
  const known = POINT_GROUPS.some(({ points }) => points.some((other) => pointKey(other) === pointKey(point)));
  return known ? POINT_GROUPS : [...POINT_GROUPS, { heading: 'as it is', points: [point] }];
}

/** On which side of its place a date lies, where it does not lie on it. */
export const WAY_CHOICES: readonly (readonly [Way, string])[] = [
  ['before', 'before'],
  ['after', 'after'],
  ['onOrBefore', 'on or before'],
  ['onOrAfter', 'on or after'],
];

/** Whether it is the first, second … of its kind, rather than so many of them. */
export function isRanked({ of, way }: Distance): boolean {
  return of !== 'day' && (of !== 'workingDay' || way === 'onOrBefore' || way === 'onOrAfter');
}

/** What a distance may be counted in. */
export function countedChoices(distance: Distance): readonly (readonly [string, string])[] {
  const s = isRanked(distance) || distance.amount === 1 ? '' : 's';
  return [
    ['day', `day${s}`],
    ['workingDay', `working day${s}`],
    ...WEEKDAYS.map((weekday) => [String(weekday), weekdayName(weekday)] as const),
  ];
}

/** "first" to "twelfth", and the one that is chosen. */
export function rankChoices(amount: number): readonly (readonly [string, string])[] {
  const ranks = Array.from({ length: 12 }, (_, i) => i + 1);
  return [...ranks, ...(amount > 12 ? [amount] : [])].map((rank) => [String(rank), ordinalWord(rank)]);
}

/** On another side; days have two, and are never the place itself. */
export function onSide({ amount, of }: Distance, way: Way): Distance {
  if (way === 'before' || way === 'after') return of === 'day' ? { amount, of, way } : { amount, of, way };
  return of === 'day' ? { amount: 1, of: 'workingDay', way } : { amount, of, way };
}

/** Counted in something else; the first of weekdays where it was so many days. */
export function countedIn({ amount, of, way }: Distance, key: string): Distance {
  if (key === 'day') return { amount, of: 'day', way: way === 'before' || way === 'onOrBefore' ? 'before' : 'after' };
  if (key === 'workingDay') return { amount, of: 'workingDay', way };
  const weekday = WEEKDAYS.find((one) => String(one) === key) as Weekday;
  return { amount: of === 'day' || of === 'workingDay' ? 1 : amount, of: weekday, way };
}

export const MISSING_WORDS = [
  ['last', 'the last day instead'],
  ['next', 'the 1st of the next instead'],
  ['omit', 'left out'],
] as const;

export const DAY_OFF_WORDS = [
  ['none', 'leave it there'],
  ['preceding', 'the working day before'],
  ['following', 'the working day after'],
  ['nearest', 'the nearest working day'],
  ['modifiedPreceding', 'the working day before in the same month'],
  ['modifiedFollowing', 'the working day after in the same month'],
  ['skip', 'skip it'],
] as const;

/** What counts as a day off: both, or only some of them. */
export const DAYS_OFF_CHOICES: readonly (readonly [DaysOff | 'both', string])[] = [
  ['both', 'day off'],
  ['holidays', 'holiday'],
  ['weekends', 'weekend'],
];
