import type { Scope } from '../platform/scope.ts';
import type { BringIn, BringInRow } from './entity.ts';

/** Lines that are read and held against what is here in one go. */
const AT_ONCE = 500;

/** Lines of a file in their order, so many at a time: memory holds no more of them, however many there are. */
export async function* pagesOf(
  scope: Scope,
  { id }: Pick<BringIn, 'id'>,
  fields = 'number, cells',
  order: 'asc' | 'desc' = 'asc',
): AsyncGenerator<BringInRow[]> {
  for (let after: number | null = null; ; ) {
    const rows: BringInRow[] = await scope.sql<BringInRow>(
      `select ${fields} from bring_in_row where workspace_id = $1 and bring_in_id = $2
         and ($3::integer is null or number ${order === 'asc' ? '>' : '<'} $3) order by number ${order} limit ${AT_ONCE}`,
      [id, after],
    );
    if (rows.length === 0) return;
    yield rows;
    after = rows.at(-1)?.number ?? after;
  }
}

/** Keeps what was written of lines, so that it can be taken out again. */
export const keepWritten = (
  scope: Scope,
  { id }: Pick<BringIn, 'id'>,
  written: readonly { readonly number: number; readonly before: object }[],
) =>
  scope.sql(
    `update bring_in_row r set before = now.before from jsonb_to_recordset($3::jsonb) as now (number integer, before jsonb)
     where r.workspace_id = $1 and r.bring_in_id = $2 and r.number = now.number`,
    [id, JSON.stringify(written)],
  );
