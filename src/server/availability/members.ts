import type { PersonInput } from '../../contract/index.ts';
import { type CivilDay, daysOfOtherHours, type ShiftChange } from '../../core/index.ts';
import { changeMember, type SavedMember } from '../people/index.ts';
import { Person } from '../platform/identity/person.ts';
import type { Scope } from '../platform/scope.ts';
import { everybody, followPeople, type Span } from './following.ts';

/**
 * A change of a person, and work that nobody has seen with whoever has it then; that of single days whose hours are others goes
 * too where it shows.
 */
export function changePerson(
  scope: Scope,
  id: string,
  input: PersonInput & { readonly version: number },
): Promise<SavedMember> {
  return scope.transaction(async (tx) => {
    const before = await everybody(tx);
    const { shiftChanges } = await tx.one(Person, id, 'person');
    const saved = await changeMember(tx, id, input);
    if (saved.changeId !== null) {
      await followPeople(tx, [id], before, singleDays(shiftChanges, input.shiftChanges, tx.now.day));
      await tx.tell('schedules', 'tasks');
    }
    return saved;
  });
}

/** Days from today on whose own hours are others than before, each a span of its own. */
export function singleDays(before: readonly ShiftChange[], now: readonly ShiftChange[], today: CivilDay): Span[] {
  return daysOfOtherHours(before, now, today).map((day) => ({ from: day, to: day }));
}
