import { givenTo } from '../../../core/index.ts';

/** A draft that was kept before schedules and templates had a rule of who does it said a person. */
export function withRule(kept: unknown): unknown {
  const isOlder = typeof kept === 'object' && kept !== null && 'assigneeId' in kept && !('assignment' in kept);
  if (!isOlder) return kept;
  const { assigneeId, ...others } = kept;
  return { ...others, assignment: givenTo(typeof assigneeId === 'string' ? assigneeId : null) };
}
