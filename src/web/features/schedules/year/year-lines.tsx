import {
  type CivilDay,
  civilDay,
  closedOn,
  dayOfIso,
  daysInMonth,
  monthIndexOf,
  monthShort,
  type PlannedYear,
  pauseOn,
  type Weekday,
  weekdayName,
} from '../../../../core/index.ts';
import { weekdays } from '../../../kit/ways.ts';
import type { BenchDraft } from '../bench/bench-draft.ts';
import { COLUMNS, HEAD, LEFT, MONTH_FONT, type Place, ROW } from './year-place.ts';

interface WeekdayColumnsProps {
  readonly place: Place;
  readonly workingWeekdays: readonly Weekday[];
}

/** The weekdays above all months, and a band down those that are not worked. */
export function WeekdayColumns({ place: { cell }, workingWeekdays }: WeekdayColumnsProps) {
  const week = weekdays();
  return Array.from({ length: COLUMNS }, (_, column) => (
    // biome-ignore lint/suspicious/noArrayIndexKey: columns are their places
    <g key={column}>
      {!workingWeekdays.includes(week[column % 7] as Weekday) && (
        <rect x={LEFT + column * cell} y={HEAD} width={cell} height={ROW * 12} fill="var(--off)" />
      )}
      <text x={LEFT + column * cell + cell / 2} y={12} textAnchor="middle" fill="var(--ink-2)">
        {weekdayName(week[column % 7] as Weekday).charAt(0)}
      </text>
    </g>
  ));
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

/** One month: its name, its holidays and its working days. */
export function MonthLine({
  year,
  month,
  showsYear,
  width,
  place: { x, y, cell },
  isOff,
  isHoliday,
  skip,
}: MonthLineProps) {
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

/** Spans of days under the marks: hatched where paused or closed, tinted where a revision holds, with its first day marked. */
export function Bands({
  draft,
  year,
  place,
}: {
  readonly draft: BenchDraft;
  readonly year: PlannedYear;
  readonly place: Place;
}) {
  const { x, y, cell, hatch } = place;
  const days = Array.from({ length: year.to - year.from + 1 }, (_, i) => year.from + i);
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
        .filter((from) => from >= year.from && from <= year.to)
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
