import type { z } from 'zod';
import { type findEndpoints, MOST_FOUND } from '../../contract/index.ts';
import { plainWords } from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import { readableSchedule, scheduleRows } from '../schedules/schedule-row.ts';
import { phrasesOf } from '../schedules/service.ts';

type Found = z.output<(typeof findEndpoints)['find']['answer']>;

/** Texts are looked through from word to word: "pay run" is in "Payroll run". */
export async function find(scope: Scope, q: string): Promise<Found> {
  const words = plainWords(q).filter(Boolean);
  if (words.length === 0) return { templates: [], clients: [], schedules: [] };
  const patterns = words.map((word) => `%${word.replace(/[\\%_]/g, '\\$&')}%`);
  const [templates, clients, schedules] = await Promise.all([
    scope.sql<Found['templates'][number]>(
      `select id, name, coalesce(category, 'template') as detail from template
       where workspace_id = $1 and archived_at is null
         and plain_words(concat_ws(' ', name, category)) like all ($2::text[])
       order by lower(name), id limit ${MOST_FOUND}`,
      [patterns],
    ),
    scope.sql<Found['clients'][number]>(
      `select id, name, 'start something for' as detail from client
       where workspace_id = $1 and ' ' || words like all ($2::text[]) order by words, id limit ${MOST_FOUND}`,
      [patterns],
    ),
    scope.sql<{ id: string }>(
      `select s.id from schedule s
       join template t on t.workspace_id = s.workspace_id and t.id = s.template_id
       left join client c on c.workspace_id = s.workspace_id and c.id = s.client_id
       left join asset a on a.workspace_id = s.workspace_id and a.id = s.asset_id
       where s.workspace_id = $1 and s.deleted_at is null
         and concat_ws(' ', lower(t.name), c.words, a.words) like all ($2::text[])
       order by lower(t.name), s.id limit ${MOST_FOUND}`,
      [patterns],
    ),
  ]);
  const rows = schedules.length === 0 ? [] : await scheduleRows(scope, { ids: schedules.map(({ id }) => id) });
  return {
    templates,
    clients,
    schedules: rows.map((row) => ({
      id: row.id,
      name: [row.templateName, row.assetName ?? row.clientName].filter(Boolean).join(', '),
      detail: [row.assetName === null ? null : row.clientName, phrasesOf(scope, readableSchedule(scope, row)).phrase]
        .filter(Boolean)
        .join(', '),
    })),
  };
}
