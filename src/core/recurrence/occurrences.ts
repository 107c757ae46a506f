import { WEEKDAYS_ONLY, type WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { civilDay } from '../civil-date/civil-day.ts';
import { dayOfIso, type IsoDate, isoOfDay } from '../civil-date/iso-date.ts';
import type { Recurrence } from './rule.ts';
import { addRuleDates } from './rule-dates.ts';

/** The last day that any rule is followed to. */
export const LAST_DAY: CivilDay = civilDay(9999, 12, 31);
/**
 * The Gregorian calendar repeats after 400 years, so a rule of ours that gives nothing in so many days gives nothing at all,
 * unless its interval is longer than that: then up to its interval.
 */
const GREGORIAN_CYCLE_DAYS = 146_097;

/** A recurrence made ready for many questions. */
export interface OccurrenceSeries {
  /** Days that the rules give within [from, to], in order, each once, before days off move any. */
  between(from: CivilDay, to: CivilDay): readonly CivilDay[];
  /** The first such day after `after`, or null when there is none. */
  next(after: CivilDay): CivilDay | null;
}

/** Prepares a recurrence. Rules on working days count them by the calendar. */
export function occurrenceSeries(recurrence: Recurrence, calendar: WorkingCalendar): OccurrenceSeries {
  const start = dayOfIso(recurrence.start);
  const { end, rules } = recurrence;

  const unbounded = (from: CivilDay, to: CivilDay): CivilDay[] => {
    const days: CivilDay[] = [];
    for (const rule of rules) addRuleDates(days, rule, start, from, to, calendar);
    return sortedOnce(days);
  };

  let until: CivilDay | undefined =
    end.kind === 'never' ? LAST_DAY : end.kind === 'on' ? dayOfIso(end.date) : undefined;
  const lastDay = (): CivilDay => {
    if (until === undefined) until = dayOfCount(unbounded, start, end.kind === 'after' ? end.count : 0);
    return until;
  };

  const between = (from: CivilDay, to: CivilDay) => unbounded(from, Math.min(to, lastDay()));
  return {
    between,
    next(after) {
      const last = Math.min(lastDay(), Math.max(after, start) + GREGORIAN_CYCLE_DAYS * 2);
      for (let from = Math.max(after + 1, start), span = 62; from <= last; from += span, span *= 4) {
        const found = between(from, Math.min(from + span - 1, last))[0];
        if (found !== undefined) return found;
      }
      return null;
    },
  };
}

/** The day of the nth occurrence from the start: where a count ends the series. */
function dayOfCount(between: (from: CivilDay, to: CivilDay) => CivilDay[], start: CivilDay, count: number): CivilDay {
  let left = count;
  const last = Math.min(LAST_DAY, start + GREGORIAN_CYCLE_DAYS * 2);
  let empty = 0;
  for (
    let from = start, span = 366;
    from <= last && empty < GREGORIAN_CYCLE_DAYS;
    from += span, span = Math.min(span * 2, 36_600)
  ) {
    const days = between(from, Math.min(from + span - 1, last));
    const nth = days[left - 1];
    if (nth !== undefined) return nth;
    left -= days.length;
    empty = days.length === 0 ? empty + span : 0;
  }
  return LAST_DAY;
}

function sortedOnce(days: CivilDay[]): CivilDay[] {
  let sorted = true;
  for (let i = 1; i < days.length && sorted; i++) sorted = (days[i - 1] as number) < (days[i] as number);
  if (sorted) return days;
  days.sort((a, b) => a - b);
  return days.filter((day, i) => i === 0 || day !== days[i - 1]);
}

/**
 * The dates that a recurrence gives within [from, to], both included, in order and each once.
 * They are the rule's own dates: `planBetween` moves those that land on a day off.
 *
 * @param from first date, `YYYY-MM-DD`
 * @param to last date, `YYYY-MM-DD`; earlier than `from` gives none
 * @param calendar which days are worked, for rules on working days; Monday to Friday where left out
 * @throws InvalidDateError for a date that does not exist
 */
export function occurrencesBetween(
  rule: Recurrence,
  from: IsoDate,
  to: IsoDate,
  calendar: WorkingCalendar = WEEKDAYS_ONLY,
): IsoDate[] {
  return occurrenceSeries(rule, calendar).between(dayOfIso(from), dayOfIso(to)).map(isoOfDay);
}

/**
 * The first date that a recurrence gives strictly after a date, or null when none follows.
 * @throws InvalidDateError for a date that does not exist
 */
export function nextOccurrence(
  rule: Recurrence,
  after: IsoDate,
  calendar: WorkingCalendar = WEEKDAYS_ONLY,
): IsoDate | null {
  const day = occurrenceSeries(rule, calendar).next(dayOfIso(after));
  return day === null ? null : isoOfDay(day);
}
