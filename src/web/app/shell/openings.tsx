import type { Asked } from '../../features/tasks/capture/capture-bar.tsx';
import { Dialog } from '../../kit/dialog.tsx';
import { type DraftForm, TEXT_FORM, useDraft } from '../../kit/draft.ts';
import { Skeleton } from '../../kit/states.tsx';

/*
 * What stands there until what was opened is loaded. Whoever opens something by a key goes on typing at once: it goes into
 * the field that will stand there, not into the keys of the page.
 */

/** The place where a captured line is kept. */
export const CAPTURE_DRAFT: readonly [string, string, DraftForm] = ['capture', '', TEXT_FORM];

/** The line stands in the same place and looks the same before the bar is loaded. */
export const CAPTURE_LOOK = {
  bar: 'border-b-2 border-primary bg-base-100 px-5 pb-3 pt-3.5 max-[720px]:px-4',
  field:
    'h-12 w-full rounded-[4px] border border-b-2 border-primary bg-transparent px-3 text-[19px] max-[720px]:text-[17px]',
} as const;

/** Enter is kept until the line can be read. */
export function CaptureOpening({ onEnter }: { readonly onEnter: (asked: Asked) => void }) {
  const { draft, change } = useDraft(...CAPTURE_DRAFT);
  return (
    <section className={CAPTURE_LOOK.bar} aria-label="Capture">
      <input
        // biome-ignore lint/a11y/noAutofocus: it was opened to be typed into
        autoFocus
        className={CAPTURE_LOOK.field}
        aria-label="What is to be done"
        autoComplete="off"
        value={draft}
        onChange={({ target }) => change(target.value)}
        onKeyDown={({ key, ctrlKey, metaKey }) => {
          if (key === 'Enter') onEnter(ctrlKey || metaKey ? 'add and open' : 'add');
        }}
      />
    </section>
  );
}

export const JUMP_HINT = 'a template, a schedule, a client, a person, a place';

interface JumpOpeningProps {
  readonly typed: string;
  readonly onType: (typed: string) => void;
  /** Enter, which is kept until there is something to jump to. */
  readonly onEnter: () => void;
  readonly onClose: () => void;
}

export function JumpOpening({ typed, onType, onEnter, onClose }: JumpOpeningProps) {
  return (
    <Dialog label="Jump to" className="w-[560px]" onClose={onClose}>
      <input
        className="w-full border-b border-line bg-transparent px-3 py-2 text-body"
        aria-label="Jump to"
        placeholder={JUMP_HINT}
        value={typed}
        onChange={({ target }) => onType(target.value)}
        onKeyDown={({ key }) => {
          if (key === 'Enter') onEnter();
        }}
      />
    </Dialog>
  );
}

export function StartOpening({ onClose }: { readonly onClose: () => void }) {
  return (
    <Dialog label="Start now" look="edge" onClose={onClose}>
      <Skeleton rows={6} />
    </Dialog>
  );
}
