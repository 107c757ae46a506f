import { fieldsOf, type SubjectOfChanges, type Telling } from '../platform/changes/subject.ts';
import type { Task } from '../tasks/stored/index.ts';
import { undoFileChange } from './service.ts';
import { StoredFile } from './stored/index.ts';

export const fileChanges: SubjectOfChanges<Task> = {
  entity: StoredFile,
  // All that changes of a file is whether it is there, which is told in words.
  telling: {
    uploadKey: 'silent',
    templateId: 'silent',
    taskId: 'silent',
    demandKey: 'silent',
    name: 'silent',
    mediaType: 'silent',
    bytes: 'silent',
    stored: 'silent',
    isPicture: 'silent',
    isKept: 'silent',
    uploadedAt: 'silent',
    uploadedBy: 'silent',
    byContact: 'silent',
    removedAt: 'silent',
  } satisfies Telling<StoredFile>,
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
