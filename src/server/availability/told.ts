import { isoOfDay, sayShiftGaps } from '../../core/index.ts';
import type { Office, Told } from '../messages/index.ts';
import type { Scope } from '../platform/scope.ts';
import { shiftGaps } from './gaps.ts';

/** So far ahead it is told that nobody is on shift for work that wants somebody. */
const TOLD_DAYS = 7;

/** Work of the coming days for those on shift, of whom nobody is, in one line. */
export async function gapsToTell(scope: Scope, office: Office): Promise<Told[]> {
  const until = isoOfDay(scope.now.day + TOLD_DAYS);
  const gaps = (await shiftGaps(scope)).flatMap((gap) => {
    const days = gap.days.filter((on) => on <= until);
    return days.length === 0 ? [] : [{ ...gap, days }];
  });
  if (gaps.length === 0) return [];
  const words = sayShiftGaps(gaps, office.telling(scope));
  return office.answering('shift').map((personId) => ({
    ...{ personId, side: 'gave', kind: 'shift', times: gaps.length, taskId: null, byId: null, ...words },
    path: '/team',
  }));
}
