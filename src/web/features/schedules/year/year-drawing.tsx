import {
  type CivilDay,
  isDated,
  monthIndexOf,
  monthOf,
  type PlannedYear,
  yearMonthDay,
} from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import type { BenchDraft } from '../bench/bench-draft.ts';
import type { FaceOf } from '../bench/who-faces.ts';
import { Faces } from './year-faces.tsx';
import { Bands, MonthLine, WeekdayColumns } from './year-lines.tsx';
import { Mark, Today } from './year-mark.tsx';
import { DAY_FONT, type Place, ROW } from './year-place.ts';

interface YearDrawingProps {
  readonly year: PlannedYear;
  readonly draft: BenchDraft;
  readonly place: Place;
  readonly width: number;
  /** Where a mark is over that is being dragged. */
  readonly dragged: CivilDay | null;
  /** The day where the keyboard stands, or whose menu is open. */
  readonly ringed: CivilDay | null;
  readonly faceOf: FaceOf | null;
  readonly chosenId: string | null;
}

/** What the year shows, from what lies behind to what stands above. */
export function YearDrawing({ year, draft, place, width, dragged, ringed, faceOf, chosenId }: YearDrawingProps) {
  const { today, workingCalendar } = useWorkspace();
  const { x, y, cell, hatch } = place;
  const firstMonth = monthIndexOf(year.from);
  const months = Array.from({ length: 12 }, (_, i) => monthOf(firstMonth + i));
  const taken = new Set(year.occurrences.filter(isDated).map(({ on }) => on));
  return (
    <>
      <defs>
        <pattern id={hatch} width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V5" stroke="var(--line-2)" strokeWidth="1.6" />
        </pattern>
      </defs>
      <WeekdayColumns place={place} workingWeekdays={workingCalendar.workingWeekdays} />
      <Bands draft={draft} year={year} place={place} />
      {months.map(({ year: ofYear, month }, row) => (
        <MonthLine
          key={`${ofYear} ${month}`}
          year={ofYear}
          month={month}
          showsYear={month === 1 || row === 0}
          width={width}
          place={place}
          isHoliday={(day) => workingCalendar.holidayName(day) !== undefined}
          isOff={(day) => !workingCalendar.isWorkingDay(day)}
          skip={(day) => taken.has(day) || day === today}
        />
      ))}
      {today >= year.from && today <= year.to && !taken.has(today) && <Today day={today} place={place} />}
      {faceOf && (
        <Faces occurrences={year.occurrences.filter(isDated)} faceOf={faceOf} chosenId={chosenId} place={place} />
      )}
      {year.occurrences
        .filter((occurrence) => !faceOf || !isDated(occurrence))
        .map((occurrence) => (
          <Mark key={occurrence.nominal} occurrence={occurrence} today={today} place={place} />
        ))}
      {dragged !== null && (
        <g pointerEvents="none">
          <circle cx={x(dragged)} cy={y(dragged)} r={10.5} fill="var(--color-accent)" />
          <text
            x={x(dragged)}
            y={y(dragged) + 4.5}
            textAnchor="middle"
            fill="var(--color-accent-content)"
            style={DAY_FONT}
          >
            {yearMonthDay(dragged).day}
          </text>
        </g>
      )}
      {ringed !== null && (
        <rect
          x={x(ringed) - Math.max(cell / 2, 10.5)}
          y={y(ringed) - ROW / 2}
          width={Math.max(cell, 21)}
          height={ROW}
          rx={3}
          fill="none"
          stroke="var(--color-accent)"
          strokeWidth={2}
          pointerEvents="none"
        />
      )}
    </>
  );
}
