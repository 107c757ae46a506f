import { longestClosure } from '../calendar/closed-season.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import type { Distance, Recurrence } from '../recurrence/rule.ts';
import { FARTHEST_MOVE_DAYS } from './plan.ts';
import type { PlannedSchedule } from './schedule-plan.ts';
import { reachInDays } from './timing.ts';

/** A stretch of days, both included. */
export interface Days {
  readonly from: CivilDay;
  readonly to: CivilDay;
}

/** A place in a month may be any of its days, and the month before or after it may be looked at. */
const TWO_MONTHS = 62;

/**
 * The days within a stretch of which the plan of a schedule can be another when the calendar changes on some days, or null
 * where none can. Rules that count on from date to date (every third working day, so many times, after the last one) can be
 * others from there on; all others only so near as they look at days off.
 * @param changed the first and last day that is a day off by one calendar only
 * @param beside the farthest that other tasks of the set lie from its date, in days
 */
export function daysToCompare(
  schedule: PlannedSchedule,
  changed: Days,
  within: Days,
  { beside }: { readonly beside: number },
): Days | null {
  const { recurrence, timing, revisions = [] } = schedule;
  const all = [{ recurrence, timing }, ...revisions];
  const reach =
    beside +
    Math.max(
      ...all.map(
        (one) =>
          reachOfRules(one.recurrence) +
          Math.max(...[one.timing.appears, one.timing.starts, one.timing.due].map((offset) => reachInDays(offset))),
      ),
    );
  const from = Math.max(within.from, changed.from - reach);
  const to = all.some((one) => countsOn(one.recurrence)) ? within.to : Math.min(within.to, changed.to + reach);
  return from > to ? null : { from, to };
}

/** Whether a date depends on how many there were before it. */
function countsOn({ rules, end }: Recurrence): boolean {
  return (
    end.kind === 'after' ||
    rules.some((rule) => rule.kind === 'follows' || (rule.kind === 'workingDays' && rule.every > 1))
  );
}

function reachOfRules({ rules, closed }: Recurrence): number {
  const away = rules.map((rule) => ('away' in rule && rule.away ? reachOfDistance(rule.away) : 0));
  return TWO_MONTHS + FARTHEST_MOVE_DAYS + longestClosure(closed?.seasons ?? []) + Math.max(0, ...away);
}

/** So many weekdays lie as many weeks away; so many working days at most a week each, and their holidays. */
const reachOfDistance = ({ amount }: Distance): number => amount * 7 + 14;
