import { useId } from 'react';
import {
  type CivilDay,
  civilDay,
  daysInMonth,
  isDated,
  monthIndexOf,
  monthOf,
  monthShort,
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

const ROW = 20;
const HEAD = 18;
const LEFT = 44;
const RIGHT = 42;
/** Six weeks less the days a month can't reach: weekdays stand in columns. */
const COLUMNS = 37;

/** A year as twelve lines, weekdays lined up, so that weekends are bands and a moved date slides along its own line. */
export function YearView({ outlook }: { readonly outlook: Outlook }) {
  const [frame, width] = useWidth<HTMLDivElement>();
  const { today, workingCalendar } = useWorkspace();
  const hatch = useId();
  const cell = Math.max(12, (width - LEFT - RIGHT) / COLUMNS);
  const months = Array.from({ length: 12 }, (_, i) => monthOf(monthIndexOf(outlook.yearFrom) + i));
  const x = (day: CivilDay) => {
    const { year, month, day: date } = yearMonthDay(day);
    return LEFT + (weekdayOf(civilDay(year, month, 1)) - 1 + date - 1) * cell + cell / 2;
  };
  const y = (day: CivilDay) => HEAD + (monthIndexOf(day) - monthIndexOf(outlook.yearFrom)) * ROW + ROW / 2;
  const place = { x, y, cell, hatch };
  const taken = new Set(outlook.year.filter(isDated).map(({ on }) => on));
  const dated = outlook.year.filter(isDated).length;
  return (
    <div ref={frame} className="mt-2.5">
      {width > 0 && (
        <svg
          className="block text-[13px]"
          width={width}
          height={HEAD + ROW * 12 + 1}
          role="img"
          aria-label={`The year in dates: ${plural(dated, 'time')} from ${sayDay(outlook.yearFrom, today)} to ${sayDay(outlook.yearTo, today)}`}
        >
          <defs>
            <pattern id={hatch} width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <path d="M0 0V5" stroke="var(--ink-2)" strokeWidth="1.6" />
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
          {today >= outlook.yearFrom && today <= outlook.yearTo && !taken.has(today) && (
            <Today day={today} place={place} />
          )}
          {outlook.year.map((occurrence) => (
            <Mark key={occurrence.nominal} occurrence={occurrence} today={today} place={place} />
          ))}
        </svg>
      )}
    </div>
  );
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

/** Filled: worked that day. A capsule from the hollow date: moved off a day off. Cross: skipped. Hatch: paused. */
function Mark({
  occurrence,
  today,
  place,
}: {
  readonly occurrence: PlannedOccurrence;
  readonly today: CivilDay;
  readonly place: Place;
}) {
  const { x, y, cell, hatch } = place;
  const { on, nominal } = occurrence;
  if (!isDated(occurrence)) {
    if (occurrence.because === 'day off') {
      return (
        <path d={`M${x(on) - 4} ${y(on) - 4}l8 8m0 -8l-8 8`} stroke="var(--ink)" strokeWidth={1.5}>
          <title>{`${sayDay(on, today)}: a day off, skipped`}</title>
        </path>
      );
    }
    if (occurrence.because === 'paused') {
      return (
        <rect x={x(on) - cell / 2 + 1} y={y(on) - 7} width={cell - 2} height={14} fill={`url(#${hatch})`}>
          <title>{`${sayDay(on, today)}: paused`}</title>
        </rect>
      );
    }
    return null;
  }
  const sameLine = monthIndexOf(on) === monthIndexOf(nominal);
  return (
    <g>
      {on !== nominal && sameLine && <Slip from={nominal} to={on} place={place} />}
      {on === today && (
        <rect x={x(on) - cell / 2} y={y(on) - ROW / 2 + 1} width={cell} height={ROW - 2} fill="var(--color-accent)" />
      )}
      <circle cx={x(on)} cy={y(on)} r={9.2} fill={on < today ? 'var(--petrol-3)' : 'var(--color-primary)'}>
        <title>
          {on === nominal ? sayDay(on, today) : `${sayDay(on, today)}, moved from ${sayDay(nominal, today)}`}
        </title>
      </circle>
      <text
        x={x(on)}
        y={y(on) + 4.5}
        textAnchor="middle"
        fill={on < today ? 'var(--ink)' : 'var(--color-primary-content)'}
        style={DAY_FONT}
        pointerEvents="none"
      >
        {yearMonthDay(on).day}
      </text>
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
