import { type DragEvent, type ReactNode, useRef, useState } from 'react';
import type { TaskDeed, TaskLine } from '../../../contract/index.ts';
import { dayOfIso, isoOfDay } from '../../../core/index.ts';
import { sayTrouble } from '../../app/shell/toast.tsx';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { useRefresh } from '../../kit/answer.ts';
import { sayDay } from '../../kit/ways.ts';
import { useLookedAt } from '../impact/looked-at.tsx';
import { useTaskActions } from '../tasks/api.ts';
import { type Group, hoursOf, workOf } from './workload-words.ts';

/** A task on its way from one cell to another. */
interface Carried {
  readonly task: TaskLine;
  readonly personId: string | null;
  readonly day: string;
}

export interface Carrying {
  readonly begin: (carried: Carried | null) => void;
  /** Whether it can be put into a cell: on the same day to somebody else, or with whoever has it on another day to come. */
  readonly takes: (personId: string | null, day: string) => boolean;
  readonly over: (event: DragEvent, personId: string | null, day: string) => void;
  readonly drop: (personId: string | null, day: string) => void;
  /** What is asked before it is done, and what it would come to while it is held over a cell. */
  readonly dialog: ReactNode;
}

interface Asked {
  readonly what: string;
  readonly deed: TaskDeed;
  readonly task: TaskLine;
  readonly done: string;
}

/** Carries a task to another person or another day: what that changes is shown before it is done. */
export function useCarrying(groups: readonly Group[], starts: readonly string[]): Carrying {
  const { today } = useWorkspace();
  const refresh = useRefresh();
  const { impactOfSeveral, changeSeveral } = useTaskActions();
  const [carried, setCarried] = useState<Carried | null>(null);
  // Written to as it is carried along: thousands of cells are not drawn anew at each step of the pointer.
  const hint = useRef<HTMLDivElement>(null);
  const { look, dialog } = useLookedAt<Asked>({
    impactOf: ({ deed, task }) => impactOfSeveral([task], deed),
    save: async ({ deed, task, done }) => {
      await changeSeveral([task], deed, () => done);
      await refresh('/workload');
    },
    hasReach: false,
    onRefused: sayTrouble,
  });
  const takes = (personId: string | null, day: string) =>
    carried !== null && day >= isoOfDay(today) && (carried.personId === personId) !== (carried.day === day);
  const rowOf = (id: string | null) =>
    groups.flatMap(({ rows }) => rows).find(({ person }) => (person?.id ?? null) === id);
  const nameOf = (id: string | null) => rowOf(id)?.person?.name ?? 'nobody yet';
  const say = (words: string, x = 0, y = 0) => {
    const box = hint.current;
    if (!box) return;
    box.hidden = words === '';
    box.textContent = words;
    box.style.left = `${Math.min(x + 14, window.innerWidth - 340)}px`;
    box.style.top = `${Math.min(y + 12, window.innerHeight - 44)}px`;
  };
  const begin = (next: Carried | null) => {
    setCarried(next);
    say('');
  };
  return {
    begin,
    takes,
    over(event, personId, day) {
      if (!carried || !takes(personId, day)) return say('');
      event.preventDefault();
      const cell = rowOf(personId)?.cells[starts.indexOf(day)];
      const before = cell ? workOf(cell) : 0;
      const to = carried.day === day ? nameOf(personId) : sayDay(dayOfIso(day), today);
      const hours = `${hoursOf(before)} → ${hoursOf(before + carried.task.estimateMinutes)} h`;
      say(`${carried.task.title} to ${to}, ${hours}`, event.clientX, event.clientY);
    },
    drop(personId, day) {
      const isTaken = takes(personId, day);
      begin(null);
      if (!carried || !isTaken) return;
      const { task } = carried;
      if (carried.day === day) {
        const to = nameOf(personId);
        look({
          ...{ task, what: `${task.title}: given to ${to}` },
          ...{ deed: { kind: 'give', personId }, done: `“${task.title}” is given to ${to}.` },
        });
      } else {
        const to = sayDay(dayOfIso(day), today);
        const by = { amount: dayOfIso(day) - dayOfIso(carried.day), unit: 'day' as const };
        look({
          ...{ task, what: `${task.title}: moved to ${to}` },
          ...{ deed: { kind: 'move', by }, done: `“${task.title}” is moved to ${to}.` },
        });
      }
    },
    dialog: (
      <>
        {dialog}
        <div
          ref={hint}
          hidden
          className="pointer-events-none fixed z-30 border border-ink bg-base-100 px-2.5 py-1 text-row shadow-sm"
          role="status"
        />
      </>
    ),
  };
}
