import { type ServerJob, sayServerTrouble } from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import { toAnswering } from './happenings.ts';
import { Office } from './office.ts';
import { tell } from './telling.ts';

/** Tells those who answer for all work that the server fails at something again and again, with what to do meanwhile. */
export async function tellTrouble(scope: Scope, job: ServerJob, times: number): Promise<void> {
  const office = await Office.of(scope);
  await tell(scope, office, toAnswering(office, 'run', sayServerTrouble(job, times)));
}
