import { type KeyboardEvent, type PointerEvent, useCallback, useId, useRef, useState } from 'react';
import {
  type CivilDay,
  civilDay,
  daysInMonth,
  isDated,
  monthIndexOf,
  monthOf,
  monthStart,
  moveDate,
  type PlannedYear,
  plural,
  sayDay,
  type Weekday,
  weekdayOf,
  yearMonthDay,
} from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { useWidth } from '../../../kit/width.ts';
import type { BenchDraft } from '../bench/bench-draft.ts';
import { DayMenu } from './day-menu.tsx';
import { Bands, MonthLine } from './year-lines.tsx';
import { Mark, Today } from './year-mark.tsx';
import { COLUMNS, DAY_FONT, HEAD, LEFT, RIGHT, ROW } from './year-place.ts';

interface YearViewProps {
  readonly year: PlannedYear;
  readonly draft: BenchDraft;
  /** Left out for those who may look only. */
  readonly edit: YearEdit | null;
  /** Shows the twelve months before (-1) or after (1). */
  readonly onPage: (step: -1 | 1) => void;
}

export interface YearEdit {
  readonly onChange: (draft: BenchDraft) => void;
  readonly onRevise: (day: CivilDay) => void;
}

/**
 * A year as twelve lines, weekdays lined up, so that weekends are bands and a moved date slides along its own line.
 * A click on a day, or Enter after the arrow keys, opens what can be changed about it; a mark can be dragged to another day.
 */
export function YearView({ year: shownYear, draft, edit, onPage }: YearViewProps) {
  const [frame, width] = useWidth<HTMLDivElement>();
  const { today, workingCalendar } = useWorkspace();
  const hatch = useId();
  const [cursor, setCursor] = useState<CivilDay | null>(null);
  const [open, setOpen] = useState<CivilDay | null>(null);
  const [drag, setDrag] = useState<Drag | null>(null);
  const close = useCallback(() => setOpen(null), []);

  const cell = Math.max(12, (width - LEFT - RIGHT) / COLUMNS);
  const firstMonth = monthIndexOf(shownYear.from);
  const months = Array.from({ length: 12 }, (_, i) => monthOf(firstMonth + i));
  const x = (day: CivilDay) => {
    const { year, month, day: date } = yearMonthDay(day);
    return LEFT + (weekdayOf(civilDay(year, month, 1)) - 1 + date - 1) * cell + cell / 2;
  };
  const y = (day: CivilDay) => HEAD + (monthIndexOf(day) - firstMonth) * ROW + ROW / 2;
  const place = { x, y, cell, hatch };
  /** A day of the drawing in the window. */
  const boxOf = (day: CivilDay) => {
    const { left = 0, top = 0 } = frame.current?.getBoundingClientRect() ?? {};
    return new DOMRect(left + x(day) - cell / 2, top + y(day) - ROW / 2, cell, ROW);
  };
  const dayAt = (event: PointerEvent<SVGSVGElement>): CivilDay | null => {
    const box = event.currentTarget.getBoundingClientRect();
    const row = Math.floor((event.clientY - box.top - HEAD) / ROW);
    const column = Math.floor((event.clientX - box.left - LEFT) / cell);
    if (row < 0 || row > 11) return null;
    const first = monthStart(firstMonth + row);
    const day = first + column - (weekdayOf(first) - 1);
    return day >= first && day < monthStart(firstMonth + row + 1) ? day : null;
  };
  const inYear = (day: CivilDay) => day >= shownYear.from && day <= shownYear.to;
  const shown = shownYear.occurrences;
  const on = (day: CivilDay) => shown.filter((one) => one.on === day || one.nominal === day);
  const dated = shown.filter(isDated);
  const taken = new Set(dated.map(({ on: day }) => day));

  const onKeyDown = (event: KeyboardEvent<HTMLDivElement>) => {
    if (event.target !== event.currentTarget) return;
    const page = ({ PageUp: -1, PageDown: 1 } as const)[event.key];
    if (page !== undefined) {
      event.preventDefault();
      setCursor(null);
      onPage(page);
    }
    const step = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -28, ArrowDown: 28 }[event.key];
    const here = cursor ?? (inYear(today) ? today : shownYear.from);
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
  const openedAt = useRef<{ getBoundingClientRect(): DOMRect }>(null);
  openedAt.current = opened === null ? null : { getBoundingClientRect: () => boxOf(opened) };
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
          className={`block touch-none text-note ${edit ? (drag ? 'cursor-grabbing' : 'cursor-pointer') : ''}`}
          width={width}
          height={HEAD + ROW * 12 + 1}
          role="img"
          aria-label={`The year in dates: ${plural(dated.length, 'time')} from ${sayDay(shownYear.from, today)} to ${sayDay(shownYear.to, today)}`}
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
          <Bands draft={draft} year={shownYear} place={place} />
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
          anchor={openedAt}
          backTo={frame}
          onChange={edit.onChange}
          onRevise={edit.onRevise}
          onClose={close}
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
