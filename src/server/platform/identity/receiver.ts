import { hasLeftBy } from '../../../core/index.ts';
import { invalid, notFound } from '../refusal.ts';
import type { Scope } from '../scope.ts';
import { Person } from './person.ts';

/**
 * Whoever is given work is here: it would lie with somebody who has left and be seen by nobody. What they have already may
 * stay with them.
 * @param before who has it now
 * @throws Refusal where there is no such person, or they have left
 */
export async function mustReceive(
  scope: Scope,
  personId: string | null,
  { before = null, path = 'assigneeId' }: { readonly before?: string | null; readonly path?: string } = {},
): Promise<void> {
  if (personId === null || personId === before) return;
  const [person] = await scope.find(Person, { id: personId });
  if (!person) throw notFound('person');
  if (hasLeftBy(person, scope.now.day))
    throw invalid([{ path, message: `${person.name} has left: give it to somebody else.` }]);
}
