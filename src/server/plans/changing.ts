import type { z } from 'zod';
import {
  type Impact,
  MOST_PLANS,
  type PlanInput,
  type planEndpoints,
  type ServicePlan,
  type Sync,
} from '../../contract/index.ts';
import {
  type CivilDay,
  changedAspects,
  dayOfIso,
  followPlan,
  groupBy,
  isoOfDay,
  offFrom,
  type PlanItem,
} from '../../core/index.ts';
import { isSame } from '../platform/changes/entity.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import { changedMeanwhile, invalid } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import {
  impactOfTogether,
  lockedSchedules,
  type NewSchedule,
  type Schedule,
  type ScheduleWrite,
  saveInParts,
  type Together,
} from '../schedules/index.ts';
import { problemsOfItems, toldItems } from './items.ts';
import { newSchedules } from './new-schedules.ts';
import { assetsOf, countsOfPlans, type Member, membersOf, PlanRecord } from './stored/index.ts';
import { asStored } from './stored.ts';

type Change = Omit<z.output<(typeof planEndpoints)['change']['body']>, 'follow'>;

export async function tellPlan(scope: Scope, plan: PlanRecord): Promise<ServicePlan> {
  const { id, version, name, note, rollsOn, archivedAt } = plan;
  return {
    ...{ id, version, name, note, rollsOn, isArchived: archivedAt !== null },
    items: await toldItems(scope, plan.items),
    clients: (await countsOfPlans(scope)).get(id) ?? 0,
  };
}

export const onePlan = async (scope: Scope, id: string): Promise<ServicePlan> =>
  tellPlan(scope, await scope.one(PlanRecord, id, 'plan'));

/** A plan held against others until the transaction ends. @throws Refusal where it is another than was seen */
export async function lockedPlan(scope: Scope, id: string, version: number): Promise<PlanRecord> {
  const plan = await scope.locked(PlanRecord, id, 'plan');
  if (plan.version !== version)
    throw changedMeanwhile(
      `“${plan.name}” was changed by someone else meanwhile. Nothing is saved: look at it once more.`,
    );
  return plan;
}

export function createPlan(scope: Scope, input: PlanInput): Promise<{ plan: ServicePlan; changeId: string }> {
  return scope.transaction(async (tx) => {
    await tx.lockedWorkspace();
    await mustFit(tx, input, null);
    const plan = await tx.insert(PlanRecord, { id: tx.newId(), version: 1, ...kept(input), archivedAt: null });
    const changeId = await tx.record('plan', plan.id, 'created', {});
    await tx.tell('plans');
    return { plan: await tellPlan(tx, plan), changeId };
  });
}

export function changePlan(
  scope: Scope,
  id: string,
  { follow, ...input }: Change & { readonly follow?: string | undefined },
): Promise<{ plan: ServicePlan; tasks: Sync; changeId: string }> {
  return scope.followed(follow, 100).transaction(async (tx) => {
    const { before, set, work } = await plannedChange(tx, id, input);
    await tx.save(PlanRecord, id, { ...set, version: before.version + 1 });
    const { tasks, entries } = await saveInParts(tx, work, input.reach, 100);
    const fields = fieldChanges<PlanRecord>(before, set);
    const changeId = await tx.recordTogether([
      { subject: 'plan', subjectId: id, action: 'changed', fields },
      ...entries,
    ]);
    await tx.tell('plans', 'schedules', 'tasks');
    return { plan: await onePlan(tx, id), tasks, changeId };
  });
}

/** What changing it would do to the tasks of all its clients. */
export const impactOfPlan = (scope: Scope, id: string, input: Change): Promise<Impact> =>
  scope.rehearse(async (tx) => {
    const { set, before, work } = await plannedChange(tx, id, input);
    await tx.save(PlanRecord, id, { ...set, version: before.version + 1 });
    return impactOfTogether(tx, work, input.reach);
  });

export function archivePlan(
  scope: Scope,
  id: string,
  { version, archived }: { readonly version: number; readonly archived: boolean },
): Promise<{ plan: ServicePlan; changeId: string }> {
  return scope.transaction(async (tx) => {
    const plan = await lockedPlan(tx, id, version);
    const clients = (await membersOf(tx, id, tx.today)).length;
    if (archived && clients > 0)
      throw invalid([
        { path: 'archived', message: 'There are clients on it: take them off first, or put them on another.' },
      ]);
    const set = { archivedAt: archived ? tx.instant : null };
    await tx.save(PlanRecord, id, { ...set, version: plan.version + 1 });
    const changeId = await tx.record('plan', id, archived ? 'archived' : 'brought back', fieldChanges(plan, set));
    await tx.tell('plans');
    return { plan: await onePlan(tx, id), changeId };
  });
}

const kept = ({ name, note, rollsOn, items }: PlanInput) => ({ name, note, rollsOn, items: items as PlanItem[] });

async function mustFit(scope: Scope, input: PlanInput, before: PlanRecord | null): Promise<void> {
  const others = (await scope.find(PlanRecord)).filter(({ id }) => id !== before?.id);
  if (before === null && others.length >= MOST_PLANS)
    throw invalid([{ path: 'plan.name', message: `${MOST_PLANS} plans at most.` }]);
  if (others.some(({ name, archivedAt }) => archivedAt === null && name.toLowerCase() === input.name.toLowerCase()))
    throw invalid([{ path: 'plan.name', message: `There is a plan “${input.name}” already.` }]);
  const problems = await problemsOfItems(scope, input.items as PlanItem[], before?.items ?? []);
  if (problems.length > 0) throw invalid(problems);
}

async function plannedChange(scope: Scope, id: string, { version, plan: input, from }: Change) {
  const before = await lockedPlan(scope, id, version);
  await mustFit(scope, input, before);
  const day = dayOfIso(from);
  if (day < scope.now.day)
    throw invalid([{ path: 'from', message: 'A change counts from today on, or from a later day.' }]);
  const set = kept(input);
  const work = await workOfChange(scope, before, set.items, day);
  return { before, set, work };
}

/** What a change of the items of a plan from a day on makes of the schedules of all its clients. */
export async function workOfChange(
  scope: Scope,
  before: PlanRecord,
  items: readonly PlanItem[],
  from: CivilDay,
): Promise<Together> {
  const was = new Map(before.items.map((item) => [item.key, item]));
  const is = new Map(items.map((item) => [item.key, item]));
  const touched = [...was.keys()].filter((key) => {
    const [old, now] = [was.get(key), is.get(key)];
    return old && (!now || changedAspects(old, now).length > 0 || !isSame(old.overlap, now.overlap));
  });
  const members = new Map((await membersOf(scope, before.id, isoOfDay(from))).map((one) => [one.id, one]));
  const schedules = await schedulesOf(scope, [...members.keys()], touched);
  const writes = await eachInTurn(schedules, (schedule): ScheduleWrite[] => {
    const member = members.get(schedule.onPlanId ?? '');
    const old = was.get(schedule.planItem ?? '');
    if (!member || !old) return [];
    const now = is.get(old.key);
    if (!now) return [offWrite(scope, schedule, from)];
    const { schedule: next } = followPlan(schedule, { before: old, after: now, joins: dayOfIso(member.fromOn), from });
    const overlap =
      isSame(schedule.overlap, old.overlap) && !isSame(old.overlap, now.overlap) ? { overlap: now.overlap } : {};
    const set: Partial<Schedule> = { ...overlap, ...(next ? asStored(next) : {}) };
    return Object.keys(set).length === 0 ? [] : [{ before: schedule, set }];
  });
  const fresh = items.filter(({ key }) => !was.has(key));
  return { writes: writes.flat(), added: await addedTo(scope, [...members.values()], fresh, from) };
}

/** Items that are new on a plan, for all who are on it: from the day of the change, or from when they join. */
async function addedTo(
  scope: Scope,
  members: readonly Member[],
  items: readonly PlanItem[],
  from: CivilDay,
): Promise<NewSchedule[]> {
  if (items.length === 0) return [];
  const assets = groupBy(
    await assetsOf(
      scope,
      members.map(({ clientId }) => clientId),
    ),
    ({ clientId }) => clientId,
  );
  return members.flatMap((member) =>
    newSchedules(member, items, assets.get(member.clientId) ?? [], Math.max(from, dayOfIso(member.fromOn))),
  );
}

/** Schedules of times on a plan that are of some of its items, held against others; deleted ones are left out. */
export async function schedulesOf(
  scope: Scope,
  onPlanIds: readonly string[],
  items: readonly string[] | null = null,
): Promise<Schedule[]> {
  const ids = await scope.sql<{ id: string }>(
    `select id from schedule where workspace_id = $1 and on_plan_id = any($2::uuid[]) and deleted_at is null
       and ($3::text[] is null or plan_item = any($3))`,
    [onPlanIds, items],
  );
  if (ids.length === 0) return [];
  return [
    ...(
      await lockedSchedules(
        scope,
        ids.map(({ id }) => id),
      )
    ).values(),
  ];
}

/** A schedule that has nothing from a day on. */
export function offWrite(scope: Scope, schedule: Schedule, from: CivilDay): ScheduleWrite {
  const off = offFrom(schedule, from);
  if (off === null) return { before: schedule, set: { deletedAt: scope.instant } };
  const { exceptions, pauses } = off;
  return { before: schedule, set: { ...asStored(off), exceptions: [...exceptions], pauses: [...pauses] } };
}
