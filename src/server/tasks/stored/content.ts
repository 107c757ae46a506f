import { Check, Column, Entity, In, PrimaryColumn } from 'typeorm';
import type { Link } from '../../../contract/index.ts';
import type { CheckLine, Demand, SignOff } from '../../../core/index.ts';
import { OfWorkspace } from '../../platform/db/keys.ts';
import type { Scope } from '../../platform/scope.ts';

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

const COLUMNS = Object.values(PARTS).map(([column]) => column);

/** What is the same for many tasks: stored once under an id that is told from what it says, and never changed. */
@Entity({ name: 'work_content' })
@OfWorkspace('work_content')
@Check('work_content_id_check', `id = work_content_id(${COLUMNS.join(', ')})`)
@Check('work_content_hash_check', 'instructions_hash = md5(instructions)')
@Check('work_content_rest_check', `rest_id = work_content_id('', ${COLUMNS.slice(1).join(', ')})`)
export class WorkContent {
  @PrimaryColumn({ type: 'uuid' })
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
  @Column({ type: 'text', nullable: true })
  workType!: string | null;
  @Column({ type: 'jsonb', nullable: true })
  signOff!: SignOff | null;
  @Column({ type: 'boolean' })
  finishWithLast!: boolean;
  @Column({ type: 'boolean' })
  numbered!: boolean;
  @Column({ type: 'jsonb' })
  checkLines!: readonly CheckLine[];
  /** Proof of the task as a whole. */
  @Column({ type: 'jsonb' })
  demands!: readonly Demand[];
  /** Of the instructions, and the id that the rest would have without any: for telling what differs without reading it. */
  @Column({ type: 'text' })
  instructionsHash!: string;
  @Column({ type: 'uuid' })
  restId!: string;
}

export type Content = Omit<WorkContent, 'workspaceId' | 'id' | 'instructionsHash' | 'restId'>;

export const CONTENT_FIELDS = Object.keys(PARTS) as (keyof Content)[];

/** The parts of a content of this alias, but for those that are taken from elsewhere. */
function partsFrom(alias: string, elsewhere: Readonly<Record<string, string>> = {}): string {
  return COLUMNS.map((column) => elsewhere[column] ?? `${alias}.${column}`).join(', ');
}

/** The id of what a content says, with the instructions of another. */
export const idWithInstructionsOf = (alias: string, other: string) =>
  `work_content_id(${partsFrom(alias, { instructions: `${other}.instructions` })})`;

const INTO = `work_content (workspace_id, id, ${COLUMNS.join(', ')}, instructions_hash, rest_id)`;

/** What an insert of such a mixed content selects, from both under their aliases. */
export const mixedContent = (alias: string, other: string) => ({
  into: INTO,
  select: `$1::uuid, ${idWithInstructionsOf(alias, other)}, ${partsFrom(alias, { instructions: `${other}.instructions` })},
    ${other}.instructions_hash, ${alias}.rest_id`,
});

const RECORDS = `jsonb_to_recordset($2::jsonb) as given (n integer, ${Object.values(PARTS)
  .map(([column, type]) => `${column} ${type}`)
  .join(', ')})`;

/** The mark of all but the instructions. */
const REST = `work_content_id(${partsFrom('given', { instructions: `''` })})`;

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
         insert into ${INTO}
         select distinct on (id) $1::uuid, id, ${COLUMNS.join(', ')}, md5(instructions), ${REST} from given
         order by id on conflict do nothing
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
    `select md5(given.instructions) as instructions, ${REST} as content
     from ${RECORDS} where $1::uuid is not null order by n`,
    [records(contents)],
  );
}

/** Contents by their ids. */
export async function contentsById(scope: Scope, ids: readonly string[]): Promise<ReadonlyMap<string, Content>> {
  const found = await scope.find(WorkContent, { id: In([...new Set(ids)]) });
  return new Map(found.map((content) => [content.id, contentOf(content)]));
}

/** Of whatever has one, its content alone. */
export function contentOf(of: Content): Content {
  return Object.fromEntries(CONTENT_FIELDS.map((field) => [field, of[field]])) as unknown as Content;
}
