import type { QuotaTerms } from '../../../core/index.ts';

const PER = { day: 'a working day', week: 'a week', month: 'a month' } as const;

/** "55 calls a week for each berth adviser, by their hours" */
export function sayAmount({ amount, group }: QuotaTerms): string {
  const who =
    group.of === 'role' ? `each ${group.role}` : group.ids.length === 1 ? 'one person' : `each of ${group.ids.length}`;
  return `${amount.count} ${amount.count === 1 ? 'call' : 'calls'} ${PER[amount.per]} for ${who}${amount.share === 'hours' ? ', by their hours' : ''}`;
}
