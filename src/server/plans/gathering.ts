import { In } from 'typeorm';
import type { z } from 'zod';
import type { planEndpoints } from '../../contract/index.ts';
import { groupBy, type IsoDate, ownChanges, type PlanItem, plural } from '../../core/index.ts';
import { Client } from '../clients/index.ts';
import type { ChangeEntry } from '../platform/changes/entity.ts';
import { invalid, notFound } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import { lockedSchedules, type Schedule } from '../schedules/index.ts';
import { lockedPlan } from './changing.ts';
import { endOfYear, entriesOfJoining, insertJoining, type Joining } from './putting-on.ts';
import { membersAmong } from './stored/index.ts';

type Input = z.output<(typeof planEndpoints)['gather']['body']>;

/** Said of the items of a plan that a client has none of, when what is there was gathered. */
const NOT_GATHERED = 'was not there when the plan was made';

/**
 * Takes schedules that are there as those of an item of a plan, and puts their clients on it. Nothing else of them changes, nor
 * any task: what they say otherwise than the plan is the client's own.
 */
export function gatherSchedules(
  scope: Scope,
  planId: string,
  { version, item: key, schedules: ids }: Input,
): Promise<{ schedules: number; clients: number; own: number; changeId: string }> {
  return scope.transaction(async (tx) => {
    const plan = await lockedPlan(tx, planId, version);
    const item = plan.items.find((one) => one.key === key);
    if (!item) throw notFound('item');
    const schedules = [...(await lockedSchedules(tx, ids)).values()];
    mustFit(schedules, item);
    const members = new Map(
      (
        await membersAmong(
          tx,
          planId,
          schedules.flatMap(({ clientId }) => clientId ?? []),
          tx.today,
        )
      ).map((one) => [one.clientId, one.id]),
    );
    const others = groupBy(
      schedules.filter(({ clientId }) => clientId !== null && !members.has(clientId)),
      ({ clientId }) => clientId ?? '',
    );
    const clients = new Map((await tx.find(Client, { id: In([...others.keys()]) })).map((one) => [one.id, one]));
    const joining = [...others].flatMap(([clientId, own]): Joining[] => {
      const client = clients.get(clientId);
      if (!client) return [];
      const fromOn = own.map(({ recurrence: { start } }) => start).reduce<IsoDate>((a, b) => (a < b ? a : b), tx.today);
      const id = tx.newId();
      members.set(clientId, id);
      return [
        {
          ...{ client, assets: [], own: [] },
          on: {
            ...{ id, version: 1, planId, clientId, fromOn, offOn: null, undoneAt: null },
            untilOn: plan.rollsOn === 'asks' ? endOfYear(tx, tx.now.day) : null,
            leftOut: plan.items
              .filter((one) => one.key !== key)
              .map((one) => ({ item: one.key, assetId: null, why: NOT_GATHERED })),
          },
        },
      ];
    });
    await insertJoining(tx, joining);
    const entries = schedules.map((schedule): ChangeEntry => {
      const set = { onPlanId: members.get(schedule.clientId ?? '') ?? null, planItem: key };
      return {
        subject: 'schedule',
        subjectId: schedule.id,
        action: 'changed',
        fields: fieldChanges<Schedule>(schedule, set),
      };
    });
    await tx.sql(
      `update schedule s set on_plan_id = now.on_plan, plan_item = $2, version = s.version + 1
       from unnest($3::uuid[], $4::uuid[]) as now (id, on_plan) where s.workspace_id = $1 and s.id = now.id`,
      [key, schedules.map(({ id }) => id), schedules.map(({ clientId }) => members.get(clientId ?? '') ?? null)],
    );
    const changeId = await tx.recordTogether([...entriesOfJoining(tx, joining), ...entries]);
    await tx.tell('plans', 'schedules');
    return {
      ...{ schedules: schedules.length, clients: joining.length, changeId },
      own: schedules.filter((schedule) => ownChanges(item, schedule).length > 0).length,
    };
  });
}

function mustFit(schedules: readonly Schedule[], item: PlanItem): void {
  const wrong = (message: string) => invalid([{ path: 'schedules', message }]);
  const count = (fits: (schedule: Schedule) => boolean) => schedules.filter((one) => !fits(one)).length;
  const others = count(({ templateId }) => templateId === item.templateId);
  if (others > 0) throw wrong(`${plural(others, 'schedule is', 'schedules are')} of another template.`);
  const ofNobody = count(({ clientId }) => clientId !== null);
  if (ofNobody > 0) throw wrong(`${plural(ofNobody, 'schedule is', 'schedules are')} for no client.`);
  const gathered = count(({ onPlanId }) => onPlanId === null);
  if (gathered > 0) throw wrong(`${plural(gathered, 'schedule is', 'schedules are')} of a plan already.`);
  const gone = count(({ deletedAt }) => deletedAt === null);
  if (gone > 0) throw wrong(`${plural(gone, 'schedule is', 'schedules are')} deleted: bring them back first.`);
}
