import { type FocusEvent, type KeyboardEvent, type RefObject, useEffect, useRef, useState } from 'react';

interface Popover {
  readonly open: boolean;
  readonly setOpen: (open: boolean) => void;
  /** Closes it and gives the focus back to its button. */
  readonly close: () => void;
  readonly root: RefObject<HTMLSpanElement | null>;
  readonly button: RefObject<HTMLButtonElement | null>;
  /** For the element around button and popover: Esc closes, and so does the focus that goes elsewhere. */
  readonly around: {
    readonly onKeyDown: (event: KeyboardEvent) => void;
    readonly onBlur: (event: FocusEvent) => void;
  };
}

/** Something small that a button opens over the page: closed by Esc, by Tab out of it, and by a press elsewhere. */
export function usePopover(): Popover {
  const [open, setOpen] = useState(false);
  const root = useRef<HTMLSpanElement>(null);
  const button = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (!open) return;
    const closeOutside = (event: PointerEvent) => {
      if (event.target instanceof Node && !root.current?.contains(event.target)) setOpen(false);
    };
    document.addEventListener('pointerdown', closeOutside);
    return () => document.removeEventListener('pointerdown', closeOutside);
  }, [open]);
  const close = () => {
    setOpen(false);
    button.current?.focus();
  };
  return {
    open,
    setOpen,
    close,
    root,
    button,
    around: {
      onKeyDown: (event) => {
        if (event.key !== 'Escape' || !open) return;
        event.stopPropagation();
        event.preventDefault();
        close();
      },
      onBlur: ({ relatedTarget }) => {
        if (relatedTarget instanceof Node && !root.current?.contains(relatedTarget)) setOpen(false);
      },
    },
  };
}
