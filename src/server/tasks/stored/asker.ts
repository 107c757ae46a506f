import type { Offer } from '../../../core/index.ts';
import type { Scope } from '../../platform/scope.ts';

/** One job asks all clients of the workspace who are owed a mail, once this work stands. */
export async function callAsker(scope: Scope): Promise<void> {
  await scope.sql(
    `select graphile_worker.add_job('ask', json_build_object('workspaceId', $1::uuid), job_key => 'ask:' || $1::text)`,
  );
}

/** The same where some of the tasks that were written are for their clients to do. */
export async function callAskerFor(
  scope: Scope,
  tasks: readonly { readonly offeredTo: Offer | null }[],
): Promise<void> {
  if (tasks.some(({ offeredTo }) => offeredTo?.of === 'client')) await callAsker(scope);
}
