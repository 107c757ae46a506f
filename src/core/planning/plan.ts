import { rollDay } from '../calendar/business-day.ts';
import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { dayOfIso, type IsoDate } from '../civil-date/iso-date.ts';
import { occurrenceSeries } from '../recurrence/occurrences.ts';
import type { Recurrence } from '../recurrence/rule.ts';
import { offsetDay, type Timing } from './timing.ts';

/** While paused nothing is made. `to` is the first day that runs again; null while the pause lasts. */
export interface Pause {
  readonly from: IsoDate;
  readonly to: IsoDate | null;
}

/** What the plan of a schedule is computed from. */
export interface PlannedSchedule {
  readonly recurrence: Recurrence;
  readonly timing: Timing;
  readonly pauses: readonly Pause[];
}

/** One occurrence with all its days. */
export interface DatedOccurrence {
  readonly kind: 'dated';
  /** The date the rule gives, before any move. With its schedule it is the name of this occurrence for good. */
  readonly nominal: CivilDay;
  /** The day it is worked. */
  readonly on: CivilDay;
  readonly appears: CivilDay;
  readonly starts: CivilDay;
  readonly due: CivilDay;
}

/** A date of the rule that makes no task, and why. */
export interface OmittedOccurrence {
  readonly kind: 'omitted';
  readonly nominal: CivilDay;
  /** The day it would have been worked. */
  readonly on: CivilDay;
  readonly because: 'day off' | 'paused' | 'same day as another';
}

export type PlannedOccurrence = DatedOccurrence | OmittedOccurrence;

/** A date moves off a run of days off; one that is looked for this far outside the window can still land in it. */
const FARTHEST_MOVE_DAYS = 45;

/**
 * The plan of a schedule: every occurrence whose day lies within [from, to], both included, in the order of their days.
 * The answer for a day does not depend on the window that was asked for.
 */
export function planDays(
  schedule: PlannedSchedule,
  calendar: WorkingCalendar,
  from: CivilDay,
  to: CivilDay,
): PlannedOccurrence[] {
  if (to < from) return [];
  const { recurrence, timing } = schedule;
  const margin = recurrence.dayOff === 'none' ? 0 : FARTHEST_MOVE_DAYS;
  const nominals = occurrenceSeries(recurrence, calendar).between(from - margin, to + margin);
  const pauses = schedule.pauses.map(({ from: first, to: end }) => ({
    first: dayOfIso(first),
    end: end === null ? Number.POSITIVE_INFINITY : dayOfIso(end),
  }));

  const winners = new Map<CivilDay, CivilDay>();
  const rolled: { nominal: CivilDay; on: CivilDay | null }[] = [];
  for (const nominal of nominals) {
    const on = rollDay(nominal, recurrence.dayOff, calendar);
    rolled.push({ nominal, on });
    // Two on one day make one occurrence: the one that falls there by itself, else the earliest.
    if (on !== null && (nominal === on || !winners.has(on))) winners.set(on, nominal);
  }

  const plan: PlannedOccurrence[] = [];
  for (const { nominal, on } of rolled) {
    const day = on ?? nominal;
    if (day < from || day > to) continue;
    if (on === null) plan.push({ kind: 'omitted', nominal, on: day, because: 'day off' });
    else if (winners.get(on) !== nominal) plan.push({ kind: 'omitted', nominal, on, because: 'same day as another' });
    else if (pauses.some(({ first, end }) => on >= first && on < end)) {
      plan.push({ kind: 'omitted', nominal, on, because: 'paused' });
    } else plan.push(dated(nominal, on, timing, calendar));
  }
  return plan.sort((a, b) => a.on - b.on || a.nominal - b.nominal);
}

function dated(nominal: CivilDay, on: CivilDay, timing: Timing, calendar: WorkingCalendar): DatedOccurrence {
  const appears = offsetDay(on, timing.appears, calendar);
  return {
    kind: 'dated',
    nominal,
    on,
    appears,
    starts: offsetDay(on, timing.starts, calendar),
    due: offsetDay(on, timing.due, calendar),
  };
}

/** Whether an occurrence becomes a task. */
export function isDated(occurrence: PlannedOccurrence): occurrence is DatedOccurrence {
  return occurrence.kind === 'dated';
}
