import type { Logger } from 'pino';
import { QueryFailedError, QueryRunnerAlreadyReleasedError, QueryRunnerProviderAlreadyReleasedError } from 'typeorm';

/** Codes of a database that goes, is gone, or is not back yet: of the network, and of PostgreSQL (class 57 and 08, and too many connections). */
const CONNECTION_LOSS = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  '57P01',
  '57P02',
  '57P03',
  '53300',
  '08006',
  '08001',
  '08003',
]);

/** Whether an error says that the database does not answer, rather than that something was wrong with the question. */
export function isConnectionLoss(error: unknown): boolean {
  // A connection that breaks between two questions of a transaction is let go before the next one is asked.
  if (error instanceof QueryRunnerAlreadyReleasedError || error instanceof QueryRunnerProviderAlreadyReleasedError)
    return true;
  const cause = error instanceof QueryFailedError ? error.driverError : error;
  if (!(cause instanceof Error)) return false;
  return (
    ('code' in cause && CONNECTION_LOSS.has(String(cause.code))) ||
    /Connection terminated|Client has encountered a connection error/.test(cause.message)
  );
}

const PAUSE_MS = 1000;
const LONGEST_MS = 60 * 60_000;

/**
 * Does work that may be begun again from its start, and again, for as long as the database is away; at most an hour.
 * @throws whatever else goes wrong with it
 */
export async function untilDatabaseAnswers<T>(work: () => Promise<T>, log: Logger): Promise<T> {
  for (const began = Date.now(); ; ) {
    try {
      return await work();
    } catch (error) {
      if (!isConnectionLoss(error) || Date.now() - began > LONGEST_MS) throw error;
      log.warn({ err: error }, 'the database is away: this goes on when it is back');
      await new Promise((resolve) => setTimeout(resolve, PAUSE_MS));
    }
  }
}
