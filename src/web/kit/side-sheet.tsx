import { X } from 'lucide-react';
import { type ReactNode, useEffect, useRef } from 'react';
import { useKeys } from '../app/shell/keys.tsx';

interface SideSheetProps {
  readonly label: string;
  readonly onClose: () => void;
  readonly className?: string;
  readonly children: ReactNode;
}

/** A part of it: the edges, for whatever element it is. */
export const SECTION = 'border-b border-line px-5 py-2.5 max-[720px]:px-4 max-[720px]:py-3';

/** What a part is about, and how much of it there is. */
export function SectionTitle({ aside, children }: { readonly aside?: ReactNode; readonly children: ReactNode }) {
  return (
    <h3 className="flex items-baseline justify-between text-row leading-4.5 text-primary">
      {children}
      {aside && (
        <span className="font-sans text-note font-normal font-stretch-normal text-ink-2 normal-nums">{aside}</span>
      )}
    </h3>
  );
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
      // On paper and in its text it is known by its name: see the global sheet.
      className={`side-sheet flex min-h-0 w-[432px] flex-none scroll-pb-[170px] flex-col overflow-y-auto border-l border-line-2 bg-base-100 wrap-anywhere focus:shadow-none focus:outline-none max-[720px]:fixed max-[720px]:inset-0 max-[720px]:z-20 max-[720px]:w-auto max-[720px]:border-l-0 max-[720px]:overflow-auto print:static print:block print:w-full print:min-w-0 print:border-0 ${className}`}
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
