import type { z } from 'zod';
import type { StoredFile as FileAnswer, uploadFieldsSchema } from '../../contract/index.ts';
import type { FieldChanges } from '../platform/changes/entity.ts';
import { fieldsBefore } from '../platform/changes/entity.ts';
import { conflict, forbidden, invalid, notFound, Refusal } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import type { Task } from '../tasks/entity.ts';
import { tickedByProof, workableTask, writeTask } from '../tasks/work.ts';
import { Template } from '../templates/entity.ts';
import { StoredFile } from './entity.ts';
import type { FileStore } from './store.ts';

type FileRow = Omit<StoredFile, 'workspaceId' | 'uploadKey' | 'removedAt' | 'stored'> & { byName: string | null };

const FILE_COLUMNS = `f.id, f.template_id as "templateId", f.task_id as "taskId", f.demand_key as "demandKey", f.name,
  f.media_type as "mediaType", f.bytes, f.is_picture as "isPicture", f.is_kept as "isKept", f.uploaded_at as "uploadedAt",
  f.uploaded_by as "uploadedBy", p.name as "byName"`;
const FILE_JOINS = 'file f left join person p on p.workspace_id = f.workspace_id and p.id = f.uploaded_by';

/** Files of templates that stand in the text of the instructions, not in the list beside them. */
export const IN_TEXT = 'instructions';

function describe(scope: Scope, row: FileRow): FileAnswer {
  return {
    id: row.id,
    name: row.name,
    mediaType: row.mediaType,
    bytes: row.bytes,
    isPicture: row.isPicture,
    demand: row.demandKey,
    isKept: row.isKept,
    at: scope.moment(row.uploadedAt),
    by: row.byName,
  };
}

/** The files of some tasks, in the order in which they came. */
export async function filesOfTasks(scope: Scope, taskIds: readonly string[]): Promise<Map<string, FileAnswer[]>> {
  const files = new Map<string, FileAnswer[]>();
  if (taskIds.length === 0) return files;
  const rows = await scope.sql<FileRow & { taskId: string }>(
    `select ${FILE_COLUMNS} from ${FILE_JOINS}
     where f.workspace_id = $1 and f.task_id = any($2::uuid[]) and f.removed_at is null order by f.uploaded_at, f.id`,
    [taskIds],
  );
  for (const row of rows) files.set(row.taskId, [...(files.get(row.taskId) ?? []), describe(scope, row)]);
  return files;
}

export async function filesOfTemplate(scope: Scope, templateId: string): Promise<FileAnswer[]> {
  const rows = await scope.sql<FileRow>(
    `select ${FILE_COLUMNS} from ${FILE_JOINS}
     where f.workspace_id = $1 and f.template_id = $2 and f.removed_at is null and f.demand_key is distinct from '${IN_TEXT}'
     order by f.uploaded_at, f.id`,
    [templateId],
  );
  return rows.map((row) => describe(scope, row));
}

/** How many files a task has for each of its demands. */
export async function proofFilesOf(scope: Scope, taskId: string): Promise<Record<string, number>> {
  const rows = await scope.sql<{ key: string; count: number }>(
    `select demand_key as key, count(*) as count from file
     where workspace_id = $1 and task_id = $2 and demand_key is not null and removed_at is null group by 1`,
    [taskId],
  );
  return Object.fromEntries(rows.map(({ key, count }) => [key, count]));
}

/** A file as it came in. */
export interface Arrived {
  readonly path: string;
  readonly name: string;
  readonly bytes: number;
}

/** Takes a file for a task, or for a template that is being written. Sent twice with the same key, it is one file. */
export async function addFile(
  scope: Scope,
  store: FileStore,
  { key, taskId, demand }: z.output<typeof uploadFieldsSchema>,
  arrived: Arrived,
): Promise<{ file: FileAnswer; changeId: string | null }> {
  const [before] = await scope.find(StoredFile, { uploadKey: key });
  if (before) {
    if (before.uploadedBy !== scope.person?.id) throw notFound('file');
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
      uploadedAt: tx.instant,
      uploadedBy: tx.person?.id ?? null,
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
  if (task.state === 'done' || task.state === 'skipped' || task.state === 'lapsed')
    throw conflict(`This task is ${task.state}, so nothing can be added. Undo that first.`);
  if (demand !== undefined && demandOf(task, demand) === null)
    throw invalid([{ path: 'demand', message: 'This task asks for no such file.' }]);
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
  const begun = task.state === 'open' ? ({ state: 'underWay', startedAt: scope.instant } as const) : {};
  await writeTask(scope, task, 'proof', { ticks, ...begun });
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

/** What may be kept: of a workspace in all, of one person in a day, and with one task. */
const MOST_BYTES_OF_WORKSPACE = 20 * 1024 ** 3;
const MOST_FILES_A_DAY = 500;
const MOST_BYTES_A_DAY = 2 * 1024 ** 3;
const MOST_FILES_OF_TASK = 100;

async function refuseBeyondQuota(scope: Scope, taskId: string | null, bytes: number): Promise<void> {
  const [of] = await scope.sql<{ all: number; files: number; bytes: number; task: number }>(
    `select coalesce((select bytes from file_total where workspace_id = $1), 0) as all,
       count(*) as files, coalesce(sum(bytes), 0) as bytes,
       (select count(*) from file where workspace_id = $1 and task_id = $4 and removed_at is null) as task
     from file where workspace_id = $1 and uploaded_by = $2 and uploaded_at > $3::timestamptz - interval '1 day'`,
    [scope.person?.id ?? null, scope.instant, taskId],
  );
  const refuse = (detail: string) => {
    throw new Refusal(413, 'Full', `${detail} Nothing was kept of this file.`);
  };
  if (!of) return;
  if (Number(of.all) + bytes > MOST_BYTES_OF_WORKSPACE)
    refuse('This workspace keeps 20 GB of files already, which is all it may.');
  if (of.files >= MOST_FILES_A_DAY || Number(of.bytes) + bytes > MOST_BYTES_A_DAY)
    refuse(`You have added ${MOST_FILES_A_DAY} files or 2 GB in a day, which is all one person may: go on tomorrow.`);
  if (of.task >= MOST_FILES_OF_TASK)
    refuse(`${MOST_FILES_OF_TASK} files are with this task already, which is all it may have.`);
}

async function oneFile(scope: Scope, id: string): Promise<FileAnswer> {
  const [row] = await scope.sql<FileRow>(
    `select ${FILE_COLUMNS} from ${FILE_JOINS} where f.workspace_id = $1 and f.id = $2`,
    [id],
  );
  if (!row) throw notFound('file');
  return describe(scope, row);
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

async function setRemoved(scope: Scope, file: StoredFile, removedAt: Date | null, action: string): Promise<string> {
  if (file.taskId === null) throw forbidden('Files of templates change with their template.');
  const task = await taskFor(scope, file.taskId, undefined);
  if (task.state === 'toCheck') throw conflict('This task waits to be checked: its proof stays as it is.');
  await scope.save(StoredFile, file.id, { removedAt });
  const changeId = await scope.record('file', file.id, action, { removedAt: { from: file.removedAt, to: removedAt } });
  await afterFiles(scope, task, file.demandKey);
  return changeId;
}

/** Where a template may take files from, besides those that were sent for it. */
export type FileSource = { readonly templateId: string } | { readonly taskId: string } | null;

/**
 * Gives a template exactly these files, and the pictures of its text. Files sent for it are taken over, those of what it
 * was begun from are copied, and what it has no more is removed.
 * @returns by which of its own each of the given ids is replaced, where it is a copy
 */
export async function setTemplateFiles(
  scope: Scope,
  templateId: string,
  given: { readonly listed: readonly string[]; readonly inText: readonly string[] },
  source: FileSource,
): Promise<ReadonlyMap<string, string>> {
  const copies = new Map<string, string>();
  const wanted = [
    ...given.listed.map((id) => ({ id, demandKey: null })),
    ...given.inText.filter((id) => !given.listed.includes(id)).map((id) => ({ id, demandKey: IN_TEXT })),
  ];
  const own = new Set<string>();
  for (const { id, demandKey } of wanted) {
    const [file] = await scope.find(StoredFile, { id });
    if (!file) throw invalid([{ path: 'fileIds', message: 'One of the files is not there any more: add it again.' }]);
    if (file.templateId === templateId) {
      own.add(id);
      if (file.removedAt !== null || file.demandKey !== demandKey)
        await scope.save(StoredFile, id, { removedAt: null, demandKey });
    } else if (file.templateId === null && file.taskId === null && file.uploadedBy === (scope.person?.id ?? null)) {
      own.add(id);
      await scope.save(StoredFile, id, { templateId, demandKey });
    } else if (isFrom(file, source) || (await isShownBy(scope, file))) {
      const copy = await scope.insert(StoredFile, {
        ...file,
        id: scope.newId(),
        uploadKey: scope.newId(),
        templateId,
        taskId: null,
        demandKey,
        isKept: false,
        removedAt: null,
      });
      own.add(copy.id);
      copies.set(id, copy.id);
    } else throw invalid([{ path: 'fileIds', message: 'One of the files belongs to something else: add it again.' }]);
  }
  await scope.sql(
    `update file set removed_at = $3 where workspace_id = $1 and template_id = $2 and removed_at is null
       and demand_key is distinct from '${IN_TEXT}' and not id = any($4::uuid[])`,
    [templateId, scope.instant, [...own]],
  );
  return copies;
}

function isFrom(file: StoredFile, source: FileSource): boolean {
  if (source === null) return false;
  return 'templateId' in source ? file.templateId === source.templateId : file.taskId === source.taskId;
}

/** Pictures of instructions travel with the text: pasted from one template into another they are copied. */
async function isShownBy(scope: Scope, file: StoredFile): Promise<boolean> {
  if (file.templateId === null || file.demandKey !== IN_TEXT) return false;
  await scope.one(Template, file.templateId, 'template');
  return true;
}

/** A file that was sent for a template which was never saved is let go after this many days, a removed one after a month. */
const LOOSE_DAYS = 2;
const REMOVED_DAYS = 31;

/** Bytes younger than this may belong to an upload whose row is not written yet. */
const SETTLED_DAYS = 1;
const SWEPT_AT_ONCE = 500;

/**
 * Lets go of what nobody can reach any more, rows first, then bytes: only those that are older than a day and that no row
 * names in that moment. Uploads that ended half way leave theirs in the folder of what comes in.
 * @param now by the clock of the workspaces, for the rows; bytes are as old as their folder says
 */
export async function sweepFiles(
  source: { query<T>(sql: string, params?: unknown[]): Promise<T> },
  store: FileStore,
  now: Date,
): Promise<number> {
  await source.query(
    `delete from file where (template_id is null and task_id is null and uploaded_at < $1::timestamptz - interval '${LOOSE_DAYS} days')
       or removed_at < $1::timestamptz - interval '${REMOVED_DAYS} days'`,
    [now],
  );
  const settledBefore = new Date(Date.now() - SETTLED_DAYS * 86_400_000);
  let gone = await store.sweepIncoming(settledBefore);
  for await (const candidates of store.olderThan(settledBefore, SWEPT_AT_ONCE)) {
    const rows = await source.query<{ stored: string }[]>(
      'select distinct stored from file where stored = any($1::text[])',
      [candidates],
    );
    const named = new Set(rows.map(({ stored }) => stored));
    const unnamed = candidates.filter((stored) => !named.has(stored));
    for (const stored of unnamed) await store.letGo(stored);
    gone += unnamed.length;
  }
  return gone;
}
