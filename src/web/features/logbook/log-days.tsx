import { type KeyboardEvent, useState } from 'react';
import { Link, useLocation } from 'react-router';
import type { LogDay, LogEntry, LogFilter } from '../../../contract/index.ts';
import { dayOfIso, monthShort, weekdayOf, weekdayShort, yearMonthDay } from '../../../core/index.ts';
import { useToday } from '../../app/shell/workspace.tsx';
import { moveThroughRows } from '../../kit/arrow-rows.ts';
import { Pennant } from '../../kit/pennant.tsx';
import { Empty, NotAll, Skeleton, Trouble } from '../../kit/states.tsx';
import { addressOfSmall } from '../files/upload.ts';
import { sayFor } from '../tasks/task-words.ts';
import { useLogDay, useLogDays } from './api.ts';
import { LimitsMark } from './limits-mark.tsx';
import { sayDone, sayDue, sayEnd, sayFolded, sayHowLate, sayReading } from './log-words.ts';

const COLUMNS =
  'grid grid-cols-[24px_minmax(0,1.4fr)_124px_minmax(228px,0.9fr)_136px_60px_minmax(0,1fr)] gap-x-2 @max-[900px]:grid-cols-[24px_minmax(0,1fr)_104px_168px] @max-[560px]:grid-cols-[24px_minmax(0,1fr)_auto]';
const FAR = '@max-[900px]:hidden';

/** Entries by the day on which they were due, the newest first. */
export function LogDays({ filter }: { readonly filter: LogFilter }) {
  const { days, isHere, isMore, more, again, error } = useLogDays(filter);
  if (error && !isHere) return <Trouble error={error} retry={again} />;
  if (!isHere) return <Skeleton rows={10} />;
  if (days.length === 0)
    return (
      <Empty title="Nothing stands here.">No work of this kind was due and finished, skipped or lapsed then.</Empty>
    );
  return (
    // Arrow keys are a shortcut between links that Tab reaches as well.
    // biome-ignore lint/a11y/noStaticElementInteractions: see above
    <div className="@container" onKeyDown={(event: KeyboardEvent<HTMLElement>) => moveThroughRows(event)}>
      <div aria-hidden className={`${COLUMNS} ml-[104px] h-6 items-end pr-5 text-note text-ink-2 max-[720px]:hidden`}>
        <span className="col-span-2">what and for whom</span>
        <span>done by</span>
        <span>due, done</span>
        <span className={FAR}>readings</span>
        <span className={FAR}>photos</span>
        <span className={FAR}>note</span>
      </div>
      {days.map((day) => (
        <Day key={day.on} day={day} filter={filter} />
      ))}
      {error && <NotAll error={error} retry={again} />}
      {isMore && (
        <p className="px-5 py-3">
          <button type="button" className="btn" onClick={more}>
            Earlier days
          </button>
        </p>
      )}
    </div>
  );
}

function Day({ day, filter }: { readonly day: LogDay; readonly filter: LogFilter }) {
  const today = useToday();
  const [isOpen, setOpen] = useState(false);
  const { data, error, mutate } = useLogDay(filter, isOpen ? day.on : null);
  const on = dayOfIso(day.on);
  const { year, month, day: date } = yearMonthDay(on);
  const entries = isOpen && data?.on === day.on ? data.entries : day.entries;
  const folded = day.count - entries.length;
  return (
    <section className="grid grid-cols-[104px_minmax(0,1fr)] border-t border-line-2 max-[720px]:grid-cols-1">
      <h2 className="pt-1.5 pl-5 font-sans text-note leading-4 font-normal font-stretch-normal text-ink-2 max-[720px]:flex max-[720px]:items-baseline max-[720px]:gap-2 max-[720px]:px-4">
        {weekdayShort(weekdayOf(on))}
        <span className="flex items-baseline gap-1.5">
          <b
            className={`font-head text-[26px] leading-7 font-[650] text-ink font-stretch-[80%] ${on === today ? 'shadow-[inset_0_-4px_0_var(--color-accent)]' : ''}`}
          >
            {date}
          </b>
          {monthShort(month)}
          {year === yearMonthDay(today).year ? '' : ` ${year}`}
        </span>
        <span className="block">{sayDone(day)}</span>
      </h2>
      <ul>
        {entries.map((entry) => (
          <Entry key={entry.id} entry={entry} />
        ))}
        {isOpen && error && <NotAll error={error} retry={() => void mutate()} />}
        {folded > 0 && (
          <li className="flex h-8 items-center justify-between border-b border-line pr-5 pl-8 text-row text-ink-2 last:border-b-0">
            {isOpen && data ? `and ${folded} more, in the file` : sayFolded(folded)}
            {!(isOpen && data) && (
              <button type="button" className="link-line text-ink" onClick={() => setOpen(true)}>
                Show {folded === 1 ? 'it' : `all ${day.count}`}
              </button>
            )}
          </li>
        )}
      </ul>
    </section>
  );
}

function Entry({ entry }: { readonly entry: LogEntry }) {
  const { pathname, search } = useLocation();
  const isHere = pathname.endsWith(entry.id);
  const howLate = sayHowLate(entry);
  const isOver = entry.state === 'skipped' || entry.state === 'lapsed';
  return (
    <li
      className={`${COLUMNS} min-h-[34px] items-center border-b border-line pr-5 text-row leading-4.5 last:border-b-0 hover:bg-base-200 max-[720px]:min-h-[52px] max-[720px]:px-4 ${isHere ? 'bg-chosen shadow-[inset_3px_0_0_var(--color-accent)]' : ''}`}
    >
      <span className="flex justify-center">
        <Pennant state={entry.state} late={entry.late} size={20} />
      </span>
      <span className="truncate max-[720px]:whitespace-normal">
        <Link data-row to={`/logbook/task/${entry.id}${search}`} className="text-body font-semibold">
          {entry.title}
        </Link>
        <span className="ml-2 text-ink-2">{sayFor(entry)}</span>
        <span className="hidden text-ink-2 max-[720px]:block">
          {[entry.by, sayEnd(entry)].filter(Boolean).join(', ')}
        </span>
      </span>
      <span className="truncate max-[720px]:hidden">{entry.by}</span>
      <span className="truncate">
        <span className="text-ink-2 max-[720px]:hidden">{sayDue(entry)} </span>
        <span className={`max-[720px]:hidden ${isOver ? 'text-ink-2' : ''}`}>{sayEnd(entry)}</span>
        {howLate && <span className="ml-1.5 text-late">{howLate}</span>}
        {entry.wasSentBack && <span className="ml-1.5">sent back</span>}
      </span>
      <span className={`truncate ${FAR}`}>
        {entry.outOfLimits ? (
          <span className="flex items-center gap-2">
            <LimitsMark reading={entry.outOfLimits} />
            <b className="font-semibold" title={entry.outOfLimits.label}>
              {sayReading(entry.outOfLimits)}
            </b>
          </span>
        ) : (
          entry.readings > 0 && <span className="text-ink-2">all within</span>
        )}
      </span>
      <span className={`flex items-center gap-1.5 ${FAR}`}>
        {entry.picture !== null && (
          <>
            <img
              src={addressOfSmall(entry.picture)}
              alt=""
              loading="lazy"
              className="h-[18px] w-[26px] flex-none object-cover"
            />
            {entry.pictures}
          </>
        )}
      </span>
      <span className={`truncate text-ink-2 ${FAR}`} title={entry.note}>
        {entry.note}
      </span>
    </li>
  );
}
