import { fieldsOf, type SubjectOfChanges } from '../platform/changes/subject.ts';
import type { Task } from '../tasks/stored/index.ts';
import { undoFileChange } from './service.ts';
import { StoredFile } from './stored/index.ts';

export const fileChanges: SubjectOfChanges<Task> = {
  entity: StoredFile,
  silent: [],
  mayUndoOwn: () => true,
  reached: () => ({}),
  fieldsTaken: fieldsOf,
  async undo(scope, changes, rest) {
    await rest();
    const said: string[] = [];
    for (const { subjectId, fields } of changes) said.push(await undoFileChange(scope, subjectId, fields));
    return { said: said.join(' '), kept: [] };
  },
};
