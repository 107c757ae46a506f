import { type CivilDay, monthShort, weekdayOf, weekdayShort, yearMonthDay } from '../../core/index.ts';
import { useToday } from '../app/shell/workspace.tsx';

interface DateBlockProps {
  readonly day: CivilDay;
  readonly look?: 'late' | 'quiet';
}

/** A date as one line of a tide table, the figure large; the year only when it is not this one. */
export function DateBlock({ day, look }: DateBlockProps) {
  const today = useToday();
  const { year, month, day: date } = yearMonthDay(day);
  const classes = ['date-block', day === today && 'is-today', look && `is-${look}`].filter(Boolean).join(' ');
  return (
    <span className={classes}>
      <span>{weekdayShort(weekdayOf(day))}</span>
      <b>{date}</b>
      <span>
        {monthShort(month)}
        {year === yearMonthDay(today).year ? '' : ` ${year}`}
      </span>
    </span>
  );
}
