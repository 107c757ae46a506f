import type { z } from 'zod';
import type { StoredFile as FileAnswer, uploadFieldsSchema } from '../../contract/index.ts';
import type { Action } from '../platform/changes/actions.ts';
import type { FieldChanges } from '../platform/changes/entity.ts';
import { fieldsBefore } from '../platform/changes/entity.ts';
import { forbidden, invalid, notFound, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { begun, finishedBy, mayAddTo, refuseUnread, tickedByProof, workableTask, writeTask } from '../tasks/index.ts';
import type { Task } from '../tasks/stored/index.ts';
import { type FileStore, oneFile, proofFilesOf, refuseBeyondQuota, StoredFile } from './stored/index.ts';

/** A file as it came in. */
export interface Arrived {
  readonly path: string;
  readonly name: string;
  readonly bytes: number;
}

/** Takes a file for a task, or for a template that is being written. Sent twice with the same key, it is one file. */
export async function addFile(
  asked: Scope,
  store: FileStore,
  { key, taskId, demand, ago }: z.output<typeof uploadFieldsSchema>,
  arrived: Arrived,
): Promise<{ file: FileAnswer; changeId: string | null }> {
  const scope = asked.of({ key: null, at: new Date(asked.instant.getTime() - ago * 1000) });
  const [before] = await scope.find(StoredFile, { uploadKey: key });
  if (before) {
    const isTheirs =
      before.uploadedBy === (scope.person?.id ?? null) && before.byContact === (scope.contact?.name ?? null);
    // Nobody learns of a file by its key: it is of the task that it is sent for.
    if (!isTheirs || before.taskId !== (taskId ?? null)) throw notFound('file');
    return { file: await oneFile(scope, before.id), changeId: null };
  }
  // Who may not add it is told before anything is kept.
  if (taskId !== undefined) await scope.transaction((tx) => taskFor(tx, taskId, demand));
  await refuseBeyondQuota(scope, taskId ?? null, arrived.bytes);
  const kept = await store.keep(arrived.path);
  if (kept === 'too large')
    throw invalid([
      { path: 'file', message: `“${cleanName(arrived.name)}” has more than 50 million dots: send it smaller.` },
    ]);
  if (!kept)
    throw invalid([
      {
        path: 'file',
        message: `“${cleanName(arrived.name)}” is not a picture (JPEG, PNG, GIF, WebP) or a PDF. What counts is what is in it, not its name.`,
      },
    ]);
  return scope.transaction(async (tx) => {
    // Two tries of one sender at once: the second finds what the first has made.
    await tx.sql('select pg_advisory_xact_lock(hashtextextended($1::text || $2::text, 0))', [key]);
    const [meanwhile] = await tx.find(StoredFile, { uploadKey: key });
    if (meanwhile) return { file: await oneFile(tx, meanwhile.id), changeId: null };
    const task = taskId === undefined ? null : await taskFor(tx, taskId, demand);
    // Once more, where nobody else of the workspace is between the question and the answer.
    await tx.sql('select bytes from file_total where workspace_id = $1 for update');
    await refuseBeyondQuota(tx, taskId ?? null, kept.bytes);
    const { id } = await tx.insert(StoredFile, {
      id: tx.newId(),
      uploadKey: key,
      templateId: null,
      taskId: task?.id ?? null,
      demandKey: task === null ? null : (demand ?? null),
      name: nameFor(cleanName(arrived.name), kept.mediaType),
      mediaType: kept.mediaType,
      bytes: kept.bytes,
      stored: kept.stored,
      isPicture: kept.isPicture,
      isKept: false,
      uploadedAt: tx.doneAt,
      uploadedBy: tx.person?.id ?? null,
      byContact: tx.contact?.name ?? null,
      removedAt: null,
    });
    const changeId =
      task && (await tx.record('file', id, 'added', { removedAt: { from: tx.instant.toISOString(), to: null } }));
    if (task) await afterFiles(tx, task, demand ?? null);
    return { file: await oneFile(tx, id), changeId };
  });
}

async function taskFor(scope: Scope, taskId: string, demand: string | undefined): Promise<Task> {
  const task = await workableTask(scope, taskId);
  if ((task.state === 'done' || task.state === 'skipped' || task.state === 'lapsed') && !mayAddTo(scope, task))
    throw notNow(`This task is ${task.state}, so nothing can be added. Undo that first.`);
  if (demand !== undefined && demandOf(task, demand) === null)
    throw invalid([{ path: 'demand', message: 'This task asks for no such file.' }]);
  if (demand !== undefined) await refuseUnread(scope, task);
  return task;
}

function demandOf({ demands, checkLines }: Task, key: string) {
  const all = [...demands, ...checkLines.flatMap((line) => line.demands)];
  return all.find((demand) => demand.key === key && demand.kind === 'file') ?? null;
}

/** Whether a file comes or goes: begins the task, and ticks the line that asked for it. */
async function afterFiles(scope: Scope, task: Task, demand: string | null): Promise<void> {
  const line =
    demand === null ? null : task.checkLines.find(({ demands }) => demands.some(({ key }) => key === demand));
  const files = await proofFilesOf(scope, task.id);
  const ticks = line ? tickedByProof(scope, task, line.key, files) : task.ticks;
  await writeTask(scope, task, 'proof', {
    ticks,
    ...(await begun(scope, task)),
    ...(await finishedBy(scope, task, { ticks })),
  });
  await scope.tell('tasks');
}

/** Names are shown, never used as paths: what a sender put before the last slash is not part of it. */
function cleanName(name: string): string {
  const last = name.split(/[\\/]/).at(-1) ?? '';
  // biome-ignore lint/suspicious/noControlCharactersInRegex: these are what is taken out
  const plain = last.replace(/[\u0000-\u001f\u007f\u200e\u200f\u202a-\u202e\u2066-\u2069]/g, '').trim();
  return plain === '' || /^\.+$/.test(plain) ? 'file' : plain.slice(-200);
}

/** What each kind of file may be called; the first is what is put behind a name that says something else. */
const ENDINGS: Readonly<Record<string, readonly string[]>> = {
  'image/jpeg': ['jpg', 'jpeg', 'jpe', 'jfif'],
  'image/png': ['png'],
  'image/gif': ['gif'],
  'image/webp': ['webp'],
  'application/pdf': ['pdf'],
};

/** A name that says what the file is: saved by a browser, it is opened as that and as nothing else. */
function nameFor(name: string, mediaType: string): string {
  const endings = ENDINGS[mediaType] ?? [];
  return endings.some((ending) => name.toLowerCase().endsWith(`.${ending}`)) ? name : `${name}.${endings[0]}`;
}

/** A file that this person may open: of a task or template here, or one of their own that belongs to nothing yet. */
export async function readableFile(scope: Scope, id: string): Promise<StoredFile> {
  const file = await scope.one(StoredFile, id, 'file');
  const isLoose = file.templateId === null && file.taskId === null;
  if (file.removedAt !== null || (isLoose && file.uploadedBy !== scope.person?.id)) throw notFound('file');
  return file;
}

/** Keeps a file of a task for the later ones of its series, or no longer. */
export function keepFile(scope: Scope, id: string, isKept: boolean): Promise<{ file: FileAnswer }> {
  return scope.transaction(async (tx) => {
    const file = await tx.locked(StoredFile, id, 'file');
    if (file.taskId === null || file.removedAt !== null) throw notFound('file');
    await workableTask(tx, file.taskId);
    await tx.save(StoredFile, id, { isKept });
    await tx.tell('tasks');
    return { file: await oneFile(tx, id) };
  });
}

/** Takes a file of a task away; it can be brought back. */
export function removeFile(scope: Scope, id: string): Promise<{ changeId: string }> {
  return scope.transaction(async (tx) => {
    const file = await tx.locked(StoredFile, id, 'file');
    if (file.taskId === null || file.removedAt !== null) throw notFound('file');
    const changeId = await setRemoved(tx, file, tx.instant, 'removed');
    return { changeId };
  });
}

export async function undoFileChange(scope: Scope, id: string, fields: FieldChanges): Promise<string> {
  const file = await scope.locked(StoredFile, id, 'file');
  const { removedAt = null } = fieldsBefore(file, fields);
  await setRemoved(scope, file, removedAt, 'undone');
  return removedAt === null ? `“${file.name}” is back.` : `“${file.name}” is gone again.`;
}

async function setRemoved(
  scope: Scope,
  file: StoredFile,
  removedAt: Date | null,
  action: Action<'file'>,
): Promise<string> {
  if (file.taskId === null) throw forbidden('Files of templates change with their template.');
  const task = await taskFor(scope, file.taskId, undefined);
  if (task.state === 'toCheck') throw notNow('This task waits to be checked: its proof stays as it is.');
  await scope.save(StoredFile, file.id, { removedAt });
  const changeId = await scope.record('file', file.id, action, { removedAt: { from: file.removedAt, to: removedAt } });
  await afterFiles(scope, task, file.demandKey);
  return changeId;
}
