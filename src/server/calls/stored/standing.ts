import { type CallStanding, dayOfIso, isoOfDay, NEVER_RUNG } from '../../../core/index.ts';
import type { Scope } from '../../platform/scope.ts';
import type { CallStandingRecord } from './entity.ts';

/** What is read of a standing `s`, which may not be there. */
export const STANDING_FIELDS = `s.last_rung_on as "lastRungOn", coalesce(s.tries, 0) as tries, s.again_on as "againOn",
  s.alone_until as "aloneUntil", s.call_back_on as "callBackOn", s.call_back_at as "callBackAt", s.call_back_by as "callBackBy", s.call_back_quota as "callBackQuota",
  coalesce(s.is_never_called, false) as "isNeverCalled", s.wrong_number as "wrongNumber"`;

export type StandingRow = Pick<
  CallStandingRecord,
  | 'lastRungOn'
  | 'tries'
  | 'againOn'
  | 'aloneUntil'
  | 'callBackOn'
  | 'callBackAt'
  | 'callBackBy'
  | 'callBackQuota'
  | 'isNeverCalled'
  | 'wrongNumber'
>;

const dayOrNull = (date: string | null) => (date === null ? null : dayOfIso(date));

export function standingOf(row: StandingRow): CallStanding {
  const { lastRungOn, tries, againOn, aloneUntil, callBackOn, callBackAt, callBackBy, callBackQuota } = row;
  return {
    ...{ tries, lastRungOn: dayOrNull(lastRungOn), againOn: dayOrNull(againOn) },
    aloneUntil: dayOrNull(aloneUntil),
    callBack:
      callBackOn === null || callBackBy === null || callBackQuota === null
        ? null
        : { on: dayOfIso(callBackOn), at: callBackAt, personId: callBackBy, quotaId: callBackQuota },
    isNeverCalled: row.isNeverCalled,
    wrongNumber: row.wrongNumber,
  };
}

/** What is known of the calls to a contact, held against others until the transaction ends. */
export async function lockedStanding(scope: Scope, contactId: string): Promise<CallStanding> {
  // Who was never rung has no row that could be held.
  await scope.sql('select pg_advisory_xact_lock(hashtextextended($1::text || $2::text, 0))', [contactId]);
  const [row] = await scope.sql<StandingRow>(
    `select ${STANDING_FIELDS} from call_standing s where s.workspace_id = $1 and s.contact_id = $2`,
    [contactId],
  );
  return row === undefined ? NEVER_RUNG : standingOf(row);
}

/** Writes what is known of a contact. */
export async function keepStanding(scope: Scope, contactId: string, standing: CallStanding): Promise<void> {
  const { lastRungOn, tries, againOn, aloneUntil, callBack, isNeverCalled, wrongNumber } = standing;
  const date = (day: number | null) => (day === null ? null : isoOfDay(day));
  await scope.sql(
    `insert into call_standing (workspace_id, contact_id, last_rung_on, tries, again_on, alone_until, call_back_on, call_back_at,
       call_back_by, call_back_quota, is_never_called, wrong_number)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12)
     on conflict (workspace_id, contact_id) do update set last_rung_on = $3, tries = $4, again_on = $5, alone_until = $6,
       call_back_on = $7, call_back_at = $8, call_back_by = $9, call_back_quota = $10, is_never_called = $11, wrong_number = $12`,
    [
      ...[contactId, date(lastRungOn), tries, date(againOn), date(aloneUntil)],
      ...[callBack && isoOfDay(callBack.on), callBack?.at ?? null, callBack?.personId ?? null],
      ...[callBack?.quotaId ?? null, isNeverCalled, wrongNumber],
    ],
  );
}
