import { type FoundContact, type ListedCall, MOST_CONTACTS_FOUND, NEVER_LISTED } from '../../contract/index.ts';
import {
  dayOfIso,
  isoOfDay,
  plainWords,
  type QuotaTerms,
  seedOf,
  termsOn,
  type WhyListed,
  whyNotRung,
  whyPicked,
} from '../../core/index.ts';
import { patternsOf } from '../platform/db/like.ts';
import { forbidden, invalid, notFound, notNow } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import { toldCall } from './day.ts';
import { type CandidateRow, CONTACTS, candidatesOf, FIRST_ASSET, firstOfPool } from './pool-sql.ts';
import { lockedCall } from './rung.ts';
import {
  Call,
  CallList,
  CallQuota,
  LISTED,
  nextPlace,
  STANDING_FIELDS,
  type StandingRow,
  standingOf,
} from './stored/index.ts';

type Saved = Promise<{ call: ListedCall; changeId: string }>;

interface More {
  readonly person: string;
  readonly quotaId: string;
  /** Null for the next from the pool. */
  readonly contactId: string | null;
}

/** One more on somebody's list of today. */
export function addCall(scope: Scope, { person, quotaId, contactId }: More): Saved {
  return scope.transaction(async (tx) => {
    if (person !== tx.person?.id && !tx.mayAll('work'))
      throw forbidden('Only whoever the list is for puts somebody on it.');
    // One after the other, so that nobody stands on two lists.
    await tx.lockedWorkspace();
    const [list] = await tx.find(CallList, { quotaId, personId: person, listOn: tx.today });
    if (!list) throw notNow('There is no list of today to put anybody on.');
    const terms = await termsNow(tx, quotaId);
    const place = await nextPlace(tx, list.id);
    const { changeId, id } =
      contactId === null ? await putNext(tx, list, { terms, place }) : await putChosen(tx, list, { contactId, place });
    await tx.tell('calls');
    return { call: await toldCall(tx, id), changeId };
  });
}

async function termsNow(scope: Scope, quotaId: string): Promise<QuotaTerms> {
  const terms = termsOn(await scope.one(CallQuota, quotaId, 'quota'), scope.now.day);
  if (terms === null) throw notNow('The quota makes no lists any more.');
  return terms;
}

interface Next {
  readonly terms: QuotaTerms;
  readonly place: number;
}

/** The first of the pool who stands on no list of the day. */
async function putNext(scope: Scope, list: CallList, { terms, place }: Next) {
  const { day } = scope.now;
  const [row] = await firstOfPool(scope, terms, { day, seed: seedOf(list.quotaId, day), most: 1 });
  if (!row) throw notNow('Nobody is left in the pool who may be rung today.');
  return put(scope, list, row, { why: whyPicked({ standing: standingOf(row), carried: null }, day), place });
}

async function putChosen(
  scope: Scope,
  list: CallList,
  { contactId, place }: { readonly contactId: string; readonly place: number },
) {
  const [row] = await candidatesOf(scope, [contactId]);
  if (!row) throw notFound('contact');
  const { day } = scope.now;
  const standing = standingOf(row);
  const cannot = cannotBeRung(row, day);
  if (cannot !== null) throw invalid([{ path: 'contactId', message: CANNOT_WORDS[cannot] }]);
  const [there] = await scope.find(Call, { contactId, listOn: list.listOn });
  if (there !== undefined) {
    if (there.state !== 'off')
      throw invalid([{ path: 'contactId', message: 'They stand on a list of today already.' }]);
    // Who was taken off comes back by what is there of the day.
    const set = { state: 'open' as const, listId: list.id, place };
    await scope.save(Call, there.id, { ...set, version: there.version + 1 });
    return { id: there.id, changeId: await scope.record('call', there.id, 'put on', fieldChanges(there, set)) };
  }
  const promised = standing.callBack !== null && standing.callBack.on <= day;
  const why: WhyListed = promised
    ? whyPicked({ standing, carried: null }, day)
    : { kind: 'byHand', lastOn: standing.lastRungOn === null ? null : isoOfDay(standing.lastRungOn) };
  return put(scope, list, row, { why, place });
}

async function put(
  scope: Scope,
  list: CallList,
  { contactId, clientId, number }: CandidateRow,
  { why, place }: { readonly why: WhyListed; readonly place: number },
): Promise<{ readonly id: string; readonly changeId: string }> {
  const call = await scope.insert(Call, {
    ...{ id: scope.newId(), version: 1, listId: list.id, listOn: list.listOn, place, contactId, clientId, why, number },
    ...{ state: 'open' as const, outcome: null, note: '', rungAt: null, rungBy: null, callBack: null },
    standingBefore: null,
  });
  // Taken back, it stands on the list no more.
  const changeId = await scope.record('call', call.id, 'put on', { state: { from: 'off', to: 'open' } });
  return { id: call.id, changeId };
}

type Cannot = (typeof NEVER_LISTED)[number];
const CANNOT_WORDS: Readonly<Record<Cannot, string>> = {
  'no number': 'There is no number to ring.',
  'wrong number': 'Their number was a wrong one: find another first.',
  never: 'They asked never to be rung.',
};

/** Why nobody rings them at all; how short a time ago they were rung is for whoever puts them on a list to say. */
function cannotBeRung(row: StandingRow & { readonly number: string }, day: number): Cannot | null {
  const why = whyNotRung(standingOf(row), { number: row.number, day, gap: 1 });
  return NEVER_LISTED.find((one) => one === why) ?? null;
}

/** Takes a call off its list; what was promised stays owed. */
export function takeOff(scope: Scope, id: string, version: number): Promise<{ changeId: string }> {
  return scope.transaction(async (tx) => {
    const changeId = await off(tx, id, version);
    await tx.tell('calls');
    return { changeId };
  });
}

async function off(scope: Scope, id: string, version: number): Promise<string> {
  const { call } = await lockedCall(scope, id, version);
  mustBeOpen(scope, call);
  const set = { state: 'off' as const };
  await scope.save(Call, id, { ...set, version: call.version + 1 });
  return scope.record('call', id, 'taken off', fieldChanges(call, set));
}

function mustBeOpen(scope: Scope, call: Call): void {
  if (call.state !== 'open') throw notNow('It is made already.');
  if (call.listOn !== scope.today) throw notNow('Its list is over.');
}

/** The next from the pool in the place of a call. */
export function swapCall(scope: Scope, id: string, version: number): Saved {
  return scope.transaction(async (tx) => {
    await tx.lockedWorkspace();
    const { call, list } = await lockedCall(tx, id, version);
    mustBeOpen(tx, call);
    const terms = await termsNow(tx, list.quotaId);
    const taken = await off(tx, id, version);
    const next = await putNext(tx, list, { terms, place: call.place });
    const changeId = await tx.joinChanges([taken, next.changeId]);
    await tx.tell('calls');
    return { call: await toldCall(tx, next.id), changeId };
  });
}

interface FoundRow extends StandingRow {
  readonly id: string;
  readonly name: string;
  readonly clientId: string;
  readonly client: string;
  readonly asset: string | null;
  readonly number: string;
  readonly onListOf: string | null;
}

/** Contacts in use who have every word, in their own name or in their client's. */
export async function findContacts(
  scope: Scope,
  { q }: { readonly q: string },
): Promise<{ contacts: FoundContact[]; isMore: boolean }> {
  const patterns = patternsOf(plainWords(q));
  const words = patterns
    .map((_, i) => `$${i + 3}`)
    .map((word) => `and (' ' || k.found_by like ${word} or ' ' || c.words like ${word})`)
    .join(' ');
  const rows = await scope.sql<FoundRow>(
    `select f.*, asset.name as asset, on_list.name as "onListOf" from (
       select k.id, k.name, c.id as "clientId", c.name as client, c.words, k.telephone as number, k.position, ${STANDING_FIELDS}
       from ${CONTACTS} where k.workspace_id = $1 ${words} order by c.words, c.id, k.position limit ${MOST_CONTACTS_FOUND + 1}) f
     join client c on c.workspace_id = $1 and c.id = f."clientId" ${FIRST_ASSET}
     left join lateral (select p.name from ${LISTED}
         join person p on p.workspace_id = l.workspace_id and p.id = l.person_id
       where x.workspace_id = $1 and x.contact_id = f.id and x.list_on = $2::date and x.state in ('open', 'rung')) on_list on true
     order by f.words, f."clientId", f.position`,
    [scope.today, ...patterns],
  );
  return {
    contacts: rows.slice(0, MOST_CONTACTS_FOUND).map((row) => ({
      ...{ contact: { id: row.id, name: row.name }, client: { id: row.clientId, name: row.client }, asset: row.asset },
      ...{ number: row.number, lastRungOn: row.lastRungOn, onListOf: row.onListOf },
      cannot: cannotBeRung(row, dayOfIso(scope.today)),
    })),
    isMore: rows.length > MOST_CONTACTS_FOUND,
  };
}
