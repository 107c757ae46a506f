import { type Evenable, type LoadUnit, MOST_OF_CELL, type ProjectedLine, type TaskLine } from '../../contract/index.ts';
import {
  type AssignmentRule,
  askedOn,
  canHaveWhile,
  type DayTimes,
  dayOfIso,
  FAIR_WEEKS,
  fairTakers,
  type Group,
  groupKey,
  isoOfDay,
  Loads,
  mondayOf,
  namedFrom,
  type People,
  peopleHere,
  type TurnsHad,
  type WorkingCalendar,
  windowOfTimes,
} from '../../core/index.ts';
import { standingAt } from '../directory/index.ts';
import { colleagues } from '../people/index.ts';
import { changedMeanwhile, invalid, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { callLoad } from '../ringing/index.ts';
import { KEPT_DAYS, projectedWork } from '../schedules/index.ts';
import { carryOutFates } from '../tasks/index.ts';
import { lockedTasks, type Task, taskLines, ticketsAskedBy, ticketsOfTasks } from '../tasks/stored/index.ts';
import { DAYS_OF } from './load.ts';

/** The first and the last day of a week. */
const spanOf = (week: string) => {
  const monday = mondayOf(dayOfIso(week));
  return { monday, sunday: monday + DAYS_OF.week - 1 };
};

/** The tasks behind one figure of the workload, and what is foreseen with them. */
export async function workOfCell(
  scope: Scope,
  {
    person,
    from,
    by,
    site,
  }: {
    readonly person?: string | undefined;
    readonly from: string;
    readonly by: LoadUnit;
    readonly site?: string | undefined;
  },
): Promise<{
  tasks: TaskLine[];
  count: number;
  foreseen: ProjectedLine[];
  calls: { count: number; minutes: number } | null;
}> {
  const start = by === 'week' ? mondayOf(dayOfIso(from)) : dayOfIso(from);
  const end = start + DAYS_OF[by] - 1;
  const at = site === undefined ? null : (await standingAt(scope, site)).assetIds;
  const rows = await scope.sql<{ id: string; count: number }>(
    `select id, count(*) over ()::int as count from task
     where workspace_id = $1 and assignee_id is not distinct from $2::uuid and due_on between $3::date and $4::date
       and state not in ('skipped', 'lapsed') and ($5::uuid[] is null or asset_id = any($5))
     order by due_on, id limit ${MOST_OF_CELL}`,
    [person ?? null, isoOfDay(start), isoOfDay(end), at],
  );
  // As far as the figures go.
  const [first, last] = [Math.max(start, scope.now.day), Math.min(end, scope.now.day + KEPT_DAYS)];
  const all = first > last ? [] : await projectedWork(scope, first, last, person ?? null);
  const isAt = new Set(at);
  const foreseen = at === null ? all : all.filter(({ asset }) => asset !== null && isAt.has(asset.id));
  return {
    tasks: await taskLines(
      scope,
      rows.map(({ id }) => id),
    ),
    count: (rows[0]?.count ?? 0) + foreseen.length,
    foreseen: foreseen.slice(0, MOST_OF_CELL - rows.length),
    calls: at === null && person !== undefined ? await callsOf(scope, person, start, end) : null,
  };
}

async function callsOf(scope: Scope, personId: string, from: number, to: number) {
  const rows = await callLoad(scope, { from, to: Math.min(to, scope.now.day + KEPT_DAYS), personId });
  return {
    count: rows.reduce((sum, { calls }) => sum + calls, 0),
    minutes: rows.reduce((sum, { done, open, foreseen }) => sum + done + open + foreseen, 0),
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
  const ofCalls = new Map<string, number>();
  for (const { personId, done, open, foreseen } of await callLoad(scope, { from: monday, to: sunday }))
    ofCalls.set(personId, (ofCalls.get(personId) ?? 0) + done + open + foreseen);
  const people = ids.map((id) => {
    const calls = ofCalls.get(id) ?? 0;
    return { id, name: names.get(id) ?? '', capacity: Math.max(0, loads.of(id, monday).capacity - calls), calls };
  });
  const tasks = await scope.sql<
    Omit<Evenable['tasks'][number], 'mayGoTo' | 'had'> &
      Omit<Times, 'workOn'> & {
        readonly isFixed: boolean;
        readonly tickets: readonly string[];
        readonly turnOf: string | null;
      }
  >(
    `select t.id, t.version, t.assignee_id as "personId", t.estimate_minutes as minutes, t.title, t.work_on as "on",
       coalesce(a.name, c.name) as about, (t.state <> 'open' or t.edited ? 'assigneeId' or t.due_on < $5::date) as "isFixed",
       t.starts_on as "startsOn", t.due_on as "dueOn", t.start_time as "startTime", t.due_time as "dueTime", t.zone, t.offered_to as "offeredTo",
       ${ticketsAskedBy('t')} as tickets, case when t.why->>'by' = 'turn' then t.schedule_id end as "turnOf"
     from task t left join asset a on a.workspace_id = t.workspace_id and a.id = t.asset_id
     left join client c on c.workspace_id = t.workspace_id and c.id = t.client_id
     where t.workspace_id = $1 and t.assignee_id = any($2::uuid[]) and t.due_on between $3::date and $4::date
       and t.state not in ('skipped', 'lapsed') order by t.due_on, t.id`,
    [ids, isoOfDay(monday), isoOfDay(sunday), scope.today],
  );
  const there = thereOn(here, calendar);
  const turns = tasks.flatMap(({ turnOf, isFixed, ...task }) =>
    turnOf === null || isFixed ? [] : [{ ...task, scheduleId: turnOf }],
  );
  const had = await turnsHad(scope, [...new Set(turns.map(({ scheduleId }) => scheduleId))], monday);
  const takers = fairTakers(turns, (id) => had.get(id) ?? null);
  return {
    people,
    tasks: tasks.map(({ isFixed, tickets, turnOf, startsOn, dueOn, startTime, dueTime, zone, offeredTo, ...task }) => {
      const times = { workOn: task.on, startsOn, dueOn, startTime, dueTime, zone, offeredTo };
      const can = isFixed ? new Set<string>() : there(times, tickets);
      const fair = turnOf === null ? null : new Set(takers.get(task.id));
      const mayGoTo = ids.filter((id) => can.has(id) && fair?.has(id) !== false);
      const of = turnOf === null || mayGoTo.length === 0 ? null : had.get(turnOf);
      const told = of && Object.fromEntries([task.personId, ...mayGoTo].map((id) => [id, of.get(id) ?? 0]));
      return { ...task, mayGoTo, had: told ?? null };
    }),
  };
}

/** How often each of a roster had the work of a schedule over the weeks that end with one; nothing of those whose work of that week was given away already. */
async function turnsHad(
  scope: Scope,
  scheduleIds: readonly string[],
  monday: number,
): Promise<ReadonlyMap<string, TurnsHad>> {
  const rows = await scope.sql<{
    readonly id: string;
    readonly assignment: AssignmentRule;
    readonly had: Readonly<Record<string, number>> | null;
    readonly isGiven: boolean;
  }>(
    `select s.id, s.assignment, h.had, coalesce(h.is_given, false) as "isGiven" from schedule s left join lateral (
       select jsonb_object_agg(of.assignee_id, of.times) as had, bool_or(of.is_given) as is_given from (
         select assignee_id, count(*)::int as times, bool_or(due_on >= $4::date and edited ? 'assigneeId') as is_given from task
         where workspace_id = $1 and schedule_id = s.id and step_key = '' and assignee_id is not null and nominal_date >= $3::date - 366
           and due_on between $3::date and $4::date + 6 and state not in ('skipped', 'lapsed') group by 1) of) h on true
     where s.workspace_id = $1 and s.id = any($2::uuid[])`,
    [scheduleIds, isoOfDay(monday - (FAIR_WEEKS - 1) * DAYS_OF.week), isoOfDay(monday)],
  );
  return new Map(
    rows
      .filter(({ isGiven }) => !isGiven)
      .map(({ id, assignment, had }) => [
        id,
        new Map([...namedFrom(assignment, monday)].map((who) => [who, had?.[who] ?? 0])),
      ]),
  );
}

/** What of a task tells who may have it. */
type Times = DayTimes<string> & Pick<Task, 'offeredTo'>;

/** Who can have work on its day, with its tickets, and at its times where their hours have any; of what is for those on shift, they alone. */
function thereOn(
  here: People,
  calendar: WorkingCalendar,
): (task: Times, tickets: readonly string[]) => ReadonlySet<string> {
  const found = new Map<string, ReadonlySet<string>>();
  return ({ offeredTo, ...times }, tickets) => {
    const { workOn } = times;
    const window = windowOfTimes(times);
    const onShift = offeredTo?.of === 'role' && offeredTo.onShift ? offeredTo : null;
    const key = [workOn, window.from, window.to, onShift && groupKey(onShift), ...tickets].join('\n');
    const known = found.get(key);
    if (known) return known;
    const day = dayOfIso(workOn);
    const asked = askedOn(day, calendar, tickets, window);
    const there =
      onShift === null
        ? [...here.workers.values()].filter((worker) => canHaveWhile(worker, day, asked))
        : here.available(onShift, day, asked).can;
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
      if (!there(task, asked.get(id) ?? []).has(to))
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
