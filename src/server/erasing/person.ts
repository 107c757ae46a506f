import type { Erasing } from '../../contract/index.ts';
import { hasLeftBy } from '../../core/index.ts';
import { Person } from '../platform/identity/person.ts';
import { invalid, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { eraseBroughtIn, eraseMails, knownBy, takeWordsOutElsewhere } from './elsewhere.ts';
import { eraseAnswersOf, eraseFiles } from './of-tasks.ts';
import { ERASED, erasedWords, takeWordsOut } from './words.ts';

const whyNot = (scope: Scope, person: Person): string | null =>
  person.id === scope.person?.id
    ? 'Nobody erases themselves: ask another manager.'
    : hasLeftBy(person, scope.now.day)
      ? null
      : 'They still work here: set a last day, and hand over what they hold, first.';

/** What they sign in with, and how many others do so too, in other workspaces. */
async function accountOf(scope: Scope, { id, accountId }: Person): Promise<{ email: string; others: number } | null> {
  const [account = null] = await scope.sql<{ email: string; others: number }>(
    `select a.email, (select count(*)::int from person p where p.account_id = a.id and p.id <> $2) as others
     from account a where a.id = $3 and $1::uuid is not null`,
    [id, accountId],
  );
  return account;
}

const namesOf = (person: Person, account: { readonly email: string } | null): string[] => [
  ...[person.name, person.email ?? '', account?.email ?? '', person.telephone],
];

/** What erasing somebody would take, and what it would leave. */
export async function lookAtPerson(scope: Scope, id: string): Promise<Erasing> {
  const person = await scope.one(Person, id, 'person');
  const names = namesOf(person, await accountOf(scope, person));
  const { emails, shared } = await knownBy(scope, { personId: id }, names);
  const [counts] = await scope.sql<Omit<Erasing, 'name' | 'whyNot' | 'shared' | 'contacts' | 'assets' | 'letters'>>(
    `select (select count(*)::int from task where workspace_id = $1 and done_by = $2 and note <> '')
         + (select count(*)::int from task_comment where workspace_id = $1 and by = $2) as notes,
       (select count(*)::int from file where workspace_id = $1 and uploaded_by = $2 and task_id is not null and removed_at is null) as files,
       (select count(*)::int from mail where workspace_id = $1 and lower(to_email) = any($3::text[])) as mails,
       (select count(*)::int from task where workspace_id = $1 and (assignee_id = $2 or done_by = $2)) as tasks,
       (select count(*)::int from call where workspace_id = $1 and rung_by = $2) as calls`,
    [id, emails],
  );
  if (!counts) throw new Error('Counting gives a row.');
  const none = { contacts: 0, assets: 0, letters: 0 };
  return { name: person.name, whyNot: whyNot(scope, person), shared: [...shared], ...none, ...counts };
}

/**
 * Takes all that tells who somebody is out of the record, for good: what they did, and when, stays without a name.
 * @param name as whoever asks for it has written it, so that nobody does it by a slip
 */
export function erasePerson(scope: Scope, id: string, name: string): Promise<void> {
  return scope.transaction(async (tx) => {
    const person = await tx.locked(Person, id, 'person');
    const why = whyNot(tx, person);
    if (why !== null) throw notNow(why);
    if (person.name !== name.trim())
      throw invalid([{ path: 'name', message: `Write the name as it stands: ${person.name}.` }]);
    const account = await accountOf(tx, person);
    const names = namesOf(person, account);
    const { own, emails } = await knownBy(tx, { personId: id }, names);
    const words = erasedWords(names);
    await eraseWritten(tx, id);
    await eraseMails(tx, 'lower(to_email) = any($2::text[])', [emails]);
    await takeOwn(tx, id);
    if (words) await takeWordsOut(tx, words, 'task', { title: 'text' }, 'assignee_id = $2 or done_by = $2', [id]);
    await takeWordsOutElsewhere(tx, own);
    await tx.sql(`delete from change where workspace_id = $1 and subject = 'person' and subject_id = $2`, [id]);
    await tx.save(Person, id, {
      ...{ name: `Person who was ${ERASED}`, email: null, telephone: '', tickets: [], ways: {}, accountId: null },
      version: person.version + 1,
    });
    // An account that opens another workspace too is not this one's to take.
    if (account && account.others === 0)
      await tx.sql('delete from account where id = $2 and $1::uuid is not null', [person.accountId]);
    await tx.record('person', id, 'erased', {});
    await tx.tell('workspace', 'tasks', 'schedules');
  });
}

/** Notes, comments, answers in words and pictures of theirs. */
async function eraseWritten(scope: Scope, id: string): Promise<void> {
  await scope.sql(
    `update task set note = '', note_pinned = false, version = version + 1 where workspace_id = $1 and done_by = $2 and note <> ''`,
    [id],
  );
  await scope.sql(`update task_comment set text = '${ERASED}' where workspace_id = $1 and by = $2`, [id]);
  await eraseAnswersOf(scope, id);
  await eraseFiles(scope, 'uploaded_by = $2', [id]);
  await scope.sql(`update leave set note = '' where workspace_id = $1 and person_id = $2`, [id]);
  await scope.sql(`update turn_swap set note = '' where workspace_id = $1 and (asked_by = $2 or asked_of = $2)`, [id]);
  await scope.sql(`update call set note = '' where workspace_id = $1 and rung_by = $2`, [id]);
  await eraseBroughtIn(scope, `$2::text in (before->>'newPersonId', before->>'personId', read->>'targetId')`, [id]);
}

/** What was theirs alone. */
async function takeOwn(scope: Scope, id: string): Promise<void> {
  for (const table of [
    'message',
    'message_count',
    'message_wish',
    'push_device',
    'access_token',
    'calendar_address',
    'favourite',
    'invitation',
    'arrival',
  ])
    await scope.sql(`delete from ${table} where workspace_id = $1 and person_id = $2`, [id]);
  await scope.sql(`delete from task_view where workspace_id = $1 and person_id = $2 and not is_shared`, [id]);
}
