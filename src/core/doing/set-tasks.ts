import type { Assignment, People } from '../assignment/assignment.ts';
import { lackedTicket } from '../assignment/availability.ts';
import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import type { DatedOccurrence } from '../planning/plan.ts';
import type { OfParts } from './part-assigner.ts';
import { MAIN_PART, type PartDays, partDays, type SetPart } from './template-set.ts';

/** One task of the set of an occurrence, as its schedule gives it. */
export interface SetTask extends PartDays {
  readonly part: SetPart;
  /** Whose it is of those who have one each, by their id; empty where there is one for all. */
  readonly head: string;
  readonly assignment: Assignment;
  /** Whoever has it; null for nobody yet, and where any one of several may take it. */
  readonly assigneeId: string | null;
  readonly titlePattern: string;
  readonly estimateMinutes: number;
}

/**
 * The tasks of the set of an occurrence, the main one first: each on its own day, and with what the schedule says of it
 * differently from its template. Where each of several has one, those that follow whoever has the set stand there for each.
 * @param ofSet who has the set, as its schedule gives it
 * @param ofParts who does those of its tasks that say so themselves; whoever lacks a ticket for one does not get it
 */
export function tasksOfSet(
  occurrence: DatedOccurrence,
  parts: readonly SetPart[],
  calendar: WorkingCalendar,
  ofSet: Assignment,
  ofParts: OfParts,
): SetTask[] {
  const { people } = ofParts;
  return parts.flatMap((part): SetTask[] => {
    const own = occurrence.own?.[part.key] ?? {};
    const days = partDays(occurrence, part, calendar);
    const isMain = part.key === MAIN_PART;
    const assignment =
      isMain || own.assigneeId === undefined
        ? (ofParts.assign(part, days, occurrence.nominal) ?? withTickets(ofSet, part, days.on, people))
        : byHand(own.assigneeId);
    // Written out: a year of many schedules is half a million of these, and to spread one takes as long as all else of it.
    const given = (one: Assignment, head: string): SetTask => ({
      on: days.on,
      appears: days.appears,
      starts: days.starts,
      due: days.due,
      startTime: own.startTime === undefined ? days.startTime : own.startTime,
      dueTime: own.dueTime === undefined ? days.dueTime : own.dueTime,
      part,
      head,
      assignment: one,
      assigneeId: one.kind === 'one' ? one.personId : null,
      titlePattern: own.titlePattern ?? part.titlePattern,
      estimateMinutes: own.estimateMinutes ?? part.estimateMinutes,
    });
    if (assignment.kind !== 'eachOf') return [given(assignment, '')];
    return assignment.personIds.map((personId) =>
      given(
        withTickets({ kind: 'one', personId, why: { by: 'each', passedOver: [] } }, part, days.on, people),
        personId,
      ),
    );
  });
}

/** Minutes of the tasks of a set that whoever has the set does. */
export function minutesOfHolder(parts: readonly Pick<SetPart, 'assignee' | 'estimateMinutes'>[]): number {
  return parts.reduce((sum, { assignee, estimateMinutes }) => sum + (assignee.by === 'set' ? estimateMinutes : 0), 0);
}

/** Qualifications that whoever has a set has to hold: those of all its tasks that they do. */
export function ticketsOfHolder(parts: readonly Pick<SetPart, 'assignee' | 'tickets'>[]): readonly string[] {
  return [...new Set(parts.flatMap(({ assignee, tickets }) => (assignee.by === 'set' ? tickets : [])))];
}

/** Nobody's, where a ticket that a task asks for has ended by its own day; what was given by hand stays as it was given. */
function withTickets(given: Assignment, { tickets }: SetPart, on: CivilDay, { workers }: People): Assignment {
  if (given.kind !== 'one' || given.why.by === 'hand') return given;
  const { personId, why } = given;
  const worker = workers.get(personId);
  const lacked = worker ? lackedTicket(worker, tickets, on) : null;
  if (lacked === null) return given;
  return { kind: 'nobody', why: { ...why, passedOver: [...why.passedOver, { personId, why: lacked }] } };
}

function byHand(personId: string | null): Assignment {
  return personId === null ? { kind: 'nobody', why: { by: 'hand' } } : { kind: 'one', personId, why: { by: 'hand' } };
}
