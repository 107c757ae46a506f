import type { CallFigures } from '../../../contract/index.ts';

type Ending = CallFigures['outcomes'][number]['follows'] | 'notRung' | 'toRing';

interface Fill {
  readonly fill: string;
  readonly stroke?: string;
  readonly strokeDasharray?: string;
}

/** How a way to end is drawn: by what follows from it, in tone and texture alone. */
export const FIGURE_FILLS: Readonly<Record<Ending, Fill>> = {
  rests: { fill: 'var(--color-primary)' },
  callBack: { fill: 'var(--petrol-2)' },
  triedAgain: { fill: 'var(--color-base-100)', stroke: 'var(--petrol-2)' },
  leftAlone: { fill: 'url(#figure-hatch)', stroke: 'var(--ink-2)' },
  wrongNumber: { fill: 'var(--ink)' },
  neverCalled: { fill: 'var(--ink-2)' },
  toRing: { fill: 'var(--color-base-100)', stroke: 'var(--petrol-2)', strokeDasharray: '2 2' },
  notRung: { fill: 'var(--color-base-100)', stroke: 'var(--line-2)', strokeDasharray: '2 2' },
};

export function FigureHatch() {
  return (
    <defs>
      <pattern id="figure-hatch" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="5" height="5" fill="var(--color-base-100)" />
        <rect width="1.8" height="5" fill="var(--ink-2)" />
      </pattern>
    </defs>
  );
}

/** The same as a mark beside words. */
export function FigureMark({ ending }: { readonly ending: Ending }) {
  return (
    <svg aria-hidden className="inline size-3 flex-none overflow-visible" viewBox="0 0 12 12">
      <FigureHatch />
      <rect x="0.5" y="0.5" width="11" height="11" strokeWidth="1" {...FIGURE_FILLS[ending]} />
    </svg>
  );
}
