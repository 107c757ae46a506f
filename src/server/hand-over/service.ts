import { In } from 'typeorm';
import type { HandOver, Impact, Member } from '../../contract/index.ts';
import { type DatesBetween, datesBetweenOf, defaultHandedOn, handedOn, hasLeftBy } from '../../core/index.ts';
import { oneMember, writeMember } from '../people/index.ts';
import { handOnPlans } from '../plans/index.ts';
import { Person } from '../platform/identity/person.ts';
import { changedMeanwhile, invalid } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { readableSchedule, rewriteSchedules, scheduleRows } from '../schedules/index.ts';
import { carryOutFates, impactOfFates, watchTasks } from '../tasks/index.ts';
import { IS_TOUCHED, lockedTasks, removeTasks } from '../tasks/stored/index.ts';
import { saveTemplate } from '../templates/index.ts';
import { Template } from '../templates/stored/index.ts';
import { assigneeReplaced, heldIds, signOffWithout, stepsWithout } from './held.ts';

/** Gives everything that somebody holds to others in one go, which one undo takes back. */
export function handOver(
  scope: Scope,
  personId: string,
  input: HandOver,
): Promise<{ member: Member; changeId: string | null }> {
  return scope.transaction(async (tx) => {
    const changes = await carryOut(tx, personId, input);
    await tx.tell('workspace', 'schedules', 'tasks', 'templates');
    const changeId = changes.length > 1 ? await tx.joinChanges(changes) : (changes[0] ?? null);
    return { member: await oneMember(tx, personId), changeId };
  });
}

/** What it would do: it is done, looked at, and taken back. */
export function impactOfHandOver(scope: Scope, personId: string, input: HandOver): Promise<Impact> {
  return scope.rehearse(async (tx) => {
    const { taskIds, scheduleIds } = await heldIds(tx, personId);
    const became = await watchTasks(tx, { taskIds, scheduleIds });
    await carryOut(tx, personId, input);
    return impactOfFates(tx, await became());
  });
}

/** Tasks first, then what makes them: so the undo, which goes the other way, finds each as it was left. */
async function carryOut(scope: Scope, personId: string, input: HandOver): Promise<string[]> {
  const person = await scope.locked(Person, personId, 'person');
  if (person.version !== input.version)
    throw changedMeanwhile(
      'Someone else changed this person since you opened them. Look once more at what is shown now.',
    );
  await checkReceivers(scope, personId, input);
  const { taskIds, scheduleIds, templateIds } = await heldIds(scope, personId);
  const tasks = await lockedTasks(scope, taskIds);
  // Where each of several has one, nobody takes over another.
  const given = await carryOutFates(
    scope,
    tasks.flatMap((task) =>
      task.head === '' ? [{ kind: 'changed' as const, task, changes: { assigneeId: input.tasksTo } }] : [],
    ),
    'edited',
  );
  const changes = await scope.recordEach(given);
  for (const template of await scope.find(Template, { id: In(templateIds) })) {
    const receivers = { to: input.templatesTo, signs: input.signOffsTo };
    const { changeId } = await saveTemplate(
      scope,
      template,
      {
        assignment: defaultHandedOn(template.assignment, personId, input.templatesTo),
        signOff: signOffWithout(template.signOff, personId, input.signOffsTo),
        steps: stepsWithout(template.steps, personId, receivers),
      },
      'changed',
    );
    if (changeId !== null) changes.push(changeId);
  }
  changes.push(...(await handOnPlans(scope, personId, input.schedulesTo)));
  const datesOf = await datesOfSchedules(scope, scheduleIds);
  const entries = await rewriteSchedules(scope, scheduleIds, 'changed', (schedule) => ({
    assignment: handedOn(schedule.assignment, personId, input.schedulesTo, scope.now.day, datesOf(schedule.id)),
    exceptions: assigneeReplaced(schedule.exceptions, personId, input.schedulesTo),
    revisions: assigneeReplaced(schedule.revisions, personId, input.schedulesTo),
  }));
  changes.push(...(await scope.recordEach(entries)));
  if (input.lastDay !== null) {
    const left = await writeMember(scope, person, { worksUntil: input.lastDay }, 'changed');
    if (left !== null) changes.push(left);
    await takeBackHeads(scope, personId, input.lastDay);
  }
  return changes;
}

/**
 * What is one's own where each of several has one is not done after the last day, as far as nobody has touched it. An undo of
 * that day makes it anew, as runs would have.
 */
async function takeBackHeads(scope: Scope, personId: string, lastDay: string): Promise<void> {
  const rows = await scope.sql<{ id: string }>(
    `select id from task where workspace_id = $1 and head = $2 and state = 'open' and work_on > $3::date and not ${IS_TOUCHED}`,
    [personId, lastDay],
  );
  await removeTasks(
    scope,
    rows.map(({ id }) => id),
  );
}

/** The dates of schedules, by which turns go on where they stand. One that can't be read has none. */
async function datesOfSchedules(scope: Scope, ids: readonly string[]): Promise<(id: string) => DatesBetween> {
  const calendar = await scope.calendar();
  const rows = new Map((await scheduleRows(scope, { ids })).map((row) => [row.id, row]));
  return (id) => {
    const row = rows.get(id);
    const planned = row ? readableSchedule(scope, row) : null;
    return row && planned ? datesBetweenOf(planned, calendar, row.assignment) : () => 0;
  };
}

const RECEIVERS = ['tasksTo', 'schedulesTo', 'templatesTo', 'signOffsTo'] as const;

async function checkReceivers(scope: Scope, personId: string, input: HandOver): Promise<void> {
  const people = new Map((await scope.find(Person)).map((person) => [person.id, person]));
  const problems = RECEIVERS.flatMap((path): { path: string; message: string }[] => {
    const id = input[path];
    if (id === null) return [];
    const person = people.get(id);
    if (!person) return [{ path, message: 'There is no such person here.' }];
    if (id === personId) return [{ path, message: `That is ${person.name}: choose somebody else.` }];
    if (hasLeftBy(person, scope.now.day)) return [{ path, message: `${person.name} has left.` }];
    return [];
  });
  const { worksFrom } = people.get(personId) ?? { worksFrom: null };
  if (input.lastDay !== null && worksFrom !== null && input.lastDay < worksFrom)
    problems.push({ path: 'lastDay', message: 'The last day lies before the first.' });
  if (problems.length > 0) throw invalid(problems);
}
