import { createTransport } from 'nodemailer';
import { answerAddress } from '../../core/index.ts';
import { notFound, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { Mail, messageIdOf } from '../post/index.ts';

/** An answer that somebody here writes as whoever received a mail would: handed in over SMTP like any other. */
export interface TriedOut {
  readonly workspaceId: string;
  readonly mailId: string;
  readonly text: string;
  readonly automatic: boolean;
}

/** Asks the queue for it, which knows where the stand-in listens. @throws Refusal where mail goes outside, or that one asks for no answer */
export async function askToTryOut(
  scope: Scope,
  mailId: string,
  { text, automatic }: { readonly text: string; readonly automatic: boolean },
  mailEndsHere: boolean,
): Promise<Record<string, never>> {
  if (!mailEndsHere) throw notNow('Mail leaves this machine: whoever received it answers it themselves.');
  const mail = await scope.one(Mail, mailId, 'mail');
  if (mail.clientId === null) throw notFound('answer');
  const asked: TriedOut = { workspaceId: scope.workspace.id, mailId, text, automatic };
  await scope.sql(`select graphile_worker.add_job('tryOut', $2::json) from workspace where id = $1`, [
    JSON.stringify(asked),
  ]);
  return {};
}

/** Hands it in. */
export async function tryOut(
  scope: Scope,
  url: string,
  mailbox: string,
  { mailId, text, automatic }: TriedOut,
): Promise<void> {
  const mail = await scope.one(Mail, mailId, 'mail');
  const transport = createTransport({ url });
  try {
    await transport.sendMail({
      ...{ from: { name: mail.toName, address: mail.toEmail }, to: answerAddress(mailbox, mail.answerKey) },
      ...{ subject: `Re: ${mail.subject}`, inReplyTo: messageIdOf(mail), references: [messageIdOf(mail)] },
      text: `${text}\n\nOn ${scope.moment(mail.createdAt)}, ${scope.workspace.name} wrote:\n${mail.text.replace(/^/gm, '> ')}`,
      ...(automatic ? { headers: { 'Auto-Submitted': 'auto-replied' } } : {}),
    });
  } finally {
    transport.close();
  }
}
