import { useCallback } from 'react';
import { taskListAddresses } from '../../../contract/addresses.ts';
import {
  GROUPS_A_PAGE,
  type TaskFilter,
  type TaskGrouping,
  type TaskLine,
  type TaskOrder,
} from '../../../contract/index.ts';
import { useAnswer } from '../../kit/answer.ts';
import { type Answer, addressOf, ask } from '../../kit/api.ts';
import { usePages } from '../../kit/pages.ts';

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
export function useTaskLines(filter: TaskFilter, order: TaskOrder, group: OfGroup | null = null) {
  type Page = Answer<typeof taskListAddresses.lines>;
  const { pages, last, ...list } = usePages<Page>((before) =>
    before?.more === null
      ? null
      : addressOf(taskListAddresses.lines, {
          query: { ...filter, order, ...group, ...(before?.more ? { after: before.more } : {}) },
        }),
  );
  return {
    ...list,
    lines: pages.flatMap(({ lines }): readonly TaskLine[] => lines),
    isHere: pages.length > 0,
    isMore: last !== undefined && last.more !== null,
  };
}

/** Groups of those that fit, page by page. */
export function useTaskGroups(filter: TaskFilter, by: TaskGrouping, order: TaskOrder) {
  const { pages, last, ...list } = usePages<Answer<typeof taskListAddresses.groups>>((before) => {
    const start = before === null ? 0 : before.start + GROUPS_A_PAGE;
    if (before !== null && start >= before.count) return null;
    return addressOf(taskListAddresses.groups, { query: { ...filter, by, order, start } });
  });
  const groups = pages.flatMap((page) => page.groups);
  return { ...list, groups, count: last?.count, isMore: last !== undefined && groups.length < last.count };
}

/** All that fit, as far as something can be done with them at once. @throws ProblemError */
export function useAllFitting(filter: TaskFilter, order: TaskOrder) {
  return useCallback(() => ask(taskListAddresses.chosen, { query: { ...filter, order } }), [filter, order]);
}
