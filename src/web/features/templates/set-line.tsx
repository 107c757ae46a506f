import { type CivilDay, plural, yearMonthDay } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { daysIntoWeek, sayDate, sayDayOfMonth } from '../../kit/ways.ts';
import { useWidth } from '../../kit/width.ts';

export interface LinedTask {
  readonly key: string;
  /** Its place in the set, from 1. */
  readonly number: number;
  readonly on: CivilDay;
  /** The one that stands on the set's date. */
  readonly isMain: boolean;
}

/** Days shown at least, so that a set of one day is not a wall of one colour. */
const LEAST_DAYS = 14;
/** A figure under each day needs this much room, in pixels. */
const FIGURE_WIDTH = 21;

/** The plan of a set on a line of days: where each of its tasks flies, weekends and holidays shaded, today marked. */
export function SetLine({ tasks }: { readonly tasks: readonly LinedTask[] }) {
  const { today, workingCalendar } = useWorkspace();
  const [frame, width] = useWidth<HTMLDivElement>();
  const days = tasks.map(({ on }) => on);
  const [first, last] = [Math.min(...days), Math.max(...days)];
  // Today is shown where it is near; a set in the spring is not stretched back to now.
  const nearToday = first - today <= LEAST_DAYS && first >= today;
  const from = (nearToday ? Math.min(today, first) : first) - 1;
  const to = Math.max(last + 3, from + LEAST_DAYS);
  const count = to - from + 1;
  const at = (day: CivilDay) => `${((day - from) / count) * 100}%`;
  const oneDay = `${100 / count}%`;
  const all = Array.from({ length: count }, (_, i) => from + i);
  const everyDay = width / count >= FIGURE_WIDTH;
  const stacks = new Map<CivilDay, LinedTask[]>();
  for (const task of tasks) stacks.set(task.on, [...(stacks.get(task.on) ?? []), task]);
  const words = [...stacks].map(([day, there]) => `${there.map(({ number }) => number).join(', ')} on ${sayDate(day)}`);
  return (
    <div
      ref={frame}
      role="img"
      aria-label={`${plural(tasks.length, 'task')}: ${words.join('; ')}`}
      className="select-none"
    >
      <div className="relative h-5 text-note text-ink-2" aria-hidden>
        {all
          .filter((day) => daysIntoWeek(day) === 0 && day <= to - 2)
          .map((day) => (
            <span key={day} className="absolute whitespace-nowrap" style={{ left: at(day) }}>
              {sayDayOfMonth(day)}
            </span>
          ))}
      </div>
      <div className="relative h-[54px] border-b border-ink-2" aria-hidden>
        {all.map((day) => (
          <i
            key={day}
            className={`absolute inset-y-0 ${day === today ? 'bg-accent/30' : workingCalendar.isWorkingDay(day) ? '' : 'bg-off'}`}
            style={{ left: at(day), width: oneDay }}
          />
        ))}
        {[...stacks].map(([day, there]) => (
          <span key={day} className="absolute bottom-0" style={{ left: at(day) }}>
            <Flag task={there[0] as LinedTask} more={there.length - 1} />
          </span>
        ))}
      </div>
      <div className="relative h-5 text-note" aria-hidden>
        {all
          .filter((day) => everyDay || day === today || (daysIntoWeek(day) === 0 && Math.abs(day - today) > 2))
          .map((day) => (
            <span
              key={day}
              className={`absolute text-center ${day === today ? 'bg-accent font-semibold text-accent-content' : 'text-ink-2'}`}
              style={{ left: at(day), width: everyDay ? oneDay : undefined, minWidth: 20 }}
            >
              {yearMonthDay(day).day}
            </span>
          ))}
      </div>
    </div>
  );
}

/** A numbered flag on its mast; the main task's is filled. */
function Flag({ task, more }: { readonly task: LinedTask; readonly more: number }) {
  return (
    <svg width="46" height="50" viewBox="0 0 46 50" className="block overflow-visible text-primary">
      <title>{`Task ${task.number}`}</title>
      <path d="M1 50V4" stroke="currentColor" strokeWidth="1.6" fill="none" />
      <path
        d="M1 4 24 12.5 1 21"
        stroke="currentColor"
        strokeWidth="1.6"
        strokeLinejoin="round"
        fill={task.isMain ? 'currentColor' : 'var(--color-base-100)'}
      />
      <text
        x="4.5"
        y="17"
        fontSize="12.5"
        fontWeight="700"
        fill={task.isMain ? 'var(--color-base-100)' : 'currentColor'}
      >
        {task.number}
      </text>
      {more > 0 && (
        <text x="6" y="36" fontSize="12" fill="var(--ink-2)">
          +{more}
        </text>
      )}
    </svg>
  );
}
