import {
  createContext,
  type ReactNode,
  useCallback,
  useContext,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from 'react';

export interface KeyBinding {
  /** As `KeyboardEvent.key`; "Mod+k" for Ctrl or ⌘ with k. */
  readonly key: string;
  /** What it does, for the card of keys. */
  readonly says: string;
  readonly run: () => void;
}

interface KeyRing {
  add(bindings: readonly KeyBinding[]): () => void;
  readonly known: readonly KeyBinding[];
}

const KeyContext = createContext<KeyRing | null>(null);

/** Keys of the whole application. The binding added last wins, so that an open sheet takes Esc from what lies under it. */
export function KeyProvider({ children }: { readonly children: ReactNode }) {
  // Read when a key is pressed, so that a page that has just been drawn has its keys, and one that has gone has lost them.
  const stack = useRef<readonly (readonly KeyBinding[])[]>([]);
  const [known, setKnown] = useState<readonly KeyBinding[]>([]);
  const put = useCallback((next: readonly (readonly KeyBinding[])[]) => {
    stack.current = next;
    setKnown(bindingsOf(next));
  }, []);
  const add = useCallback(
    (bindings: readonly KeyBinding[]) => {
      put([...stack.current, bindings]);
      return () => put(stack.current.filter((entry) => entry !== bindings));
    },
    [put],
  );
  // Before the page is seen: whoever sees it may press its keys.
  useLayoutEffect(() => {
    const listen = (event: KeyboardEvent) => {
      // What stands over the page has the keys alone; it closes itself.
      if (event.defaultPrevented || document.querySelector('dialog[open]') !== null) return;
      const name = event.ctrlKey || event.metaKey ? `Mod+${event.key}` : event.key;
      if (event.altKey || (isTyping(event.target) && !name.startsWith('Mod+') && name !== 'Escape')) return;
      const binding = bindingsOf(stack.current).find(({ key }) => key === name);
      if (!binding) return;
      event.preventDefault();
      binding.run();
    };
    document.addEventListener('keydown', listen);
    return () => document.removeEventListener('keydown', listen);
  }, []);
  const ring = useMemo(() => ({ add, known }), [add, known]);
  return <KeyContext value={ring}>{children}</KeyContext>;
}

/** The last binding of each key. */
function bindingsOf(stack: readonly (readonly KeyBinding[])[]): KeyBinding[] {
  return [...new Map(stack.flat().map((binding) => [binding.key, binding])).values()];
}

function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName))
  );
}

/** Binds keys while the component stands. What they do may change from one drawing to the next; which they are may not. */
export function useKeys(bindings: readonly KeyBinding[]): void {
  const { add } = useKeyRing();
  const latest = useRef(bindings);
  latest.current = bindings;
  const names = bindings.map(({ key, says }) => `${key} ${says}`).join('\n');
  // Before the page is seen, as above.
  useLayoutEffect(() => {
    const standing = names
      .split('\n')
      .filter(Boolean)
      .map((_, i) => ({
        key: latest.current[i]?.key ?? '',
        says: latest.current[i]?.says ?? '',
        run: () => latest.current[i]?.run(),
      }));
    return add(standing);
  }, [add, names]);
}

export function useKeyRing(): KeyRing {
  const ring = useContext(KeyContext);
  if (!ring) throw new Error('Keys are used outside their provider.');
  return ring;
}
