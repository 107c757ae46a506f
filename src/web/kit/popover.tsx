import * as Radix from '@radix-ui/react-popover';
import type { KeyboardEvent, ReactNode, RefObject } from 'react';

/** A button, or a place that is no element. */
type Anchor = HTMLElement | { getBoundingClientRect(): DOMRect };

interface PopoverProps {
  readonly label: string;
  /** What it stands beside. */
  readonly anchor: RefObject<Anchor | null>;
  /** Called where it is left: by Esc, by the focus that goes elsewhere, by a press beside it. */
  readonly onClose: () => void;
  /** Who has the focus once Esc has closed it. */
  readonly backTo: RefObject<HTMLElement | null>;
  readonly className?: string;
  /** What is in it takes the focus by itself. */
  readonly focusesItself?: boolean;
  /** Something asked in it is yet to come: going elsewhere leaves it open until then. */
  readonly isAwaited?: () => boolean;
  readonly onKeyDown?: (event: KeyboardEvent<HTMLDivElement>) => void;
  readonly children: ReactNode;
}

/** Where nothing may be cut off: so far from the window's edges. */
const EDGE = 8;

/** Something small that stands over the page, below what opened it or wherever there is room. Drawn only while it is open. */
export function Popover({
  label,
  anchor,
  onClose,
  backTo,
  className = '',
  focusesItself = false,
  isAwaited = () => false,
  onKeyDown,
  children,
}: PopoverProps) {
  return (
    <Radix.Root
      open
      onOpenChange={(open) => {
        if (!open) onClose();
      }}
    >
      <Radix.Anchor virtualRef={anchor as RefObject<Anchor>} />
      <Radix.Content
        className={`popover ${className}`}
        aria-label={label}
        align="start"
        sideOffset={3}
        collisionPadding={EDGE}
        onKeyDown={onKeyDown}
        // Tab goes on through the page, and out of it; the library would begin again at its top.
        onKeyDownCapture={(event) => {
          if (event.key === 'Tab') event.stopPropagation();
        }}
        onOpenAutoFocus={(event) => {
          if (focusesItself) event.preventDefault();
        }}
        onEscapeKeyDown={() => backTo.current?.focus()}
        // The button that opened it closes it itself.
        onInteractOutside={(event) => {
          const { current } = anchor;
          const isButton = current instanceof Node && event.target instanceof Node && current.contains(event.target);
          if (isButton || isAwaited()) event.preventDefault();
        }}
        // Who has the focus then is said by how it was closed.
        onCloseAutoFocus={(event) => event.preventDefault()}
      >
        {children}
      </Radix.Content>
    </Radix.Root>
  );
}
