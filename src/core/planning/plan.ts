import { rollDay } from '../calendar/business-day.ts';
import { closedOn, longestClosure, type Season, withClosedSeasons } from '../calendar/closed-season.ts';
import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import { type CivilDay, weekdayOf } from '../civil-date/civil-day.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { asked, spend } from '../reckoning.ts';
import { dayFollowing } from '../recurrence/follows-dates.ts';
import { occurrenceSeries } from '../recurrence/occurrences.ts';
import { followsRule, leavesOutClosed, type Recurrence } from '../recurrence/rule.ts';
import type { LastOne, OccurrenceChange, OwnOfSteps, PlannedSchedule } from './schedule-plan.ts';
import { offsetDay, type Timing } from './timing.ts';

/** Why an occurrence is not worked on its nominal date. */
export type MovedBecause = 'day off' | 'by hand';

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
  /** The schedule's timing at that date, with what is different this time. */
  readonly timing: Timing;
  readonly moved: MovedBecause | null;
  /** Put there by hand, beside the rule. */
  readonly isAdded: boolean;
  readonly change: OccurrenceChange | null;
  /** What its tasks say differently from the template; null where they say what it says. */
  readonly own: OwnOfSteps | null;
  /** Known only when the one before it is done; foreseen as if that were done on its own day. */
  readonly isForeseen: boolean;
}

/** A date of the rule that makes no task, and why. */
export interface OmittedOccurrence {
  readonly kind: 'omitted';
  readonly nominal: CivilDay;
  /** The day it would have been worked. */
  readonly on: CivilDay;
  readonly because: 'day off' | 'closed' | 'skipped' | 'paused' | 'same day as another' | 'deleted';
}

export type PlannedOccurrence = DatedOccurrence | OmittedOccurrence;

/** Whether an occurrence becomes a task. */
export function isDated(occurrence: PlannedOccurrence): occurrence is DatedOccurrence {
  return occurrence.kind === 'dated';
}

/** Who was named for the set of an occurrence by hand: for this once, else from its revision on; undefined where its rule says. */
export function namedFor({ change, own }: DatedOccurrence): string | null | undefined {
  return change?.assigneeId === undefined ? own?.['']?.assigneeId : change.assigneeId;
}

/** A date that is placed costs as much as so many that are only looked at: in time, and in memory. */
const PLACE_STEPS = 10;

/** A date moves off a run of days off; one that is looked for this far outside the window can still land in it. */
export const FARTHEST_MOVE_DAYS = 45;

/**
 * The plan of a schedule: every occurrence whose day lies within [from, to], both included, in the order of their days.
 * The answer for a day does not depend on the window that was asked for.
 * @throws NoWorkingDayError, TooMuchReckoningError, and what its recurrence throws
 */
export function planDays(
  schedule: PlannedSchedule,
  calendar: WorkingCalendar,
  from: CivilDay,
  to: CivilDay,
): PlannedOccurrence[] {
  return to < from ? [] : asked(() => planned(schedule, calendar, from, to));
}

function planned(
  schedule: PlannedSchedule,
  calendar: WorkingCalendar,
  from: CivilDay,
  to: CivilDay,
): PlannedOccurrence[] {
  const byHand = handmade(schedule);
  const { changes } = byHand;
  const places: Place[] = [];
  for (const stretch of stretchesOf(schedule, calendar)) placeStretch(places, stretch, byHand, calendar, from, to);
  if (!inOrder(places)) places.sort((a, b) => a.on - b.on || a.nominal - b.nominal);

  const pauses = (schedule.pauses ?? []).map(({ from: first, to: end }) => ({
    first: dayOfIso(first),
    end: end === null ? Number.POSITIVE_INFINITY : dayOfIso(end),
  }));
  const plan: PlannedOccurrence[] = [];
  for (let i = 0; i < places.length; ) {
    const day = (places[i] as Place).on;
    let next = i + 1;
    while (next < places.length && (places[next] as Place).on === day) next++;
    if (day >= from && day <= to) {
      const winner = next === i + 1 ? places[i] : winnerOf(places.slice(i, next));
      const isPaused = pauses.length > 0 && pauses.some(({ first, end }) => day >= first && day < end);
      for (let at = i; at < next; at++) {
        const place = places[at] as Place;
        const because = place.omitted ?? (place !== winner ? 'same day as another' : isPaused ? 'paused' : null);
        plan.push(
          because === null
            ? dated(place, changes.size > 0 ? (changes.get(place.nominal) ?? null) : null, calendar)
            : { kind: 'omitted', nominal: place.nominal, on: day, because },
        );
      }
    }
    i = next;
  }
  return plan;
}

/** A date of the rule and the day on which it would be worked, before dates on one day are made one. */
interface Place {
  readonly nominal: CivilDay;
  readonly on: CivilDay;
  readonly stretch: Stretch;
  readonly moved: MovedBecause | null;
  readonly isAdded: boolean;
  readonly omitted: 'day off' | 'closed' | 'skipped' | null;
}

/** Two on one day make one occurrence: the one that falls there by itself, else the earliest. */
function winnerOf(places: readonly Place[]): Place | undefined {
  const taking = places.filter(({ omitted }) => omitted === null);
  return taking.find(({ nominal, on }) => nominal === on) ?? taking[0];
}

function inOrder(places: readonly Place[]): boolean {
  for (let i = 1; i < places.length; i++) if ((places[i - 1] as Place).on > (places[i] as Place).on) return false;
  return true;
}

/** A part of time in which one rule and one timing hold. */
interface Stretch {
  readonly from: CivilDay;
  readonly to: CivilDay;
  readonly recurrence: Recurrence;
  readonly timing: Timing;
  readonly own?: OwnOfSteps;
  /** The first date that is foreseen rather than known. */
  readonly foreseenFrom: CivilDay;
}

const EVER = Number.POSITIVE_INFINITY;

function stretchesOf(
  { recurrence, timing, revisions = [], last }: PlannedSchedule,
  calendar: WorkingCalendar,
): Stretch[] {
  const base = { recurrence, timing, foreseenFrom: EVER };
  const stretches: Stretch[] =
    revisions.length === 0
      ? [{ ...base, from: -EVER, to: EVER }]
      : [
          { ...base, from: -EVER },
          ...inTime(revisions).map((revision) => ({ ...base, ...revision, from: dayOfIso(revision.from) })),
        ].map((stretch, i, all) => ({ ...stretch, to: (all[i + 1]?.from ?? EVER) - 1 }));
  return stretches.map((stretch) =>
    followsRule(stretch.recurrence) ? following(stretch, last ?? null, calendar) : stretch,
  );
}

function inTime<T extends { readonly from: string }>(revisions: readonly T[]): T[] {
  return [...revisions].sort((a, b) => (a.from < b.from ? -1 : 1));
}

/** A rule on completion goes on from the last one: from what follows it once it is done, else from itself. */
function following(stretch: Stretch, last: LastOne | null, calendar: WorkingCalendar): Stretch {
  const rule = followsRule(stretch.recurrence);
  if (!rule) return stretch;
  const { end } = stretch.recurrence;
  const start = dayOfIso(stretch.recurrence.start);
  if (!last) return { ...stretch, foreseenFrom: start + 1 };
  const nominal = dayOfIso(last.nominal);
  const reachedOn = last.reached[rule.reaches];
  const next = reachedOn === null ? nominal : dayFollowing(rule, nominal, dayOfIso(reachedOn), calendar);
  // Where the last one is of an earlier rule, this one goes on from it, but not before its own first day.
  const from = Math.max(next, stretch.from);
  const made = reachedOn === null ? last.count - 1 : last.count;
  if (end.kind === 'after' && end.count <= made) return { ...stretch, to: -EVER };
  return {
    ...stretch,
    from,
    foreseenFrom: from + 1,
    recurrence: {
      ...stretch.recurrence,
      start: isoOfDay(from),
      end: end.kind === 'after' ? { kind: 'after', count: end.count - made } : end,
    },
  };
}

interface Handmade {
  readonly skipped: ReadonlySet<CivilDay>;
  readonly moves: ReadonlyMap<CivilDay, CivilDay>;
  readonly added: readonly CivilDay[];
  readonly changes: ReadonlyMap<CivilDay, OccurrenceChange>;
}

const NOTHING_BY_HAND: Handmade = { skipped: new Set(), moves: new Map(), added: [], changes: new Map() };

function handmade({ exceptions = [] }: PlannedSchedule): Handmade {
  if (exceptions.length === 0) return NOTHING_BY_HAND;
  const skipped = new Set<CivilDay>();
  const moves = new Map<CivilDay, CivilDay>();
  const added = new Set<CivilDay>();
  const changes = new Map<CivilDay, OccurrenceChange>();
  for (const exception of exceptions) {
    const day = dayOfIso(exception.date);
    if (exception.kind === 'skip') skipped.add(day);
    else if (exception.kind === 'move') moves.set(day, dayOfIso(exception.to));
    else if (exception.kind === 'add') added.add(day);
    else changes.set(day, { ...changes.get(day), ...exception.change });
  }
  return { skipped, moves, added: [...added].sort((a, b) => a - b), changes };
}

/** Adds the places of one stretch that fall into the window, or may share a day with one that does. */
function placeStretch(
  into: Place[],
  stretch: Stretch,
  byHand: Handmade,
  calendar: WorkingCalendar,
  from: CivilDay,
  to: CivilDay,
): void {
  const { recurrence } = stretch;
  const { dayOff, closed } = recurrence;
  const moving = closed && !leavesOutClosed(recurrence) ? closed.seasons : [];
  const rolling = rollingOf(recurrence, calendar, moving);
  const margin = dayOff === 'none' ? 0 : FARTHEST_MOVE_DAYS + longestClosure(moving);
  const first = Math.max(from - margin, stretch.from);
  const last = Math.min(to + margin, stretch.to);
  const series = occurrenceSeries(recurrence, calendar);
  const holds = (day: CivilDay) => day >= stretch.from && day <= stretch.to;

  if (first <= last) {
    for (const nominal of series.between(first, last)) {
      spend(PLACE_STEPS);
      into.push(placeOf(nominal, stretch, byHand, rolling));
    }
    if (closed !== undefined || recurrence.except !== undefined) {
      for (const { day, because } of series.leftOut(first, last)) {
        spend(PLACE_STEPS);
        into.push(omittedPlace(day, stretch, because === 'closed' ? 'closed' : 'skipped'));
      }
    }
  }
  // One that was moved by hand may come from far outside.
  for (const nominal of byHand.moves.keys()) {
    if (holds(nominal) && (nominal < first || nominal > last) && series.between(nominal, nominal).length > 0)
      into.push(placeOf(nominal, stretch, byHand, rolling));
  }
  for (const day of byHand.added) {
    if (!holds(day)) continue;
    const there = into.findIndex(({ nominal }) => nominal === day);
    if (there !== -1) into.splice(there, 1);
    into.push({
      nominal: day,
      on: day,
      stretch,
      moved: null,
      isAdded: true,
      omitted: byHand.skipped.has(day) ? 'skipped' : null,
    });
  }
}

/** Where dates of a recurrence go, and whether one has to. */
interface Rolling {
  readonly calendar: WorkingCalendar;
  readonly isOff: (day: CivilDay) => boolean;
}

function rollingOf({ daysOff }: Recurrence, days: WorkingCalendar, moving: readonly Season[]): Rolling {
  const calendar = withClosedSeasons(days, moving);
  if (daysOff === undefined) return { calendar, isOff: (day) => !calendar.isWorkingDay(day) };
  const isClosed = closedOn(moving);
  const isOff =
    daysOff === 'holidays'
      ? (day: CivilDay) => days.holidayName(day) !== undefined
      : (day: CivilDay) => !days.workingWeekdays.includes(weekdayOf(day));
  return { calendar, isOff: (day) => isOff(day) || isClosed(day) };
}

function placeOf(nominal: CivilDay, stretch: Stretch, byHand: Handmade, rolling: Rolling): Place {
  if (byHand.skipped.size > 0 && byHand.skipped.has(nominal)) return omittedPlace(nominal, stretch, 'skipped');
  const by = byHand.moves.size > 0 ? byHand.moves.get(nominal) : undefined;
  if (by !== undefined) return { nominal, on: by, stretch, moved: 'by hand', isAdded: false, omitted: null };
  const on = rolling.isOff(nominal) ? rollDay(nominal, stretch.recurrence.dayOff, rolling.calendar) : nominal;
  if (on === null) return omittedPlace(nominal, stretch, 'day off');
  return { nominal, on, stretch, moved: on === nominal ? null : 'day off', isAdded: false, omitted: null };
}

function omittedPlace(nominal: CivilDay, stretch: Stretch, omitted: NonNullable<Place['omitted']>): Place {
  return { nominal, on: nominal, stretch, moved: null, isAdded: false, omitted };
}

function dated(
  { nominal, on, stretch, moved, isAdded }: Place,
  change: OccurrenceChange | null,
  calendar: WorkingCalendar,
): DatedOccurrence {
  const timing = change === null ? stretch.timing : changed(stretch.timing, change);
  return {
    kind: 'dated',
    nominal,
    on,
    appears: offsetDay(on, timing.appears, calendar),
    starts: offsetDay(on, timing.starts, calendar),
    due: offsetDay(on, timing.due, calendar),
    timing,
    moved,
    isAdded,
    change,
    own: stretch.own ?? null,
    isForeseen: nominal >= stretch.foreseenFrom,
  };
}

function changed(timing: Timing, { startTime, dueTime }: OccurrenceChange): Timing {
  return {
    ...timing,
    ...(startTime !== undefined && { startTime }),
    ...(dueTime !== undefined && { dueTime }),
  };
}
