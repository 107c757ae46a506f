import { describe, expect, it } from 'vitest';
import { orderedIds, uuidv7 } from './uuid.ts';

describe('ids', () => {
  it('are UUIDs of version 7 that begin with their time', () => {
    const id = uuidv7(0x0123456789ab, new Uint8Array(10).fill(255));
    expect(id).toBe('01234567-89ab-7fff-bfff-ffffffffffff');
  });

  it('come in order, also within one millisecond and when the clock is set back', () => {
    const next = orderedIds();
    const ids = [...Array.from({ length: 5000 }, () => next(1000)), next(1001), next(500), next(1002), next(2000)];
    expect([...ids].sort()).toEqual(ids);
    expect(new Set(ids).size).toBe(ids.length);
  });
});
