import {
  type Assignment,
  type DatedOccurrence,
  fillTitle,
  hasToken,
  isoOfDay,
  type Offer,
  type SetPart,
  seriesNumbers,
  tasksOfSet,
  type WorkingCalendar,
} from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import type { MadeTask } from '../tasks/stored/index.ts';
import { partsOf, plannedSchedule, type ScheduleRow } from './schedule-row.ts';
import type { Making } from './who-does.ts';

/** The tasks of the sets of some occurrences of one schedule. */
export function madeTasks(
  scope: Scope,
  row: ScheduleRow,
  occurrences: readonly DatedOccurrence[],
  { calendar, people, whose, ofParts }: Making,
): MadeTask[] {
  const parts = partsOf(row);
  const numbers = numbersFor(scope, row, parts, occurrences, calendar);
  const assigned = whose(row);
  const own = ofParts(row);
  return occurrences.flatMap((occurrence) =>
    tasksOfSet(occurrence, parts, calendar, assigned(occurrence), own).map((task): MadeTask => {
      const { part, head, assigneeId, assignment } = task;
      const byHand = occurrence.own?.[part.key] ?? {};
      return {
        scheduleId: row.id,
        templateId: row.templateId,
        templateVersion: row.templateVersion,
        nominalDate: isoOfDay(occurrence.nominal),
        stepKey: part.key,
        head,
        setOn: isoOfDay(occurrence.on),
        title:
          fillTitle(task.titlePattern, {
            on: occurrence.on,
            client: row.clientName,
            asset: row.assetName,
            person: assigneeId === null ? null : (people.get(assigneeId) ?? null),
            number: numbers.get(occurrence.nominal) ?? null,
            type: row.workType,
          }) || row.templateName,
        workOn: isoOfDay(task.on),
        appearsOn: isoOfDay(task.appears),
        startsOn: isoOfDay(task.starts),
        dueOn: isoOfDay(task.due),
        startTime: task.startTime,
        dueTime: task.dueTime,
        zone: occurrence.timing.zone,
        assigneeId,
        offeredTo: offerOf(assignment, row.clientId),
        why: assignment.kind === 'anyOf' || assignment.kind === 'eachOf' ? null : assignment.why,
        estimateMinutes: task.estimateMinutes,
        instructions: byHand.instructions ?? null,
        priority: byHand.priority ?? null,
      };
    }),
  );
}

/** Of whom any one may take it. What is for a client where there is none is nobody's. */
function offerOf(assignment: Assignment, clientId: string | null): Offer | null {
  if (assignment.kind === 'client') return clientId === null ? null : { of: 'client' };
  return assignment.kind === 'anyOf' ? assignment.group : null;
}

/** Counted only where a title asks for it: the count goes back to the start of the schedule. */
function numbersFor(
  scope: Scope,
  row: ScheduleRow,
  parts: readonly SetPart[],
  occurrences: readonly DatedOccurrence[],
  calendar: WorkingCalendar,
): ReadonlyMap<number, number> {
  if (occurrences.length === 0 || !parts.some(({ titlePattern }) => hasToken(titlePattern, 'number'))) return new Map();
  return seriesNumbers(plannedSchedule(scope, row), calendar, Math.max(...occurrences.map(({ on }) => on)));
}

/** What makes a task of a schedule the only one. */
export type NominalTask = Pick<MadeTask, 'scheduleId' | 'nominalDate' | 'stepKey' | 'head'>;

/** Names it by that, for telling which are made already. */
export function nominalKey({ scheduleId, nominalDate, stepKey, head }: NominalTask): string {
  return `${scheduleId} ${nominalDate} ${stepKey} ${head}`;
}
