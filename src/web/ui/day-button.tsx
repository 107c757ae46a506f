import { CalendarDays } from 'lucide-react';
import { lazy, Suspense } from 'react';
import type { CivilDay } from '../../core/index.ts';
import { useToday } from '../shell/workspace.tsx';
import { usePopover } from './use-popover.ts';

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
  return (
    <span ref={root} className="relative inline-block align-middle" {...around}>
      <button
        ref={button}
        type="button"
        className={`grid h-6 w-6 cursor-pointer place-items-center rounded-[3px] text-ink-2 hover:bg-base-200 hover:text-ink ${className}`}
        title="Choose from a month"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        <CalendarDays size={15} aria-hidden />
        <span className="sr-only">{label}: choose from a month</span>
      </button>
      {open && (
        <span className="popover right-0 top-[28px] z-30 !w-auto min-[500px]:left-0 min-[500px]:right-auto">
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
