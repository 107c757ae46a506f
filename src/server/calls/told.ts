import { type CivilDay, dayOfIso, sayPool, termsOn } from '../../core/index.ts';
import type { Office, Told } from '../messages/index.ts';
import type { Scope } from '../platform/scope.ts';
import { poolLeft } from './look.ts';
import { CallQuota } from './stored/index.ts';

/** So far ahead it is told that a pool runs dry. */
const TOLD_DAYS = 7;

/** Pools that have too few for the lists of the coming week; of today that is told with the lists. */
export async function poolsToTell(scope: Scope, office: Office): Promise<Told[]> {
  const { day } = scope.now;
  const told: Told[] = [];
  for (const quota of await scope.find(CallQuota)) {
    const terms = termsOn(quota, day);
    if (terms === null || isOver(quota, day)) continue;
    const { dryOn } = await poolLeft(scope, quota, terms);
    if (dryOn === null || dayOfIso(dryOn) <= day || dayOfIso(dryOn) > day + TOLD_DAYS) continue;
    const words = sayPool(quota.name, { on: dryOn, short: 0, names: [] }, office.telling(scope));
    for (const personId of office.answering('pool'))
      told.push({
        ...{ personId, side: 'gave', kind: 'pool', times: 1, taskId: null, byId: null, ...words },
        path: `/calls/quotas/${quota.id}`,
      });
  }
  return told;
}

const isOver = ({ endsOn }: CallQuota, day: CivilDay): boolean => endsOn !== null && dayOfIso(endsOn) < day;
