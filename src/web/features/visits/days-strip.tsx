import { type CivilDay, plural, weekdayOf, yearMonthDay } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { sayShortDay } from '../../kit/ways.ts';

interface DaysStripProps {
  readonly sendBy: CivilDay;
  readonly visit: CivilDay;
}

/** Days that are drawn at the most: of a longer notice the words beside it tell. */
const MOST_DAYS = 26;
const MOST_NAMED = 16;

/** The latest day to send and the visit, as a line over the days between them; today and days off stand below it. */
export function DaysStrip({ sendBy, visit }: DaysStripProps) {
  const { today, workingCalendar } = useWorkspace();
  const first = Math.min(sendBy, today) - 1;
  const count = visit + 2 - first;
  const between = visit - sendBy;
  const words = `${sayShortDay(sendBy)} to ${sayShortDay(visit)}: ${plural(between, 'day')}`;
  if (count > MOST_DAYS) return <span className="text-note text-ink-2">{words}</span>;
  const days = Array.from({ length: count }, (_, i) => first + i);
  const isLate = sendBy < today;
  // Where there is no room for each, the Mondays are named; not beside today.
  const isNamed = (day: CivilDay) =>
    count <= MOST_NAMED || day === today || (weekdayOf(day) === 1 && Math.abs(day - today) > 1);
  const centre = (day: CivilDay) => `${((day - first + 0.5) / count) * 100}%`;
  return (
    <span role="img" aria-label={words} title={words} className="relative block h-12">
      <span className="absolute inset-0 grid" style={{ gridTemplateColumns: `repeat(${count}, minmax(0, 1fr))` }}>
        {days.map((day) => (
          <span
            key={day}
            className={`text-center text-[10px] leading-4 ${day === today ? 'bg-accent/25 font-semibold text-ink' : workingCalendar.isWorkingDay(day) ? 'text-ink-2' : 'bg-base-200 text-ink-2'}`}
          >
            {isNamed(day) && yearMonthDay(day).day}
          </span>
        ))}
      </span>
      <span
        className={`absolute top-[30px] h-0 border-t-2 ${isLate ? 'border-late' : 'border-primary'}`}
        style={{ left: centre(sendBy), width: `${(between / count) * 100}%` }}
      />
      <span
        className={`absolute top-[24px] -ml-[5px] h-3 w-2.5 border-2 bg-base-100 ${isLate ? 'border-late' : 'border-primary'}`}
        style={{ left: centre(sendBy) }}
      />
      <span className="absolute top-[22px] -ml-px h-4 border-l-2 border-ink" style={{ left: centre(visit) }} />
    </span>
  );
}
