import { CalendarDays } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import type { CivilDay } from '../../core/index.ts';
import { useToday } from '../app/shell/workspace.tsx';
import { usePopover } from './use-popover.ts';

/** A month with its padding, and what stays free beside it at the edge. */
const MONTH_WIDTH = 290;
const EDGE = 8;

const DayPicker = lazy(() => import('./day-picker.tsx'));

interface DayButtonProps {
  readonly label: string;
  readonly chosen: CivilDay;
  readonly className?: string;
  readonly onChoose: (day: CivilDay) => void;
}

/** Opens a month to choose a day from, beside wherever a date stands. */
export function DayButton({ label, chosen, className = '', onChoose }: DayButtonProps) {
  const today = useToday();
  const { open, setOpen, close, root, button, around } = usePopover();
  const [left, setLeft] = useState(0);
  const toggle = () => {
    if (button.current) setLeft(shiftIn(button.current));
    setOpen(!open);
  };
  return (
    <span ref={root} className="relative inline-block align-middle" {...around}>
      <button
        ref={button}
        type="button"
        className={`grid h-6 w-6 cursor-pointer place-items-center rounded-[3px] text-ink-2 hover:bg-base-200 hover:text-ink ${className}`}
        title="Choose from a month"
        aria-expanded={open}
        onClick={toggle}
      >
        <CalendarDays size={15} aria-hidden />
        <span className="sr-only">{label}: choose from a month</span>
      </button>
      {open && (
        <span ref={intoView} className="popover top-[28px] z-30 w-auto" style={{ left }}>
          <Suspense fallback={<span className="block h-[290px] w-[268px]" />}>
            <DayPicker
              chosen={chosen}
              today={today}
              onChoose={(day) => {
                onChoose(day);
                close();
              }}
            />
          </Suspense>
        </span>
      )}
    </span>
  );
}

/** How far to the left of a button a month begins so that nothing cuts it off: the window, or a column that scrolls. */
function shiftIn(button: HTMLElement): number {
  let edge = document.documentElement.clientWidth;
  for (let around = button.parentElement; around; around = around.parentElement)
    if (getComputedStyle(around).overflowX !== 'visible') edge = Math.min(edge, around.getBoundingClientRect().right);
  return Math.min(0, edge - EDGE - MONTH_WIDTH - button.getBoundingClientRect().left);
}

/** A month that opens below what is seen of its column is scrolled up into it. */
function intoView(month: HTMLElement | null): void {
  month?.scrollIntoView({ block: 'nearest' });
}
