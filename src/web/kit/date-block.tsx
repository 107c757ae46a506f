import { type CivilDay, monthShort, weekdayOf, weekdayShort, yearMonthDay } from '../../core/index.ts';
import { useToday } from '../app/shell/workspace.tsx';
import { waysShown } from './ways.ts';

interface DateBlockProps {
  readonly day: CivilDay;
  readonly look?: 'late' | 'quiet';
}

/** A date as one line of a tide table, the figure large; the year only when it is not this one. */
export function DateBlock({ day, look }: DateBlockProps) {
  const today = useToday();
  const { year, month, day: date } = yearMonthDay(day);
  const dayFirst = waysShown().dateOrder === 'day first';
  return (
    <span
      className={`inline-grid ${dayFirst ? 'grid-cols-[29px_23px_auto]' : 'grid-cols-[29px_27px_23px_auto]'} items-baseline gap-x-[5px] text-note leading-5.5 whitespace-nowrap ${look === 'late' ? 'text-late' : 'text-ink-2'}`}
    >
      <span>{weekdayShort(weekdayOf(day))}</span>
      {!dayFirst && <span>{monthShort(month)}</span>}
      <b
        className={`text-right font-head leading-5.5 tracking-[-0.01em] font-stretch-[80%] ${look === 'quiet' ? 'text-[17px] font-[450]' : 'text-[19px] font-[650]'} ${look === 'late' ? '' : 'text-ink'} ${day === today ? 'shadow-[inset_0_-3px_0_var(--color-accent)]' : ''}`}
      >
        {date}
      </b>
      <span>
        {[dayFirst && monthShort(month), year !== yearMonthDay(today).year && year].filter(Boolean).join(' ')}
      </span>
    </span>
  );
}
