import { In } from 'typeorm';
import type { z } from 'zod';
import type { OwnOfClient, planEndpoints, Sync } from '../../contract/index.ts';
import {
  civilDay,
  dayOfIso,
  groupBy,
  type IsoDate,
  isoOfDay,
  type PlanItem,
  sayDate,
  yearMonthDay,
} from '../../core/index.ts';
import { Client } from '../clients/index.ts';
import type { ChangeEntry } from '../platform/changes/entity.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import { invalid, notFound } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import {
  mustBeInUse,
  type NewSchedule,
  peopleById,
  problemsOfPeople,
  rulesOf,
  saveInParts,
  UNSEEN_ONLY,
} from '../schedules/index.ts';
import { lockedPlan } from './changing.ts';
import { newSchedules } from './new-schedules.ts';
import { startFor } from './starting.ts';
import {
  type AssetOfClient,
  assetsOf,
  type LeftOut,
  membersAmong,
  type OnPlan,
  type PlanRecord,
} from './stored/index.ts';

type Input = z.output<(typeof planEndpoints)['lookAtPuttingOn']['body']>;

/** A client who is to be on a plan, with what is different for this one. */
export interface Joining {
  readonly on: Omit<OnPlan, 'workspaceId'>;
  readonly client: Client;
  readonly assets: readonly AssetOfClient[];
  readonly own: readonly OwnOfClient[];
}

/** Puts clients on a plan from a day: all of them, or none. */
export function putOn(
  scope: Scope,
  planId: string,
  { follow, ...input }: Input & { readonly follow?: string | undefined },
): Promise<{ clients: number; tasks: Sync; changeId: string }> {
  const steps = input.clients.length * (input.start === null ? 1 : 2);
  return scope.followed(follow, steps).transaction(async (tx) => {
    const plan = await lockedPlan(tx, planId, input.version);
    const joining = await joiningOf(tx, plan, input);
    await insertJoining(tx, joining);
    const { tasks, entries } = await saveInParts(
      tx,
      { writes: [], added: await schedulesOfJoining(plan, joining) },
      UNSEEN_ONLY,
      joining.length,
    );
    const started = await startFor(tx, input.start, joining);
    const recorded = await tx.recordEach([...entriesOfJoining(tx, joining), ...entries]);
    const changeId = await tx.joinChanges([...recorded, ...started.changeIds]);
    await tx.tell('plans', 'schedules', 'tasks', 'templates');
    return { clients: joining.length, tasks: { ...tasks, made: tasks.made + started.tasks }, changeId };
  });
}

/** Rows of the time on a plan, in one statement. */
export async function insertJoining(scope: Scope, joining: readonly Joining[]): Promise<void> {
  await scope.sql(
    `insert into on_plan (workspace_id, id, version, plan_id, client_id, from_on, until_on, off_on, left_out)
     select $1, id, 1, plan_id, client_id, from_on, until_on, null, left_out
     from jsonb_to_recordset($2::jsonb) as new (id uuid, plan_id uuid, client_id uuid, from_on date, until_on date, left_out jsonb)`,
    [
      JSON.stringify(
        joining.map(({ on: { id, planId, clientId, fromOn, untilOn, leftOut } }) => ({
          ...{ id, plan_id: planId, client_id: clientId, from_on: fromOn, until_on: untilOn, left_out: leftOut },
        })),
      ),
    ],
  );
}

export function entriesOfJoining(scope: Scope, joining: readonly Joining[]): ChangeEntry[] {
  const fields = { undoneAt: { from: scope.instant.toISOString(), to: null } };
  return joining.map(({ on: { id } }) => ({ subject: 'onPlan', subjectId: id, action: 'put on', fields }));
}

export async function schedulesOfJoining(plan: PlanRecord, joining: readonly Joining[]): Promise<NewSchedule[]> {
  const each = await eachInTurn(joining, ({ on, assets, own }) =>
    newSchedules(on, plan.items, assets, dayOfIso(on.fromOn), own),
  );
  return each.flat();
}

/** The last day of the year of the workspace that a day lies in. */
export function endOfYear(scope: Scope, day: number): IsoDate {
  const { year, month } = yearMonthDay(day);
  const { yearStarts } = scope.workspace;
  return isoOfDay(civilDay(month >= yearStarts ? year + 1 : year, yearStarts, 1) - 1);
}

/** @throws Refusal that says of each client what stands in the way */
export async function joiningOf(scope: Scope, plan: PlanRecord, { from, clients }: Input): Promise<Joining[]> {
  if (plan.archivedAt !== null)
    throw invalid([{ path: 'version', message: `“${plan.name}” is archived: bring it back first.` }]);
  if (plan.items.length === 0)
    throw invalid([{ path: 'version', message: `“${plan.name}” has no items yet: add one first.` }]);
  const day = dayOfIso(from);
  if (day < scope.now.day - 366 || day > scope.now.day + 3 * 366)
    throw invalid([{ path: 'from', message: 'From a day of the past year or of the coming three.' }]);
  const ids = clients.map(({ clientId }) => clientId);
  const found = new Map((await scope.find(Client, { id: In(ids) })).map((client) => [client.id, client]));
  const assets = groupBy(await assetsOf(scope, ids), ({ clientId }) => clientId);
  const there = await membersAmong(scope, plan.id, ids, from);
  const since = new Map(there.map(({ clientId, fromOn }) => [clientId, fromOn]));
  const untilOn = plan.rollsOn === 'asks' ? endOfYear(scope, day) : null;
  const joining = clients.map(({ clientId, own }, i): Joining => {
    const client = found.get(clientId);
    if (!client) throw notFound('client');
    mustBeInUse(client, `clients.${i}.clientId`);
    const already = since.get(clientId);
    if (already !== undefined)
      throw invalid([
        {
          path: `clients.${i}.clientId`,
          message: `${client.name} is on ${plan.name} already, since ${sayDate(dayOfIso(already))}.`,
        },
      ]);
    const leftOut = own.flatMap(({ item, assetId, leftOut: why }): LeftOut[] =>
      why === undefined ? [] : [{ item, assetId, why }],
    );
    const on = {
      ...{ id: scope.newId(), version: 1, planId: plan.id, clientId, fromOn: from, untilOn, offOn: null, leftOut },
      undoneAt: null,
    };
    return { on, client, assets: assets.get(clientId) ?? [], own };
  });
  await mustBePossible(scope, plan, joining);
  return joining;
}

/** What is different for a client names what is there, and gives dates. */
async function mustBePossible(scope: Scope, plan: PlanRecord, joining: readonly Joining[]): Promise<void> {
  const items = new Map(plan.items.map((item): [string, PlanItem] => [item.key, item]));
  const people = await peopleById(scope);
  const calendar = await scope.calendar();
  const known = new Map<string, readonly { readonly message: string }[]>();
  const problems = joining.flatMap(({ own, client, assets }, i) =>
    own.flatMap(({ item, assetId = null, assignment, recurrence, leftOut }, n) => {
      const wrong = (path: string, message: string) => [
        { path: `clients.${i}.own.${n}.${path}`, message: `${client.name}: ${message}` },
      ];
      if (!items.has(item)) return wrong('item', 'the plan has no such item.');
      if (assetId !== null && !assets.some(({ id }) => id === assetId)) return wrong('assetId', 'that is not theirs.');
      if (leftOut !== undefined) return [];
      // The same rule stands with many clients.
      const key = JSON.stringify([assignment, recurrence]);
      const found = known.get(key) ?? [
        ...(assignment ? problemsOfPeople(scope, { assignment }, people, null) : []),
        ...(recurrence ? rulesOf({ recurrence }, calendar, scope.now.day) : []),
      ];
      known.set(key, found);
      return found.flatMap(({ message }) => wrong(assignment ? 'assignment' : 'recurrence', message));
    }),
  );
  if (problems.length > 0) throw invalid(problems.slice(0, 20));
}
