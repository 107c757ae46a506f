import type { Scope } from '../platform/scope.ts';
import { ERASED, erasedWords, takeWordsOut } from './words.ts';

/**
 * Mails: that there were some stays, what they said goes; what has not left never does.
 * @param which mails, by a condition
 */
export async function eraseMails(scope: Scope, which: string, params: readonly unknown[]): Promise<void> {
  await scope.sql(
    `delete from mail_part where workspace_id = $1 and mail_id in (select id from mail where workspace_id = $1 and (${which}))`,
    params,
  );
  await scope.sql(
    `update mail set to_name = '${ERASED}', to_email = '', subject = '${ERASED}', text = '', html = '', trouble = null,
       state = case state when 'waiting' then 'refused' else state end where workspace_id = $1 and (${which})`,
    params,
  );
}

/** Lines of files that are about somebody: nothing of them is taken out or looked at again. @param which lines, by a condition */
export const eraseBroughtIn = (scope: Scope, which: string, params: readonly unknown[]) =>
  scope.sql(
    `update bring_in_row set cells = '[]', before = null,
       read = read || '{"title": "${ERASED}", "about": "", "values": {}, "diffs": [], "why": ""}'
     where workspace_id = $1 and (${which})`,
    params,
  );

/** By what somebody is known: what is theirs alone, with the addresses of mail among it in small letters, and what others bear too. */
export interface KnownBy {
  readonly own: readonly string[];
  readonly emails: readonly string[];
  readonly shared: readonly string[];
}

/**
 * Of texts by which a client or a person is known those by which nobody else here is, in whatever letters: only these are theirs
 * wherever they stand. An address of an office, or a name that two bear, says nothing of whom it is about.
 */
export async function knownBy(
  scope: Scope,
  { clientId = null, personId = null }: { readonly clientId?: string | null; readonly personId?: string | null },
  texts: readonly string[],
): Promise<KnownBy> {
  const others = await scope.sql<{ text: string }>(
    `select lower(text) as text from (
       select name as text from client where workspace_id = $1 and id is distinct from $2::uuid
       union all select unnest(array[name, email, telephone]) from contact where workspace_id = $1 and client_id is distinct from $2::uuid
       union all select name from asset where workspace_id = $1 and client_id is distinct from $2::uuid
       union all select unnest(array[name, email, telephone]) from person where workspace_id = $1 and id is distinct from $3::uuid
       union all select a.email from person p join account a on a.id = p.account_id where p.workspace_id = $1 and p.id is distinct from $3::uuid
     ) other where lower(text) = any($4::text[])`,
    [clientId, personId, texts.map((text) => text.toLowerCase())],
  );
  const borne = new Set(others.map(({ text }) => text));
  const said = [...new Set(texts)].filter((text) => text !== '');
  const own = said.filter((text) => !borne.has(text.toLowerCase()));
  return {
    own,
    emails: own.filter((text) => text.includes('@')).map((text) => text.toLowerCase()),
    shared: said.filter((text) => borne.has(text.toLowerCase())),
  };
}

/** Where names stand in texts about something else, of the whole workspace: what was told, sent, or lies in files on their way in. */
const TEXTS = {
  message: { title: 'text', text: 'text' },
  mail: { subject: 'text', text: 'text', html: 'text' },
  notice: { page: 'json' },
  untold: { before: 'json', after: 'json' },
  webhook_delivery: { task: 'json' },
  bring_in_row: { cells: 'json', read: 'json', before: 'json' },
  schedule: { revisions: 'json' },
} as const;

/** Takes names out of texts of the whole workspace. */
export async function takeWordsOutElsewhere(scope: Scope, own: KnownBy['own']): Promise<void> {
  const words = erasedWords(own);
  if (words === null) return;
  // A letter that was written stays as it is, but for this.
  await scope.sql(`select set_config('jolly.erasing', 'yes', true) where $1::uuid is not null`);
  for (const [table, columns] of Object.entries(TEXTS)) await takeWordsOut(scope, words, table, columns, 'true');
}
