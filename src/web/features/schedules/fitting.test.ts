import { afterEach, describe, expect, it, vi } from 'vitest';
import { allFitting } from './fitting.ts';

interface Page {
  readonly ids: string[];
  readonly versions: number[];
  readonly more: number | null;
  readonly mark: string;
  readonly isAll: boolean;
}
const page = (ids: string, more: number | null, mark: string): Page => ({
  ids: [...ids],
  versions: [...ids].map(() => 1),
  more,
  mark,
  isAll: true,
});

/** A server that answers with these pages, one after the other; the last of them for good. */
function serving(...pages: readonly Page[]) {
  const asked: string[] = [];
  vi.stubGlobal('fetch', async (address: string) => {
    const next = pages[Math.min(asked.push(address), pages.length) - 1];
    return new Response(JSON.stringify(next));
  });
  return asked;
}
afterEach(() => vi.unstubAllGlobals());

describe('schedules that fit', () => {
  it('come page by page, in their order', async () => {
    const asked = serving(page('ab', 2, 'm'), page('cd', 4, 'm'), page('e', null, 'm'));
    const { ids, versions } = await allFitting({ find: 'pay' });
    expect([ids.join(''), versions.length]).toEqual(['abcde', 5]);
    expect(asked).toEqual([
      '/api/schedules/fitting?find=pay',
      '/api/schedules/fitting?find=pay&start=2',
      '/api/schedules/fitting?find=pay&start=4',
    ]);
  });

  it('are read again where something changed between two pages: none is left out, none stands twice', async () => {
    serving(page('ab', 2, 'm'), page('bc', null, 'n'), page('xa', 2, 'n'), page('bc', null, 'n'));
    expect((await allFitting({})).ids.join('')).toBe('xabc');
  });

  it('say so where they never stand still', async () => {
    let mark = 0;
    vi.stubGlobal('fetch', async () => new Response(JSON.stringify(page('ab', 2, `${mark++}`))));
    await expect(allFitting({})).rejects.toThrow('The schedules change faster than they can be read.');
    expect(mark).toBe(10);
  });
});
