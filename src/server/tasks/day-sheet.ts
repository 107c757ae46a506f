import { IsNull } from 'typeorm';
import type { DaySheet, TaskLine, Tideline } from '../../contract/index.ts';
import {
  askedOn,
  type Band,
  bandOf,
  type CivilDay,
  COMING_DAYS,
  compareTimes,
  dayLoads,
  dayOfIso,
  instantOf,
  isoOfDay,
  MOST_MINUTES_A_DAY,
  mayAll,
  minutesFor,
  type People,
  peopleHere,
  reachOf,
  shiftsOn,
  type TaskState,
  type Worker,
  type WorkingCalendar,
  windowOfShift,
} from '../../core/index.ts';
import { Clocking, colleagues } from '../people/index.ts';
import { deletedTasksOn } from '../platform/changes/deleted.ts';
import { Person } from '../platform/identity/person.ts';
import { Latest, ofEachDatabase } from '../platform/latest.ts';
import type { Scope } from '../platform/scope.ts';
import { callLoad } from '../ringing/index.ts';
import { foreseenMinutes, KEPT_DAYS, projectedWork } from '../schedules/index.ts';
import {
  datedTask,
  lacksTicket,
  lateCount,
  linesOf,
  TASK_COLUMNS,
  TASK_JOINS,
  type TaskRow,
  TO_DO,
  taskLine,
  UNFINISHED,
} from './stored/index.ts';

const NOTHING: DaySheet['doneBefore'] = { tasks: [], count: 0 };

/** What one person has to do on a day: late first, then the day by time, then what is coming. */
export async function daySheet(scope: Scope, personId: string, date: string | undefined): Promise<DaySheet> {
  const person = await scope.one(Person, personId, 'person');
  const now = scope.now;
  const day = date === undefined ? now.day : dayOfIso(date);
  const [rows, calendar, people] = await scope.atOnce(
    () =>
      // Each part by an index of its own: what was done years ago and what is made years ahead is not looked at.
      scope.sql<TaskRow>(
        linesOf(
          `select id from task where workspace_id = $1 and assignee_id = $2 and due_on = $3::date
           union
           select id from task where workspace_id = $1 and assignee_id = $2 and state in ${UNFINISHED}
             and least(starts_on, appears_on) <= $3::date + ${COMING_DAYS} and (due_on > $3::date or $3::date = $4::date)
           union
           select id from task where workspace_id = $1 and assignee_id = $2
             and done_at >= $3::date - 1 and done_at < $3::date + 2`,
        ),
        [personId, isoOfDay(day), scope.today],
      ),
    () => scope.calendar(),
    () => peopleOf(scope, person.id),
  );
  const worker = people.one(person.id);
  const isToday = day === now.day;
  const [done, toCheck, offered, unassigned, projected, deleted] = await scope.atOnce(
    async () => (isToday ? doneBefore(scope, personId) : NOTHING),
    async () => (isToday ? waitingForSign(scope, person) : []),
    () => offeredOn(scope, person, worker, day, calendar),
    async () => (personId === scope.person?.id ? unassignedOn(scope, isoOfDay(day)) : NOTHING),
    async () => (day > now.day ? projectedWork(scope, day, day, personId) : []),
    async () => (scope.mayAll('delete') ? deletedTasksOn(scope, personId, isoOfDay(day)) : []),
  );
  return {
    person: {
      id: person.id,
      name: person.name,
      roles: person.roles,
      capacityMinutes: capacityOf([worker], day, calendar),
      shifts: shiftsOn(worker, day, askedOn(day, calendar)).map(({ from, to }) => ({ from, to })),
      hasShifts: worker.shifts.length > 0 || worker.shiftChanges.size > 0,
    },
    date: isoOfDay(day),
    ...inBands(scope, rows, day),
    doneBefore: done,
    ...{ toCheck, offered, unassigned, projected, deleted },
  };
}

/** Tasks as the lines of the bands they stand in on a day, each in its order; those that have no place there are left out. */
export function inBands(scope: Scope, rows: readonly TaskRow[], day: CivilDay): Record<Band, TaskLine[]> {
  const bands: Record<Band, TaskRow[]> = { late: [], thisDay: [], coming: [] };
  for (const row of rows) {
    const band = bandOf({ ...datedTask(scope, row), startsOn: dayOfIso(row.startsOn) }, day, scope.now);
    if (band) bands[band].push(row);
  }
  const lines = (of: readonly TaskRow[]) => of.map((row) => taskLine(scope, row));
  return {
    late: lines(bands.late.sort(byDue)),
    thisDay: lines(bands.thisDay.sort(byTimeOfDay)),
    coming: lines(bands.coming.sort(byDue)),
  };
}

/** What is kept in sight at the most, of however much was done. */
const DONE_SHOWN = 60;

/** What was done on days before today and stays in sight, the latest first. */
async function doneBefore(scope: Scope, personId: string): Promise<DaySheet['doneBefore']> {
  const { doneStaysDays, zone } = scope.workspace;
  if (doneStaysDays === 1) return { tasks: [], count: 0 };
  const midnight = (day: CivilDay) => new Date(instantOf(isoOfDay(day), '00:00', zone));
  const { day: today } = scope.now;
  const done = `from task where workspace_id = $1 and assignee_id = $2 and state = 'done' and done_at >= $3 and done_at < $4`;
  const span = [personId, midnight(today - doneStaysDays + 1), midnight(today)];
  const [all] = await scope.sql<{ count: number }>(`select count(*)::int as count ${done}`, span);
  const rows = await scope.sql<TaskRow>(
    `${linesOf(`select id ${done} order by done_at desc, id limit ${DONE_SHOWN}`)} order by line."doneAt" desc, line.id`,
    span,
  );
  return { tasks: rows.map((row) => taskLine(scope, row)), count: all?.count ?? 0 };
}

const UNASSIGNED_SHOWN = 30;

/** Work that nobody has: overdue, or showing on a day. */
function unassignedOn(scope: Scope, date: string): Promise<DaySheet['unassigned']> {
  // Whoever gives work to others sees all of it; others what they have the tickets for.
  if (scope.reach('give') === 'all') return freeOn(scope, date, 'offered_to is null', []);
  const held = JSON.stringify(scope.person?.tickets ?? []);
  return freeOn(scope, date, `offered_to is null and not ${lacksTicket('task', '$4')}`, [held]);
}

/** Work that any one of several may take, somebody among them: it stands on the sheets of all of them until one does. */
async function offeredOn(
  scope: Scope,
  { id, roles, team, tickets }: Person,
  worker: Worker,
  day: CivilDay,
  calendar: WorkingCalendar,
): Promise<DaySheet['offered']> {
  const toThem = `(offered_to->>'of' = 'everyone' or offered_to->>'team' = $5::text or offered_to->'ids' ? $6::text
    or (offered_to->>'role' = any($4::text[]) and (offered_to->'onShift' is null or ${ON_SHIFT})))`;
  return freeOn(scope, isoOfDay(day), `${toThem} and not ${lacksTicket('task', '$7')}`, [
    roles,
    team,
    id,
    JSON.stringify(tickets),
    JSON.stringify(await stretchesOn(scope, worker, day, calendar)),
  ]);
}

/** Whether one of somebody's stretches on the day is in the role and, for work of that day with times of it, while it is to be done. */
const ON_SHIFT = `exists (
  select 1 from jsonb_to_recordset($8::jsonb) as stretch (role text, "from" int, "to" int)
  where (stretch.role is null or stretch.role = offered_to->>'role')
    and (work_on <> $2::date or zone is not null
      or (stretch."from" < greatest(${minutesAt('due_time', 'due_on', 1440)}, ${minutesAt('start_time', 'starts_on', 0)} + 1)
        and ${minutesAt('start_time', 'starts_on', 0)} < stretch."to")))`;

/** Minutes after midnight of a time of a task, where it has one on the day it is worked. */
function minutesAt(time: string, on: string, otherwise: number): string {
  return `(case when ${time} is null or ${on} <> work_on then ${otherwise} else extract(epoch from ${time}::time)::int / 60 end)`;
}

interface Stretch {
  readonly role: string | null;
  readonly from: number;
  readonly to: number;
}

/** When on a day somebody is at work: by their shifts, the end of one that began the evening before too; whoever is clocked on, today. */
async function stretchesOn(
  scope: Scope,
  worker: Worker,
  day: CivilDay,
  calendar: WorkingCalendar,
): Promise<readonly Stretch[]> {
  const clocked = day === scope.now.day ? await scope.find(Clocking, { personId: worker.id, offAt: IsNull() }) : [];
  const planned = [day - 1, day].flatMap((on) =>
    shiftsOn(worker, on, askedOn(on, calendar)).map(({ role, ...shift }): Stretch => {
      const { from, to } = windowOfShift(shift);
      const late = (day - on) * MOST_MINUTES_A_DAY;
      return { role, from: from - late, to: to - late };
    }),
  );
  return [
    ...planned.filter(({ to }) => to > 0),
    ...clocked.map((): Stretch => ({ role: null, from: 0, to: MOST_MINUTES_A_DAY })),
  ];
}

async function freeOn(
  scope: Scope,
  date: string,
  which: string,
  params: readonly unknown[],
): Promise<{ tasks: TaskLine[]; count: number }> {
  const nobodys = `from task where workspace_id = $1 and assignee_id is null and ${which} and state in ${TO_DO}
    and appears_on <= $2::date and (due_on >= $2::date or $2::date = $3::date)`;
  const [all] = await scope.sql<{ count: number }>(`select count(*)::int as count ${nobodys}`, [
    date,
    scope.today,
    ...params,
  ]);
  // Of however many, names and counts are looked up for those alone that are shown.
  const rows = await scope.sql<TaskRow>(
    `${linesOf(`select id ${nobodys} order by due_on, coalesce(due_time, '~'), id limit ${UNASSIGNED_SHOWN}`)}
     order by line."dueOn", coalesce(line."dueTime", '~'), line.id`,
    [date, scope.today, ...params],
  );
  return { tasks: rows.map((row) => taskLine(scope, row)), count: all?.count ?? 0 };
}

/** Finished work of others that is this person's to sign, oldest first. */
async function waitingForSign(scope: Scope, { id, roles, access }: Person) {
  const rows = await scope.sql<TaskRow>(
    `select ${TASK_COLUMNS} from ${TASK_JOINS}
     where t.workspace_id = $1 and t.state = 'toCheck' and t.done_by is distinct from $2
       and (said.sign_off->>'personId' = $2::text or said.sign_off->>'role' = any($3::text[]) or ($4 and said.sign_off->>'by' = 'manager'))
     order by t.done_at, t.id`,
    [id, reachOf(access, 'sign') === 'none' ? [] : roles, mayAll(access, 'sign')],
  );
  return rows.map((row) => taskLine(scope, row));
}

function byDue(a: TaskRow, b: TaskRow): number {
  return a.dueOn.localeCompare(b.dueOn) || byTimeOfDay(a, b);
}

/** Finished work stands where it was done; the rest by its time, those without one last. */
function byTimeOfDay(a: TaskRow, b: TaskRow): number {
  return compareTimes(timeOf(a), timeOf(b)) || a.title.localeCompare(b.title) || a.id.localeCompare(b.id);
}

const timeOf = ({ startTime, dueTime }: TaskRow): string | null => startTime ?? dueTime;

const TIDE_PAST_DAYS = 7;
const TIDE_COMING_DAYS = KEPT_DAYS;

/** The same for everybody who looks at it. */
const tidelines = ofEachDatabase(() => new Latest<Tideline>());

/** Work due per day over the past week and the coming six, of everyone or of one person. */
export function tideline(scope: Scope, personId: string | undefined): Promise<Tideline> {
  return tidelines(scope).of(`${scope.workspace.id} ${personId ?? ''}`, () => workedOut(scope, personId));
}

async function workedOut(scope: Scope, personId: string | undefined): Promise<Tideline> {
  const person = personId ? await scope.one(Person, personId, 'person') : null;
  const { day: today } = scope.now;
  const [from, to] = [today - TIDE_PAST_DAYS, today + TIDE_COMING_DAYS];
  const [made, foreseen, calls, calendar, here, late] = await Promise.all([
    scope.sql<{ dueOn: string; state: TaskState; tasks: number; minutes: number }>(
      `select due_on as "dueOn", state, count(*)::int as tasks, sum(estimate_minutes)::int as minutes from task
       where workspace_id = $1 and ($2::uuid is null or assignee_id = $2) and due_on between $3::date and $4::date group by due_on, state`,
      [personId ?? null, isoOfDay(from), isoOfDay(to)],
    ),
    foreseenMinutes(scope, personId),
    callLoad(scope, { from, to, personId }),
    scope.calendar(),
    peopleOf(scope, person?.id),
    lateCount(scope, personId),
  ]);
  return {
    from: isoOfDay(from),
    to: isoOfDay(to),
    horizon: isoOfDay(today + scope.workspace.horizonDays),
    late,
    scope: person?.name ?? `all of ${scope.workspace.name}`,
    days: dayLoads(
      [
        ...made.map((sum) => ({ ...sum, dueOn: dayOfIso(sum.dueOn) })),
        ...calls.flatMap(({ on: dueOn, done, open }) => [
          { dueOn, state: 'done' as const, tasks: 0, minutes: done },
          { dueOn, state: 'open' as const, tasks: 0, minutes: open },
        ]),
      ],
      [
        ...foreseen.map(({ dueOn, estimateMinutes }) => ({ dueOn: dayOfIso(dueOn), estimateMinutes })),
        ...calls.map(({ on: dueOn, foreseen: estimateMinutes }) => ({ dueOn, estimateMinutes })),
      ],
      from,
      to,
    ).map(({ day, done, open, projected: minutes, tasks: count }) => ({
      date: isoOfDay(day),
      done,
      open,
      projected: minutes,
      tasks: count,
      capacity: capacityOf([...here.workers.values()], day, calendar),
      isOff: !calendar.isWorkingDay(day),
      holiday: calendar.holidayName(day) ?? null,
    })),
  };
}

/** Minutes of work that all of them together can do on a day. */
function capacityOf(workers: readonly Worker[], day: CivilDay, calendar: WorkingCalendar): number {
  const asked = askedOn(day, calendar);
  return workers.reduce((sum, worker) => sum + minutesFor(worker, day, asked), 0);
}

/** Everybody as they can work, or one of them. */
const peopleOf = async (scope: Scope, personId?: string): Promise<People> =>
  peopleHere(await colleagues(scope, personId));
