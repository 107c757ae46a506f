import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { type Right, sayWhoMayAll } from '../../core/index.ts';
import type { ProblemError } from './api.ts';

/** An error says what happened, what was kept and what to do. */
export function Trouble({ error, retry }: { readonly error: ProblemError; readonly retry?: () => void }) {
  return (
    <div role="alert" className="mx-5 my-6 max-w-[560px] border-l-2 border-late pl-4">
      <p className="font-semibold">{error.problem.status === 404 ? 'Not here' : 'This could not be shown'}</p>
      <p className="text-ink-2">{error.message}</p>
      {retry && (
        <button type="button" className="btn mt-3" onClick={retry}>
          Try again
        </button>
      )}
    </div>
  );
}

/** Below a list of which some is not here. */
export function NotAll({ error, retry }: { readonly error: ProblemError; readonly retry: () => void }) {
  return (
    <p role="alert" className="border-t border-line px-5 py-1.5 text-row text-late">
      {error.message}{' '}
      <button type="button" className="link-line" onClick={retry}>
        Again
      </button>
    </p>
  );
}

/** Lines that keep the place of what is on its way. */
export function Skeleton({ rows, height = 36 }: { readonly rows: number; readonly height?: number }) {
  return (
    <div role="status" aria-busy="true" aria-label="Loading">
      {Array.from({ length: rows }, (_, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: the lines are all alike and never move
        <div key={i} className="flex items-center border-b border-line px-5" style={{ height }}>
          <div className="skeleton h-3" style={{ width: `${30 + ((i * 37) % 45)}%` }} />
        </div>
      ))}
    </div>
  );
}

/** What a list is for, and the first step. */
export function Empty({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <div className="max-w-[640px] px-5 py-10">
      <h2 className="text-[25px] leading-7.5">{title}</h2>
      <div className="mt-2 text-body leading-5.5">{children}</div>
    </div>
  );
}

interface NotAllowedProps {
  readonly right: Right;
  /** What others can do: "write a template". */
  readonly what: string;
  readonly to: string;
  readonly back: string;
}

/** In the place of a form that could not be saved. */
export function NotAllowed({ right, what, to, back }: NotAllowedProps) {
  return (
    <Empty title={`Only ${sayWhoMayAll(right)} can ${what}.`}>
      Ask one of yours.{' '}
      <Link className="link-line" to={to}>
        {back}
      </Link>
    </Empty>
  );
}
