import type { CivilDay } from '../civil-date/civil-day.ts';
import { type IsoDate, isoOfDay } from '../civil-date/iso-date.ts';
import { endBefore } from '../planning/by-hand.ts';
import type { Exception, Pause, Revision } from '../planning/schedule-plan.ts';
import type { End, Recurrence } from '../recurrence/rule.ts';
import { changedAspects, lastStretch, type OfPlan, type OwnAspect, ownFromDay } from './own-changes.ts';
import {
  beginsOn,
  estimatesOf,
  firstDayOf,
  type PlanItem,
  type Planned,
  scheduleOfItem,
  stretchOf,
  withEstimates,
} from './plan-item.ts';

/** What a change of a plan makes of a client's schedule, and what of it stays the client's own. */
export interface Followed {
  /** Null where nothing of it changes. */
  readonly schedule: OfPlan | null;
  readonly kept: readonly OwnAspect[];
}

/**
 * A schedule as it is once its plan says something else from a day on. What the client has of its own stays, and so does everything
 * before that day; whoever joins later only has it from the beginning. Who does it holds for all that is not done yet.
 * @param joins the day from which the client is on the plan
 */
export function followPlan(
  schedule: OfPlan,
  {
    before,
    after,
    joins,
    from,
  }: { readonly before: PlanItem; readonly after: PlanItem; readonly joins: CivilDay; readonly from: CivilDay },
): Followed {
  const changed = changedAspects(before, after);
  const own = new Set(ownFromDay(before, schedule, isoOfDay(from)));
  const kept = changed.filter((aspect) => own.has(aspect));
  const taken = changed.filter((aspect) => !own.has(aspect));
  if (taken.length === 0) return { schedule: null, kept };
  const who = taken.includes('who') ? { assignment: after.assignment } : {};
  if (taken.every((aspect) => aspect === 'who')) return { schedule: { ...schedule, ...who }, kept };
  const first = firstDayOf(after, joins);
  const begins = Math.min(first, beginsOn(schedule));
  const last = lastStretch(schedule);
  // Nothing of it lies before that day: it is as if the plan had always said so.
  if (begins >= from && own.size === 0 && saysNoMore(schedule)) {
    const planned = untilDay(scheduleOfItem(after, joins), untilOf(last.recurrence.end, before));
    return { schedule: { ...schedule, ...planned, ...who }, kept };
  }
  const planned = stretchOf(after, first);
  const takes = (aspect: OwnAspect) => taken.includes(aspect);
  const ownOfSteps = takes('estimate') ? withEstimates(last.own, estimatesOf(after)) : last.own;
  const day = isoOfDay(Math.max(from, begins));
  const rest = {
    timing: takes('timing') ? planned.timing : last.timing,
    ...(ownOfSteps === undefined ? {} : { own: ownOfSteps }),
  };
  const revisions = schedule.revisions.filter((one) => one.from < day);
  if (!takes('rule')) revisions.push({ from: day, recurrence: last.recurrence, ...rest });
  else revisions.push(...fromDay(after, first, day, endOf(last.recurrence.end, before, after), rest));
  return { schedule: { ...schedule, ...who, revisions }, kept };
}

/** What an item says from a day on: nothing before its first day, though a step of the plan's own is counted from long before. */
function fromDay(
  item: PlanItem,
  first: CivilDay,
  day: IsoDate,
  end: End,
  rest: Pick<Revision, 'timing' | 'own'>,
): Revision[] {
  const recurrence = { ...stretchOf(item, first).recurrence, end };
  const begins = isoOfDay(first);
  if (begins <= day || recurrence.start >= begins) return [{ from: day, recurrence, ...rest }];
  return [
    { from: day, recurrence: { ...recurrence, start: begins }, ...rest },
    { from: begins, recurrence, ...rest },
  ];
}

/** Whether its tasks say nothing but their estimate differently from the template. */
function saysNoMore({ revisions }: OfPlan): boolean {
  return revisions.every(({ own }) => withEstimates(own, {}) === undefined);
}

/** The day that a schedule ends on since the client's time on the plan does; null where it goes on. @param there what the plan has said so far */
function untilOf(end: End, there: PlanItem): IsoDate | null {
  const ofPlan = there.recurrence.end;
  return end.kind === 'on' && !(ofPlan.kind === 'on' && ofPlan.date === end.date) ? end.date : null;
}

/** Such a schedule ends then whatever the plan comes to say. */
function endOf(end: End, there: PlanItem, after: PlanItem): End {
  return untilOf(end, there) === null ? after.recurrence.end : end;
}

/** The schedule put back to what its plan says, from a day on. */
export function asThePlan(schedule: OfPlan, item: PlanItem, joins: CivilDay, from: CivilDay): OfPlan {
  const first = firstDayOf(item, joins);
  const { assignment } = item;
  const { end } = lastStretch(schedule).recurrence;
  if (Math.min(first, beginsOn(schedule)) >= from)
    return { ...schedule, ...untilDay(scheduleOfItem(item, joins), untilOf(end, item)), assignment };
  const { recurrence: _recurrence, ...rest } = stretchOf(item, first);
  const day = isoOfDay(from);
  const revisions = [
    ...schedule.revisions.filter((one) => one.from < day),
    ...fromDay(item, first, day, endOf(end, item, item), rest),
  ];
  return { ...schedule, assignment, revisions };
}

type Ending = OfPlan & { readonly pauses: readonly Pause[]; readonly exceptions: readonly Exception[] };

/**
 * A schedule whose last date lies before a day, since the client is off the plan from then on; null where all of it would lie after
 * that, so that nothing is left of it. One that ends after so many is stopped, as it may be over before.
 */
export function offFrom<S extends Ending>(schedule: S, day: CivilDay): S | null {
  if (beginsOn(schedule) >= day) return null;
  const date = isoOfDay(day);
  const exceptions = schedule.exceptions.filter((one) => one.kind !== 'add' || one.date < date);
  const { end } = lastStretch(schedule).recurrence;
  if (end.kind === 'on' && end.date < date) return { ...schedule, exceptions };
  if (end.kind === 'after') {
    const pauses = [
      ...schedule.pauses.flatMap((pause): Pause[] =>
        pause.from >= date ? [] : pause.to === null || pause.to > date ? [{ ...pause, to: date }] : [pause],
      ),
      { from: date, to: null },
    ];
    return { ...schedule, exceptions, pauses };
  }
  return { ...endBefore(schedule as S & { pauses: Pause[]; exceptions: Exception[] }, day), exceptions };
}

/** The same schedule, where what would go on for good ends on a day: the year of a client that is looked through before it goes on. */
export function untilDay(planned: Planned, until: IsoDate | null): Planned {
  const ending = (recurrence: Recurrence): Recurrence =>
    until !== null && recurrence.end.kind === 'never'
      ? { ...recurrence, end: { kind: 'on', date: until } }
      : recurrence;
  return {
    ...planned,
    recurrence: ending(planned.recurrence),
    revisions: planned.revisions.map((one) => ({ ...one, recurrence: ending(one.recurrence) })),
  };
}

/** The same schedule for a further year: what ends on the day that the client's year does ends on a later one. */
export function rolledOn(planned: Planned, until: IsoDate, later: IsoDate): Planned {
  const ending = (recurrence: Recurrence): Recurrence =>
    recurrence.end.kind === 'on' && recurrence.end.date === until
      ? { ...recurrence, end: { kind: 'on', date: later } }
      : recurrence;
  return {
    ...planned,
    recurrence: ending(planned.recurrence),
    revisions: planned.revisions.map((one) => ({ ...one, recurrence: ending(one.recurrence) })),
  };
}
