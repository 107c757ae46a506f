import { type ReactNode, useLayoutEffect, useRef } from 'react';
import { useNavigate } from 'react-router';
import type { ProjectedLine, TaskLine as TaskLineAnswer } from '../../../../contract/index.ts';
import { type CivilDay, plural, tryMinutesOfTime } from '../../../../core/index.ts';
import { useKeys } from '../../../app/shell/keys.tsx';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { moveThroughRows } from '../../../kit/arrow-rows.ts';
import { Band } from '../../../kit/band.tsx';
import { useChosen } from '../../../kit/chosen.ts';
import { sayNear, sayTime } from '../../../kit/ways.ts';
import { useTaskActions } from '../api.ts';
import { finishTask, startTask } from '../deeds.ts';
import { ChosenTasks } from './chosen-tasks.tsx';
import { ProjectedTaskLine, TaskLine, type TaskLineBand } from './task-line.tsx';

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
    // The tag that starts it is asked for where it is done.
    const isAsked = action === 'start' && task.startsByTag;
    if (action === 'open' || isAsked) return void navigate(addressOf(task.id));
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
function withNowLine(
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

interface DayFrameProps {
  readonly late: number;
  readonly thisDay: number;
  /** What stands below all of it. */
  readonly foot: ReactNode;
  readonly children: ReactNode;
}

/** A day sheet: its bands, through which the arrow keys lead, and its foot. */
export function DayFrame({ late, thisDay, foot, children }: DayFrameProps) {
  return (
    <div className="flex min-w-0 flex-1 flex-col">
      {/* Arrow keys are a shortcut between links that Tab reaches as well. */}
      {/* biome-ignore lint/a11y/noStaticElementInteractions: see above */}
      <div className="min-h-0 flex-1 overflow-y-auto pb-16" onKeyDown={moveThroughRows}>
        {children}
        <p className="sr-only" aria-live="polite">
          {plural(late, 'task')} late, {plural(thisDay, 'task')} this day
        </p>
      </div>
      {foot}
    </div>
  );
}

interface ThisDayProps {
  readonly day: CivilDay;
  readonly tasks: readonly TaskLineAnswer[];
  readonly projected: readonly (ProjectedLine & { readonly who?: string })[];
  readonly asides: readonly string[];
  readonly line: (task: TaskLineAnswer) => ReactNode;
  /** Said where there is neither. */
  readonly none: string;
}

/** What is due on the day, by its time, with what is not made yet. */
export function ThisDay({ day, tasks, projected, asides, line, none }: ThisDayProps) {
  const { today, nowMinutes } = useWorkspace();
  const count = tasks.length + projected.length;
  return (
    <Band name={day === today ? 'this day' : sayNear(day, today)} count={count} asides={asides}>
      {day === today ? withNowLine(tasks, nowMinutes, line) : tasks.map(line)}
      {projected.map(({ who, ...one }) => (
        <ProjectedTaskLine
          key={[one.scheduleId, one.on, one.title, who].join(' ')}
          line={one}
          {...(who === undefined ? {} : { who: who || 'nobody yet' })}
        />
      ))}
      {count === 0 && <p className="py-2.5 text-row text-ink-2 max-[720px]:px-4">{none}</p>}
    </Band>
  );
}
