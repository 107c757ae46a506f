import { type CallLine, type CallsAsked, FIGURE_CALLS_A_PAGE } from '../../contract/index.ts';
import { dayOfIso, isoOfDay, sayWhyListed, type WhyListed } from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import { callsAsked, KEPT_BY } from './asked.ts';
import { FIRST_ASSET } from './pool-sql.ts';
import { IS_REACHED, LISTED } from './stored/index.ts';

interface LineRow {
  readonly id: string;
  readonly on: string;
  readonly state: string;
  readonly personId: string;
  readonly person: string;
  readonly contactId: string;
  readonly contact: string | null;
  readonly clientId: string;
  readonly client: string;
  readonly asset: string | null;
  readonly number: string;
  readonly outcome: string | null;
  readonly isReached: boolean;
  readonly rungAt: Date | null;
  readonly note: string;
  readonly callBack: { readonly on: number; readonly at: string | null } | null;
  readonly why: WhyListed;
}

/** Lines from the newest day on, those after a day and an id alone. */
function linesOf(
  scope: Scope,
  asked: CallsAsked,
  { after, limit }: { readonly after: readonly [on: string, id: string] | null; readonly limit: number },
): Promise<LineRow[]> {
  const { where, params } = callsAsked(scope, asked);
  const below =
    after === null ? '' : ` and (x.list_on, x.id) < (${params.put(after[0])}::date, ${params.put(after[1])}::uuid)`;
  return scope.sql<LineRow>(
    `select x.id, x.list_on as "on", x.state, p.id as "personId", p.name as person, x.contact_id as "contactId", k.name as contact,
       c.id as "clientId", c.name as client, asset.name as asset, x.number, x.outcome->>'name' as outcome,
       coalesce(${IS_REACHED}, false) as "isReached", x.rung_at as "rungAt", x.note, x.call_back as "callBack", x.why
     from ${LISTED}
     join person p on p.workspace_id = x.workspace_id and p.id = l.person_id
     join client c on c.workspace_id = x.workspace_id and c.id = x.client_id
     left join contact k on k.workspace_id = x.workspace_id and k.id = x.contact_id
     ${asked.kept === undefined ? '' : KEPT_BY} ${FIRST_ASSET}
     where ${where}${below} order by x.list_on desc, x.id desc limit ${limit}`,
    params.values,
  );
}

const GONE = 'somebody who is gone';

/** The calls behind a figure, a page of them. @throws Refusal where the cursor is none */
export async function callsBehind(
  scope: Scope,
  { after, ...asked }: CallsAsked & { readonly after?: string | undefined },
): Promise<{ lines: CallLine[]; next: string | null }> {
  const [on = '', id = ''] = after?.split(' ') ?? [];
  const rows = await linesOf(scope, asked, {
    after: after === undefined ? null : [on, id],
    limit: FIGURE_CALLS_A_PAGE,
  });
  const last = rows.at(-1);
  return {
    lines: rows.map((row) => ({
      ...{ id: row.id, on: row.on, asset: row.asset, outcome: row.outcome, isReached: row.isReached, note: row.note },
      person: { id: row.personId, name: row.person },
      contact: { id: row.contactId, name: row.contact ?? GONE },
      client: { id: row.clientId, name: row.client },
      state: row.state === 'rung' ? 'rung' : row.state === 'open' && row.on >= scope.today ? 'open' : 'notRung',
      rungAt: scope.moment(row.rungAt),
      callBack: row.callBack && { on: isoOfDay(row.callBack.on), at: row.callBack.at },
    })),
    next: last !== undefined && rows.length === FIGURE_CALLS_A_PAGE ? `${last.on} ${last.id}` : null,
  };
}

/** Lines that are told at a time. */
const AT_ONCE = 500;
const HEAD = [
  ...['day', 'list of', 'contact', 'client', 'asset', 'number', 'why on the list', 'outcome', 'reached', 'rung at'],
  ...['note', 'call back on', 'call back at'],
] as const;

/** The calls behind a figure as lines of a table. */
export async function* callsOut(scope: Scope, asked: CallsAsked): AsyncGenerator<readonly (readonly string[])[]> {
  yield [HEAD];
  for (let after: readonly [string, string] | null = null; ; ) {
    const rows: LineRow[] = await linesOf(scope, asked, { after, limit: AT_ONCE });
    yield rows.map((row) => [
      ...[row.on, row.person, row.contact ?? GONE, row.client, row.asset ?? '', row.number],
      ...[sayWhyListed(row.why, dayOfIso(row.on)), row.outcome ?? 'not rung', row.isReached ? 'yes' : ''],
      ...[scope.moment(row.rungAt)?.replace('T', ' ') ?? '', row.note],
      ...[row.callBack ? isoOfDay(row.callBack.on) : '', row.callBack?.at ?? ''],
    ]);
    const last = rows.at(-1);
    if (!last || rows.length < AT_ONCE) return;
    after = [last.on, last.id];
  }
}
