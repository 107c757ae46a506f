import { fieldsOf, type SubjectOfChanges, type Telling, type Undone } from '../platform/changes/subject.ts';
import { forbidden } from '../platform/refusal.ts';
import type { Task } from '../tasks/stored/index.ts';
import { undoTemplateChange } from './service.ts';
import { Template } from './stored/index.ts';

export const templateChanges: SubjectOfChanges<Task> = {
  entity: Template,
  telling: {
    name: 'told',
    titlePattern: 'told',
    category: 'told',
    summary: 'told',
    dot: 'told',
    assignment: 'told',
    tickets: 'told',
    escalation: 'told',
    instructions: 'told',
    links: 'told',
    priority: 'told',
    workType: 'told',
    signOff: 'told',
    finishWithLast: 'told',
    numbered: 'told',
    demands: 'told',
    estimateMinutes: 'told',
    steps: 'told',
    version: 'silent',
    archivedAt: 'silent',
    changedAt: 'silent',
    changedBy: 'silent',
  } satisfies Telling<Template>,
  mayUndoOwn: () => false,
  reached: (changes) => ({ templateIds: changes.map(({ subjectId }) => subjectId) }),
  fieldsTaken: fieldsOf,
  async undo(scope, changes, rest) {
    if (!scope.mayAll('plan')) throw forbidden('Only a planner or a manager can change templates.');
    await rest();
    const undone: Undone<Task>[] = [];
    // What a file brought is taken out with the file.
    for (const change of changes)
      if (change.action !== 'brought in') undone.push(await undoTemplateChange(scope, change));
    return { said: undone.map(({ said }) => said).join(' '), kept: undone.flatMap(({ kept }) => kept) };
  },
};
