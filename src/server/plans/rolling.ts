import type { z } from 'zod';
import {
  ASKS_DAYS,
  type Impact,
  MOST_PUT_ON,
  type planEndpoints,
  type RollingLine,
  type Sync,
} from '../../contract/index.ts';
import { dayOfIso, isoOfDay, rolledOn } from '../../core/index.ts';
import type { ChangeEntry } from '../platform/changes/entity.ts';
import { invalid } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { impactOfTogether, type ScheduleWrite, saveTogether, type Together, UNSEEN_ONLY } from '../schedules/index.ts';
import { schedulesOf } from './changing.ts';
import { endOfYear } from './putting-on.ts';
import { isOn, type Member, ownCounts } from './stored/index.ts';
import { storedParts } from './stored.ts';
import { seenMembers } from './taking-off.ts';

type Input = z.output<(typeof planEndpoints)['rollOn']['body']>;

/** Whose year on a plan that asks ends soon, or has ended: as many as can be kept at once. */
export async function listRolling(scope: Scope): Promise<{ clients: RollingLine[]; isMore: boolean }> {
  const rows = await scope.sql<
    Omit<RollingLine, 'client' | 'plan' | 'laterOn' | 'own'> &
      Record<'clientId' | 'clientName' | 'planId' | 'planName', string>
  >(
    `select o.id, o.version, o.from_on as "fromOn", o.until_on as "untilOn", c.id as "clientId", c.name as "clientName",
       p.id as "planId", p.name as "planName" from on_plan o
     join client c on c.workspace_id = o.workspace_id and c.id = o.client_id
     join service_plan p on p.workspace_id = o.workspace_id and p.id = o.plan_id
     where o.workspace_id = $1 and ${isOn('$2')} and o.off_on is null and o.until_on <= $3::date
     order by lower(p.name), p.id, lower(c.name), o.id limit ${MOST_PUT_ON + 1}`,
    [scope.today, isoOfDay(scope.now.day + ASKS_DAYS)],
  );
  const page = rows.slice(0, MOST_PUT_ON);
  const own = new Map(
    (
      await scope.sql<{ id: string; changes: number }>(ownCounts('o.workspace_id = $1 and o.id = any($2::uuid[])'), [
        page.map(({ id }) => id),
      ])
    ).map(({ id, changes }) => [id, changes]),
  );
  return {
    isMore: rows.length > MOST_PUT_ON,
    clients: page.map(({ id, version, fromOn, untilOn, clientId, clientName, planId, planName }) => {
      return {
        ...{ id, version, fromOn, untilOn, laterOn: laterThan(scope, untilOn) },
        ...{ client: { id: clientId, name: clientName }, plan: { id: planId, name: planName } },
        own: own.get(id) ?? 0,
      };
    }),
  };
}

/** The end of the year after the one that a client's time ends with; of one long past, that of the year which is running. */
const laterThan = (scope: Scope, untilOn: string): string =>
  endOfYear(scope, Math.max(dayOfIso(untilOn) + 1, scope.now.day));

/** Lets the time of clients on their plan go on for another year. */
export const rollOn = (scope: Scope, input: Input): Promise<{ tasks: Sync; changeId: string }> =>
  scope.transaction(async (tx) => {
    const { members, work } = await workOfRollingOn(tx, input);
    for (const [later, of] of byLater(tx, members))
      await tx.sql(
        'update on_plan set until_on = $2, version = version + 1 where workspace_id = $1 and id = any($3::uuid[])',
        [later, of.map(({ id }) => id)],
      );
    const saved = await saveTogether(tx, work, UNSEEN_ONLY);
    const entries = members.map(
      ({ id, untilOn }): ChangeEntry => ({
        ...{ subject: 'onPlan', subjectId: id, action: 'rolled on' },
        fields: { untilOn: { from: untilOn, to: laterThan(tx, untilOn ?? '') } },
      }),
    );
    const changeId = await tx.recordTogether([...entries, ...saved.entries]);
    await tx.tell('plans', 'schedules', 'tasks');
    return { tasks: saved.tasks, changeId };
  });

export const impactOfRollingOn = (scope: Scope, input: Input): Promise<Impact> =>
  scope.rehearse(async (tx) => impactOfTogether(tx, (await workOfRollingOn(tx, input)).work, UNSEEN_ONLY));

function byLater(scope: Scope, members: readonly Member[]): Map<string, Member[]> {
  const groups = new Map<string, Member[]>();
  for (const member of members) {
    const later = laterThan(scope, member.untilOn ?? '');
    groups.set(later, [...(groups.get(later) ?? []), member]);
  }
  return groups;
}

async function workOfRollingOn(scope: Scope, { clients }: Input): Promise<{ members: Member[]; work: Together }> {
  const members = await seenMembers(scope, clients);
  const endless = members.find(({ untilOn, offOn }) => untilOn === null || offOn !== null);
  if (endless)
    throw invalid([
      { path: 'clients', message: `${endless.clientName} is not on a plan that asks before it goes on.` },
    ]);
  const byId = new Map(members.map((member) => [member.id, member]));
  const schedules = await schedulesOf(
    scope,
    members.map(({ id }) => id),
  );
  const writes = schedules.flatMap((schedule): ScheduleWrite[] => {
    const until = byId.get(schedule.onPlanId ?? '')?.untilOn;
    if (!until) return [];
    return [{ before: schedule, set: storedParts(rolledOn(schedule, until, laterThan(scope, until))) }];
  });
  return { members, work: { writes, added: [] } };
}
