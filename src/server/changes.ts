import { Change } from './db/change.ts';
import { undoFileChange } from './files/service.ts';
import { conflict, forbidden } from './http/refusal.ts';
import { undoScheduleChange } from './schedules/service.ts';
import type { Scope } from './scope.ts';
import { bringBackTask } from './tasks/remove.ts';
import { undoTaskChange } from './tasks/work.ts';
import { undoTemplateChange } from './templates/service.ts';

/** Replays a change backwards, if nothing has happened to the same fields since. */
export function undoChange(scope: Scope, changeId: string): Promise<{ said: string }> {
  return scope.transaction(async (tx) => {
    const change = await tx.locked(Change, changeId, 'change');
    if (change.undoneAt !== null) throw conflict('That is undone already.');
    if (change.actorId !== tx.person?.id && !tx.person?.isManager) {
      throw forbidden('Only the person who did it, or a manager, can undo that.');
    }
    await tx.save(Change, change.id, { undoneAt: tx.instant });
    return { said: await undo(tx, change) };
  });
}

function undo(scope: Scope, change: Change): Promise<string> {
  switch (change.subject) {
    case 'task':
      return change.action === 'deleted'
        ? bringBackTask(scope, change.fields)
        : undoTaskChange(scope, change.subjectId, withDates(change.fields));
    case 'schedule':
      if (!scope.person?.isManager) throw forbidden('Only a manager can change schedules.');
      return undoScheduleChange(scope, change.subjectId, change.fields);
    case 'template':
      if (!scope.person?.isManager) throw forbidden('Only a manager can change templates.');
      return undoTemplateChange(scope, change.subjectId, change.action, withDates(change.fields));
    case 'file':
      return undoFileChange(scope, change.subjectId, withDates(change.fields));
  }
}

/** Instants came back from JSON as texts; the task holds them as dates. */
function withDates(fields: Change['fields']): Change['fields'] {
  const revive = (field: string, value: unknown) =>
    typeof value === 'string' && field.endsWith('At') ? new Date(value) : value;
  return Object.fromEntries(
    Object.entries(fields).map(([field, { from, to }]) => [
      field,
      { from: revive(field, from), to: revive(field, to) },
    ]),
  );
}
