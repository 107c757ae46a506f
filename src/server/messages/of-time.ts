import { NONE_OF_THEM, timingSchema } from '../../contract/index.ts';
import {
  dayOfIso,
  ESCALATED_TO,
  type EscalatedTo,
  type Escalation,
  groupBy,
  instantOf,
  isoOfDay,
  offsetDay,
  plural,
  remindersBetween,
  sayFirstOf,
  sayTimed,
  type TimedKind,
  type WorkingCalendar,
} from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import { TO_DO } from '../tasks/stored/index.ts';
import { giversOf } from './givers.ts';
import { Office } from './office.ts';
import { type Told, tell } from './telling.ts';

const HOUR = 3_600_000;
/** At which time of a working day it is told what is due next, and of what nobody has. */
const SOON_AT = '14:00';
const MORNING_AT = '08:00';
const NOBODY_DAYS = 7;
/** After so long a time without anybody to tell it, what is older is told of by the lists alone. */
const LONGEST_GAP = 31 * 24 * HOUR;

/** A stretch of time whose end is told of: after one instant, up to another, in milliseconds. */
interface Stretch {
  readonly after: number;
  readonly upTo: number;
}

/** What else a feature has to tell on the morning of a working day. */
export type Morning = (scope: Scope, office: Office) => Promise<readonly Told[]>;

/** A task that somebody is told of by the time. */
interface Timed {
  readonly taskId: string;
  readonly title: string;
  readonly personId: string | null;
  readonly dueOn: string;
  /** The instant of which it is told. */
  readonly at: number;
}

/**
 * Tells what has come with the time since it was told last: work that is due soon, reminded of, late, or has nobody. How far
 * that is is written with what it tells, so that after a fall it goes on there; and each is told once for its instant,
 * whatever became of the plan in between. After a time in which nobody was told it is gathered.
 */
export function tellOfTime(scope: Scope, mornings: readonly Morning[]): Promise<void> {
  return scope.transaction(async (tx) => {
    const upTo = tx.instant.getTime();
    const [told] = await tx.sql<{ at: Date }>('select at from told_to where workspace_id = $1 for update');
    await tx.sql(
      'insert into told_to (workspace_id, at) values ($1, $2) on conflict (workspace_id) do update set at = $2',
      [tx.instant],
    );
    // Of the time before anybody could be told nothing is.
    if (told === undefined || told.at.getTime() >= upTo) return;
    const stretch = { after: Math.max(told.at.getTime(), upTo - LONGEST_GAP), upTo };
    const calendar = await tx.calendar();
    const found = [
      ...(await lateIn(tx, stretch)),
      ...(await remindedIn(tx, stretch, calendar)),
      ...(await soonIn(tx, stretch, calendar)),
    ];
    const isMorning = lastTime(tx, stretch, MORNING_AT, calendar) !== null;
    if (found.length === 0 && !isMorning) return;
    const office = await Office.of(tx);
    const givers = await giversOf(
      tx,
      found.flatMap(({ kind, tasks }) =>
        kind === 'late' || kind === 'client' ? tasks.map(({ taskId }) => taskId) : [],
      ),
    );
    const all: Told[] = found.flatMap((one) => toldOf(tx, office, givers, one));
    if (isMorning) for (const morning of [nobodys, ...mornings]) all.push(...(await morning(tx, office)));
    await tell(tx, office, all);
  });
}

interface Found {
  readonly kind: TimedKind;
  /** Who of each is told: whoever has it, those who answer for it, the deputy of whoever has it. */
  readonly to: readonly EscalatedTo[];
  readonly tasks: readonly Timed[];
}

/** Those that were not told of that instant before. */
async function notTold(scope: Scope, kind: Found['kind'], to: Found['to'], tasks: readonly Timed[]): Promise<Found[]> {
  if (tasks.length === 0) return [];
  const rows = await scope.sql<{ taskId: string; at: Date }>(
    `insert into told_once (workspace_id, task_id, kind, at)
     select $1, task_id, $2, at from unnest($3::uuid[], $4::timestamptz[]) as told (task_id, at) order by task_id, at
     on conflict do nothing returning task_id as "taskId", at`,
    [`${kind} ${to.join(' ')}`, tasks.map(({ taskId }) => taskId), tasks.map(({ at }) => new Date(at))],
  );
  const fresh = new Set(rows.map(({ taskId, at }) => `${taskId} ${at.getTime()}`));
  // Of one task the last alone: what was to be told earlier is told by it.
  const last = new Map<string, Timed>();
  for (const task of tasks) if (fresh.has(`${task.taskId} ${task.at}`)) last.set(task.taskId, task);
  return last.size === 0 ? [] : [{ kind, to, tasks: [...last.values()] }];
}

const TIMED = `task.id as "taskId", task.title, task.assignee_id as "personId", task.due_on as "dueOn"`;

type Dated = Omit<Timed, 'at'> & { readonly dueTime: string | null; readonly zone: string | null };

const dueAt = (scope: Scope, { dueOn, dueTime, zone }: Dated): number =>
  dueTime === null
    ? instantOf(isoOfDay(dayOfIso(dueOn) + 1), '00:00', zone ?? scope.workspace.zone)
    : instantOf(dueOn, dueTime, zone ?? scope.workspace.zone);

/** Work that has been late for as long as it takes until somebody is told of it. */
async function lateIn(scope: Scope, stretch: Stretch): Promise<Found[]> {
  const found: Found[] = [];
  const own = await scope.sql<{ ids: string[]; escalation: Escalation }>(
    `select array_agg(id) as ids, escalation from template where workspace_id = $1 and escalation is not null group by escalation`,
  );
  const others = own.flatMap(({ ids }) => ids);
  for (const to of ESCALATED_TO)
    for (const { escalation, ids } of [{ escalation: scope.workspace.escalation, ids: null }, ...own]) {
      const hours = escalation[to];
      if (hours !== null)
        found.push(...(await lateFor(scope, stretch, hours * HOUR, to, { only: ids, without: others })));
    }
  return found;
}

/** Of which templates: some that say it themselves, or all work but that of those. */
interface Meant {
  readonly only: readonly string[] | null;
  readonly without: readonly string[];
}

async function lateFor(
  scope: Scope,
  { after, upTo }: Stretch,
  late: number,
  to: EscalatedTo,
  { only, without }: Meant,
): Promise<Found[]> {
  const [first, last] = [after - late, upTo - late];
  const day = (instant: number) => new Date(instant).toISOString().slice(0, 10);
  // Within a day of the stretch by any zone; then to the minute, by the zone of each.
  const rows = await scope.sql<Dated & { readonly isClients: boolean }>(
    `select ${TIMED}, task.due_time as "dueTime", task.zone, coalesce(task.offered_to->>'of', '') = 'client' as "isClients" from task
     where workspace_id = $1 and state in ${TO_DO} and due_on between $2::date - 2 and $3::date + 1
       and (held_until is null or held_until <= $4::date) ${to === 'answering' ? '' : 'and assignee_id is not null'}
       and case when $8::uuid[] is null then template_id is null or template_id <> all($9::uuid[]) else template_id = any($8::uuid[]) end
       and (case when due_time is null then due_on + 1 else due_on end + coalesce(due_time, '00:00')::time)
         at time zone coalesce(zone, $5) between $6::timestamptz - interval '3 hours' and $7::timestamptz + interval '3 hours'
     order by due_on, id`,
    [day(first), day(last), scope.today, scope.workspace.zone, new Date(first), new Date(last), only, without],
  );
  const due = rows.map((row) => ({ ...row, at: dueAt(scope, row) })).filter(({ at }) => at > first && at <= last);
  const of = (isClients: boolean) => due.filter((row) => row.isClients === isClients);
  return [...(await notTold(scope, 'late', [to], of(false))), ...(await notTold(scope, 'client', [to], of(true)))];
}

/** What schedules plan to be reminded of, and is still to be done. */
async function remindedIn(scope: Scope, stretch: Stretch, calendar: WorkingCalendar): Promise<Found[]> {
  // Many are timed alike: each way is read and reckoned once.
  const ways = await scope.sql<{ timing: unknown; from: string | null; to: string | null; ids: string[] }>(
    `with part as (
       select id, timing, null::date as starts from schedule
       where workspace_id = $1 and deleted_at is null and (timing->'reminders' <> '[]' or revisions <> '[]')
       union all
       select schedule.id, revision->'timing', (revision->>'from')::date from schedule, jsonb_array_elements(revisions) as revision
       where workspace_id = $1 and deleted_at is null and revisions <> '[]'),
     stretch as (
       select id, timing, starts, lead(starts) over (partition by id order by starts nulls first) as ends from part)
     select timing, starts as "from", ends as "to", array_agg(id) as ids from stretch
     where timing->'reminders' <> '[]' group by timing, starts, ends`,
  );
  const wanted = ways.flatMap(({ timing, from, to, ids }) =>
    remindersBetween(timingSchema.parse(timing), stretch, calendar, scope.workspace.zone).flatMap(({ on, at }) =>
      ids.map((id) => ({ schedule_id: id, work_on: isoOfDay(on), at, from_on: from, to_on: to })),
    ),
  );
  if (wanted.length === 0) return [];
  const rows = await scope.sql<Timed>(
    `select ${TIMED}, wanted.at from jsonb_to_recordset($2::jsonb)
       as wanted (schedule_id uuid, work_on date, at bigint, from_on date, to_on date)
     join task on task.workspace_id = $1 and task.schedule_id = wanted.schedule_id and task.work_on = wanted.work_on
       and task.set_index = 0 and task.state in ${TO_DO} and (task.held_until is null or task.held_until <= $3::date)
       and (wanted.from_on is null or task.nominal_date >= wanted.from_on) and (wanted.to_on is null or task.nominal_date < wanted.to_on)
     order by wanted.at, task.id`,
    [JSON.stringify(wanted), scope.today],
  );
  return notTold(scope, 'reminder', ['own'], rows);
}

/** The last working day in a stretch that has come to a time of day; null where there is none. */
function lastTime(scope: Scope, { after, upTo }: Stretch, time: string, calendar: WorkingCalendar): number | null {
  for (let day = scope.now.day; ; day--) {
    const at = instantOf(isoOfDay(day), time, scope.workspace.zone);
    if (at <= after) return null;
    if (at <= upTo && calendar.isWorkingDay(day)) return day;
  }
}

/** What is due on the next working day, or on days off before it. */
async function soonIn(scope: Scope, stretch: Stretch, calendar: WorkingCalendar): Promise<Found[]> {
  const day = lastTime(scope, stretch, SOON_AT, calendar);
  if (day === null) return [];
  const next = offsetDay(day, { amount: 1, unit: 'workingDay' }, calendar);
  const rows = await scope.sql<Dated>(
    `select ${TIMED}, task.due_time as "dueTime", task.zone from task
     where workspace_id = $1 and state in ${TO_DO} and due_on > $2::date and due_on <= $3::date and assignee_id is not null
     order by due_on, due_time nulls last, id`,
    [isoOfDay(Math.max(day, scope.now.day - 1)), isoOfDay(next)],
  );
  return notTold(
    scope,
    'soon',
    ['own', 'answering'],
    rows.map((row) => ({ ...row, at: dueAt(scope, row) })),
  );
}

/** Who hears of it: each of what is theirs, those who answer for it of all of it, a deputy of whoever has it; in one line each. */
function toldOf(
  scope: Scope,
  office: Office,
  givers: ReadonlyMap<string, readonly string[]>,
  { kind, to, tasks }: Found,
): Told[] {
  const telling = office.telling(scope);
  const line = (personId: string, side: Told['side'], some: readonly Timed[]): Told[] => {
    const [first] = some;
    if (first === undefined) return [];
    return [
      {
        ...{ personId, side, kind, times: some.length, taskId: first.taskId, byId: null },
        ...sayTimed(kind, side, some, telling),
        path: some.length === 1 ? null : pathOf(kind, side, personId),
      },
    ];
  };
  const each = (side: Told['side'], personOf: (task: Timed) => string | null) =>
    [...groupBy(tasks, personOf)].flatMap(([personId, some]) => (personId === null ? [] : line(personId, side, some)));
  const whom: Readonly<Record<EscalatedTo, () => Told[]>> = {
    own: () => each('mine', ({ personId }) => personId),
    answering: () => {
      const all = new Set(office.answering(kind));
      const gave = groupBy(
        tasks.flatMap((task) => (givers.get(task.taskId) ?? []).map((personId) => ({ personId, task }))),
        ({ personId }) => personId,
      );
      const others = (personId: string, some: readonly Timed[]) =>
        line(
          personId,
          'gave',
          some.filter((task) => task.personId !== personId),
        );
      return [
        ...[...all].flatMap((personId) => others(personId, tasks)),
        ...[...gave].flatMap(([personId, some]) =>
          all.has(personId)
            ? []
            : others(
                personId,
                some.map(({ task }) => task),
              ),
        ),
      ];
    },
    deputy: () => each('gave', ({ personId }) => office.deputyOf(personId)),
  };
  return to.flatMap((one) => whom[one]());
}

const pathOf = (kind: Found['kind'], side: Told['side'], personId: string) =>
  `/tasks?${side === 'mine' ? `person=${personId}&` : ''}${kind === 'late' || kind === 'client' ? 'are=late&due=any' : 'are=unfinished&due=any'}`;

/** Work of the coming days that nobody has and that is offered to nobody. */
async function nobodys(scope: Scope, office: Office): Promise<Told[]> {
  const [from, to] = [scope.today, isoOfDay(scope.now.day + NOBODY_DAYS)];
  const [found] = await scope.sql<{ count: number; titles: string[] }>(
    `select count(*)::int as count, (array_agg(title order by due_on, id))[1:3] as titles from task
     where workspace_id = $1 and assignee_id is null and offered_to is null and state in ('open', 'underWay')
       and due_on between $2::date and $3::date`,
    [from, to],
  );
  if (found === undefined || found.count === 0) return [];
  const { count, titles } = found;
  const search = new URLSearchParams({ are: 'open', person: NONE_OF_THEM, offered: 'no', from, to });
  return office.answering('nobody').map((personId) => ({
    ...{ personId, side: 'gave', kind: 'nobody', times: count, taskId: null, byId: null, path: `/tasks?${search}` },
    title: `${plural(count, 'task')} within ${NOBODY_DAYS} days ${count === 1 ? 'has' : 'have'} nobody`,
    text: sayFirstOf(titles, count),
  }));
}
