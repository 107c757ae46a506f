import {
  type CivilDay,
  civilDay,
  daysInMonth,
  monthIndexOf,
  monthOf,
  monthShort,
  type WorkingCalendar,
  weekdayOf,
  weekdayShort,
  yearMonthDay,
} from '../../../core/index.ts';

interface SetupYearProps {
  readonly today: CivilDay;
  readonly calendar: WorkingCalendar;
}

/** Room for a day of the string of a month, in pixels. */
const STEP = 8.2;

/** Twelve months as strings of days: tall what is worked, short what is off, a ring for a holiday that takes a working day. */
export function SetupYear({ today, calendar }: SetupYearProps) {
  const first = monthIndexOf(today);
  const months = Array.from({ length: 12 }, (_, i) => {
    const { year, month } = monthOf(first + i);
    const from = civilDay(year, month, 1);
    return { year, month, days: Array.from({ length: daysInMonth(year, month) }, (_, day) => from + day) };
  });
  const isTaken = (day: CivilDay) =>
    calendar.holidayName(day) !== undefined && calendar.workingWeekdays.includes(weekdayOf(day));
  const all = months.flatMap(({ days }) => days);
  const worked = all.filter((day) => calendar.isWorkingDay(day)).length;
  const taken = all.filter(isTaken).length;
  return (
    <table className="w-[504px] border-collapse text-row">
      <thead>
        <tr className="border-b border-bar-dim text-note text-bar-dim">
          <th className="h-6 text-left font-normal">month</th>
          <th>
            <span className="sr-only">its days</span>
          </th>
          <th className="pr-5 text-right font-normal">working</th>
          <th className="text-left font-normal">first</th>
          <th className="text-left font-normal">last</th>
        </tr>
      </thead>
      <tbody>
        {months.map(({ year, month, days }, i) => {
          const working = days.filter((day) => calendar.isWorkingDay(day));
          return (
            <tr key={`${year} ${month}`} className="h-[46px] border-b border-bar-line">
              <th scope="row" className="w-[46px] text-left leading-4.5 font-semibold">
                {monthShort(month)}
                {(i === 0 || month === 1) && <span className="block text-note font-normal text-bar-dim">{year}</span>}
              </th>
              <td>
                <svg width={STEP * 31} height={28} className="block" aria-hidden="true">
                  {days.map((day, at) => (
                    <DayStroke
                      key={day}
                      x={STEP * (at + 0.5)}
                      look={isTaken(day) ? 'holiday' : calendar.isWorkingDay(day) ? 'worked' : 'off'}
                      isToday={day === today}
                    />
                  ))}
                </svg>
              </td>
              <td className="pr-5 text-right font-head text-[19px] font-[650]" style={{ fontStretch: '80%' }}>
                {working.length}
              </td>
              <Edge day={working[0]} />
              <Edge day={working.at(-1)} />
            </tr>
          );
        })}
      </tbody>
      <tfoot>
        <tr className="h-11">
          <td />
          <td className="text-bar-dim">
            {taken === 0
              ? 'no holidays on working days'
              : `${taken} ${taken === 1 ? 'holiday' : 'holidays'} on working days, the rings`}
          </td>
          <td className="pr-5 text-right font-head text-[22px] font-bold" style={{ fontStretch: '80%' }}>
            {worked}
          </td>
          <td colSpan={2} className="text-bar-dim">
            days a year
          </td>
        </tr>
      </tfoot>
    </table>
  );
}

interface DayStrokeProps {
  readonly x: number;
  readonly look: 'worked' | 'off' | 'holiday';
  readonly isToday: boolean;
}

function DayStroke({ x, look, isToday }: DayStrokeProps) {
  if (look === 'holiday')
    return <circle cx={x} cy={14} r={2.8} fill="none" stroke="var(--color-bar-text)" strokeWidth={1.4} />;
  const half = look === 'worked' ? 11 : 3;
  return (
    <path
      d={`M${x} ${14 - half}V${14 + half}`}
      stroke={isToday ? 'var(--color-accent)' : look === 'worked' ? 'var(--color-bar-text)' : 'var(--color-bar-dim)'}
      strokeWidth={isToday ? 3.5 : 1.5}
    />
  );
}

function Edge({ day }: { readonly day: CivilDay | undefined }) {
  return (
    <td className="w-[62px] whitespace-nowrap">
      {day !== undefined && (
        <>
          <span className="inline-block w-8 text-bar-dim">{weekdayShort(weekdayOf(day))}</span>
          <b className="inline-block w-5 text-right font-semibold">{yearMonthDay(day).day}</b>
        </>
      )}
    </td>
  );
}
