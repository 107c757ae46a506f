import type { FillDay } from '../../../contract/index.ts';
import {
  type CivilDay,
  civilDay,
  dayOfIso,
  daysInMonth,
  monthIndexOf,
  monthOf,
  monthShort,
  plural,
  type Weekday,
  weekdayName,
} from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { daysIntoWeek, sayDay, weekdays } from '../../kit/ways.ts';

/** A month begins on any weekday: six weeks, less the last days that no month reaches. */
const COLUMNS = 37;

interface FillYearProps {
  readonly from: CivilDay;
  readonly to: CivilDay;
  readonly days: readonly FillDay[];
}

/** The period of a fill, a line a month, weekdays lined up: what is new on each day, there already, or left out. */
export function FillYear({ from, to, days }: FillYearProps) {
  const { workingCalendar, today } = useWorkspace();
  const byDay = new Map(days.map((one) => [dayOfIso(one.on), one]));
  const first = monthIndexOf(from);
  const week = weekdays();
  const months = Array.from({ length: monthIndexOf(to) - first + 1 }, (_, i) => monthOf(first + i));
  return (
    <section aria-label="The period, day by day" className="overflow-x-auto border-t border-line-2 px-5 py-2.5">
      <table className="border-separate border-spacing-px text-center text-note leading-5 tabular-nums">
        <thead>
          <tr>
            <td />
            {Array.from({ length: COLUMNS }, (_, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: columns never move
              <th key={i} scope="col" className="font-normal text-ink-2">
                {weekdayName(week[i % 7] as Weekday).charAt(0)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {months.map(({ year, month }) => {
            const start = civilDay(year, month, 1);
            const before = daysIntoWeek(start);
            return (
              <tr key={`${year} ${month}`}>
                <th scope="row" className="w-11 text-left font-head font-[650]">
                  {monthShort(month)}
                </th>
                {Array.from({ length: COLUMNS }, (_, i) => {
                  const day = start + i - before;
                  const isIn = i >= before && i < before + daysInMonth(year, month) && day >= from && day <= to;
                  const found = isIn ? byDay.get(day) : undefined;
                  return (
                    <td
                      // biome-ignore lint/suspicious/noArrayIndexKey: columns never move
                      key={i}
                      className={cellLook(found && fateOf(found), isIn && !workingCalendar.isWorkingDay(day))}
                      title={found && `${sayDay(day, today)}: ${sayFillDay(found)}`}
                    >
                      {found && <Mark day={found} />}
                    </td>
                  );
                })}
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="mt-1.5 flex flex-wrap gap-x-5 text-note leading-5 text-ink-2">
        <Legend fate="new" mark="3" words="new tasks" />
        <Legend fate="there" mark="2" words="already there" />
        <Legend fate="paused" mark="" words="paused" />
        <Legend fate="skipped" mark="×" words="skipped or deleted on purpose" />
        <Legend fate="dayOff" mark="–" words="left out: a day off" />
      </p>
    </section>
  );
}

type Fate = 'new' | 'there' | 'paused' | 'skipped' | 'dayOff';

const CELL = 'h-[21px] min-w-7 rounded-[2px] border text-center leading-4.75';
const FATES: Partial<Record<Fate, string>> = {
  new: 'border-transparent bg-primary font-[650] text-primary-content',
  there: 'border-primary text-primary',
  paused: 'border-transparent bg-[repeating-linear-gradient(135deg,transparent_0_3px,var(--line-2)_3px_4px)]',
};

/** A day off is shaded, but for what is made or paused on it. */
function cellLook(fate: Fate | undefined, isOff: boolean): string {
  const own = fate && FATES[fate];
  const shade = isOff && fate !== 'new' && fate !== 'paused' ? 'bg-base-300' : '';
  return [CELL, own ?? 'border-transparent', shade].filter(Boolean).join(' ');
}

/** What a day shows: what is made comes before what is not. */
function fateOf(day: FillDay): Fate {
  if (day.new > 0) return 'new';
  if (day.there > 0) return 'there';
  if (day.paused > 0) return 'paused';
  return day.skipped + day.deleted > 0 ? 'skipped' : 'dayOff';
}

function Mark({ day }: { readonly day: FillDay }) {
  const fate = fateOf(day);
  const marks = { new: day.new, there: day.there, paused: '', skipped: '×', dayOff: '–' };
  return (
    <>
      <span aria-hidden>{marks[fate]}</span>
      <span className="sr-only">{sayFillDay(day)}</span>
    </>
  );
}

function Legend({ fate, mark, words }: { readonly fate: Fate; readonly mark: string; readonly words: string }) {
  return (
    <span className="flex items-center gap-1.5">
      <span className={cellLook(fate, false)} aria-hidden>
        {mark}
      </span>
      {words}
    </span>
  );
}

/** "3 new tasks, 1 already there, 1 paused" */
function sayFillDay(day: FillDay): string {
  return [
    day.new > 0 && plural(day.new, 'new task'),
    day.there > 0 && `${day.there} already there`,
    day.paused > 0 && `${day.paused} paused`,
    day.skipped > 0 && `${day.skipped} skipped`,
    day.deleted > 0 && `${day.deleted} deleted on purpose`,
    day.dayOff > 0 && `${day.dayOff} left out on a day off`,
  ]
    .filter(Boolean)
    .join(', ');
}
