import { dayOfIso, sayDate } from '../../../core/index.ts';
import { invalid } from '../../platform/refusal.ts';
import type { Scope } from '../../platform/scope.ts';

/** Days that a task may be put to by hand, before and after today: what lies farther off is a slip of the fingers. */
const FARTHEST_BACK = 400;
const FARTHEST_ON = 3660;

/** From when a task is seen that is worked on another day: one that is moved ahead of the day it was to be seen is seen by then. */
export const seenFrom = ({ appearsOn }: { readonly appearsOn: string }, workOn: string): string =>
  workOn < appearsOn ? workOn : appearsOn;

/** What is wrong with a day that nobody can have meant; null where there is none. */
export function farDay(
  scope: Scope,
  days: Readonly<Record<string, string>>,
): { readonly path: string; readonly message: string } | null {
  const { day: today } = scope.now;
  for (const [path, date] of Object.entries(days)) {
    const day = dayOfIso(date);
    if (day < today - FARTHEST_BACK || day > today + FARTHEST_ON)
      return {
        path,
        message: `${sayDate(day)} is too far off: a task lies between ${sayDate(today - FARTHEST_BACK)} and ${sayDate(today + FARTHEST_ON)}. Is the year right?`,
      };
  }
  return null;
}

/** @throws Refusal for a day that nobody can have meant */
export function refuseFarDays(scope: Scope, days: Readonly<Record<string, string>>): void {
  const far = farDay(scope, days);
  if (far) throw invalid([far]);
}
