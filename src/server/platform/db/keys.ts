import { ForeignKey } from 'typeorm';
import { columnName } from './naming.ts';

/** Says the keys of a table as the migrations have named them, so that TypeORM finds no difference between the two. */

/** A table of a workspace, which goes with it. */
export function OfWorkspace(table: string): ClassDecorator {
  return ForeignKey('Workspace', ['workspaceId'], ['id'], {
    name: `${table}_workspace_id_fkey`,
    onDelete: 'CASCADE',
  });
}

/** Fields that name a row of another table of the same workspace. */
export function Names(
  table: string,
  entity: string,
  fields: readonly string[],
  { onDelete, name }: { readonly onDelete?: 'CASCADE' | 'SET NULL'; readonly name?: string } = {},
): ClassDecorator {
  return (target) => {
    for (const field of fields)
      ForeignKey(entity, ['workspaceId', field], ['workspaceId', 'id'], {
        name: name ?? `${table}_workspace_id_${columnName(field)}_fkey`,
        ...(onDelete ? { onDelete } : {}),
      })(target);
  };
}
