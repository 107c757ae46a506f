import { notFound } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';

/** Whom a mail is to, and where it reaches them: with an account by its own address; null where none is known. */
export async function reachedAt(
  scope: Scope,
  personId: string,
): Promise<{ readonly name: string; readonly email: string | null }> {
  const [row] = await scope.sql<{ name: string; email: string | null }>(
    `select p.name, coalesce(a.email, p.email) as email from person p left join account a on a.id = p.account_id
     where p.workspace_id = $1 and p.id = $2`,
    [personId],
  );
  if (row === undefined) throw notFound('person');
  return { name: row.name, email: row.email || null };
}
