import { z } from 'zod';
import { LOG_ROWS_A_PAGE, type LoggedChange, type logbookEndpoints } from '../../contract/index.ts';
import { dayOfIso, instantOf, isoOfDay, plainWords } from '../../core/index.ts';
import { assetIdsAt } from '../directory/index.ts';
import { likeLetters } from '../platform/db/like.ts';
import { readCursor } from '../platform/http/cursor.ts';
import { invalid } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';

type Endpoint = (typeof logbookEndpoints)['changes'];

/** What of changes is told, as the indexes have it. */
const KINDS: Readonly<Record<z.output<Endpoint['query']>['what'], string>> = {
  deleted: `c.action = 'deleted'`,
  given: `c.action <> 'undone' and c.fields ? 'assigneeId'`,
};

/** What a change was about: the task as it is, or as it was when it was deleted. */
const OF = (field: string) => `coalesce(c.fields->'row'->'from'->>'${field}', t.${field}::text)`;

/** When it was, to the microsecond: a page begins right after it. */
const PLACE = `to_char(c.at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"')`;
const isPlace = (text: string) => z.iso.datetime({ precision: 6 }).safeParse(text).success && text >= '1970';

const FROM = `c.fields->'assigneeId'->>'from'`;
const TO = `c.fields->'assigneeId'->>'to'`;

const templatesOf = (category: string) =>
  `select id::text from template where workspace_id = $1 and category = ${category}`;
const contentsOf = (workType: string) =>
  `select id::text from work_content where workspace_id = $1 and work_type = ${workType}`;
const ofSome = (those: readonly string[], which: string) =>
  `exists (select from person p where p.workspace_id = $1 and p.id::text in (${those.join(', ')}) and p.${which})`;

interface Row {
  readonly id: string;
  readonly at: Date;
  readonly by: string | null;
  readonly taskId: string | null;
  readonly title: string;
  readonly client: string | null;
  readonly asset: string | null;
  readonly dueOn: string;
  readonly from: string | null;
  readonly to: string | null;
}

/** Tasks that were deleted, or given to somebody else, and still are so: by when that was done, the latest first. */
export async function loggedChanges(
  scope: Scope,
  { what, from, to, after, ...filter }: z.output<Endpoint['query']>,
): Promise<z.input<Endpoint['answer']>> {
  const params: unknown[] = [];
  const given = (value: unknown) => {
    params.push(value);
    return `$${params.length + 1}`;
  };
  const midnight = (day: number) => new Date(instantOf(isoOfDay(day), '00:00', scope.workspace.zone));
  const where = [
    `c.workspace_id = $1 and c.subject = 'task' and c.undone_at is null and ${KINDS[what]}`,
    `c.at >= ${given(midnight(dayOfIso(from)))} and c.at < ${given(midnight(dayOfIso(to) + 1))}`,
    // What was given on and then deleted is told as deleted.
    `(t.id is not null or c.action = 'deleted')`,
  ];
  for (const field of ['client', 'asset', 'template', 'schedule'] as const) {
    const value = filter[field];
    if (value === undefined) continue;
    where.push(value === 'none' ? `${OF(`${field}_id`)} is null` : `${OF(`${field}_id`)} = ${given(value)}`);
  }
  if (filter.site !== undefined)
    where.push(`${OF('asset_id')} = any(${given(await assetIdsAt(scope, filter.site))}::text[])`);
  if (filter.category !== undefined) where.push(`${OF('template_id')} in (${templatesOf(given(filter.category))})`);
  if (filter.workType !== undefined) where.push(`${OF('content_id')} in (${contentsOf(given(filter.workType))})`);
  if (filter.priority !== undefined) where.push(`${OF('priority')} = ${given(filter.priority)}`);
  if (filter.made !== undefined) where.push(`${OF('schedule_id')} is ${filter.made === 'by hand' ? '' : 'not '}null`);
  // Whoever had it, has it since, or did it.
  const those = [what === 'deleted' ? OF('assignee_id') : FROM, ...(what === 'given' ? [TO] : []), 'c.actor_id::text'];
  if (filter.person !== undefined) {
    const who = given(filter.person === 'none' ? null : filter.person);
    where.push(`(${those.map((one) => `${one} is not distinct from ${who}::text`).join(' or ')})`);
  }
  if (filter.role !== undefined) where.push(ofSome(those, `roles ? ${given(filter.role)}::text`));
  if (filter.team !== undefined) where.push(ofSome(those, `team = ${given(filter.team)}::text`));
  for (const word of plainWords(filter.find ?? '').filter(Boolean))
    where.push(`plain_words(${OF('title')}) like ${given(`%${likeLetters(word)}%`)}`);
  const cursor = readCursor(after);
  if (cursor) {
    if (!isPlace(cursor[0])) throw invalid([{ path: 'after', message: 'This is not a place in the list.' }]);
    where.push(`(c.at, c.id) < (${given(cursor[0])}::timestamptz, ${given(cursor[1])}::uuid)`);
  }
  const name = (table: string, id: string) =>
    `(select name from ${table} of where of.workspace_id = $1 and of.id::text = ${id})`;
  const rows = await scope.sql<Row & { place: string }>(
    `select c.id, c.at, ${PLACE} as place, ${name('person', 'c.actor_id::text')} as by, t.id as "taskId", ${OF('title')} as title,
       ${name('client', OF('client_id'))} as client, ${name('asset', OF('asset_id'))} as asset, ${OF('due_on')} as "dueOn",
       ${name('person', those[0] ?? FROM)} as "from",
       ${name('person', TO)} as "to"
     from change c left join task t on t.workspace_id = c.workspace_id and t.id = c.subject_id
     where ${where.join(' and ')} order by c.at desc, c.id desc limit ${LOG_ROWS_A_PAGE + 1}`,
    params,
  );
  const page = rows.slice(0, LOG_ROWS_A_PAGE);
  const last = page.at(-1);
  return {
    changes: page.map(
      ({ place: _, at, ...row }): LoggedChange => ({ ...row, at: scope.moment(at), about: row.asset ?? row.client }),
    ),
    more: rows.length > page.length && last ? JSON.stringify([last.place, last.id]) : null,
  };
}
