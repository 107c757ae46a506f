import { type KeyboardEvent, type PointerEvent, useCallback, useId, useState } from 'react';
import {
  type CivilDay,
  civilDay,
  closedOn,
  dayOfIso,
  daysInMonth,
  isDated,
  monthIndexOf,
  monthOf,
  monthShort,
  monthStart,
  type Outlook,
  type PlannedOccurrence,
  plural,
  sayDay,
  type Weekday,
  weekdayOf,
  yearMonthDay,
} from '../../core/index.ts';
import { useWorkspace } from '../shell/workspace.tsx';
import { useWidth } from '../ui/width.ts';
import type { BenchDraft } from './bench-draft.ts';
import { moveDate, pauseOn } from './by-hand.ts';
import { DayMenu } from './day-menu.tsx';

const ROW = 20;
const HEAD = 18;
const LEFT = 44;
const RIGHT = 42;
/** Six weeks less the days a month can't reach: weekdays stand in columns. */
const COLUMNS = 37;

interface YearViewProps {
  readonly outlook: Outlook;
  readonly draft: BenchDraft;
  /** Left out for those who may look only. */
  readonly edit: YearEdit | null;
}

export interface YearEdit {
  readonly onChange: (draft: BenchDraft) => void;
  readonly onRevise: (day: CivilDay) => void;
}

/**
 * A year as twelve lines, weekdays lined up, so that weekends are bands and a moved date slides along its own line.
 * A click on a day, or Enter after the arrow keys, opens what can be changed about it; a mark can be dragged to another day.
 */
export function YearView({ outlook, draft, edit }: YearViewProps) {
  const [frame, width] = useWidth<HTMLDivElement>();
  const { today, workingCalendar } = useWorkspace();
  const hatch = useId();
  const [cursor, setCursor] = useState<CivilDay | null>(null);
  const [open, setOpen] = useState<CivilDay | null>(null);
  const [drag, setDrag] = useState<Drag | null>(null);
  const close = useCallback(() => setOpen(null), []);

  const cell = Math.max(12, (width - LEFT - RIGHT) / COLUMNS);
  const firstMonth = monthIndexOf(outlook.yearFrom);
  const months = Array.from({ length: 12 }, (_, i) => monthOf(firstMonth + i));
  const x = (day: CivilDay) => {
    const { year, month, day: date } = yearMonthDay(day);
    return LEFT + (weekdayOf(civilDay(year, month, 1)) - 1 + date - 1) * cell + cell / 2;
  };
  const y = (day: CivilDay) => HEAD + (monthIndexOf(day) - firstMonth) * ROW + ROW / 2;
  const place = { x, y, cell, hatch };
  const dayAt = (event: PointerEvent<SVGSVGElement>): CivilDay | null => {
    const box = event.currentTarget.getBoundingClientRect();
    const row = Math.floor((event.clientY - box.top - HEAD) / ROW);
    const column = Math.floor((event.clientX - box.left - LEFT) / cell);
    if (row < 0 || row > 11) return null;
    const first = monthStart(firstMonth + row);
    const day = first + column - (weekdayOf(first) - 1);
    return day >= first && day < monthStart(firstMonth + row + 1) ? day : null;
  };
  const inYear = (day: CivilDay) => day >= outlook.yearFrom && day <= outlook.yearTo;
  const shown = outlook.year;
  const on = (day: CivilDay) => shown.filter((one) => one.on === day || one.nominal === day);
  const dated = shown.filter(isDated);
  const taken = new Set(dated.map(({ on: day }) => day));

  const onKeyDown = (event: KeyboardEvent<HTMLDivElement>) => {
    if (event.target !== event.currentTarget) return;
    const step = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -28, ArrowDown: 28 }[event.key];
    const here = cursor ?? Math.max(today, outlook.yearFrom);
    if (step !== undefined) {
      event.preventDefault();
      const next = cursor === null ? here : monthStep(here, step);
      if (inYear(next)) setCursor(next);
    } else if (edit && (event.key === 'Enter' || event.key === ' ')) {
      event.preventDefault();
      setCursor(here);
      setOpen(here);
    }
  };
  const opened = open === null || !edit ? null : open;
  return (
    <div
      ref={frame}
      className="relative mt-2.5 rounded-[3px]"
      // Arrow keys move through its days, which no other role tells.
      role="application"
      aria-label={edit ? 'The year: arrow keys choose a day, Enter changes it' : 'The year: arrow keys choose a day'}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: an application of its own, reached by keyboard
      tabIndex={0}
      onKeyDown={onKeyDown}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) setCursor(null);
      }}
    >
      {width > 0 && (
        <svg
          className={`block touch-none text-[13px] ${edit ? (drag ? 'cursor-grabbing' : 'cursor-pointer') : ''}`}
          width={width}
          height={HEAD + ROW * 12 + 1}
          role="img"
          aria-label={`The year in dates: ${plural(dated.length, 'time')} from ${sayDay(outlook.yearFrom, today)} to ${sayDay(outlook.yearTo, today)}`}
          onPointerDown={(event) => {
            const day = dayAt(event);
            if (!edit || day === null || event.button !== 0) return;
            const mark = dated.find((one) => one.on === day && !one.isAdded && !one.isForeseen);
            if (mark) event.currentTarget.setPointerCapture(event.pointerId);
            setDrag({ nominal: mark?.nominal ?? null, from: day, over: day });
          }}
          onPointerMove={(event) => {
            if (drag === null || drag.nominal === null) return;
            const over = dayAt(event);
            if (over !== null && over !== drag.over) setDrag({ ...drag, over });
          }}
          onPointerUp={() => {
            if (!edit || drag === null) return;
            setDrag(null);
            if (drag.over === drag.from) setOpen(drag.from);
            else if (drag.nominal !== null) edit.onChange(moveDate(draft, drag.nominal, drag.over));
          }}
          onPointerCancel={() => setDrag(null)}
        >
          <defs>
            <pattern id={hatch} width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <path d="M0 0V5" stroke="var(--line-2)" strokeWidth="1.6" />
            </pattern>
          </defs>
          {Array.from({ length: COLUMNS }, (_, column) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: columns are their places
            <g key={column}>
              {!workingCalendar.workingWeekdays.includes(((column % 7) + 1) as Weekday) && (
                <rect x={LEFT + column * cell} y={HEAD} width={cell} height={ROW * 12} fill="var(--off)" />
              )}
              <text x={LEFT + column * cell + cell / 2} y={12} textAnchor="middle" fill="var(--ink-2)">
                {'MTWTFSS'[column % 7]}
              </text>
            </g>
          ))}
          <Bands draft={draft} outlook={outlook} place={place} />
          {months.map(({ year, month }, row) => (
            <MonthLine
              key={`${year} ${month}`}
              year={year}
              month={month}
              showsYear={month === 1 || row === 0}
              width={width}
              place={place}
              isHoliday={(day) => workingCalendar.holidayName(day) !== undefined}
              isOff={(day) => !workingCalendar.isWorkingDay(day)}
              skip={(day) => taken.has(day) || day === today}
            />
          ))}
          {inYear(today) && !taken.has(today) && <Today day={today} place={place} />}
          {shown.map((occurrence) => (
            <Mark key={occurrence.nominal} occurrence={occurrence} today={today} place={place} />
          ))}
          {drag !== null && drag.nominal !== null && drag.over !== drag.from && (
            <g pointerEvents="none">
              <circle cx={x(drag.over)} cy={y(drag.over)} r={10.5} fill="var(--color-accent)" />
              <text
                x={x(drag.over)}
                y={y(drag.over) + 4.5}
                textAnchor="middle"
                fill="var(--color-accent-content)"
                style={DAY_FONT}
              >
                {yearMonthDay(drag.over).day}
              </text>
            </g>
          )}
          {(opened ?? cursor) !== null && (
            <rect
              x={x((opened ?? cursor) as CivilDay) - Math.max(cell / 2, 10.5)}
              y={y((opened ?? cursor) as CivilDay) - ROW / 2}
              width={Math.max(cell, 21)}
              height={ROW}
              rx={3}
              fill="none"
              stroke="var(--color-accent)"
              strokeWidth={2}
              pointerEvents="none"
            />
          )}
        </svg>
      )}
      <span className="sr-only" aria-live="polite">
        {cursor !== null && `${sayDay(cursor, today)}: ${on(cursor).some(isDated) ? 'due' : 'nothing due'}`}
      </span>
      {opened !== null && edit && (
        <DayMenu
          day={opened}
          occurrences={on(opened)}
          draft={draft}
          style={{
            left: Math.max(0, Math.min(x(opened) - 40, width - 272)),
            top: y(opened) + ROW / 2 + 2,
          }}
          onChange={edit.onChange}
          onRevise={edit.onRevise}
          onClose={() => {
            close();
            frame.current?.focus();
          }}
        />
      )}
    </div>
  );
}

interface Drag {
  /** The occurrence that is dragged; null for an empty day, which only opens. */
  readonly nominal: CivilDay | null;
  readonly from: CivilDay;
  readonly over: CivilDay;
}

/** A day to the side, or the same date a month up or down. */
function monthStep(day: CivilDay, step: number): CivilDay {
  if (Math.abs(step) === 1) return day + step;
  const index = monthIndexOf(day) + Math.sign(step);
  const { year, month } = monthOf(index);
  return monthStart(index) + Math.min(yearMonthDay(day).day, daysInMonth(year, month)) - 1;
}

/** Spans of days under the marks: hatched where paused or closed, tinted where a revision holds, with its first day marked. */
function Bands({
  draft,
  outlook,
  place,
}: {
  readonly draft: BenchDraft;
  readonly outlook: Outlook;
  readonly place: Place;
}) {
  const { x, y, cell, hatch } = place;
  const days = Array.from({ length: outlook.yearTo - outlook.yearFrom + 1 }, (_, i) => outlook.yearFrom + i);
  const revised = draft.revisions.map(({ from }) => dayOfIso(from)).sort((a, b) => a - b);
  const closedIn = [draft, ...draft.revisions].map(({ recurrence }) => closedOn(recurrence.closed?.seasons ?? []));
  const stretchOf = (day: CivilDay) => revised.filter((from) => from <= day).length;
  const isStill = (day: CivilDay) => pauseOn(draft, day) !== null || closedIn[stretchOf(day)]?.(day) === true;
  return (
    <g>
      {runsOf(days, (day) => stretchOf(day) % 2 === 1).map(({ from, to }) => (
        <rect
          key={`revision ${from}`}
          x={x(from) - cell / 2}
          y={y(from) - ROW / 2 + 1}
          width={(to - from + 1) * cell}
          height={ROW - 1}
          fill="var(--petrol-3)"
          opacity={0.55}
        />
      ))}
      {runsOf(days, isStill).map(({ from, to }) => (
        <rect
          key={`still ${from}`}
          x={x(from) - cell / 2}
          y={y(from) - ROW / 2 + 3}
          width={(to - from + 1) * cell}
          height={ROW - 6}
          fill={`url(#${hatch})`}
        />
      ))}
      {revised
        .filter((from) => from >= outlook.yearFrom && from <= outlook.yearTo)
        .map((from) => (
          <path
            key={`from ${from}`}
            d={`M${x(from) - cell / 2} ${y(from) - ROW / 2}v${ROW}m0 ${-ROW}l7 3.500l-7 3.500`}
            fill="var(--color-primary)"
            stroke="var(--color-primary)"
            strokeWidth={1.5}
          />
        ))}
    </g>
  );
}

/** Runs of days in a row that fit, each within one month and so on one line. */
function runsOf(days: readonly CivilDay[], fits: (day: CivilDay) => boolean): { from: CivilDay; to: CivilDay }[] {
  const runs: { from: CivilDay; to: CivilDay }[] = [];
  for (const day of days) {
    if (!fits(day)) continue;
    const last = runs.at(-1);
    if (last && last.to === day - 1 && monthIndexOf(last.to) === monthIndexOf(day)) last.to = day;
    else runs.push({ from: day, to: day });
  }
  return runs;
}

interface Place {
  readonly x: (day: CivilDay) => number;
  readonly y: (day: CivilDay) => number;
  readonly cell: number;
  readonly hatch: string;
}

interface MonthLineProps {
  readonly year: number;
  readonly month: number;
  readonly showsYear: boolean;
  readonly width: number;
  readonly place: Place;
  readonly isOff: (day: CivilDay) => boolean;
  readonly isHoliday: (day: CivilDay) => boolean;
  readonly skip: (day: CivilDay) => boolean;
}

function MonthLine({ year, month, showsYear, width, place: { x, y, cell }, isOff, isHoliday, skip }: MonthLineProps) {
  const first = civilDay(year, month, 1);
  const days = Array.from({ length: daysInMonth(year, month) }, (_, i) => first + i);
  const middle = y(first);
  return (
    <g>
      {days.filter(isHoliday).map((day) => (
        <rect key={day} x={x(day) - cell / 2} y={middle - ROW / 2} width={cell} height={ROW} fill="var(--off)" />
      ))}
      {days
        .filter((day) => !isOff(day) && !skip(day))
        .map((day) => (
          <circle key={day} cx={x(day)} cy={middle} r={1.1} fill="var(--line-2)" />
        ))}
      <text x={0} y={middle + 5} fill="var(--ink)" style={MONTH_FONT}>
        {monthShort(month)}
      </text>
      {showsYear && (
        <text x={width} y={middle + 5} textAnchor="end" fill="var(--ink-2)">
          {year}
        </text>
      )}
      <path d={`M0 ${middle + ROW / 2 + 0.5}H${width}`} stroke={month === 12 ? 'var(--line-2)' : 'var(--line)'} />
    </g>
  );
}

const MONTH_FONT = { font: '650 14px var(--font-head)', fontStretch: '88%' } as const;
const SMALL_DAY_FONT = { font: '700 12px var(--font-head)', fontStretch: '75%' } as const;
const DAY_FONT = { font: '700 14px var(--font-head)', fontStretch: '80%' } as const;

function Today({ day, place: { x, y } }: { readonly day: CivilDay; readonly place: Place }) {
  return (
    <g>
      <rect x={x(day) - 9} y={y(day) - 9} width={18} height={18} fill="var(--color-accent)" />
      <text x={x(day)} y={y(day) + 4.5} textAnchor="middle" fill="var(--color-accent-content)" style={DAY_FONT}>
        {yearMonthDay(day).day}
      </text>
    </g>
  );
}

/**
 * Filled: worked that day; hollow: foreseen only. A capsule from the hollow date: moved. A ring: added by hand.
 * A cross: skipped. Pauses and closed seasons are hatched as a whole.
 */
function Mark({
  occurrence,
  today,
  place,
}: {
  readonly occurrence: PlannedOccurrence;
  readonly today: CivilDay;
  readonly place: Place;
}) {
  const { x, y, cell } = place;
  const { on, nominal } = occurrence;
  if (!isDated(occurrence)) {
    const { because } = occurrence;
    if (because === 'same day as another') return null;
    const words = {
      'day off': 'a day off, skipped',
      skipped: 'skipped by hand',
      closed: 'closed season',
      paused: 'paused',
    };
    // In a hatched span a small cross is enough to tell which dates it costs.
    const arm = because === 'closed' || because === 'paused' ? 3 : 4.5;
    return (
      <path
        d={`M${x(on) - arm} ${y(on) - arm}l${arm * 2} ${arm * 2}m0 ${-arm * 2}l${-arm * 2} ${arm * 2}`}
        stroke={arm === 3 ? 'var(--ink-2)' : 'var(--ink)'}
        strokeWidth={1.5}
      >
        <title>{`${sayDay(on, today)}: ${words[because]}`}</title>
      </path>
    );
  }
  const sameLine = monthIndexOf(on) === monthIndexOf(nominal);
  const { isForeseen, isAdded, change } = occurrence;
  const fill = isForeseen ? 'var(--color-base-100)' : on < today ? 'var(--petrol-3)' : 'var(--color-primary)';
  const words = [
    on === nominal ? sayDay(on, today) : `${sayDay(on, today)}, moved from ${sayDay(nominal, today)}`,
    isAdded && 'added by hand',
    change && 'different this time',
    isForeseen && 'foreseen',
  ].filter((part): part is string => typeof part === 'string');
  return (
    <g>
      {on !== nominal && sameLine && <Slip from={nominal} to={on} place={place} />}
      {on !== nominal && !sameLine && (
        <circle
          cx={x(nominal)}
          cy={y(nominal)}
          r={8}
          fill="none"
          stroke="var(--color-primary)"
          strokeWidth={1.3}
          strokeDasharray="2.500 2.500"
        >
          <title>{`${sayDay(nominal, today)}: moved to ${sayDay(on, today)}`}</title>
        </circle>
      )}
      {on === today && (
        <rect x={x(on) - cell / 2} y={y(on) - ROW / 2 + 1} width={cell} height={ROW - 2} fill="var(--color-accent)" />
      )}
      {isAdded && <circle cx={x(on)} cy={y(on)} r={10} fill="none" stroke="var(--color-primary)" strokeWidth={1.3} />}
      <circle
        cx={x(on)}
        cy={y(on)}
        r={isAdded ? 7.8 : 9.2}
        fill={fill}
        stroke={isForeseen ? 'var(--color-primary)' : 'none'}
        strokeDasharray={isForeseen ? '3 2' : undefined}
      >
        <title>{words.join(', ')}</title>
      </circle>
      <text
        x={x(on)}
        y={y(on) + 4.5}
        textAnchor="middle"
        fill={isForeseen || on < today ? 'var(--ink)' : 'var(--color-primary-content)'}
        style={isAdded ? SMALL_DAY_FONT : DAY_FONT}
        pointerEvents="none"
      >
        {yearMonthDay(on).day}
      </text>
      {change && (
        <circle
          cx={x(on) + 8}
          cy={y(on) - 7}
          r={2.6}
          fill="var(--ink)"
          stroke="var(--color-base-100)"
          strokeWidth={1}
        />
      )}
    </g>
  );
}

/** From the hollow date, along the line, into the filled one. */
function Slip({
  from,
  to,
  place: { x, y, cell },
}: {
  readonly from: CivilDay;
  readonly to: CivilDay;
  readonly place: Place;
}) {
  const [left, right] = [Math.min(x(from), x(to)), Math.max(x(from), x(to))];
  const gap = Math.abs(to - from);
  const middle = y(from);
  const back = to < from ? -1 : 1;
  return (
    <g>
      <rect
        x={left - 9}
        y={middle - 9}
        width={right - left + 18}
        height={18}
        rx={9}
        fill="var(--color-base-100)"
        stroke="var(--color-primary)"
        strokeWidth={1.3}
      />
      <text
        x={x(from) - back * (gap === 1 ? 2 : 0)}
        y={middle + 4.5}
        textAnchor="middle"
        fill="var(--ink)"
        style={{ ...DAY_FONT, fontWeight: 600 }}
      >
        {yearMonthDay(from).day}
      </text>
      {gap > 1 && cell > 13 && (
        <path
          d={`M${x(from) + back * 9} ${middle}H${x(to) - back * 12}M${x(to) - back * 15.5} ${middle - 3.5}l${back * 4} 3.5l${-back * 4} 3.5`}
          fill="none"
          stroke="var(--color-primary)"
          strokeWidth={1.3}
        />
      )}
    </g>
  );
}
