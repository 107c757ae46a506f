import type { Scope } from '../platform/scope.ts';
import { type Content, contentsById, keepContents } from '../tasks/stored/index.ts';
import { ERASED, type ErasedWords, takeWordsOut } from './words.ts';

/** Tasks that are worked on at once. */
const AT_ONCE = 500;

/** Kinds of proof that are words of somebody's own: figures, dates and choices stay. */
const WORDS = ['text', 'longText', 'note'];

/** Demands of a content `w`: of the task, and of its check lines. */
const DEMANDS = `(w.demands || coalesce((select jsonb_agg(d) from jsonb_array_elements(w.check_lines) line,
  jsonb_array_elements(line->'demands') d), '[]'))`;

/** Answers of a task without their words, and without who gave them where that was a contact; those that a condition names. */
const answersWithoutWords = (
  which: string,
) => `(select coalesce(jsonb_object_agg(key, case when not ${which} then one else
    (case when one ? 'contact' then one || '{"contact": "${ERASED}"}' else one end) || '{"remark": ""}'
    || case when exists (select from jsonb_array_elements(${DEMANDS}) demand
         where demand->>'key' = key and demand->>'kind' = any(array['${WORDS.join("','")}'])) then '{"value": "${ERASED}"}'::jsonb else '{}'::jsonb end
  end), '{}') from jsonb_each(task.answers) as of (key, one))`;

/** What somebody has answered in words, whichever task it is of. */
export const eraseAnswersOf = (scope: Scope, personId: string) =>
  scope.sql(
    `update task set answers = ${answersWithoutWords(`one->>'by' = $2::text`)}, version = task.version + 1
     from work_content w where task.workspace_id = $1 and task.answers <> '{}' and task.answers::text like '%' || $2::text || '%'
       and w.workspace_id = $1 and w.id = task.content_id`,
    [personId],
  );

/** Files of tasks with what is told of them; the bytes go with the night's sweep. @param where of files */
export async function eraseFiles(scope: Scope, where: string, params: readonly unknown[]): Promise<void> {
  await scope.sql(
    `delete from change where workspace_id = $1 and subject = 'file'
       and subject_id in (select id from file where workspace_id = $1 and task_id is not null and ${where})`,
    params,
  );
  await scope.sql(`delete from file where workspace_id = $1 and task_id is not null and ${where}`, params);
}

/**
 * Takes names out of what tasks are called and say, and all that was written on them: notes, answers in words, reasons, comments,
 * files. State, dates, times and figures stay.
 * @param ids in any number
 */
export async function eraseTasks(scope: Scope, ids: readonly string[], words: ErasedWords | null): Promise<void> {
  for (let at = 0; at < ids.length; at += AT_ONCE) {
    const some = ids.slice(at, at + AT_ONCE);
    await scope.sql(
      `update task set note = '', note_pinned = false, version = version + 1,
         held_reason = case when held_reason is null then null else '${ERASED}' end,
         done_by_contact = case when done_by_contact is null then null else '${ERASED}' end,
         sent_back = (select coalesce(jsonb_agg(one || '{"reason": "${ERASED}"}'), '[]') from jsonb_array_elements(sent_back) one),
         ticks = (select coalesce(jsonb_object_agg(key, case when one ? 'contact' then one || '{"contact": "${ERASED}"}' else one end), '{}')
           from jsonb_each(ticks) as of (key, one)),
         answers = ${answersWithoutWords('true')}
       from work_content w where task.workspace_id = $1 and task.id = any($2::uuid[]) and w.workspace_id = $1 and w.id = task.content_id`,
      [some],
    );
    const of = 'task_id = any($2::uuid[])';
    await scope.sql(`update task_comment set text = '${ERASED}' where workspace_id = $1 and ${of}`, [some]);
    await eraseFiles(scope, of, [some]);
    for (const table of ['message', 'watched_task', 'webhook_delivery'])
      await scope.sql(`delete from ${table} where workspace_id = $1 and ${of}`, [some]);
    await scope.sql(
      `delete from change where workspace_id = $1 and subject = 'task' and subject_id = any($2::uuid[])`,
      [some],
    );
    if (words === null) continue;
    await takeWordsOut(scope, words, 'task', { title: 'text' }, 'id = any($2::uuid[])', [some]);
    await eraseContents(scope, some, words);
  }
}

/** What tasks say is kept once for many: those that say a name get a content of their own without it. */
async function eraseContents(scope: Scope, ids: readonly string[], { inText, inJson }: ErasedWords): Promise<void> {
  const rows = await scope.sql<{ id: string }>(
    `select distinct w.id from task t join work_content w on w.workspace_id = $1 and w.id = t.content_id
     where t.workspace_id = $1 and t.id = any($2::uuid[])
       and (w.instructions ~ $3 or w.brief ~ $3 or (w.links::text || w.check_lines::text || w.demands::text) ~ $4)`,
    [ids, inText, inJson],
  );
  const contents = await contentsById(
    scope,
    rows.map(({ id }) => id),
  );
  for (const [id, content] of contents) {
    const [said] = await scope.sql<Pick<Content, 'instructions' | 'brief' | 'links' | 'checkLines' | 'demands'>>(
      `select regexp_replace($2, $7, $9, 'g') as instructions, regexp_replace($3, $7, $9, 'g') as brief,
         regexp_replace($4, $8, $9, 'g')::jsonb as links, regexp_replace($5, $8, $9, 'g')::jsonb as "checkLines",
         regexp_replace($6, $8, $9, 'g')::jsonb as demands where $1::uuid is not null`,
      [
        ...[content.instructions, content.brief, JSON.stringify(content.links), JSON.stringify(content.checkLines)],
        ...[JSON.stringify(content.demands), inText, inJson, ERASED],
      ],
    );
    if (!said) continue;
    const [kept = id] = await keepContents(scope, [{ ...content, ...said }]);
    await scope.sql(
      'update task set content_id = $2 where workspace_id = $1 and content_id = $3 and id = any($4::uuid[])',
      [...[kept, id, ids]],
    );
    await scope.sql(
      `delete from work_content c where c.workspace_id = $1 and c.id = $2
         and not exists (select from task t where t.workspace_id = $1 and t.content_id = c.id)`,
      [id],
    );
  }
}
