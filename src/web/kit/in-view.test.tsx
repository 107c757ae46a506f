import { act, render, screen } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { InView } from './in-view.tsx';

let tell: (isIntersecting: boolean) => void;

function observed(): void {
  vi.stubGlobal(
    'IntersectionObserver',
    class {
      constructor(told: (entries: { isIntersecting: boolean }[]) => void) {
        tell = (isIntersecting) => act(() => told([{ isIntersecting }]));
      }
      observe() {}
      disconnect() {}
    },
  );
}

afterEach(() => void vi.unstubAllGlobals());

it('draws what comes near, takes it away again, and keeps its room', () => {
  observed();
  const { container } = render(<InView height={116}>the chart</InView>);
  expect(screen.queryByText('the chart')).toBeNull();
  expect((container.firstElementChild as HTMLElement).style.height).toBe('116px');
  tell(true);
  expect(screen.getByText('the chart')).toBeTruthy();
  tell(false);
  expect(screen.queryByText('the chart')).toBeNull();
});

it('draws all of it for paper', () => {
  observed();
  render(<InView height={116}>the chart</InView>);
  act(() => void window.dispatchEvent(new Event('beforeprint')));
  expect(screen.getByText('the chart')).toBeTruthy();
});
