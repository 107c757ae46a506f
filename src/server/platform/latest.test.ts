import { expect, it } from 'vitest';
import { Latest } from './latest.ts';

/** Work that ends when it is told to, and what it saw when it began. */
function slowly(now: () => number) {
  const begun: { seen: number; end: (fail?: boolean) => void }[] = [];
  const work = () =>
    new Promise<number>((resolve, reject) => {
      const seen = now();
      begun.push({ seen, end: (fail = false) => (fail ? reject(new Error('No.')) : resolve(seen)) });
    });
  return { begun, work };
}
const settled = () => new Promise((resolve) => setTimeout(resolve));

it('is worked out once for all who ask meanwhile, and never from before they asked', async () => {
  let state = 1;
  const latest = new Latest<number>();
  const { begun, work } = slowly(() => state);
  const first = latest.of('tideline', work);
  state = 2;
  const others = [latest.of('tideline', work), latest.of('tideline', work), latest.of('tideline', work)];
  expect(begun).toHaveLength(1);
  begun[0]?.end();
  expect(await first).toBe(1);
  await settled();
  expect(begun).toHaveLength(2);
  begun[1]?.end();
  expect(await Promise.all(others)).toEqual([2, 2, 2]);
  await settled();
  void latest.of('tideline', work);
  expect(begun).toHaveLength(3);
});

it('that fails is told to those who asked for it, and to nobody else', async () => {
  const latest = new Latest<number>();
  const { begun, work } = slowly(() => 1);
  const first = latest.of('tideline', work);
  const second = latest.of('tideline', work);
  begun[0]?.end(true);
  await expect(first).rejects.toThrow('No.');
  await settled();
  begun[1]?.end();
  expect(await second).toBe(1);
});

it('of one key does not wait for another', () => {
  const latest = new Latest<number>();
  const { begun, work } = slowly(() => 1);
  void latest.of('a', work);
  void latest.of('b', work);
  expect(begun).toHaveLength(2);
});
