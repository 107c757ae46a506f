import { BRING_RIGHTS, BRING_WORDS, type BringKind, sayWhoMayAll } from '../../core/index.ts';
import { forbidden } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';

/** @throws Refusal in words to whoever may not bring in lists of a kind */
export function mustBeAllowed(scope: Scope, kind: BringKind): void {
  const right = BRING_RIGHTS[kind];
  if (!scope.mayAll(right)) throw forbidden(`Only ${sayWhoMayAll(right)} can bring in ${BRING_WORDS[kind].many}.`);
}
