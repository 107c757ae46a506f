import { In, IsNull } from 'typeorm';
import type { PlanOfClient } from '../../contract/index.ts';
import {
  dayOfIso,
  estimatesOf,
  estimatesOfOwn,
  lastStretch,
  minutesWith,
  ownChanges,
  type PlanItem,
  plural,
  sayDuration,
  scheduleOfItem,
} from '../../core/index.ts';
import { Client } from '../clients/index.ts';
import type { Scope } from '../platform/scope.ts';
import { foresee, Schedule, scheduleRows, stateOf } from '../schedules/index.ts';
import { keepingTasks } from './dates.ts';
import { type ItemTemplate, itemWords, ownMinutes, templatesOf } from './items.ts';
import { sayOwn } from './list.ts';
import { lackingPlaces, placesOf } from './new-schedules.ts';
import { assetsOf, PlanRecord, timesOfClient } from './stored/index.ts';

/** The plans that a client is on, item by item: what is as the plan says, and what is the client's own. */
export async function plansOfClient(scope: Scope, clientId: string): Promise<{ plans: PlanOfClient[] }> {
  await scope.one(Client, clientId, 'client');
  const members = await timesOfClient(scope, clientId);
  if (members.length === 0) return { plans: [] };
  const plans = new Map(
    (await scope.find(PlanRecord, { id: In(members.map(({ planId }) => planId)) })).map((plan) => [plan.id, plan]),
  );
  const schedules = await scope.find(Schedule, { onPlanId: In(members.map(({ id }) => id)), deletedAt: IsNull() });
  const rows = new Map((await scheduleRows(scope, { ids: schedules.map(({ id }) => id) })).map((row) => [row.id, row]));
  const templates = await templatesOf(
    scope,
    [...plans.values()].flatMap(({ items }) => items),
  );
  const assets = await assetsOf(scope, [clientId]);
  const words = await itemWords(scope);
  const calendar = await scope.calendar();
  const { day: today } = scope.now;
  const tasksOf = keepingTasks(calendar, { from: today, to: today + 364 });
  const sumOf = (tasks: readonly { readonly minutes: number }[]) => ({
    tasks: tasks.length,
    minutes: tasks.reduce((sum, { minutes }) => sum + minutes, 0),
  });
  const told = members.flatMap((member): PlanOfClient[] => {
    const plan = plans.get(member.planId);
    if (!plan) return [];
    const own = schedules.filter(({ onPlanId }) => onPlanId === member.id);
    const items = plan.items.flatMap((item): PlanOfClient['items'] => {
      const template = templates.get(item.templateId);
      if (!template) return [];
      const around = { template: { id: template.id, name: template.name }, planSays: sayItem(item, template, words) };
      const there = own
        .filter(({ planItem }) => planItem === item.key)
        .map((schedule) => {
          const row = rows.get(schedule.id);
          const aspects = ownChanges(item, schedule);
          const { recurrence, own: ofSteps } = lastStretch(schedule);
          const minutes = ownMinutes(template, estimatesOfOwn(ofSteps));
          const says = sayOwn(aspects, { recurrence, assignment: schedule.assignment, minutes }, words);
          const plan = row ? foresee(scope, row, new Set(), calendar) : { next: null, timesAYear: 0, problem: null };
          const asset = assets.find(({ id }) => id === schedule.assetId)?.name ?? row?.assetName ?? null;
          return {
            ...{ item: item.key, assetId: schedule.assetId, asset, scheduleId: schedule.id, leftOut: null },
            ...{ aspects: [...aspects], says, ...around },
            ...{ next: plan.next, state: row ? stateOf(scope, row, plan) : null },
            ...sumOf(tasksOf(schedule, template)),
          };
        });
      const without = member.leftOut
        .filter((one) => one.item === item.key)
        .map(({ assetId, why }) => ({
          ...{ item: item.key, assetId, asset: assets.find(({ id }) => id === assetId)?.name ?? null },
          ...{ scheduleId: null, leftOut: why, aspects: [], says: 'left out', ...around },
          ...{ next: null, state: null, tasks: 0, minutes: 0 },
        }));
      const lacking = lackingPlaces([item], assets, member.leftOut, own).map(({ asset }) => ({
        ...{ item: item.key, assetId: asset?.id ?? null, asset: asset?.name ?? null },
        ...{ scheduleId: null, leftOut: null, aspects: [], says: 'none yet', ...around },
        ...{ next: null, state: null, tasks: 0, minutes: 0 },
      }));
      return [...there, ...without, ...lacking];
    });
    const asPlan = placesOf(plan.items, assets).flatMap(({ item }) => {
      const template = templates.get(item.templateId);
      return template ? tasksOf(scheduleOfItem(item, dayOfIso(member.fromOn)), template) : [];
    });
    const { tasks: planTasks, minutes: planMinutes } = sumOf(asPlan);
    const { id, version, fromOn, offOn, untilOn } = member;
    return [
      {
        ...{ id, version, fromOn, offOn, untilOn, items, planTasks, planMinutes },
        plan: { id: plan.id, name: plan.name, version: plan.version, rollsOn: plan.rollsOn },
        tasks: items.reduce((sum, one) => sum + one.tasks, 0),
        minutes: items.reduce((sum, one) => sum + one.minutes, 0),
      },
    ];
  });
  return { plans: told };
}

/** "last working day of every quarter, 5 min, nobody yet" */
export function sayItem(item: PlanItem, template: ItemTemplate, words: Awaited<ReturnType<typeof itemWords>>): string {
  const minutes = minutesWith(template.parts, estimatesOf(item));
  const set = template.parts.length > 1 ? `a set of ${plural(template.parts.length, 'task')}, ` : '';
  // That the usual person does it goes without saying.
  const who = item.assignment.kind === 'usualPerson' ? '' : `, ${words.who(item.assignment)}`;
  return `${words.phrase(item.recurrence)}, ${set}${sayDuration(minutes)}${who}`;
}
