import { expect, it } from 'vitest';
import { movedOn } from './moved-on.ts';

it.each([
  ['2026-11-24T10:40', 30 * 60_000, '2026-11-24T11:10'],
  ['2026-11-24T23:50', 20 * 60_000, '2026-11-25T00:10'],
  ['2026-12-31T23:59', 60_000, '2027-01-01T00:00'],
  ['2028-02-29T00:10', -20 * 60_000, '2028-02-28T23:50'],
  ['2026-11-24T10:40', 59_000, '2026-11-24T10:40'],
])('%s goes on by %i ms to %s', (moment, by, then) => {
  expect(movedOn(moment, by)).toBe(then);
});
