import {
  type MonthPoint,
  ordinal,
  ordinalWord,
  type Rule,
  type Weekday,
  weekdayName,
  weekdayOf,
  yearMonthDay,
} from '../../core/index.ts';

/** How often, as people say it; each begins a rule that can then be changed. */
export type Frequency =
  | 'days'
  | 'weekdays'
  | 'weeks'
  | 'fortnight'
  | 'fourWeeks'
  | 'months'
  | 'twiceAMonth'
  | 'twoMonths'
  | 'quarter'
  | 'halfYear'
  | 'years';

export const FREQUENCIES: readonly (readonly [Frequency, string])[] = [
  ['days', 'daily'],
  ['weekdays', 'on weekdays'],
  ['weeks', 'weekly'],
  ['fortnight', 'every two weeks'],
  ['fourWeeks', 'every four weeks, 13 a year'],
  ['months', 'monthly, 12 a year'],
  ['twiceAMonth', 'twice a month'],
  ['twoMonths', 'every two months'],
  ['quarter', 'quarterly'],
  ['halfYear', 'half-yearly'],
  ['years', 'yearly'],
];

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
  }
}

/** The frequency whose words fit a rule best. */
export function frequencyOf(rule: Rule): Frequency {
  switch (rule.kind) {
    case 'days':
      return 'days';
    case 'weeks':
      if (rule.every === 1) return [...rule.on].sort().join() === '1,2,3,4,5' ? 'weekdays' : 'weeks';
      return rule.every === 2 ? 'fortnight' : rule.every === 4 ? 'fourWeeks' : 'weeks';
    case 'months':
      if (rule.every === 1)
        return rule.on.length === 2 && rule.on.every(({ kind }) => kind === 'date') ? 'twiceAMonth' : 'months';
      return rule.every === 2 ? 'twoMonths' : rule.every === 3 ? 'quarter' : rule.every === 6 ? 'halfYear' : 'months';
    case 'years':
      return 'years';
  }
}

const FROM_END = ['', 'last', 'last but one', 'third last'] as const;
const WEEKDAYS: readonly Weekday[] = [1, 2, 3, 4, 5, 6, 7];

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
];

export function pointKey(point: MonthPoint): string {
  if (point.kind === 'date') return `date ${point.day}`;
  return point.kind === 'weekday' ? `weekday ${point.nth} ${point.weekday}` : `workingDay ${point.nth}`;
}

export function pointWords(point: MonthPoint): string {
  if (point.kind === 'date') return point.day > 0 ? ordinal(point.day) : `${fromEnd(point.day)} day`;
  const place = point.nth > 0 ? ordinalWord(point.nth) : fromEnd(point.nth);
  return point.kind === 'weekday' ? `${place} ${weekdayName(point.weekday)}` : `${place} working day`;
}

function fromEnd(n: number): string {
  return FROM_END[-n] ?? `${ordinal(-n)} last`;
}

/** A point that the form does not offer stands among those that it does. */
export function groupsWith(point: MonthPoint): typeof POINT_GROUPS {
  const known = POINT_GROUPS.some(({ points }) => points.some((other) => pointKey(other) === pointKey(point)));
  return known ? POINT_GROUPS : [...POINT_GROUPS, { heading: 'as it is', points: [point] }];
}

export function hasShortMonths(points: readonly MonthPoint[]): boolean {
  return points.some((point) => point.kind === 'date' && point.day > 28);
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
