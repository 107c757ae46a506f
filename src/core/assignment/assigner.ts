import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { type IsoTime, tryMinutesOfTime } from '../civil-date/iso-date.ts';
import { type DayWindow, WHOLE_DAY } from '../people/shifts.ts';
import { type DatedOccurrence, namedFor } from '../planning/plan.ts';
import { type Assignment, type AssignmentRule, assign, givenTo, type People, type Why } from './assignment.ts';
import { askedOn } from './availability.ts';
import type { Loads } from './loads.ts';
import type { DatesBetween } from './roster.ts';

/** Who has the set of an occurrence, and why. */
export type Assigner = (occurrence: DatedOccurrence) => Assignment;

export interface AssigningContext {
  readonly calendar: WorkingCalendar;
  readonly people: People;
  /** Of the schedule: see `datesBetweenOf`. */
  readonly datesBetween: DatesBetween;
  /** Whoever looks after the client it is for; null for nobody, or no client. */
  readonly usualPersonId: string | null;
  /** Of the set's tasks that follow whoever has it. */
  readonly estimateMinutes: number;
  /** Qualifications that the work asks for. */
  readonly tickets: readonly string[];
  /** Asked where the load decides; what is given away is added to it. */
  readonly loads: Loads;
  /** The last day on which somebody had this work, by their ids. */
  readonly lastHad?: ReadonlyMap<string, CivilDay>;
  /** Who has what the load has decided already, by nominal day: they keep it as long as they may have it. */
  readonly settled?: ReadonlyMap<CivilDay, Settled>;
}

export interface Settled {
  readonly personId: string;
  readonly why: Why | null;
}

/** Who does what one person was given by name on a day: they themselves, or whoever takes over for them and holds the tickets. */
export function byNameOn(
  personId: string,
  on: CivilDay,
  tickets: readonly string[],
  people: People,
  calendar: WorkingCalendar,
): Assignment {
  return assign(givenTo(personId), {
    ...{ nominal: on, on, estimateMinutes: 0, people, usualPersonId: null },
    asked: askedOn(on, calendar, tickets),
    datesBetween: () => 0,
    loadOf: () => ({ minutes: 0, capacity: 0, lastHad: null }),
  });
}

/** The same of a schedule with the tasks of its sets. */
export function setAsksForLoad(
  rule: AssignmentRule,
  parts: readonly { readonly assignee: { readonly by: string } }[],
): boolean {
  return asksForLoad(rule) || parts.some(({ assignee }) => assignee.by === 'leastToDo');
}

/** Whether it takes what everybody has to do to tell who does it. */
export function asksForLoad(rule: AssignmentRule): boolean {
  return rule.kind === 'leastToDo' || ('cover' in rule && rule.cover === 'leastToDo');
}

/**
 * When on its day the work of an occurrence is to be done: between the times at which it starts and is due, where those are on
 * that day and in the workspace's zone; else at any time of it.
 */
export function windowOf({ on, starts, due, timing }: DatedOccurrence): DayWindow {
  const { startTime, dueTime, zone } = timing;
  return windowOfTimes({ workOn: on, startsOn: starts, dueOn: due, startTime, dueTime, zone });
}

/** The same of days that are told in any way, as long as all of them are told in the same. */
export function windowOfTimes<Day>({ workOn, startsOn, dueOn, startTime, dueTime, zone }: DayTimes<Day>): DayWindow {
  if (zone !== null) return WHOLE_DAY;
  return windowBetween(startsOn === workOn ? startTime : null, dueOn === workOn ? dueTime : null);
}

/** When work starts and is due, and the day on which it is worked. */
export interface DayTimes<Day> {
  readonly workOn: Day;
  readonly startsOn: Day;
  readonly dueOn: Day;
  readonly startTime: IsoTime | null;
  readonly dueTime: IsoTime | null;
  /** Null for the workspace's. */
  readonly zone: string | null;
}

/** From one time of a day to another; null for its beginning, or its end. */
export function windowBetween(startTime: IsoTime | null, dueTime: IsoTime | null): DayWindow {
  if (startTime === null && dueTime === null) return WHOLE_DAY;
  const at = (time: IsoTime | null) => (time === null ? null : tryMinutesOfTime(time));
  const from = at(startTime) ?? WHOLE_DAY.from;
  return { from, to: Math.max(from, at(dueTime) ?? WHOLE_DAY.to) };
}

/** Tells who does each date of a schedule: whoever was named for it by hand, else as its rule says. */
export function assigner(rule: AssignmentRule, context: AssigningContext): Assigner {
  const { calendar, people, datesBetween, usualPersonId, estimateMinutes, tickets, loads, settled } = context;
  const byLoad = asksForLoad(rule);
  const lastHad = new Map(context.lastHad);
  return (occurrence) => {
    const named = namedFor(occurrence);
    if (named !== undefined)
      return named === null
        ? { kind: 'nobody', why: { by: 'hand' } }
        : { kind: 'one', personId: named, why: { by: 'hand' } };
    const { nominal, on } = occurrence;
    const before = byLoad ? settled?.get(nominal) : undefined;
    const found = assign(rule, {
      nominal,
      on,
      estimateMinutes,
      people,
      usualPersonId,
      datesBetween,
      asked: askedOn(on, calendar, tickets, windowOf(occurrence)),
      loadOf: (id) => ({ ...loads.of(id, on), lastHad: lastHad.get(id) ?? null }),
      settledId: before?.personId ?? null,
    });
    if (!byLoad || found.kind !== 'one') return found;
    lastHad.set(found.personId, Math.max(on, lastHad.get(found.personId) ?? on));
    return settledFirst(found, before, (id) => loads.add(id, on, estimateMinutes));
  };
}

/** What the load has decided already stays as it was decided; what is given away anew counts for what comes after it. */
export function settledFirst(
  found: Assignment,
  before: Settled | undefined,
  add: (personId: string) => void,
): Assignment {
  if (found.kind !== 'one') return found;
  if (before?.personId === found.personId) return before.why === null ? found : { ...found, why: before.why };
  add(found.personId);
  return found;
}
