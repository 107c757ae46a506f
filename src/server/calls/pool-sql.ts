import { isoOfDay, type Pool, type PoolCondition, type QuotaTerms, SHUFFLE_FACTOR } from '../../core/index.ts';
import { isOn } from '../plans/stored/index.ts';
import type { Scope } from '../platform/scope.ts';
import { STANDING_FIELDS, type StandingRow } from './stored/index.ts';

/** Contacts `k` in use with their client `c` and what is known of the calls to them, `s`. */
export const CONTACTS = `contact k
  join client c on c.workspace_id = k.workspace_id and c.id = k.client_id and c.archived_at is null
  left join call_standing s on s.workspace_id = k.workspace_id and s.contact_id = k.id`;

/** Parameters of a statement in the order of their places. */
export class Params {
  readonly values: unknown[] = [];
  /** The place of a value; places begin at $2. */
  put(value: unknown): string {
    this.values.push(value);
    return `$${this.values.length + 1}`;
  }

  /** Values by name with the type that each is of, put where a statement first uses them: what it does not use it does not know. */
  named<Name extends string>(values: Readonly<Record<Name, readonly [value: unknown, type: string]>>) {
    const places = new Map<Name, string>();
    return (name: Name): string => {
      const place = places.get(name) ?? this.put(values[name][0]);
      places.set(name, place);
      return `${place}::${values[name][1]}`;
    };
  }
}

/** The first asset in use of a client `c` by name, as `asset.name`: what people know them by. */
export const FIRST_ASSET = `left join lateral (select a.name from asset a where a.workspace_id = c.workspace_id and a.client_id = c.id
  and a.archived_at is null order by lower(a.name), a.id limit 1) asset on true`;

/** A condition as SQL, about the contact `k` on a day: the same that `fitsCondition` of the core tells, which a test holds it against. */
export function conditionSql(condition: PoolCondition, day: number, params: Params): string {
  const today = isoOfDay(day);
  switch (condition.kind) {
    case 'plans':
      return `exists (select 1 from on_plan o where o.workspace_id = $1 and o.client_id = k.client_id
        and o.plan_id = any(${params.put(condition.ids)}::uuid[]) and ${isOn(params.put(today))})`;
    case 'usualPeople':
      return `coalesce(c.usual_person_id = any(${params.put(condition.ids)}::uuid[]), false)`;
    case 'notRungFor':
      return `(s.again_on is not null or s.last_rung_on is null
        or ${params.put(today)}::date - s.last_rung_on >= ${params.put(condition.days)})`;
    case 'neverRung':
      return 's.last_rung_on is null';
    case 'field': {
      const key = params.put(condition.key);
      const text = `c.fields->>${key}::text`;
      const { test } = condition;
      switch (test.kind) {
        case 'isOneOf':
          return `coalesce(${text} = any(${params.put(test.values)}::text[]), false)`;
        case 'within':
          // Dates are kept as ISO days, which stand in the order of their letters.
          return `coalesce(${text} between ${params.put(today)} and ${params.put(isoOfDay(day + test.days))}, false)`;
        case 'atLeast':
        case 'atMost':
          return `(case when jsonb_typeof(c.fields->${key}::text) = 'number'
            then (${text})::numeric ${test.kind === 'atLeast' ? '>=' : '<='} ${params.put(test.value)}::numeric else false end)`;
        case 'isSaid':
          return `coalesce(${text} <> '', false)`;
        case 'isUnsaid':
          return `coalesce(${text} = '', true)`;
      }
    }
  }
}

export const poolSql = ({ conditions }: Pool, day: number, params: Params): string =>
  ['true', ...conditions.map((condition) => conditionSql(condition, day, params))].join(' and ');

/** That nobody has said never to ring them, and that there is a number which was no wrong one. */
export const NOT_NEVER = 'not coalesce(s.is_never_called, false)';
export const HAS_NUMBER = `k.telephone <> '' and k.telephone is distinct from s.wrong_number`;

/** That they may be rung on a day as far as what went before goes; whom a call was promised stands aside. */
export function restedSql(day: number, gap: number, params: Params): string {
  const today = params.put(isoOfDay(day));
  return `s.call_back_on is null and (s.alone_until is null or s.alone_until < ${today}::date)
    and (s.again_on is null or s.again_on <= ${today}::date)
    and (s.last_rung_on is null or ${today}::date - s.last_rung_on >= ${params.put(gap)})`;
}

export const notListedSql = (day: number, params: Params): string =>
  `not exists (select 1 from call x where x.workspace_id = $1 and x.list_on = ${params.put(isoOfDay(day))}::date and x.contact_id = k.id)`;

/** The place of an id in a shuffle: the same that `shuffled` of the core gives. */
export function shuffledSql(id: string, seed: number, params: Params): string {
  const bits = `('x' || right(${id}::text, 8))::bit(32)::bigint`;
  const mixed = `((${bits} # ${params.put(seed)}::bigint) * ${SHUFFLE_FACTOR}) & 4294967295`;
  return `(select m # (m >> 16) from (select ${mixed} as m) mixed)`;
}

/** A contact who may be listed. */
export interface CandidateRow extends StandingRow {
  readonly contactId: string;
  readonly clientId: string;
  readonly number: string;
  readonly usualPersonId: string | null;
}

const CANDIDATE = `k.id as "contactId", k.client_id as "clientId", k.telephone as number, c.usual_person_id as "usualPersonId", ${STANDING_FIELDS}`;

/** Those of a pool that nobody promised anything, in the order in which lists take them: each rank by the day of the last call. */
const RANKS = {
  // Told of the contact alone, by an index of their own: the ninety of a hundred who were rung are not looked at.
  never: `not k.is_rung and k.telephone <> ''`,
  again: 's.last_rung_on is not null and s.again_on is not null',
  before: 's.last_rung_on is not null and s.again_on is null',
} as const;
const RANKED: Readonly<Record<QuotaTerms['first'], readonly (keyof typeof RANKS)[]>> = {
  neverRung: ['never', 'again', 'before'],
  rungBefore: ['again', 'before', 'never'],
};

interface Place {
  readonly day: number;
  readonly seed: number;
  readonly most: number;
}

/** The first of a pool in the order in which lists take them: as many as could be listed at all. */
export async function firstOfPool(
  scope: Scope,
  terms: Pick<QuotaTerms, 'pool' | 'gap' | 'first'>,
  place: Place,
): Promise<CandidateRow[]> {
  const found: CandidateRow[] = [];
  // One rank after the other: where the first has enough nobody looks at the rest of a hundred thousand.
  for (const rank of RANKED[terms.first]) {
    const most = place.most - found.length;
    if (most > 0) found.push(...(await firstOfRank(scope, terms, { ...place, most, rank })));
  }
  return found;
}

function firstOfRank(
  scope: Scope,
  { pool, gap }: Pick<QuotaTerms, 'pool' | 'gap'>,
  { day, seed, most, rank }: Place & { readonly rank: keyof typeof RANKS },
): Promise<CandidateRow[]> {
  const params = new Params();
  const where = `${RANKS[rank]} and ${NOT_NEVER} and ${HAS_NUMBER} and ${restedSql(day, gap, params)} and ${poolSql(pool, day, params)}
    and ${notListedSql(day, params)}`;
  const limit = params.put(most);
  // Only those who stand alike at the last place are shuffled, not all who fit.
  return scope.sql<CandidateRow>(
    `with fitting as (
       select k.id, s.last_rung_on as last from ${CONTACTS} where k.workspace_id = $1 and ${where}
       ${rank === 'never' ? '' : `order by s.last_rung_on fetch first (${limit}) rows with ties`}),
     chosen as (
       select id, row_number() over (order by last nulls first, ${shuffledSql('id', seed, params)}, id) as place from fitting
       order by place limit ${limit})
     select ${CANDIDATE} from chosen, ${CONTACTS} where k.workspace_id = $1 and k.id = chosen.id order by chosen.place`,
    params.values,
  );
}

/** Contacts by their ids, whoever they are for the pool by now. */
export function candidatesOf(scope: Scope, contactIds: readonly string[]): Promise<CandidateRow[]> {
  return scope.sql<CandidateRow>(
    `select ${CANDIDATE} from ${CONTACTS} where k.workspace_id = $1 and k.id = any($2::uuid[])`,
    [contactIds],
  );
}

/** Whom a quota owes a promised call by a day. */
export function promisedOf(scope: Scope, quotaId: string, day: number): Promise<CandidateRow[]> {
  const params = new Params();
  return scope.sql<CandidateRow>(
    `select ${CANDIDATE} from ${CONTACTS} where k.workspace_id = $1 and s.call_back_quota = ${params.put(quotaId)}
       and s.call_back_on <= ${params.put(isoOfDay(day))}::date and ${notListedSql(day, params)}`,
    params.values,
  );
}
