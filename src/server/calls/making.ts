import {
  type Candidate,
  dayOfIso,
  isoOfDay,
  type ListedCall,
  pickLists,
  type Quota,
  type QuotaTerms,
  seedOf,
  termsOn,
  tryMinutesOfTime,
} from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import { atWork, type Ringing, ringing, wantedOn } from '../ringing/index.ts';
import { listMail } from './list-mail.ts';
import { type CandidateRow, candidatesOf, firstOfPool, promisedOf } from './pool-sql.ts';
import { CallList, CallQuota, standingOf } from './stored/index.ts';

/** Quotas of a day whose lists were not made yet. */
const NOT_MADE = `call_quota where workspace_id = $1 and starts_on <= $2 and (ends_on is null or ends_on >= $2)
  and (made_on is null or made_on < $2)`;

/** Whether there is a quota whose lists of today were not made yet; what time they are made at is told by the quota. */
export async function isListingDue(scope: Scope): Promise<boolean> {
  const [found] = await scope.sql<{ any: boolean }>(`select exists (select from ${NOT_MADE}) as any`, [scope.today]);
  return found?.any ?? false;
}

/**
 * Makes the lists of today that are due, of each quota in a transaction with its mails: after a fall all of them are there, or
 * none, and the next run makes them. @returns how many were made
 */
export async function makeLists(scope: Scope, origin: string): Promise<number> {
  const quotas = await scope.sql<{ id: string }>(`select id from ${NOT_MADE} order by id`, [scope.today]);
  let made = 0;
  for (const { id } of quotas) made += await scope.transaction((tx) => makeListsOf(tx, id, origin));
  return made;
}

async function makeListsOf(scope: Scope, quotaId: string, origin: string): Promise<number> {
  // One quota after the other, so that none takes whom another has just listed.
  await scope.lockedWorkspace();
  const quota = await scope.locked(CallQuota, quotaId, 'quota');
  const { day, minutes } = scope.now;
  const terms = termsOn(quota, day);
  if (quota.madeOn === scope.today || terms === null || minutes < (tryMinutesOfTime(terms.readyAt) ?? 0)) return 0;
  await scope.save(CallQuota, quotaId, { madeOn: scope.today });
  const here = await ringing(scope);
  const wants = wantsOn(here, quota, terms, day);
  if (wants.size === 0) return 0;
  const left = await leftOver(scope, quotaId, terms, day);
  const { lists, rows } = await listsOf(scope, { quotaId, terms, wants, day, left });
  const listed = new Set([...lists.values()].flat().map(({ contactId }) => contactId));
  // Whoever was let go may come from the pool again: that is no carrying over.
  const carried = left.filter(({ contactId, isCarried }) => isCarried && listed.has(contactId));
  await scope.sql(
    `update call set state = case when id = any($3::uuid[]) then 'carried' else 'dropped' end, version = version + 1
     where workspace_id = $1 and id = any($2::uuid[])`,
    [left.map(({ callId }) => callId), carried.map(({ callId }) => callId)],
  );
  for (const [personId, calls] of lists)
    await writeList(scope, { quota, terms, personId, wanted: wants.get(personId) ?? 0, calls, rows, origin });
  await scope.tell('calls');
  return lists.size;
}

/** How many calls each has on a day, of those who are here then. */
export function wantsOn(here: Ringing, quota: Quota, terms: QuotaTerms, day: number): ReadonlyMap<string, number> {
  const wanted = wantedOn(here, quota);
  return new Map(atWork(here, terms, day).map(({ id }) => [id, wanted(id, day)]));
}

/** A call of an earlier day that was not made. */
export interface LeftOver {
  readonly callId: string;
  readonly contactId: string;
  readonly personId: string;
  /** The day on whose list it stood first. */
  readonly from: string;
  readonly isCarried: boolean;
}

/** Calls of earlier days that were not made, and whether they are carried over to a day. */
export async function leftOver(
  scope: Scope,
  quotaId: string,
  { carryDays }: Pick<QuotaTerms, 'carryDays'>,
  day: number,
): Promise<LeftOver[]> {
  const rows = await scope.sql<{
    callId: string;
    contactId: string;
    personId: string;
    from: string;
  }>(
    `select c.id as "callId", c.contact_id as "contactId", l.person_id as "personId", coalesce(c.why->>'from', c.list_on::text) as "from"
     from call c join call_list l on l.workspace_id = c.workspace_id and l.id = c.list_id
     where c.workspace_id = $1 and l.quota_id = $2 and c.state = 'open' and c.list_on < $3::date order by c.id`,
    [quotaId, isoOfDay(day)],
  );
  const calendar = await scope.calendar();
  const now = calendar.numberOf(day);
  return rows.map((row) => ({ ...row, isCarried: now - calendar.numberOf(dayOfIso(row.from)) <= carryDays }));
}

interface Listing {
  readonly quotaId: string;
  readonly terms: QuotaTerms;
  readonly wants: ReadonlyMap<string, number>;
  readonly day: number;
  readonly left: readonly LeftOver[];
}

/** The lists of a day: what they would be now, whoever asks. */
export async function listsOf(
  scope: Scope,
  { quotaId, terms, wants, day, left }: Listing,
): Promise<{
  readonly lists: ReadonlyMap<string, readonly ListedCall[]>;
  readonly rows: ReadonlyMap<string, CandidateRow>;
}> {
  const seed = seedOf(quotaId, day);
  const most = [...wants.values()].reduce((sum, n) => sum + n, 0);
  const carried = left.filter(({ isCarried }) => isCarried);
  const rows = new Map<string, CandidateRow>();
  const add = (found: readonly CandidateRow[]) => {
    for (const row of found) rows.set(row.contactId, row);
  };
  if (most > 0) add(await firstOfPool(scope, terms, { day, seed, most }));
  add(await promisedOf(scope, quotaId, day));
  add(
    await candidatesOf(
      scope,
      carried.map(({ contactId }) => contactId),
    ),
  );
  const ofContact = new Map(carried.map((one) => [one.contactId, one]));
  const candidates = [...rows.values()].map((row): Candidate => {
    const over = ofContact.get(row.contactId);
    return {
      ...{ contactId: row.contactId, number: row.number, usualPersonId: row.usualPersonId },
      standing: standingOf(row),
      carried: over === undefined ? null : { personId: over.personId, from: over.from },
    };
  });
  const { gap, first, usualFirst } = terms;
  return { lists: pickLists(candidates, { day, wants, gap, first, usualFirst, seed }), rows };
}

interface Writing {
  readonly quota: CallQuota;
  readonly terms: QuotaTerms;
  readonly personId: string;
  readonly wanted: number;
  readonly calls: readonly ListedCall[];
  readonly rows: ReadonlyMap<string, CandidateRow>;
  readonly origin: string;
}

async function writeList(
  scope: Scope,
  { quota, terms, personId, wanted, calls, rows, origin }: Writing,
): Promise<void> {
  const { id: listId } = await scope.insert(CallList, {
    ...{ id: scope.newId(), quotaId: quota.id, personId, listOn: scope.today, wanted, madeAt: scope.instant },
  });
  const lines = calls.flatMap(({ contactId, why }, place) => {
    const row = rows.get(contactId);
    return row ? [{ id: scope.newId(), place, contactId, clientId: row.clientId, why, number: row.number }] : [];
  });
  await scope.sql(
    `insert into call (workspace_id, id, version, list_id, list_on, place, contact_id, client_id, why, state, number, note)
     select $1, line.id, 1, $2, $3, line.place, line."contactId", line."clientId", line.why, 'open', line.number, ''
     from jsonb_to_recordset($4::jsonb) as line (id uuid, place int, "contactId" uuid, "clientId" uuid, why jsonb, number text)`,
    [listId, scope.today, JSON.stringify(lines)],
  );
  if (terms.mails && calls.length > 0) await listMail(scope, { listId, quota, personId, origin });
}
