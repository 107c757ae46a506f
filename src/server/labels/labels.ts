import type { Response } from 'express';
import type { LabelSize } from '../../core/index.ts';
import { plural } from '../../core/index.ts';
import { sendPaper } from '../platform/pdf.ts';
import { invalid, notFound } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { type Label, labelsPdf } from './pdf.ts';

interface Asked {
  readonly assets: string;
  readonly size: LabelSize;
  readonly first: number;
}

/** The labels of assets, in the order in which they were asked for. @throws Refusal where one is gone, or has no tag */
async function labelsOf(scope: Scope, ids: readonly string[]): Promise<Label[]> {
  const rows = await scope.sql<{ id: string; name: string; tag: string | null; beside: string }>(
    `select a.id, a.name, a.tag, coalesce(c.name, concat_ws(', ', site.name, nullif(nullif(a.place, ''), site.name)), '') as beside
     from asset a left join client c on c.workspace_id = a.workspace_id and c.id = a.client_id
     left join asset site on site.workspace_id = a.workspace_id and site.id = a.site_id
     where a.workspace_id = $1 and a.id = any($2::uuid[])`,
    [ids],
  );
  const byId = new Map(rows.map((row) => [row.id, row]));
  const untagged = rows.filter(({ tag }) => tag === null);
  if (untagged.length > 0) {
    const names = untagged.slice(0, 3).map(({ name }) => `“${name}”`);
    const some = `${names.join(', ')}${untagged.length > names.length ? ` and ${untagged.length - names.length} more` : ''}`;
    throw invalid([
      {
        path: 'assets',
        message: `${plural(untagged.length, 'asset has', 'assets have')} no tag yet: ${some}. Give ${untagged.length === 1 ? 'it' : 'them'} one first.`,
      },
    ]);
  }
  return ids.map((id) => {
    const row = byId.get(id);
    if (!row || row.tag === null) throw notFound('asset');
    return { name: row.name, tag: row.tag, beside: row.beside };
  });
}

/** Sends the sheets as they are drawn. */
export async function sendLabels(scope: Scope, { assets, size, first }: Asked, response: Response): Promise<void> {
  const ids = [...new Set(assets.split(','))];
  const document = await labelsPdf(await labelsOf(scope, ids), { size, first, by: scope.workspace.name });
  sendPaper(response, document, 'labels.pdf');
}
