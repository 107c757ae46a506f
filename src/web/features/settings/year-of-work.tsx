import type { Settings } from '../../../contract/index.ts';
import { type CivilDay, monthIndexOf, monthOf, plural, weekdayOf, yearMonthDay } from '../../../core/index.ts';
import { useToday } from '../../app/shell/workspace.tsx';
import { Figure } from '../../kit/figure.tsx';
import { useWidth } from '../../kit/width.ts';
import { LastChanged } from '../history/last-changed.tsx';
import { MonthLine, WeekdayColumns } from '../schedules/year/year-lines.tsx';
import { Today } from '../schedules/year/year-mark.tsx';
import { DAY_FONT, HEAD, placeOf, ROW } from '../schedules/year/year-place.ts';
import { calendarOf, sayChanges, workingDays, yearFrom } from './settings-changes.ts';

interface YearOfWorkProps {
  readonly saved: Settings;
  readonly draft: Settings;
}

/** The year that a working week and its days off make, and what is to be different in it. */
export function YearOfWork({ saved, draft }: YearOfWorkProps) {
  const today = useToday();
  const { from, to } = yearFrom(today);
  const [before, after] = [calendarOf(saved), calendarOf(draft)];
  const changes = sayChanges(saved, draft, today);
  const days = Array.from({ length: to - from + 1 }, (_, i) => from + i);
  const worked = (calendar: typeof after) => workingDays(calendar, from, to);
  const lost = days.filter(
    (day) => after.holidayName(day) !== undefined && draft.workingWeekdays.includes(weekdayOf(day)),
  ).length;
  const gained = days.filter((day) => after.isWorkingDay(day) && !before.isWorkingDay(day));
  const gone = days.filter((day) => !after.isWorkingDay(day) && before.isWorkingDay(day));
  return (
    <section
      className="min-w-0 overflow-y-auto pt-3 pr-5 pb-10 pl-6"
      aria-label="The year that this makes"
      // It scrolls and holds nothing to click: by keyboard it can be reached and read to its end only so.
      // biome-ignore lint/a11y/noNoninteractiveTabindex: see above
      tabIndex={0}
    >
      <div className="flex items-start gap-4 max-[720px]:flex-wrap">
        <h2 className="flex-1 text-[24px] leading-7.5">
          {changes.length === 0 ? 'The year as it is worked' : `${changes[0]}.`}
          {changes.length > 1 && (
            <span className="block text-row leading-5 font-normal text-ink-2">{changes.slice(1).join('. ')}.</span>
          )}
        </h2>
        <Changed words="working days a year" before={worked(before)} after={worked(after)} />
        <Figure words={lost === 1 ? 'lost to a day off' : 'lost to days off'}>{lost}</Figure>
      </div>
      <Drawing from={from} settings={draft} gained={gained} gone={gone} />
      <p className="flex flex-wrap gap-x-5 text-note leading-5 text-ink-2">
        <span>
          <i className="mr-1.5 inline-block h-3 w-4 bg-(--off) align-[-1px]" aria-hidden />
          day off
        </span>
        {gained.length > 0 && <span>○ becomes a working day, {gained.length} in this year</span>}
        {gone.length > 0 && <span>● becomes a day off, {gone.length} in this year</span>}
      </p>
      {changes.length > 0 && gained.length + gone.length > 0 && (
        <p className="mt-2 max-w-[62ch] text-row leading-5">
          What this moves, makes and takes back is shown before it is saved: nothing that people have seen or begun
          moves by itself.
        </p>
      )}
      <LastChanged of="settings" id="" />
    </section>
  );
}

function Changed({
  words,
  before,
  after,
}: {
  readonly words: string;
  readonly before: number;
  readonly after: number;
}) {
  return (
    <Figure words={words}>
      {after}{' '}
      {before !== after && (
        <small className="text-ink-2 line-through" title={`${before} now`}>
          {before}
        </small>
      )}
    </Figure>
  );
}

interface DrawingProps {
  readonly from: CivilDay;
  readonly settings: Settings;
  readonly gained: readonly CivilDay[];
  readonly gone: readonly CivilDay[];
}

function Drawing({ from, settings, gained, gone }: DrawingProps) {
  const [frame, width] = useWidth<HTMLDivElement>();
  const today = useToday();
  const place = placeOf(from, width, '');
  const { x, y } = place;
  const calendar = calendarOf(settings);
  const first = monthIndexOf(from);
  const marked = new Set([...gained, ...gone, today]);
  return (
    <div
      ref={frame}
      className="mt-2.5"
      role="img"
      aria-label={`Twelve months: ${plural(gained.length, 'day becomes', 'days become')} working, ${plural(gone.length, 'day becomes', 'days become')} a day off.`}
    >
      <svg width={width} height={HEAD + ROW * 12 + 2} className="block text-note" aria-hidden="true">
        <WeekdayColumns place={place} workingWeekdays={settings.workingWeekdays} />
        {Array.from({ length: 12 }, (_, row) => monthOf(first + row)).map(({ year, month }, row) => (
          <MonthLine
            key={`${year} ${month}`}
            year={year}
            month={month}
            showsYear={month === 1 || row === 0}
            width={width}
            place={place}
            isHoliday={(day) => calendar.holidayName(day) !== undefined}
            isOff={(day) => !calendar.isWorkingDay(day)}
            skip={(day) => marked.has(day)}
          />
        ))}
        <Today day={today} place={place} />
        {gained.map((day) => (
          <circle
            key={day}
            cx={x(day)}
            cy={y(day)}
            r={4.5}
            fill="none"
            stroke="var(--color-primary)"
            strokeWidth={1.5}
          />
        ))}
        {gone.map((day) => (
          <g key={day}>
            <circle cx={x(day)} cy={y(day)} r={9} fill="var(--color-primary)" />
            <text x={x(day)} y={y(day) + 4.5} textAnchor="middle" fill="var(--color-primary-content)" style={DAY_FONT}>
              {yearMonthDay(day).day}
            </text>
          </g>
        ))}
      </svg>
    </div>
  );
}
