import { type Settled, settledFirst, windowBetween } from '../assignment/assigner.ts';
import { type Assignment, type AssignmentRule, assign, givenTo, type People } from '../assignment/assignment.ts';
import { askedOn } from '../assignment/availability.ts';
import type { Loads } from '../assignment/loads.ts';
import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import type { PartDays, SetPart, StepAssignee } from './template-set.ts';

/** Who does a task of a set by what it says itself; null where it follows whoever has the set. */
export interface OfParts {
  readonly people: People;
  readonly assign: (part: SetPart, days: PartDays, nominal: CivilDay) => Assignment | null;
}

export interface PartContext {
  readonly calendar: WorkingCalendar;
  readonly people: People;
  /** Whoever looks after the client it is for; null for nobody, or no client. */
  readonly usualPersonId: string | null;
  /** Asked where the load decides; what is given away is added to it. */
  readonly loads: Loads;
  /** Who has what the load has decided already, by nominal day and step. */
  readonly settled?: (nominal: CivilDay, step: string) => Settled | undefined;
}

/** Tells who does the tasks of sets that say so themselves, on their own days: by name and covered, offered, or as the load decides. */
export function partAssigner({ calendar, people, usualPersonId, loads, settled }: PartContext): OfParts {
  return {
    people,
    assign: (part, { on, startTime, dueTime }, nominal) => {
      const rule = ruleOfStep(part.assignee);
      if (rule === null) return null;
      const before = rule.kind === 'leastToDo' ? settled?.(nominal, part.key) : undefined;
      const found = assign(rule, {
        ...{ nominal, on, estimateMinutes: part.estimateMinutes, people, usualPersonId },
        asked: askedOn(on, calendar, part.tickets, windowBetween(startTime, dueTime)),
        datesBetween: () => 0,
        loadOf: (id) => ({ ...loads.of(id, on), lastHad: null }),
        settledId: before?.personId ?? null,
      });
      return rule.kind === 'leastToDo'
        ? settledFirst(found, before, (id) => loads.add(id, on, part.estimateMinutes))
        : found;
    },
  };
}

/** The rule that a task of a set has of its own; null where it follows whoever has the set. */
export function ruleOfStep(assignee: StepAssignee): AssignmentRule | null {
  switch (assignee.by) {
    case 'set':
      return null;
    case 'person':
      return givenTo(assignee.personId);
    case 'nobody':
      return givenTo(null);
    case 'client':
      return { v: 1, kind: 'client' };
    case 'usualPerson':
      return { v: 1, kind: 'usualPerson', otherwiseId: null, daysOffToo: true, cover: 'deputy' };
    case 'anyOf':
    case 'leastToDo':
      return { v: 1, kind: assignee.by, group: assignee.group };
  }
}
