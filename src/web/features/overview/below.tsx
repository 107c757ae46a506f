import type { ReactNode } from 'react';

/** A part below what is to be done now: its name, and beside it what it is of. */
export function Below({
  name,
  aside,
  children,
}: {
  readonly name: string;
  readonly aside: ReactNode;
  readonly children: ReactNode;
}) {
  return (
    <section className="min-w-0 border-l border-line-2 px-5 pt-[9px] pb-4 first:border-l-0 @max-[1060px]:border-t @max-[1060px]:border-l-0 @max-[1060px]:first:border-t-0 max-[720px]:px-4">
      <h2 className="mb-1 flex items-baseline justify-between gap-3 text-body leading-4.5">
        {name}
        <span className="truncate font-sans text-note font-normal font-stretch-normal text-ink-2 normal-nums">
          {aside}
        </span>
      </h2>
      {children}
    </section>
  );
}
