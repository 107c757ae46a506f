import {
  LOG_DAYS_A_PAGE,
  LOG_LINES_A_DAY,
  type LogDay,
  type LogEntry,
  type LogFilter,
  type LogReading,
  MOST_LOG_LINES,
} from '../../contract/index.ts';
import { type Demand, outsideBy, ownOf } from '../../core/index.ts';
import { namedOrNull } from '../platform/named.ts';
import type { Scope } from '../platform/scope.ts';
import { linesOf, lookOfRow, type TaskRow, WAS_ON_TIME } from '../tasks/stored/index.ts';
import { endedFrom, entriesOf } from './asked.ts';

/** What stands first on a day: what went otherwise than planned, then what was read out of its limits or was written on. */
const RANK = `case when t.state <> 'done' or t.sent_back <> '[]' or not ${WAS_ON_TIME} then 0
    when t.answers @? '$.*.remark ? (@ <> "")' then 1
    when t.note <> '' then 2
    when exists (select 1 from file where file.workspace_id = t.workspace_id and file.task_id = t.id and file.removed_at is null) then 3
    else 4 end`;

interface Counted {
  readonly on: string;
  readonly count: number;
  readonly done: number;
}

/** Days with entries, the newest first, each with what there is to say about it. */
export async function logDays(
  scope: Scope,
  { before, ...filter }: LogFilter & { readonly before?: string | undefined },
): Promise<{ days: LogDay[]; more: string | null }> {
  const asked = await entriesOf(scope, filter);
  if (before !== undefined) asked.and(`t.due_on < ${asked.with(before)}::date`);
  const { table, count } = endedFrom(filter, filter.kind);
  const rows = await scope.sql<Counted>(
    `select t.due_on as "on", ${count()} as count, ${count('t.on_time is not null')} as done
     from ${table} where ${asked.where} group by 1 having ${count()} > 0 order by 1 desc limit ${LOG_DAYS_A_PAGE + 1}`,
    asked.params,
  );
  const page = rows.slice(0, LOG_DAYS_A_PAGE);
  const entries = await entriesOn(
    scope,
    filter,
    page.map(({ on }) => on),
    LOG_LINES_A_DAY,
  );
  return {
    days: page.map((day) => ({ ...day, entries: entries.get(day.on) ?? [] })),
    more: rows.length > page.length ? (page.at(-1)?.on ?? null) : null,
  };
}

/** All entries of one day. */
export async function logDay(scope: Scope, { on, ...filter }: LogFilter & { readonly on: string }): Promise<LogDay> {
  const asked = await entriesOf(scope, { ...filter, from: on, to: on });
  const [counted] = await scope.sql<Omit<Counted, 'on'>>(
    `select count(*)::int as count, (count(*) filter (where t.done_at is not null))::int as done from task t where ${asked.where}`,
    asked.params,
  );
  const entries = await entriesOn(scope, filter, [on], MOST_LOG_LINES);
  return { on, ...(counted ?? { count: 0, done: 0 }), entries: entries.get(on) ?? [] };
}

/** The first entries of some days, by what there is to say about them. */
async function entriesOn(
  scope: Scope,
  filter: LogFilter,
  days: readonly string[],
  most: number,
): Promise<ReadonlyMap<string, LogEntry[]>> {
  if (days.length === 0) return new Map();
  const asked = await entriesOf(scope, filter);
  const which = asked.where;
  const found = await scope.sql<{ on: string; id: string }>(
    `select d.on, line.id from unnest(${asked.with(days)}::date[]) as d("on") cross join lateral (
       select t.id from task t where ${which} and t.due_on = d.on
       order by ${RANK}, coalesce(t.due_time, '~'), t.title, t.id limit ${most}) line`,
    asked.params,
  );
  const logged = await loggedById(
    scope,
    found.map(({ id }) => id),
  );
  const byDay = new Map<string, LogEntry[]>();
  for (const { on, id } of found) {
    const entry = logged.get(id)?.entry;
    if (entry) byDay.set(on, [...(byDay.get(on) ?? []), entry]);
  }
  return byDay;
}

interface Beside {
  readonly id: string;
  readonly by: string | null;
  readonly signedBy: string | null;
  readonly wasSentBack: boolean;
  readonly pictures: number;
  readonly picture: string | null;
}

/** An entry, with the task that it is told from. */
interface Logged {
  readonly entry: LogEntry;
  readonly row: TaskRow;
}

/** Some entries by their ids. */
export async function loggedById(scope: Scope, ids: readonly string[]): Promise<ReadonlyMap<string, Logged>> {
  const [rows, beside] = await scope.atOnce(
    () => scope.sql<TaskRow>(linesOf('select unnest($2::uuid[])'), [ids]),
    () =>
      scope.sql<Beside>(
        `select t.id, coalesce(t.done_by_contact, who.name) as by, signer.name as "signedBy", t.sent_back <> '[]' as "wasSentBack",
           coalesce(f.n, 0)::int as pictures, f.first as picture
         from unnest($2::uuid[]) as asked(id) join task t on t.workspace_id = $1 and t.id = asked.id
         left join person who on who.workspace_id = $1 and who.id = coalesce(t.done_by, t.assignee_id)
         left join person signer on signer.workspace_id = $1 and signer.id = t.signed_by
         left join lateral (
           select count(*) as n, (array_agg(file.id order by file.uploaded_at, file.id))[1] as first from file
           where file.workspace_id = t.workspace_id and file.task_id = t.id and file.removed_at is null and file.is_picture
         ) f on true`,
        [ids],
      ),
  );
  const byId = new Map(beside.map((one) => [one.id, one]));
  return new Map(rows.map((row) => [row.id, { row, entry: entryOf(scope, row, byId.get(row.id)) }]));
}

function entryOf(scope: Scope, row: TaskRow, beside: Beside | undefined): LogEntry {
  const { late, daysLate } = lookOfRow(scope, row);
  const readings = readingsOf(row);
  return {
    id: row.id,
    title: row.title,
    client: namedOrNull(row.clientId, row.clientName),
    asset: namedOrNull(row.assetId, row.assetName),
    by: beside?.by ?? null,
    state: row.state as LogEntry['state'],
    late,
    daysLate,
    dueOn: row.dueOn,
    dueTime: row.dueTime,
    doneAt: scope.moment(row.doneAt),
    signedBy: beside?.signedBy ?? null,
    wasSentBack: beside?.wasSentBack ?? false,
    readings: readings.length,
    outOfLimits: readings.find(({ isOut }) => isOut)?.reading ?? null,
    pictures: beside?.pictures ?? 0,
    picture: beside?.picture ?? null,
    note: row.note,
  };
}

/** The figures that were read, in the order in which they are asked for. */
export function readingsOf({ demands, checkLines, answers }: Pick<TaskRow, 'demands' | 'checkLines' | 'answers'>): {
  readonly key: string;
  readonly reading: LogReading;
  readonly isOut: boolean;
}[] {
  const asked: readonly { readonly demand: Demand; readonly of: string }[] = [
    ...checkLines.flatMap(({ text, demands: own }) => own.map((demand) => ({ demand, of: text }))),
    ...demands.map((demand) => ({ demand, of: '' })),
  ];
  return asked.flatMap(({ demand, of }) => {
    const answer = ownOf(answers, demand.key);
    if (demand.kind !== 'number' || typeof answer?.value !== 'number') return [];
    const { unit, least, most } = demand;
    const reading = { label: demand.label || of, value: answer.value, unit, least, most };
    return [{ key: demand.key, reading, isOut: outsideBy(demand, answer.value) !== 0 }];
  });
}
