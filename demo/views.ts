import type { TaskFilter, TaskGrouping } from '../src/contract/index.ts';
import type { Scope } from '../src/server/platform/scope.ts';
import { KeptView } from '../src/server/task-list/index.ts';

interface DemoView {
  readonly of: string;
  readonly name: string;
  readonly filter: TaskFilter;
  readonly by: TaskGrouping | null;
  readonly isShared?: true;
}

/** What the manager looks at in the morning, and what the yard lead shares. */
export const VIEWS: readonly DemoView[] = [
  { of: 'ines', name: 'Late', filter: { are: 'late' }, by: 'person' },
  { of: 'ines', name: 'Nobody yet', filter: { are: 'unfinished', person: 'none', due: 'month' }, by: 'day' },
  { of: 'ines', name: 'To check', filter: { are: 'toCheck' }, by: null },
  {
    ...{ of: 'bram', name: 'Lifts and slings', filter: { are: 'unfinished', category: 'lifting', due: 'month' } },
    ...{ by: 'asset', isShared: true },
  },
];

export async function addViews(scope: Scope, people: ReadonlyMap<string, string>): Promise<void> {
  for (const { of, isShared = false, ...view } of VIEWS)
    await scope.insert(KeptView, {
      ...view,
      ...{ id: scope.newId(), version: 1, personId: people.get(of) as string, order: 'due', columns: null, isShared },
      keptAt: scope.instant,
    });
}
