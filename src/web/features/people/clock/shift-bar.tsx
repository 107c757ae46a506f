import { type Shift, tryMinutesOfTime, windowOfShift } from '../../../../core/index.ts';
import { useWorkspace } from '../../../app/shell/workspace.tsx';
import { sayTime } from '../../../kit/ways.ts';

interface ShiftBarProps {
  readonly shifts: readonly Pick<Shift, 'from' | 'to'>[];
  /** The civil moment since which they are on; null where they are not. */
  readonly on: string | null;
}

const HOUR = 60;
/** A time is written at every other hour, or more seldom where the day is long. */
const MOST_TIMES = 6;

/** The day of somebody as a line: their shifts, since when they are on, and now. */
export function ShiftBar({ shifts, on }: ShiftBarProps) {
  const { nowMinutes } = useWorkspace();
  const windows = shifts.map(windowOfShift);
  const since = on === null ? null : (tryMinutesOfTime(on.slice(11, 16)) ?? null);
  const starts = [...windows.map(({ from }) => from), ...(since === null ? [] : [since])];
  const first = Math.floor(Math.min(...starts) / HOUR) * HOUR;
  const last = Math.ceil(Math.max(...windows.map(({ to }) => to), since === null ? 0 : nowMinutes) / HOUR) * HOUR;
  const at = (minutes: number) => `${(100 * (minutes - first)) / (last - first)}%`;
  const step = Math.max(1, Math.ceil((last - first) / HOUR / MOST_TIMES)) * HOUR;
  const times = Array.from({ length: Math.floor((last - first) / step) + 1 }, (_, i) => first + i * step);
  const isWithin = nowMinutes >= first && nowMinutes <= last;
  return (
    <div className="mt-2 px-4" aria-hidden>
      <div className="relative h-2">
        {windows.map(({ from, to }) => (
          <i
            key={from}
            className="absolute inset-y-0 bg-base-300"
            style={{ left: at(from), width: `calc(${at(to)} - ${at(from)})` }}
          />
        ))}
        {since !== null && since <= nowMinutes && (
          <i
            className="absolute inset-y-0 bg-primary"
            style={{ left: at(since), width: `calc(${at(nowMinutes)} - ${at(since)})` }}
          />
        )}
        {isWithin && <i className="absolute -inset-y-1 w-0.5 bg-accent" style={{ left: at(nowMinutes) }} />}
      </div>
      <div className="relative h-4 border-t border-line-2 text-note leading-4 text-ink-2">
        {times.map((minutes) => (
          <span key={minutes} className="absolute -translate-x-1/2" style={{ left: at(minutes) }}>
            {sayTime(`${String(Math.floor(minutes / HOUR) % 24).padStart(2, '0')}:00`)}
          </span>
        ))}
      </div>
    </div>
  );
}
