import {
  type AssignmentRule,
  byNameOn,
  type CivilDay,
  dayOfIso,
  isoOfDay,
  mayComeToDo,
  type People,
  peopleHere,
  ruleOfStep,
  type StepAssignee,
  type Why,
} from '../../core/index.ts';
import { colleagues } from '../people/index.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import type { Scope } from '../platform/scope.ts';
import { followSchedules, keyWanted, planAll, scheduleRows } from '../schedules/index.ts';
import { removeTasks, type Task, ticketsAskedBy } from '../tasks/stored/index.ts';

/** Days, both included. */
export interface Span {
  readonly from: CivilDay;
  readonly to: CivilDay;
}

export const liesIn = (days: readonly Span[], day: CivilDay): boolean =>
  days.some(({ from, to }) => from <= day && day <= to);

/** From the first of some days to the last, all between them too. */
export const wholeOf = (days: readonly Span[]): Span => ({
  from: days.reduce((first, { from }) => Math.min(first, from), Number.POSITIVE_INFINITY),
  to: days.reduce((last, { to }) => Math.max(last, to), Number.NEGATIVE_INFINITY),
});

/** Everybody as they may be given work now. */
export async function everybody(scope: Scope): Promise<People> {
  return peopleHere(await colleagues(scope));
}

/** Steps that are somebody's by what they say themselves, as a JSON path of PostgreSQL. */
const SAYS_ITSELF = '$[*].assignee ? (@.by != "set" && @.by != "nobody")';

/** Schedules by whose rule, or by a step of theirs, some people may come to do work, or could before. */
export async function schedulesOf(
  scope: Scope,
  ids: readonly string[],
  ...people: readonly People[]
): Promise<readonly string[]> {
  const rows = await scope.sql<{
    id: string;
    assignment: AssignmentRule;
    usualPersonId: string | null;
    steps: readonly StepAssignee[];
  }>(
    `select s.id, s.assignment, c.usual_person_id as "usualPersonId",
       jsonb_path_query_array(t.steps, '${SAYS_ITSELF}') as steps from schedule s
     join template t on t.workspace_id = s.workspace_id and t.id = s.template_id
     left join client c on c.workspace_id = s.workspace_id and c.id = s.client_id
     where s.workspace_id = $1 and s.deleted_at is null
       and (s.assignment->>'kind' <> 'nobody' or t.steps @? '${SAYS_ITSELF}') order by s.id`,
  );
  const concerned = await eachInTurn(rows, ({ assignment, usualPersonId, steps }) =>
    people.some((here) =>
      [assignment, ...steps.flatMap((step) => ruleOfStep(step) ?? [])].some((rule) => {
        const may = mayComeToDo(rule, here, usualPersonId);
        return ids.some((id) => may.has(id));
      }),
    ),
  );
  return rows.flatMap(({ id }, i) => (concerned[i] ? id : []));
}

/**
 * Gives work to whoever has it now that people are there or not: what nobody has seen follows the plan, and of some days also
 * what shows already, as far as it is not begun. What a person was given by name goes to whoever takes over for them, and comes
 * back to them when they are there after all.
 * @param before everybody as they were
 * @param days of which work that shows goes too
 */
export async function followPeople(
  scope: Scope,
  ids: readonly string[],
  before: People,
  days: readonly Span[] = [],
): Promise<void> {
  const here = await everybody(scope);
  const scheduleIds = await schedulesOf(scope, ids, before, here);
  await followSchedules(scope, scheduleIds);
  if (days.length === 0) return;
  const { given, gone } = await byPlan(scope, ids, scheduleIds, days);
  await removeTasks(scope, gone);
  await regive(scope, given);
  await regive(scope, await byName(scope, ids, here, days));
}

interface Given extends Pick<Task, 'id' | 'assigneeId' | 'offeredTo' | 'why'> {}

/** Tasks that show, and are somebody else's by their schedule now; or nobody's, where each who is there has one of their own. */
async function byPlan(
  scope: Scope,
  ids: readonly string[],
  scheduleIds: readonly string[],
  days: readonly Span[],
): Promise<{ readonly given: Given[]; readonly gone: string[] }> {
  const rows = await scheduleRows(scope, { ids: scheduleIds });
  const planned = await planAll(scope, rows, { open: true, also: [] });
  const isWithin = ({ workOn }: Pick<Task, 'workOn'>) => liesIn(days, dayOfIso(workOn));
  const gone = planned.flatMap(({ plan, there }) =>
    plan.flatMap((step) => {
      const task = step.kind === 'remove' ? there.get(step.task.id) : undefined;
      return task && ids.includes(task.head) && isWithin(task) ? [task.id] : [];
    }),
  );
  const given = planned.flatMap(({ plan, there, owed }) =>
    plan.flatMap((step): Given[] => {
      if (step.kind !== 'change' || !step.fields.includes('assigneeId')) return [];
      const [task, wanted] = [there.get(step.task.id), owed.get(keyWanted(step.wanted))];
      if (!task || !wanted || !isWithin(task)) return [];
      const isTheirs = [task.assigneeId, wanted.assigneeId, ...passedOver(task.why)].some(
        (id) => id !== null && ids.includes(id),
      );
      const { assigneeId, offeredTo, why } = wanted;
      return isTheirs ? [{ id: task.id, assigneeId, offeredTo, why }] : [];
    }),
  );
  return { given, gone };
}

const passedOver = (why: Why | null): readonly string[] =>
  why === null || why.by === 'hand' ? [] : why.passedOver.map(({ personId }) => personId);

/** Gives work of some days that shows to whoever of some people has it by a schedule now, as far as it is not begun. */
export async function followShown(
  scope: Scope,
  scheduleId: string,
  ids: readonly string[],
  days: readonly Span[],
): Promise<void> {
  const { given } = await byPlan(scope, ids, [scheduleId], days);
  await regive(scope, given);
}

/** What was given to somebody by name: by hand, or in a step of a template; theirs, or covered for them so far. */
async function byName(scope: Scope, ids: readonly string[], here: People, days: readonly Span[]): Promise<Given[]> {
  const calendar = await scope.calendar();
  const { from, to } = wholeOf(days);
  const tasks = await scope.sql<Given & { readonly on: string; readonly tickets: readonly string[] }>(
    `select id, assignee_id as "assigneeId", offered_to as "offeredTo", why, work_on as "on", ${ticketsAskedBy('task')} as tickets from task
     where workspace_id = $1 and state = 'open' and work_on between $3::date and $4::date and offered_to is null and head = ''
       and (assignee_id = any($2::uuid[])
         or (why->>'by' = 'name' and why->'passedOver'->0->>'personId' = any($2::text[])
           and (schedule_id is null or step_key <> '' or edited ? 'assigneeId')))
     order by id for no key update`,
    [ids, isoOfDay(from), isoOfDay(to)],
  );
  return tasks.flatMap((task): Given[] => {
    const personId = task.why?.by === 'name' ? (task.why.passedOver[0]?.personId ?? task.assigneeId) : task.assigneeId;
    if (personId === null || !liesIn(days, dayOfIso(task.on))) return [];
    const found = byNameOn(personId, dayOfIso(task.on), task.tickets, here, calendar);
    if (found.kind === 'anyOf' || found.kind === 'eachOf') return [];
    const assigneeId = found.kind === 'one' ? found.personId : null;
    return assigneeId === task.assigneeId ? [] : [{ id: task.id, assigneeId, offeredTo: null, why: found.why }];
  });
}

async function regive(scope: Scope, given: readonly Given[]): Promise<void> {
  if (given.length === 0) return;
  const json = (value: unknown) => (value === null ? null : JSON.stringify(value));
  await scope.sql(
    `update task set assignee_id = now.assignee_id, offered_to = now.offered_to, why = now.why, version = version + 1
     from unnest($2::uuid[], $3::uuid[], $4::jsonb[], $5::jsonb[]) as now (id, assignee_id, offered_to, why)
     where task.workspace_id = $1 and task.id = now.id and task.state = 'open'`,
    [
      given.map(({ id }) => id),
      given.map(({ assigneeId }) => assigneeId),
      given.map(({ offeredTo }) => json(offeredTo)),
      given.map(({ why }) => json(why)),
    ],
  );
}
