import { expect, it } from 'vitest';
import { eachInTurn, sortedInTurn } from './in-turn.ts';

const busy = (milliseconds: number) => {
  const until = performance.now() + milliseconds;
  while (performance.now() < until);
};

it('tells each in its order, and lets others have their turn meanwhile', async () => {
  let turns = 0;
  const ticking = setInterval(() => turns++, 1);
  const told = await eachInTurn([1, 2, 3, 4, 5, 6, 7, 8], (n) => {
    busy(6);
    return n * n;
  });
  clearInterval(ticking);
  expect(told).toEqual([1, 4, 9, 16, 25, 36, 49, 64]);
  expect(turns).toBeGreaterThan(1);
});

it('fails with the first that fails', async () => {
  const seen: number[] = [];
  const failing = eachInTurn([1, 2, 3], (n) => {
    seen.push(n);
    if (n === 2) throw new Error('no');
  });
  await expect(failing).rejects.toThrow('no');
  expect(seen).toEqual([1, 2]);
});

it('sorts more than it sorts at once', async () => {
  const all = Array.from({ length: 2_345 }, (_, i) => (i * 7_919) % 2_345);
  expect(await sortedInTurn(all, (a, b) => a - b)).toEqual(Array.from({ length: 2_345 }, (_, i) => i));
  expect(await sortedInTurn([3, 1, 2], (a, b) => a - b)).toEqual([1, 2, 3]);
  expect(await sortedInTurn([], () => 0)).toEqual([]);
});
