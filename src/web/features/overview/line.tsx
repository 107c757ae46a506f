import type { ReactNode } from 'react';
import { Link } from 'react-router';

export interface LineProps {
  readonly glyph: ReactNode;
  /** How late it is, or since when it goes on; left out where lines have no such column. */
  readonly when?: string;
  readonly isLate?: boolean;
  readonly title: string;
  readonly to: string;
  readonly sub: string;
  /** Left out where lines have no such column. */
  readonly who?: ReactNode;
  /** What is told at its end, and the one thing to do next. */
  readonly end: ReactNode;
}

const WIDE = 'grid-cols-[24px_92px_minmax(0,1fr)_120px_184px]';
const SHORT = 'grid-cols-[24px_minmax(0,1fr)_auto]';
const PHONE =
  'max-[720px]:grid-cols-[24px_minmax(0,1fr)_auto] max-[720px]:h-auto max-[720px]:min-h-[52px] max-[720px]:px-4 max-[720px]:py-1.5';

/** One line of the morning page. */
export function Line({ glyph, when, isLate = false, title, to, sub, who, end }: LineProps) {
  const isWide = when !== undefined;
  const tone = isLate ? 'text-late' : 'text-ink-2';
  return (
    <li
      className={`grid h-7 items-center border-b border-line pr-5 text-row leading-4.5 last:border-b-0 hover:bg-base-200 ${isWide ? WIDE : SHORT} ${PHONE}`}
    >
      <span className="flex">{glyph}</span>
      {isWide && <span className={`max-[720px]:hidden ${tone}`}>{when}</span>}
      <span className="truncate pr-2 max-[720px]:whitespace-normal">
        <Link data-row to={to} className="text-body font-semibold hover:underline hover:underline-offset-3">
          {title}
        </Link>
        <span className="ml-2 text-ink-2">{sub}</span>
        {isWide && (
          <span className="hidden max-[720px]:block">
            <span className={tone}>{when}</span>
            <span className="text-ink-2">, </span>
            {who}
          </span>
        )}
      </span>
      {isWide && <span className="truncate max-[720px]:hidden">{who}</span>}
      <span className="flex items-center justify-end gap-2 pl-2.5 text-right whitespace-nowrap text-ink-2">{end}</span>
    </li>
  );
}

/** What of a kind is not shown, as the way to all of it. */
export function MoreLines({
  count,
  shown,
  to,
}: {
  readonly count: number;
  readonly shown: number;
  readonly to: string;
}) {
  if (count <= shown) return null;
  return (
    <li className="flex h-7 items-center text-row max-[720px]:h-11 max-[720px]:px-4">
      <Link data-row className="link-line" to={to}>
        and {count - shown} more
      </Link>
    </li>
  );
}
