import type { TurnSaid } from '../../contract/index.ts';
import {
  type CivilDay,
  datesBetweenOf,
  dayOfIso,
  hasLeftBy,
  isDated,
  isoOfDay,
  planDays,
  type TurnSpan,
  type Turns,
  turnsOf,
} from '../../core/index.ts';
import { Person } from '../platform/identity/person.ts';
import { notFound } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { readableSchedule, type ScheduleRow, scheduleRows } from '../schedules/index.ts';
import { TaskRecord } from '../tasks/stored/index.ts';

/** Turns are looked at from so many days back, so that the first of a month’s dates is among them, to so many ahead. */
const [BACK, AHEAD] = [35, 190];
/** So many turns of others are offered at the most. */
const OFFERED = 24;

/** The turns of a schedule around today; null where it has none that can be told. */
export async function turnsOfSchedule(
  scope: Scope,
  row: ScheduleRow,
): Promise<{ readonly turns: Turns; readonly spans: readonly TurnSpan[] } | null> {
  const { assignment } = row;
  const schedule = row.problem === null && assignment.kind === 'inTurn' ? readableSchedule(scope, row) : null;
  if (assignment.kind !== 'inTurn' || schedule === null) return null;
  const calendar = await scope.calendar();
  const { day: today } = scope.now;
  const nominals = planDays(schedule, calendar, today - BACK, today + AHEAD)
    .filter((one) => isDated(one) && !one.isAdded)
    .map(({ nominal }) => nominal)
    .sort((a, b) => a - b);
  return {
    turns: assignment.turns,
    spans: turnsOf(assignment.turns, nominals, datesBetweenOf(schedule, calendar, assignment)),
  };
}

export const turnWith = (spans: readonly TurnSpan[], day: CivilDay): TurnSpan | undefined =>
  spans.find(({ first, last }) => first <= day && day <= last);

export const sayTurn = ({ first, last, dates }: TurnSpan): TurnSaid => ({
  ...{ first: isoOfDay(first), last: isoOfDay(last), dates },
});

/** The turn that a task is of, and those of others to come that it could be swapped with. */
export async function turnsAround(scope: Scope, taskId: string) {
  const task = await scope.one(TaskRecord, taskId, 'task');
  const none = { mine: null, others: [] };
  if (task.scheduleId === null || task.nominalDate === null) return none;
  const [row] = await scheduleRows(scope, { ids: [task.scheduleId] });
  if (!row) throw notFound('schedule');
  const found = await turnsOfSchedule(scope, row);
  const mine = found && turnWith(found.spans, dayOfIso(task.nominalDate));
  const { day: today } = scope.now;
  // A turn that has begun is the past in part, and that stays.
  if (!found || !mine || mine.personId !== scope.person?.id || mine.first < today) return none;
  const people = new Map((await scope.find(Person)).map((person) => [person.id, person]));
  const others = found.spans.flatMap((span) => {
    const person = people.get(span.personId);
    if (!person || span.personId === mine.personId || span.first < today || hasLeftBy(person, span.first)) return [];
    return [{ ...sayTurn(span), person: { id: person.id, name: person.name } }];
  });
  return { mine: sayTurn(mine), others: others.slice(0, OFFERED) };
}
