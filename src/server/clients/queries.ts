import { MOST_SUBJECTS, type Subject } from '../../contract/index.ts';
import { plainTag, plainWords, subjectsSaid } from '../../core/index.ts';
import { likeLetters } from '../platform/db/like.ts';
import type { Scope } from '../platform/scope.ts';

/** Clients and assets as what work can be for. A client's own row stands before what is theirs. */
const ASSETS = `select a.client_id as "clientId", a.id as "assetId", a.name, concat_ws(', ', c.name, a.place) as detail, a.tag,
    c.words as whose, a.words
  from asset a left join client c on c.workspace_id = a.workspace_id and c.id = a.client_id
  where a.workspace_id = $1`;
const ASSETS_IN_USE = `${ASSETS} and a.archived_at is null`;
const CLIENTS = `select c.id as "clientId", null::uuid as "assetId", c.name, 'client' as detail, null::text as tag, c.words as whose, c.words
  from client c where c.workspace_id = $1`;
const CLIENTS_IN_USE = `${CLIENTS} and c.archived_at is null`;
const ORDER = 'whose nulls first, "clientId" nulls first, "assetId" is not null, words, "assetId"';

/** Told without what they are put in order by. */
const toldOf = ({ clientId, assetId, name, detail, tag }: Subject): Subject => ({
  clientId,
  assetId,
  name,
  detail,
  tag,
});

/** From so many letters on a word is found anywhere; fewer stand for the beginning of a name, as too many have them. */
const ANYWHERE = 3;

/** Whose tag it is, with where that stands; null where nothing has it. Told when a wrong one was read: all tags are looked at. */
export async function ownerOfTag(scope: Scope, tag: string): Promise<string | null> {
  const [owner] = await scope.sql<{ name: string }>(
    `select concat_ws(', ', a.name, coalesce(c.name, site.name, nullif(a.place, ''))) as name from asset a
     left join client c on c.workspace_id = a.workspace_id and c.id = a.client_id
     left join asset site on site.workspace_id = a.workspace_id and site.id = a.site_id
     where a.workspace_id = $1 and a.tag is not null and lower(regexp_replace(a.tag, '[\\s-]', '', 'g')) = $2
     order by a.archived_at is not null, a.name, a.id limit 1`,
    [plainTag(tag)],
  );
  return owner?.name ?? null;
}

export async function findSubjects(scope: Scope, q: string): Promise<{ subjects: Subject[]; isMore: boolean }> {
  const words = [...new Set(plainWords(q).filter(Boolean))].sort((a, b) => b.length - a.length);
  const [longest = ''] = words;
  const typed = `${likeLetters(plainWords(q).join(' '))}%`;
  const found =
    longest === ''
      ? await firstSubjects(scope)
      : longest.length < ANYWHERE
        ? await subjectsBeginning(scope, words)
        : await subjectsWith(scope, words, typed);
  return { subjects: found.slice(0, MOST_SUBJECTS).map(toldOf), isMore: found.length > MOST_SUBJECTS };
}

/** Our own, then the first clients by name with what is theirs. */
function firstSubjects(scope: Scope): Promise<Subject[]> {
  return scope.sql<Subject>(
    `select * from (
       (${ASSETS_IN_USE} and a.client_id is null order by a.words limit $2)
       union all
       (with nearest as (select id from client where workspace_id = $1 and archived_at is null order by words, id limit $2)
        ${CLIENTS_IN_USE} and c.id in (select id from nearest)
        union all
        ${ASSETS_IN_USE} and a.client_id in (select id from nearest))
     ) first order by ${ORDER} limit $2`,
    [MOST_SUBJECTS + 1],
  );
}

/** Those whose names begin with the longest of the words, and that have all the others as well. */
function subjectsBeginning(scope: Scope, [longest = '', ...others]: readonly string[]): Promise<Subject[]> {
  return scope.sql<Subject>(
    `select * from (
       (${CLIENTS_IN_USE} and c.words like $2 and c.words like all ($3::text[]) order by c.words limit $4)
       union all
       (${ASSETS_IN_USE} and a.words like $2 and a.found_by like all ($3::text[]) order by a.words limit $4)
     ) found order by ${ORDER} limit $4`,
    [`${likeLetters(longest)}%`, others.map((word) => `%${likeLetters(word)}%`), MOST_SUBJECTS + 1],
  );
}

/** Found by the longest word through an index, and of those the ones that have all the others as well; names that begin as typed first. */
function subjectsWith(scope: Scope, words: readonly string[], typed: string): Promise<Subject[]> {
  const [longest = '', ...others] = words.map((word) => `%${likeLetters(word)}%`);
  return scope.sql<Subject>(
    `with named as materialized (select id from client where workspace_id = $1 and ' ' || words like $2)
     select * from (
       ${CLIENTS_IN_USE} and c.id in (select id from named)
         and ' ' || c.words like all ($3::text[])
       union all
       ${ASSETS_IN_USE} and a.id in (
           select id from asset where workspace_id = $1 and ' ' || found_by like $2
           union
           select id from asset where workspace_id = $1 and client_id in (select id from named))
         and concat(' ', a.found_by, ' ', c.words) like all ($3::text[])
     ) found order by words not like $5, ${ORDER} limit $4`,
    [longest, others, MOST_SUBJECTS + 1, typed],
  );
}

export async function namedSubjects(
  scope: Scope,
  { clientId, assetId }: { readonly clientId?: string | undefined; readonly assetId?: string | undefined },
): Promise<{ client: Subject | null; asset: Subject | null }> {
  const found = await scope.sql<Subject>(
    `select * from (${CLIENTS} and c.id = coalesce($2, (select client_id from asset where workspace_id = $1 and id = $3)) union all ${ASSETS} and a.id = $3) named`,
    [clientId ?? null, assetId ?? null],
  );
  const told = found.map(toldOf);
  return {
    client: told.find((one) => one.assetId === null) ?? null,
    asset: told.find((one) => one.assetId !== null) ?? null,
  };
}

/** Names of each place of a line that are offered at the most. */
const OFFERED = 5;

/** All whose whole name stands in the line after a "for", and the first of those whose names begin so. */
export async function subjectsSaidIn(scope: Scope, line: string): Promise<Subject[]> {
  const said = subjectsSaid(line);
  if (said.length === 0) return [];
  const whole = new Set(
    said.flatMap((words) =>
      words.map((_, i) =>
        words
          .slice(0, i + 1)
          .filter(Boolean)
          .join(' '),
      ),
    ),
  );
  const [typed = []] = said.slice(-1);
  const beginning = likeLetters(typed.filter(Boolean).join(' '));
  const named = (rows: string, words: string) => `
    select * from (${rows} and ${words} = any ($2::text[])) whole
    union all (${rows} and ${words} like $3 || '%' order by ${words} limit ${OFFERED})
    union all (${rows} and ' ' || ${words} like '% ' || $3 || '%' and ${words} not like $3 || '%'
      order by ${words} limit ${OFFERED})`;
  const found = await scope.sql<Subject>(
    `${named(CLIENTS_IN_USE, 'c.words')} union all ${named(ASSETS_IN_USE, 'a.words')}`,
    [[...whole], beginning],
  );
  const each = new Map(found.map((one) => [`${one.clientId} ${one.assetId}`, one]));
  return [...each.values()].map(toldOf);
}
