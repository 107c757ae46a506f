import { Column, Entity, In, PrimaryColumn } from 'typeorm';
import type { Link } from '../../contract/index.ts';
import type { CheckLine, Demand, SignOff } from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';

/** What is the same for many tasks: stored once under an id that is told from what it says, and never changed. */
@Entity({ name: 'work_content' })
export class WorkContent {
  @PrimaryColumn({ name: 'workspace_id', type: 'uuid' })
  workspaceId!: string;
  @PrimaryColumn({ type: 'uuid' })
  id!: string;
  /** HTML, cleaned by `sanitiseInstructions` at every write. */
  @Column({ type: 'text' })
  instructions!: string;
  /** Notes of its step, and what was said when it was started by hand. */
  @Column({ type: 'text' })
  brief!: string;
  @Column({ type: 'jsonb' })
  links!: Link[];
  @Column({ name: 'work_type', type: 'text', nullable: true })
  workType!: string | null;
  @Column({ name: 'sign_off', type: 'jsonb', nullable: true })
  signOff!: SignOff | null;
  @Column({ name: 'finish_with_last', type: 'boolean' })
  finishWithLast!: boolean;
  @Column({ type: 'boolean' })
  numbered!: boolean;
  @Column({ name: 'check_lines', type: 'jsonb' })
  checkLines!: readonly CheckLine[];
  /** Proof of the task as a whole. */
  @Column({ type: 'jsonb' })
  demands!: readonly Demand[];
}

export type Content = Omit<WorkContent, 'workspaceId' | 'id'>;

/** Column and type of each part, in the order in which the id takes them. */
const PARTS = {
  instructions: ['instructions', 'text'],
  brief: ['brief', 'text'],
  links: ['links', 'jsonb'],
  workType: ['work_type', 'text'],
  signOff: ['sign_off', 'jsonb'],
  finishWithLast: ['finish_with_last', 'boolean'],
  numbered: ['numbered', 'boolean'],
  checkLines: ['check_lines', 'jsonb'],
  demands: ['demands', 'jsonb'],
} as const satisfies Record<keyof Content, readonly [column: string, type: string]>;

export const CONTENT_FIELDS = Object.keys(PARTS) as (keyof Content)[];
const COLUMNS = Object.values(PARTS).map(([column]) => column);

/** The parts of a content of this alias, but for those that are taken from elsewhere. */
function partsFrom(alias: string, elsewhere: Readonly<Record<string, string>> = {}): string {
  return COLUMNS.map((column) => elsewhere[column] ?? `${alias}.${column}`).join(', ');
}

/** The id of what a content says, with the instructions of another. */
export const idWithInstructionsOf = (alias: string, other: string) =>
  `work_content_id(${partsFrom(alias, { instructions: `${other}.instructions` })})`;

/** What an insert of such a mixed content selects, from both under their aliases. */
export const mixedContent = (alias: string, other: string) => ({
  into: `work_content (workspace_id, id, ${COLUMNS.join(', ')})`,
  select: `$1::uuid, ${idWithInstructionsOf(alias, other)}, ${partsFrom(alias, { instructions: `${other}.instructions` })}`,
});

const RECORDS = `jsonb_to_recordset($2::jsonb) as given (n integer, ${Object.values(PARTS)
  .map(([column, type]) => `${column} ${type}`)
  .join(', ')})`;

function records(contents: readonly Content[]): string {
  return JSON.stringify(
    contents.map((content, n) => ({
      n,
      ...Object.fromEntries(CONTENT_FIELDS.map((field) => [PARTS[field][0], content[field]])),
    })),
  );
}

/** Keeps contents that are not kept yet. @returns their ids, in their order */
export async function keepContents(scope: Scope, contents: readonly Content[]): Promise<string[]> {
  if (contents.length === 0) return [];
  const rows = await scope.sql<{ id: string }>(
    `with given as (select given.*, work_content_id(${partsFrom('given')}) as id from ${RECORDS}),
       kept as (
         insert into work_content (workspace_id, id, ${COLUMNS.join(', ')})
         select distinct on (id) $1::uuid, id, ${COLUMNS.join(', ')} from given order by id on conflict do nothing
       )
     select id from given order by n`,
    [records(contents)],
  );
  return rows.map(({ id }) => id);
}

/** What two contents are compared by: their instructions, and all the rest. */
export interface ContentMarks {
  readonly instructions: string;
  readonly content: string;
}

/** The same of a stored content under this alias. */
export const marksOf = (alias: string) => `${alias}.instructions_hash as instructions, ${alias}.rest_id as content`;

/** Of contents that need not be kept, in their order. */
export function contentMarks(scope: Scope, contents: readonly Content[]): Promise<ContentMarks[]> {
  return scope.sql<ContentMarks>(
    `select md5(given.instructions) as instructions, work_content_id(${partsFrom('given', { instructions: `''` })}) as content
     from ${RECORDS} where $1::uuid is not null order by n`,
    [records(contents)],
  );
}

/** Contents by their ids. */
export async function contentsById(scope: Scope, ids: readonly string[]): Promise<ReadonlyMap<string, Content>> {
  const found = await scope.find(WorkContent, { id: In([...new Set(ids)]) });
  return new Map(found.map(({ workspaceId: _, id, ...content }) => [id, content]));
}
