import { fieldsOf, type SubjectOfChanges, type Telling } from '../platform/changes/subject.ts';
import type { Task } from '../tasks/stored/index.ts';
import { Notice, NoticeLetterRecord } from './entity.ts';
import { undoLetter } from './letters.ts';
import { undoNotices } from './writing.ts';

export const letterChanges: SubjectOfChanges<Task> = {
  entity: NoticeLetterRecord,
  telling: {
    name: 'told',
    workType: 'told',
    ...{ language: 'silent', subject: 'silent', body: 'silent', version: 'silent', deletedAt: 'silent' },
  } satisfies Telling<NoticeLetterRecord>,
  mayUndoOwn: () => true,
  reached: () => ({}),
  fieldsTaken: fieldsOf,
  async undo(scope, changes, rest) {
    await rest();
    const said: string[] = [];
    for (const { subjectId, fields, action } of changes)
      said.push(await undoLetter(scope, subjectId, fields, action === 'added'));
    return { said: said.join(' '), kept: [] };
  },
};

export const noticeChanges: SubjectOfChanges<Task> = {
  entity: Notice,
  // All that changes of a notice is that it went, which is told in words.
  telling: {
    ...{
      batchId: 'silent',
      taskId: 'silent',
      clientId: 'silent',
      letterName: 'silent',
      way: 'silent',
      reason: 'silent',
    },
    ...{
      visitOn: 'silent',
      page: 'silent',
      issuedOn: 'silent',
      sentOn: 'silent',
      mailId: 'silent',
      replacesId: 'silent',
    },
    ...{ writtenAt: 'silent', writtenBy: 'silent' },
  } satisfies Telling<Notice>,
  mayUndoOwn: () => true,
  reached: () => ({}),
  fieldsTaken: fieldsOf,
  async undo(scope, changes, rest) {
    await rest();
    const said = await undoNotices(
      scope,
      // What was done last is taken back first.
      changes.map(({ subjectId, action }) => ({ id: subjectId, action })).reverse(),
    );
    return { said, kept: [] };
  },
};
