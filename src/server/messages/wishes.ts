import { askedOn, isSummaryOwed, minutesFor, peopleHere, type SummaryWish, usualSummary } from '../../core/index.ts';
import { colleagues, reachedAt } from '../people/index.ts';
import { Person } from '../platform/identity/person.ts';
import { notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { post } from '../post/index.ts';
import { choicesOf } from './choices.ts';
import { MessageWishRecord } from './entity.ts';
import { summaryLetter } from './mail.ts';
import { summaryOf } from './summary.ts';

const wishOf = async (scope: Scope, { id, access }: Pick<Person, 'id' | 'access'>): Promise<SummaryWish> => {
  const [own] = await scope.find(MessageWishRecord, { personId: id });
  return own?.summary ?? usualSummary(access);
};

/** How whoever asks wishes to hear of the day, and what the summary says as of now. */
export async function myMessages(scope: Scope) {
  const me = scope.me;
  const wish = await wishOf(scope, me);
  const [{ email }, summary, chosen] = await scope.atOnce(
    () => reachedAt(scope, me.id),
    () => summaryOf(scope, wish),
    () => choicesOf(scope, me),
  );
  return { wish, email, summary, ...chosen };
}

export async function wishSummary(scope: Scope, wish: SummaryWish): Promise<{ wish: SummaryWish }> {
  const me = scope.me;
  await scope.sql(
    `insert into message_wish (workspace_id, person_id, summary) values ($1, $2, $3)
     on conflict (workspace_id, person_id) do update set summary = $3`,
    [me.id, JSON.stringify(wish)],
  );
  return { wish };
}

/** Sends what is shown to whoever asks, at once: as often as they ask. */
export async function sendSummaryNow(scope: Scope, origin: string): Promise<{ email: string }> {
  const me = scope.me;
  const { email } = await reachedAt(scope, me.id);
  if (email === null) throw notNow('No address of yours is known here: a manager can enter one.');
  const wish = await wishOf(scope, me);
  const summary = await summaryOf(scope, wish);
  await scope.transaction((tx) =>
    post(tx, {
      reason: `summary ${me.id} asked ${tx.newId()}`,
      kind: 'summary',
      to: { name: me.name, email },
      isPrivate: false,
      letter: summaryLetter(tx, summary, { name: me.name, wish, origin }),
    }),
  );
  return { email };
}

interface Owed {
  readonly person: Person;
  readonly wish: SummaryWish;
}

/** Whose summary of today is owed by now. */
async function owedNow(scope: Scope): Promise<Owed[]> {
  const { day, minutes } = scope.now;
  const [people, wishes] = await scope.atOnce(
    () => scope.find(Person),
    () => scope.find(MessageWishRecord),
  );
  const own = new Map(wishes.map((one) => [one.personId, one]));
  const wished = people.flatMap((person) => {
    const { summary, toldOn } = own.get(person.id) ?? { summary: null, toldOn: null };
    const said = summary ?? usualSummary(person.access);
    // Before its time nobody's hours have to be looked up.
    const mayBeOwed = toldOn !== scope.today && isSummaryOwed(said, { minutes, isAtWork: true });
    return mayBeOwed ? [{ person, wish: said }] : [];
  });
  if (wished.length === 0) return [];
  const { workers } = peopleHere(await colleagues(scope));
  const asked = askedOn(day, await scope.calendar());
  return wished.filter(({ person, wish }) => {
    const worker = workers.get(person.id);
    // Who has left, or is not here yet, hears nothing.
    if (worker === undefined) return false;
    return isSummaryOwed(wish, { minutes, isAtWork: minutesFor(worker, day, asked) > 0 });
  });
}

export const areSummariesOwed = async (scope: Scope): Promise<boolean> => (await owedNow(scope)).length > 0;

/**
 * Sends the summaries of today that are owed, each in a transaction of its own with the mark that it was: after a fall each
 * is there once. @param as the same scope for somebody @returns how many were sent
 */
export async function sendSummaries(scope: Scope, as: (person: Person) => Scope, origin: string): Promise<number> {
  let sent = 0;
  for (const owed of await owedNow(scope)) sent += (await sendTo(as(owed.person), owed, origin)) ? 1 : 0;
  return sent;
}

function sendTo(scope: Scope, { person, wish }: Owed, origin: string): Promise<boolean> {
  return scope.transaction(async (tx) => {
    const [mark] = await tx.sql<{ person_id: string }>(
      `insert into message_wish (workspace_id, person_id, told_on) values ($1, $2, $3)
       on conflict (workspace_id, person_id) do update set told_on = $3 where message_wish.told_on is distinct from $3 returning person_id`,
      [person.id, tx.today],
    );
    const { email } = await reachedAt(tx, person.id);
    if (mark === undefined || email === null) return false;
    const summary = await summaryOf(tx, wish);
    if (summary.bands.length === 0 && !wish.evenIfEmpty) return false;
    await post(tx, {
      reason: `summary ${person.id} ${tx.today}`,
      kind: 'summary',
      to: { name: person.name, email },
      isPrivate: false,
      letter: summaryLetter(tx, summary, { name: person.name, wish, origin }),
    });
    return true;
  });
}
