import { type ReactNode, useLayoutEffect, useRef } from 'react';
import { useNavigate } from 'react-router';
import type { TaskLine as TaskLineAnswer } from '../../../../contract/index.ts';
import { type CivilDay, tryMinutesOfTime } from '../../../../core/index.ts';
import { useKeys } from '../../../app/shell/keys.tsx';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { useChosen } from '../../../kit/chosen.ts';
import { sayTime } from '../../../kit/ways.ts';
import { useTaskActions } from '../api.ts';
import { finishTask, startTask } from '../deeds.ts';
import { ChosenTasks } from './chosen-tasks.tsx';
import { TaskLine, type TaskLineBand } from './task-line.tsx';

/** The keys that lead from one day to another. */
export function useDayKeys(day: CivilDay, today: CivilDay, goTo: (day: CivilDay) => void): void {
  // The router draws a new address when it is ready; a second press of a key counts from where the first one leads.
  const headed = useRef(day);
  // Before the page is seen: the next press may come as soon as it is.
  useLayoutEffect(() => {
    headed.current = day;
  }, [day]);
  const step = (days: number) => {
    headed.current += days;
    goTo(headed.current);
  };
  useKeys([
    { key: '[', says: 'A day back', run: () => step(-1) },
    { key: ']', says: 'A day on', run: () => step(1) },
    { key: 't', says: 'Today', run: () => goTo(today) },
  ]);
}

interface DayLines {
  /** All that are shown, in their order. */
  readonly shown: readonly TaskLineAnswer[];
  readonly day: CivilDay;
  readonly openTaskId: string | undefined;
  readonly waits: (taskId: string) => boolean;
  readonly addressOf: (taskId: string) => string;
  /** Whether each says who has it. */
  readonly sayWho?: boolean;
}

/** The tasks of a day as lines: opened, started, claimed, finished, and chosen to be changed together. */
export function useDayLines({ shown, day, openTaskId, waits, addressOf, sayWho = false }: DayLines) {
  const { may } = useWorkspace();
  const navigate = useNavigate();
  const { chosen, choose, clear } = useChosen(shown);
  const actions = useTaskActions();
  const act = (task: TaskLineAnswer) => (action: 'start' | 'claim' | 'open' | 'finish') => {
    if (action === 'open') return void navigate(addressOf(task.id));
    if (action === 'claim') return void actions.claim(task.id);
    if (action === 'finish') return void finishTask(task);
    void startTask(task).then((outcome) => {
      if (outcome !== 'refused') void navigate(addressOf(task.id));
    });
  };
  const line = (band: TaskLineBand) => (task: TaskLineAnswer) => (
    <TaskLine
      key={task.id}
      task={task}
      day={day}
      band={band}
      isOpen={task.id === openTaskId}
      waits={waits(task.id)}
      to={addressOf(task.id)}
      sayWho={sayWho}
      onAct={act(task)}
      choosing={
        may('give') ? { isChosen: chosen.includes(task), choose: (how) => choose(shown.indexOf(task), how) } : undefined
      }
    />
  );
  return { line, foot: chosen.length > 0 && <ChosenTasks chosen={chosen} onClear={clear} /> };
}

/** The heading of a band stands beside its first lines; the time of day is written only below it. */
const LINES_BESIDE_THE_HEADING = 3;

/** The lines of today, with a line for now between what has begun and what has not. */
export function withNowLine(
  tasks: readonly TaskLineAnswer[],
  nowMinutes: number,
  line: (task: TaskLineAnswer) => ReactNode,
): ReactNode[] {
  const after = tasks.findIndex(
    ({ startTime, dueTime }) => (tryMinutesOfTime(startTime ?? dueTime ?? '') ?? Number.POSITIVE_INFINITY) > nowMinutes,
  );
  const lines = tasks.map(line);
  if (tasks.length === 0) return lines;
  const time = `${String(Math.floor(nowMinutes / 60)).padStart(2, '0')}:${String(nowMinutes % 60).padStart(2, '0')}`;
  const now = (
    <div key="now" className="relative z-[1] -my-px h-0.5 bg-accent max-[720px]:mx-0" aria-hidden>
      {(after === -1 ? tasks.length : after) >= LINES_BESIDE_THE_HEADING && (
        <span className="absolute -left-[54px] -top-2 rounded-[2px] bg-accent px-1.5 text-note font-[650] leading-4.5 text-accent-content max-[720px]:left-1">
          {sayTime(time)}
        </span>
      )}
    </div>
  );
  return after === -1 ? [...lines, now] : [...lines.slice(0, after), now, ...lines.slice(after)];
}
