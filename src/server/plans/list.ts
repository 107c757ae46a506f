import type { OnPlanLine, PlanLine } from '../../contract/index.ts';
import { ON_PLAN_A_PAGE } from '../../contract/index.ts';
import {
  type AssignmentRule,
  estimatesOfOwn,
  groupBy,
  type OwnAspect,
  type OwnOfSteps,
  type Recurrence,
  sayDuration,
  scheduleOfItem,
} from '../../core/index.ts';
import { readCursor } from '../platform/http/cursor.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import type { Scope } from '../platform/scope.ts';
import { keepingTasks } from './dates.ts';
import { itemWords, ownMinutes, templatesOf } from './items.ts';
import { countsOfPlans, isOn, OWN_ASPECTS_SQL, ownCounts, PlanRecord, SCHEDULES_OF_PLAN } from './stored/index.ts';

/** All plans by name, those in the archive last. */
export async function listPlans(scope: Scope): Promise<{ plans: PlanLine[] }> {
  const plans = await scope.find(PlanRecord);
  const counts = await countsOfPlans(scope);
  const templates = await templatesOf(
    scope,
    plans.flatMap(({ items }) => items),
  );
  const { day } = scope.now;
  const tasksOf = keepingTasks(await scope.calendar(), { from: day, to: day + 364 });
  const lines = await eachInTurn(plans, (plan): PlanLine => {
    const tasks = plan.items.flatMap((item) => {
      const template = templates.get(item.templateId);
      return template ? tasksOf(scheduleOfItem(item, day), template) : [];
    });
    const { id, version, name, archivedAt, rollsOn, items } = plan;
    return {
      ...{ id, version, name, rollsOn, isArchived: archivedAt !== null, clients: counts.get(id) ?? 0 },
      items: items.flatMap(({ templateId }) => templates.get(templateId)?.name ?? []),
      ...{ tasksEach: tasks.length, minutesEach: tasks.reduce((sum, { minutes }) => sum + minutes, 0) },
    };
  });
  return {
    plans: lines.sort((a, b) => Number(a.isArchived) - Number(b.isArchived) || a.name.localeCompare(b.name)),
  };
}

/** Those with something of their own first, then by name. */
const SORTS_AS = `(case when own.id is null then 'b' else 'a' end || lower(c.name))`;

interface OwnRow {
  readonly onPlanId: string;
  readonly scheduleId: string;
  readonly item: string;
  readonly assetId: string | null;
  readonly asset: string | null;
  readonly aspects: readonly OwnAspect[];
  readonly recurrence: Recurrence;
  readonly assignment: AssignmentRule;
  readonly ofSteps: OwnOfSteps | null;
}

/** Who is on a plan, and what each has of its own: those who have any first, each by name. */
export async function clientsOfPlan(
  scope: Scope,
  planId: string,
  { own, after }: { readonly own?: 'yes' | undefined; readonly after?: string | undefined },
): Promise<{
  clients: OnPlanLine[];
  more: string | null;
  counts: { all: number; own: number; changes: number };
}> {
  const plan = await scope.one(PlanRecord, planId, 'plan');
  const cursor = readCursor(after);
  const ofPlan = `o.workspace_id = $1 and o.plan_id = $2 and ${isOn('$3')}`;
  // What is their own is looked for once, for the figures and the page alike.
  const [answer] = await scope.sql<{
    counts: { all: number; own: number; changes: number };
    rows: (Omit<OnPlanLine, 'own' | 'client'> & {
      clientId: string;
      name: string;
      sortsAs: string;
      leftOut: LeftOutRow[];
    })[];
  }>(
    `with own as materialized (${ownCounts(ofPlan)}),
       lines as materialized (select o.id, o.version, o.client_id as "clientId", c.name, ${SORTS_AS} as "sortsAs",
         o.from_on as "fromOn", o.off_on as "offOn", o.until_on as "untilOn", o.left_out as "leftOut", own.changes
       from on_plan o join client c on c.workspace_id = o.workspace_id and c.id = o.client_id left join own on own.id = o.id
       where ${ofPlan}),
       page as (select * from lines where ($4::boolean is false or changes is not null)
         and ($5::text is null or ("sortsAs", id) > ($5::text, $6::uuid)) order by "sortsAs", id limit $7)
     select (select jsonb_build_object('all', count(*), 'own', count(changes), 'changes', coalesce(sum(changes), 0)) from lines) as counts,
       (select coalesce(jsonb_agg(to_jsonb(page) - 'changes' order by "sortsAs", id), '[]') from page) as rows`,
    [planId, scope.today, own === 'yes', cursor?.[0] ?? null, cursor?.[1] ?? null, ON_PLAN_A_PAGE + 1],
  );
  const { counts, rows } = answer ?? { counts: { all: 0, own: 0, changes: 0 }, rows: [] };
  const page = rows.slice(0, ON_PLAN_A_PAGE);
  const last = page.at(-1);
  const told = await ownOf(
    scope,
    page.map(({ id, leftOut }) => ({ id, leftOut })),
    plan,
  );
  return {
    clients: page.map(({ id, version, clientId, name, fromOn, offOn, untilOn }) => ({
      ...{ id, version, fromOn, offOn, untilOn, client: { id: clientId, name } },
      own: told.get(id) ?? [],
    })),
    more: rows.length > ON_PLAN_A_PAGE && last ? JSON.stringify([last.sortsAs, last.id]) : null,
    counts,
  };
}

interface LeftOutRow {
  readonly item: string;
  readonly assetId: string | null;
  readonly why: string;
}

/** What some times on a plan have of their own, in the order of the items. */
async function ownOf(
  scope: Scope,
  members: readonly { readonly id: string; readonly leftOut: readonly LeftOutRow[] }[],
  plan: PlanRecord,
): Promise<ReadonlyMap<string, OnPlanLine['own']>> {
  const rows = await scope.sql<OwnRow>(
    `select o.id as "onPlanId", s.id as "scheduleId", s.plan_item as item, s.asset_id as "assetId", a.name as asset,
       ${OWN_ASPECTS_SQL} as aspects, coalesce(s.revisions->-1->'recurrence', s.recurrence) as recurrence, s.assignment,
       s.revisions->-1->'own' as "ofSteps"
     from ${SCHEDULES_OF_PLAN} left join asset a on a.workspace_id = s.workspace_id and a.id = s.asset_id
     where o.workspace_id = $1 and o.id = any($2::uuid[]) and cardinality(${OWN_ASPECTS_SQL}) > 0`,
    [members.map(({ id }) => id)],
  );
  const words = await itemWords(scope);
  const templates = await templatesOf(scope, plan.items);
  const templateOf = new Map(plan.items.map(({ key, templateId }) => [key, templates.get(templateId)]));
  const place = new Map(plan.items.map(({ key }, i) => [key, i]));
  const names = new Map(
    (
      await scope.sql<{ id: string; name: string }>(
        'select id, name from asset where workspace_id = $1 and id = any($2::uuid[])',
        [members.flatMap(({ leftOut }) => leftOut.flatMap(({ assetId }) => assetId ?? []))],
      )
    ).map(({ id, name }) => [id, name]),
  );
  const ofEach = groupBy(rows, ({ onPlanId }) => onPlanId);
  return new Map(
    members.map(({ id, leftOut }) => [
      id,
      [
        ...(ofEach.get(id) ?? []).map(({ scheduleId, item, assetId, asset, aspects, ofSteps, ...row }) => {
          const template = templateOf.get(item);
          const minutes = template ? ownMinutes(template, estimatesOfOwn(ofSteps ?? {})) : null;
          return {
            ...{ item, assetId, asset, scheduleId, aspects: [...aspects], leftOut: null },
            says: sayOwn(aspects, { ...row, minutes }, words),
          };
        }),
        ...leftOut
          .filter(({ item }) => place.has(item))
          .map(({ item, assetId, why }) => ({
            ...{ item, assetId, asset: names.get(assetId ?? '') ?? null, scheduleId: null, aspects: [], leftOut: why },
            says: 'left out',
          })),
      ].sort((a, b) => (place.get(a.item) ?? 0) - (place.get(b.item) ?? 0)),
    ]),
  );
}

/** "first Thursday of each month, by Kit Sorrell" */
export function sayOwn(
  aspects: readonly OwnAspect[],
  {
    recurrence,
    assignment,
    minutes,
  }: Pick<OwnRow, 'recurrence' | 'assignment'> & {
    /** Of the whole set; null as the template says. */
    readonly minutes: number | null;
  },
  words: Awaited<ReturnType<typeof itemWords>>,
): string {
  const says: Readonly<Record<OwnAspect, () => string>> = {
    rule: () => words.phrase(recurrence),
    timing: () => 'other hours',
    who: () => `by ${words.who(assignment)}`,
    estimate: () => (minutes === null ? 'as long as the template says' : sayDuration(minutes)),
  };
  return aspects.map((aspect) => says[aspect]()).join(', ');
}
