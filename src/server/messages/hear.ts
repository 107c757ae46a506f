import type { Scope } from '../platform/scope.ts';
import { tellNoted } from './noted.ts';
import { type Morning, tellOfTime } from './of-time.ts';
import { mailMessages } from './sending.ts';

/**
 * Tells everybody what there is to tell by now, and mails what may leave. @returns how many mails
 * @param mornings what features above this one have to tell on the morning of a working day
 */
export async function hear(scope: Scope, origin: string, mornings: readonly Morning[] = []): Promise<number> {
  while (await tellNoted(scope));
  await tellOfTime(scope, mornings);
  return mailMessages(scope, origin);
}
