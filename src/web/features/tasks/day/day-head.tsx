import { ChevronLeft, ChevronRight } from 'lucide-react';
import type { ReactNode } from 'react';
import type { DaySheet, TaskLine } from '../../../../contract/index.ts';
import { type CivilDay, monthName, sayDuration, weekdayName, weekdayOf, yearMonthDay } from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { DayButton } from '../../../kit/day-button.tsx';
import { waysShown } from '../../../kit/ways.ts';

interface DayHeadProps {
  readonly day: CivilDay;
  readonly onDay: (day: CivilDay) => void;
  /** Where it is chosen whose day it is. */
  readonly whose: ReactNode;
  /** What is said beside it, besides that it is no working day. */
  readonly words: string;
  readonly load: DayLoad;
  /** What stands before the ways to other days. */
  readonly children?: ReactNode;
}

/** The work of a day, and what can be done in it. */
export interface DayLoad extends Pick<DaySheet, 'late' | 'thisDay' | 'projected'> {
  /** Null where nobody's hours are looked at. */
  readonly capacityMinutes: number | null;
}

/** The day in large figures, whose it is, and how full. */
export function DayHead({ day, onDay, whose, words, load, children }: DayHeadProps) {
  const { today, workingCalendar } = useWorkspace();
  const { month, day: date, year } = yearMonthDay(day);
  const dayFirst = waysShown().dateOrder === 'day first';
  const holiday = workingCalendar.holidayName(day);
  return (
    <header className="flex min-h-[76px] flex-none items-end gap-5 px-5 py-[9px] max-[720px]:flex-wrap max-[720px]:gap-x-3.5 max-[720px]:gap-y-2 max-[720px]:px-4">
      <h1 className="font-sans text-row font-normal leading-4 text-ink-2">
        {weekdayName(weekdayOf(day))}
        <span className="sr-only"> </span>
        <span className="mt-0.5 flex items-baseline gap-1.5">
          {!dayFirst && <span className="text-body text-ink">{monthName(month)} </span>}
          <b
            className="font-head text-[40px] font-[650] leading-9.5 text-ink"
            style={{ fontStretch: '80%', boxShadow: day === today ? 'inset 0 -5px 0 var(--color-accent)' : undefined }}
          >
            {date}
          </b>{' '}
          <span className="text-body text-ink">
            {[dayFirst && monthName(month), year !== yearMonthDay(today).year && year].filter(Boolean).join(' ')}
          </span>
        </span>
      </h1>
      <div className="min-w-0 flex-1 pb-0.5">
        <div className="mb-1.5 flex items-baseline gap-2.5 text-row">
          {whose}
          <span className="truncate text-ink-2 max-[720px]:hidden">
            {[words, holiday ?? (workingCalendar.isWorkingDay(day) ? '' : 'a day off')].filter(Boolean).join(', ')}
          </span>
        </div>
        <LoadBar load={load} />
      </div>
      {children}
      <div className="flex items-center gap-1">
        <DayButton
          label="Day shown"
          chosen={day}
          className="h-8 w-8 max-[720px]:h-11 max-[720px]:w-11"
          onChoose={onDay}
        />
        {day !== today && (
          <button type="button" className="btn max-[720px]:h-11" onClick={() => onDay(today)}>
            Today
          </button>
        )}
        <button
          type="button"
          className="btn btn-text max-[720px]:hidden"
          aria-label="Day before"
          onClick={() => onDay(day - 1)}
        >
          <ChevronLeft size={18} aria-hidden />
        </button>
        <button
          type="button"
          className="btn btn-text max-[720px]:hidden"
          aria-label="Day after"
          onClick={() => onDay(day + 1)}
        >
          <ChevronRight size={18} aria-hidden />
        </button>
      </div>
    </header>
  );
}

/** The day's work against what the person can do in a day. What is over stands past the mark as a solid block. */
function LoadBar({ load }: { readonly load: DayLoad }) {
  const isFinished = ({ state }: TaskLine) => state === 'done' || state === 'toCheck';
  const all = [...load.thisDay, ...load.late];
  const done = minutes(all.filter(isFinished));
  const open = minutes(
    load.thisDay.filter(({ state }) => state === 'open' || state === 'coming' || state === 'underWay'),
  );
  const late = minutes(load.late.filter((task) => !isFinished(task)));
  const projected = load.projected.reduce((sum, line) => sum + line.estimateMinutes, 0);
  const total = done + open + late + projected;
  const capacity = load.capacityMinutes ?? 0;
  const scale = Math.max(total, capacity, 1);
  const parts = [
    { minutes: done, colour: 'var(--color-primary)', words: 'finished' },
    { minutes: open, colour: 'var(--petrol-2)', words: 'to do' },
    { minutes: late, colour: 'var(--late-fill)', words: 'late' },
    { minutes: projected, colour: 'var(--petrol-3)', words: 'not made yet' },
  ].filter((part) => part.minutes > 0);
  const words = parts.map((part) => `${sayDuration(part.minutes)} ${part.words}`).join(', ') || 'nothing to do';
  const over = capacity > 0 ? total - capacity : 0;
  return (
    <>
      <div className="mb-1.5 text-note leading-4 text-ink-2">
        <b className="font-normal text-ink">
          {load.capacityMinutes === null ? sayDuration(total) : `${sayDuration(total)} of ${sayDuration(capacity)}`}
        </b>
        {over > 0 ? <b className="font-semibold text-ink">, {sayDuration(over)} over</b> : ''}
        <span className="max-[720px]:hidden"> · {words}</span>
      </div>
      <div className="relative flex h-2 bg-base-300" role="img" aria-label={words}>
        {parts.map((part) => (
          <i key={part.words} style={{ width: `${(part.minutes / scale) * 100}%`, background: part.colour }} />
        ))}
        {over > 0 && (
          <i className="absolute -top-1 h-4 w-0.5 bg-ink" style={{ left: `${(capacity / scale) * 100}%` }} />
        )}
      </div>
    </>
  );
}

function minutes(tasks: readonly TaskLine[]): number {
  return tasks.reduce((sum, task) => sum + task.estimateMinutes, 0);
}
