import { cleanup, configure } from '@testing-library/react';
import { toast } from 'sonner';
import { afterEach, beforeEach, expect, vi } from 'vitest';
import { quickComputedStyle } from './quick-style.ts';

/** What a browser has and jsdom has not, as far as our parts use it; and a console that fails the test. */

// React lets a test wait for what it draws.
Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: true });

class Observer {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
}
Object.assign(globalThis, {
  ResizeObserver: Observer,
  IntersectionObserver: Observer,
  /** As wide as a desk. */
  matchMedia: (query: string) => ({
    matches: false,
    media: query,
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
  }),
});

for (const [name, pixels] of [
  ['clientWidth', 1280],
  ['clientHeight', 800],
] as const)
  Object.defineProperty(HTMLElement.prototype, name, { configurable: true, get: () => pixels });

quickComputedStyle(window);

Element.prototype.scrollIntoView = () => undefined;
HTMLElement.prototype.setPointerCapture = () => undefined;

HTMLDialogElement.prototype.showModal = function showModal() {
  this.setAttribute('open', '');
};
HTMLDialogElement.prototype.close = function close() {
  this.removeAttribute('open');
  this.dispatchEvent(new Event('close'));
};

const said: unknown[][] = [];

beforeEach(() => {
  said.length = 0;
  for (const level of ['error', 'warn'] as const)
    vi.spyOn(console, level).mockImplementation((...all) => said.push(all));
  // They outlive the page they were said on, and the next one with a place for them would say them again.
  toast.dismiss();
  localStorage.clear();
  sessionStorage.clear();
});

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
  expect(said, 'errors and warnings on the console').toEqual([]);
});

/** Parts that are loaded when they are first wanted take a while where everything else is tested beside them. */
configure({ asyncUtilTimeout: 5000 });
