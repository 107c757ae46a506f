import type { PlanItem } from '../src/core/index.ts';
import { PLAIN_TIMING, parsePhrase } from '../src/core/index.ts';
import { undoChange } from '../src/server/history/undo.ts';
import {
  changePlan,
  clientsOfPlan,
  createPlan,
  impactOfPlan,
  lookAtPlan,
  lookAtPuttingOn,
  putOn,
} from '../src/server/plans/index.ts';
import { largeDatabase, largeScope } from './lists-database.ts';
import { longStep } from './measure.ts';

/**
 * npm run bench plans: a plan of eight items among a million tasks. 500 clients are rehearsed and put on it, beside the bare
 * statement that writes as many schedules; then 2,000 are on it, and a change of the plan is looked at and saved.
 */

const PHRASES = [
  'every 3 months on the first Tuesday',
  'last working day of every quarter',
  '15th of each month, or the working day after',
  'yearly on 4 December',
  'first working day of February',
  'yearly on the second Wednesday of April',
  'every 2 weeks on Friday',
  'first Monday of each month',
];
const large = await largeDatabase();
try {
  await measure();
} finally {
  await large.close();
}

async function measure(): Promise<void> {
  const scope = await largeScope(large.source);
  const step = async <T>(what: string, aim: number | null, work: () => Promise<T>): Promise<T> =>
    (await longStep(what, work, () => (aim === null ? '' : `aim ${aim} s`))).value;
  const templates = await scope.sql<{ id: string }>(
    'select id from template where workspace_id = $1 and archived_at is null order by id limit 8',
  );
  const clients = await scope.sql<{ id: string }>(
    'select id from client where workspace_id = $1 and archived_at is null order by id limit 2000',
  );
  const items = PHRASES.map(
    (phrase, i): PlanItem => ({
      ...{ key: `i${i}`, templateId: templates[i]?.id ?? '', counts: 'joining', after: { amount: 0, unit: 'day' } },
      recurrence: parsePhrase(phrase, { start: '2026-01-01' }),
      timing: { ...PLAIN_TIMING, appears: { amount: -1, unit: 'workingDay' } },
      overlap: { kind: 'add' },
      assignment: { v: 1, kind: 'usualPerson', otherwiseId: null, daysOffToo: false, cover: 'deputy' },
      ...{ estimateMinutes: null, each: 'client' },
    }),
  );
  const input = { name: `Bench ${Date.now()}`, note: '', rollsOn: 'itself' as const, items };
  const { plan } = await createPlan(scope, input as Parameters<typeof createPlan>[1]);
  const of = (some: typeof clients) => ({
    ...{ version: plan.version, from: '2026-12-01', start: null },
    clients: some.map(({ id }) => ({ clientId: id, own: [] })),
  });
  const first = clients.slice(0, 500);
  await lookAtPuttingOn(scope, plan.id, of(first.slice(0, 20)));
  const { figures } = await step('500 clients rehearsed, 8 items', 1.5, () =>
    lookAtPuttingOn(scope, plan.id, of(first)),
  );
  console.log(`  ${JSON.stringify(figures)}`);
  const made = await step('the same made', 15, () => putOn(scope, plan.id, of(first)));
  console.log(`  ${JSON.stringify(made.tasks)}`);
  await step('bare rows, as many schedules', null, () =>
    scope.rehearse(async (tx) => {
      await tx.sql(
        `insert into schedule select s.* from (select (jsonb_populate_record(null::schedule, to_jsonb(o) || jsonb_build_object('id', gen_random_uuid()))).*
           from schedule o where o.workspace_id = $1 and o.on_plan_id is not null limit 4000) s`,
      );
    }),
  );
  console.log(`  ${(await step('taken out again', null, () => undoChange(scope, made.changeId))).said}`);
  const changes = [];
  for (let at = 0; at < 2000; at += 500) changes.push(await putOn(scope, plan.id, of(clients.slice(at, at + 500))));
  const body = {
    ...{ version: plan.version, from: '2026-11-24', reach: { open: false, also: [] } },
    plan: {
      ...input,
      items: items.map((item, i) =>
        i === 2 ? { ...item, recurrence: parsePhrase('16th of each month', { start: '2026-01-01' }) } : item,
      ),
    } as Parameters<typeof createPlan>[1],
  };
  await step('figures of the plan, 2,000 clients', null, () =>
    lookAtPlan(scope, { planId: plan.id, plan: body.plan, from: body.from }),
  );
  await step('who is on it', null, () => clientsOfPlan(scope, plan.id, {}));
  const impact = await step('impact of a change of one item, 2,000 clients', 3, () =>
    impactOfPlan(scope, plan.id, body),
  );
  console.log(`  ${JSON.stringify(impact.figures)}`);
  const changed = await step('the same saved', null, () => changePlan(scope, plan.id, body));
  console.log(`  ${JSON.stringify(changed.tasks)}`);
  await step('undone', null, () => undoChange(scope, changed.changeId));
  for (const { changeId } of changes) await undoChange(scope, changeId);
}
