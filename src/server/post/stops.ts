import { notFound } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';

/** Whether an address takes mails, as SQL over the column that holds it. */
export const takesMails = (workspace: string, email: string): string =>
  `not exists (select from mail_stop s where s.workspace_id = ${workspace} and s.email = lower(${email}))`;

/** Of some addresses those that take no more mails, in small letters, and since when. */
export async function stoppedAddresses(
  scope: Scope,
  emails: readonly string[],
): Promise<{ email: string; on: string }[]> {
  const rows = await scope.sql<{ email: string; at: Date }>(
    'select email, at from mail_stop where workspace_id = $1 and email = any($2::text[])',
    [emails.map((email) => email.toLowerCase())],
  );
  return rows.map(({ email, at }) => ({ email, on: scope.moment(at) }));
}

/** Mails go to an address again: somebody here has heard that they may. */
export function takeMailsAgain(scope: Scope, email: string): Promise<Record<string, never>> {
  return scope.transaction(async (tx) => {
    const gone = await tx.sql<{ id: string }>(
      'delete from mail_stop where workspace_id = $1 and email = $2 returning id',
      [email.toLowerCase()],
    );
    if (gone.length === 0) throw notFound('address');
    await tx.tell('clients');
    return {};
  });
}
