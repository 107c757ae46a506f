import { QueryFailedError } from 'typeorm';

/** Whether the database gave work up because it and another were waiting for each other (PostgreSQL: deadlock detected, serialization failure). */
export function isDeadlock(error: unknown): boolean {
  if (!(error instanceof QueryFailedError)) return false;
  const { code } = error.driverError as { code?: string };
  return code === '40P01' || code === '40001';
}

/** Whether a question was given up because it took too long, or waited too long for others. */
export function isOvertime(error: unknown): boolean {
  if (!(error instanceof QueryFailedError)) return false;
  const { code } = error.driverError as { code?: string };
  return code === '57014' || code === '55P03';
}
