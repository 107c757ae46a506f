import { patternsOf } from '../platform/db/like.ts';
import type { Scope } from '../platform/scope.ts';
import { haveWords } from './list.ts';

interface Found {
  readonly id: string;
  readonly name: string;
  readonly detail: string;
}

/** Clients in use that have every word, with what of theirs has it: a vessel, a tag, an address, a number. */
export function clientsFound(scope: Scope, words: readonly string[], limit: number): Promise<Found[]> {
  const patterns = patternsOf(words);
  return scope.sql<Found>(
    `select c.id, c.name, concat_ws(', ',
       (select concat_ws(', ', name, tag) from asset a where a.workspace_id = $1 and a.client_id = c.id and a.archived_at is null
        order by ' ' || a.found_by like any ($2::text[]) desc, a.words, a.id limit 1),
       (select case when k.name = c.name then '' else k.name || ', ' end || concat_ws(', ', nullif(k.email, ''), nullif(k.telephone, ''), nullif(regexp_replace(k.telephone, '\\D', '', 'g'), ''))
        from contact k where k.workspace_id = $1 and k.client_id = c.id and ' ' || k.found_by like any ($2::text[]) and not ' ' || c.words like all ($2::text[])
        order by k.position limit 1)) as detail
     from client c where c.workspace_id = $1 and c.archived_at is null ${haveWords(patterns, 3)}
     order by c.words, c.id limit ${limit}`,
    [patterns, ...patterns],
  );
}

/** The workspace's own assets in use that have every word. */
export function ownAssetsFound(scope: Scope, words: readonly string[], limit: number): Promise<Found[]> {
  return scope.sql<Found>(
    `select id, name, concat_ws(', ', nullif(place, ''), tag) as detail from asset
     where workspace_id = $1 and client_id is null and archived_at is null and ' ' || found_by like all ($2::text[])
     order by words, id limit ${limit}`,
    [patternsOf(words)],
  );
}
