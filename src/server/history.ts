import { FIELD_WORDS, type HistoryEntry } from '../contract/index.ts';
import { dayOfIso, joinAnd, sayDate, sayDuration } from '../core/index.ts';
import type { Change, FieldChanges } from './db/change.ts';
import type { Scope } from './scope.ts';
import { withoutTasks } from './tasks/snapshot.ts';

const CHANGES_SHOWN = 40;

/** Fields that follow from others, and are not told beside them. */
const SILENT = new Set([
  'startsOn',
  'appearsOn',
  'edited',
  'startedAt',
  'doneAt',
  'doneBy',
  'signedAt',
  'signedBy',
  'state',
  'answers',
  'ticks',
  'tasks',
  'row',
  'sentBack',
  'notePinned',
  'archivedAt',
]);

/** What was done with a task, a schedule or a template, newest first, in words. */
export async function historyOf(scope: Scope, subject: Change['subject'], id: string): Promise<HistoryEntry[]> {
  const people = await scope.peopleNames();
  const rows = await scope.sql<{
    id: string;
    at: Date;
    actorId: string | null;
    action: string;
    fields: FieldChanges;
    undoneAt: Date | null;
  }>(
    `select id, at, actor_id as "actorId", action, fields, undone_at as "undoneAt" from change
     where workspace_id = $1 and subject = $2 and subject_id = $3 order by at desc, id desc limit ${CHANGES_SHOWN}`,
    [subject, id],
  );
  return rows.map((row) => ({
    id: row.id,
    at: scope.moment(row.at),
    by: row.actorId === null ? null : (people.get(row.actorId) ?? null),
    said: sayChange(row.action, withoutTasks(row.fields), people) + (row.undoneAt === null ? '' : ' (undone)'),
  }));
}

function sayChange(action: string, fields: FieldChanges, people: ReadonlyMap<string, string>): string {
  const told = Object.keys(fields).filter((field) => !SILENT.has(field));
  switch (action) {
    case 'created':
      return 'made';
    case 'changed':
    case 'edited':
      return told.length === 1 ? sayOne(told[0] ?? '', fields, people) : `${sayNames(told)} changed`;
    case 'undone':
      return told.length > 0 ? `${sayNames(told)} put back` : 'put back as it was';
    case 'ticked':
    case 'unticked':
      return `${action} a check line`;
    case 'noted':
      return 'wrote the note';
    case 'proof':
      return 'added or took out a file';
    default:
      return action;
  }
}

function sayNames(fields: readonly string[]): string {
  return joinAnd(fields.map((field) => FIELD_WORDS[field] ?? field)) || 'something';
}

/** A single change with what it was before, where both are short. */
function sayOne(field: string, fields: FieldChanges, people: ReadonlyMap<string, string>): string {
  const { from, to } = fields[field] ?? {};
  const short = (value: unknown): string | null => {
    if (value === null || value === undefined) return field === 'assigneeId' ? 'nobody yet' : 'none';
    if (field === 'assigneeId') return people.get(String(value)) ?? null;
    if (field === 'estimateMinutes') return sayDuration(Number(value));
    if (/On$/.test(field)) return sayDate(dayOfIso(String(value)));
    return typeof value === 'string' && value.length <= 40 && field !== 'instructions' ? value : null;
  };
  const [before, after] = [short(from), short(to)];
  const name = FIELD_WORDS[field] ?? field;
  return before === null || after === null ? `${name} changed` : `${name}: ${after}, was ${before}`;
}
