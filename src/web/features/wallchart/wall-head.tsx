import { memo } from 'react';
import { columnOfDay, DAYS_A_WEEK, weekdayOf, yearMonthDay } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { dayAt, HEAD_HEIGHT, monthsOf, ROW_HEIGHT, type WallPlace } from './wall-place.ts';
import { sayColumn } from './wall-words.ts';

/** Pixels below which the name of a month has no room. */
const LEAST_NAME = 32;

interface HeadProps {
  readonly place: WallPlace;
  readonly from: number;
  readonly to: number;
}

/** The months, and the weeks or days below them. */
export const WallHead = memo(function WallHead({ place, from, to }: HeadProps) {
  const { today } = useWorkspace();
  const { days, column: wide, width, label } = place;
  const now = columnOfDay(days, today);
  return (
    <div
      role="row"
      aria-rowindex={1}
      className="sticky top-0 z-3 flex border-b border-line-2 bg-base-100"
      style={{ height: HEAD_HEIGHT, width: label + width }}
    >
      <div
        role="columnheader"
        aria-colindex={1}
        aria-label="Name"
        className="sticky left-0 z-1 flex-none border-r border-line-2 bg-base-100"
        style={{ width: label }}
      />
      <div className="relative" style={{ width }}>
        {monthsOf(days).map(({ column, name }, i, all) => (
          <span
            key={column}
            aria-hidden
            className="absolute top-0 border-l border-line-2 pl-1 font-head text-[15px] leading-5 font-[650] whitespace-nowrap font-stretch-[86%] first:border-l-0"
            style={{
              left: column * wide,
              width: ((all[i + 1]?.column ?? days.columns) - column) * wide,
              height: HEAD_HEIGHT,
            }}
          >
            {/* Of the month that has begun left of what is in view, too. */}
            {((all[i + 1]?.column ?? days.columns) - column) * wide >= LEAST_NAME && (
              <span className="sticky" style={{ left: label + 4 }}>
                {name}
              </span>
            )}
          </span>
        ))}
        {Array.from({ length: to - from + 1 }, (_, i) => from + i).map((column) => (
          <span
            key={column}
            role="columnheader"
            aria-colindex={column + 2}
            aria-label={sayColumn(days, column, today)}
            className={`absolute bottom-px text-center text-note leading-[18px] tabular-nums ${column === now ? 'z-1 bg-accent font-semibold text-accent-content' : 'text-ink-2'}`}
            style={{ left: column * wide, width: wide }}
          >
            {yearMonthDay(dayAt(days, column)).day}
          </span>
        ))}
      </div>
    </div>
  );
});

/** What lies behind all rows: the months, today, days off. */
export const WallGround = memo(function WallGround({ place, from, to, rows }: HeadProps & { readonly rows: number }) {
  const { today, workingCalendar } = useWorkspace();
  const { days, column: wide, width, label } = place;
  const height = rows * ROW_HEIGHT;
  const now = columnOfDay(days, today);
  const columns = Array.from({ length: to - from + 1 }, (_, i) => from + i);
  return (
    <svg
      aria-hidden
      width={width}
      height={height}
      className="pointer-events-none absolute block"
      style={{ left: label, top: HEAD_HEIGHT }}
    >
      {days.length < DAYS_A_WEEK &&
        columns
          .filter((column) => !workingCalendar.isWorkingDay(dayAt(days, column)))
          .map((column) => (
            <rect key={column} x={column * wide} y={0} width={wide} height={height} className="fill-base-200" />
          ))}
      {days.length < DAYS_A_WEEK &&
        columns
          .filter((column) => weekdayOf(dayAt(days, column)) === 1)
          .map((column) => (
            <path key={column} d={`M${column * wide} 0V${height}`} className="stroke-line" strokeWidth={1} />
          ))}
      {now >= 0 && now < days.columns && (
        <rect x={now * wide} y={0} width={wide} height={height} className="fill-accent" opacity={0.2} />
      )}
      {monthsOf(days)
        .filter(({ column }) => column > 0)
        .map(({ column }) => (
          <path key={column} d={`M${column * wide} 0V${height}`} className="stroke-line-2" strokeWidth={1} />
        ))}
    </svg>
  );
});
