import type { AssignmentRule, Group } from './assignment.ts';

/** Of whom somebody is meant where nobody is named: no people by name. */
export type UnnamedGroup = Exclude<Group, { of: 'people' }>;

/**
 * Who does the work of a template where its schedule does not say otherwise. Turns and lists begin on a date, so they are a
 * schedule's own.
 */
export type DefaultRule =
  | Extract<AssignmentRule, { kind: 'nobody' | 'person' | 'usualPerson' | 'client' }>
  | { readonly v: 1; readonly kind: 'anyOf' | 'leastToDo'; readonly group: UnnamedGroup }
  | { readonly v: 1; readonly kind: 'eachOf'; readonly group: UnnamedGroup; readonly daysOffToo: boolean };

/** The same with somebody else, or nobody, in the place of one person. */
export function defaultHandedOn(rule: DefaultRule, from: string, to: string | null): DefaultRule {
  if (rule.kind === 'person' && rule.personId === from)
    return to === null ? { v: 1, kind: 'nobody' } : { ...rule, personId: to };
  if (rule.kind === 'usualPerson' && rule.otherwiseId === from) return { ...rule, otherwiseId: to };
  return rule;
}
