import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { dayOfIso } from '../civil-date/iso-date.ts';
import { planDays } from '../planning/plan.ts';
import type { PlannedSchedule } from '../planning/schedule-plan.ts';
import { occurrenceSeries } from '../recurrence/occurrences.ts';
import { followsRule } from '../recurrence/rule.ts';
import type { AssignmentRule } from './assignment.ts';
import type { DatesBetween } from './roster.ts';

/** Dates are told so many days further than is asked for, as the next question is mostly about the next days. */
const AHEAD_DAYS = 400;

/**
 * Counts the dates of a schedule's rules: those that are skipped, moved or fall on a day off are dates all the same, but for
 * those skipped by hand where the rule says that they pass their turn on; what was put there by hand is none. Where the next
 * date waits for the last one, what lies behind is known by its number alone: there every date counts from the beginning of the
 * series, whichever roster holds.
 */
export function datesBetweenOf(
  schedule: PlannedSchedule,
  calendar: WorkingCalendar,
  rule: AssignmentRule,
): DatesBetween {
  if (followsRule(schedule.recurrence) !== null) return byNumber(schedule, calendar);
  const { exceptions = [] } = schedule;
  const skipped = exceptions.flatMap((one) => (one.kind === 'skip' && passesOn(rule) ? [dayOfIso(one.date)] : []));
  return byRule(schedule, calendar, new Set(skipped));
}

/** Whether a date that is skipped leaves its turn to the next. */
function passesOn(rule: AssignmentRule): boolean {
  const turns = rule.kind === 'inTurn' ? rule.turns : rule.kind === 'listed' ? rule.goesOn : null;
  return turns?.length.per === 'occurrence' && turns.length.skipped === 'passes on';
}

function byRule(schedule: PlannedSchedule, calendar: WorkingCalendar, without: ReadonlySet<CivilDay>): DatesBetween {
  const { recurrence, revisions = [] } = schedule;
  const later = [...revisions]
    .sort((a, b) => (a.from < b.from ? -1 : 1))
    .map((one) => ({ from: dayOfIso(one.from), recurrence: one.recurrence }));
  const stretches = [{ from: Number.NEGATIVE_INFINITY, recurrence }, ...later];
  let [first, last] = [0, -1];
  let days: CivilDay[] = [];
  const reach = (from: CivilDay, to: CivilDay) => {
    if (last >= first && from >= first && to <= last) return;
    [first, last] = last < first ? [from, to + AHEAD_DAYS] : [Math.min(first, from), Math.max(last, to + AHEAD_DAYS)];
    days = stretches.flatMap((stretch, i) => {
      const [a, b] = [
        Math.max(first, stretch.from),
        Math.min(last, (stretches[i + 1]?.from ?? Number.POSITIVE_INFINITY) - 1),
      ];
      if (a > b || followsRule(stretch.recurrence) !== null) return [];
      return [...occurrenceSeries(stretch.recurrence, calendar).between(a, b)].filter((day) => !without.has(day));
    });
  };
  return (after, upTo) => {
    if (upTo === after) return 0;
    const [low, high] = [Math.min(after, upTo), Math.max(after, upTo)];
    reach(low + 1, high);
    const count = upToIn(days, high) - upToIn(days, low);
    return after < upTo ? count : 0 - count;
  };
}

function byNumber(schedule: PlannedSchedule, calendar: WorkingCalendar): DatesBetween {
  const { last = null, recurrence } = schedule;
  const from = last === null ? dayOfIso(recurrence.start) : dayOfIso(last.nominal) + 1;
  const before = last?.count ?? 0;
  let known = from - 1;
  let days: CivilDay[] = [];
  return (_, upTo) => {
    if (upTo < from) return last !== null && upTo < dayOfIso(last.nominal) ? before - 1 : before;
    if (upTo > known) {
      known = upTo + AHEAD_DAYS;
      days = planDays(schedule, calendar, from, known)
        .map(({ nominal }) => nominal)
        .filter((day) => day >= from)
        .sort((a, b) => a - b);
    }
    return before + upToIn(days, upTo);
  };
}

/** How many days of a list in order lie up to a day, that included. */
function upToIn(days: readonly CivilDay[], day: CivilDay): number {
  let [low, high] = [0, days.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((days[middle] as CivilDay) <= day) low = middle + 1;
    else high = middle;
  }
  return low;
}
