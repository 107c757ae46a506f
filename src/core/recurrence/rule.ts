import type { Convention } from '../calendar/business-day.ts';
import type { Weekday } from '../civil-date/civil-day.ts';
import type { IsoDate } from '../civil-date/iso-date.ts';

/** One place in a month. */
export type MonthPoint =
  /** The date 1–31, or counted from the end: -1 is the last day, -2 the last but one. */
  | { readonly kind: 'date'; readonly day: number }
  /** The first to fifth of a weekday, or counted from the end: -1 is the last Friday, say. */
  | { readonly kind: 'weekday'; readonly nth: number; readonly weekday: Weekday }
  /** The first, second … working day, or counted from the end: -1 is the last. */
  | { readonly kind: 'workingDay'; readonly nth: number };

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

/** Every N weeks, counted from the week of the start (weeks begin on Monday, RFC 5545 WKST=MO), on these weekdays. */
export interface WeeksRule {
  readonly kind: 'weeks';
  readonly every: number;
  readonly on: readonly Weekday[];
}

/** Every N months, counted from the month of the start; where `months` are given, only in those (1–12). */
export interface MonthsRule {
  readonly kind: 'months';
  readonly every: number;
  readonly months: readonly number[];
  readonly on: readonly MonthPoint[];
  readonly missing: MissingDay;
}

/** Every N years, counted from the year of the start, in these months (1–12, at least one). */
export interface YearsRule {
  readonly kind: 'years';
  readonly every: number;
  readonly months: readonly number[];
  readonly on: readonly MonthPoint[];
  readonly missing: MissingDay;
}

export type Rule = DaysRule | WeeksRule | MonthsRule | YearsRule;

export type End =
  | { readonly kind: 'never' }
  /** No date after this one. */
  | { readonly kind: 'on'; readonly date: IsoDate }
  /** After so many dates, counted over all the rules and before days off move or skip any. */
  | { readonly kind: 'after'; readonly count: number };

/** When: one or more rules, joined. */
export interface Recurrence {
  /** No date before this one; intervals of weeks, months and years are counted from the period that holds it. */
  readonly start: IsoDate;
  readonly rules: readonly Rule[];
  readonly end: End;
  readonly dayOff: Convention;
}

/** The longest interval a rule may have. */
export const MAX_INTERVAL = 999;
/** The most dates that an end after a number of times may give. */
export const MAX_COUNT = 9999;
