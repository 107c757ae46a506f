import type { Scope } from '../scope.ts';
import { insertedColumns } from './columns.ts';

/** Rows of a statement: more at once would keep others waiting while they are written out. */
const AT_ONCE = 250;

/** Whole rows of an entity into its table, in few statements however many there are; what the database keeps itself stays out. */
export async function insertRows<Row extends object>(
  scope: Scope,
  table: string,
  entity: new () => Row,
  rows: readonly Omit<Row, 'workspaceId'>[],
): Promise<void> {
  const columns = insertedColumns(entity);
  const names = columns.map(({ column }) => column).join(', ');
  for (let at = 0; at < rows.length; at += AT_ONCE) {
    const some = rows.slice(at, at + AT_ONCE).map((row) => {
      const whole: Record<string, unknown> = { ...row, workspaceId: scope.workspace.id };
      return Object.fromEntries(columns.map(({ field, column }) => [column, whole[field]]));
    });
    await scope.sql(
      `insert into ${table} (${names}) select ${names} from jsonb_populate_recordset(null::${table}, $2::jsonb)
       where workspace_id = $1`,
      [JSON.stringify(some)],
    );
  }
}
