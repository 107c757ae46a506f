import { BEFORE_KINDS, type BeforeCall, TOLD_BEFORE } from '../../contract/index.ts';
import type { Scope } from '../platform/scope.ts';
import { toldCall } from './day.ts';
import { Params } from './pool-sql.ts';

type Kind = BeforeCall['lines'][number]['kind'];

/** What the lines are of: a client, without a call, told by the clock of the workspace. */
type Of = (name: 'client' | 'call' | 'zone') => string;

const dayOf = (moment: string, of: Of) => `(${moment} at time zone ${of('zone')})::date as "on", ${moment} as at`;
const NO_TASK = 'null::uuid as "taskId"';

/** The lines of each kind. */
const LINES: Readonly<Record<Kind, (of: Of) => string>> = {
  call: (
    of,
  ) => `select list_on as "on", rung_at as at, concat_ws(': ', outcome->>'name', nullif(note, '')) as text, ${NO_TASK}
    from call where workspace_id = $1 and client_id = ${of('client')} and state = 'rung' and id <> ${of('call')}`,
  // Who finished it by a link is somebody of theirs.
  task: (of) => `select ${dayOf('done_at', of)}, concat_ws(', by ', title, done_by_contact) as text, id as "taskId"
    from task where workspace_id = $1 and client_id = ${of('client')} and state = 'done'`,
  notice: (
    of,
  ) => `select n.sent_on as "on", n.written_at as at, concat_ws(', ', n.page->>'subject', n.way) as text, n.task_id as "taskId"
    from notice n where n.workspace_id = $1 and n.client_id = ${of('client')} and n.sent_on is not null`,
  // A mail is theirs by the address of one of their contacts; what lets somebody in is no news of them.
  mail: (of) => `select ${dayOf('m.created_at', of)},
      m.subject || case m.state when 'sent' then '' when 'waiting' then ', not sent yet' else ', not taken' end as text, ${NO_TASK}
    from mail m where m.workspace_id = $1 and m.kind in ('notice', 'task') and lower(m.to_email) in (
      select lower(k.email) from contact k where k.workspace_id = $1 and k.client_id = ${of('client')} and k.email <> '')`,
  link: (
    of,
  ) => `select ${dayOf('l.opened_at', of)}, concat_ws(' ', l.name, 'opened', t.title) as text, l.task_id as "taskId"
    from client_link l left join task t on t.workspace_id = l.workspace_id and t.id = l.task_id
    where l.workspace_id = $1 and l.client_id = ${of('client')} and l.opened_at is not null`,
};

/** What is known of the client of a call from before, the newest first; all of it, or of one kind. */
export async function beforeCall(scope: Scope, callId: string, only?: Kind): Promise<BeforeCall> {
  const { client, contact } = await toldCall(scope, callId);
  const each = (kinds: readonly Kind[], params: Params) => {
    const of = params.named({
      client: [client.id, 'uuid'],
      call: [callId, 'uuid'],
      zone: [scope.workspace.zone, 'text'],
    });
    return kinds.map((kind) => `select '${kind}' as kind, of.* from (${LINES[kind](of)}) of`).join(' union all ');
  };
  const ask = <Row extends object>(kinds: readonly Kind[], question: (lines: string) => string): Promise<Row[]> => {
    const params = new Params();
    return scope.sql<Row>(question(each(kinds, params)), params.values);
  };
  const [rows, counted] = await scope.atOnce(
    () =>
      ask<BeforeCall['lines'][number]>(
        only === undefined ? BEFORE_KINDS : [only],
        (lines) =>
          `select kind, "on", text, "taskId" from (${lines}) each order by "on" desc, at desc nulls last limit ${TOLD_BEFORE}`,
      ),
    () =>
      ask<{ kind: Kind; count: number }>(
        BEFORE_KINDS,
        (lines) => `select kind, count(*)::int as count from (${lines}) each group by kind`,
      ),
  );
  const counts = Object.fromEntries(BEFORE_KINDS.map((kind) => [kind, 0])) as Record<Kind, number>;
  for (const { kind, count } of counted) counts[kind] = count;
  return { lines: rows.map((row) => ({ ...row, text: row.text || contact.name })), counts };
}
