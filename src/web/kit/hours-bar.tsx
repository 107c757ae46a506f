interface HoursBarProps {
  /** Minutes. */
  readonly before: number;
  readonly after: number;
  readonly capacity: number;
}

/** Hours before and after against capacity: what comes or goes is hatched, what lies past the mark of the capacity solid. */
export function HoursBar({ before, after, capacity }: HoursBarProps) {
  const most = Math.max(before, after, capacity, 1);
  const share = (minutes: number) => `${(100 * minutes) / most}%`;
  const least = Math.min(before, after);
  return (
    <span aria-hidden className="relative block h-2 bg-base-300">
      <i className="absolute inset-y-0 left-0 bg-petrol-2" style={{ width: share(least) }} />
      <i
        className="hatched absolute inset-y-0"
        style={{ left: share(least), width: share(Math.abs(after - before)) }}
      />
      {after > capacity && (
        <i className="absolute inset-y-0 bg-ink" style={{ left: share(capacity), width: share(after - capacity) }} />
      )}
      <i className="absolute -inset-y-[2px] w-[2px] bg-ink" style={{ left: `min(100% - 2px, ${share(capacity)})` }} />
    </span>
  );
}
