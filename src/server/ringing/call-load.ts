import { type CivilDay, dayOfIso, isoOfDay, type Quota, termsOn } from '../../core/index.ts';
import { CallQuota, LISTED } from '../calls/stored/index.ts';
import { eachInTurn } from '../platform/in-turn.ts';
import type { Scope } from '../platform/scope.ts';
import { isAtWork, ringing, wantedOn, workersOf } from './who-rings.ts';

/** How long the calls of somebody take on a day, in minutes. */
export interface CallMinutes {
  readonly personId: string;
  readonly on: CivilDay;
  readonly done: number;
  /** On a list of today, to be made. */
  readonly open: number;
  /** Whose lists are not made yet: as the quotas say now. */
  readonly foreseen: number;
  /** Calls behind all of these, and those of them that are made. */
  readonly calls: number;
  readonly made: number;
}

interface Span {
  readonly from: CivilDay;
  readonly to: CivilDay;
  readonly personId?: string | undefined;
}

/** How long calls take on the days of a span, of everybody who has any or of one; what was never rung weighs nothing. */
export async function callLoad(scope: Scope, { from, to, personId }: Span): Promise<CallMinutes[]> {
  const quotas = await scope.find(CallQuota);
  if (quotas.length === 0) return [];
  const { day: today } = scope.now;
  const byId = new Map(quotas.map((quota) => [quota.id, quota]));
  const rows = await scope.sql<{ quotaId: string; personId: string; on: string; rung: number; open: number }>(
    `select l.quota_id as "quotaId", l.person_id as "personId", x.list_on as "on", count(*) filter (where x.state = 'rung')::int as rung,
       count(*) filter (where x.state = 'open')::int as open
     from ${LISTED}
     where x.workspace_id = $1 and x.list_on between $2::date and $3::date and ($5::uuid is null or l.person_id = $5)
       and (x.state = 'rung' or (x.state = 'open' and x.list_on >= $4::date)) group by 1, 2, 3`,
    [isoOfDay(from), isoOfDay(to), scope.today, personId ?? null],
  );
  // A pause may have begun on a day whose lists were made: they are as long as the quota said by then.
  const minutes = (quota: Quota | undefined, day: CivilDay) =>
    quota?.terms.findLast(({ from: since }) => dayOfIso(since) <= day)?.says.minutesEach ?? 0;
  const made = rows.map(({ quotaId, personId: id, on, rung, open }): CallMinutes => {
    const day = dayOfIso(on);
    const each = minutes(byId.get(quotaId), day);
    return { personId: id, on: day, done: rung * each, open: open * each, foreseen: 0, calls: rung + open, made: rung };
  });
  return [...made, ...(await foreseenCalls(scope, quotas, { from: Math.max(from, today), to, personId }))];
}

async function foreseenCalls(
  scope: Scope,
  quotas: readonly CallQuota[],
  { from, to, personId }: Span,
): Promise<CallMinutes[]> {
  if (from > to) return [];
  const here = await ringing(scope);
  const found: CallMinutes[] = [];
  for (const quota of quotas) {
    const wanted = wantedOn(here, quota);
    const first = quota.madeOn === isoOfDay(from) ? from + 1 : from;
    const last = quota.endsOn === null ? to : Math.min(to, dayOfIso(quota.endsOn));
    const whoever = new Map(
      quota.terms.flatMap(({ says }) => workersOf(here, says)).map((worker) => [worker.id, worker]),
    );
    const each = await eachInTurn(
      [...whoever.values()].filter(({ id }) => personId === undefined || id === personId),
      (worker) =>
        Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => first + i).flatMap((day): CallMinutes[] => {
          const calls = wanted(worker.id, day);
          // Lists are made for whoever is here that day.
          if (calls === 0 || !isAtWork(here, worker, day)) return [];
          const foreseen = calls * (termsOn(quota, day)?.minutesEach ?? 0);
          return [{ personId: worker.id, on: day, done: 0, open: 0, foreseen, calls, made: 0 }];
        }),
    );
    found.push(...each.flat());
  }
  return found;
}
