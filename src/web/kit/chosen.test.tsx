import { act } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { show } from '../testing/show.tsx';
import { useChosen, useChosenIds } from './chosen.ts';

type Ids = ReturnType<typeof useChosenIds>;
type Rows = ReturnType<typeof useChosen<{ id: string }>>;

/** Gives a test what a hook gives a component. */
async function held<T>(use: (of: string) => T) {
  const now: { it?: T } = {};
  const Part = ({ of }: { readonly of: string }) => {
    now.it = use(of);
    return null;
  };
  const { show: again } = await show(<Part of="one" />);
  return { now: () => now.it as T, turnTo: (of: string) => again(<Part of={of} />) };
}

const EVERY = Array.from({ length: 500 }, (_, i) => `id ${i}`);
/** Of five hundred the first fifty are here. */
const long =
  (asked: string[]) =>
  (of: string): Ids =>
    useChosenIds({
      of,
      count: EVERY.length,
      idAt: (index) => (index < 50 ? EVERY[index] : undefined),
      all: async () => {
        asked.push(of);
        return EVERY;
      },
    });

describe('chosen ones of a long list', () => {
  it('go from the last that was chosen by itself, and the ids between are asked for only where they are not here', async () => {
    const asked: string[] = [];
    const { now } = await held(long(asked));
    act(() => now().chooseOne(4));
    await act(() => now().chooseTo(7));
    expect([...now().ids]).toEqual(EVERY.slice(4, 8));
    expect(asked).toEqual([]);
    await act(() => now().chooseTo(120));
    expect([...now().ids].sort()).toEqual(EVERY.slice(4, 121).sort());
    expect(asked).toEqual(['one']);
  });

  it('end where the list ends, above and below', async () => {
    const { now } = await held(long([]));
    act(() => now().chooseOne(1));
    await act(() => now().chooseTo(-1));
    expect([...now().ids].sort()).toEqual([EVERY[0], EVERY[1]]);
    act(() => now().clear());
    act(() => now().chooseOne(49));
    await act(() => now().chooseTo(EVERY.length + 5));
    expect(now().ids.size).toBe(451);
  });

  it('can be all of them, one less, and none', async () => {
    const { now } = await held(long([]));
    await act(() => now().chooseAll());
    expect([now().ids.size, now().isAll]).toEqual([500, true]);
    act(() => now().chooseOne(3));
    expect([now().ids.size, now().isAll]).toEqual([499, false]);
    act(() => now().clear());
    expect(now().ids.size).toBe(0);
  });

  it('are of this list alone', async () => {
    const { now, turnTo } = await held(long([]));
    act(() => now().chooseOne(3));
    turnTo('other');
    expect(now().ids.size).toBe(0);
    act(() => now().chooseOne(5));
    expect([...now().ids]).toEqual([EVERY[5]]);
  });

  it('where all are here, are those of them that are still shown', async () => {
    const rows = EVERY.slice(0, 5).map((id) => ({ id }));
    const { now, turnTo } = await held((of): Rows => useChosen(of === 'one' ? rows : rows.slice(2)));
    act(() => now().choose(0, 'one'));
    await act(async () => now().choose(3, 'range'));
    expect(now().chosen.map(({ id }) => id)).toEqual(EVERY.slice(0, 4));
    turnTo('fewer');
    expect(now().chosen.map(({ id }) => id)).toEqual(EVERY.slice(2, 4));
  });
});
