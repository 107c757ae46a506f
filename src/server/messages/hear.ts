import type { Scope } from '../platform/scope.ts';
import { tellNoted } from './noted.ts';
import { tellOfTime } from './of-time.ts';
import { mailMessages } from './sending.ts';

/** Tells everybody what there is to tell by now, and mails what may leave. @returns how many mails */
export async function hear(scope: Scope, origin: string): Promise<number> {
  while (await tellNoted(scope));
  await tellOfTime(scope);
  return mailMessages(scope, origin);
}
