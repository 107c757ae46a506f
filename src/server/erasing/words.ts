import type { Scope } from '../platform/scope.ts';

/** What stands in the place of a name. */
export const ERASED = 'erased';

/** What is shorter is found in too many other words. */
const SHORTEST = 3;

/** Texts by which somebody is known, to be taken out of other texts. */
export interface ErasedWords {
  /** A regular expression (PostgreSQL) that finds any of them, whole words alone; and one for them as they stand in JSON. */
  readonly inText: string;
  readonly inJson: string;
}

const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/** Texts as they are written, a mail address in small letters too: “Kit” is somebody, a kit is not. The longest first, so that none is found within another. Null where there is nothing to look for. */
export function erasedWords(texts: readonly string[]): ErasedWords | null {
  const written = texts.map((text) => text.trim());
  const words = [
    ...new Set([...written, ...written.filter((text) => text.includes('@')).map((text) => text.toLowerCase())]),
  ]
    .filter((text) => text.length >= SHORTEST)
    .sort((a, b) => b.length - a.length);
  if (words.length === 0) return null;
  const any = (all: readonly string[]) => `(?<![[:alnum:]])(?:${all.map(escaped).join('|')})(?![[:alnum:]])`;
  return { inText: any(words), inJson: any(words.map((word) => JSON.stringify(word).slice(1, -1))) };
}

/** Takes the words out of columns of the rows that a condition names. @returns how many rows had one */
export async function takeWordsOut(
  scope: Scope,
  { inText, inJson }: ErasedWords,
  table: string,
  columns: Readonly<Record<string, 'text' | 'json'>>,
  where: string,
  params: readonly unknown[] = [],
): Promise<number> {
  const [text, json, erased] = [`$${params.length + 2}`, `$${params.length + 3}`, `$${params.length + 4}`];
  const names = Object.entries(columns);
  const set = names.map(([column, kind]) =>
    kind === 'text'
      ? `${column} = regexp_replace(${column}, ${text}, ${erased}, 'g')`
      : `${column} = regexp_replace(${column}::text, ${json}, ${erased}, 'g')::jsonb`,
  );
  const found = names.map(([column, kind]) => (kind === 'text' ? `${column} ~ ${text}` : `${column}::text ~ ${json}`));
  const rows = await scope.sql(
    `update ${table} set ${set.join(', ')} where workspace_id = $1 and (${where}) and (${found.join(' or ')})
       and ${text}::text is not null and ${json}::text is not null returning 1`,
    [...params, inText, inJson, ERASED],
  );
  return rows.length;
}
