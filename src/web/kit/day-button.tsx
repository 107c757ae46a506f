import { CalendarDays } from 'lucide-react';
import { lazy, Suspense, useRef, useState } from 'react';
import type { CivilDay } from '../../core/index.ts';
import { useToday } from '../app/shell/workspace.tsx';

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
  const [open, setOpen] = useState(false);
  const button = useRef<HTMLButtonElement>(null);
  return (
    <span className="relative inline-block align-middle">
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
        <Suspense fallback={null}>
          <DayPicker
            label={label}
            anchor={button}
            chosen={chosen}
            today={today}
            onChoose={(day) => {
              onChoose(day);
              setOpen(false);
              button.current?.focus();
            }}
            onClose={() => setOpen(false)}
          />
        </Suspense>
      )}
    </span>
  );
}
