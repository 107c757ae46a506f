import type { AnswerTray, MailedAnswer } from '../../contract/index.ts';
import { ANSWERS_A_PAGE } from '../../contract/index.ts';
import { ownWords } from '../../core/index.ts';
import { Client } from '../clients/index.ts';
import { notFound } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { TaskRecord } from '../tasks/stored/index.ts';
import { AnswerRecord } from './entity.ts';

interface Row extends Omit<MailedAnswer, 'at' | 'own' | 'from' | 'isAway' | 'task' | 'client'> {
  readonly at: Date;
  readonly fromName: string;
  readonly fromEmail: string;
  readonly awayAt: Date | null;
  readonly taskId: string | null;
  readonly title: string | null;
  readonly clientId: string | null;
  readonly clientName: string | null;
}

/** Clients of one address that are told to choose from. */
const MOST_GUESSES = 5;

const SELECTED = `select a.id, a.at, a.from_name as "fromName", a.from_email as "fromEmail", a.subject, a.text, a.kind, a.away_at as "awayAt",
    a.mail_id as "mailId", a.task_id as "taskId", t.title, a.client_id as "clientId", c.name as "clientName",
    (select coalesce(jsonb_agg(jsonb_build_object('id', p.id, 'name', p.name, 'bytes', p.size,
       'state', case when f.id is not null then 'taken' when p.bytes is null then 'gone' else 'here' end) order by p.position), '[]')
     from answer_part p left join file f on f.workspace_id = p.workspace_id and f.id = p.file_id and f.removed_at is null
     where p.workspace_id = a.workspace_id and p.answer_id = a.id) as parts,
    case when a.client_id is not null then '[]' else (select coalesce(jsonb_agg(jsonb_build_object('id', g.id, 'name', g.name)), '[]') from (
       select distinct g.id, g.name from contact k join client g on g.workspace_id = k.workspace_id and g.id = k.client_id
       where k.workspace_id = a.workspace_id and lower(k.email) = lower(a.from_email) and k.email <> '' and g.archived_at is null
       order by g.name limit ${MOST_GUESSES}) g) end as guesses
  from answer a left join task t on t.workspace_id = a.workspace_id and t.id = a.task_id
  left join client c on c.workspace_id = a.workspace_id and c.id = a.client_id`;

const TRAYS: Readonly<Record<AnswerTray, string>> = {
  toPlace: `a.kind = 'person' and a.client_id is null and a.away_at is null`,
  placed: `a.kind = 'person' and (a.client_id is not null or a.away_at is not null)`,
  automatic: `a.kind = 'automatic'`,
};

interface Page {
  answers: MailedAnswer[];
  more: boolean;
  count: number;
}

/** Answers newest first, or those before one of them. @param where over `a`, with its values from $2 on */
async function pageOf(
  scope: Scope,
  where: string,
  values: readonly string[],
  before: string | undefined,
): Promise<Page> {
  const last = `$${values.length + 2}`;
  const [rows, [counted]] = await scope.atOnce(
    () =>
      scope.sql<Row>(
        `${SELECTED} where a.workspace_id = $1 and ${where} and (${last}::uuid is null or a.id < ${last})
         order by a.id desc limit ${ANSWERS_A_PAGE + 1}`,
        [...values, before ?? null],
      ),
    () =>
      scope.sql<{ count: number }>(
        `select count(*)::int as count from answer a where a.workspace_id = $1 and ${where}`,
        values,
      ),
  );
  return {
    answers: rows.slice(0, ANSWERS_A_PAGE).map((row) => told(scope, row)),
    more: rows.length > ANSWERS_A_PAGE,
    count: counted?.count ?? 0,
  };
}

/** What contacts have answered about a task; what machines did stands in the tray alone. */
export async function answersOfTask(scope: Scope, taskId: string, before?: string): Promise<Page> {
  await scope.one(TaskRecord, taskId, 'task');
  return pageOf(scope, `a.task_id = $2 and a.kind = 'person'`, [taskId], before);
}

export async function answersOfClient(scope: Scope, clientId: string, before?: string): Promise<Page> {
  await scope.one(Client, clientId, 'client');
  return pageOf(scope, `a.client_id = $2 and a.kind = 'person'`, [clientId], before);
}

export const answersInTray = (scope: Scope, tray: AnswerTray, before?: string): Promise<Page> =>
  pageOf(scope, TRAYS[tray], [], before);

export async function oneAnswer(scope: Scope, id: string): Promise<MailedAnswer> {
  const [row] = await scope.sql<Row>(`${SELECTED} where a.workspace_id = $1 and a.id = $2`, [id]);
  if (!row) throw notFound('answer');
  return told(scope, row);
}

function told(scope: Scope, row: Row): MailedAnswer {
  const { fromName, fromEmail, awayAt, taskId, title, clientId, clientName, at, ...rest } = row;
  return {
    ...rest,
    at: scope.moment(at),
    from: { name: fromName, email: fromEmail },
    own: ownWords(rest.text),
    isAway: awayAt !== null,
    task: taskId === null ? null : { id: taskId, title: title ?? '' },
    client: clientId === null ? null : { id: clientId, name: clientName ?? '' },
  };
}

export const lockedAnswer = (scope: Scope, id: string): Promise<AnswerRecord> =>
  scope.locked(AnswerRecord, id, 'answer');
