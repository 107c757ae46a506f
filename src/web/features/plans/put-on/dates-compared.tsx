import { useMemo } from 'react';
import {
  type CivilDay,
  civilDay,
  isDated,
  monthShort,
  monthsLater,
  PLAIN_TIMING,
  type PlanItem,
  planDays,
  reckoningFault,
  recurrenceProblems,
  scheduleOfItem,
  type WorkingCalendar,
  yearMonthDay,
} from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { sayDate } from '../../../kit/ways.ts';

const DAYS = 365;

interface DatesComparedProps {
  readonly item: PlanItem;
  readonly own: PlanItem;
  readonly name: string;
  readonly from: CivilDay;
}

/** The dates of a year as the plan says, and below them those of one client. */
export function DatesCompared({ item, own, name, from }: DatesComparedProps) {
  const { workingCalendar } = useWorkspace();
  const plan = useMemo(() => datesOf(item, from, workingCalendar), [item, from, workingCalendar]);
  const theirs = useMemo(() => datesOf(own, from, workingCalendar), [own, from, workingCalendar]);
  const { year, month } = yearMonthDay(from);
  const months = Array.from({ length: 12 }, (_, i) => monthsLater(civilDay(year, month, 1), i + 1)).filter(
    (first) => first < from + DAYS,
  );
  return (
    <div className="mt-1 grid grid-cols-[104px_minmax(0,1fr)] gap-x-3 text-note leading-4.5 max-[720px]:hidden">
      <span />
      <span aria-hidden className="relative block h-4.5">
        {months.map((first) => (
          <span key={first} className="absolute text-ink-2" style={{ left: placeOf(first, from) }}>
            {monthShort(yearMonthDay(first).month)}
          </span>
        ))}
      </span>
      <Line name="as the plan" dates={plan} from={from} look="border border-petrol-2 bg-base-100" />
      <Line name={name} dates={theirs} from={from} look="bg-primary text-primary-content" />
    </div>
  );
}

const placeOf = (day: CivilDay, from: CivilDay): string => `${(100 * (day - from)) / DAYS}%`;

/** Of more, the bare line is told. */
const MOST = 30;

interface LineProps {
  readonly name: string;
  readonly dates: readonly CivilDay[] | null;
  readonly from: CivilDay;
  readonly look: string;
}

function Line({ name, dates, from, look }: LineProps) {
  return (
    <>
      <span className="truncate leading-6">{name}</span>
      <span className="relative block h-6 before:absolute before:top-3 before:right-0 before:left-0 before:h-px before:bg-line-2 before:content-['']">
        {dates === null || dates.length === 0 ? (
          <span className="absolute bg-base-100 pr-2 leading-6 text-ink-2">no dates</span>
        ) : dates.length > MOST ? (
          <span className="absolute bg-base-100 pr-2 leading-6">{dates.length} dates</span>
        ) : (
          dates.map((day) => (
            <span
              key={day}
              title={sayDate(day)}
              className={`absolute top-0.5 -ml-2.5 grid h-5 w-5 place-items-center rounded-full font-mono text-[11px] leading-5 font-semibold ${look}`}
              style={{ left: placeOf(day, from) }}
            >
              {yearMonthDay(day).day}
            </span>
          ))
        )}
      </span>
    </>
  );
}

/** Null where the rule gives none: what is wrong with it is told where it is looked at. */
function datesOf(item: PlanItem, from: CivilDay, calendar: WorkingCalendar): readonly CivilDay[] | null {
  const schedule = scheduleOfItem(item, from);
  const { recurrence } = schedule;
  if (reckoningFault({ recurrence, timing: PLAIN_TIMING }, calendar, from) !== null) return null;
  if (recurrenceProblems(recurrence, calendar).length > 0) return null;
  return planDays(schedule, calendar, from, from + DAYS - 1)
    .filter(isDated)
    .map(({ on }) => on);
}
