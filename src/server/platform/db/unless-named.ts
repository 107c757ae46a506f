import { QueryFailedError } from 'typeorm';
import type { Scope } from '../scope.ts';

/** Deletes a row where nothing names it; within another transaction only this is given up. @returns whether it is gone */
export async function deleteUnlessNamed(
  scope: Scope,
  table: 'person' | 'client' | 'asset',
  id: string,
): Promise<boolean> {
  try {
    await scope.transaction((tx) => tx.sql(`delete from ${table} where workspace_id = $1 and id = $2`, [id]));
    return true;
  } catch (error) {
    // PostgreSQL: foreign key violation.
    if (error instanceof QueryFailedError && (error.driverError as { code?: string }).code === '23503') return false;
    throw error;
  }
}
