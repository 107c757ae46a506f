import { ChevronLeft, ChevronRight } from 'lucide-react';
import { lazy, Suspense } from 'react';
import type { DaySheet, TaskLine } from '../../../../contract/index.ts';
import {
  type CivilDay,
  monthName,
  sayDuration,
  sayRoles,
  weekdayName,
  weekdayOf,
  yearMonthDay,
} from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { DayButton } from '../../../kit/day-button.tsx';
import { waysShown } from '../../../kit/ways.ts';

const OwnClock = lazy(() => import('../../people/clock/own-clock.tsx'));

interface DayHeadProps {
  readonly sheet: DaySheet;
  readonly day: CivilDay;
  readonly onDay: (day: CivilDay) => void;
  readonly onPerson: (personId: string) => void;
}

/** The day in large figures, whose it is, and how full. */
export function DayHead({ sheet, day, onDay, onPerson }: DayHeadProps) {
  const { today, staffWith, workingCalendar } = useWorkspace();
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
          <label className="min-w-0 truncate">
            <span className="sr-only">Whose day sheet</span>
            <select
              className="filter-word text-body font-semibold"
              value={sheet.person.id}
              onChange={({ target }) => onPerson(target.value)}
            >
              {staffWith(sheet.person.id).map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </select>
          </label>
          <span className="truncate text-ink-2 max-[720px]:hidden">
            {sayRoles(sheet.person.roles)}
            {holiday ? `, ${holiday}` : workingCalendar.isWorkingDay(day) ? '' : ', a day off'}
          </span>
        </div>
        <LoadBar sheet={sheet} />
      </div>
      {day === today && (
        <Suspense>
          <OwnClock person={sheet.person} />
        </Suspense>
      )}
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
function LoadBar({ sheet }: { readonly sheet: DaySheet }) {
  const isFinished = ({ state }: TaskLine) => state === 'done' || state === 'toCheck';
  const all = [...sheet.thisDay, ...sheet.late];
  const done = minutes(all.filter(isFinished));
  const open = minutes(
    sheet.thisDay.filter(({ state }) => state === 'open' || state === 'coming' || state === 'underWay'),
  );
  const late = minutes(sheet.late.filter((task) => !isFinished(task)));
  const projected = sheet.projected.reduce((sum, line) => sum + line.estimateMinutes, 0);
  const total = done + open + late + projected;
  const { capacityMinutes } = sheet.person;
  const scale = Math.max(total, capacityMinutes, 1);
  const parts = [
    { minutes: done, colour: 'var(--color-primary)', words: 'finished' },
    { minutes: open, colour: 'var(--petrol-2)', words: 'to do' },
    { minutes: late, colour: 'var(--late-fill)', words: 'late' },
    { minutes: projected, colour: 'var(--petrol-3)', words: 'not made yet' },
  ].filter((part) => part.minutes > 0);
  const words = parts.map((part) => `${sayDuration(part.minutes)} ${part.words}`).join(', ') || 'nothing to do';
  const over = total - capacityMinutes;
  return (
    <>
      <div className="mb-1.5 text-note leading-4 text-ink-2">
        <b className="font-normal text-ink">
          {sayDuration(total)} of {sayDuration(capacityMinutes)}
        </b>
        {over > 0 && capacityMinutes > 0 ? <b className="font-semibold text-ink">, {sayDuration(over)} over</b> : ''}
        <span className="max-[720px]:hidden"> · {words}</span>
      </div>
      <div className="relative flex h-2 bg-base-300" role="img" aria-label={words}>
        {parts.map((part) => (
          <i key={part.words} style={{ width: `${(part.minutes / scale) * 100}%`, background: part.colour }} />
        ))}
        {over > 0 && capacityMinutes > 0 && (
          <i className="absolute -top-1 h-4 w-0.5 bg-ink" style={{ left: `${(capacityMinutes / scale) * 100}%` }} />
        )}
      </div>
    </>
  );
}

function minutes(tasks: readonly TaskLine[]): number {
  return tasks.reduce((sum, task) => sum + task.estimateMinutes, 0);
}
