import type { Request } from 'express';
import type { DataSource } from 'typeorm';
import { LINK_HEADER } from '../../contract/index.ts';
import type { Clock } from '../platform/clock.ts';
import type { Asker } from '../platform/http/route.ts';
import { Workspace } from '../platform/identity/workspace.ts';
import { notNow } from '../platform/refusal.ts';
import { Scope } from '../platform/scope.ts';
import { Mail } from '../post/index.ts';

interface Stopping {
  readonly from: string;
  readonly email: string;
  readonly isStopped: boolean;
}

const keyOf = (request: Request): string => request.header(LINK_HEADER) ?? '';

/** The mail of a key, within its workspace. @throws Refusal where there is none, or it went to somebody here */
export async function mailOfKey(source: DataSource, clock: Clock, key: string): Promise<{ scope: Scope; mail: Mail }> {
  const mail = key === '' ? null : await source.getRepository(Mail).findOneBy({ answerKey: key });
  if (mail === null || mail.clientId === null)
    throw notNow('This address is not known here: it may be cut short. Write to whoever sent you the mail.');
  const workspace = await source.getRepository(Workspace).findOneByOrFail({ id: mail.workspaceId });
  return { scope: Scope.on(source, workspace, null, clock), mail };
}

/** Whoever shows the key of a mail that went to a contact. */
export const byMailKey = (clock: Clock): Asker => ({
  who: (request) => `mail ${keyOf(request)}`,
  scope: async (request, source) => (await mailOfKey(source, clock, keyOf(request))).scope,
});

async function mailWith(scope: Scope, key: string): Promise<Mail> {
  const [mail] = await scope.find(Mail, { answerKey: key });
  if (!mail) throw new Error('The mail of a key was found a moment before.');
  return mail;
}

/** Whether mails go to the address of a mail. */
export async function mailsTo(scope: Scope, request: Request): Promise<Stopping> {
  const { toEmail } = await mailWith(scope, keyOf(request));
  const [stopped] = await scope.sql<{ id: string }>('select id from mail_stop where workspace_id = $1 and email = $2', [
    toEmail.toLowerCase(),
  ]);
  return { from: scope.workspace.name, email: toEmail, isStopped: stopped !== undefined };
}

/** No more mails to it; said twice, it is the same. */
export async function stopMails(scope: Scope, key: string): Promise<Stopping> {
  const { toEmail, toName, clientId } = await mailWith(scope, key);
  await scope.transaction(async (tx) => {
    await tx.sql(
      `insert into mail_stop (workspace_id, id, email, name, client_id, at) values ($1, $2, $3, $4, $5, $6)
       on conflict (workspace_id, email) do nothing`,
      [tx.newId(), toEmail.toLowerCase(), toName, clientId, tx.instant],
    );
    await tx.tell('clients');
  });
  return { from: scope.workspace.name, email: toEmail, isStopped: true };
}

export const stopMailsBy = (scope: Scope, request: Request): Promise<Stopping> => stopMails(scope, keyOf(request));
