import type { DefaultRule } from '../assignment/default-rule.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { monthsLater } from '../civil-date/month.ts';
import { MAIN_PART, type SetPart } from '../doing/template-set.ts';
import type { Overlap } from '../planning/overlap.ts';
import type { OwnFields, OwnOfSteps, PlannedSchedule, Revision } from '../planning/schedule-plan.ts';
import type { Timing } from '../planning/timing.ts';
import type { Recurrence } from '../recurrence/rule.ts';

/** From which day the rule of an item counts its intervals: the day on which a client joins, or one that is the same for all. */
export const COUNTS_FROM = ['joining', 'plan'] as const;
export type CountsFrom = (typeof COUNTS_FROM)[number];

/** How long after joining the first date may lie; 0 is the day itself. */
export interface Delay {
  /** From 0 to 120. */
  readonly amount: number;
  readonly unit: 'day' | 'week' | 'month';
}
export const MOST_DELAY = 120;

/** One piece of recurring work that a plan holds for each of its clients. */
export interface PlanItem {
  /** Stays the same for good; schedules name it. */
  readonly key: string;
  readonly templateId: string;
  readonly counts: CountsFrom;
  readonly after: Delay;
  /** Its start counts where the item counts from a day of the plan's own. */
  readonly recurrence: Recurrence;
  readonly timing: Timing;
  readonly overlap: Overlap;
  readonly assignment: DefaultRule;
  /** Minutes of the main task, from 1; null as the template says. */
  readonly estimateMinutes: number | null;
  /** Minutes of the other tasks of a set by the keys of their steps, from 1; those not named as the template says. */
  readonly stepMinutes?: Readonly<Record<string, number>> | undefined;
  /** One for the client, or one for each of the assets that the client has. */
  readonly each: 'client' | 'asset';
}

/** What a plan says of a schedule. */
export type Planned = Required<Pick<PlannedSchedule, 'recurrence' | 'timing' | 'revisions'>>;

/** The first day on which an item may fall for a client who joins on a day; a month later is the same date, or its last day. */
export function firstDayOf({ after }: Pick<PlanItem, 'after'>, joins: CivilDay): CivilDay {
  if (after.unit === 'month') return monthsLater(joins, after.amount);
  return joins + after.amount * (after.unit === 'week' ? 7 : 1);
}

/** Whether a recurrence gives other dates when it is counted from another day. */
export function isCounted({ rules }: Pick<Recurrence, 'rules'>): boolean {
  return rules.some((rule) => rule.kind === 'rrule' || ('every' in rule && rule.every > 1));
}

/** Whether the item keeps to dates that are counted from a day of the plan, whenever a client joins. */
export function keepsStep({ counts, recurrence }: Pick<PlanItem, 'counts' | 'recurrence'>): boolean {
  return counts === 'plan' && isCounted(recurrence);
}

/** What is wrong with an item by itself, in words; null where nothing is. */
export function itemProblem(item: PlanItem): string | null {
  const { counts, recurrence, after } = item;
  if (after.amount < 0 || after.amount > MOST_DELAY || !Number.isInteger(after.amount))
    return `The first can be from 0 to ${MOST_DELAY} days, weeks or months after joining.`;
  if (Object.values(estimatesOf(item)).some((minutes) => !Number.isInteger(minutes) || minutes < 1))
    return 'The estimate is a whole number of minutes, from 1.';
  if (counts === 'plan' && recurrence.end.kind === 'after' && isCounted(recurrence))
    return 'It ends after so many for each client: then it is counted from the day a client joins.';
  return null;
}

/** Minutes by task, where an item says other than its template: by the keys of the steps, '' the main one. */
export function estimatesOf({
  estimateMinutes,
  stepMinutes = {},
}: Pick<PlanItem, 'estimateMinutes' | 'stepMinutes'>): Readonly<Record<string, number>> {
  return estimateMinutes === null ? stepMinutes : { ...stepMinutes, [MAIN_PART]: estimateMinutes };
}

/** The same of what a schedule says differently from its template. */
export function estimatesOfOwn(own: OwnOfSteps = {}): Readonly<Record<string, number>> {
  return Object.fromEntries(
    Object.entries(own).flatMap(([key, { estimateMinutes }]) =>
      estimateMinutes === undefined ? [] : [[key, estimateMinutes] as const],
    ),
  );
}

/** What tasks say differently, with other estimates among it; undefined where nothing is left of it. */
export function withEstimates(
  own: OwnOfSteps | undefined,
  estimates: Readonly<Record<string, number>>,
): OwnOfSteps | undefined {
  const rest = Object.entries(own ?? {}).map(
    ([key, { estimateMinutes: _estimate, ...fields }]) => [key, fields] as const,
  );
  const all: Record<string, OwnFields> = Object.fromEntries(
    rest.filter(([, fields]) => Object.keys(fields).length > 0),
  );
  for (const [key, estimateMinutes] of Object.entries(estimates)) all[key] = { ...all[key], estimateMinutes };
  return Object.keys(all).length === 0 ? undefined : all;
}

/** Minutes of a whole set, some of whose tasks take other than the template says. */
export function minutesWith(
  parts: readonly Pick<SetPart, 'key' | 'estimateMinutes'>[],
  estimates: Readonly<Record<string, number>>,
): number {
  return parts.reduce((sum, { key, estimateMinutes }) => sum + (estimates[key] ?? estimateMinutes), 0);
}

/** What holds from the first day of an item on. */
export function stretchOf(item: PlanItem, first: CivilDay): Omit<Revision, 'from'> {
  const { recurrence, timing } = item;
  const own = withEstimates(undefined, estimatesOf(item));
  return {
    recurrence: keepsStep(item) ? recurrence : { ...recurrence, start: isoOfDay(first) },
    timing,
    ...(own === undefined ? {} : { own }),
  };
}

/**
 * The schedule of an item for a client who joins on a day. Where it keeps to a step that the plan counts, or to an estimate of the
 * plan's, a revision from its first day on holds that; before it there is nothing.
 */
export function scheduleOfItem(item: PlanItem, joins: CivilDay): Planned {
  const first = firstDayOf(item, joins);
  const from = isoOfDay(first);
  const stretch = stretchOf(item, first);
  const isPlain = stretch.own === undefined && stretch.recurrence.start === from;
  return {
    recurrence: { ...item.recurrence, start: from },
    timing: item.timing,
    revisions: isPlain ? [] : [{ from, ...stretch }],
  };
}

/** The first day that a schedule holds anything for. */
export function beginsOn({ recurrence }: Pick<Planned, 'recurrence'>): CivilDay {
  return dayOfIso(recurrence.start);
}
