import { plural, sayDate, sayWhyListed as sayWhy, type WhyListed } from '../../core/index.ts';
import { reachedAt } from '../people/index.ts';
import type { Scope } from '../platform/scope.ts';
import { post } from '../post/index.ts';
import type { CallQuota } from './stored/index.ts';

interface ListMail {
  readonly listId: string;
  readonly quota: Pick<CallQuota, 'name'>;
  readonly personId: string;
  /** Scheme and host under which this server is reached. */
  readonly origin: string;
}

/** Tells somebody of their list of the day: names, numbers and a link to it. Who has no address of their own is not told. */
export async function listMail(scope: Scope, { listId, quota, personId, origin }: ListMail): Promise<void> {
  const { name, email } = await reachedAt(scope, personId);
  if (email === null) return;
  const calls = await scope.sql<{ contact: string; client: string; number: string; why: WhyListed }>(
    `select k.name as contact, c.name as client, x.number, x.why from call x
     join contact k on k.workspace_id = x.workspace_id and k.id = x.contact_id
     join client c on c.workspace_id = x.workspace_id and c.id = x.client_id
     where x.workspace_id = $1 and x.list_id = $2 order by x.place`,
    [listId],
  );
  const { ways } = scope.workspace;
  await post(scope, {
    reason: `calls ${listId}`,
    kind: 'calls',
    to: { name, email },
    isPrivate: false,
    letter: {
      subject: `${quota.name}: ${plural(calls.length, 'call')} for ${sayDate(scope.now.day, ways)}`,
      from: scope.workspace.name,
      greeting: `Dear ${name},`,
      paragraphs: [
        `your list for today has ${plural(calls.length, 'call')}:`,
        ...calls.map(({ contact, client, number, why }, i) => {
          const who = contact === client ? contact : `${contact}, ${client}`;
          return `${i + 1}. ${who}: ${number} (${sayWhy(why, scope.now.day)})`;
        }),
      ],
      deed: { words: 'Open the list', url: `${origin}/calls` },
      after: [],
    },
  });
}
