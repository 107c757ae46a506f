import { CLIENTS_A_PAGE, type ClientLine, type PastTask } from '../../contract/index.ts';
import { isOverdue, plainWords } from '../../core/index.ts';
import { firstPlans, noPlans, planOfEach } from '../plans/stored/index.ts';
import { columnsOf } from '../platform/db/columns.ts';
import { patternsOf } from '../platform/db/like.ts';
import { readCursor } from '../platform/http/cursor.ts';
import { oncePer } from '../platform/latest.ts';
import { namedOrNull } from '../platform/named.ts';
import type { Scope } from '../platform/scope.ts';
import { type KeptLine, keptLines } from '../schedules/index.ts';
import { LOOK_FIELDS, type LookRow, lookOfRow, TaskRecord, TO_DO, UNFINISHED } from '../tasks/stored/index.ts';

interface Asked {
  readonly q: string;
  readonly person?: string | undefined;
  readonly plan?: string | undefined;
  readonly by: 'name' | 'plan';
  readonly archived: 'no' | 'yes';
  readonly after?: string | undefined;
}

interface Row {
  readonly id: string;
  readonly name: string;
  readonly sortsAs: string;
  readonly isArchived: boolean;
  readonly personId: string | null;
  readonly personName: string | null;
}

/** Names told of each client's assets. */
const ASSETS_TOLD = 2;
const STRING_LENGTH = 8;

/**
 * Of clients `c` that have every word: in their name, in what is theirs, or in whom one talks to. Each word is found through an
 * index of its own, so that a common one beside a rare one costs no more than the rare one lets it.
 * @param first the place of the first word's pattern among the parameters
 */
export const haveWords = (patterns: readonly string[], first: number): string =>
  patterns
    .map((_, i) => `$${first + i}`)
    .map(
      (word) => `and c.id in (select id from client where workspace_id = $1 and ' ' || words like ${word}
        union select client_id from asset where workspace_id = $1 and ' ' || found_by like ${word}
        union select client_id from contact where workspace_id = $1 and ' ' || found_by like ${word})`,
    )
    .join(' ');

/** A page of clients by name, with what is theirs, how it went and what comes next. */
export async function listClients(scope: Scope, { q, person, plan, by, archived, after }: Asked) {
  const patterns = patternsOf(plainWords(q));
  const [words, id] = readCursor(after) ?? ['', ''];
  const params = [archived === 'yes', person ?? null, plan ?? null, scope.today, ...patterns];
  const fits = `c.workspace_id = $1 and (c.archived_at is not null) = $2 and ($3::uuid is null or c.usual_person_id = $3)
    and ($4::text is null or case when $4 = 'none' then of_plan.plan_id is null else of_plan.plan_id::text = $4 end)
    ${haveWords(patterns, 6)}`;
  // Asked for only where it is looked at: all clients with their plans are more than a page of them.
  const ofPlan = plan !== undefined || by === 'plan' ? firstPlans('$5') : noPlans('$5');
  const sortsAs = by === 'plan' ? `(coalesce('b' || of_plan.words, 'a') || chr(1) || c.words) collate "C"` : 'c.words';
  const cursor = params.length + 2;
  const [rows, [counts]] = await scope.atOnce(
    () =>
      scope.sql<Row>(
        `select c.id, c.name, ${sortsAs} as "sortsAs", c.archived_at is not null as "isArchived", p.id as "personId", p.name as "personName"
         from client c left join person p on p.workspace_id = c.workspace_id and p.id = c.usual_person_id ${ofPlan}
         where ${fits} and ($${cursor} = '' or (${sortsAs}, c.id) > ($${cursor}, nullif($${cursor + 1}, '')::uuid))
         order by ${sortsAs}, c.id limit ${CLIENTS_A_PAGE + 1}`,
        [...params, words, id],
      ),
    () =>
      scope.sql<{ fitting: number; archived: number }>(
        `select (select count(*)::int from client c ${ofPlan} where ${fits}) as fitting,
           (select count(*)::int from client where workspace_id = $1 and archived_at is not null) as archived`,
        params,
      ),
  );
  const groups =
    by === 'plan' && after === undefined
      ? await scope.sql<{ planId: string | null; name: string; count: number }>(
          `select of_plan.plan_id as "planId", coalesce(of_plan.name, '') as name, count(*)::int as count from client c ${ofPlan}
           where ${fits} group by of_plan.plan_id, of_plan.name, of_plan.words order by coalesce('b' || of_plan.words, 'a') collate "C"`,
          params,
        )
      : [];
  const page = rows.slice(0, CLIENTS_A_PAGE);
  const last = page.at(-1);
  return {
    groups,
    clients: await clientLines(scope, page),
    more: rows.length > CLIENTS_A_PAGE && last ? JSON.stringify([last.sortsAs, last.id]) : null,
    counts: { fitting: counts?.fitting ?? 0, archived: counts?.archived ?? 0 },
  };
}

async function clientLines(scope: Scope, page: readonly Row[]): Promise<ClientLine[]> {
  const ids = page.map(({ id }) => id);
  const [assets, past, next, late, lines, plans] = await scope.atOnce(
    () =>
      scope.sql<{ clientId: string; names: string[]; count: number; place: string }>(
        `select client_id as "clientId", (array_agg(name order by words, id))[1:${ASSETS_TOLD}] as names, count(*)::int as count,
           (array_agg(place order by words, id))[1] as place
         from asset where workspace_id = $1 and client_id = any($2::uuid[]) and archived_at is null group by client_id`,
        [ids],
      ),
    () => stringsOf(scope, ids),
    () =>
      scope.sql<{ clientId: string; on: string; title: string }>(
        `select wanted.id as "clientId", t.work_on as "on", t.title from unnest($2::uuid[]) as wanted (id) cross join lateral (
           select work_on, title from task where workspace_id = $1 and client_id = wanted.id and due_on >= $3::date
             and state in ${UNFINISHED} order by due_on, id limit 1) t`,
        [ids, scope.today],
      ),
    () => lateOf(scope, ids),
    async () => byClient(await keptLines(scope)),
    () => planOfEach(scope, ids),
  );
  const assetsOf = new Map(assets.map((one) => [one.clientId, one]));
  const nextOf = new Map(next.map((one) => [one.clientId, one]));
  return page.map((row) => {
    const own = assetsOf.get(row.id);
    const schedules = lines.get(row.id) ?? [];
    return {
      id: row.id,
      name: row.name,
      isArchived: row.isArchived,
      assets: own?.names ?? [],
      assetCount: own?.count ?? 0,
      place: own?.place ?? '',
      usualPerson: namedOrNull(row.personId, row.personName),
      plan: plans.get(row.id) ?? null,
      scheduleCount: schedules.length,
      lastEight: past.get(row.id) ?? [],
      next: nextDate(nextOf.get(row.id), schedules),
      lateCount: late.get(row.id) ?? 0,
    };
  });
}

/** Schedules by whom they are for. */
export const byClient = oncePer((lines: ReadonlyMap<string, KeptLine>) => {
  const all = new Map<string, KeptLine[]>();
  for (const line of lines.values()) {
    const { clientId } = line.row;
    if (clientId === null) continue;
    const own = all.get(clientId);
    if (own) own.push(line);
    else all.set(clientId, [line]);
  }
  return all;
});

/** The first task that is made, or the first date that a schedule gives, whichever comes before. */
function nextDate(
  made: { readonly on: string; readonly title: string } | undefined,
  schedules: readonly KeptLine[],
): ClientLine['next'] {
  const foreseen = schedules
    .flatMap(({ next, row }) => (next === null ? [] : [{ on: next, title: row.templateName, isMade: false }]))
    .reduce<ClientLine['next']>((first, one) => (first === null || one.on < first.on ? one : first), null);
  if (!made) return foreseen;
  return foreseen !== null && foreseen.on < made.on ? foreseen : { on: made.on, title: made.title, isMade: true };
}

/** The last of each client's tasks that show, oldest first. */
async function stringsOf(scope: Scope, ids: readonly string[]): Promise<ReadonlyMap<string, PastTask[]>> {
  const rows = await scope.sql<LookRow & { id: string; clientId: string; workOn: string }>(
    `select t.* from unnest($2::uuid[]) as wanted (id) cross join lateral (
       select id, client_id as "clientId", work_on as "workOn", ${columnsOf(TaskRecord, 'task', LOOK_FIELDS)} from task
       where workspace_id = $1 and client_id = wanted.id and step_key = '' and due_on <= $3::date
       order by due_on desc, id desc limit ${STRING_LENGTH}) t order by t."dueOn", t.id`,
    [ids, scope.today],
  );
  const strings = new Map<string, PastTask[]>();
  for (const row of rows) {
    const { state, late, heldUp } = lookOfRow(scope, row);
    const own = strings.get(row.clientId) ?? [];
    own.push({ taskId: row.id, on: row.workOn, state, late, heldUp });
    strings.set(row.clientId, own);
  }
  return strings;
}

/** How many of each client's tasks are late: whatever is due alike is late alike, and is told together. */
async function lateOf(scope: Scope, ids: readonly string[]): Promise<ReadonlyMap<string, number>> {
  const rows = await scope.sql<LookRow & { clientId: string; count: number }>(
    `select ${columnsOf(TaskRecord, 'task', LOOK_FIELDS)}, client_id as "clientId", count(*)::int as count from task
     where workspace_id = $1 and client_id = any($2::uuid[]) and state in ${TO_DO} and due_on <= $3::date + 1
     group by ${LOOK_FIELDS.map((_, i) => i + 1).join(', ')}, client_id`,
    [ids, scope.today],
  );
  const late = new Map<string, number>();
  for (const row of rows)
    if (isOverdue(lookOfRow(scope, row))) late.set(row.clientId, (late.get(row.clientId) ?? 0) + row.count);
  return late;
}
