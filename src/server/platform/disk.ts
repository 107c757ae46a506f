import { QueryFailedError } from 'typeorm';

/** Whether an error says that there is no room left: for files, or for the database (PostgreSQL: disk full). */
export function isDiskFull(error: unknown): boolean {
  const cause = error instanceof QueryFailedError ? (error.driverError as unknown) : error;
  return cause instanceof Error && 'code' in cause && (cause.code === 'ENOSPC' || cause.code === '53100');
}

/** Managers are told of a full disk until nothing was refused for it for so long. */
const TOLD_MS = 15 * 60_000;
let fullAt = Number.NEGATIVE_INFINITY;

export function noteDiskFull(): void {
  fullAt = Date.now();
}

export function isDiskKnownFull(): boolean {
  return Date.now() - fullAt < TOLD_MS;
}
