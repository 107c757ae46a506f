import { closedOn } from '../calendar/closed-season.ts';
import { WEEKDAYS_ONLY, type WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { dayOfIso, type IsoDate, isoOfDay, isoOfDays } from '../civil-date/iso-date.ts';
import { asked, DATE_STEPS, spend } from '../reckoning.ts';
import { NO_DAY } from './month-point.ts';
import { rulesWithDates } from './never.ts';
import { LAST_DAY } from './rrule/dates.ts';
import { leavesOutClosed, type Recurrence } from './rule.ts';
import { type RuleDates, ruleDates } from './rule-dates.ts';

/** A recurrence made ready for many questions. Days are before days off move or skip any. */
export interface OccurrenceSeries {
  /** Days within [from, to], in order, each once. */
  between(from: CivilDay, to: CivilDay): readonly CivilDay[];
  /** The first day after `after`, or null when there is none. */
  next(after: CivilDay): CivilDay | null;
  /** Days within [from, to] that the rules give and the recurrence leaves out: in a closed season, or taken out one by one. */
  leftOut(
    from: CivilDay,
    to: CivilDay,
  ): readonly { readonly day: CivilDay; readonly because: 'closed' | 'taken out' }[];
}

/**
 * Prepares a recurrence; rules on working days count them by the calendar. Prepared once for each pair of them: both are
 * taken to stay as they are.
 * @throws InvalidDateError, InvalidSeasonError, RRuleError; its answers TooMuchReckoningError
 */
export function occurrenceSeries(recurrence: Recurrence, calendar: WorkingCalendar): OccurrenceSeries {
  const known = prepared.get(recurrence);
  if (known?.calendar === calendar) return known.series;
  const series = prepare(recurrence, calendar);
  prepared.set(recurrence, { calendar, series });
  return series;
}

/** By the calendar asked with last: a recurrence is rarely asked with two. */
const prepared = new WeakMap<Recurrence, { readonly calendar: WorkingCalendar; readonly series: OccurrenceSeries }>();

function prepare(recurrence: Recurrence, calendar: WorkingCalendar): OccurrenceSeries {
  const start = dayOfIso(recurrence.start);
  const rules = rulesWithDates(recurrence).map((rule) => ruleDates(rule, start, calendar));
  const { closed, end } = recurrence;
  const isClosed = closed && leavesOutClosed(recurrence) ? closedOn(closed.seasons) : null;
  const takenOut = new Set((recurrence.except ?? []).map(dayOfIso));

  /** The joined days, closed seasons left out: what an end after so many counts. */
  const counted = (from: CivilDay, to: CivilDay): CivilDay[] => {
    const days = joined(rules, from, to);
    return isClosed ? days.filter((day) => !isClosed(day)) : days;
  };
  let last: CivilDay | undefined;
  const lastDay = (): CivilDay => {
    last ??=
      end.kind === 'never' ? LAST_DAY : end.kind === 'on' ? dayOfIso(end.date) : dayOfCount(counted, start, end.count);
    return last;
  };
  return {
    between(from, to) {
      return asked(() => {
        const days = counted(from, Math.min(to, lastDay()));
        return takenOut.size > 0 ? days.filter((day) => !takenOut.has(day)) : days;
      });
    },
    next(after) {
      return asked(() => {
        const to = lastDay();
        for (let from = after + 1; ; from++) {
          spend(rules.length);
          from = firstOf(rules, from, to);
          if (from === NO_DAY) return null;
          if (!isClosed?.(from) && !takenOut.has(from)) return from;
        }
      }, DATE_STEPS);
    },
    leftOut(from, to) {
      return asked(() =>
        joined(rules, from, Math.min(to, lastDay())).flatMap((day) => {
          if (isClosed?.(day)) return { day, because: 'closed' as const };
          return takenOut.has(day) ? { day, because: 'taken out' as const } : [];
        }),
      );
    },
  };
}

function joined(rules: readonly RuleDates[], from: CivilDay, to: CivilDay): CivilDay[] {
  const days: CivilDay[] = [];
  for (let i = 0; i < rules.length; i++) {
    const before = days.length;
    (rules[i] as RuleDates).addBetween(days, from, to);
    spend(days.length - before);
  }
  for (let i = 1; i < days.length; i++) if ((days[i - 1] as number) >= (days[i] as number)) return sortedOnce(days);
  return days;
}

function sortedOnce(days: CivilDay[]): CivilDay[] {
  days.sort((a, b) => a - b);
  return days.filter((day, i) => i === 0 || day !== days[i - 1]);
}

function firstOf(rules: readonly RuleDates[], from: CivilDay, to: CivilDay): CivilDay {
  let first = NO_DAY;
  for (let i = 0; i < rules.length; i++) {
    const day = (rules[i] as RuleDates).firstFrom(from, to);
    if (day < first) first = day;
  }
  return first;
}

/** So many days without a date end the count: twice the 400 years after which the calendar repeats. */
const LONGEST_WAIT_DAYS = 292_194;

/** The day of the nth occurrence from the start: where a count ends the series. */
function dayOfCount(between: (from: CivilDay, to: CivilDay) => CivilDay[], start: CivilDay, count: number): CivilDay {
  let left = count;
  let empty = 0;
  for (
    let from = start, span = 366;
    from <= LAST_DAY && empty < LONGEST_WAIT_DAYS;
    from += span, span = Math.min(span * 2, 36_600)
  ) {
    const days = between(from, Math.min(from + span - 1, LAST_DAY));
    spend(days.length + 1);
    const nth = days[left - 1];
    if (nth !== undefined) return nth;
    left -= days.length;
    empty = days.length === 0 ? empty + span : 0;
  }
  return LAST_DAY;
}

/**
 * The dates that a recurrence gives within [from, to], both included, in order and each once.
 * They are the rule's own dates: `planBetween` moves those that land on a day off.
 *
 * @param from first date, `YYYY-MM-DD`
 * @param to last date, `YYYY-MM-DD`; earlier than `from` gives none
 * @param calendar which days are worked, for rules on working days; Monday to Friday where left out
 * @throws InvalidDateError for a date that does not exist; RRuleError for a foreign rule that can't be read
 */
export function occurrencesBetween(
  rule: Recurrence,
  from: IsoDate,
  to: IsoDate,
  calendar: WorkingCalendar = WEEKDAYS_ONLY,
): IsoDate[] {
  return isoOfDays(occurrenceSeries(rule, calendar).between(dayOfIso(from), dayOfIso(to)));
}

/**
 * The first date that a recurrence gives strictly after a date, or null when none follows. It is computed, not walked to:
 * how long ago the rule began makes no difference.
 * @throws InvalidDateError for a date that does not exist; RRuleError for a foreign rule that can't be read
 */
export function nextOccurrence(
  rule: Recurrence,
  after: IsoDate,
  calendar: WorkingCalendar = WEEKDAYS_ONLY,
): IsoDate | null {
  const day = occurrenceSeries(rule, calendar).next(dayOfIso(after));
  return day === null ? null : isoOfDay(day);
}
