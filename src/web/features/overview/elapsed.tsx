import { sayElapsed } from './overview-words.ts';

/** How long work has gone on, of how long it should: what is over stands past the end of the bar, dark. */
export function Elapsed({ minutes, estimate }: { readonly minutes: number; readonly estimate: number }) {
  const isOver = minutes > estimate;
  return (
    <span className="grid w-full grid-cols-[60px_minmax(0,1fr)] items-center gap-2.5 text-note max-[720px]:block">
      <span className="relative h-[5px] bg-base-300 max-[720px]:hidden">
        <i
          className="absolute inset-y-0 left-0 bg-petrol-2"
          style={{ width: `${Math.min(100, (minutes / estimate) * 100)}%` }}
        />
        {isOver && (
          <i
            className="absolute -top-px left-full h-[7px] bg-ink"
            style={{ width: `${Math.min(12, Math.max(3, (minutes / estimate - 1) * 30))}px` }}
          />
        )}
      </span>
      <span className={isOver ? 'font-semibold text-ink' : ''}>{sayElapsed(minutes, estimate)}</span>
    </span>
  );
}
