import { type AddressObject, type ParsedMail, simpleParser } from 'mailparser';
import type { Logger } from 'pino';
import type { DataSource } from 'typeorm';
import { MAX_FILE_BYTES, MOST_ANSWER } from '../../contract/index.ts';
import { answerKey, deliveryFailure, isAutomatic, MOST_HANDED_ON } from '../../core/index.ts';
import type { Clock } from '../platform/clock.ts';
import { earliestId } from '../platform/db/uuid.ts';
import { Workspace } from '../platform/identity/workspace.ts';
import { Scope } from '../platform/scope.ts';
import type { Mail } from '../post/index.ts';
import { AnswerPart } from './entity.ts';

/** The envelope of a mail that was handed in. */
export interface Envelope {
  /** Empty for what must not be answered. */
  readonly from: string;
  readonly to: readonly string[];
}

/** Refused by what a mail server understands. */
export class NotTaken extends Error {
  constructor(
    /** RFC 5321, section 4.2.3. */
    readonly responseCode: number,
    message: string,
  ) {
    super(message);
  }
}

/** Answers to one mail, and of one workspace within an hour: beyond that something runs in a circle. */
const MOST_TO_ONE = 100;
const MOST_AN_HOUR = 1_000;
const HOUR_MS = 3_600_000;
const MOST_PARTS = 20;
const LONGEST_LINE = 300;
/** Bytes of a report that are looked at: what it is about comes first, the mail itself behind it. */
const LONGEST_REPORT = 256 * 1024;

type Answered = Pick<Mail, 'workspaceId' | 'id' | 'toName' | 'toEmail' | 'clientId' | 'taskId'>;

/** Takes what comes to the address for answers, and finds where it belongs. */
export class Inbox {
  constructor(
    private readonly source: DataSource,
    private readonly clock: Clock,
    private readonly log: Logger,
    /** "answers@rota.example" */
    readonly mailbox: string,
    /** Whom our mails are from, as an address. */
    private readonly ownAddress: string,
  ) {}

  /** Whether a mail may come to an address: the mailbox, or the answer to a mail that there is. @throws NotTaken for a key that is none */
  async takes(address: string): Promise<boolean> {
    const key = answerKey(address, this.mailbox);
    if (key === null) return false;
    if (key !== '' && (await this.mailOf(key)) === null) throw new NotTaken(550, 'there is no such address here');
    return true;
  }

  /** @throws NotTaken with what is wrong; what was thrown otherwise was not taken, and may be handed in again */
  async receive(raw: Buffer, envelope: Envelope): Promise<void> {
    const mail = await simpleParser(raw, { skipTextToHtml: true, skipImageLinks: true });
    if (handedOn(mail) > MOST_HANDED_ON) throw new NotTaken(554, 'this mail goes in a circle');
    const from = addressOf(mail.from) ?? envelope.from;
    if (this.isOwn(from)) {
      this.log.warn({ from }, 'a mail of our own came back, and is let go');
      return;
    }
    const answered = await this.answered(mail, envelope);
    if (isReport(mail)) {
      await this.noteFailure(raw, answered);
      return;
    }
    const workspace = await this.workspaceFor(answered, from);
    if (workspace === null) throw new NotTaken(550, 'nobody here knows whom this is for: answer a mail that you had');
    await this.keep(
      Scope.on(this.source, workspace, null, this.clock),
      mail,
      { from, sender: envelope.from },
      answered,
    );
  }

  private isOwn(address: string): boolean {
    return answerKey(address, this.mailbox) !== null || address.toLowerCase() === this.ownAddress.toLowerCase();
  }

  private async mailOf(key: string): Promise<Answered | null> {
    return this.oneMail('answer_key = $1', key);
  }

  private async oneMail(where: string, value: string): Promise<Answered | null> {
    const [row] = await this.source.query<Answered[]>(
      `select workspace_id as "workspaceId", id, to_name as "toName", to_email as "toEmail", client_id as "clientId", task_id as "taskId"
       from mail where ${where} limit 1`,
      [value],
    );
    return row ?? null;
  }

  /** By the address that it came to; else by the mail that it says it answers (RFC 5322, section 3.6.4). */
  private async answered({ inReplyTo, references }: ParsedMail, { to }: Envelope): Promise<Answered | null> {
    for (const address of to) {
      const key = answerKey(address, this.mailbox);
      const mail = key ? await this.mailOf(key) : null;
      if (mail) return mail;
    }
    const named = [inReplyTo ?? '', ...[references ?? []].flat().toReversed()].slice(0, MOST_PARTS);
    for (const messageId of named) {
      const [, id] = /^<([0-9a-f]{8}-(?:[0-9a-f]{4}-){3}[0-9a-f]{12})@jolly-rota\.local>$/.exec(messageId.trim()) ?? [];
      const mail = id ? await this.oneMail('id = $1::uuid', id) : null;
      if (mail) return mail;
    }
    return null;
  }

  /** A report tells of a mail that did not arrive after all; of one that is only slow it tells nothing that matters. */
  private async noteFailure(raw: Buffer, answered: Answered | null): Promise<void> {
    const says = deliveryFailure(raw.subarray(0, LONGEST_REPORT).toString('latin1'));
    if (says === null || answered === null) {
      this.log.info({ mail: answered?.id }, 'a report of a mail was let go');
      return;
    }
    await this.source.query(
      `update mail set state = 'refused', trouble = $3 where workspace_id = $1 and id = $2 and state <> 'refused'`,
      [answered.workspaceId, answered.id, says.slice(0, LONGEST_LINE)],
    );
  }

  /** That of the mail; else the one whose contact has this address, or the only one that there is. */
  private async workspaceFor(answered: Answered | null, from: string): Promise<Workspace | null> {
    const workspaces = this.source.getRepository(Workspace);
    if (answered !== null) return workspaces.findOneBy({ id: answered.workspaceId });
    const known = await this.source.query<{ id: string }[]>(
      `select id from workspace w where exists (
         select from contact k where k.workspace_id = w.id and lower(k.email) = lower($1) and k.email <> '') limit 2`,
      [from],
    );
    const [only] = known;
    if (only !== undefined && known.length === 1) return workspaces.findOneBy({ id: only.id });
    const all = await workspaces.find({ take: 2 });
    return known.length === 0 && all.length === 1 ? (all[0] ?? null) : null;
  }

  private async keep(
    asked: Scope,
    mail: ParsedMail,
    { from, sender }: { readonly from: string; readonly sender: string },
    answered: Answered | null,
  ): Promise<void> {
    await refuseFlood(asked, answered);
    const name = nameOf(mail.from) || (answered?.toName ?? from);
    // What it is about may be another client's by now.
    const [task] = await asked.sql<{ clientId: string | null }>(
      'select client_id as "clientId" from task where workspace_id = $1 and id = $2',
      [answered?.taskId ?? null],
    );
    const clientId = task?.clientId ?? answered?.clientId ?? null;
    const isByMachine = isAutomatic({
      envelopeFrom: sender,
      autoSubmitted: headOf(mail, 'auto-submitted'),
      precedence: headOf(mail, 'precedence'),
      listId: headOf(mail, 'list-id'),
    });
    await asked.transaction(async (tx) => {
      const id = tx.newId();
      const [put] = await tx.sql<{ id: string }>(
        `insert into answer (workspace_id, id, mail_id, task_id, client_id, kind, from_name, from_email, subject, text, message_id, at)
         values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12) on conflict (workspace_id, message_id) do nothing returning id`,
        [
          ...[id, answered?.id ?? null, answered?.taskId ?? null, clientId, isByMachine ? 'automatic' : 'person'],
          ...[line(name), line(from), line(mail.subject ?? ''), plain(mail.text ?? '').slice(0, MOST_ANSWER)],
          ...[line(mail.messageId ?? `<${id}@none>`), tx.instant],
        ],
      );
      if (put === undefined) return;
      for (const [position, part] of mail.attachments.slice(0, MOST_PARTS).entries())
        await tx.insert(AnswerPart, {
          ...{ id: tx.newId(), answerId: id, position, name: line(part.filename ?? 'file'), size: part.size },
          ...{ bytes: part.size <= MAX_FILE_BYTES ? part.content : null, fileId: null },
        });
      if (answered?.taskId && !isByMachine && task !== undefined && clientId !== null)
        await tx
          .by({ linkId: '', contactId: '', name: line(name), email: line(from), clientId, taskId: answered.taskId })
          .record('task', answered.taskId, 'wrote', {});
      await tx.tell('clients', 'tasks');
    });
  }
}

/** @throws NotTaken where so much came that something must run in a circle: it may come again later */
async function refuseFlood(scope: Scope, answered: Answered | null): Promise<void> {
  const [counts] = await scope.sql<{ one: number; all: number }>(
    `select (select count(*) from answer where workspace_id = $1 and mail_id = $2)::int as one,
       (select count(*) from answer where workspace_id = $1 and id > $3::uuid)::int as all`,
    [answered?.id ?? null, earliestId(scope.instant.getTime() - HOUR_MS)],
  );
  if ((counts?.one ?? 0) >= MOST_TO_ONE) throw new NotTaken(552, 'there are too many answers to that mail already');
  if ((counts?.all ?? 0) >= MOST_AN_HOUR) throw new NotTaken(451, 'too much comes at once: try again later');
}

/** A report of what became of a mail (RFC 3464, section 2). */
const isReport = (mail: ParsedMail): boolean =>
  /^multipart\/report\b[\s\S]*\breport-type="?delivery-status\b/i.test(headOf(mail, 'content-type') ?? '');

const handedOn = ({ headerLines }: ParsedMail): number => headerLines.filter(({ key }) => key === 'received').length;

function headOf({ headerLines }: ParsedMail, key: string): string | null {
  const found = headerLines.find((line) => line.key === key)?.line;
  return found === undefined ? null : found.slice(found.indexOf(':') + 1).trim();
}

const addressOf = (from: AddressObject | undefined): string | undefined => from?.value[0]?.address;
const nameOf = (from: AddressObject | undefined): string => plain(from?.value[0]?.name ?? '').trim();

/** Without signs that are none, or that turn what stands around them. */
const plain = (text: string): string =>
  // biome-ignore lint/suspicious/noControlCharactersInRegex: these are what is taken out
  text.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f\u200e\u200f\u202a-\u202e\u2066-\u2069]/g, '');
const line = (text: string): string => plain(text).replace(/\s+/g, ' ').trim().slice(0, LONGEST_LINE);
