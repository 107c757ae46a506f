import type { MailKind } from '../../contract/index.ts';
import type { Scope } from '../platform/scope.ts';
import { htmlOf, type Letter, textOf } from './letter.ts';

export interface Posted {
  /** Of one reason there is one mail, however often it is told. */
  readonly reason: string;
  readonly kind: MailKind;
  readonly to: { readonly name: string; readonly email: string };
  readonly letter: Letter;
  /** Whether it holds a link that lets somebody in. */
  readonly isPrivate: boolean;
}

/** Put in the transaction of what it tells of: it leaves if that stands, and only then. */
export async function post(scope: Scope, { reason, kind, to, letter, isPrivate }: Posted): Promise<void> {
  await scope.sql(
    `insert into mail (workspace_id, id, reason, kind, to_name, to_email, subject, text, html, is_private, state, created_at, tries, try_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, 'waiting', $11, 0, clock_timestamp())
     on conflict (workspace_id, reason) do nothing`,
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
    ],
  );
  await callPostman(scope);
}

/** One job sends all that waits. */
export async function callPostman(scope: Scope): Promise<void> {
  await scope.sql(`select graphile_worker.add_job('post', '{}'::json, job_key => 'post') from workspace where id = $1`);
}
