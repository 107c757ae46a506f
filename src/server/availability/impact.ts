import type { Covered, LeaveImpact, LeaveInput, PersonInput } from '../../contract/index.ts';
import {
  type Assignment,
  type CivilDay,
  callNames,
  dayOfIso,
  isoOfDay,
  type LeaveCover,
  type NameOf,
  sayPassedOver,
  sayWhy,
  sayWhyOf,
  type WeekOfWork,
  type Why,
} from '../../core/index.ts';
import { Leave, weeksOfWork } from '../people/index.ts';
import { Person } from '../platform/identity/person.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import { notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import {
  type ForeseenTask,
  foreseenTasks,
  makingFor,
  nominalKey,
  readableSchedule,
  scheduleRows,
  unsettled,
} from '../schedules/index.ts';
import type { Task } from '../tasks/stored/index.ts';
import type { Exchanged } from './exchanges.ts';
import { everybody, liesIn, type Span, schedulesOf, wholeOf } from './following.ts';
import { checkCover, daysOfLeave, holdLeave, spanOf, writeNew } from './leave.ts';
import { changePerson, singleDays } from './members.ts';
import { peersOf, receiversOf } from './who-gets-it.ts';

/** Tasks told one by one; the counts are of all. */
const TOLD = 200;

/** What entering leave would do: it is done, looked at, and taken back. */
export function impactOfEntering(scope: Scope, personId: string, input: LeaveInput): Promise<LeaveImpact> {
  return scope.rehearse(async (tx) => {
    const before = await workIn(tx, personId, [{ from: dayOfIso(input.from), to: dayOfIso(input.to) }]);
    const { leave, exchanged } = await writeNew(tx, personId, input);
    // What is asked for is looked at as if it were given.
    const { told } = leave.state === 'asked' ? await give(tx, leave, leave.cover) : exchanged;
    return toldOfLeave(tx, leave, before, told);
  });
}

/** What giving it would do. */
export function impactOfGiving(scope: Scope, id: string, cover: LeaveCover | null): Promise<LeaveImpact> {
  return scope.rehearse(async (tx) => {
    const leave = await tx.locked(Leave, id, 'leave');
    if (leave.state !== 'asked') throw notNow('That is decided already.');
    await checkCover(tx, leave.personId, cover);
    const before = await workIn(tx, leave.personId, [spanOf(leave)]);
    const { told } = await give(tx, leave, cover);
    return toldOfLeave(tx, leave, before, told);
  });
}

/** What a change of somebody's hours on single days would do to the work of those days. */
export function impactOfChanging(
  scope: Scope,
  personId: string,
  input: PersonInput & { readonly version: number },
): Promise<LeaveImpact> {
  return scope.rehearse(async (tx) => {
    const { shiftChanges } = await tx.one(Person, personId, 'person');
    const days = singleDays(shiftChanges, input.shiftChanges, tx.now.day);
    if (days.length === 0) throw notNow('Hours of no day to come are others: there is nothing to look at.');
    const before = await workIn(tx, personId, days);
    await changePerson(tx, personId, input);
    return { days: days.length, holidays: 0, exchanges: [], ...(await told(tx, personId, days, before)) };
  });
}

async function toldOfLeave(
  scope: Scope,
  leave: Leave,
  before: WorkIn,
  exchanges: LeaveImpact['exchanges'],
): Promise<LeaveImpact> {
  const here = await everybody(scope);
  return {
    ...daysOfLeave(leave, here, await scope.calendar()),
    ...(await told(scope, leave.personId, [spanOf(leave)], before)),
    exchanges,
  };
}

async function give(scope: Scope, leave: Leave, cover: LeaveCover | null): Promise<Exchanged> {
  const before = await everybody(scope);
  await scope.save(Leave, leave.id, { state: 'given', cover });
  const { exchanged } = await holdLeave(scope, { ...leave, cover }, before);
  return exchanged;
}

/** What somebody has in some days: tasks that are made, and what their schedules foresee. */
interface WorkIn {
  readonly made: readonly MadeWork[];
  readonly foreseen: readonly Foreseen[];
  readonly scheduleIds: readonly string[];
  readonly weeks: readonly WeekOfWork[];
}

interface MadeWork
  extends Pick<Task, 'id' | 'scheduleId' | 'workOn' | 'estimateMinutes' | 'state' | 'offeredTo' | 'head' | 'why'> {
  readonly work: string;
  readonly about: string | null;
}

async function workIn(scope: Scope, personId: string, days: readonly Span[]): Promise<WorkIn> {
  const here = await everybody(scope);
  const scheduleIds = await schedulesOf(scope, [personId], here);
  return {
    scheduleIds,
    weeks: await weeksOfWork(scope),
    made: await scope.sql<MadeWork>(
      `select t.id, t.schedule_id as "scheduleId", coalesce(w.name, t.title) as work, t.work_on as "workOn", t.estimate_minutes as "estimateMinutes",
         t.state, t.offered_to as "offeredTo", t.head, t.why, coalesce(a.name, c.name) as about
       from task t left join asset a on a.workspace_id = t.workspace_id and a.id = t.asset_id
       left join client c on c.workspace_id = t.workspace_id and c.id = t.client_id
       left join template w on w.workspace_id = t.workspace_id and w.id = t.template_id and t.step_key = ''
       where t.workspace_id = $1 and t.assignee_id = $2 and t.state in ('open', 'underWay') and exists (
         select 1 from unnest($3::date[], $4::date[]) as span (first, last) where t.work_on between first and last)
       order by t.work_on, t.id`,
      [personId, days.map(({ from }) => isoOfDay(from)), days.map(({ to }) => isoOfDay(to))],
    ),
    foreseen: (await foreseenIn(scope, scheduleIds, days)).filter(({ assigneeId }) => assigneeId === personId),
  };
}

interface Foreseen extends ForeseenTask {
  readonly work: string;
}

/** What schedules foresee in some days and is not made yet; those that can't be planned foresee nothing. */
async function foreseenIn(scope: Scope, scheduleIds: readonly string[], days: readonly Span[]): Promise<Foreseen[]> {
  const { from, to } = wholeOf(days);
  const rows = await scheduleRows(scope, { ids: scheduleIds });
  const making = await makingFor(scope, rows);
  const first = Math.max(from, scope.now.day);
  const tasks = await eachInTurn(rows, (row) => {
    const planned = row.problem === null ? readableSchedule(scope, row) : null;
    return planned ? foreseenTasks(scope, row, planned, making, first, to) : [];
  });
  const workOf = new Map(rows.map(({ id, templateName }) => [id, templateName]));
  const ofThem = tasks.flat().filter(({ workOn }) => liesIn(days, dayOfIso(workOn)));
  return (await unsettled(scope, ofThem)).map((task) => ({
    ...task,
    work: task.stepKey === '' ? (workOf.get(task.scheduleId) ?? task.title) : task.title,
  }));
}

async function told(
  scope: Scope,
  personId: string,
  days: readonly Span[],
  before: WorkIn,
): Promise<Omit<LeaveImpact, 'days' | 'holidays' | 'exchanges'>> {
  const here = await everybody(scope);
  const names = await scope.peopleNames();
  const called = callNames([...names].map(([id, name]) => ({ id, name })));
  const nameOf = (id: string) => called.get(id) ?? 'somebody';
  const { day: today } = scope.now;
  const after = new Map(
    (
      await scope.sql<Pick<Task, 'id' | 'assigneeId' | 'offeredTo' | 'why'>>(
        `select id, assignee_id as "assigneeId", offered_to as "offeredTo", why from task where workspace_id = $1 and id = any($2::uuid[])`,
        [before.made.map(({ id }) => id)],
      )
    ).map((task) => [task.id, task]),
  );
  const foreseen = new Map((await foreseenIn(scope, before.scheduleIds, days)).map((task) => [nominalKey(task), task]));
  const why = (task: Pick<Task, 'assigneeId' | 'offeredTo' | 'why'>) => {
    if (task.why !== null && task.assigneeId !== null) return sayCover(task.why, personId, nameOf, today);
    if (task.why !== null) return sayWhyOf(null, task.why, nameOf, today);
    const free: Assignment = { kind: 'nobody', why: null };
    return task.offeredTo === null ? sayWhy(free, nameOf, today) : 'whoever takes it';
  };
  const outcome = (task: Pick<Task, 'assigneeId' | 'offeredTo' | 'why'>) => ({
    fate: fateOf(personId, task),
    to: task.assigneeId === null ? null : { id: task.assigneeId, name: names.get(task.assigneeId) ?? '' },
    why: fateOf(personId, task) === 'stays' ? 'on days off too' : why(task),
  });
  // Where each of several has one, whoever is away has none: nobody takes it over.
  const dropped = { fate: 'dropped' as const, to: null, why: 'each who is there has one' };
  const items: Covered[] = [
    ...before.made.map((task): Covered => {
      const now = after.get(task.id);
      const { id, scheduleId, work, about, workOn, estimateMinutes, state } = task;
      const base = {
        taskId: id,
        scheduleId,
        work,
        about,
        on: workOn,
        minutes: estimateMinutes,
        state,
        how: howOf(task),
      };
      return { ...base, ...(now ? outcome(now) : dropped), ...(state === 'underWay' ? { why: 'begun' } : {}) };
    }),
    ...before.foreseen.flatMap((task): Covered[] => {
      const now = foreseen.get(nominalKey(task));
      const { scheduleId, work, assetName, clientName, workOn, estimateMinutes } = task;
      const how = howOf(task);
      const base = { scheduleId, work, about: assetName ?? clientName, on: workOn, minutes: estimateMinutes, how };
      if (!now && task.head === '') return [];
      return [{ taskId: null, ...base, state: 'foreseen', ...(now ? outcome(now) : dropped) }];
    }),
  ].sort((a, b) => a.on.localeCompare(b.on) || a.work.localeCompare(b.work));
  const { deputyId, roles } = await scope.one(Person, personId, 'person');
  const count = (fate: Covered['fate']) => items.filter((item) => item.fate === fate).length;
  const countBy = (how: Covered['how']) => items.filter((item) => item.how === how && item.fate !== 'stays').length;
  return {
    counts: {
      ...{ goes: count('goes'), offered: count('offered'), nobody: count('nobody') },
      ...{ dropped: count('dropped'), stays: count('stays') },
      notMade: items.filter(({ taskId }) => taskId === null).length,
      minutes: items.reduce((sum, { minutes }) => sum + minutes, 0),
      ...{ turns: countBy('turns'), name: countBy('name') },
    },
    items: items.slice(0, TOLD),
    deputy: deputyId === null ? null : { id: deputyId, name: names.get(deputyId) ?? '' },
    peers: await peersOf(scope, { personId, role: roles[0] }, here, days, before.weeks),
    receivers: await receiversOf(scope, here, items, before.weeks),
  };
}

/** How somebody comes to it while whoever had it is away, which needs not be said: who else could not, or by which rule. */
function sayCover(why: Why, personId: string, nameOf: NameOf, today: CivilDay): string {
  const others = why.by === 'hand' ? [] : why.passedOver.filter((one) => one.personId !== personId);
  if (others.length > 0) return sayPassedOver(others, nameOf, today);
  switch (why.by) {
    case 'turn':
      return why.insteadOf === personId ? 'for a later turn' : 'next in turn';
    case 'list':
      return 'next on the list';
    case 'each':
      return 'each has one';
    case 'name':
    case 'usual person':
      return 'takes over';
    case 'least to do':
      return sayWhyOf(personId, why, nameOf, today);
    case 'hand':
      return 'chosen by hand';
  }
}

/** What of a choice for their leave whoever is away would have it by. */
function howOf({ offeredTo, head, why }: Pick<Task, 'offeredTo' | 'head' | 'why'>): Covered['how'] {
  if (offeredTo !== null || head !== '') return 'other';
  switch (why?.by) {
    case 'turn':
    case 'list':
      return 'turns';
    case 'each':
    case 'least to do':
      return 'other';
    case 'name':
    case 'usual person':
    case 'hand':
    case undefined:
      return 'name';
  }
}

function fateOf(personId: string, { assigneeId, offeredTo }: Pick<Task, 'assigneeId' | 'offeredTo'>): Covered['fate'] {
  if (assigneeId === personId) return 'stays';
  if (assigneeId !== null) return 'goes';
  return offeredTo === null ? 'nobody' : 'offered';
}
