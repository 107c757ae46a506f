import { COMMENTS_A_PAGE, type Comment, type CommentInput } from '../../contract/index.ts';
import { ring } from '../bell/index.ts';
import { changedMeanwhile, invalid } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { TaskRecord } from '../tasks/stored/index.ts';

type Row = Omit<Comment, 'at' | 'isOwn'> & { readonly at: Date; readonly byId: string; readonly taskId: string };

const COMMENTS = `select said.id, said.at, said.text, said.task_id as "taskId", said.by as "byId", who.name as by
  from task_comment said join person who on who.workspace_id = said.workspace_id and who.id = said.by
  where said.workspace_id = $1`;

/** The newest comments of a task, or those before one of them; each page in the order in which they were written. */
export async function commentsOf(
  scope: Scope,
  taskId: string,
  before: string | undefined,
): Promise<{ comments: Comment[]; more: boolean }> {
  await scope.one(TaskRecord, taskId, 'task');
  const rows = await scope.sql<Row>(
    `${COMMENTS} and said.task_id = $2 and ($3::uuid is null or said.id < $3)
     order by said.id desc limit ${COMMENTS_A_PAGE + 1}`,
    [taskId, before ?? null],
  );
  const told = rows.slice(0, COMMENTS_A_PAGE).reverse();
  return { comments: told.map((row) => commentOf(scope, row)), more: rows.length > told.length };
}

/** Says something about a task; whoever is named in it hears of it. Sent again, it stands there once. */
export function writeComment(
  scope: Scope,
  taskId: string,
  { key, text, named }: CommentInput,
): Promise<{ comment: Comment }> {
  return scope.transaction(async (tx) => {
    const { title } = await tx.one(TaskRecord, taskId, 'task');
    await mustBeNamed(tx, text, named);
    const [made] = await tx.sql<{ id: string }>(
      `insert into task_comment (workspace_id, id, send_key, task_id, text, at, by) values ($1, $2, $3, $4, $5, $6, $7)
       on conflict (workspace_id, send_key) do nothing returning id`,
      [tx.newId(), key, taskId, text.trim(), tx.instant, tx.person?.id ?? null],
    );
    if (made) {
      const others = named.filter((personId) => personId !== tx.person?.id);
      await ring(
        tx,
        others.map((personId) => ({ personId, taskId, title, text: `${tx.person?.name} named you: ${text.trim()}` })),
      );
      await tx.tellOf({ topics: ['tasks'], tasks: [taskId], people: [], load: false });
    }
    const [row] = await tx.sql<Row>(`${COMMENTS} and said.send_key = $2`, [key]);
    // Somebody else's, or of another task: a sender that makes its keys anew for each never meets that.
    if (!row || row.taskId !== taskId || row.byId !== tx.person?.id)
      throw changedMeanwhile('This was sent before for something else. Send it anew.');
    return { comment: commentOf(tx, row) };
  });
}

/** @throws Refusal where somebody is named who is not here, or whose name the text does not have */
async function mustBeNamed(scope: Scope, text: string, named: readonly string[]): Promise<void> {
  const names = await scope.peopleNames();
  for (const [i, personId] of named.entries()) {
    const name = names.get(personId);
    if (name === undefined) throw invalid([{ path: `named.${i}`, message: 'There is no such person here.' }]);
    if (!text.includes(`@${name}`))
      throw invalid([{ path: `named.${i}`, message: `“@${name}” does not stand in the comment.` }]);
  }
}

function commentOf(scope: Scope, { byId, taskId: _, at, ...row }: Row): Comment {
  return { ...row, at: scope.moment(at), isOwn: byId === scope.person?.id };
}
