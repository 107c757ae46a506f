import { type ReactNode, useLayoutEffect, useRef } from 'react';
import { createPortal } from 'react-dom';

const LOOKS = {
  middle:
    'mx-auto mt-24 mb-auto max-h-[80vh] max-[720px]:mt-6 max-[720px]:max-h-[92dvh] max-w-[92vw] overflow-auto rounded-field border',
  edge: 'mr-0 ml-auto h-full max-h-none w-[460px] max-w-[100vw] flex-col overflow-visible border-l open:flex',
} as const;

interface DialogProps {
  readonly label: string;
  readonly onClose: () => void;
  readonly className?: string;
  /** In the middle of the page, or from its right edge over the whole height. */
  readonly look?: keyof typeof LOOKS;
  /** Does not close by Esc or a click beside it: whoever opened it takes it away. */
  readonly stays?: boolean;
  readonly children: ReactNode;
}

/** To where it was; where that is gone, to the sheet or the page that stands there now. */
function giveFocusBack(dialog: HTMLDialogElement, before: Element | null): void {
  requestAnimationFrame(() => {
    if (dialog.isConnected) return;
    if (document.activeElement !== document.body && document.activeElement !== null) return;
    const next = before instanceof HTMLElement && before.isConnected && before !== document.body ? before : null;
    // A sheet lies within the page, and comes before it.
    const below = document.querySelector<HTMLElement>('.side-sheet') ?? document.querySelector<HTMLElement>('main');
    (next ?? below)?.focus();
  });
}

/** Something that stands over the page until it is closed: keeps the focus inside, closes on Esc and on a click beside it. */
export function Dialog({ label, onClose, className = '', look = 'middle', stays = false, children }: DialogProps) {
  const dialog = useRef<HTMLDialogElement>(null);
  const before = useRef<Element | null>(null);
  // Before the next key comes, which is not the page's any more.
  useLayoutEffect(() => {
    const element = dialog.current;
    if (!element) return;
    before.current ??= document.activeElement;
    if (!element.open) element.showModal();
    // A field to type into comes before the first button.
    element.querySelector('input')?.focus();
    const closeBeside = (event: PointerEvent) => {
      if (event.target === element && !stays) element.close();
    };
    element.addEventListener('pointerdown', closeBeside);
    return () => {
      element.removeEventListener('pointerdown', closeBeside);
      giveFocusBack(element, before.current);
    };
  }, [stays]);
  // Outside the form that it may have been opened from: Enter in a field of its own is not that form's.
  return createPortal(
    <dialog
      ref={dialog}
      className={`border-line-2 bg-base-100 text-ink backdrop:bg-[rgb(6_37_43/0.52)] ${LOOKS[look]} ${className}`}
      aria-label={label}
      onClose={onClose}
      onCancel={(event) => {
        if (stays) event.preventDefault();
      }}
    >
      {children}
    </dialog>,
    document.body,
  );
}
