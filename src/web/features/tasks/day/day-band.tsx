import type { ReactNode } from 'react';

interface BandProps {
  readonly name: string;
  readonly count: number;
  readonly isLate?: boolean;
  readonly asides?: readonly string[];
  readonly children: ReactNode;
}

/** Tasks of a day that stand together, under their number and what they have in common. */
export function Band({ name, count, isLate = false, asides = [], children }: BandProps) {
  return (
    <section className="band !grid-cols-[104px_minmax(0,1fr)] max-[720px]:!grid-cols-1">
      <h2 className={isLate ? 'text-late' : ''}>
        <b>{count}</b>
        {name}
        {asides.map((words) => (
          <span key={words}>{words}</span>
        ))}
      </h2>
      <div>{children}</div>
    </section>
  );
}
