import type { Welcome } from '../../../contract/index.ts';
import {
  type CivilDay,
  civilDay,
  dayOfIso,
  daysInMonth,
  isoWeekOf,
  makeCalendar,
  monthShort,
  ordinalWord,
  type WorkingCalendar,
  weekdayName,
  weekdayOf,
  weekdayShort,
  yearMonthDay,
} from '../../../core/index.ts';

const ROWS = 32;
const PAST_ROWS = 4;

/** What a tide table would be for work: each day with its week and its place among the working days of the month. */
export function DayTable({ welcome }: { readonly welcome: Welcome }) {
  const calendar = makeCalendar(welcome.calendar);
  const today = dayOfIso(welcome.now.slice(0, 10));
  const days = Array.from({ length: ROWS }, (_, i) => today - PAST_ROWS + i);
  return (
    <table className="w-[504px] border-collapse text-row leading-4.5">
      <thead>
        <tr className="border-b border-bar-dim text-note text-bar-dim">
          <th className="h-6 text-left font-normal">day</th>
          <th className="pr-6 text-right font-normal">week</th>
          <th className="pr-6 text-right font-normal">working day</th>
          <th className="pr-6 text-right font-normal">to go</th>
          <th className="font-normal">
            <span className="sr-only">what it is</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {days.map((day, i) => (
          <DayRow key={day} day={day} today={today} calendar={calendar} isFirst={i === 0} />
        ))}
      </tbody>
    </table>
  );
}

interface DayRowProps {
  readonly day: CivilDay;
  readonly today: CivilDay;
  readonly calendar: WorkingCalendar;
  readonly isFirst: boolean;
}

function DayRow({ day, today, calendar, isFirst }: DayRowProps) {
  const { month, day: date } = yearMonthDay(day);
  const isToday = day === today;
  const works = calendar.isWorkingDay(day);
  const place = placeInMonth(day, calendar);
  const tone = isToday ? 'font-semibold' : works && day > today ? '' : 'text-bar-dim';
  return (
    <tr
      className={`${isToday ? 'border-b-2 border-accent' : 'border-b border-bar-line'} ${tone}`}
      style={{ height: isToday ? 30 : 21, background: works ? undefined : 'rgb(255 255 255 / .04)' }}
    >
      <td className="whitespace-nowrap">
        <span className="inline-grid grid-cols-[30px_23px_auto] items-baseline gap-x-1.5 text-note">
          <span className={isToday ? '' : 'text-bar-dim'}>{weekdayShort(weekdayOf(day))}</span>
          <b
            className={`text-right font-head ${works ? 'font-[650]' : 'font-normal'} ${isToday ? 'text-[24px] leading-6.5' : 'text-[17px] leading-4.75'}`}
            style={{ fontStretch: '80%' }}
          >
            {date}
          </b>
          <span className={isToday ? '' : 'text-bar-dim'}>{monthShort(month)}</span>
        </span>
      </td>
      <td className="pr-6 text-right">{weekdayOf(day) === 1 || isToday || isFirst ? isoWeekOf(day).week : ''}</td>
      <td className="pr-6 text-right">{works ? place.nth : ''}</td>
      <td className="pr-6 text-right">{works ? place.left : ''}</td>
      <td className="whitespace-nowrap">{isToday ? 'today' : whatItIs(day, calendar, place)}</td>
    </tr>
  );
}

interface Place {
  readonly nth: number;
  readonly left: number;
}

function placeInMonth(day: CivilDay, calendar: WorkingCalendar): Place {
  const { year, month } = yearMonthDay(day);
  const first = civilDay(year, month, 1);
  const count = (from: CivilDay, to: CivilDay) => {
    let working = 0;
    for (let at = from; at <= to; at++) if (calendar.isWorkingDay(at)) working++;
    return working;
  };
  return { nth: count(first, day), left: count(day + 1, first + daysInMonth(year, month) - 1) };
}

function whatItIs(day: CivilDay, calendar: WorkingCalendar, { nth, left }: Place): string {
  const holiday = calendar.holidayName(day);
  if (holiday) return holiday;
  if (!calendar.isWorkingDay(day)) return '';
  if (nth === 1) return 'first working day';
  if (left === 0) return 'last working day';
  return `${ordinalWord(Math.ceil(yearMonthDay(day).day / 7))} ${weekdayName(weekdayOf(day))}`;
}
