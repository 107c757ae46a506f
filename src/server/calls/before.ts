import { BEFORE_KINDS, type BeforeCall, TOLD_BEFORE } from '../../contract/index.ts';
import type { Scope } from '../platform/scope.ts';
import { toldCall } from './day.ts';

type Kind = BeforeCall['lines'][number]['kind'];

/** Of each kind the lines of a client `$2`, but for the call `$3`, by the clock of the zone `$4`. */
const LINES: Readonly<Record<Kind, string>> = {
  call: `select list_on as "on", rung_at as at, concat_ws(': ', outcome->>'name', nullif(note, '')) as text, null::uuid as "taskId"
    from call where workspace_id = $1 and client_id = $2 and state = 'rung' and id <> $3`,
  // Who finished it by a link is somebody of theirs.
  task: `select (done_at at time zone $4)::date as "on", done_at as at, concat_ws(', by ', title, done_by_contact) as text, id as "taskId"
    from task where workspace_id = $1 and client_id = $2 and state = 'done'`,
  notice: `select n.sent_on as "on", n.written_at as at, concat_ws(', ', n.page->>'subject', n.way) as text, n.task_id as "taskId"
    from notice n where n.workspace_id = $1 and n.client_id = $2 and n.sent_on is not null`,
  // A mail is theirs by the address of one of their contacts; what lets somebody in is no news of them.
  mail: `select (m.created_at at time zone $4)::date as "on", m.created_at as at,
      m.subject || case m.state when 'sent' then '' when 'waiting' then ', not sent yet' else ', not taken' end as text, null::uuid as "taskId"
    from mail m where m.workspace_id = $1 and m.kind in ('notice', 'task') and lower(m.to_email) in (
      select lower(k.email) from contact k where k.workspace_id = $1 and k.client_id = $2 and k.email <> '')`,
  link: `select (l.opened_at at time zone $4)::date as "on", l.opened_at as at, concat_ws(' ', l.name, 'opened', t.title) as text, l.task_id as "taskId"
    from client_link l left join task t on t.workspace_id = l.workspace_id and t.id = l.task_id
    where l.workspace_id = $1 and l.client_id = $2 and l.opened_at is not null`,
};

/** What is known of the client of a call from before, the newest first; all of it, or of one kind. */
export async function beforeCall(scope: Scope, callId: string, only?: Kind): Promise<BeforeCall> {
  const { client, contact } = await toldCall(scope, callId);
  const params = [client.id, callId, scope.workspace.zone];
  const each = (kinds: readonly Kind[]) =>
    kinds.map((kind) => `select '${kind}' as kind, of.* from (${LINES[kind]}) of`).join(' union all ');
  // A statement names all it is given.
  const all = 'select where $2::uuid is not null and $3::uuid is not null and $4::text is not null';
  const [rows, counted] = await scope.atOnce(
    () =>
      scope.sql<BeforeCall['lines'][number]>(
        `select kind, "on", text, "taskId" from (${each(only === undefined ? BEFORE_KINDS : [only])}) each where exists (${all})
         order by "on" desc, at desc nulls last limit ${TOLD_BEFORE}`,
        params,
      ),
    () =>
      scope.sql<{ kind: Kind; count: number }>(
        `select kind, count(*)::int as count from (${each(BEFORE_KINDS)}) each group by kind`,
        params,
      ),
  );
  const counts = Object.fromEntries(BEFORE_KINDS.map((kind) => [kind, 0])) as Record<Kind, number>;
  for (const { kind, count } of counted) counts[kind] = count;
  return { lines: rows.map((row) => ({ ...row, text: row.text || contact.name })), counts };
}
