import type { ShareLook } from '../../contract/index.ts';
import { minutesFor, type QuotaTerms, seedOf, shareCalls, termsOn } from '../../core/index.ts';
import { changedMeanwhile, invalid, notNow } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import { ringing, workersOf } from '../ringing/index.ts';
import { Call, CallList, CallQuota } from './stored/index.ts';

interface OpenCall {
  readonly id: string;
  readonly version: number;
  readonly listId: string;
  readonly quotaId: string;
  readonly contactId: string;
  readonly contact: string;
  readonly usualPersonId: string | null;
  readonly kind: string;
}

/** Calls of somebody's lists of today that are still to be made. */
const openCalls = (scope: Scope, personId: string): Promise<OpenCall[]> =>
  scope.sql<OpenCall>(
    `select x.id, x.version, x.list_id as "listId", l.quota_id as "quotaId", x.contact_id as "contactId",
       coalesce(k.name, c.name) as contact, c.usual_person_id as "usualPersonId", x.why->>'kind' as kind
     from call x join call_list l on l.workspace_id = x.workspace_id and l.id = x.list_id
     join client c on c.workspace_id = x.workspace_id and c.id = x.client_id
     left join contact k on k.workspace_id = x.workspace_id and k.id = x.contact_id
     where x.workspace_id = $1 and l.person_id = $2 and x.list_on = $3 and x.state = 'open' order by x.place, x.id`,
    [personId, scope.today],
  );

/** How many calls of today each has to make, and how long they take. */
async function toMake(scope: Scope): Promise<Map<string, number>> {
  const rows = await scope.sql<{ id: string; count: number }>(
    `select l.person_id as id, count(*)::int as count from call x join call_list l on l.workspace_id = x.workspace_id and l.id = x.list_id
     where x.workspace_id = $1 and x.list_on = $2 and x.state = 'open' group by 1`,
    [scope.today],
  );
  return new Map(rows.map(({ id, count }) => [id, count]));
}

/** Who can make calls of a quota today, but for one. */
async function takersOf(
  scope: Scope,
  quotas: ReadonlyMap<string, QuotaTerms>,
  personId: string,
): Promise<ReadonlyMap<string, ReadonlySet<string>>> {
  const here = await ringing(scope);
  const { day } = scope.now;
  return new Map(
    [...quotas].map(([id, terms]) => [
      id,
      new Set(
        workersOf(here, terms)
          .filter((worker) => worker.id !== personId && minutesFor(worker, day, { isHoliday: here.isHoliday(day) }) > 0)
          .map((worker) => worker.id),
      ),
    ]),
  );
}

async function termsToday(scope: Scope, quotaIds: ReadonlySet<string>): Promise<Map<string, QuotaTerms>> {
  const quotas = (await scope.find(CallQuota)).filter(({ id }) => quotaIds.has(id));
  return new Map(
    quotas.flatMap((quota) => {
      const terms = termsOn(quota, scope.now.day);
      return terms === null ? [] : [[quota.id, terms] as const];
    }),
  );
}

/** Who would make the calls that are left on somebody's lists of today; nothing is given on by looking. */
export async function lookAtSharing(
  scope: Scope,
  { person, to }: { readonly person: string; readonly to: readonly string[] | null },
): Promise<ShareLook> {
  const calls = await openCalls(scope, person);
  const terms = await termsToday(scope, new Set(calls.map(({ quotaId }) => quotaId)));
  const takers = await takersOf(scope, terms, person);
  const before = await toMake(scope);
  const counts = new Map(before);
  const isTaking = (id: string) => to === null || to.includes(id);
  const given = new Map<string, OpenCall[]>();
  for (const [quotaId, says] of terms) {
    const among = new Map(
      [...(takers.get(quotaId) ?? [])].filter(isTaking).map((id) => [id, counts.get(id) ?? 0] as const),
    );
    const own = calls.filter((call) => call.quotaId === quotaId);
    const shared = shareCalls(
      own.map((call) => ({ ...call, callId: call.id })),
      among,
      { usualFirst: says.usualFirst, seed: seedOf(quotaId, scope.now.day) },
    );
    for (const call of own) {
      const taker = shared.get(call.id);
      if (taker === undefined) continue;
      given.set(taker, [...(given.get(taker) ?? []), call]);
      counts.set(taker, (counts.get(taker) ?? 0) + 1);
    }
  }
  const names = await scope.peopleNames();
  const minutesEach = Math.max(0, ...[...terms.values()].map((says) => says.minutesEach));
  const all = [...new Set([...takers.values()].flatMap((ids) => [...ids]))];
  return {
    receivers: all
      .map((id) => ({
        ...{ id, name: names.get(id) ?? '', isTaking: isTaking(id) },
        ...{ before: before.get(id) ?? 0, after: counts.get(id) ?? 0 },
        minutesAfter: (counts.get(id) ?? 0) * minutesEach,
        given: (given.get(id) ?? []).map(({ contact, kind }) => ({ contact, isPromised: kind === 'promised' })),
      }))
      .sort((a, b) => a.name.localeCompare(b.name) || (a.id < b.id ? -1 : 1)),
    calls: calls.length,
    moves: [...given].flatMap(([id, own]) => own.map((call) => ({ callId: call.id, version: call.version, to: id }))),
  };
}

interface Sharing {
  readonly person: string;
  readonly moves: readonly { readonly callId: string; readonly version: number; readonly to: string }[];
}

/** Gives calls of somebody's lists of today to others, as was looked at: all of them, or none. */
export function shareOut(scope: Scope, { person, moves }: Sharing): Promise<{ changeId: string }> {
  return scope.transaction(async (tx) => {
    await tx.lockedWorkspace();
    const open = new Map((await openCalls(tx, person)).map((call) => [call.id, call]));
    const terms = await termsToday(tx, new Set([...open.values()].map(({ quotaId }) => quotaId)));
    const takers = await takersOf(tx, terms, person);
    const lists = await listsFor(tx, open, moves);
    const places = await lastPlaces(tx, [...lists.values()]);
    const changes: string[] = [];
    for (const [i, { callId, version, to }] of moves.entries()) {
      const call = open.get(callId);
      if (call?.version !== version)
        throw changedMeanwhile('A call was made or given on meanwhile: look at it once more.');
      if (!takers.get(call.quotaId)?.has(to))
        throw invalid([{ path: `moves.${i}.to`, message: 'They do not ring by this quota today.' }]);
      const listId = lists.get(`${call.quotaId} ${to}`);
      if (listId === undefined) throw notNow('There is no list of today to put it on.');
      const place = (places.get(listId) ?? -1) + 1;
      places.set(listId, place);
      const before = await tx.locked(Call, callId, 'call');
      const set = { listId, place };
      await tx.save(Call, callId, { ...set, version: before.version + 1 });
      changes.push(await tx.record('call', callId, 'given on', fieldChanges(before, set)));
    }
    const changeId = await tx.joinChanges(changes);
    await tx.tell('calls');
    return { changeId };
  });
}

/** The lists of today that take calls, by quota and person; those who have none get an empty one. */
async function listsFor(
  scope: Scope,
  open: ReadonlyMap<string, OpenCall>,
  moves: Sharing['moves'],
): Promise<Map<string, string>> {
  const known = new Map(
    (await scope.find(CallList, { listOn: scope.today })).map(({ id, quotaId, personId }) => [
      `${quotaId} ${personId}`,
      id,
    ]),
  );
  for (const { callId, to } of moves) {
    const quotaId = open.get(callId)?.quotaId;
    if (quotaId === undefined || known.has(`${quotaId} ${to}`)) continue;
    const list = await scope.insert(CallList, {
      ...{ id: scope.newId(), quotaId, personId: to, listOn: scope.today, wanted: 0, madeAt: scope.instant },
    });
    known.set(`${quotaId} ${to}`, list.id);
  }
  return known;
}

async function lastPlaces(scope: Scope, listIds: readonly string[]): Promise<Map<string, number>> {
  const rows = await scope.sql<{ id: string; place: number }>(
    'select list_id as id, max(place)::int as place from call where workspace_id = $1 and list_id = any($2::uuid[]) group by 1',
    [listIds],
  );
  return new Map(rows.map(({ id, place }) => [id, place]));
}
