import { describe, expect, it } from 'vitest';
import { type CellPlace, ownAt, type PutOnDraft, withOwn, withOwnForAll } from './put-on-draft.ts';

const draft: PutOnDraft = {
  planId: 'p',
  from: '2026-12-01',
  start: null,
  clients: [
    { clientId: 'a', name: 'Anselm Opie', own: [] },
    { clientId: 'b', name: 'Bettine Lacy', own: [{ item: 'gas', assetId: 'boat', estimateMinutes: 20 }] },
  ],
};
const at = (clientId: string, item = 'gas', assetId: string | null = null): CellPlace => ({ clientId, item, assetId });

describe('what is different for clients who are put on a plan', () => {
  it('stands in its cell alone, in the place of what stood there', () => {
    const once = withOwn(draft, at('a'), { leftOut: 'on a buoy' });
    const twice = withOwn(once, at('a'), { estimateMinutes: 25 });
    expect(ownAt(twice, at('a'))).toEqual({ item: 'gas', assetId: null, estimateMinutes: 25 });
    expect(twice.clients[0]?.own).toHaveLength(1);
    expect(twice.clients[1]).toEqual(draft.clients[1]);
    expect(ownAt(twice, at('a', 'meter'))).toBeUndefined();
    expect(withOwn(twice, at('a'), undefined)).toEqual(draft);
  });

  it('goes for all of them, for whatever asset it was said; as the plan says goes for all, too', () => {
    const all = withOwnForAll(draft, at('b', 'gas', 'boat'));
    expect(all.clients.map(({ own }) => own)).toEqual([
      [{ item: 'gas', assetId: null, estimateMinutes: 20 }],
      [{ item: 'gas', assetId: null, estimateMinutes: 20 }],
    ]);
    expect(withOwnForAll(all, at('a', 'gas', 'other')).clients.every(({ own }) => own.length === 0)).toBe(true);
  });
});
