import type { PersonInput } from '../../contract/index.ts';
import { changeMember, type SavedMember } from '../people/index.ts';
import type { Scope } from '../platform/scope.ts';
import { everybody, followPeople } from './following.ts';

/** A change of a person, and work that nobody has seen with whoever has it then. */
export function changePerson(
  scope: Scope,
  id: string,
  input: PersonInput & { readonly version: number },
): Promise<SavedMember> {
  return scope.transaction(async (tx) => {
    const before = await everybody(tx);
    const saved = await changeMember(tx, id, input);
    if (saved.changeId !== null) {
      await followPeople(tx, [id], before, null);
      await tx.tell('schedules', 'tasks');
    }
    return saved;
  });
}
