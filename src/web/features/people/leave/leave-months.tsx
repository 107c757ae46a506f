import { type PointerEvent, useState } from 'react';
import type { Leave } from '../../../../contract/index.ts';
import {
  type CivilDay,
  dayOfIso,
  monthIndexOf,
  monthOf,
  monthShort,
  monthStart,
  yearMonthDay,
} from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { useWidth } from '../../../kit/width.ts';
import { sayLeaveDays } from './leave-words.ts';

interface LeaveMonthsProps {
  readonly leave: readonly Leave[];
  readonly chosen: { readonly from: CivilDay; readonly to: CivilDay } | null;
  /** Left out for those who may look only. */
  readonly onChoose: ((from: CivilDay, to: CivilDay) => void) | null;
}

const MONTHS = 6;
const ROW = 20;
const LEFT = 34;
const DAYS = 31;

/** Half a year by months: leave that is given, asked for, and the days that are being chosen by dragging over them. */
export function LeaveMonths({ leave, chosen, onChoose }: LeaveMonthsProps) {
  const { today, workingCalendar } = useWorkspace();
  const [frame, width] = useWidth<HTMLDivElement>();
  const [drag, setDrag] = useState<{ readonly from: CivilDay; readonly to: CivilDay } | null>(null);
  const first = monthIndexOf(today);
  const cell = Math.max(6, (width - LEFT) / DAYS);
  const x = (day: CivilDay) => LEFT + (yearMonthDay(day).day - 1) * cell;
  const y = (day: CivilDay) => (monthIndexOf(day) - first) * ROW;
  const dayAt = (event: PointerEvent<SVGSVGElement>): CivilDay | null => {
    const box = event.currentTarget.getBoundingClientRect();
    const row = Math.floor((event.clientY - box.top) / ROW);
    const column = Math.floor((event.clientX - box.left - LEFT) / cell);
    if (row < 0 || row >= MONTHS || column < 0) return null;
    const day = monthStart(first + row) + column;
    return day < monthStart(first + row + 1) ? day : null;
  };
  const [start, end] = [monthStart(first), monthStart(first + MONTHS) - 1];
  const days = Array.from({ length: end - start + 1 }, (_, i) => start + i);
  const shown = leave.filter(
    ({ state, from, to }) => state !== 'refused' && dayOfIso(to) >= start && dayOfIso(from) <= end,
  );
  const marked = drag ? { from: Math.min(drag.from, drag.to), to: Math.max(drag.from, drag.to) } : chosen;
  return (
    <div ref={frame} className="mt-1.5">
      {width > 0 && (
        <svg
          role="img"
          aria-label={`Leave of half a year: ${shown.map((one) => sayLeaveDays(one, today)).join('; ') || 'none'}`}
          className={`block touch-none text-note ${onChoose ? 'cursor-pointer' : ''}`}
          width={width}
          height={MONTHS * ROW}
          onPointerDown={(event) => {
            const day = dayAt(event);
            if (!onChoose || day === null) return;
            event.currentTarget.setPointerCapture(event.pointerId);
            setDrag({ from: day, to: day });
          }}
          onPointerMove={(event) => {
            const day = drag === null ? null : dayAt(event);
            if (drag !== null && day !== null && day !== drag.to) setDrag({ ...drag, to: day });
          }}
          onPointerUp={() => {
            if (drag !== null && onChoose) onChoose(Math.min(drag.from, drag.to), Math.max(drag.from, drag.to));
            setDrag(null);
          }}
          onPointerCancel={() => setDrag(null)}
        >
          {Array.from({ length: MONTHS }, (_, row) => (
            <text
              // biome-ignore lint/suspicious/noArrayIndexKey: months are their places
              key={row}
              x={0}
              y={row * ROW + 14}
              fill="var(--ink)"
              style={{ font: '650 13px var(--font-head)', fontStretch: '88%' }}
            >
              {monthShort(monthOf(first + row).month)}
            </text>
          ))}
          {days.map((day) =>
            workingCalendar.isWorkingDay(day) ? (
              <circle key={day} cx={x(day) + cell / 2} cy={y(day) + ROW / 2} r={1.1} fill="var(--line-2)" />
            ) : (
              <rect key={day} x={x(day)} y={y(day)} width={cell} height={ROW} fill="var(--off)" />
            ),
          )}
          <rect x={x(today) + cell / 2 - 4} y={y(today) + 2} width={8} height={ROW - 4} fill="var(--color-accent)" />
          {shown.map((one) => (
            <Spans
              key={one.id}
              from={Math.max(start, dayOfIso(one.from))}
              to={Math.min(end, dayOfIso(one.to))}
              look={one.state === 'asked' ? 'asked' : one.half === null ? 'given' : 'half'}
              place={{ x, y, cell }}
            />
          ))}
          {marked && marked.to >= start && marked.from <= end && (
            <Spans
              from={Math.max(start, marked.from)}
              to={Math.min(end, marked.to)}
              look="chosen"
              place={{ x, y, cell }}
            />
          )}
        </svg>
      )}
    </div>
  );
}

interface SpansProps {
  readonly from: CivilDay;
  readonly to: CivilDay;
  readonly look: 'given' | 'half' | 'asked' | 'chosen';
  readonly place: {
    readonly x: (day: CivilDay) => number;
    readonly y: (day: CivilDay) => number;
    readonly cell: number;
  };
}

const LOOKS = {
  given: { fill: 'var(--color-primary)', stroke: 'none' },
  half: { fill: 'var(--petrol-3)', stroke: 'var(--color-primary)' },
  asked: { fill: 'var(--color-base-100)', stroke: 'var(--ink)', strokeDasharray: '3 2' },
  chosen: { fill: 'none', stroke: 'var(--color-accent)', strokeWidth: 2 },
} as const;

/** Days in a row as a bar on each month's line, with their dates where there is room. */
function Spans({ from, to, look, place: { x, y, cell } }: SpansProps) {
  const parts: { from: CivilDay; to: CivilDay }[] = [];
  for (let day = from; day <= to; ) {
    const last = Math.min(to, monthStart(monthIndexOf(day) + 1) - 1);
    parts.push({ from: day, to: last });
    day = last + 1;
  }
  return parts.map((part) => {
    const width = x(part.to) + cell - x(part.from);
    const [a, b] = [yearMonthDay(part.from).day, yearMonthDay(part.to).day];
    const words = a === b ? `${a}` : `${a}–${b}`;
    return (
      <g key={part.from} pointerEvents="none">
        <rect
          x={x(part.from) + 0.5}
          y={y(part.from) + 2.5}
          width={Math.max(width - 1, 6)}
          height={ROW - 5}
          rx={7}
          strokeWidth={1.3}
          {...LOOKS[look]}
        />
        {look !== 'chosen' && width > 22 && (
          <text
            x={x(part.from) + width / 2}
            y={y(part.from) + 14}
            textAnchor="middle"
            fill={look === 'given' ? 'var(--color-primary-content)' : 'var(--ink)'}
            style={{ font: '700 12px var(--font-head)', fontStretch: '80%' }}
          >
            {words}
          </text>
        )}
      </g>
    );
  });
}
