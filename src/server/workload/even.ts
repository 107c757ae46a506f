import { type Evenable, type LoadUnit, MOST_OF_CELL, type ProjectedLine, type TaskLine } from '../../contract/index.ts';
import {
  dayOfIso,
  type Group,
  isoOfDay,
  Loads,
  mondayOf,
  type People,
  peopleHere,
  unavailableOn,
  type WorkingCalendar,
} from '../../core/index.ts';
import { colleagues } from '../people/index.ts';
import { changedMeanwhile, invalid, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { KEPT_DAYS, projectedWork } from '../schedules/index.ts';
import { carryOutFates } from '../tasks/index.ts';
import { lockedTasks, taskLines, ticketsAskedBy, ticketsOfTasks } from '../tasks/stored/index.ts';
import { DAYS_OF } from './load.ts';

/** The first and the last day of a week. */
const spanOf = (week: string) => {
  const monday = mondayOf(dayOfIso(week));
  return { monday, sunday: monday + DAYS_OF.week - 1 };
};

/** The tasks behind one figure of the workload, and what is foreseen with them. */
export async function workOfCell(
  scope: Scope,
  { person, from, by }: { readonly person?: string | undefined; readonly from: string; readonly by: LoadUnit },
): Promise<{ tasks: TaskLine[]; count: number; foreseen: ProjectedLine[] }> {
  const start = by === 'week' ? mondayOf(dayOfIso(from)) : dayOfIso(from);
  const end = start + DAYS_OF[by] - 1;
  const rows = await scope.sql<{ id: string; count: number }>(
    `select id, count(*) over ()::int as count from task
     where workspace_id = $1 and assignee_id is not distinct from $2::uuid and due_on between $3::date and $4::date
       and state not in ('skipped', 'lapsed') order by due_on, id limit ${MOST_OF_CELL}`,
    [person ?? null, isoOfDay(start), isoOfDay(end)],
  );
  // As far as the figures go.
  const [first, last] = [Math.max(start, scope.now.day), Math.min(end, scope.now.day + KEPT_DAYS)];
  const foreseen = first > last ? [] : await projectedWork(scope, first, last, person ?? null);
  return {
    tasks: await taskLines(
      scope,
      rows.map(({ id }) => id),
    ),
    count: (rows[0]?.count ?? 0) + foreseen.length,
    foreseen: foreseen.slice(0, MOST_OF_CELL - rows.length),
  };
}

/** The work of one week among the people of a role or a team, with who may have each task instead. */
export async function evenable(
  scope: Scope,
  {
    week,
    role,
    team,
  }: { readonly week: string; readonly role?: string | undefined; readonly team?: string | undefined },
): Promise<Evenable> {
  const group: Group | null =
    role !== undefined ? { of: 'role', role } : team !== undefined ? { of: 'team', team } : null;
  if (group === null) throw invalid([{ path: 'role', message: 'Say among whom: a role or a team.' }]);
  const { monday, sunday } = spanOf(week);
  if (sunday < scope.now.day) throw notNow('That week is over.');
  const [here, names, calendar] = [
    peopleHere(await colleagues(scope)),
    await scope.peopleNames(),
    await scope.calendar(),
  ];
  const isHoliday = (day: number) => calendar.holidayName(day) !== undefined;
  const loads = new Loads(here.workers, isHoliday, []);
  const ids = here.of(group);
  const people = ids.map((id) => ({ id, name: names.get(id) ?? '', capacity: loads.of(id, monday).capacity }));
  const tasks = await scope.sql<
    Omit<Evenable['tasks'][number], 'mayGoTo'> & { readonly isFixed: boolean; readonly tickets: readonly string[] }
  >(
    `select t.id, t.version, t.assignee_id as "personId", t.estimate_minutes as minutes, t.title, t.work_on as "on",
       coalesce(a.name, c.name) as about, (t.state <> 'open' or t.edited ? 'assigneeId' or t.due_on < $5::date) as "isFixed",
       ${ticketsAskedBy('t')} as tickets
     from task t left join asset a on a.workspace_id = t.workspace_id and a.id = t.asset_id
     left join client c on c.workspace_id = t.workspace_id and c.id = t.client_id
     where t.workspace_id = $1 and t.assignee_id = any($2::uuid[]) and t.due_on between $3::date and $4::date
       and t.state not in ('skipped', 'lapsed') order by t.due_on, t.id`,
    [ids, isoOfDay(monday), isoOfDay(sunday), scope.today],
  );
  const there = thereOn(here, calendar);
  return {
    people,
    tasks: tasks.map(({ isFixed, tickets, ...task }) => ({
      ...task,
      mayGoTo: isFixed ? [] : ids.filter((id) => there(task.on, tickets).has(id)),
    })),
  };
}

/** Who can have work on a day that asks for tickets. */
function thereOn(
  { workers }: People,
  calendar: WorkingCalendar,
): (on: string, tickets: readonly string[]) => ReadonlySet<string> {
  const found = new Map<string, ReadonlySet<string>>();
  return (on, tickets) => {
    const key = [on, ...tickets].join('\n');
    const known = found.get(key);
    if (known) return known;
    const day = dayOfIso(on);
    const asked = { tickets, isHoliday: calendar.holidayName(day) !== undefined };
    const there = [...workers.values()].filter((worker) => unavailableOn(worker, day, asked) === null);
    const ids = new Set(there.map(({ id }) => id));
    found.set(key, ids);
    return ids;
  };
}

/**
 * Gives tasks to others, each to its own: what is begun or was changed since is refused, by name, and so is what would go to
 * somebody who is not there on its day any more.
 */
export function moveTasks(
  scope: Scope,
  moves: readonly { readonly id: string; readonly version: number; readonly to: string }[],
): Promise<{ moved: number; changeId: string }> {
  return scope.transaction(async (tx) => {
    const people = await tx.peopleNames();
    const there = thereOn(peopleHere(await colleagues(tx)), await tx.calendar());
    const asked = await ticketsOfTasks(
      tx,
      moves.map(({ id }) => id),
    );
    const unknown = moves.flatMap(({ to }, i) =>
      people.has(to) ? [] : [{ path: `moves.${i}.to`, message: 'There is no such person here.' }],
    );
    if (unknown.length > 0) throw invalid(unknown);
    const tasks = new Map(
      (
        await lockedTasks(
          tx,
          moves.map(({ id }) => id),
        )
      ).map((task) => [task.id, task]),
    );
    const others = moves.flatMap(({ id, version, to }, i) => {
      const task = tasks.get(id);
      const path = `moves.${i}`;
      const what = task ? `“${task.title}”` : 'A task';
      if (task?.version !== version || task.state !== 'open')
        return [{ path, message: `${what} has been changed or begun since this was proposed.` }];
      if (!there(task.workOn, asked.get(id) ?? []).has(to))
        return [{ path: `${path}.to`, message: `${people.get(to)} can’t have ${what} on its day any more.` }];
      return [];
    });
    if (others.length > 0)
      throw changedMeanwhile('Some of it has changed since: nothing is moved. Even out once more.', others);
    const entries = await carryOutFates(
      tx,
      moves.flatMap(({ id, to }) => {
        const task = tasks.get(id);
        if (!task) return [];
        const edited = [...new Set([...task.edited, 'assigneeId'])];
        return [{ kind: 'changed' as const, task, changes: { assigneeId: to, edited } }];
      }),
      'edited',
    );
    await tx.tell('tasks', 'schedules');
    return { moved: entries.length, changeId: await tx.recordTogether(entries) };
  });
}
