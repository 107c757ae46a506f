import { useMemo } from 'react';
import { workloadAddresses } from '../../../../contract/addresses.ts';
import type { PlanStart, PutOnLook } from '../../../../contract/index.ts';
import {
  type CivilDay,
  civilDay,
  dayOfIso,
  isoOfDay,
  mondayOf,
  monthShort,
  monthsLater,
  plural,
  sayDuration,
  weekdayOf,
  yearMonthDay,
} from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { useAnswer } from '../../../kit/answer.ts';
import { HoursBar } from '../../../kit/hours-bar.tsx';
import { sayDay } from '../../../kit/ways.ts';

interface PutOnYearProps {
  readonly look: PutOnLook;
  readonly start: PlanStart | null;
  readonly onStart: (start: PlanStart) => void;
  readonly onFrom: (from: string) => void;
}

/** Twelve months of what all of them get together, whose hours it takes, and which notices that leaves too little time for. */
export function PutOnYear({ look, start, onFrom, onStart }: PutOnYearProps) {
  const { today } = useWorkspace();
  const { tasks, minutes, tasksNow } = look.figures;
  const { lateNotices, startInTime } = look;
  return (
    <>
      <section aria-label="Twelve months of it" className="border-b border-line px-5 pt-2.5 pb-2 max-[720px]:px-4">
        <h2 className="flex flex-wrap items-baseline gap-x-3 text-body leading-5.5 text-primary">
          Twelve months of it
          <span className="font-sans text-note font-normal font-stretch-normal text-ink-2 normal-nums">
            {plural(tasks, 'task')}, {sayDuration(minutes)} in all, {tasksNow} made now
          </span>
        </h2>
        <Months look={look} />
      </section>
      {start && <Started look={look} start={start} onStart={onStart} />}
      <People look={look} />
      {lateNotices > 0 && (
        <p className="px-5 py-2.5 text-row leading-5 max-[720px]:px-4">
          <b className="font-semibold">
            {lateNotices === 1 ? '1 notice has' : `${lateNotices} notices have`} to leave today, or had to before.
          </b>{' '}
          {startInTime && (
            <>
              From {sayDay(dayOfIso(startInTime), today)} on none is too late.{' '}
              <button type="button" className="link-line" onClick={() => onFrom(startInTime)}>
                Start on that day
              </button>
            </>
          )}
        </p>
      )}
    </>
  );
}

/** The set that is started for each, as it is for the first of them; a task of it can be left out for all. */
function Started({ look, start, onStart }: Pick<PutOnYearProps, 'look' | 'onStart'> & { readonly start: PlanStart }) {
  const { today } = useWorkspace();
  const first = look.clients[0]?.client.name ?? '';
  return (
    <section aria-label="Started by hand" className="border-b border-line px-5 py-2.5 max-[720px]:px-4">
      <h2 className="flex flex-wrap items-baseline gap-x-3 text-body leading-5.5 text-primary">
        Started by hand
        <span className="font-sans text-note font-normal font-stretch-normal text-ink-2">
          {look.figures.clients > 1 ? `for ${first}, and the same for the others` : `for ${first}`}
        </span>
      </h2>
      <ol>
        {look.started.map(({ step, title, on, who, minutes }) => (
          <li key={step} className="flex items-baseline gap-2 text-row leading-5.5">
            <span className="w-[84px] flex-none text-note whitespace-nowrap">{sayDay(dayOfIso(on), today)}</span>
            <span className="min-w-0 flex-1 truncate" title={title}>
              {title}
            </span>
            <span className="text-note whitespace-nowrap text-ink-2">
              {who ?? 'nobody yet'}, {sayDuration(minutes)}
            </span>
            {look.started.length > 1 && (
              <button
                type="button"
                className="min-h-6 min-w-7 cursor-pointer text-note text-ink-2 underline decoration-line-2 underline-offset-4 hover:text-ink"
                aria-label={`Leave ${title} out`}
                onClick={() => onStart({ ...start, without: [...start.without, step] })}
              >
                out
              </button>
            )}
          </li>
        ))}
      </ol>
      {start.without.length > 0 && (
        <button
          type="button"
          className="link-line text-note leading-5"
          onClick={() => onStart({ ...start, without: [] })}
        >
          {plural(start.without.length, 'task')} left out: take in again
        </button>
      )}
    </section>
  );
}

/** A line a month, a bar a day. */
function Months({ look }: { readonly look: PutOnLook }) {
  const { workingCalendar } = useWorkspace();
  const first = look.days[0]?.on;
  const byDay = useMemo(() => new Map(look.days.map((day) => [dayOfIso(day.on), day])), [look.days]);
  if (first === undefined) return <p className="text-row text-ink-2">No date within a year.</p>;
  const most = Math.max(...look.days.map(({ now, later }) => now + later));
  const { year, month } = yearMonthDay(dayOfIso(first));
  return (
    <ol className="pt-1">
      {Array.from({ length: 12 }, (_, i) => {
        const start = monthsLater(civilDay(year, month, 1), i);
        const days = Array.from({ length: monthsLater(start, 1) - start }, (_, n): CivilDay => start + n);
        const count = days.reduce((sum, day) => sum + (byDay.get(day)?.now ?? 0) + (byDay.get(day)?.later ?? 0), 0);
        return (
          <li key={start} className="flex items-center gap-2 border-b border-line text-note">
            <b className="w-8 font-head text-row font-[650]">{monthShort(yearMonthDay(start).month)}</b>
            <span aria-hidden className="grid h-[23px] min-w-0 flex-1 grid-cols-[repeat(31,minmax(0,1fr))] items-end">
              {days.map((day) => {
                const { now = 0, later = 0 } = byDay.get(day) ?? {};
                const isOff = !workingCalendar.isWorkingDay(day);
                return (
                  <span
                    key={day}
                    title={now + later > 0 ? `${isoOfDay(day)}: ${now + later}` : undefined}
                    className={`flex h-full items-end justify-center ${isOff ? 'bg-off' : ''}`}
                  >
                    {now + later > 0 ? (
                      <span
                        className={`w-[5px] ${now > 0 ? 'bg-primary' : 'border border-petrol-2'}`}
                        style={{ height: `${4 + (16 * (now + later)) / most}px` }}
                      />
                    ) : (
                      weekdayOf(day) === 1 && <span className="mb-1.5 h-px w-px bg-ink-2" />
                    )}
                  </span>
                );
              })}
            </span>
            <b className="w-8 text-right font-mono font-semibold">{count === 0 ? '' : count}</b>
          </li>
        );
      })}
    </ol>
  );
}

/** People named at first, those with the most first. */
const SHOWN = 12;

/** Whose hours it takes: the week in which it is tightest for each, and all of a year. */
function People({ look }: { readonly look: PutOnLook }) {
  const { today, people } = useWorkspace();
  const weeks = look.people.flatMap((person) => Object.keys(person.weeks)).sort();
  const first = weeks[0] ?? isoOfDay(mondayOf(today));
  const { data } = useAnswer(workloadAddresses.load, { query: { from: first, by: 'week' } });
  const rest = look.people.length - SHOWN;
  return (
    <section aria-label="Whose hours it takes" className="border-b border-line px-5 py-2.5 max-[720px]:px-4">
      <p className="grid grid-cols-[minmax(0,1fr)_68px_106px_62px] gap-x-2 text-note text-ink-2">
        <span className="col-span-3">hours in the fullest week</span>
        <span className="text-right">a year</span>
      </p>
      <ul>
        {look.people.slice(0, SHOWN).map(({ personId, minutes, weeks: added }) => {
          const row = data?.rows.find(({ person }) => (person?.id ?? null) === personId);
          const told = (data?.starts ?? []).map((start, i) => {
            const cell = row?.cells[i];
            const before = cell ? cell.done + cell.open + cell.foreseen : 0;
            return {
              start,
              before,
              after: before + (added[start] ?? 0),
              capacity: cell?.capacity ?? 0,
              adds: added[start] ?? 0,
            };
          });
          const fullest = told
            .filter(({ adds }) => adds > 0)
            .sort((a, b) => b.after / Math.max(1, b.capacity) - a.after / Math.max(1, a.capacity))[0];
          const name = people.find(({ id }) => id === personId)?.name ?? 'nobody yet';
          return (
            <li
              key={personId ?? ''}
              className="grid grid-cols-[minmax(0,1fr)_68px_106px_62px] items-center gap-x-2 text-row leading-5.5"
            >
              <span className={personId === null ? 'text-ink-2' : 'truncate'}>{name}</span>
              {fullest && personId !== null ? (
                <>
                  <HoursBar before={fullest.before} after={fullest.after} capacity={fullest.capacity} />
                  <span
                    className="text-right font-mono text-note"
                    title={`week from ${sayDay(dayOfIso(fullest.start), today)}`}
                  >
                    {halfHours(fullest.before)} →{' '}
                    <span className={fullest.after > fullest.capacity ? 'font-bold' : ''}>
                      {halfHours(fullest.after)}
                    </span>
                    <span className="text-ink-2"> h</span>
                  </span>
                </>
              ) : (
                <span className="col-span-2 text-right text-note text-ink-2">{personId === null ? '' : 'later'}</span>
              )}
              <span className="text-right text-note">{sayDuration(minutes)}</span>
            </li>
          );
        })}
      </ul>
      {rest > 0 && <p className="text-note text-ink-2">and {rest} more</p>}
    </section>
  );
}

/** "43.5" */
const halfHours = (minutes: number): string => String(Math.round(minutes / 30) / 2);
