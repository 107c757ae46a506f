import type { StoredFile as FileAnswer } from '../../../contract/index.ts';
import { groupBy } from '../../../core/index.ts';
import { columnsOf } from '../../platform/db/columns.ts';
import { notFound } from '../../platform/refusal.ts';
import type { Scope } from '../../platform/scope.ts';
import { StoredFile } from './entity.ts';

const FIELDS = [
  'id',
  'templateId',
  'taskId',
  'demandKey',
  'name',
  'mediaType',
  'bytes',
  'isPicture',
  'isKept',
  'uploadedAt',
] as const satisfies readonly (keyof StoredFile)[];

type FileRow = Pick<StoredFile, (typeof FIELDS)[number]> & { byName: string | null };

const FILE_COLUMNS = `${columnsOf(StoredFile, 'f', FIELDS)}, coalesce(f.by_contact, p.name) as "byName"`;
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

/** Where the bytes of some files lie, by their ids. */
export async function bytesOf(scope: Scope, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
  const rows = await scope.sql<Pick<StoredFile, 'id' | 'stored'>>(
    'select id, stored from file where workspace_id = $1 and id = any($2::uuid[])',
    [ids],
  );
  return new Map(rows.map(({ id, stored }) => [id, stored]));
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

/** What a client's page is told of a task's files beside what they are. */
export interface FilesByLink {
  /** Under which keys they were sent by a link, by their ids. */
  readonly keys: ReadonlyMap<string, string>;
  /** How often a file of it has come, gone, or come back: more with each, as each is written down. */
  readonly changes: number;
}

export async function filesByLink(scope: Scope, taskId: string): Promise<FilesByLink> {
  const rows = await scope.sql<{ id: string; key: string; isTheirs: boolean; changes: number }>(
    `select f.id, f.upload_key as key, f.by_contact is not null and f.removed_at is null as "isTheirs",
       (select count(*)::int from change c where c.workspace_id = $1 and c.subject = 'file' and c.subject_id = f.id) as changes
     from file f where f.workspace_id = $1 and f.task_id = $2`,
    [taskId],
  );
  return {
    keys: new Map(rows.flatMap(({ id, key, isTheirs }) => (isTheirs ? [[id, key] as const] : []))),
    changes: rows.reduce((sum, { changes }) => sum + changes, 0),
  };
}

/** How many files a task has for each of its demands. */
export async function proofFilesOf(scope: Scope, taskId: string): Promise<Record<string, number>> {
  return (await proofFilesOfTasks(scope, [taskId])).get(taskId) ?? {};
}

/** The same of several, by their ids; those without any are left out. */
export async function proofFilesOfTasks(
  scope: Scope,
  taskIds: readonly string[],
): Promise<ReadonlyMap<string, Record<string, number>>> {
  const rows = await scope.sql<{ taskId: string; key: string; count: number }>(
    `select task_id as "taskId", demand_key as key, count(*) as count from file
     where workspace_id = $1 and task_id = any($2::uuid[]) and demand_key is not null and removed_at is null group by 1, 2`,
    [taskIds],
  );
  return new Map(
    [...groupBy(rows, ({ taskId }) => taskId)].map(([id, of]) => [
      id,
      Object.fromEntries(of.map(({ key, count }) => [key, count])),
    ]),
  );
}

export async function oneFile(scope: Scope, id: string): Promise<FileAnswer> {
  const [row] = await scope.sql<FileRow>(
    `select ${FILE_COLUMNS} from ${FILE_JOINS} where f.workspace_id = $1 and f.id = $2`,
    [id],
  );
  if (!row) throw notFound('file');
  return describe(scope, row);
}
