import { fireEvent, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { afterTyping, watchTyping } from './typing.ts';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

it('takes nothing away from under somebody’s fingers, and only once they rest', () => {
  watchTyping(document);
  render(<textarea aria-label="Note" />);
  const work = vi.fn();
  afterTyping(work);
  expect(work).toHaveBeenCalledTimes(1);
  const note = screen.getByRole('textbox');
  for (let key = 1; key <= 5; key++) {
    fireEvent.input(note, { target: { value: 'x'.repeat(key) } });
    if (key === 1) afterTyping(work);
    // Heard of again, by every request that is refused.
    afterTyping(work);
    vi.advanceTimersByTime(1000);
  }
  expect(work).toHaveBeenCalledTimes(1);
  vi.advanceTimersByTime(600);
  expect(work).toHaveBeenCalledTimes(2);
  vi.advanceTimersByTime(60_000);
  expect(work).toHaveBeenCalledTimes(2);
});
