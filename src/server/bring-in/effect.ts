import { ALIKE_CHOICES, type RowFate } from '../../contract/index.ts';
import type { BringKind } from '../../core/index.ts';
import type { BringInRow } from './entity.ts';

/** What becomes of a line, with what was chosen for it, or what is usual. */
export function effectOf(kind: BringKind, { fate, choice }: Pick<BringInRow, 'fate' | 'choice'>): RowFate {
  if (fate !== 'alike') return fate === 'unread' ? 'left' : fate;
  const chosen = choice ?? ALIKE_CHOICES[kind][0];
  return chosen === 'add' ? 'new' : chosen;
}

/** The same in SQL. */
export const effectIn = (kind: BringKind): string => {
  const chosen = `coalesce(choice, '${ALIKE_CHOICES[kind][0]}')`;
  return `(case when fate = 'alike' then (case ${chosen} when 'add' then 'new' else ${chosen} end)
    when fate = 'unread' then 'left' else fate end)`;
};
