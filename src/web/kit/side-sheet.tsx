import { X } from 'lucide-react';
import { type ReactNode, useEffect, useRef } from 'react';
import { useKeys } from '../app/shell/keys.tsx';

interface SideSheetProps {
  readonly label: string;
  readonly onClose: () => void;
  readonly className?: string;
  readonly children: ReactNode;
}

/** Details beside the list, with an address of their own. Takes the focus when it opens, gives it back when it closes. */
export function SideSheet({ label, onClose, className = '', children }: SideSheetProps) {
  const sheet = useRef<HTMLElement>(null);
  useKeys([{ key: 'Escape', says: 'Close the sheet', run: onClose }]);
  useEffect(() => {
    const before = document.activeElement;
    sheet.current?.focus();
    return () => {
      if (before instanceof HTMLElement && before.isConnected) before.focus();
    };
  }, []);
  return (
    <aside
      ref={sheet}
      className={`side-sheet overflow-y-auto ${className}`}
      aria-label={label}
      tabIndex={-1}
      // What had the focus may be gone by what it did: then the sheet has it, not the top of the page.
      onBlur={() =>
        requestAnimationFrame(() => {
          if (document.activeElement === document.body) sheet.current?.focus({ preventScroll: true });
        })
      }
    >
      {children}
    </aside>
  );
}

export function CloseButton({ onClose }: { readonly onClose: () => void }) {
  return (
    <button type="button" className="btn btn-text -mr-2" aria-label="Close" onClick={onClose}>
      <X size={16} aria-hidden />
    </button>
  );
}
