import type { z } from 'zod';
import { type findEndpoints, MOST_FOUND } from '../../contract/index.ts';
import { plainWords } from '../../core/index.ts';
import { clientsFound, ownAssetsFound } from '../directory/index.ts';
import { likeLetters } from '../platform/db/like.ts';
import type { Scope } from '../platform/scope.ts';
import { schedulesFound } from '../schedules/index.ts';

type Found = z.output<(typeof findEndpoints)['find']['answer']>;

/** Texts are looked through from word to word: "pay run" is in "Payroll run". */
export async function find(scope: Scope, q: string): Promise<Found> {
  const words = plainWords(q).filter(Boolean);
  if (words.length === 0) return { templates: [], clients: [], assets: [], schedules: [] };
  const patterns = words.map((word) => `%${likeLetters(word)}%`);
  const [templates, clients, assets, schedules] = await Promise.all([
    scope.sql<Found['templates'][number]>(
      `select id, name, coalesce(category, 'template') as detail from template
       where workspace_id = $1 and archived_at is null
         and plain_words(concat_ws(' ', name, category)) like all ($2::text[])
       order by lower(name), id limit ${MOST_FOUND}`,
      [patterns],
    ),
    clientsFound(scope, words, MOST_FOUND),
    ownAssetsFound(scope, words, MOST_FOUND),
    schedulesFound(scope, words, MOST_FOUND),
  ]);
  return {
    templates,
    clients,
    assets,
    schedules: schedules.map(({ row, phrase }) => ({
      id: row.id,
      name: [row.templateName, row.assetName ?? row.clientName].filter(Boolean).join(', '),
      detail: [row.assetName === null ? null : row.clientName, phrase].filter(Boolean).join(', '),
    })),
  };
}
