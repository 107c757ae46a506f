import type { HeardBy } from '../../core/index.ts';
import type { MessageRecord } from '../bell/index.ts';
import type { Scope } from '../platform/scope.ts';
import { Office } from './office.ts';

/** Besides the bell: by which wish each goes, and to whom it can go at all. A mail finds its address when it leaves. */
const WAYS: Readonly<Record<'mail' | 'push', { readonly wish: HeardBy; readonly isReached: string }>> = {
  mail: { wish: 'mail', isReached: 'true' },
  push: {
    wish: 'phone',
    isReached: 'exists (select from push_device d where d.workspace_id = m.workspace_id and d.person_id = m.person_id)',
  },
};

/** Whether what was told goes this way too, and when: by what each wishes, and not within their quiet hours. */
export async function decide(scope: Scope, way: keyof typeof WAYS): Promise<void> {
  const { wish, isReached: reached } = WAYS[way];
  const waiting = await scope.sql<Pick<MessageRecord, 'id' | 'personId' | 'side' | 'kind'> & { isReached: boolean }>(
    `select id, person_id as "personId", side, kind, ${reached} as "isReached"
     from message m where workspace_id = $1 and ${way} = 'undecided'`,
  );
  if (waiting.length === 0) return;
  const office = waiting.some(({ isReached }) => isReached) ? await Office.of(scope) : null;
  const decided = waiting.map(({ id, personId, side, kind, isReached }) => {
    const goes = isReached && office?.wishOf(personId, side, kind)?.[wish] === true;
    return { id, goes: goes ? 'waits' : 'no', at: goes ? office.mailAt(scope, personId, kind) : null };
  });
  await scope.sql(
    `update message set ${way} = decided.goes, ${way}_at = decided.at
     from jsonb_to_recordset($2::jsonb) as decided (id uuid, goes text, at timestamptz)
     where message.workspace_id = $1 and message.id = decided.id and message.${way} = 'undecided'`,
    [JSON.stringify(decided)],
  );
}
