import type { RefObject } from 'react';
import { DayPicker as Days } from 'react-day-picker';
import { type CivilDay, civilDay, yearMonthDay } from '../../core/index.ts';
import { Popover } from './popover.tsx';
import { waysShown } from './ways.ts';

interface DayPickerProps {
  readonly label: string;
  readonly anchor: RefObject<HTMLButtonElement | null>;
  readonly chosen: CivilDay;
  readonly today: CivilDay;
  readonly onChoose: (day: CivilDay) => void;
  readonly onClose: () => void;
}

/** The library counts in moments: noon of a day here is never another day's. */
function momentOf(day: CivilDay): Date {
  const { year, month, day: date } = yearMonthDay(day);
  return new Date(year, month - 1, date, 12);
}

/** A month to choose a day from. */
export default function DayPicker({ label, anchor, chosen, today, onChoose, onClose }: DayPickerProps) {
  return (
    <Popover label={`${label}: a month`} anchor={anchor} backTo={anchor} focusesItself onClose={onClose}>
      <Days
        mode="single"
        required
        autoFocus
        weekStartsOn={(waysShown().weekStarts % 7) as 0 | 1 | 6}
        showOutsideDays
        fixedWeeks
        captionLayout="label"
        today={momentOf(today)}
        selected={momentOf(chosen)}
        defaultMonth={momentOf(chosen)}
        onSelect={(moment) => onChoose(civilDay(moment.getFullYear(), moment.getMonth() + 1, moment.getDate()))}
        classNames={{
          root: 'p-2 text-row leading-none',
          months: 'relative',
          month_caption: 'flex h-8 items-center justify-center font-head text-body font-semibold',
          nav: 'absolute inset-x-0 top-0 flex h-8 items-center justify-between',
          button_previous: 'grid h-8 w-8 cursor-pointer place-items-center rounded-[4px] hover:bg-base-200',
          button_next: 'grid h-8 w-8 cursor-pointer place-items-center rounded-[4px] hover:bg-base-200',
          chevron: 'h-4 w-4 fill-current',
          weekday: 'h-7 w-9 text-note font-normal text-ink-2',
          day: 'p-0 text-center',
          day_button: 'h-8 w-9 cursor-pointer rounded-[3px] hover:bg-base-200',
          outside: 'text-ink-2',
          today: '[&>button]:shadow-[inset_0_-3px_0_var(--color-accent)]',
          selected: '[&>button]:bg-primary [&>button]:text-primary-content',
        }}
      />
    </Popover>
  );
}
