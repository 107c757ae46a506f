import { rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { MailedAnswer } from '../../contract/index.ts';
import { Client } from '../clients/index.ts';
import { addFile } from '../files/index.ts';
import type { FileStore } from '../files/stored/index.ts';
import { invalid, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { TaskRecord } from '../tasks/stored/index.ts';
import { AnswerPart, AnswerRecord } from './entity.ts';
import { lockedAnswer, oneAnswer } from './queries.ts';

/** Says whose an answer is, and which of their tasks it is about. */
export function placeAnswer(
  scope: Scope,
  id: string,
  { clientId, taskId }: { readonly clientId: string; readonly taskId: string | null },
): Promise<{ answer: MailedAnswer }> {
  return scope.transaction(async (tx) => {
    await lockedAnswer(tx, id);
    await tx.one(Client, clientId, 'client');
    if (taskId !== null && (await tx.one(TaskRecord, taskId, 'task')).clientId !== clientId)
      throw invalid([{ path: 'taskId', message: 'That task is not one of this client’s.' }]);
    await tx.save(AnswerRecord, id, { clientId, taskId, awayAt: null });
    await tx.tell('clients', 'tasks');
    return { answer: await oneAnswer(tx, id) };
  });
}

/** Puts one that belongs nowhere away, or back. */
export function putAway(scope: Scope, id: string, away: boolean): Promise<{ answer: MailedAnswer }> {
  return scope.transaction(async (tx) => {
    await lockedAnswer(tx, id);
    await tx.save(AnswerRecord, id, { awayAt: away ? tx.instant : null });
    await tx.tell('clients');
    return { answer: await oneAnswer(tx, id) };
  });
}

/**
 * Takes a file that came with an answer into its task, under the rules for all files: what it is counts by its bytes, a picture
 * is written anew. Until then nothing was made of it.
 */
export async function takePart(
  scope: Scope,
  store: FileStore,
  partId: string,
): Promise<{ answer: MailedAnswer; changeId: string | null }> {
  const part = await scope.one(AnswerPart, partId, 'file');
  const { taskId } = await scope.one(AnswerRecord, part.answerId, 'answer');
  if (taskId === null) throw notNow('It is about no task yet: say first which one it belongs to.');
  const answer = await oneAnswer(scope, part.answerId);
  if (answer.parts.some(({ id, state }) => id === partId && state === 'taken'))
    throw notNow(`“${part.name}” was taken already.`);
  if (part.bytes === null) throw notNow(`“${part.name}” is not kept any more.`);
  // The same key until it is taken: however often that is asked for, it is one file. Taken out of the task, it is another.
  const key = part.fileId === null ? partId : scope.newId();
  const path = join(store.incoming, key);
  try {
    await writeFile(path, part.bytes, { mode: 0o600 });
    const arrived = { path, name: part.name, bytes: part.size };
    const { file, changeId } = await addFile(scope, store, { key, taskId, ago: 0 }, arrived);
    // Its bytes stay as long as those of all: an undo takes the file out of the task, and it is here again.
    await scope.save(AnswerPart, partId, { fileId: file.id });
    await scope.tell('clients', 'tasks');
    return { answer: await oneAnswer(scope, part.answerId), changeId };
  } finally {
    // Gone already where it was kept.
    await rm(path, { force: true });
  }
}
