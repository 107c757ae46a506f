import type { PastTask } from '../../contract/index.ts';

export type PennantState = PastTask['state'] | 'bare';

const WORDS: Record<PennantState, string> = {
  bare: 'Not made yet',
  coming: 'Coming',
  open: 'Open',
  underWay: 'Under way',
  toCheck: 'To check',
  done: 'Done',
  skipped: 'Skipped',
  lapsed: 'Lapsed',
};

const HUE: Record<PennantState, string> = {
  bare: 'text-ink-2',
  coming: 'text-ink-2',
  open: 'text-ink',
  underWay: 'text-primary',
  toCheck: 'text-primary',
  done: 'text-primary',
  skipped: 'text-ink-2',
  lapsed: 'text-ink-2',
};

/** The state of a task in words, as a screen reader says the glyph. */
export function stateWords(state: PennantState, late: boolean, heldUp = false): string {
  return WORDS[state] + (late ? ', late' : '') + (heldUp ? ', held up' : '');
}

interface PennantProps {
  readonly state: PennantState;
  readonly late?: boolean;
  readonly heldUp?: boolean;
  readonly size?: 16 | 20 | 24;
  /** Said instead of the state, where more is known; an empty text where words beside it say it already. */
  readonly label?: string;
}

/** Half of a line's thickness for each size, on the glyph's own grid of 16. */
const STROKE = { 16: 1.5, 20: 1.36, 24: 1.27 } as const;
const FLAG = 'M2.5 1.25 14.5 6.5 2.5 11.75';

interface ShapeProps {
  readonly state: PennantState;
  readonly late: boolean;
  readonly heldUp: boolean;
  /** Half of a line's thickness, on the glyph's own grid of 16. */
  readonly stroke: number;
}

/** The lines of the glyph, on a grid of 16, in the colour of the words around it. */
export function PennantShape({ state, late, heldUp, stroke }: ShapeProps) {
  const line = {
    fill: 'none',
    stroke: 'currentColor',
    strokeWidth: stroke,
    strokeLinejoin: 'round',
    strokeLinecap: 'round',
  } as const;
  return (
    <>
      <path d="M2.5 1V15.25" {...line} />
      {state === 'coming' && (
        <path
          d="M2.5 1.25 5.6 2.6M8.1 3.7 10.6 4.8M12.9 5.8 14.5 6.5 12.9 7.2M10.6 8.2 8.1 9.3M5.6 10.4 2.5 11.75"
          {...line}
        />
      )}
      {state === 'lapsed' && <path d="M2.5 1.25H14.5L10.2 6.5 14.5 11.75H2.5" {...line} />}
      {(state === 'open' || state === 'underWay' || state === 'toCheck' || state === 'skipped') && (
        <path d={FLAG} {...line} />
      )}
      {state === 'underWay' && <path d="M2.5 1.25 6.9 3.18V9.82L2.5 11.75Z" fill="currentColor" />}
      {state === 'toCheck' && <circle cx="6.1" cy="6.5" r={stroke < STROKE[16] ? 1.75 : 1.6} fill="currentColor" />}
      {state === 'skipped' && <path d="M4.4 13.9 11.5-.5" {...line} />}
      {state === 'done' && <path d={`${FLAG}Z`} {...line} fill="currentColor" />}
      {heldUp && <path d="M6 14.6H14.25" fill="none" stroke="currentColor" strokeWidth={stroke * 1.35} />}
      {state === 'done' && late && (
        <path d="M.4 15H6.2" fill="none" stroke="var(--late-fill)" strokeWidth={stroke * 1.35} />
      )}
    </>
  );
}

/** The colour that helps to tell it. */
export function pennantHue(state: PennantState, late: boolean): string {
  return late && state !== 'done' ? 'text-late-fill' : HUE[state];
}

/** The one glyph for the state of a task: shape carries the meaning, colour only helps. */
export function Pennant({ state, late = false, heldUp = false, size = 16, label }: PennantProps) {
  const words = label ?? stateWords(state, late, heldUp);
  return (
    <svg
      className={`inline-block flex-none overflow-visible align-middle ${pennantHue(state, late)}`}
      width={size}
      height={size}
      viewBox="0 0 16 16"
      {...(words === '' ? { 'aria-hidden': true } : { role: 'img', 'aria-label': words })}
    >
      <title>{words}</title>
      <PennantShape state={state} late={late} heldUp={heldUp} stroke={STROKE[size]} />
    </svg>
  );
}
