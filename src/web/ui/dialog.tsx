import { type ReactNode, useEffect, useRef } from 'react';
import { createPortal } from 'react-dom';

interface DialogProps {
  readonly label: string;
  readonly onClose: () => void;
  readonly className?: string;
  readonly children: ReactNode;
}

/** Something that stands over the page until it is closed: keeps the focus inside, closes on Esc and on a click beside it. */
export function Dialog({ label, onClose, className = '', children }: DialogProps) {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const element = dialog.current;
    if (!element) return;
    element.showModal();
    // A field to type into comes before the first button.
    element.querySelector('input')?.focus();
    const closeBeside = (event: PointerEvent) => {
      if (event.target === element) element.close();
    };
    element.addEventListener('pointerdown', closeBeside);
    return () => element.removeEventListener('pointerdown', closeBeside);
  }, []);
  // Outside the form that it may have been opened from: Enter in a field of its own is not that form's.
  return createPortal(
    <dialog ref={dialog} className={`over-page ${className}`} aria-label={label} onClose={onClose}>
      {children}
    </dialog>,
    document.body,
  );
}
