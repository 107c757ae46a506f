import { afterEach, expect, it, vi } from 'vitest';
import { newKey } from './new-key.ts';

afterEach(() => void vi.unstubAllGlobals());

it('a key is a random UUID, over https and without', () => {
  const form = /^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/;
  expect(newKey()).toMatch(form);
  const { getRandomValues } = crypto;
  vi.stubGlobal('crypto', { getRandomValues: getRandomValues.bind(crypto) });
  const keys = Array.from({ length: 50 }, newKey);
  for (const key of keys) expect(key).toMatch(form);
  expect(new Set(keys).size).toBe(50);
});
