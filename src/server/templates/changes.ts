import { fieldsOf, type SubjectOfChanges, type Undone } from '../platform/changes/subject.ts';
import { forbidden } from '../platform/refusal.ts';
import type { Task } from '../tasks/stored/index.ts';
import { undoTemplateChange } from './service.ts';
import { Template } from './stored/index.ts';

export const templateChanges: SubjectOfChanges<Task> = {
  entity: Template,
  silent: ['archivedAt', 'row'],
  mayUndoOwn: () => false,
  reached: (changes) => ({ templateIds: changes.map(({ subjectId }) => subjectId) }),
  fieldsTaken: fieldsOf,
  async undo(scope, changes, rest) {
    if (!scope.person?.isManager) throw forbidden('Only a manager can change templates.');
    await rest();
    const undone: Undone<Task>[] = [];
    for (const change of changes) undone.push(await undoTemplateChange(scope, change));
    return { said: undone.map(({ said }) => said).join(' '), kept: undone.flatMap(({ kept }) => kept) };
  },
};
