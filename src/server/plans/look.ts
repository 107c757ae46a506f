import type { PlanInput, PlanLook } from '../../contract/index.ts';
import {
  civilDay,
  dayOfIso,
  estimatesOfOwn,
  followPlan,
  groupBy,
  isoOfDay,
  lastStretch,
  monthsLater,
  type OfPlan,
  offFrom,
  type Pause,
  type PlanItem,
  scheduleOfItem,
  yearMonthDay,
} from '../../core/index.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import type { Scope } from '../platform/scope.ts';
import { keepingTasks, type PlannedTask } from './dates.ts';
import { itemWords, ownMinutes, templatesOf } from './items.ts';
import { sayOwn } from './list.ts';
import { newSchedules } from './new-schedules.ts';
import {
  type AssetOfClient,
  assetsOf,
  isOn,
  type Member,
  membersOf,
  PlanRecord,
  SCHEDULES_OF_PLAN,
} from './stored/index.ts';

/** Clients named that keep something of their own; the figure counts all. */
const KEEPS_TOLD = 12;

/** Schedules of a plan that are planned alike, and how many. */
interface Alike extends OfPlan {
  readonly item: string;
  readonly fromOn: string;
  readonly pauses: readonly Pause[];
  readonly count: number;
  readonly members: readonly string[];
}

interface Year {
  readonly before: Map<string, { tasks: number; minutes: number }>;
  readonly after: Map<string, { tasks: number; minutes: number }>;
}

/** What a plan comes to in the twelve months from a day on, as it is and as it would be with other items; who changes, and who keeps their own. */
export async function lookAtPlan(
  scope: Scope,
  {
    planId,
    plan: input,
    from: fromOn,
  }: { readonly planId: string | null; readonly plan: PlanInput; readonly from: string },
): Promise<PlanLook> {
  const plan = planId === null ? null : await scope.one(PlanRecord, planId, 'plan');
  const items = input.items as PlanItem[];
  const was = new Map((plan?.items ?? []).map((item) => [item.key, item]));
  const is = new Map(items.map((item) => [item.key, item]));
  const templates = await templatesOf(scope, [...was.values(), ...items]);
  const from = Math.max(dayOfIso(fromOn), scope.now.day);
  const { year, month } = yearMonthDay(from);
  const months = Array.from({ length: 12 }, (_, i) => isoOfDay(monthsLater(civilDay(year, month, 1), i)));
  const span = { from: civilDay(year, month, 1), to: monthsLater(civilDay(year, month, 1), 12) - 1 };
  const tasksOf = keepingTasks(await scope.calendar(), span);
  const years = new Map<string, Year>();
  const yearOf = (key: string): Year => {
    const known = years.get(key) ?? { before: new Map(), after: new Map() };
    years.set(key, known);
    return known;
  };
  const put = (into: Map<string, { tasks: number; minutes: number }>, tasks: readonly PlannedTask[], count: number) => {
    for (const { on, minutes } of tasks) {
      const first = `${isoOfDay(on).slice(0, 7)}-01`;
      const sum = into.get(first) ?? { tasks: 0, minutes: 0 };
      into.set(first, { tasks: sum.tasks + count, minutes: sum.minutes + count * minutes });
    }
  };
  const members = plan ? await membersOf(scope, plan.id, scope.today) : [];
  const changing = new Set<string>();
  const keeping = new Map<string, string>();
  const words = await itemWords(scope);
  if (plan) {
    await eachInTurn(await alikeOf(scope, plan.id), (alike) => {
      const old = was.get(alike.item);
      const template = old && templates.get(old.templateId);
      if (!old || !template) return;
      const year = yearOf(old.key);
      put(year.before, tasksOf(planOf(alike), template), alike.count);
      const now = is.get(old.key);
      if (!now) {
        for (const id of alike.members) changing.add(id);
        const off = offFrom({ ...alike, exceptions: [] }, from);
        if (off) put(year.after, tasksOf(planOf({ ...alike, ...off }), template), alike.count);
        return;
      }
      const { schedule, kept } = followPlan(alike, { before: old, after: now, joins: dayOfIso(alike.fromOn), from });
      if (schedule) for (const id of alike.members) changing.add(id);
      if (kept.length > 0) {
        const { recurrence, own: ofSteps } = lastStretch(alike);
        const minutes = ownMinutes(template, estimatesOfOwn(ofSteps));
        const says = sayOwn(kept, { recurrence, assignment: alike.assignment, minutes }, words);
        for (const id of alike.members) keeping.set(id, says);
      }
      put(year.after, tasksOf(planOf({ ...alike, ...(schedule ?? {}) }), template), alike.count);
    });
    const fresh = items.filter(({ key }) => !was.has(key));
    const assets = fresh.some(({ each }) => each === 'asset')
      ? groupBy(
          await assetsOf(
            scope,
            members.map(({ clientId }) => clientId),
          ),
          ({ clientId }) => clientId,
        )
      : new Map<string, AssetOfClient[]>();
    for (const member of members)
      for (const added of newSchedules(
        member,
        fresh,
        assets.get(member.clientId) ?? [],
        Math.max(from, dayOfIso(member.fromOn)),
      )) {
        const template = templates.get(added.templateId);
        changing.add(member.id);
        if (template) put(yearOf(added.planItem ?? '').after, tasksOf(planOf(added as OfPlan), template), 1);
      }
  }
  const told = (sums: Map<string, { tasks: number; minutes: number }>) =>
    months.map((first) => ({ month: first, ...(sums.get(first) ?? { tasks: 0, minutes: 0 }) }));
  const byId = new Map(members.map((member): [string, Member] => [member.id, member]));
  const keeps = [...keeping].flatMap(([id, says]) => {
    const member = byId.get(id);
    return member ? [{ id, client: { id: member.clientId, name: member.clientName }, says }] : [];
  });
  return {
    items: [...new Set([...was.keys(), ...is.keys()])].map((key) => {
      const { before, after } = yearOf(key);
      return { key, before: told(before), after: told(after) };
    }),
    changes: [...changing].filter((id) => byId.has(id)).length,
    keeps: keeps.sort((a, b) => a.client.name.localeCompare(b.client.name)).slice(0, KEEPS_TOLD),
    keepsCount: keeps.length,
    each: items.map((item) => {
      const template = templates.get(item.templateId);
      const tasks = template ? tasksOf(scheduleOfItem(item, span.from), template) : [];
      return { key: item.key, tasks: tasks.length, minutes: tasks.reduce((sum, { minutes }) => sum + minutes, 0) };
    }),
  };
}

const planOf = ({ recurrence, timing, revisions, pauses = [] }: OfPlan & { readonly pauses?: readonly Pause[] }) => ({
  ...{ recurrence, timing, revisions, pauses },
});

/** The schedules of a plan, those that are planned alike together. */
function alikeOf(scope: Scope, planId: string): Promise<Alike[]> {
  return scope.sql<Alike>(
    `select s.plan_item as item, s.recurrence - 'v' as recurrence, s.timing - 'v' as timing, s.revisions, s.pauses, s.assignment,
       o.from_on as "fromOn", count(*)::int as count, array_agg(o.id) as members
     from ${SCHEDULES_OF_PLAN} where o.workspace_id = $1 and o.plan_id = $2 and ${isOn('$3')}
     group by s.plan_item, s.recurrence, s.timing, s.revisions, s.pauses, s.assignment, o.from_on`,
    [planId, scope.today],
  );
}
