import type { SeededRandom } from './random.ts';

/** How a task of the past went. */
export type Outcome =
  | { readonly kind: 'done'; readonly daysLate: number }
  | { readonly kind: 'skipped'; readonly reason: string }
  | { readonly kind: 'lapsed' }
  | { readonly kind: 'underWay' }
  | { readonly kind: 'open' };

const REASONS = [
  'Weather: too much wind to be out there.',
  'Closed that day.',
  'Done by the contractor the day before.',
  'Owner away, moved to next month.',
];

/** Most work is done on its day; some late, some skipped, some overtaken by the next; a little of the last days is still open. */
export function outcomeOf(random: SeededRandom, daysAgo: number, recursWithinDays: number): Outcome {
  const roll = random.next();
  if (daysAgo <= 5) {
    if (roll < 0.07) return { kind: 'open' };
    if (roll < 0.09) return { kind: 'underWay' };
    return { kind: 'done', daysLate: roll > 0.97 && daysAgo >= 2 ? 1 : 0 };
  }
  if (roll < 0.03) return { kind: 'skipped', reason: random.pick(REASONS) };
  if (roll < 0.05) return recursWithinDays <= 31 ? { kind: 'lapsed' } : { kind: 'done', daysLate: 3 };
  if (roll < 0.12) return { kind: 'done', daysLate: random.whole(1, 3) };
  return { kind: 'done', daysLate: 0 };
}
