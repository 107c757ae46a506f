import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type TestServer, testServer } from '../../testing/test-server.ts';
import { unkeepableAt } from './keepable.ts';

describe('a text that the database can’t keep', () => {
  let server: TestServer;
  beforeAll(async () => {
    server = await testServer();
  });
  afterAll(() => server.stop());

  it('is found wherever it stands', () => {
    expect(unkeepableAt({ a: ['x', { b: 'half \ud83d of a pair' }] })).toBe('a.1.b');
    expect(unkeepableAt({ a: { 'k\0': 1 } })).toBe('a');
    expect(unkeepableAt(['a\0'])).toBe('0');
    expect(unkeepableAt({ a: 'a whole pair 🛥', b: null, c: 3 })).toBeNull();
    fc.assert(fc.property(fc.jsonValue({ stringUnit: 'grapheme' }), (value) => unkeepableAt(value) === null));
  });

  it('is refused with its place, before anything is written', async () => {
    const ines = await server.browser('Ines Calloway');
    const task = { on: '2026-11-24', dueOn: '2026-11-24', startTime: null, dueTime: null, assigneeId: null };
    const rest = { clientId: null, assetId: null, estimateMinutes: 15 };
    const { body } = await ines
      .post('/api/tasks')
      .send({ ...task, ...rest, title: 'Rinse \udc00' })
      .expect(422);
    expect(body.errors).toEqual([
      { path: 'title', message: 'This holds a character that can’t be kept: write it without.' },
    ]);
  });
});
