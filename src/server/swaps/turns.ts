import { dayOfIso, hasLeftBy } from '../../core/index.ts';
import { Person } from '../platform/identity/person.ts';
import { notFound } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { sayTurn, scheduleRows, turnsOfSchedule, turnWith } from '../schedules/index.ts';
import { TaskRecord } from '../tasks/stored/index.ts';

/** So many turns of others are offered at the most. */
const OFFERED = 24;

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
