import type { Convention } from '../calendar/business-day.ts';
import type { Season } from '../calendar/closed-season.ts';
import type { Weekday } from '../civil-date/civil-day.ts';
import type { IsoDate } from '../civil-date/iso-date.ts';

/** One place in a month. */
export type MonthPoint =
  /** The date 1–31, or counted from the end: -1 is the last day, -2 the last but one. */
  | { readonly kind: 'date'; readonly day: number }
  /** The first to fifth of a weekday, or counted from the end: -1 is the last Friday, say. */
  | { readonly kind: 'weekday'; readonly nth: number; readonly weekday: Weekday }
  /** The first, second … of the days that are any of these weekdays: the last Monday-to-Friday day, the first day of a weekend. */
  | { readonly kind: 'anyWeekday'; readonly nth: number; readonly weekdays: readonly Weekday[] }
  /** The first, second … working day of the calendar, or counted from the end: -1 is the last. */
  | { readonly kind: 'workingDay'; readonly nth: number }
  /** Easter Sunday, in the month that has it; alone in a yearly rule of March and April. */
  | { readonly kind: 'easter' };

export const WAYS = ['before', 'after', 'onOrBefore', 'onOrAfter'] as const;
/** On which side of a place a date lies, and whether it may be the place itself. */
export type Way = (typeof WAYS)[number];

/** How far from a place: so many days, or the first, second … working day or weekday before or after it. */
export type Distance =
  | { readonly amount: number; readonly of: 'day'; readonly way: 'before' | 'after' }
  | { readonly amount: number; readonly of: 'workingDay' | Weekday; readonly way: Way };

/** The greatest amount of a distance. */
export const MAX_DISTANCE = 366;

/**
 * What to do in a month that has no such date (the 31st of April, 29 February):
 * its last day, the first day of the next month, or leave that month out.
 */
export const MISSING_DAY_POLICIES = ['last', 'next', 'omit'] as const;
export type MissingDay = (typeof MISSING_DAY_POLICIES)[number];

/** Every N days from the start, but for the weekdays left out. */
export interface DaysRule {
  readonly kind: 'days';
  readonly every: number;
  readonly except: readonly Weekday[];
}

/** Every N working days, counted from the first working day on or after the start. */
export interface WorkingDaysRule {
  readonly kind: 'workingDays';
  readonly every: number;
}

/** Every N weeks, counted from the week of the start (weeks begin on Monday, RFC 5545 WKST=MO), on these weekdays. */
export interface WeeksRule {
  readonly kind: 'weeks';
  readonly every: number;
  readonly on: readonly Weekday[];
}

/**
 * Every N months, counted from the month of the start; where `months` are given, only in those (1–12). The months are those
 * of the places: dates that lie away from them may fall into others.
 */
export interface MonthsRule {
  readonly kind: 'months';
  readonly every: number;
  readonly months: readonly number[];
  readonly on: readonly MonthPoint[];
  readonly missing: MissingDay;
  /** How far from the places the dates lie; on them where it is left out. */
  readonly away?: Distance;
}

/** Every N years, counted from the year of the start, in these months (1–12, at least one). */
export interface YearsRule {
  readonly kind: 'years';
  readonly every: number;
  readonly months: readonly number[];
  readonly on: readonly MonthPoint[];
  readonly missing: MissingDay;
  /** As in a rule by months. */
  readonly away?: Distance;
}

/** Dates that were typed or pasted. */
export interface DatesRule {
  readonly kind: 'dates';
  readonly dates: readonly IsoDate[];
}

/** A rule from elsewhere that none of ours can hold: RFC 5545, section 3.3.10, `FREQ=…`, with its own COUNT or UNTIL. */
export interface ForeignRule {
  readonly kind: 'rrule';
  readonly text: string;
}

/** How far the last task has to be for the next one to come. */
export const MILESTONES = ['done', 'underWay', 'toCheck'] as const;
export type Milestone = (typeof MILESTONES)[number];

/**
 * So long after the last one was done, or as soon as it is under way: the next date is known only then.
 * The first is on the start; until they happen, later ones are foreseen as if each were done on its own day.
 * Such a rule stands alone.
 */
export interface FollowsRule {
  readonly kind: 'follows';
  readonly reaches: Milestone;
  /** 0 is the same day: "as soon as". */
  readonly amount: number;
  readonly unit: 'day' | 'workingDay' | 'week' | 'month';
}

export type Rule =
  | DaysRule
  | WorkingDaysRule
  | WeeksRule
  | MonthsRule
  | YearsRule
  | DatesRule
  | ForeignRule
  | FollowsRule;

export type End =
  | { readonly kind: 'never' }
  /** No date after this one. */
  | { readonly kind: 'on'; readonly date: IsoDate }
  /** After so many dates, counted over all the rules and before days off move or skip any. */
  | { readonly kind: 'after'; readonly count: number };

/** Parts of the year without work, and what becomes of dates in them: left out, or moved as off any other day off. */
export interface ClosedSeasons {
  readonly seasons: readonly Season[];
  readonly dates: 'omit' | 'move';
}

export const DAYS_OFF = ['weekends', 'holidays'] as const;
/** Days that count as days off for a recurrence where not all of them do: weekdays that are not worked, or holidays, on whatever weekday. */
export type DaysOff = (typeof DAYS_OFF)[number];

/** When: one or more rules, joined. */
export interface Recurrence {
  /** No date before this one; intervals are counted from it, or from the week, month or year that holds it. */
  readonly start: IsoDate;
  readonly rules: readonly Rule[];
  readonly end: End;
  readonly dayOff: Convention;
  /** What the convention holds for: both weekdays that are not worked and holidays, where it is left out. */
  readonly daysOff?: DaysOff;
  readonly closed?: ClosedSeasons;
  /** Dates of the rules that are taken out (RFC 5545 EXDATE); they count for an end after so many. */
  readonly except?: readonly IsoDate[];
}

/** The longest interval a rule may have. */
export const MAX_INTERVAL = 999;
/** The most dates that an end after a number of times may give. */
export const MAX_COUNT = 9999;

/** Whether dates in a closed season are left out; they are too where no convention says how to move them. */
export function leavesOutClosed({ closed, dayOff }: Recurrence): boolean {
  return closed !== undefined && (closed.dates === 'omit' || dayOff === 'none' || dayOff === 'skip');
}

/** The follows rule of a recurrence, where it is one. */
export function followsRule({ rules }: Recurrence): FollowsRule | null {
  const [rule] = rules;
  return rule?.kind === 'follows' ? rule : null;
}
