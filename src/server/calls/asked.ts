import { AT_ITS_HOUR_MINUTES, type CallsAsked } from '../../contract/index.ts';
import type { Scope } from '../platform/scope.ts';
import { Params } from './pool-sql.ts';

/** A question about calls `x` on lists `l`: the conditions, and the parameters they name. */
export interface AskedCalls {
  readonly where: string;
  readonly params: Params;
}

/** Whether a call that is not made yet can no longer be: its list is over. */
export const notRung = (today: string) => `(x.state = 'dropped' or (x.state = 'open' and x.list_on < ${today}::date))`;

/** The hour and the weekday, 0 is Monday, at which a call began, by the clock of the workspace. */
export const hourOf = (zone: string) => `extract(hour from x.rung_at at time zone ${zone})::int`;
export const weekdayOf = (zone: string) => `(extract(isodow from x.rung_at at time zone ${zone})::int - 1)`;

/** The call `b` to whoever was promised one in `x`: the first that was made after it. */
export const KEPT_BY = `left join lateral (select b.rung_at, b.list_on from call b where b.workspace_id = x.workspace_id
  and b.contact_id = x.contact_id and b.state = 'rung' and b.rung_at > x.rung_at order by b.rung_at limit 1) b on true`;

/** The day, and the moment, for which a call `x` promised another one; days are kept as numbers since 1970. */
export const PROMISED_ON = `(date '1970-01-01' + (x.call_back->>'on')::int)`;
export const promisedAt = (zone: string) => `((${PROMISED_ON} + (x.call_back->>'at')::time) at time zone ${zone})`;

/** How the promise of a call `x` was kept by `b`. */
export function keptSql({
  zone,
  today,
  now,
}: {
  readonly zone: string;
  readonly today: string;
  readonly now: string;
}): string {
  const rungOn = `(b.rung_at at time zone ${zone})::date`;
  const hour = `interval '${AT_ITS_HOUR_MINUTES} minutes'`;
  return `case
    when b.rung_at is null then case
      when ${PROMISED_ON} < ${today}::date or coalesce(${promisedAt(zone)} + ${hour} < ${now}::timestamptz, false) then 'owed' else 'toCome' end
    when ${rungOn} < ${PROMISED_ON} then 'sooner'
    when ${rungOn} > ${PROMISED_ON} then 'late'
    when coalesce(b.rung_at > ${promisedAt(zone)} + ${hour}, false) then 'later'
    else 'kept' end`;
}

/** Names that the statements share, so that each is said once: the zone, today and now. */
export const namedParams = (scope: Scope, params: Params) => ({
  zone: `${params.put(scope.workspace.zone)}::text`,
  today: `${params.put(scope.today)}::text`,
  now: `${params.put(scope.instant)}::timestamptz`,
});

/** Calls that were carried over stand on the list of a later day too: there they are counted. */
export const IS_COUNTED = "x.state <> 'carried'";

/** What was taken off stood on no list. */
const STOOD = "x.state <> 'off'";

type Days = Pick<CallsAsked, 'from' | 'to' | 'quota' | 'person'>;

/** All calls that stood on the lists of some days. */
export function stoodOn({ from, to, quota, person }: Days): AskedCalls {
  const params = new Params();
  const where = [
    `x.workspace_id = $1 and x.list_on between ${params.put(from)}::date and ${params.put(to)}::date and ${STOOD}`,
    ...(quota === undefined ? [] : [`l.quota_id = ${params.put(quota)}::uuid`]),
    ...(person === undefined ? [] : [`l.person_id = ${params.put(person)}::uuid`]),
  ].join(' and ');
  return { where, params };
}

export function daysAsked(asked: Days): AskedCalls {
  const { where, params } = stoodOn(asked);
  return { where: `${where} and ${IS_COUNTED}`, params };
}

/** The calls behind a figure. */
export function callsAsked(scope: Scope, asked: CallsAsked): AskedCalls {
  const { params, where } = daysAsked(asked);
  const { zone, today, now } = namedParams(scope, params);
  const { ended, outcome, hour, weekday, kept } = asked;
  const conditions = [
    where,
    ...(ended === 'rung' ? ["x.state = 'rung'"] : []),
    ...(ended === 'reached' ? ["x.state = 'rung' and (x.outcome->>'isReached')::boolean"] : []),
    ...(ended === 'notRung' ? [notRung(today)] : []),
    ...(outcome === undefined ? [] : [`x.outcome->>'key' = ${params.put(outcome)}::text`]),
    ...(hour === undefined ? [] : [`${hourOf(zone)} = ${params.put(hour)}::int`]),
    ...(weekday === undefined ? [] : [`${weekdayOf(zone)} = ${params.put(weekday)}::int`]),
    ...(kept === undefined
      ? []
      : [`x.call_back is not null and ${keptSql({ zone, today, now })} = ${params.put(kept)}::text`]),
    // What a statement does not use would not be known by its type.
    `(${zone} is not null and ${today} is not null and ${now} is not null)`,
  ];
  return { where: conditions.join(' and '), params };
}
