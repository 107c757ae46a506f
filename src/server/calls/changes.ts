import { fieldsOf, type SubjectOfChanges, type Telling } from '../platform/changes/subject.ts';
import { forbidden } from '../platform/refusal.ts';
import type { Task } from '../tasks/stored/index.ts';
import { undoQuota } from './quotas.ts';
import { undoCall } from './rung.ts';
import { Call, CallQuota } from './stored/index.ts';

export const quotaChanges: SubjectOfChanges<Task> = {
  entity: CallQuota,
  telling: {
    ...{ name: 'told', terms: 'told', pauses: 'told', endsOn: 'told' },
    ...{ version: 'silent', startsOn: 'silent', madeOn: 'silent' },
  } satisfies Telling<CallQuota>,
  mayUndoOwn: () => false,
  reached: () => ({}),
  fieldsTaken: fieldsOf,
  async undo(scope, changes, rest) {
    if (!scope.mayAll('plan')) throw forbidden('Only a planner or a manager can change quotas.');
    const said: string[] = [];
    for (const change of changes) said.push(await undoQuota(scope, change));
    await rest();
    return { said: said.join(' '), kept: [] };
  },
};

export const callChanges: SubjectOfChanges<Task> = {
  entity: Call,
  // What was said of a call is told in words.
  telling: {
    ...{
      version: 'silent',
      listId: 'silent',
      listOn: 'silent',
      place: 'silent',
      contactId: 'silent',
      clientId: 'silent',
    },
    ...{ why: 'silent', state: 'silent', number: 'silent', outcome: 'silent', note: 'silent', rungAt: 'silent' },
    ...{ rungBy: 'silent', callBack: 'silent', standingBefore: 'silent' },
  } satisfies Telling<Call>,
  mayUndoOwn: () => true,
  reached: () => ({}),
  fieldsTaken: fieldsOf,
  async undo(scope, changes, rest) {
    const said: string[] = [];
    for (const change of changes) said.push(await undoCall(scope, change));
    await rest();
    return { said: said.join(' '), kept: [] };
  },
};
