import { type Assignment, callNames, type NamedPerson, NOBODY_YET, NOT_HERE, sayGroup } from '../../../core/index.ts';

/** Who has a date, by name; of several any one of whom may take it, all of them. */
export function sayWho(assignment: Assignment, people: readonly NamedPerson[]): string {
  switch (assignment.kind) {
    case 'one':
      return people.find(({ id }) => id === assignment.personId)?.name ?? NOT_HERE;
    case 'anyOf':
      return sayOnShift(assignment, people) ?? `any of ${sayGroup(assignment.group, { people })}`;
    case 'eachOf':
      return `each of ${sayGroup(assignment.group, { people })}`;
    case 'client':
      return 'the client’s own contact';
    case 'nobody':
      return assignment.why === null ? NOBODY_YET : 'nobody';
  }
}

/** So many of those on shift are named. */
const NAMED_ON_SHIFT = 3;

/** "Kit, Tamsin or Wilf": those on shift then, where there are few; null where it is not about those. */
function sayOnShift(
  { group, personIds }: Extract<Assignment, { kind: 'anyOf' }>,
  people: readonly NamedPerson[],
): string | null {
  if (group.of !== 'role' || !group.onShift || personIds.length > NAMED_ON_SHIFT) return null;
  const called = callNames(people);
  const names = personIds.map((id) => called.get(id) ?? NOT_HERE);
  const last = names.pop();
  if (last === undefined) return 'nobody on shift';
  return names.length === 0 ? last : `${names.join(', ')} or ${last}`;
}
