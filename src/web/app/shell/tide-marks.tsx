import { type CivilDay, yearMonthDay } from '../../../core/index.ts';
import { daysIntoWeek, sayDayOfMonth, sayShortDay } from '../../kit/ways.ts';

/** The line that columns stand on, in pixels from the top. */
export const BASE = 52;

interface ColumnProps {
  readonly x: number;
  readonly width: number;
  readonly y: (minutes: number) => number;
  readonly isPast: boolean;
  readonly done: number;
  readonly open: number;
  readonly projected: number;
}

/** The finished part at the foot, what is open above it (vermilion when the day is past), what is not made yet dashed. */
export function Column({ x, width, y, isPast, done, open, projected }: ColumnProps) {
  const left = Math.round(x + Math.min(3, width * 0.14));
  const wide = Math.max(3, Math.round(width - Math.min(7, width * 0.3)));
  const made = done + open;
  // A sliver of late work must still be seen.
  const openTop = Math.min(y(made), y(done) - (open > 0 ? 3 : 0));
  return (
    <>
      {open > 0 && (
        <rect
          x={left}
          y={openTop}
          width={wide}
          height={y(done) - openTop}
          fill={isPast ? 'var(--late-fill)' : 'var(--petrol-2)'}
        />
      )}
      {done > 0 && <rect x={left} y={y(done)} width={wide} height={BASE - y(done)} fill="var(--color-primary)" />}
      {projected > 0 && (
        <rect
          x={left + 0.5}
          y={y(made + projected) + 0.5}
          width={wide - 1}
          height={Math.max(2, y(made) - y(made + projected) - 1)}
          fill="none"
          stroke="var(--petrol-2)"
          strokeDasharray="2 2"
        />
      )}
    </>
  );
}

export function topOf(
  load: { done: number; open: number; projected: number } | undefined,
  y: (minutes: number) => number,
): number {
  return load ? y(load.done + load.open + load.projected) : BASE;
}

export function Mark({ x, y }: { readonly x: number; readonly y: number }) {
  return <path d={`M${x - 5} ${Math.max(1, y - 8.5)}h10l-5 6z`} fill="var(--ink)" />;
}

export function HorizonLine({
  x,
  isShown,
  mark,
}: {
  readonly x: number;
  readonly isShown: boolean;
  readonly mark: string | undefined;
}) {
  return (
    <>
      {isShown && (
        <>
          <path d={`M${x + 0.5} 4V${BASE}`} stroke="var(--ink-2)" />
          <text x={x + 5} y={14} fill="var(--ink-2)">
            not made yet
          </text>
        </>
      )}
      {mark && isShown && (
        <>
          <path d={`M${x - 22 - mark.length * 6} 5h10l-5 6z`} fill="var(--ink)" />
          <text x={x - 7} y={14} textAnchor="end" fill="var(--ink)">
            {mark}
          </text>
        </>
      )}
    </>
  );
}

interface DayLabelsProps {
  readonly days: readonly { readonly day: CivilDay }[];
  readonly x: (day: CivilDay) => number;
  readonly columnWidth: number;
  readonly narrow: boolean;
  readonly today: CivilDay;
}

/** In pixels, with some room around it: a day of the month, and the two ways of writing the Monday of a week. */
const FIGURE_WIDTH = 20;
const WEEKDAY_WIDTH = 82;
const DATE_WIDTH = 54;

export function DayLabels({ days, x, columnWidth, narrow, today }: DayLabelsProps) {
  const isNearToday = (day: CivilDay) => day !== today && day > today - 4 && day < today + 3;
  return (
    <>
      {days.map(({ day }, i) => {
        // Magnified on a phone, only every other figure, or fewer, has room.
        if (narrow && day !== today && (day - today) % Math.ceil(FIGURE_WIDTH / columnWidth) !== 0) return null;
        if (day === today) {
          return (
            <g key={day}>
              <rect
                x={x(day) + columnWidth / 2 - (narrow ? columnWidth / 2 : 24)}
                y={BASE + 2}
                width={narrow ? columnWidth : 48}
                height={17}
                rx={2}
                fill="var(--color-accent)"
              />
              <text
                x={x(day) + columnWidth / 2}
                y={BASE + 15}
                textAnchor="middle"
                fontWeight={650}
                fill="var(--color-accent-content)"
              >
                {narrow ? yearMonthDay(day).day : 'Today'}
              </text>
            </g>
          );
        }
        if (narrow) {
          return (
            <text key={day} x={x(day) + columnWidth / 2} y={BASE + 15} textAnchor="middle" fill="var(--ink-2)">
              {yearMonthDay(day).day}
            </text>
          );
        }
        if (daysIntoWeek(day) !== 0 || isNearToday(day) || i > days.length - 4) return null;
        // Where weeks are narrow it goes without saying that all of them begin a week; narrower still, some weeks are left out.
        const everyNth = Math.ceil(DATE_WIDTH / (columnWidth * 7));
        if (Math.floor((day - today) / 7) % everyNth !== 0) return null;
        return (
          <text key={day} x={x(day) + 3} y={BASE + 15} fill="var(--ink-2)">
            {columnWidth * 7 < WEEKDAY_WIDTH ? sayDayOfMonth(day) : sayShortDay(day)}
          </text>
        );
      })}
    </>
  );
}
