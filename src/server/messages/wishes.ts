import type { Summary } from '../../contract/index.ts';
import { askedOn, isSummaryOwed, minutesFor, peopleHere, type SummaryWish, usualSummary } from '../../core/index.ts';
import { colleagues, reachedAt } from '../people/index.ts';
import { Person } from '../platform/identity/person.ts';
import { notFound, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { post } from '../post/index.ts';
import { SummaryWishRecord } from './entity.ts';
import { summaryLetter } from './mail.ts';
import { summaryOf } from './summary.ts';

const wishOf = async (scope: Scope, { id, access }: Pick<Person, 'id' | 'access'>): Promise<SummaryWish> => {
  const [own] = await scope.find(SummaryWishRecord, { personId: id });
  return own?.wish ?? usualSummary(access);
};

function meOf(scope: Scope): Person {
  if (scope.person === null) throw notFound('person');
  return scope.person;
}

/** How whoever asks wishes to hear of the day, and what the summary says as of now. */
export async function myMessages(scope: Scope): Promise<{ wish: SummaryWish; email: string | null; summary: Summary }> {
  const me = meOf(scope);
  const [wish, { email }, summary] = await scope.atOnce(
    () => wishOf(scope, me),
    () => reachedAt(scope, me.id),
    () => summaryOf(scope),
  );
  return { wish, email, summary };
}

export async function wishSummary(scope: Scope, wish: SummaryWish): Promise<{ wish: SummaryWish }> {
  const me = meOf(scope);
  await scope.sql(
    `insert into summary_wish (workspace_id, person_id, wish) values ($1, $2, $3)
     on conflict (workspace_id, person_id) do update set wish = $3`,
    [me.id, JSON.stringify(wish)],
  );
  return { wish };
}

/** Sends what is shown to whoever asks, at once: as often as they ask. */
export async function sendSummaryNow(scope: Scope, origin: string): Promise<{ email: string }> {
  const me = meOf(scope);
  const { email } = await reachedAt(scope, me.id);
  if (email === null) throw notNow('No address of yours is known here: a manager can enter one.');
  const [wish, summary] = [await wishOf(scope, me), await summaryOf(scope)];
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
    () => scope.find(SummaryWishRecord),
  );
  const own = new Map(wishes.map((one) => [one.personId, one]));
  const wished = people.flatMap((person) => {
    const { wish, toldOn } = own.get(person.id) ?? { wish: null, toldOn: null };
    const said = wish ?? usualSummary(person.access);
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
      `insert into summary_wish (workspace_id, person_id, told_on) values ($1, $2, $3)
       on conflict (workspace_id, person_id) do update set told_on = $3 where summary_wish.told_on is distinct from $3 returning person_id`,
      [person.id, tx.today],
    );
    const { email } = await reachedAt(tx, person.id);
    if (mark === undefined || email === null) return false;
    const summary = await summaryOf(tx);
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
