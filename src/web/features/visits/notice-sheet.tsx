import type { NoticeState } from '../../../core/index.ts';

/** How a notice is drawn: what stands for its state, apart from the words that always stand beside it. */
type Look = 'dashed' | 'lined' | 'filled' | 'mast' | 'none';

const LOOKS: Readonly<Record<NoticeState, Look>> = {
  tooLate: 'dashed',
  refused: 'lined',
  elsewhere: 'lined',
  notWritten: 'dashed',
  written: 'lined',
  onItsWay: 'filled',
  received: 'filled',
  notNeeded: 'none',
};
/** What has to be seen first. */
const LATE: ReadonlySet<NoticeState> = new Set(['tooLate', 'refused', 'elsewhere']);

interface NoticeSheetProps {
  readonly state: NoticeState;
  /** Whether the visit is not made yet. */
  readonly isForeseen?: boolean;
  /** Where it is not written yet, though something of it was. */
  readonly isWritten?: boolean;
}

const SHEET = 'M2.5 1.5h6l3 3v10h-9z';

/** The one sign for a notice: a sheet of paper. */
export function NoticeSheet({ state, isForeseen = false, isWritten = false }: NoticeSheetProps) {
  const look: Look = isForeseen ? 'mast' : state === 'tooLate' && isWritten ? 'lined' : LOOKS[state];
  const colour = LATE.has(state) && !isForeseen ? 'var(--late)' : 'var(--color-primary)';
  const line = LATE.has(state) && !isForeseen ? 'var(--late)' : 'var(--ink)';
  return (
    <svg width="14" height="16" viewBox="0 0 14 16" aria-hidden className="flex-none">
      {look === 'mast' && <path d="M4 2v12" stroke="var(--ink-2)" strokeWidth="1.4" />}
      {look === 'none' && <path d="M2 8h9" stroke="var(--ink-2)" strokeWidth="1.4" />}
      {look === 'dashed' && <path d={SHEET} fill="none" stroke={line} strokeWidth="1.5" strokeDasharray="2.4 1.7" />}
      {look === 'lined' && (
        <>
          <path d={SHEET} fill="none" stroke={line} strokeWidth="1.5" />
          <path d="M5 7.5h4M5 10.5h4" stroke={line} strokeWidth="1.3" />
        </>
      )}
      {look === 'filled' && (
        <>
          <path d={SHEET} fill={colour} stroke={colour} strokeWidth="1.5" />
          <path d="M5 7.5h4M5 10.5h4" stroke="var(--color-base-100)" strokeWidth="1.3" />
        </>
      )}
    </svg>
  );
}
