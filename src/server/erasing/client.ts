import type { Erasing } from '../../contract/index.ts';
import { Asset, Client, Contact } from '../clients/index.ts';
import { invalid, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { NOTHING_WRITTEN } from './blank-page.ts';
import { eraseBroughtIn, eraseMails, type KnownBy, knownBy, takeWordsOutElsewhere } from './elsewhere.ts';
import { eraseTasks } from './of-tasks.ts';
import { ERASED, erasedWords } from './words.ts';

/** Also what never found its way to the client's page, by the addresses that are theirs alone. */
const MAILS = 'client_id = $2 or lower(to_email) = any($3::text[])';
const ANSWERS = 'client_id = $2 or lower(from_email) = any($3::text[])';

const known = async (scope: Scope, { id, name }: Client): Promise<KnownBy> => {
  const contacts = await scope.find(Contact, { clientId: id });
  return knownBy(scope, { clientId: id }, [name, ...contacts.flatMap(namesOf)]);
};

/** What erasing a client would take, and what it would leave. */
export async function lookAtClient(scope: Scope, id: string): Promise<Erasing> {
  const client = await scope.one(Client, id, 'client');
  const { emails, shared } = await known(scope, client);
  const [counts] = await scope.sql<Omit<Erasing, 'name' | 'whyNot' | 'shared'>>(
    `select (select count(*)::int from contact where workspace_id = $1 and client_id = $2) as contacts,
       (select count(*)::int from asset where workspace_id = $1 and client_id = $2) as assets,
       (select count(*)::int from task where workspace_id = $1 and client_id = $2 and note <> '')
         + (select count(*)::int from task_comment c join task t on t.workspace_id = $1 and t.id = c.task_id
            where c.workspace_id = $1 and t.client_id = $2) as notes,
       (select count(*)::int from file f join task t on t.workspace_id = $1 and t.id = f.task_id
          where f.workspace_id = $1 and t.client_id = $2 and f.removed_at is null) as files,
       (select count(*)::int from mail where workspace_id = $1 and (${MAILS}))
         + (select count(*)::int from answer where workspace_id = $1 and (${ANSWERS})) as mails,
       (select count(*)::int from notice where workspace_id = $1 and client_id = $2) as letters,
       (select count(*)::int from task where workspace_id = $1 and client_id = $2) as tasks,
       (select count(*)::int from call where workspace_id = $1 and client_id = $2) as calls`,
    [id, emails],
  );
  if (!counts) throw new Error('Counting gives a row.');
  const whyNot = client.archivedAt === null ? 'Archive the client first.' : null;
  return { name: client.name, whyNot, shared: [...shared], ...counts };
}

/**
 * Takes all that tells who a client is out of the record, for good: what was done for them, and when, stays without a name.
 * @param name as whoever asks for it has written it, so that nobody does it by a slip
 */
export function eraseClient(scope: Scope, id: string, name: string): Promise<void> {
  return scope.transaction(async (tx) => {
    const client = await tx.locked(Client, id, 'client');
    if (client.archivedAt === null) throw notNow('Archive the client first.');
    if (client.name !== name.trim())
      throw invalid([{ path: 'name', message: `Write the name as it stands: ${client.name}.` }]);
    const contacts = await tx.find(Contact, { clientId: id });
    const assets = await tx.find(Asset, { clientId: id });
    const words = erasedWords([
      client.name,
      ...contacts.flatMap(namesOf),
      ...assets.flatMap(({ name: asset, tag }) => [asset, tag ?? '']),
      ...client.address.split('\n'),
    ]);
    const tasks = await tx.sql<{ id: string }>(
      'select id from task where workspace_id = $1 and client_id = $2 order by id',
      [id],
    );
    await eraseTasks(
      tx,
      tasks.map((task) => task.id),
      words,
    );
    const { own, emails } = await known(tx, client);
    await eraseMails(tx, MAILS, [id, emails]);
    await eraseAnswers(tx, id, emails);
    await takeWordsOutElsewhere(tx, own);
    await eraseRecords(tx, id, {
      contactIds: contacts.map((contact) => contact.id),
      assetIds: assets.map((asset) => asset.id),
    });
    await tx.save(Client, id, {
      ...{ name: `Client who was ${ERASED}`, address: '', notes: '', fields: {}, usualPersonId: null },
      version: client.version + 1,
    });
    for (const contact of contacts)
      await tx.save(Contact, contact.id, { name: ERASED, role: '', email: '', telephone: '', prefers: null });
    for (const [i, asset] of assets.entries())
      await tx.save(Asset, asset.id, {
        ...{ name: `Asset ${i + 1}, ${ERASED}`, tag: null, place: '', fields: {}, version: asset.version + 1 },
        archivedAt: asset.archivedAt ?? tx.instant,
      });
    await tx.record('client', id, 'erased', {});
    await tx.tell('clients', 'tasks', 'schedules');
  });
}

const namesOf = ({ name, email, telephone }: Contact): string[] => [name, email, telephone];

/** What they have written by mail: that they did stays. */
async function eraseAnswers(scope: Scope, id: string, emails: readonly string[]): Promise<void> {
  const which = `workspace_id = $1 and (${ANSWERS})`;
  const of = `select id from answer where ${which}`;
  await scope.sql(`delete from received_mail where message_id in (select message_id from answer where ${which})`, [
    id,
    emails,
  ]);
  await scope.sql(`delete from answer_part where workspace_id = $1 and answer_id in (${of})`, [id, emails]);
  await scope.sql(
    `update answer set from_name = '${ERASED}', from_email = '', subject = '${ERASED}', text = '', message_id = id::text where ${which}`,
    [id, emails],
  );
  await scope.sql(
    'delete from mail_stop where workspace_id = $1 and (client_id = $2 or lower(email) = any($3::text[]))',
    [id, emails],
  );
}

interface Theirs {
  readonly contactIds: readonly string[];
  readonly assetIds: readonly string[];
}

async function eraseRecords(scope: Scope, id: string, { contactIds, assetIds }: Theirs): Promise<void> {
  await scope.sql(
    `update notice set page = $3::jsonb where workspace_id = $1 and client_id = $2 and page is not null`,
    [id, JSON.stringify(NOTHING_WRITTEN)],
  );
  await scope.sql(
    `update call set note = '', number = '', version = version + 1 where workspace_id = $1 and client_id = $2`,
    [id],
  );
  await scope.sql(
    `update call_standing set wrong_number = null, is_never_called = true where workspace_id = $1 and contact_id = any($2::uuid[])`,
    [contactIds],
  );
  // Whoever has such a link finds nothing behind it.
  await scope.sql(
    `update client_link set name = '${ERASED}', email = '', digest = 'erased ' || id::text, code_digest = null, passes = '[]',
       withdrawn_at = coalesce(withdrawn_at, $3) where workspace_id = $1 and client_id = $2`,
    [id, scope.instant],
  );
  await scope.sql(`delete from calendar_address where workspace_id = $1 and of_id = any($2::uuid[])`, [
    [id, ...assetIds],
  ]);
  await eraseBroughtIn(scope, `before->>'clientId' = $2::text or read->>'targetId' = $2::text`, [id]);
  // What was changed of them: nothing brings it back.
  const subjects = `select $2::uuid union all select unnest($3::uuid[])
    union all select id from notice where workspace_id = $1 and client_id = $2
    union all select id from call where workspace_id = $1 and client_id = $2`;
  await scope.sql(`delete from change where workspace_id = $1 and subject_id in (${subjects})`, [id, assetIds]);
  await scope.sql(
    `delete from change where workspace_id = $1 and subject = 'task' and action = 'deleted'
       and fields->'row'->'from'->>'client_id' = $2::text`,
    [id],
  );
}
