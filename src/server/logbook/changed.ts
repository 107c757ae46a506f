import { z } from 'zod';
import { LOG_ROWS_A_PAGE, type LoggedChange, type logbookEndpoints, NONE_OF_THEM } from '../../contract/index.ts';
import { dayOfIso, instantOf, isoOfDay } from '../../core/index.ts';
import { readCursor } from '../platform/http/cursor.ts';
import { invalid } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { questionOf } from '../task-list/index.ts';
import { nameOf } from '../tasks/stored/index.ts';

type Endpoint = (typeof logbookEndpoints)['changes'];

const NO_NOTICE = 'null::jsonb';

/**
 * What of changes `c` is told, as the indexes have it; the task `t` that each was about, as it is or as it was when it was
 * deleted; who had it before, and since. What was given on and deleted later is told as deleted.
 */
const KINDS = {
  deleted: {
    which: `c.subject = 'task' and c.action = 'deleted'`,
    task: `cross join lateral jsonb_populate_record(null::task, c.fields->'row'->'from') t`,
    taskId: 'null::uuid',
    from: 't.assignee_id',
    to: 'null::uuid',
    notice: NO_NOTICE,
  },
  given: {
    which: `c.subject = 'task' and c.action <> 'undone' and c.fields ? 'assigneeId'`,
    task: 'join task t on t.workspace_id = c.workspace_id and t.id = c.subject_id',
    taskId: 't.id',
    from: `(c.fields->'assigneeId'->>'from')::uuid`,
    to: `(c.fields->'assigneeId'->>'to')::uuid`,
    notice: NO_NOTICE,
  },
  announced: {
    which: `c.subject = 'notice' and c.action in ('sent', 'mailed')`,
    task: `join notice n on n.workspace_id = c.workspace_id and n.id = c.subject_id
      join task t on t.workspace_id = c.workspace_id and t.id = n.task_id`,
    taskId: 't.id',
    from: 't.assignee_id',
    to: 'null::uuid',
    notice: `jsonb_build_object('id', n.id, 'way', n.way, 'sentOn', n.sent_on, 'visitOn', n.visit_on)`,
  },
} as const satisfies Record<z.output<Endpoint['query']>['what'], object>;

/** When it was, to the microsecond: a page begins right after it. */
const PLACE = `to_char(c.at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"')`;
const isPlace = (text: string) => z.iso.datetime({ precision: 6 }).safeParse(text).success && text >= '1970';

type Row = Omit<LoggedChange, 'at' | 'about'> & {
  readonly at: Date;
  readonly place: string;
  readonly client: string | null;
  readonly asset: string | null;
};

/** Tasks that were deleted, or given to somebody else, and still are so: by when that was done, the latest first. */
export async function loggedChanges(
  scope: Scope,
  { what, from: first, to: last, after, person, role, team, ...filter }: z.output<Endpoint['query']>,
): Promise<z.input<Endpoint['answer']>> {
  const { which, task, taskId, from, to, notice } = KINDS[what];
  const asked = await questionOf(scope, filter);
  const midnight = (day: number) => asked.with(new Date(instantOf(isoOfDay(day), '00:00', scope.workspace.zone)));
  asked.and(`c.workspace_id = $1 and c.undone_at is null and ${which}`);
  asked.and(`c.at >= ${midnight(dayOfIso(first))} and c.at < ${midnight(dayOfIso(last) + 1)}`);
  // Whoever had it, has it since, or did it.
  const those = [from, ...(what === 'given' ? [to] : []), 'c.actor_id'];
  if (person !== undefined) {
    const who = asked.with(person === NONE_OF_THEM ? null : person);
    asked.and(`(${those.map((one) => `${one} is not distinct from ${who}::uuid`).join(' or ')})`);
  }
  const ofSome = (has: string) =>
    `exists (select from person p where p.workspace_id = $1 and p.id in (${those.join(', ')}) and ${has})`;
  if (role !== undefined) asked.and(ofSome(`p.roles ? ${asked.with(role)}::text`));
  if (team !== undefined) asked.and(ofSome(`p.team = ${asked.with(team)}::text`));
  const cursor = readCursor(after);
  if (cursor) {
    if (!isPlace(cursor[0])) throw invalid([{ path: 'after', message: 'This is not a place in the list.' }]);
    asked.and(`(c.at, c.id) < (${asked.with(cursor[0])}::timestamptz, ${asked.with(cursor[1])}::uuid)`);
  }
  const rows = await scope.sql<Row>(
    `select c.id, c.at, ${PLACE} as place, ${nameOf('person', 'c.actor_id')} as by, ${taskId} as "taskId", t.title,
       ${nameOf('client', 't.client_id')} as client, ${nameOf('asset', 't.asset_id')} as asset, t.due_on as "dueOn",
       ${nameOf('person', from)} as "from", ${nameOf('person', to)} as "to", ${notice} as notice
     from change c ${task} where ${asked.where} order by c.at desc, c.id desc limit ${LOG_ROWS_A_PAGE + 1}`,
    asked.params,
  );
  const page = rows.slice(0, LOG_ROWS_A_PAGE);
  const end = page.at(-1);
  return {
    changes: page.map(({ place: _, at, client, asset, ...row }) => ({
      ...row,
      at: scope.moment(at),
      about: asset ?? client,
    })),
    more: rows.length > page.length && end ? JSON.stringify([end.place, end.id]) : null,
  };
}
