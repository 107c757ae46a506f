import { type AssignmentRule, givenTo, type Offer } from '../assignment/assignment.ts';
import { nameKey } from '../bring-in/people-names.ts';
import type { EntryPerson } from './entry.ts';

/** What somebody is known by in a calendar: their mail, else their name in plain words. */
export const entryPersonKey = ({ name, mail }: EntryPerson): string => mail || nameKey(name);

/** Who of those whom an entry names are here, each once, and the names of the others. */
export function peopleOfEntry(
  people: readonly EntryPerson[],
  meant: ReadonlyMap<string, string | null>,
): { readonly ids: readonly string[]; readonly strangers: readonly string[] } {
  const [ids, strangers] = [new Set<string>(), new Set<string>()];
  for (const person of people) {
    const id = meant.get(entryPersonKey(person)) ?? null;
    if (id !== null) ids.add(id);
    else strangers.add(person.name || person.mail);
  }
  return { ids: [...ids], strangers: [...strangers].filter(Boolean) };
}

/** Who does what repeats: whoever is named, each or any of several. */
export function ruleOfEntry(ids: readonly string[], several: 'each of' | 'any of'): AssignmentRule {
  const [only = null] = ids;
  if (ids.length < 2) return givenTo(only);
  const group = { of: 'people', ids: [...ids] } as const;
  return several === 'each of' ? { v: 1, kind: 'eachOf', group, daysOffToo: true } : { v: 1, kind: 'anyOf', group };
}

/** Who has what stands on one day: one task is one person's, or stands with several until one takes it. */
export function holderOfEntry(ids: readonly string[]): {
  readonly assigneeId: string | null;
  readonly offeredTo: Offer | null;
} {
  const [only = null] = ids;
  return ids.length < 2
    ? { assigneeId: only, offeredTo: null }
    : { assigneeId: null, offeredTo: { of: 'people', ids: [...ids] } };
}

/** What several people have to be told of one task. */
export const ONE_FOR_ANY = 'One task for any of them: each has one of their own only of what repeats';
