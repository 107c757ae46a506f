import { createTransport, type Transporter } from 'nodemailer';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import { answerAddress } from '../../core/index.ts';
import type { Mail, MailPart } from './entity.ts';

/** Where mail is handed over. */
export interface MailServer {
  /** smtp://… or smtps://…, with name and password where it asks for them. */
  readonly url: string;
  /** Whom mails are from. */
  readonly from: string;
  /** Whether it is the one that comes with us, where nothing leaves the machine. */
  readonly isStandIn: boolean;
  /** The mailbox that answers and reports come to, “answers@rota.example”; null where none is set. */
  readonly inbound: string | null;
  /** Scheme and host under which this server is reached. */
  readonly origin: string;
}

/** A mail that is being handed over is not begun again before this, whatever became of whoever had it. */
const HELD_SECONDS = 120;
/** Minutes until each next try; after the last of them it is given up: four days and more, as RFC 5321, section 4.5.4.1, asks. */
const GAPS = [1, 2, 5, 15, 60, 240, ...Array.from({ length: 8 }, () => 720)] as const;
const LONGEST_TROUBLE = 500;

type Taken = Pick<
  Mail,
  'workspaceId' | 'id' | 'toName' | 'toEmail' | 'subject' | 'text' | 'html' | 'tries' | 'answerKey' | 'clientId'
>;

/**
 * Hands over all that waits, one after the other. A mail is held for a while first, so that two who send at once never have
 * the same one; whoever falls in between hands it over again under the same Message-ID, by which servers know it (RFC 5322,
 * section 3.6.4).
 */
export class Postman {
  private readonly transport: Transporter;

  constructor(
    private readonly source: DataSource,
    private readonly server: MailServer,
    private readonly log: Logger,
  ) {
    this.transport = createTransport(
      { url: server.url, connectionTimeout: 20_000, socketTimeout: 60_000 },
      { from: server.from },
    );
  }

  async send(now: () => Date): Promise<number> {
    let sent = 0;
    for (let mail = await this.next(); mail; mail = await this.next()) if (await this.handOver(mail, now())) sent++;
    return sent;
  }

  private async next(): Promise<Taken | undefined> {
    const [rows] = await this.source.query<[Taken[], number]>(
      `update mail set try_at = clock_timestamp() + make_interval(secs => $1), tries = tries + 1
       where (workspace_id, id) = (select workspace_id, id from mail where state = 'waiting' and try_at <= clock_timestamp()
         order by try_at limit 1 for update skip locked)
       returning workspace_id as "workspaceId", id, to_name as "toName", to_email as "toEmail", subject, text, html, tries,
         answer_key as "answerKey", client_id as "clientId"`,
      [HELD_SECONDS],
    );
    return rows[0];
  }

  private async handOver(mail: Taken, now: Date): Promise<boolean> {
    try {
      const parts = await this.source.query<Pick<MailPart, 'name' | 'mediaType' | 'bytes'>[]>(
        `select name, media_type as "mediaType", bytes from mail_part where workspace_id = $1 and mail_id = $2 order by position`,
        [mail.workspaceId, mail.id],
      );
      await this.transport.sendMail({
        messageId: messageIdOf(mail),
        date: now,
        to: { name: mail.toName, address: mail.toEmail },
        subject: mail.subject,
        text: mail.text,
        html: mail.html,
        attachments: parts.map(({ name, mediaType, bytes }) => ({
          filename: name,
          contentType: mediaType,
          content: bytes,
        })),
        headers: { 'Auto-Submitted': 'auto-generated', ...this.stoppedBy(mail) },
        ...this.answeredAt(mail),
      });
    } catch (error) {
      await this.noteTrouble(mail, error);
      return false;
    }
    await this.source.query(
      // A link that lets somebody in is not kept where others could read it.
      `update mail set state = 'sent', sent_at = $3, trouble = null,
         text = case when is_private and not $4 then $5 else text end, html = case when is_private and not $4 then '' else html end
       where workspace_id = $1 and id = $2`,
      [
        mail.workspaceId,
        mail.id,
        now,
        this.server.isStandIn,
        'What it said is not kept: it held a link for one person alone.',
      ],
    );
    return true;
  }

  /** Where answers to it go, and reports of what becomes of it. */
  private answeredAt({ answerKey: key, clientId, toEmail }: Taken): object {
    const { inbound } = this.server;
    if (inbound === null) return {};
    const address = answerAddress(inbound, key);
    return { envelope: { from: address, to: toEmail }, ...(clientId === null ? {} : { replyTo: address }) };
  }

  /** Where a contact stops mails in one click (RFC 8058, section 3.1). People here choose on their own page. */
  private stoppedBy({ answerKey, clientId }: Taken): Record<string, string> {
    if (clientId === null) return {};
    return {
      'List-Unsubscribe': `<${this.server.origin}/api/no-mails/${answerKey}>`,
      'List-Unsubscribe-Post': 'List-Unsubscribe=One-Click',
    };
  }

  private async noteTrouble(mail: Taken, error: unknown): Promise<void> {
    const said = error instanceof Error ? error.message : String(error);
    const code = error instanceof Error && 'responseCode' in error ? Number(error.responseCode) : 0;
    const gap = GAPS[mail.tries - 1];
    // Of 500 and up it will never take it (RFC 5321, section 4.2.1).
    const isOver = code >= 500 || gap === undefined;
    this.log.warn({ mail: mail.id, tries: mail.tries, said }, isOver ? 'a mail was refused' : 'a mail waits');
    await this.source.query(
      `update mail set state = $3, trouble = $4, try_at = clock_timestamp() + make_interval(mins => $5) where workspace_id = $1 and id = $2`,
      [mail.workspaceId, mail.id, isOver ? 'refused' : 'waiting', said.slice(0, LONGEST_TROUBLE), gap ?? 0],
    );
  }

  close(): void {
    this.transport.close();
  }
}

/** The same for the same mail, whoever sends it. */
export const messageIdOf = ({ id }: Pick<Mail, 'id'>): string => `<${id}@jolly-rota.local>`;
