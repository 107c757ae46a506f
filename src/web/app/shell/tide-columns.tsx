import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState } from 'react';
import type { Tideline as TidelineAnswer } from '../../../contract/index.ts';
import { type CivilDay, dayOfIso } from '../../../core/index.ts';
import { sayDay } from '../../kit/ways.ts';
import { useWidth } from '../../kit/width.ts';
import { BASE, Column, DayLabels, HorizonLine, Mark, topOf } from './tide-marks.tsx';
import { type DaySpan, dayWords, spanWords, together } from './tide-words.ts';
import { useWorkspace } from './workspace.tsx';

export interface TidelineProps {
  readonly personId: string | undefined;
  readonly chosen: DaySpan | null;
  readonly onChoose: (span: DaySpan) => void;
  /** Whether a drag may choose several days. */
  readonly spans: boolean;
  /** Dates that the page is about, marked by small triangles. */
  readonly marks?: { readonly days: readonly CivilDay[]; readonly label: string } | undefined;
}

const TOP = 12;
const LEFT = 44;
const RIGHT = 28;

/** A column a day, the chosen ones framed; days are chosen by pointer and by keys. */
export function Columns({
  tide,
  personId,
  chosen,
  onChoose,
  spans,
  marks,
}: TidelineProps & { readonly tide: TidelineAnswer }) {
  const { today } = useWorkspace();
  const [frame, width] = useWidth<HTMLDivElement>();
  const [dragFrom, setDragFrom] = useState<CivilDay | null>(null);
  const [hover, setHover] = useState<number | null>(null);
  /** Where the arrow keys stand: ahead of the address, which the router draws when it is ready. */
  const cursor = useRef({ pivot: today, edge: today });
  const narrow = width > 0 && width < 500;
  const all = tide.days.map((day) => ({ ...day, day: dayOfIso(day.date) }));
  const days = narrow ? all.filter(({ day }) => day >= today - 3 && day <= today + 7) : all;
  const left = narrow ? 4 : LEFT;
  const columnWidth = (width - left - (narrow ? 8 : RIGHT)) / days.length;
  const first = days[0]?.day ?? today;
  const x = (day: CivilDay) => left + (day - first) * columnWidth;
  const isEmpty = days.every(({ done, open, projected }) => done + open + projected === 0);
  const peak = Math.max(60, ...days.map(({ done, open, projected }) => done + open + projected));
  const capacity = Math.max(0, ...days.map((day) => day.capacity));
  // One person's day is always seen against what it holds; a whole workspace is only where that leaves columns to see.
  const scale = capacity <= peak * (personId ? 4 : 1.6) ? Math.max(peak, capacity) * 1.06 : roundHours(peak);
  const y = (minutes: number) => BASE - (minutes / scale) * (BASE - TOP);
  const capacityFits = !isEmpty && capacity > 0 && capacity <= scale;

  const dayAt = (event: PointerEvent<Element>): CivilDay => {
    const box = event.currentTarget.getBoundingClientRect();
    const index = Math.floor((event.clientX - box.left - left) / columnWidth);
    return first + Math.max(0, Math.min(days.length - 1, index));
  };
  const choose = (a: CivilDay, b: CivilDay) => onChoose({ from: Math.min(a, b), to: Math.max(a, b) });
  const current = chosen ?? { from: today, to: today };
  const { from: chosenFrom, to: chosenTo } = current;
  useEffect(() => {
    const { pivot, edge } = cursor.current;
    if (Math.min(pivot, edge) === chosenFrom && Math.max(pivot, edge) === chosenTo) return;
    cursor.current = { pivot: chosenFrom, edge: chosenTo };
  }, [chosenFrom, chosenTo]);

  const onKeyDown = (event: KeyboardEvent) => {
    const step = { ArrowLeft: -1, ArrowRight: 1, PageUp: -7, PageDown: 7 }[event.key];
    const last = days.at(-1)?.day ?? today;
    const to = { Home: first, End: last }[event.key] ?? (step === undefined ? null : cursor.current.edge + step);
    if (to === null) return;
    event.preventDefault();
    const edge = Math.max(first, Math.min(last, to));
    cursor.current = { pivot: spans && event.shiftKey ? cursor.current.pivot : edge, edge };
    choose(cursor.current.pivot, edge);
  };

  const shown = hover === null ? null : days[hover];
  const said = days.filter(({ day }) => day >= current.from && day <= current.to);
  return (
    <div ref={frame} className="relative min-w-0 flex-1">
      {width > 0 && (
        <div
          className="cursor-pointer touch-pan-y"
          role="slider"
          tabIndex={0}
          aria-label="Day shown, by work due"
          aria-valuemin={first}
          aria-valuemax={days.at(-1)?.day}
          aria-valuenow={current.to}
          aria-valuetext={
            said.length > 0 ? `${spanWords(current, today)}: ${dayWords(together(said))}` : spanWords(current, today)
          }
          onKeyDown={onKeyDown}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            setDragFrom(dayAt(event));
          }}
          onPointerMove={(event) => {
            setHover(dayAt(event) - first);
            if (dragFrom !== null && spans) choose(dragFrom, dayAt(event));
          }}
          onPointerLeave={() => setHover(null)}
          onPointerUp={(event) => {
            if (dragFrom !== null) choose(spans ? dragFrom : dayAt(event), dayAt(event));
            setDragFrom(null);
          }}
        >
          <svg width={width} height={71} className="block text-note" aria-hidden="true">
            {days.map(
              ({ day, isOff }) =>
                isOff && (
                  <rect
                    key={day}
                    x={x(day)}
                    width={columnWidth}
                    height={BASE}
                    fill="var(--color-base-300)"
                    opacity={0.62}
                  />
                ),
            )}
            <rect x={x(today)} width={columnWidth} height={BASE + 2} fill="var(--color-accent)" opacity={0.34} />
            {days.map((load) => (
              <Column key={load.day} x={x(load.day)} width={columnWidth} y={y} isPast={load.day < today} {...load} />
            ))}
            <path d={`M${left - 6} ${BASE + 0.5}H${x(first + days.length)}`} stroke="var(--line-2)" />
            {capacityFits && (
              <path
                d={capacityPath(days, { x, y, width: columnWidth })}
                fill="none"
                stroke="var(--ink-2)"
                strokeDasharray="1 4"
              />
            )}
            {!narrow && (
              <g fill="var(--ink-2)" textAnchor="end">
                <text x={left - 9} y={BASE + 4}>
                  0
                </text>
                <text x={left - 9} y={capacityFits ? y(capacity) + 5 : TOP + 4}>
                  {capacityFits ? hours(capacity) : hours(scale)}
                </text>
              </g>
            )}
            {chosen && (
              <rect
                x={x(chosen.from) + 1}
                y={1}
                width={Math.max(2, (chosen.to - chosen.from + 1) * columnWidth - 2)}
                height={BASE}
                fill="none"
                stroke="var(--color-accent)"
                strokeWidth={2}
              />
            )}
            {[...new Set(marks?.days)].map(
              (day) =>
                day >= first &&
                day < first + days.length && (
                  <Mark key={day} x={x(day) + columnWidth / 2} y={topOf(days[day - first], y)} />
                ),
            )}
            <HorizonLine
              x={x(dayOfIso(tide.horizon) + 1)}
              isShown={!narrow && !isEmpty && dayOfIso(tide.horizon) < first + days.length - 1}
              mark={marks?.label}
            />
            <DayLabels days={days} x={x} columnWidth={columnWidth} narrow={narrow} today={today} />
          </svg>
        </div>
      )}
      {shown && (
        <p
          className="pointer-events-none absolute top-[74px] z-20 whitespace-nowrap rounded-[3px] bg-ink px-2 py-1 text-note leading-4 text-base-100"
          style={{ left: Math.max(0, Math.min(x(shown.day), width - 260)) }}
        >
          <b>{sayDay(shown.day, today)}</b> {dayWords(shown)}
        </p>
      )}
    </div>
  );
}
/** The next round number of hours at or above: 1, 2 or 5 times a power of ten, in half steps. */
function roundHours(minutes: number): number {
  const hour = minutes / 60;
  const step = 10 ** Math.floor(Math.log10(hour)) / 2;
  return Math.ceil(hour / step) * step * 60;
}

function hours(minutes: number): string {
  return `${Math.round(minutes / 6) / 10} h`.replace(/(\d\d)\.\d h/, '$1 h');
}

/** A level line over each day on which somebody works. */
function capacityPath(
  days: readonly { readonly day: CivilDay; readonly capacity: number }[],
  at: { readonly x: (day: CivilDay) => number; readonly y: (minutes: number) => number; readonly width: number },
): string {
  return days
    .filter(({ capacity }) => capacity > 0)
    .map(({ day, capacity }) => `M${at.x(day)} ${Math.round(at.y(capacity)) + 0.5}h${at.width}`)
    .join('');
}
