import type { CallDay, ListedCall } from '../../contract/index.ts';
import {
  type CallBack,
  dayOfIso,
  isoOfDay,
  mondayOf,
  type Outcome,
  termsOn,
  type WhyListed,
} from '../../core/index.ts';
import { notFound } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { ringing, wantedOn, workersOf } from '../ringing/index.ts';
import { FIRST_ASSET } from './pool-sql.ts';
import { CallQuota, LISTED } from './stored/index.ts';

/** Promised calls that are told ahead. */
const TOLD_PROMISES = 20;

interface CallRow {
  readonly id: string;
  readonly version: number;
  readonly quotaId: string;
  readonly place: number;
  readonly number: string;
  readonly state: 'open' | 'rung';
  readonly outcome: Outcome | null;
  readonly note: string;
  readonly rungAt: Date | null;
  readonly rungBy: string | null;
  readonly rungByName: string | null;
  readonly callBack: CallBack | null;
  readonly why: WhyListed;
  readonly contactId: string;
  readonly contact: string | null;
  readonly clientId: string;
  readonly client: string;
  readonly asset: string | null;
  readonly last: ListedCall['last'];
}

const GONE = 'somebody who is gone';

/** Calls `x` of a list `l` with who is rung, and the call before. @param where narrows them; its parameters begin at $2 */
function selectCalls(scope: Scope, where: string, params: readonly unknown[]): Promise<CallRow[]> {
  return scope.sql<CallRow>(
    `select x.id, x.version, l.quota_id as "quotaId", x.place, x.number, x.state, x.outcome, x.note, x.rung_at as "rungAt",
       x.rung_by as "rungBy", p.name as "rungByName", x.call_back as "callBack", x.why, x.contact_id as "contactId", k.name as contact,
       x.client_id as "clientId", c.name as client, asset.name as asset, before.last
     from ${LISTED}
     join client c on c.workspace_id = x.workspace_id and c.id = x.client_id
     left join contact k on k.workspace_id = x.workspace_id and k.id = x.contact_id
     left join person p on p.workspace_id = x.workspace_id and p.id = x.rung_by
     ${FIRST_ASSET}
     left join lateral (select jsonb_build_object('on', b.list_on, 'outcome', b.outcome->>'name', 'note', b.note) as last from call b
       where b.workspace_id = x.workspace_id and b.contact_id = x.contact_id and b.state = 'rung' and b.list_on < x.list_on
       order by b.list_on desc limit 1) before on true
     where x.workspace_id = $1 and ${where} order by x.place, x.id`,
    params,
  );
}

function asTold(scope: Scope, row: CallRow): ListedCall {
  const { id, version, quotaId, place, number, state, outcome, note, why, asset, last, callBack } = row;
  return {
    ...{ id, version, quotaId, place, number, state, outcome, note, why, asset, last },
    contact: { id: row.contactId, name: row.contact ?? GONE },
    client: { id: row.clientId, name: row.client },
    rungAt: scope.moment(row.rungAt),
    rungBy: row.rungBy === null ? null : { id: row.rungBy, name: row.rungByName ?? '' },
    callBack: callBack && { on: isoOfDay(callBack.on), at: callBack.at, personId: callBack.personId },
  };
}

/** One call as it is told. */
export async function toldCall(scope: Scope, id: string): Promise<ListedCall> {
  const [row] = await selectCalls(scope, "x.id = $2 and x.state in ('open', 'rung')", [id]);
  if (!row) throw notFound('call');
  return asTold(scope, row);
}

/** The lists of somebody for a day, how far the week is, and what they have promised later. */
export async function callDay(
  scope: Scope,
  { person: personId, on }: { readonly person: string; readonly on: string },
): Promise<CallDay> {
  const [here, quotas] = [await ringing(scope), await scope.find(CallQuota)];
  const name = here.names.get(personId);
  if (name === undefined) throw notFound('person');
  const day = dayOfIso(on);
  const theirs = quotas.filter((quota) => {
    const terms = termsOn(quota, day);
    return terms !== null && workersOf(here, terms).some(({ id }) => id === personId);
  });
  const calls = await selectCalls(
    scope,
    "l.person_id = $2 and l.list_on = $3 and x.list_on = $3 and x.state in ('open', 'rung')",
    [personId, on],
  );
  const monday = mondayOf(day);
  const made = await scope.sql<{ on: string; wanted: number; made: number }>(
    `select l.list_on as "on", sum(l.wanted)::int as wanted, (select count(*)::int from call x join call_list m
         on m.workspace_id = x.workspace_id and m.id = x.list_id
       where x.workspace_id = $1 and m.person_id = $2 and x.list_on = l.list_on and x.state = 'rung') as made
     from call_list l where l.workspace_id = $1 and l.person_id = $2 and l.list_on between $3 and $4 group by l.list_on`,
    [personId, isoOfDay(monday), isoOfDay(monday + 6)],
  );
  const byDay = new Map(made.map((one) => [one.on, one]));
  const wanted = quotas.map((quota) => wantedOn(here, quota));
  const promised = await scope.sql<{
    contactId: string;
    contact: string;
    clientId: string;
    client: string;
    asset: string | null;
    on: string;
    at: string | null;
    note: string | null;
    count: number;
  }>(
    `select k.id as "contactId", k.name as contact, c.id as "clientId", c.name as client, asset.name as asset, s.call_back_on as "on",
       s.call_back_at as at, x.note, (count(*) over ())::int as count
     from call_standing s join contact k on k.workspace_id = s.workspace_id and k.id = s.contact_id
     join client c on c.workspace_id = k.workspace_id and c.id = k.client_id and c.archived_at is null
     ${FIRST_ASSET}
     left join lateral (select note from call where workspace_id = s.workspace_id and contact_id = s.contact_id and state = 'rung'
       order by list_on desc limit 1) x on true
     where s.workspace_id = $1 and s.call_back_by = $2 and (s.call_back_on > $3 or not exists (
       -- What is owed since before, of a quota that makes no lists any more, is not lost from sight.
       select 1 from call t where t.workspace_id = s.workspace_id and t.contact_id = s.contact_id and t.list_on = $3))
     order by s.call_back_on, s.call_back_at nulls last, k.id limit ${TOLD_PROMISES}`,
    [personId, on],
  );
  return {
    ...{ person: { id: personId, name }, on },
    quotas: theirs.flatMap((quota) => {
      const terms = termsOn(quota, day);
      if (terms === null) return [];
      const { asks, minutesEach, readyAt } = terms;
      const isMade = quota.madeOn !== null && quota.madeOn >= on;
      return [{ id: quota.id, name: quota.name, asks: [...asks], minutesEach, readyAt, isMade }];
    }),
    calls: calls.map((row) => asTold(scope, row)),
    week: Array.from({ length: 7 }, (_, i) => {
      const iso = isoOfDay(monday + i);
      const there = byDay.get(iso);
      // What is past says what was; what lies ahead what the quota says by now.
      const ahead = monday + i < scope.now.day ? 0 : wanted.reduce((sum, on) => sum + on(personId, monday + i), 0);
      return { on: iso, wanted: there?.wanted ?? ahead, made: there?.made ?? 0 };
    }),
    promised: promised.map((one) => ({
      ...{ contact: { id: one.contactId, name: one.contact }, client: { id: one.clientId, name: one.client } },
      ...{ asset: one.asset, callBack: { on: one.on, at: one.at, personId }, note: one.note ?? '' },
    })),
    promisedCount: promised[0]?.count ?? 0,
    outcomes: [...scope.workspace.outcomes],
  };
}
