import type { CallQuota } from '../../../contract/index.ts';
import { type CivilDay, dayOfIso, type QuotaTerms } from '../../../core/index.ts';
import { sayDate } from '../../kit/ways.ts';

const PER = { day: 'a working day', week: 'a week', month: 'a month' } as const;

/** "55 calls a week for each berth adviser, by their hours" */
export function sayAmount({ amount, group }: QuotaTerms): string {
  const who =
    group.of === 'role' ? `each ${group.role}` : group.ids.length === 1 ? 'one person' : `each of ${group.ids.length}`;
  return `${amount.count} ${amount.count === 1 ? 'call' : 'calls'} ${PER[amount.per]} for ${who}${amount.share === 'hours' ? ', by their hours' : ''}`;
}

/** "from 1 Jan: 15 calls a working day for each adviser", of all that comes into force later. */
export function sayComing({ startsOn, terms }: CallQuota, today: CivilDay): string[] {
  return terms
    .filter(({ from }) => from > startsOn && dayOfIso(from) > today)
    .map(({ from, says }) => `from ${sayDate(dayOfIso(from))}: ${sayAmount(says)}`);
}
