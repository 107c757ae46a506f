import { In, IsNull } from 'typeorm';
import { plural } from '../core/index.ts';
import { Change } from './db/change.ts';
import { undoFileChange } from './files/service.ts';
import { conflict, forbidden } from './http/refusal.ts';
import { undoScheduleChanges } from './schedules/changing.ts';
import type { Scope } from './scope.ts';
import { NEXT_CHOSEN } from './tasks/next-date.ts';
import { bringBackTask } from './tasks/remove.ts';
import { restoreTasks } from './tasks/snapshot.ts';
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
      return undoScheduleChanges(scope, [{ id: change.subjectId, fields: withDates(change.fields) }]);
    case 'template':
      if (!scope.person?.isManager) throw forbidden('Only a manager can change templates.');
      return undoTemplateChange(scope, change.subjectId, change.action, withDates(change.fields));
    case 'file':
      return undoFileChange(scope, change.subjectId, withDates(change.fields));
    case 'several':
      return undoSeveral(scope, change);
  }
}

/** Changes that were made together are undone together; those that somebody has undone by themselves already stay undone. */
async function undoSeveral(scope: Scope, { fields: { changes, ...shared } }: Change): Promise<string> {
  const ids = (changes?.from ?? []) as string[];
  const left = (await scope.find(Change, { id: In(ids), undoneAt: IsNull() })).sort((a, b) => (a.id < b.id ? -1 : 1));
  await scope.sql('update change set undone_at = $2 where workspace_id = $1 and id = any($3::uuid[])', [
    scope.instant,
    left.map(({ id }) => id),
  ]);
  const schedules = left.filter(({ subject }) => subject === 'schedule');
  const others = left.filter(({ subject }) => subject !== 'schedule');
  // Tasks first: a schedule that is put back would change them itself.
  for (const one of others) await undo(scope, one);
  if (schedules.length === 0)
    return `${plural(others.length, 'task')} ${others.length === 1 ? 'is' : 'are'} as before.`;
  // Whoever finishes a task may choose the day of the next, and take that back.
  const isNextOnly = schedules.every(({ action }) => action === NEXT_CHOSEN);
  if (!scope.person?.isManager && !isNextOnly) throw forbidden('Only a manager can change schedules.');
  const said = await undoScheduleChanges(
    scope,
    schedules.map((one) => ({ id: one.subjectId, fields: withDates(one.fields) })),
  );
  await restoreTasks(scope, shared);
  return isNextOnly ? 'The task and the next one are as before.' : said;
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
