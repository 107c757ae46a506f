import type { ShareLook } from '../../contract/index.ts';
import { seedOf, shareCalls, termsOn } from '../../core/index.ts';
import { changedMeanwhile, invalid } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import { atWork, ringing } from '../ringing/index.ts';
import { CallList, CallQuota, LISTED, nextPlaces } from './stored/index.ts';

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
     from ${LISTED}
     join client c on c.workspace_id = x.workspace_id and c.id = x.client_id
     left join contact k on k.workspace_id = x.workspace_id and k.id = x.contact_id
     where x.workspace_id = $1 and l.person_id = $2 and x.list_on = $3 and x.state = 'open' order by x.place, x.id`,
    [personId, scope.today],
  );

interface ToMake {
  readonly id: string;
  readonly quotaId: string;
  readonly count: number;
}

/** How many calls of today each has to make, by quota. */
const toMake = (scope: Scope): Promise<ToMake[]> =>
  scope.sql<ToMake>(
    `select l.person_id as id, l.quota_id as "quotaId", count(*)::int as count from ${LISTED}
     where x.workspace_id = $1 and x.list_on = $2 and x.state = 'open' group by 1, 2`,
    [scope.today],
  );

/** What the quotas of today say, and who can make their calls, but for one. */
async function todaysQuotas(scope: Scope, personId: string) {
  const { day } = scope.now;
  const here = await ringing(scope);
  const quotas = (await scope.find(CallQuota)).flatMap((quota) => {
    const terms = termsOn(quota, day);
    if (terms === null) return [];
    const takers = atWork(here, terms, day).flatMap(({ id }) => (id === personId ? [] : [id]));
    return [[quota.id, { terms, takers }] as const];
  });
  return { quotas: new Map(quotas), names: here.names };
}

/** Who would make the calls that are left on somebody's lists of today; nothing is given on by looking. */
export async function lookAtSharing(
  scope: Scope,
  { person, to }: { readonly person: string; readonly to: readonly string[] | null },
): Promise<ShareLook> {
  const calls = await openCalls(scope, person);
  const { quotas, names } = await todaysQuotas(scope, person);
  const made = await toMake(scope);
  const loads = new Map<string, { before: number; after: number; minutes: number; given: OpenCall[] }>();
  const loadOf = (id: string) => {
    const load = loads.get(id) ?? { before: 0, after: 0, minutes: 0, given: [] };
    loads.set(id, load);
    return load;
  };
  for (const { id, quotaId, count } of made) {
    const load = loadOf(id);
    load.before += count;
    load.after += count;
    load.minutes += count * (quotas.get(quotaId)?.terms.minutesEach ?? 0);
  }
  const isTaking = (id: string) => to === null || to.includes(id);
  const receivers = new Set<string>();
  for (const quotaId of new Set(calls.map((call) => call.quotaId))) {
    const { terms, takers } = quotas.get(quotaId) ?? { terms: null, takers: [] };
    if (terms === null) continue;
    for (const id of takers) receivers.add(id);
    const own = calls.filter((call) => call.quotaId === quotaId);
    const shared = shareCalls(
      own.map((call) => ({ ...call, callId: call.id })),
      new Map(takers.filter(isTaking).map((id) => [id, loadOf(id).after])),
      { usualFirst: terms.usualFirst, seed: seedOf(quotaId, scope.now.day) },
    );
    for (const call of own) {
      const taker = shared.get(call.id);
      if (taker === undefined) continue;
      const load = loadOf(taker);
      load.given.push(call);
      load.after++;
      load.minutes += terms.minutesEach;
    }
  }
  return {
    receivers: [...receivers]
      .map((id) => {
        const { before, after, minutes, given } = loadOf(id);
        return {
          ...{ id, name: names.get(id) ?? '', isTaking: isTaking(id), before, after, minutesAfter: minutes },
          given: given.map(({ contact, kind }) => ({ contact, isPromised: kind === 'promised' })),
        };
      })
      .sort((a, b) => a.name.localeCompare(b.name) || (a.id < b.id ? -1 : 1)),
    calls: calls.length,
    moves: [...loads].flatMap(([to, { given }]) => given.map(({ id, version }) => ({ callId: id, version, to }))),
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
    const { quotas } = await todaysQuotas(tx, person);
    const lists = await listsFor(tx, open, moves);
    const places = await nextPlaces(tx, [...new Set(lists.values())]);
    // Held from here on: whoever says meanwhile how one of them went was first, or waits.
    const held = await tx.sql<{ id: string; version: number; listId: string; place: number }>(
      `select id, version, list_id as "listId", place from call where workspace_id = $1 and id = any($2::uuid[]) and state = 'open'
       order by id for no key update`,
      [moves.map(({ callId }) => callId)],
    );
    const byId = new Map(held.map((call) => [call.id, call]));
    const moved = moves.map(({ callId, version, to }, i) => {
      const [call, before] = [open.get(callId), byId.get(callId)];
      if (!call || before?.version !== version)
        throw changedMeanwhile('A call was made or given on meanwhile: look at it once more.');
      if (!quotas.get(call.quotaId)?.takers.includes(to))
        throw invalid([{ path: `moves.${i}.to`, message: 'They do not ring by this quota today.' }]);
      const listId = lists.get(listKey(call.quotaId, to));
      if (listId === undefined) throw new Error('Whoever takes a call has no list.');
      const place = places.get(listId) ?? 0;
      places.set(listId, place + 1);
      return { before, set: { listId, place } };
    });
    await tx.sql(
      `update call set list_id = to_list."listId", place = to_list.place, version = version + 1
       from jsonb_to_recordset($2::jsonb) as to_list (id uuid, "listId" uuid, place int) where call.workspace_id = $1 and call.id = to_list.id`,
      [JSON.stringify(moved.map(({ before: { id }, set }) => ({ id, ...set })))],
    );
    const changeId = await tx.recordTogether(
      moved.map(({ before, set }) => ({
        ...{ subject: 'call' as const, subjectId: before.id, action: 'given on' as const },
        fields: fieldChanges(before, set),
      })),
    );
    await tx.tell('calls');
    return { changeId };
  });
}

const listKey = (quotaId: string, personId: string): string => `${quotaId} ${personId}`;

/** The lists of today that take calls, by quota and person; those who have none get an empty one. */
async function listsFor(
  scope: Scope,
  open: ReadonlyMap<string, OpenCall>,
  moves: Sharing['moves'],
): Promise<Map<string, string>> {
  const known = new Map(
    (await scope.find(CallList, { listOn: scope.today })).map(({ id, quotaId, personId }) => [
      listKey(quotaId, personId),
      id,
    ]),
  );
  for (const { callId, to } of moves) {
    const quotaId = open.get(callId)?.quotaId;
    if (quotaId === undefined || known.has(listKey(quotaId, to))) continue;
    const list = await scope.insert(CallList, {
      ...{ id: scope.newId(), quotaId, personId: to, listOn: scope.today, wanted: 0, madeAt: scope.instant },
    });
    known.set(listKey(quotaId, to), list.id);
  }
  return known;
}
