import type { CallsAsked } from '../../contract/index.ts';
import { AT_ITS_HOUR_MINUTES } from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import { Params } from './pool-sql.ts';
import { IS_REACHED } from './stored/index.ts';

/** A question about calls `x` on lists `l`: the conditions, and the parameters they name. */
export interface AskedCalls {
  readonly where: string;
  readonly params: Params;
}

/** The zone, the day and the moment of a question, each put where it is used. */
export type Clock = (name: 'zone' | 'today' | 'now') => string;
export const clockOf = ({ workspace, today, instant }: Scope, params: Params): Clock =>
  params.named({ zone: [workspace.zone, 'text'], today: [today, 'date'], now: [instant, 'timestamptz'] });

/** Whether a call that is not made yet can no longer be: its list is over. */
export const notRung = (clock: Clock) =>
  `(x.state = 'dropped' or (x.state = 'open' and x.list_on < ${clock('today')}))`;

/** A moment as the clock of the workspace shows it. */
const shown = (moment: string, clock: Clock) => `(${moment} at time zone ${clock('zone')})`;

/** The hour and the weekday, 0 is Monday, at which a call began, by the clock of the workspace. */
export const hourOf = (clock: Clock) => `extract(hour from ${shown('x.rung_at', clock)})::int`;
export const weekdayOf = (clock: Clock) => `(extract(isodow from ${shown('x.rung_at', clock)})::int - 1)`;

/** The call `b` to whoever was promised one in `x`: the first that was made after it. */
export const KEPT_BY = `left join lateral (select b.rung_at, b.list_on from call b where b.workspace_id = x.workspace_id
  and b.contact_id = x.contact_id and b.state = 'rung' and b.rung_at > x.rung_at order by b.rung_at limit 1) b on true`;

/** The day, and the moment as the clock shows it, for which a call `x` promised another one; days are kept as numbers since 1970. */
const PROMISED_ON = `(date '1970-01-01' + (x.call_back->>'on')::int)`;
const PROMISED_AT = `(${PROMISED_ON} + (x.call_back->>'at')::time)`;

/** Minutes from the time that was promised to the call that kept it; null where no time was. */
export const lateMinutes = (clock: Clock) => `extract(epoch from ${shown('b.rung_at', clock)} - ${PROMISED_AT}) / 60`;

/** How the promise of a call `x` was kept by `b`: what `promiseKept` of the core says of one. */
export function keptSql(clock: Clock): string {
  const rungOn = `${shown('b.rung_at', clock)}::date`;
  // Told to the minute, as the clock is.
  const isOver = (moment: string) =>
    `coalesce(date_trunc('minute', ${shown(moment, clock)}) > ${PROMISED_AT} + interval '${AT_ITS_HOUR_MINUTES} minutes', false)`;
  return `case
    when b.rung_at is null then case when ${PROMISED_ON} < ${clock('today')}
      or (${PROMISED_ON} = ${clock('today')} and ${isOver(clock('now'))}) then 'owed' else 'toCome' end
    when ${rungOn} < ${PROMISED_ON} then 'sooner'
    when ${rungOn} > ${PROMISED_ON} then 'late'
    when ${isOver('b.rung_at')} then 'later'
    else 'kept' end`;
}

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
  const clock = clockOf(scope, params);
  const { ended, outcome, hour, weekday, kept } = asked;
  const conditions = [
    where,
    ...(ended === 'rung' ? ["x.state = 'rung'"] : []),
    ...(ended === 'reached' ? [`x.state = 'rung' and ${IS_REACHED}`] : []),
    ...(ended === 'notRung' ? [notRung(clock)] : []),
    ...(outcome === undefined ? [] : [`x.outcome->>'key' = ${params.put(outcome)}::text`]),
    ...(hour === undefined ? [] : [`${hourOf(clock)} = ${params.put(hour)}::int`]),
    ...(weekday === undefined ? [] : [`${weekdayOf(clock)} = ${params.put(weekday)}::int`]),
    ...(kept === undefined ? [] : [`x.call_back is not null and ${keptSql(clock)} = ${params.put(kept)}::text`]),
  ];
  return { where: conditions.join(' and '), params };
}
