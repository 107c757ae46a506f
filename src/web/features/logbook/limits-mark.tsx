import type { LogReading } from '../../../contract/index.ts';

/** How far a reading lies out of its limits, small: the allowed part light, what is outside as a dark block. */
export function LimitsMark({ reading: { value, least, most } }: { readonly reading: LogReading }) {
  const isAbove = most !== null && value > most;
  const span = least !== null && most !== null ? most - least : Math.abs(isAbove ? (most ?? 1) : (least ?? 1)) || 1;
  const beyond = isAbove ? value - (most ?? 0) : (least ?? 0) - value;
  // Of the 40 pixels the allowed part has at least half.
  const out = Math.max(4, Math.min(18, (beyond / (span || 1)) * 22));
  return (
    <span aria-hidden className="relative h-1.5 w-10 flex-none">
      <i className={`absolute inset-y-0 bg-petrol-2 ${isAbove ? 'left-0' : 'right-0'}`} style={{ width: 40 - out }} />
      <i className={`absolute -inset-y-px bg-ink ${isAbove ? 'right-0' : 'left-0'}`} style={{ width: out }} />
    </span>
  );
}
