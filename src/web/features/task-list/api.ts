import { useCallback } from 'react';
import { taskListAddresses } from '../../../contract/addresses.ts';
import {
  GROUPS_A_PAGE,
  type ListedTask,
  type TaskColumn,
  type TaskFilter,
  type TaskGrouping,
  type TaskOrder,
  type TaskView,
  type TaskViewInput,
} from '../../../contract/index.ts';
import { sayDone } from '../../app/shell/toast.tsx';
import { useAnswer, useRefresh } from '../../kit/answer.ts';
import { type Answer, addressOf, ask } from '../../kit/api.ts';
import { usePages } from '../../kit/pages.ts';
import { besideOf } from './columns.tsx';

/** A task as far as it is needed to do something with it. */
export interface Choosable {
  readonly id: string;
  readonly version: number;
  readonly minutes: number;
}

/** Those of one group alone. */
export interface OfGroup {
  readonly by: TaskGrouping;
  readonly key: string;
}

export const useTaskSums = (filter: TaskFilter) => useAnswer(taskListAddresses.sums, { query: filter });

/** The lines that fit, as far down as they are looked at. */
export function useTaskLines(
  filter: TaskFilter,
  order: TaskOrder,
  columns: readonly TaskColumn[],
  group: OfGroup | null = null,
) {
  type Page = Answer<typeof taskListAddresses.lines>;
  const { pages, last, ...list } = usePages<Page>((before) =>
    before?.more === null
      ? null
      : addressOf(taskListAddresses.lines, {
          query: { ...filter, order, ...besideOf(columns), ...group, ...(before?.more ? { after: before.more } : {}) },
        }),
  );
  return {
    ...list,
    lines: pages.flatMap(({ lines }): readonly ListedTask[] => lines),
    isHere: pages.length > 0,
    isMore: last !== undefined && last.more !== null,
  };
}

/** Groups of those that fit, page by page. */
export function useTaskGroups(filter: TaskFilter, by: TaskGrouping, order: TaskOrder, columns: readonly TaskColumn[]) {
  const { pages, last, ...list } = usePages<Answer<typeof taskListAddresses.groups>>((before) => {
    const start = before === null ? 0 : before.start + GROUPS_A_PAGE;
    if (before !== null && start >= before.count) return null;
    return addressOf(taskListAddresses.groups, { query: { ...filter, by, order, ...besideOf(columns), start } });
  });
  const groups = pages.flatMap((page) => page.groups);
  return { ...list, groups, count: last?.count, isMore: last !== undefined && groups.length < last.count };
}

export const useViews = () => useAnswer(taskListAddresses.views, {});

/** What can be done with views; each throws a ProblemError when it is refused. */
export function useViewActions() {
  const refresh = useRefresh();
  const params = ({ id }: TaskView) => ({ params: { viewId: id } });
  return {
    /** @returns its id */
    keep: async (input: TaskViewInput): Promise<string> => {
      const { id } = await ask(taskListAddresses.keepView, { body: input });
      await refresh('/task-list/views');
      sayDone(`Kept as “${input.name}”.`, null);
      return id;
    },
    change: async (view: TaskView, other: Partial<TaskViewInput>) => {
      const { name, filter, by, order, columns, isShared, version } = view;
      const body = { name, filter, by, order, columns, isShared, ...other, version };
      await ask(taskListAddresses.changeView, { ...params(view), body });
      await refresh('/task-list/views');
      if (other.isShared === undefined) sayDone(`“${name}” is kept as it is now.`, null);
      else sayDone(other.isShared ? `Everybody has “${name}” now.` : `“${name}” is yours alone again.`, null);
    },
    drop: async (view: TaskView) => {
      await ask(taskListAddresses.dropView, params(view));
      await refresh('/task-list/views');
      sayDone(`“${view.name}” is dropped: what it shows stays in the list as words.`, null);
    },
  };
}

/** All that fit, as far as something can be done with them at once. @throws ProblemError */
export function useAllFitting(filter: TaskFilter, order: TaskOrder) {
  return useCallback(() => ask(taskListAddresses.chosen, { query: { ...filter, order } }), [filter, order]);
}
