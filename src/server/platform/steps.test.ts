import { afterEach, expect, it, vi } from 'vitest';
import { Steps } from './steps.ts';

afterEach(() => vi.useRealTimers());

it('tells how far it is now and then, never beyond the end, and from the start where it is begun again', async () => {
  vi.useFakeTimers({ toFake: ['performance'] });
  const told: number[] = [];
  const steps = new Steps(async (done) => told.push(done), 1_000);
  await steps.did(100);
  expect(told).toEqual([]);
  vi.advanceTimersByTime(250);
  await steps.did(400);
  await steps.did(100);
  expect(told).toEqual([500]);
  steps.beginAgain();
  vi.advanceTimersByTime(250);
  await steps.did(300);
  vi.advanceTimersByTime(250);
  await steps.did(900);
  expect(told).toEqual([500, 300, 1_000]);
});
