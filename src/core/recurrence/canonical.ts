import { daysInMonth } from '../civil-date/civil-day.ts';
import type { Distance, MonthPoint, MonthsRule, Recurrence, Rule } from './rule.ts';

/**
 * The same recurrence in its one settled form: lists in order and without doubles, listed dates together, and what makes no
 * difference as it is by default. Two recurrences that are written the same way are the same in this form.
 */
export function canonicalRecurrence(recurrence: Recurrence): Recurrence {
  const { start, rules, end, dayOff, daysOff, closed, except } = recurrence;
  const seasons = closed
    ? once(closed.seasons, ({ from, to }) => `${from} ${to}`).sort((a, b) => (a.from + a.to < b.from + b.to ? -1 : 1))
    : [];
  const takenOut = sortedOnce(except ?? []);
  return {
    start,
    rules: once(datesTogether(rules).map(canonicalRule), (rule) => JSON.stringify(rule)),
    end,
    dayOff,
    ...(daysOff && dayOff !== 'none' && { daysOff }),
    ...(closed && seasons.length > 0 && { closed: { seasons, dates: closed.dates } }),
    ...(takenOut.length > 0 && { except: takenOut }),
  };
}

function canonicalRule(rule: Rule): Rule {
  switch (rule.kind) {
    case 'days':
      return { kind: 'days', every: rule.every, except: inOrder(rule.except) };
    case 'weeks':
      return { kind: 'weeks', every: rule.every, on: inOrder(rule.on) };
    case 'months':
    case 'years': {
      const months = inOrder(rule.months);
      const on = inMonthOrder(once(rule.on.map(canonicalPoint), (point) => JSON.stringify(point)));
      return {
        kind: rule.kind,
        every: rule.every,
        months: rule.kind === 'months' && months.length === 12 ? [] : months,
        on,
        missing: mayLackDay({ ...rule, on, months }) ? rule.missing : 'last',
        ...(rule.away && { away: canonicalDistance(rule.away) }),
      };
    }
    case 'dates':
      return { kind: 'dates', dates: sortedOnce(rule.dates) };
    case 'rrule':
      return { kind: 'rrule', text: rule.text.replace(/\s+/g, '').toUpperCase() };
    case 'workingDays':
    case 'follows':
      return rule;
  }
}

/** Whether one of the rule's months may lack one of its dates. */
export function mayLackDay({ on, months }: Pick<MonthsRule, 'on' | 'months'>): boolean {
  const shortest = Math.min(...(months.length > 0 ? months : [2]).map((month) => daysInMonth(2026, month)));
  return on.some((point) => point.kind === 'date' && point.day > shortest);
}

function canonicalDistance({ amount, of, way }: Distance): Distance {
  return of === 'day' ? { amount, of, way } : { amount, of, way };
}

function canonicalPoint(point: MonthPoint): MonthPoint {
  if (point.kind !== 'anyWeekday') return point;
  const weekdays = inOrder(point.weekdays);
  const [only] = weekdays;
  if (weekdays.length === 1 && only !== undefined) return { kind: 'weekday', nth: point.nth, weekday: only };
  return { kind: 'anyWeekday', nth: point.nth, weekdays };
}

/** All listed dates as one rule, where the first of them stands. */
function datesTogether(rules: readonly Rule[]): Rule[] {
  const dates = rules.flatMap((rule) => (rule.kind === 'dates' ? rule.dates : []));
  let placed = false;
  return rules.flatMap((rule): Rule[] => {
    if (rule.kind !== 'dates') return [rule];
    if (placed) return [];
    placed = true;
    return [{ kind: 'dates', dates }];
  });
}

/** In the order in which a month meets them, dates counted from its end last. */
export function inMonthOrder(points: readonly MonthPoint[]): MonthPoint[] {
  return [...points].sort((a, b) => rank(a) - rank(b));
}

/** Roughly the day of the month, so that points read in order; a rank of its own for each, so that the order is settled. */
function rank(point: MonthPoint): number {
  const place = placeOf(point);
  return place > 0 ? place : 100 + place;
}

function placeOf(point: MonthPoint): number {
  switch (point.kind) {
    case 'date':
      return point.day;
    case 'weekday':
      return point.nth * 7 - 3 + point.weekday / 100;
    case 'anyWeekday':
      return (
        (point.nth * 7) / point.weekdays.length + 0.2 + point.weekdays.reduce((sum, day) => sum + 2 ** day, 0) / 10_000
      );
    case 'workingDay':
      return point.nth * 1.4 + 0.3;
    case 'easter':
      return 99;
  }
}

function inOrder<T extends number>(numbers: readonly T[]): T[] {
  return [...new Set(numbers)].sort((a, b) => a - b);
}

function sortedOnce(texts: readonly string[]): string[] {
  return [...new Set(texts)].sort();
}

function once<T>(values: readonly T[], key: (value: T) => string): T[] {
  return [...new Map(values.map((value) => [key(value), value] as const).reverse()).values()].reverse();
}
