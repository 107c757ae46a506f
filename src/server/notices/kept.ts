import { setImmediate } from 'node:timers/promises';
import type { Response } from 'express';
import { NOTICES_A_PAGE, type NoticeLine } from '../../contract/index.ts';
import { sendPaper } from '../platform/pdf.ts';
import { notFound } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { nameOf } from '../tasks/stored/index.ts';
import { Notice } from './entity.ts';
import { NoticePaper } from './paper.ts';

type Row = Omit<NoticeLine, 'writtenAt' | 'client' | 'mail'> & {
  readonly writtenAt: Date;
  readonly clientId: string;
  readonly clientName: string;
  readonly mailId: string | null;
  readonly mailState: 'waiting' | 'sent' | 'refused' | null;
  readonly mailTo: string | null;
};

const COLUMNS = `t.id, t.batch_id as "batchId", t.task_id as "taskId", t.client_id as "clientId",
  ${nameOf('client', 't.client_id')} as "clientName", t.page->>'subject' as subject, t.letter_name as letter, t.way, t.reason,
  t.visit_on as "visitOn", t.issued_on as "issuedOn", t.sent_on as "sentOn", t.written_at as "writtenAt",
  ${nameOf('person', 't.written_by')} as by, m.id as "mailId", m.state as "mailState", m.to_email as "mailTo",
  exists (select from notice later where later.workspace_id = t.workspace_id and later.task_id = t.task_id and later.id > t.id
    and (later.sent_on is not null or t.sent_on is null)) as "isReplaced"`;
/** Notices as `t`, by which names are looked up. */
const FROM = `from notice t
  left join mail m on m.workspace_id = t.workspace_id and m.id = t.mail_id`;

function lineOf(scope: Scope, row: Row): NoticeLine {
  const { clientId, clientName, mailId, mailState, mailTo, writtenAt, ...rest } = row;
  return {
    ...rest,
    client: { id: clientId, name: clientName },
    writtenAt: scope.moment(writtenAt),
    mail: mailId !== null && mailState !== null ? { id: mailId, state: mailState, to: mailTo ?? '' } : null,
  };
}

/** Notices of a task or of a client, the newest first. */
export async function listNotices(
  scope: Scope,
  { task, client, after }: { task?: string | undefined; client?: string | undefined; after?: string | undefined },
): Promise<{ notices: NoticeLine[]; isMore: boolean }> {
  const [column, id] = task === undefined ? ['client_id', client] : ['task_id', task];
  const rows = await scope.sql<Row>(
    `select ${COLUMNS} ${FROM} where t.workspace_id = $1 and t.${column} = $2 and ($3::uuid is null or t.id < $3)
     order by t.id desc limit ${NOTICES_A_PAGE + 1}`,
    [id, after ?? null],
  );
  return {
    notices: rows.slice(0, NOTICES_A_PAGE).map((row) => lineOf(scope, row)),
    isMore: rows.length > NOTICES_A_PAGE,
  };
}

/** Sends one notice, or those that were written in one go in the order of that, as a PDF. */
export async function sendNoticePaper(
  scope: Scope,
  { notice, batch }: { readonly notice?: string | undefined; readonly batch?: string | undefined },
  response: Response,
): Promise<void> {
  const found = await scope.find(Notice, notice === undefined ? { batchId: batch ?? '' } : { id: notice });
  const written = found.filter(({ page }) => page !== null).sort((a, b) => (a.id < b.id ? -1 : 1));
  const [first] = written;
  if (!first?.page) throw notFound('notice');
  const paper = new NoticePaper({
    title: written.length === 1 ? first.page.subject : `${written.length} notices, ${first.letterName}`,
    ...{ by: first.page.from.name, at: first.writtenAt, language: first.page.language },
  });
  for (const { page } of written) {
    if (page !== null) paper.add(page);
    await setImmediate();
  }
  sendPaper(response, paper.finished(), 'notices.pdf');
}
