import type { ReactNode } from 'react';
import { Link } from 'react-router';

interface BandProps {
  readonly name: string;
  readonly count: number;
  readonly isLate?: boolean;
  /** The list of all that the figure counts. */
  readonly to?: string;
  /** In the margin, below the name. */
  readonly asides?: readonly string[];
  /** In the margin, below all else. */
  readonly deed?: ReactNode;
  /** Where it stands: on a page, or in a dialog with wider edges. */
  readonly on?: 'page' | 'dialog';
  readonly children: ReactNode;
}

const PLACES = {
  page: { columns: 'grid-cols-[104px_minmax(0,1fr)]', head: 'pl-5 pr-2 max-[720px]:pl-4' },
  dialog: { columns: 'grid-cols-[116px_minmax(0,1fr)]', head: 'pl-6 pr-2' },
} as const;

/** Lines that stand together, under their number and what they have in common. */
export function Band({ name, count, isLate = false, to, asides = [], deed, on = 'page', children }: BandProps) {
  const { columns, head } = PLACES[on];
  return (
    <section data-band className={`grid border-t border-line-2 max-[720px]:grid-cols-[minmax(0,1fr)] ${columns}`}>
      <h2
        className={`pt-[9px] pb-2 text-body leading-4.5 max-[720px]:flex max-[720px]:items-baseline max-[720px]:gap-1.5 max-[720px]:pt-2 max-[720px]:pr-4 max-[720px]:pb-[3px] ${head} ${isLate ? 'text-late' : ''}`}
      >
        <b className="block font-head text-[28px] leading-7 font-bold normal-nums font-stretch-[80%] max-[720px]:[font:inherit] max-[720px]:[font-stretch:inherit]">
          {to === undefined ? (
            count
          ) : (
            <Link
              to={to}
              className="hover:underline hover:decoration-2 hover:underline-offset-4"
              aria-label={`${count} ${name}: show all`}
            >
              {count}
            </Link>
          )}
        </b>
        {name}
        {asides.map((words) => (
          <span
            key={words}
            className="block font-sans text-note leading-4 font-normal font-stretch-normal normal-nums text-ink-2 max-[720px]:ml-auto"
          >
            {words}
          </span>
        ))}
        {deed}
      </h2>
      <div>{children}</div>
    </section>
  );
}
