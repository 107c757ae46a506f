import type { AssignmentRule } from '../assignment/assignment.ts';
import type { IsoDate } from '../civil-date/iso-date.ts';
import type { Revision } from '../planning/schedule-plan.ts';
import { estimatesOf, estimatesOfOwn, type PlanItem, type Planned, withEstimates } from './plan-item.ts';

/** In what a client's schedule can differ from its plan: its rule, the days and hours of each time, who does it, how long it takes. */
export const OWN_ASPECTS = ['rule', 'timing', 'who', 'estimate'] as const;
export type OwnAspect = (typeof OWN_ASPECTS)[number];

/** A schedule that a plan has made, as far as it can differ from it. */
export type OfPlan = Planned & { readonly assignment: AssignmentRule };

/** The stretch that holds in the end: a rule of its own for a while is not told as a change. */
export function lastStretch({ recurrence, timing, revisions }: Planned): Omit<Revision, 'from'> {
  return revisions.at(-1) ?? { recurrence, timing };
}

/** A value as a text in which the order of the members of an object makes no difference. */
function asText(value: unknown): string {
  return JSON.stringify(value, (_, member: unknown) =>
    member !== null && typeof member === 'object' && !Array.isArray(member)
      ? Object.fromEntries(Object.entries(member).sort(([one], [other]) => (one < other ? -1 : 1)))
      : member,
  );
}

/** A rule without the day it is counted from and the day it ends on, which differ from client to client; stored forms carry a version. */
function bareRule(recurrence: object): string {
  const { start: _start, end: _end, v: _v, ...bare } = recurrence as Record<string, unknown>;
  return asText(bare);
}

function bareTiming(timing: object): string {
  const { v: _v, ...bare } = timing as Record<string, unknown>;
  return asText(bare);
}

/** In what a stretch differs from what an item says. */
function aspectsOf(item: PlanItem, { recurrence, timing, own }: Omit<Revision, 'from'>): OwnAspect[] {
  return [
    ...(bareRule(recurrence) === bareRule(item.recurrence) ? [] : ['rule' as const]),
    ...(bareTiming(timing) === bareTiming(item.timing) ? [] : ['timing' as const]),
    ...(asText(estimatesOfOwn(own)) === asText(estimatesOf(item)) ? [] : ['estimate' as const]),
  ];
}

/**
 * In what a schedule is a client's own by now. Told from what it says, not from who changed it: one that the plan has come to say
 * as well is as the plan again.
 */
export function ownChanges(item: PlanItem, schedule: OfPlan): OwnAspect[] {
  const own = new Set(aspectsOf(item, lastStretch(schedule)));
  if (asText(schedule.assignment) !== asText(item.assignment)) own.add('who');
  return OWN_ASPECTS.filter((aspect) => own.has(aspect));
}

/** The same, of all that holds from a day on: what a change of the plan from that day would write over. */
export function ownFromDay(item: PlanItem, schedule: OfPlan, from: IsoDate): OwnAspect[] {
  const later = schedule.revisions.filter((revision) => revision.from > from);
  const own = new Set([...ownChanges(item, schedule), ...later.flatMap((stretch) => aspectsOf(item, stretch))]);
  return OWN_ASPECTS.filter((aspect) => own.has(aspect));
}

/** In what two forms of an item differ. */
export function changedAspects(before: PlanItem, after: PlanItem): OwnAspect[] {
  const isCountedAnew =
    before.counts !== after.counts ||
    asText(before.after) !== asText(after.after) ||
    asText(before.recurrence.end) !== asText(after.recurrence.end) ||
    (after.counts === 'plan' && before.recurrence.start !== after.recurrence.start);
  const { recurrence, timing } = before;
  const own = withEstimates(undefined, estimatesOf(before));
  const changed = new Set(aspectsOf(after, { recurrence, timing, ...(own === undefined ? {} : { own }) }));
  if (isCountedAnew) changed.add('rule');
  if (asText(before.assignment) !== asText(after.assignment)) changed.add('who');
  return OWN_ASPECTS.filter((aspect) => changed.has(aspect));
}
