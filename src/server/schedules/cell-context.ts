import type { CellContext } from '../../core/index.ts';
import type { Scope } from '../platform/scope.ts';
import { peopleById } from './people-of-input.ts';

/** With what schedules are read and written as the cells of a worksheet: everybody is known, those who have left too. */
export async function cellContext(scope: Scope): Promise<CellContext> {
  const { yearStarts, phraseHabits, seasons, roles, teams } = scope.workspace;
  return {
    today: scope.now.day,
    ...{ roles, teams, yearStarts, habits: phraseHabits, seasons },
    people: [...(await peopleById(scope)).values()],
    calendar: await scope.calendar(),
    plans: null,
  };
}
