import {
  groupBy,
  type MessageKind,
  type MessageWords,
  namesIn,
  ownWords,
  sayAnswered,
  sayBroughtIn,
  sayCallList,
  sayComment,
  sayOpened,
  sayPool,
  sayStopped,
} from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import { giversOf } from './givers.ts';
import type { Office } from './office.ts';
import type { Told } from './telling.ts';

/** What the database has noted of something: before the first and after the last of what was done with it. */
export interface Noted<Look> {
  readonly subjectId: string;
  readonly byId: string | null;
  readonly before: Look | null;
  readonly after: Look | null;
}
export interface NotedComment {
  readonly task_id: string;
  readonly text: string;
  readonly by: string;
}
export interface NotedOpened {
  readonly taskId: string | null;
  readonly clientId: string;
  readonly contact: string;
}
/** What it holds is read when it is told: its calls are written after it. */
export type NotedList = Readonly<Record<string, unknown>>;
export interface NotedBroughtIn {
  readonly kind: 'clients' | 'people';
  readonly fileName: string;
  readonly rows: number;
}

export interface NotedAnswer {
  readonly mail_id: string | null;
  readonly task_id: string | null;
  readonly client_id: string | null;
  readonly from_name: string;
  readonly subject: string;
  readonly text: string;
}
export interface NotedStop {
  readonly email: string;
  readonly name: string;
  readonly client_id: string | null;
}

/** One thing for all who answer for such a thing; never for whoever did it. */
export function toAnswering(
  office: Office,
  kind: MessageKind,
  line: MessageWords & { readonly path: string | null; readonly taskId?: string | null; readonly byId?: string | null },
): Told[] {
  const { taskId = null, byId = null } = line;
  return office
    .answering(kind)
    .flatMap((personId): Told[] =>
      personId === byId ? [] : [{ ...line, personId, side: 'gave', kind, times: 1, taskId, byId }],
    );
}

/** A comment reaches whoever has the work, gave it or answers for it; who is named in it has heard of it already. */
export async function toldOfComments(
  scope: Scope,
  office: Office,
  comments: readonly Noted<NotedComment>[],
): Promise<Told[]> {
  const ids = comments.flatMap(({ after }) => after?.task_id ?? []);
  if (ids.length === 0) return [];
  const givers = await giversOf(scope, ids);
  const tasks = await scope.sql<{ id: string; title: string; assigneeId: string | null }>(
    'select id, title, assignee_id as "assigneeId" from task where workspace_id = $1 and id = any($2::uuid[])',
    [ids],
  );
  const byId = new Map(tasks.map((task) => [task.id, task]));
  return comments.flatMap(({ after }): Told[] => {
    const task = after && byId.get(after.task_id);
    if (!task) return [];
    const line = { ...sayComment(task.title, after.text, after.by, office), taskId: task.id, path: null, times: 1 };
    const others = new Set([...office.answering('comment'), ...(givers.get(task.id) ?? [])]);
    if (task.assigneeId !== null) others.delete(task.assigneeId);
    const hears = (personId: string) => personId !== after.by && !namesIn(after.text, office.nameOf(personId) ?? '@');
    const told = (personId: string, side: Told['side']): Told[] =>
      hears(personId) ? [{ ...line, personId, side, kind: 'comment', byId: after.by }] : [];
    return [
      ...(task.assigneeId === null ? [] : told(task.assigneeId, 'mine')),
      ...[...others].flatMap((personId) => told(personId, 'gave')),
    ];
  });
}

/** A link that was opened for the first time. */
export async function toldOfOpened(
  scope: Scope,
  office: Office,
  opened: readonly Noted<NotedOpened>[],
): Promise<Told[]> {
  if (opened.length === 0) return [];
  const [clients, tasks] = await scope.atOnce(
    () =>
      titlesOf(
        scope,
        'client',
        'name',
        opened.map(({ after }) => after?.clientId ?? null),
      ),
    () =>
      titlesOf(
        scope,
        'task',
        'title',
        opened.map(({ after }) => after?.taskId ?? null),
      ),
  );
  return opened.flatMap(({ after }) => {
    if (after === null) return [];
    const { taskId, clientId, contact } = after;
    const words = sayOpened(tasks.get(taskId ?? '') ?? null, { contact, client: clients.get(clientId) ?? contact });
    return toAnswering(office, 'client', { ...words, taskId, path: taskId === null ? `/clients/${clientId}` : null });
  });
}

async function titlesOf(
  scope: Scope,
  table: 'client' | 'task',
  column: 'name' | 'title',
  ids: readonly (string | null)[],
): Promise<ReadonlyMap<string, string>> {
  const rows = await scope.sql<{ id: string; title: string }>(
    `select id, ${column} as title from ${table} where workspace_id = $1 and id = any($2::uuid[])`,
    [ids.filter((id) => id !== null)],
  );
  return new Map(rows.map(({ id, title }) => [id, title]));
}

/** Lists of calls that were made: whose they are hears of each; of those that came out short, those who answer for them. */
export async function toldOfLists(scope: Scope, office: Office, lists: readonly Noted<NotedList>[]): Promise<Told[]> {
  const ids = lists.map(({ subjectId }) => subjectId);
  if (ids.length === 0) return [];
  const rows = await scope.sql<{
    quotaId: string;
    quota: string;
    personId: string;
    listOn: string;
    wanted: number;
    calls: number;
    isMailed: boolean;
  }>(
    `select l.quota_id as "quotaId", q.name as quota, l.person_id as "personId", l.list_on as "listOn", l.wanted,
       (select count(*) from call c where c.workspace_id = l.workspace_id and c.list_id = l.id and c.state <> 'off')::int as calls,
       exists (select from mail m where m.workspace_id = l.workspace_id and m.reason = 'calls ' || l.id) as "isMailed"
     from call_list l join call_quota q on q.workspace_id = l.workspace_id and q.id = l.quota_id
     where l.workspace_id = $1 and l.id = any($2::uuid[]) order by q.name, l.id`,
    [ids],
  );
  const ready = rows.flatMap(({ quota, personId, calls, wanted, isMailed }): Told[] =>
    calls === 0
      ? []
      : [
          {
            ...{ personId, side: 'mine', kind: 'calls', times: 1, taskId: null, byId: null, path: '/calls' },
            ...sayCallList(quota, { calls, wanted }),
            // The list itself went by mail: that there is one need not.
            isHereAlone: isMailed,
          },
        ],
  );
  const short = [
    ...groupBy(
      rows.filter(({ calls, wanted }) => calls < wanted),
      ({ quotaId }) => quotaId,
    ),
  ];
  return [
    ...ready,
    ...short.flatMap(([quotaId, of]) => {
      const [{ quota, listOn } = { quota: '', listOn: scope.today }] = of;
      const missing = of.reduce((sum, { calls, wanted }) => sum + wanted - calls, 0);
      const names = of.flatMap(({ personId }) => office.nameOf(personId) ?? []);
      const words = sayPool(quota, { on: listOn, short: missing, names }, office.telling(scope));
      return toAnswering(office, 'pool', { ...words, path: `/calls/quotas/${quotaId}` });
    }),
  ];
}

export function toldOfBroughtIn(office: Office, { subjectId, byId, after }: Noted<NotedBroughtIn>): Told[] {
  if (after === null) return [];
  const words = sayBroughtIn({ ...after, byId }, office);
  return toAnswering(office, 'import', { ...words, byId, path: `/bring-in/${subjectId}` });
}

/**
 * An answer by mail reaches whoever has the work and whoever had the mail sent; where that is nobody, those who answer for it.
 * One that nobody knows the client of reaches those who read the post.
 */
export async function toldOfAnswers(
  scope: Scope,
  office: Office,
  answers: readonly Noted<NotedAnswer>[],
): Promise<Told[]> {
  if (answers.length === 0) return [];
  const rows = await scope.sql<{
    id: string;
    authorId: string | null;
    assigneeId: string | null;
    title: string | null;
  }>(
    `select a.id, m.author_id as "authorId", t.assignee_id as "assigneeId", t.title from answer a
     left join mail m on m.workspace_id = a.workspace_id and m.id = a.mail_id
     left join task t on t.workspace_id = a.workspace_id and t.id = a.task_id
     where a.workspace_id = $1 and a.id = any($2::uuid[])`,
    [answers.map(({ subjectId }) => subjectId)],
  );
  const byId = new Map(rows.map((row) => [row.id, row]));
  return answers.flatMap(({ subjectId, after }): Told[] => {
    const row = byId.get(subjectId);
    if (after === null || row === undefined) return [];
    const { task_id: taskId, client_id: clientId, from_name: name, subject, text } = after;
    const words = sayAnswered(row.title ?? subject, { name, own: ownWords(text) });
    const path = taskId !== null ? null : clientId === null ? '/post' : `/clients/${clientId}`;
    const line = { ...words, kind: 'answer', times: 1, taskId, path, byId: null } as const;
    const { authorId, assigneeId } = row;
    const mine: Told[] = assigneeId === null ? [] : [{ ...line, personId: assigneeId, side: 'mine' }];
    if (authorId !== null && clientId !== null)
      return authorId === assigneeId ? mine : [...mine, { ...line, personId: authorId, side: 'gave' }];
    return [
      ...mine,
      ...office
        .answering('answer', clientId === null ? 'post' : 'plan')
        .flatMap((personId): Told[] => (personId === assigneeId ? [] : [{ ...line, personId, side: 'gave' }])),
    ];
  });
}

/** An address that takes no more mails. */
export function toldOfStop(office: Office, { after }: Noted<NotedStop>): Told[] {
  if (after === null) return [];
  const { name, email, client_id: clientId } = after;
  return toAnswering(office, 'client', {
    ...sayStopped({ name, email }),
    path: clientId === null ? null : `/clients/${clientId}`,
  });
}
