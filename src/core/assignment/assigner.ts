import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { type DatedOccurrence, namedFor } from '../planning/plan.ts';
import { type Assignment, type AssignmentRule, assign, givenTo, type People, type Why } from './assignment.ts';
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
    asked: { tickets, isHoliday: calendar.holidayName(on) !== undefined },
    datesBetween: () => 0,
    loadOf: () => ({ minutes: 0, capacity: 0, lastHad: null }),
  });
}

/** Whether it takes what everybody has to do to tell who does it. */
export function asksForLoad(rule: AssignmentRule): boolean {
  return rule.kind === 'leastToDo' || ('cover' in rule && rule.cover === 'leastToDo');
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
      ...{ nominal, on, estimateMinutes, people, usualPersonId, datesBetween },
      asked: { tickets, isHoliday: calendar.holidayName(on) !== undefined },
      loadOf: (id) => ({ ...loads.of(id, on), lastHad: lastHad.get(id) ?? null }),
      settledId: before?.personId ?? null,
    });
    if (!byLoad || found.kind !== 'one') return found;
    lastHad.set(found.personId, Math.max(on, lastHad.get(found.personId) ?? on));
    if (before?.personId === found.personId) return before.why === null ? found : { ...found, why: before.why };
    loads.add(found.personId, on, estimateMinutes);
    return found;
  };
}
