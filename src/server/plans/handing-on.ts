import { defaultHandedOn } from '../../core/index.ts';
import { isSame } from '../platform/changes/entity.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import { PlanRecord } from './stored/index.ts';

/** Gives what plans name somebody for to somebody else, or to nobody, within another change; gives the changes that it wrote. */
export async function handOnPlans(scope: Scope, personId: string, to: string | null): Promise<string[]> {
  const changes: string[] = [];
  for (const { id } of await scope.find(PlanRecord)) {
    const plan = await scope.locked(PlanRecord, id, 'plan');
    const items = plan.items.map((item) => ({ ...item, assignment: defaultHandedOn(item.assignment, personId, to) }));
    if (isSame(items, plan.items)) continue;
    await scope.save(PlanRecord, id, { items, version: plan.version + 1 });
    changes.push(await scope.record('plan', id, 'changed', fieldChanges<PlanRecord>(plan, { items })));
  }
  if (changes.length > 0) await scope.tell('plans');
  return changes;
}
