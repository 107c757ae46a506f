import type { Response } from 'express';
import type { MailAnswer, MailLine, MailState } from '../../contract/index.ts';
import { likeLetters } from '../platform/db/like.ts';
import { invalid, notFound, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { Mail, MailPart } from './entity.ts';
import { callPostman } from './outbox.ts';
import { messageIdOf } from './sending.ts';

const PAGE = 60;

interface Asked {
  readonly q: string;
  readonly state?: MailState | undefined;
  readonly after?: string | undefined;
}

type Row = Mail & { readonly waits: number | null };

const COLUMNS = `id, kind, to_name as "toName", to_email as "toEmail", subject, state, created_at as "createdAt",
  sent_at as "sentAt", tries, trouble, case when state = 'waiting' and tries > 0
    then greatest(0, ceil(extract(epoch from try_at - clock_timestamp()) / 60))::int end as waits`;

/** Mails that left or wait, newest first. */
export async function listMails(scope: Scope, { q, state, after }: Asked, isStandIn: boolean) {
  const [rows, counts] = await scope.atOnce(
    () =>
      scope.sql<Row>(
        `select ${COLUMNS} from mail where workspace_id = $1 and ($2::text is null or state = $2)
           and ($3::uuid is null or id < $3) and ($4 = '' or (to_name || ' ' || to_email || ' ' || subject) ilike $5)
         order by id desc limit ${PAGE + 1}`,
        [state ?? null, after ?? null, q, `%${likeLetters(q)}%`],
      ),
    () =>
      scope.sql<{ state: MailState; count: number }>(
        'select state, count(*)::int as count from mail where workspace_id = $1 group by state',
      ),
  );
  const countOf = (of: MailState) => counts.find((one) => one.state === of)?.count ?? 0;
  return {
    mails: rows.slice(0, PAGE).map((row) => lineOf(scope, row)),
    isMore: rows.length > PAGE,
    counts: { refused: countOf('refused'), waiting: countOf('waiting'), sent: countOf('sent') },
    isStandIn,
  };
}

function lineOf(scope: Scope, row: Row): MailLine {
  const { id, kind, toName, toEmail, subject, state, createdAt, sentAt, tries, trouble, waits } = row;
  return {
    ...{ id, kind, toName, toEmail, subject, state, tries, trouble },
    createdAt: scope.moment(createdAt),
    sentAt: scope.moment(sentAt),
    triedAgainIn: waits,
  };
}

export async function oneMail(scope: Scope, id: string, isStandIn: boolean): Promise<MailAnswer> {
  const [row] = await scope.sql<Row & { raw: string | null; parts: MailAnswer['parts'] }>(
    `select ${COLUMNS}, text, html, client_id as "clientId", (select raw from received_mail where message_id = $3) as raw,
       (select coalesce(jsonb_agg(jsonb_build_object('id', part.id, 'name', part.name, 'bytes', length(part.bytes))
          order by part.position), '[]') from mail_part part where part.workspace_id = $1 and part.mail_id = $2) as parts
     from mail where workspace_id = $1 and id = $2`,
    [id, messageIdOf({ id })],
  );
  if (!row) throw notFound('mail');
  return {
    ...lineOf(scope, row),
    text: row.text,
    html: row.html,
    raw: row.raw,
    parts: row.parts,
    messageId: messageIdOf({ id }),
    mayBeAnswered: isStandIn && row.clientId !== null && row.state === 'sent',
  };
}

/** Of some addresses those whose mails were given up since the last one that arrived, in small letters. */
export async function refusedAddresses(
  scope: Scope,
  emails: readonly string[],
): Promise<{ email: string; times: number; on: string; trouble: string }[]> {
  const asked = emails.filter((email) => email !== '').map((email) => email.toLowerCase());
  if (asked.length === 0) return [];
  const rows = await scope.sql<{ email: string; times: number; on: Date; trouble: string }>(
    `select lower(to_email) as email, count(*)::int as times, max(created_at) as on,
       coalesce((array_agg(trouble order by id desc))[1], '') as trouble
     from mail where workspace_id = $1 and lower(to_email) = any($2::text[]) and state = 'refused' and not exists (
       select from mail later where later.workspace_id = $1 and lower(later.to_email) = lower(mail.to_email)
         and later.state = 'sent' and later.id > mail.id)
     group by 1`,
    [asked],
  );
  return rows.map((row) => ({ ...row, on: scope.moment(row.on) }));
}

/** A file that goes with a mail, as it goes. */
export async function sendPart(scope: Scope, id: string, response: Response): Promise<void> {
  const { name, mediaType, bytes } = await scope.one(MailPart, id, 'file');
  response.set({
    'Content-Type': mediaType,
    'Content-Disposition': `inline; filename*=UTF-8''${encodeURIComponent(name)}`,
    'Cache-Control': 'no-store',
  });
  response.end(bytes);
}

/** Tries a mail again that waits or was given up. */
export function sendAgain(
  scope: Scope,
  id: string,
  email: string | undefined,
  isStandIn: boolean,
): Promise<MailAnswer> {
  return scope.transaction(async (tx) => {
    const mail = await tx.locked(Mail, id, 'mail');
    if (mail.state === 'sent') throw notNow('It has left already: it is not sent twice.');
    if (email !== undefined && mail.isPrivate && email.toLowerCase() !== mail.toEmail.toLowerCase())
      throw invalid([
        {
          path: 'email',
          message: 'This one holds a link for its own address. Correct the address where it was sent from.',
        },
      ]);
    await tx.sql(
      `update mail set state = 'waiting', tries = 0, try_at = clock_timestamp(), to_email = $3 where workspace_id = $1 and id = $2`,
      [id, email ?? mail.toEmail],
    );
    await callPostman(tx);
    return oneMail(tx, id, isStandIn);
  });
}
