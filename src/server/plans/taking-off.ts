import { In } from 'typeorm';
import type { z } from 'zod';
import type { Impact, ImpactItem, planEndpoints, Reach, Sync } from '../../contract/index.ts';
import { asThePlan, type CivilDay, dayOfIso, groupBy, type PlanItem, plural } from '../../core/index.ts';
import { Client } from '../clients/index.ts';
import type { ChangeEntry } from '../platform/changes/entity.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import { changedMeanwhile, invalid, notFound } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import {
  impactOfTogether,
  lockedSchedules,
  type Schedule,
  type ScheduleWrite,
  saveTogether,
  TOLD_OF_EACH,
  type Together,
} from '../schedules/index.ts';
import { SEEN_BEFORE_DAYS } from '../tasks/index.ts';
import { lockedPlan, offWrite, schedulesOf } from './changing.ts';
import { isLeftOut, lackingPlaces, newSchedule } from './new-schedules.ts';
import { entriesOfJoining, insertJoining, type Joining, joiningOf, schedulesOfJoining } from './putting-on.ts';
import { type Starting, setStarted, startFor } from './starting.ts';
import { assetsOf, lockedMembers, type Member, OnPlan, PlanRecord } from './stored/index.ts';
import { asStored } from './stored.ts';

type OffInput = z.output<(typeof planEndpoints)['takeOff']['body']>;
type LeaveOut = z.output<(typeof planEndpoints)['leaveOut']['body']>;
type AsPlan = z.output<(typeof planEndpoints)['asPlan']['body']>;
interface Saved {
  readonly tasks: Sync;
  readonly changeId: string;
}

/** Tasks that are made go where they are not begun, those that somebody sees already too. */
const ALL_OPEN: Reach = { open: true, also: [] };

/** Takes clients off a plan from a day, or from one plan to another. */
export const takeOff = (scope: Scope, input: OffInput): Promise<Saved> =>
  scope.transaction(async (tx) => {
    const { work, members, joining } = await workOfTakingOff(tx, input);
    const entries: ChangeEntry[] = members.map(({ id, offOn }) => ({
      ...{ subject: 'onPlan', subjectId: id, action: 'taken off' },
      fields: { offOn: { from: offOn, to: input.from } },
    }));
    await tx.sql(
      'update on_plan set off_on = $2, version = version + 1 where workspace_id = $1 and id = any($3::uuid[])',
      [input.from, members.map(({ id }) => id)],
    );
    await insertJoining(tx, joining);
    const saved = await saveTogether(tx, work, ALL_OPEN);
    const started = await startFor(tx, input.start, await startingOf(tx, members));
    const recorded = await tx.recordEach([...entries, ...entriesOfJoining(tx, joining), ...saved.entries]);
    const changeId = await tx.joinChanges([...recorded, ...started.changeIds]);
    await tx.tell('plans', 'schedules', 'tasks', 'templates');
    return { tasks: { ...saved.tasks, made: saved.tasks.made + started.tasks }, changeId };
  });

export const impactOfTakingOff = (scope: Scope, input: OffInput): Promise<Impact> =>
  scope.rehearse(async (tx) => {
    const { work, members, joining } = await workOfTakingOff(tx, input);
    await insertJoining(tx, joining);
    const impact = await impactOfTogether(tx, work, ALL_OPEN);
    const started: ImpactItem[] = [];
    const startedOf = await setStarted(tx, input.start);
    for (const starting of await startingOf(tx, members))
      for (const { title, on, who } of startedOf(starting))
        started.push({
          ...{ kind: 'added', because: null, taskId: null, scheduleId: null, fields: [] },
          ...{ title, on, who, about: starting.client.name },
          state: dayOfIso(on) - SEEN_BEFORE_DAYS <= tx.now.day ? 'open' : 'coming',
        });
    return withStarted(impact, started);
  });

/** What is started by hand stands with what the schedules add. */
function withStarted(impact: Impact, started: readonly ImpactItem[]): Impact {
  const room = Math.max(0, TOLD_OF_EACH - impact.figures.added);
  return {
    ...impact,
    figures: { ...impact.figures, added: impact.figures.added + started.length },
    items: [...impact.items, ...started.slice(0, room)],
  };
}

async function workOfTakingOff(
  scope: Scope,
  { clients, from, tasks, to }: OffInput,
): Promise<{ work: Together; members: readonly Member[]; joining: readonly Joining[] }> {
  const day = dayOfIso(from);
  if (day < scope.now.day) throw invalid([{ path: 'from', message: 'From today on, or from a later day.' }]);
  const members = await seenMembers(scope, clients);
  const gone = members.find(({ offOn }) => offOn !== null);
  if (gone) throw invalid([{ path: 'clients', message: `${gone.clientName} goes already on another day.` }]);
  const schedules = await schedulesOf(
    scope,
    members.map(({ id }) => id),
  );
  const lastMade = tasks === 'stay' ? await lastMadeOf(scope, schedules) : new Map<string, CivilDay>();
  const writes = await eachInTurn(schedules, (schedule): ScheduleWrite => {
    const last = lastMade.get(schedule.id);
    return offWrite(scope, schedule, last === undefined ? day : Math.max(day, last + 1));
  });
  if (to === null) return { work: { writes, added: [] }, members, joining: [] };
  const plan = await lockedPlan(scope, to.planId, to.version);
  if (members.some(({ planId }) => planId === plan.id))
    throw invalid([{ path: 'to.planId', message: `They are on ${plan.name} already.` }]);
  const joining = await joiningOf(scope, plan, {
    ...{ version: to.version, from, start: null },
    clients: [...new Set(members.map(({ clientId }) => clientId))].map((clientId) => ({ clientId, own: [] })),
  });
  return { work: { writes, added: await schedulesOfJoining(plan, joining) }, members, joining };
}

/** Whom a set is started for: each client once. */
async function startingOf(scope: Scope, members: readonly Member[]): Promise<Starting[]> {
  const ids = [...new Set(members.map(({ clientId }) => clientId))];
  const assets = groupBy(await assetsOf(scope, ids), ({ clientId }) => clientId);
  const clients = await scope.find(Client, { id: In(ids) });
  return clients.map((client) => ({ client, assets: assets.get(client.id) ?? [] }));
}

/** The last date of each schedule of which a task is made. */
async function lastMadeOf(scope: Scope, schedules: readonly Schedule[]): Promise<ReadonlyMap<string, CivilDay>> {
  const rows = await scope.sql<{ id: string; last: string }>(
    `select schedule_id as id, max(nominal_date) as last from task
     where workspace_id = $1 and schedule_id = any($2::uuid[]) group by schedule_id`,
    [schedules.map(({ id }) => id)],
  );
  return new Map(rows.map(({ id, last }) => [id, dayOfIso(last)]));
}

/** Times on a plan as they were seen. @throws Refusal where one was changed since */
export async function seenMembers(
  scope: Scope,
  seen: readonly { readonly id: string; readonly version: number }[],
): Promise<Member[]> {
  const members = await lockedMembers(
    scope,
    seen.map(({ id }) => id),
  );
  const versions = new Map(seen.map(({ id, version }) => [id, version]));
  if (members.length < versions.size) throw notFound('client on a plan');
  const others = members.filter(({ id, version }) => versions.get(id) !== version);
  if (others.length > 0)
    throw changedMeanwhile(
      `What ${others.length === 1 ? (others[0]?.clientName ?? '') : plural(others.length, 'client')} has of the plan was changed by someone else meanwhile: look at it once more.`,
    );
  return members;
}

/** Leaves an item out for one client, or takes it in again, from a day. */
export const leaveOut = (scope: Scope, onPlanId: string, input: LeaveOut): Promise<Saved> =>
  scope.transaction(async (tx) => {
    const { member, leftOut, work } = await workOfLeavingOut(tx, onPlanId, input);
    await tx.save(OnPlan, onPlanId, { leftOut, version: member.version + 1 });
    const saved = await saveTogether(tx, work, ALL_OPEN);
    const changeId = await tx.recordTogether([
      {
        ...{ subject: 'onPlan', subjectId: onPlanId, action: input.why === null ? 'taken in' : 'left out' },
        fields: { leftOut: { from: member.leftOut, to: leftOut } },
      },
      ...saved.entries,
    ]);
    await tx.tell('plans', 'schedules', 'tasks', 'templates');
    return { tasks: saved.tasks, changeId };
  });

export const impactOfLeavingOut = (scope: Scope, onPlanId: string, input: LeaveOut): Promise<Impact> =>
  scope.rehearse(async (tx) => impactOfTogether(tx, (await workOfLeavingOut(tx, onPlanId, input)).work, ALL_OPEN));

async function workOfLeavingOut(scope: Scope, onPlanId: string, { version, item: key, assetId, why, from }: LeaveOut) {
  const day = dayOfIso(from);
  if (day < scope.now.day) throw invalid([{ path: 'from', message: 'From today on, or from a later day.' }]);
  const [member] = await seenMembers(scope, [{ id: onPlanId, version }]);
  if (!member) throw notFound('client on a plan');
  const plan = await scope.one(PlanRecord, member.planId, 'plan');
  const item = plan.items.find((one) => one.key === key);
  if (!item) throw notFound('item');
  const isThere = isLeftOut(member.leftOut, key, assetId);
  const others = member.leftOut.filter((one) => one.item !== key || (assetId !== null && one.assetId !== assetId));
  if (why !== null) {
    if (isThere) throw invalid([{ path: 'item', message: `${member.clientName} does without it already.` }]);
    const schedules = (await schedulesOf(scope, [member.id], [key])).filter(
      (one) => assetId === null || one.assetId === assetId,
    );
    // What it leaves behind is over, and no part of the plan any more: an item that is taken in again begins anew.
    const writes = schedules.map((schedule): ScheduleWrite => {
      const { before, set } = offWrite(scope, schedule, day);
      return { before, set: { ...set, onPlanId: null, planItem: null } };
    });
    return { member, leftOut: [...others, { item: key, assetId, why }], work: { writes, added: [] } };
  }
  if (assetId !== null && isLeftOut(member.leftOut, key, null))
    throw invalid([{ path: 'assetId', message: 'It is left out for all that is theirs: take it in for all.' }]);
  const there = await schedulesOf(scope, [member.id], [key]);
  const places = lackingPlaces([item], await assetsOf(scope, [member.clientId]), others, there).filter(
    ({ asset }) => assetId === null || asset?.id === assetId,
  );
  if (!isThere && places.length === 0)
    throw invalid([{ path: 'item', message: `${member.clientName} has it already.` }]);
  const joins = Math.max(day, dayOfIso(member.fromOn));
  return {
    ...{ member, leftOut: others },
    work: { writes: [], added: places.map((place) => newSchedule(member, place, joins)) },
  };
}

/** Puts schedules back to what their plan says. */
export const putAsPlan = (scope: Scope, planId: string, input: AsPlan): Promise<Saved> =>
  scope.transaction(async (tx) => {
    const saved = await saveTogether(tx, await workOfAsPlan(tx, planId, input), input.reach);
    const changeId = await tx.recordTogether(saved.entries);
    await tx.tell('plans', 'schedules', 'tasks');
    return { tasks: saved.tasks, changeId };
  });

export const impactOfAsPlan = (scope: Scope, planId: string, input: AsPlan): Promise<Impact> =>
  scope.rehearse(async (tx) => impactOfTogether(tx, await workOfAsPlan(tx, planId, input), input.reach));

async function workOfAsPlan(scope: Scope, planId: string, { schedules: ids, from }: AsPlan): Promise<Together> {
  const plan = await scope.one(PlanRecord, planId, 'plan');
  const items = new Map(plan.items.map((item): [string, PlanItem] => [item.key, item]));
  const found = [...(await lockedSchedules(scope, ids)).values()];
  const members = groupBy(
    await lockedMembers(
      scope,
      found.flatMap(({ onPlanId }) => onPlanId ?? []),
    ),
    ({ id }) => id,
  );
  const day = Math.max(dayOfIso(from), scope.now.day);
  const writes = found.map((schedule): ScheduleWrite => {
    const item = items.get(schedule.planItem ?? '');
    const [member] = members.get(schedule.onPlanId ?? '') ?? [];
    if (!item || !member || member.planId !== planId)
      throw invalid([{ path: 'schedules', message: `A schedule is not of ${plan.name}.` }]);
    return { before: schedule, set: asStored(asThePlan(schedule, item, dayOfIso(member.fromOn), day)) };
  });
  return { writes, added: [] };
}
