import { type CivilDay, monthShort, weekdayOf, weekdayShort, yearMonthDay } from '../../core/index.ts';
import { useToday } from '../app/shell/workspace.tsx';
import { waysShown } from './ways.ts';

interface DateBlockProps {
  readonly day: CivilDay;
  readonly look?: 'late' | 'quiet' | 'large' | 'large late';
}

/** A date as one line of a tide table, the figure large; the year only when it is not this one. */
export function DateBlock(props: DateBlockProps) {
  return <DateBlockOn {...props} today={useToday()} />;
}

/** The figure's size and weight by its look. */
const FIGURE = {
  late: 'text-[19px] font-[650]',
  usual: 'text-[19px] font-[650]',
  quiet: 'text-[17px] font-[450]',
  large: 'text-[24px] font-[650]',
  'large late': 'text-[24px] font-[650]',
} as const;

/** The same outside the application's own pages, where today is told. */
export function DateBlockOn({ day, look, today }: DateBlockProps & { readonly today: CivilDay }) {
  const { year, month, day: date } = yearMonthDay(day);
  const isLarge = look === 'large' || look === 'large late';
  const isLate = look === 'late' || look === 'large late';
  const dayFirst = waysShown().dateOrder === 'day first';
  return (
    <span
      className={`inline-grid ${isLarge ? 'grid-flow-col' : dayFirst ? 'grid-cols-[29px_23px_auto]' : 'grid-cols-[29px_27px_23px_auto]'} items-baseline gap-x-[5px] ${isLarge ? 'text-[15px]' : 'text-note'} leading-5.5 whitespace-nowrap ${isLate ? 'text-late' : 'text-ink-2'}`}
    >
      <span>{weekdayShort(weekdayOf(day))}</span>
      {!dayFirst && <span>{monthShort(month)}</span>}
      <b
        className={`text-right font-head leading-5.5 tracking-[-0.01em] font-stretch-[80%] ${FIGURE[look ?? 'usual']} ${isLate ? '' : 'text-ink'} ${day === today ? 'shadow-[inset_0_-3px_0_var(--color-accent)]' : ''}`}
      >
        {date}
      </b>
      <span>
        {[dayFirst && monthShort(month), year !== yearMonthDay(today).year && year].filter(Boolean).join(' ')}
      </span>
    </span>
  );
}
