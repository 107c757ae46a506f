/**
 * jsdom works out every property of an element from its whole style sheet whenever one is asked for, and the testing
 * libraries ask for each element they pass: that was half the time of the components' tests. What they ask for is told
 * here from the element itself, as on a page without style sheets; all else is asked of jsdom.
 */

/** What an element's way of being drawn hangs on without style sheets of the page. */
const TOLD_BY = ['hidden', 'open', 'type'] as const;

/** Of a table: these collapse where they are hidden. */
const ROWS = new Set(['colgroup', 'col', 'thead', 'tbody', 'tfoot', 'tr']);

const displays = new Map<string, string>();

/** Of the window itself, before it is replaced. */
type Whole = (element: Element, pseudo?: string | null) => CSSStyleDeclaration;

export function quickComputedStyle(window: Window & typeof globalThis): void {
  const whole: Whole = window.getComputedStyle.bind(window);
  window.getComputedStyle = (element, pseudo) => {
    // Whether something is popped up is no attribute.
    if (pseudo || element.hasAttribute('popover')) return whole(element, pseudo);
    const quick = (name: PropertyKey): string | undefined => {
      switch (name) {
        case 'display':
          return displayOf(element, whole);
        case 'visibility':
          return visibilityOf(element);
        case 'pointerEvents':
        case 'pointer-events':
          return written(element, 'pointer-events') || 'auto';
        default:
          return undefined;
      }
    };
    return new Proxy({} as CSSStyleDeclaration, {
      get: (_, name) => {
        if (name === 'getPropertyValue')
          return (property: string) => quick(property) ?? whole(element).getPropertyValue(property);
        const told = quick(name);
        if (told !== undefined) return told;
        const all = whole(element);
        const value: unknown = Reflect.get(all, name);
        return typeof value === 'function' ? value.bind(all) : value;
      },
    });
  };
}

function displayOf(element: Element, whole: Whole): string {
  const own = written(element, 'display');
  if (own) return own;
  // One that is there without a value is another than none.
  const told = TOLD_BY.map((name) => element.getAttribute(name) ?? '-');
  const key = [element.namespaceURI, element.localName, ...told].join(' ');
  let display = displays.get(key);
  if (display === undefined) {
    display = whole(element).display;
    displays.set(key, display);
  }
  return display;
}

/** Handed down. */
function visibilityOf(element: Element): string {
  for (let one: Element | null = element; one !== null; one = one.parentElement) {
    const own = written(one, 'visibility');
    if (own) return own;
    if (ROWS.has(one.localName) && one.hasAttribute('hidden')) return 'collapse';
  }
  return 'visible';
}

function written(element: Element, property: string): string {
  // Asked for as text first: a style is made when it is asked for.
  if (!element.getAttribute('style')?.includes(property)) return '';
  return (element as HTMLElement).style.getPropertyValue(property);
}
