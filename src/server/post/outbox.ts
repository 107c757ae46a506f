import { randomBytes } from 'node:crypto';
import type { MailKind } from '../../contract/index.ts';
import type { Scope } from '../platform/scope.ts';
import { MailPart } from './entity.ts';
import { htmlOf, type Letter, textOf } from './letter.ts';
import { takesMails } from './stops.ts';

export interface Posted {
  /** Of one reason there is one mail, however often it is told. */
  readonly reason: string;
  readonly kind: MailKind;
  readonly to: { readonly name: string; readonly email: string };
  readonly letter: Letter;
  /** Whether it holds a link that lets somebody in. */
  readonly isPrivate: boolean;
  /** Files that go with it. */
  readonly parts?: readonly Part[];
  /** Of a mail to a client's contact: whose, and which task it is about, where it is about one. */
  readonly about?: { readonly clientId: string; readonly taskId: string | null };
}

interface Part {
  readonly name: string;
  readonly mediaType: string;
  readonly bytes: Buffer;
}

/**
 * Put in the transaction of what it tells of: it leaves if that stands, and only then.
 * @returns its id; null where there is one of this reason already, or it is for a contact who wants no more mails
 */
export async function post(
  scope: Scope,
  { reason, kind, to, letter, isPrivate, parts = [], about }: Posted,
): Promise<string | null> {
  const [put] = await scope.sql<{ id: string }>(
    `insert into mail (workspace_id, id, reason, kind, to_name, to_email, subject, text, html, is_private, state, created_at, tries, try_at,
       answer_key, client_id, task_id, author_id)
     select $1, $2, $3, $4, $5, $6, $7, $8, $9, $10::boolean, 'waiting', $11, 0, clock_timestamp(), $12, $13::uuid, $14::uuid, $15::uuid
     where $13::uuid is null or ${takesMails('$1', '$6')}
     on conflict (workspace_id, reason) do nothing returning id`,
    [
      scope.newId(),
      reason,
      kind,
      to.name,
      to.email,
      letter.subject,
      textOf(letter),
      htmlOf(letter),
      isPrivate,
      scope.instant,
      randomBytes(16).toString('hex'),
      about?.clientId ?? null,
      about?.taskId ?? null,
      scope.person?.id ?? null,
    ],
  );
  if (put === undefined) return null;
  for (const [position, part] of parts.entries())
    await scope.insert(MailPart, { id: scope.newId(), mailId: put.id, position, ...part });
  await callPostman(scope);
  return put.id;
}

/** One job sends all that waits. */
export async function callPostman(scope: Scope): Promise<void> {
  await scope.sql(`select graphile_worker.add_job('post', '{}'::json, job_key => 'post') from workspace where id = $1`);
}
