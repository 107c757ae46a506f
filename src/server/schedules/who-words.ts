import { type AssignmentRule, type NamedPerson, sayRule } from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';

/** Says of rules who does it. */
export async function whoWords(scope: Scope): Promise<(rule: AssignmentRule) => string> {
  const people: NamedPerson[] = [...(await scope.peopleNames())].map(([id, name]) => ({ id, name }));
  const { day: today } = scope.now;
  return (rule) => sayRule(rule, { today, people });
}
