import { plural } from '../../core/index.ts';
import type { Change } from '../platform/changes/entity.ts';
import { fieldsBefore } from '../platform/changes/entity.ts';
import { fieldsOf, type SubjectOfChanges, type Telling } from '../platform/changes/subject.ts';
import { forbidden } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import type { Task } from '../tasks/stored/index.ts';
import { OnPlan, PlanRecord } from './stored/index.ts';

function mustPlan(scope: Scope): void {
  if (!scope.mayAll('plan')) throw forbidden('Only a planner or a manager can change service plans.');
}

export const planChanges: SubjectOfChanges<Task> = {
  entity: PlanRecord,
  telling: {
    name: 'told',
    note: 'told',
    rollsOn: 'told',
    items: 'told',
    ...{ version: 'silent', archivedAt: 'silent' },
  } satisfies Telling<PlanRecord>,
  mayUndoOwn: () => false,
  reached: () => ({}),
  fieldsTaken: fieldsOf,
  async undo(scope, changes, rest) {
    mustPlan(scope);
    const said: string[] = [];
    for (const change of changes) said.push(await undoPlan(scope, change));
    await rest();
    await scope.tell('plans');
    return { said: said.join(' '), kept: [] };
  },
};

async function undoPlan(scope: Scope, { subjectId, action, fields }: Change): Promise<string> {
  const plan = await scope.locked(PlanRecord, subjectId, 'plan');
  const before = action === 'created' ? { archivedAt: scope.instant } : fieldsBefore(plan, fields);
  await scope.save(PlanRecord, subjectId, { ...before, version: plan.version + 1 });
  await scope.record('plan', subjectId, 'undone', fieldChanges(plan, before));
  return action === 'created' ? `${plan.name} is in the archive.` : `${plan.name} is as it was before.`;
}

export const onPlanChanges: SubjectOfChanges<Task> = {
  entity: OnPlan,
  // What a client has of a plan is told by its schedules, and in words.
  telling: {
    ...{ version: 'silent', planId: 'silent', clientId: 'silent', fromOn: 'silent', untilOn: 'silent' },
    ...{ offOn: 'silent', leftOut: 'silent', undoneAt: 'silent' },
  } satisfies Telling<OnPlan>,
  mayUndoOwn: () => false,
  reached: () => ({}),
  fieldsTaken: fieldsOf,
  async undo(scope, changes, rest) {
    mustPlan(scope);
    for (const { subjectId, fields } of changes) {
      const on = await scope.locked(OnPlan, subjectId, 'client on a plan');
      const before = fieldsBefore(on, fields);
      await scope.save(OnPlan, subjectId, { ...before, version: on.version + 1 });
      await scope.record('onPlan', subjectId, 'undone', fieldChanges(on, before));
    }
    await rest();
    await scope.tell('plans');
    const clients = new Set(changes.map(({ subjectId }) => subjectId)).size;
    return { said: `Of ${plural(clients, 'client')} the plan is as it was before.`, kept: [] };
  },
};
