import { afterAll, afterEach, beforeAll, expect, it, vi } from 'vitest';
import type { Scope } from './platform/scope.ts';
import { keptLines } from './schedules/index.ts';
import { TEST_NOW } from './testing/clock.ts';
import { silent, type TestServer, testServer } from './testing/test-server.ts';
import { keepWarm } from './warming.ts';

/** On a machine with much to do. */
const SOON = { timeout: 10_000 };

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
  await server.browser('Ines Calloway');
});
afterAll(() => server.stop());

let warming: ReturnType<typeof keepWarm> | null = null;
afterEach(() => {
  warming?.stop();
  vi.restoreAllMocks();
  server.clock.set(TEST_NOW);
});

const OF_THREE: ReadonlyMap<string, number> = new Map([1, 2, 3].map((n) => [`${n}`, n]));
/** Keeps warm what a test says, and gives whose was told and on which day. */
function warmed(tell: (scope: Scope) => Promise<ReadonlyMap<string, unknown>>, rest: { most?: number } = {}) {
  const told: string[] = [];
  const one = async (scope: Scope) => {
    told.push(`${scope.workspace.name} ${scope.today}`);
    return tell(scope);
  };
  const { source, clock } = server;
  warming = keepWarm({ source, clock, log: silent, kept: [one], againMs: 20, ...rest });
  return told;
}

it('tells all of them at once after a start, that of whoever was here last first, and again on another day', async () => {
  const told = warmed(async () => OF_THREE);
  await vi.waitFor(() => expect(told.length).toBeGreaterThan(2), SOON);
  expect(told[0]).toBe('Tern Quay 2026-11-24');
  expect(new Set(told).size).toBeGreaterThan(1);
  server.clock.set('2026-11-25T00:01');
  await vi.waitFor(() => expect(told).toContain('Tern Quay 2026-11-25'), SOON);
});

it('leaves those beyond what is kept to whoever asks, and ends when it is told to', async () => {
  const told = warmed(async () => OF_THREE, { most: 3 });
  await vi.waitFor(() => expect(told.length).toBeGreaterThan(2), SOON);
  expect(new Set(told)).toEqual(new Set(['Tern Quay 2026-11-24']));
  warming?.stop();
  const { length } = told;
  await new Promise((resolve) => setTimeout(resolve, 60));
  expect(told).toHaveLength(length);
});

it('says once what is wrong with one of them, and tells the others', async () => {
  const warn = vi.spyOn(silent, 'warn');
  const told = warmed(async (scope) => {
    if (scope.workspace.name === 'Tern Quay') throw new Error('The disk is full.');
    return OF_THREE;
  });
  await vi.waitFor(() => expect(told.length).toBeGreaterThan(4), SOON);
  expect(warn).toHaveBeenCalledTimes(1);
  expect(new Set(told).size).toBeGreaterThan(1);
});

it('leaves nothing of the lists to be told to whoever asks next: only whether they still stand is asked', async () => {
  const told = warmed(keptLines);
  await vi.waitFor(() => expect(told.length).toBeGreaterThan(2), SOON);
  warming?.stop();
  const scope = await server.scope();
  const sql = vi.spyOn(scope, 'sql');
  expect((await keptLines(scope)).size).toBeGreaterThan(40);
  const asked = sql.mock.calls.map(([text]) => text);
  expect(asked).toHaveLength(2);
  for (const text of asked) expect(text).toMatch(/ as mark\b/);
});
