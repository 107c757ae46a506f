import { type Assignment, type NamedPerson, NOBODY_YET, NOT_HERE, sayGroup } from '../../../core/index.ts';

/** Who has a date, by name; of several any one of whom may take it, all of them. */
export function sayWho(assignment: Assignment, people: readonly NamedPerson[]): string {
  switch (assignment.kind) {
    case 'one':
      return people.find(({ id }) => id === assignment.personId)?.name ?? NOT_HERE;
    case 'anyOf':
      return `any of ${sayGroup(assignment.group, { people })}`;
    case 'eachOf':
      return `each of ${sayGroup(assignment.group, { people })}`;
    case 'nobody':
      return assignment.why === null ? NOBODY_YET : 'nobody';
  }
}
