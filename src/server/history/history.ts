import { FIELD_WORDS, type HistoryEntry } from '../../contract/index.ts';
import {
  type AssignmentRule,
  type CivilDay,
  dayOfIso,
  joinAnd,
  sayDate,
  sayDay,
  sayDuration,
  sayRule,
} from '../../core/index.ts';
import { actionKind, silentActions, undoneBy } from '../platform/changes/actions.ts';
import { Change, type FieldChanges } from '../platform/changes/entity.ts';
import { columnsOf } from '../platform/db/columns.ts';
import type { Scope } from '../platform/scope.ts';
import { fieldType, isOne, SUBJECTS } from './subjects.ts';

const CHANGES_SHOWN = 40;

const FIELDS = [
  'id',
  'at',
  'actorId',
  'byContact',
  'subject',
  'subjectId',
  'action',
  'undoneAt',
  'joinedId',
] as const satisfies readonly (keyof Change)[];

interface HistoryRow extends Pick<Change, (typeof FIELDS)[number] | 'fields'> {
  /** Of a file. */
  readonly fileName: string | null;
  /** How many were made in one go with it and stand still. */
  readonly together: number;
}

/** Bytes, as they are stored, from which on only the names of the fields are told: nothing so long is told by its value. */
const LONG = 8192;

const CHANGE_COLUMNS = `${columnsOf(Change, 'c', FIELDS)}, case when pg_column_size(c.fields) < ${LONG} then c.fields
  else (select jsonb_object_agg(name, '{"from": {}, "to": {}}'::jsonb) from jsonb_object_keys(c.fields) name) end as fields`;

/** What was done with a task, a schedule or a template, newest first, in words; and what of it can be undone. */
export async function historyOf(
  scope: Scope,
  subject: Change['subject'],
  id: string,
  most: number = CHANGES_SHOWN,
): Promise<HistoryEntry[]> {
  const people = await scope.peopleNames();
  const rows = await scope.sql<HistoryRow>(
    `select told.*, (select count(*) from change other where other.workspace_id = $1
        and other.joined_id = told."joinedId" and other.undone_at is null) as together
     from (
       (select ${CHANGE_COLUMNS}, null as "fileName" from change c
        where c.workspace_id = $1 and c.subject = $2 and c.subject_id = $3 and not c.action = any($4::text[])
        order by c.at desc, c.id desc limit ${most})
       union all
       -- What a file did to the task it belongs to stands with the file.
       (select ${CHANGE_COLUMNS}, f.name from file f
        join change c on c.workspace_id = f.workspace_id and c.subject = 'file' and c.subject_id = f.id
        where f.workspace_id = $1 and $2 = 'task' and f.task_id = $3
        order by c.at desc, c.id desc limit ${most})
       union all
       -- What was written to announce a visit stands with it.
       (select ${CHANGE_COLUMNS}, null from notice n
        join change c on c.workspace_id = n.workspace_id and c.subject = 'notice' and c.subject_id = n.id
        where n.workspace_id = $1 and $2 = 'task' and n.task_id = $3
        order by c.at desc, c.id desc limit ${most})
       union all
       -- What a client was put on stands with the client.
       (select ${CHANGE_COLUMNS}, null from on_plan o
        join change c on c.workspace_id = o.workspace_id and c.subject = 'onPlan' and c.subject_id = o.id
        where o.workspace_id = $1 and $2 = 'client' and o.client_id = $3
        order by c.at desc, c.id desc limit ${most})
       union all
       -- A deleted task has no page of its own any more: its schedule tells of it.
       (select ${CHANGE_COLUMNS}, null from change c where c.workspace_id = $1 and $2 = 'schedule' and c.subject = 'task'
          and c.action = 'deleted' and c.undone_at is null and c.fields->'row'->'from'->>'schedule_id' = $3::text
        order by c.at desc, c.id desc limit ${most})
     ) told order by told.at desc, told.id desc limit ${most}`,
    [subject, id, silentActions(subject)],
  );
  const free = freeOfLaterOnes(rows);
  return rows.map((row) => ({
    id: row.id,
    at: scope.moment(row.at),
    by: row.byContact ?? (row.actorId === null ? null : (people.get(row.actorId) ?? null)),
    said:
      (row.fileName === null ? sayChange(row, people, scope) : sayFileChange(row.fileName, row.fields)) +
      (row.undoneAt === null ? '' : ' (undone)'),
    undo: free.has(row.id) && mayUndo(scope, row) ? undoOf(row) : null,
  }));
}

/** Changes whose fields nothing has changed since; what was undone counts as never done. */
function freeOfLaterOnes(newestFirst: readonly HistoryRow[]): Set<string> {
  const free = new Set<string>();
  const changedSince = new Set<string>();
  for (const { id, subject, subjectId, action, fields, undoneAt } of newestFirst) {
    if (undoneAt !== null || action === 'undone') continue;
    const taken = isOne(subject) ? SUBJECTS[subject].fieldsTaken({ action, fields }) : [];
    const own = taken.map((field) => `${subjectId} ${field}`);
    if (!own.some((field) => changedSince.has(field)) && actionKind(subject, action).isUndoneThere) free.add(id);
    for (const field of own) changedSince.add(field);
  }
  return free;
}

function mayUndo(scope: Scope, { subject, action, actorId }: HistoryRow): boolean {
  if (scope.mayAll('undo')) return true;
  return actorId === scope.person?.id && isOne(subject) && SUBJECTS[subject].mayUndoOwn({ action });
}

function undoOf(row: HistoryRow): HistoryEntry['undo'] {
  const { id, joinedId, together } = row;
  const changeId = undoneBy(row);
  if (changeId !== id) return { changeId, together: null };
  return { changeId, together: joinedId === null || together < 2 ? null : { changeId: joinedId, count: together } };
}

function sayChange(
  { subject, action, fields }: HistoryRow,
  people: ReadonlyMap<string, string>,
  { now }: Scope,
): string {
  const told = isOne(subject) ? Object.keys(fields).filter((field) => SUBJECTS[subject].telling[field] === 'told') : [];
  const { says } = actionKind(subject, action);
  switch (says) {
    case 'fields':
      return told.length === 1 ? sayOne(subject, told[0] ?? '', fields, people, now.day) : `${sayNames(told)} changed`;
    case 'put back':
      return told.length > 0 ? `${sayNames(told)} put back` : 'put back as it was';
    case 'what is gone': {
      const { title, work_on: on } = (fields['row']?.from ?? {}) as { title?: string; work_on?: string };
      return title === undefined ? 'deleted' : `deleted “${title}” of ${sayDay(dayOfIso(on ?? ''), now.day)}`;
    }
    default:
      return says.words;
  }
}

function sayFileChange(name: string, { removedAt }: FieldChanges): string {
  return removedAt?.to === null ? `added “${name}”` : `took “${name}” out`;
}

function sayNames(fields: readonly string[]): string {
  return joinAnd(fields.map((field) => FIELD_WORDS[field] ?? field)) || 'something';
}

/** A single change with what it was before, where both are short. */
function sayOne(
  subject: Change['subject'],
  field: string,
  fields: FieldChanges,
  people: ReadonlyMap<string, string>,
  today: CivilDay,
): string {
  const { from, to } = fields[field] ?? {};
  const short = (value: unknown): string | null => {
    const isPerson = field === 'assigneeId' || field === 'usualPersonId';
    if (value === null || value === undefined) return isPerson ? 'nobody yet' : 'none';
    if (isPerson) return people.get(String(value)) ?? null;
    if (field === 'assignment')
      return sayRule(value as AssignmentRule, { today, people: [...people].map(([id, name]) => ({ id, name })) });
    if (field === 'estimateMinutes') return sayDuration(Number(value));
    if (fieldType(subject, field) === 'date') return sayDate(dayOfIso(String(value)));
    return typeof value === 'string' && value.length <= 40 && field !== 'instructions' ? value : null;
  };
  const [before, after] = [short(from), short(to)];
  const name = FIELD_WORDS[field] ?? field;
  return before === null || after === null ? `${name} changed` : `${name}: ${after}, was ${before}`;
}
