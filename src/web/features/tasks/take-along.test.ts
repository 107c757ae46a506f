import 'fake-indexeddb/auto';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { dayOfIso } from '../../../core/index.ts';
import { keepAnswer, keptAnswer } from '../../kit/kept-answers.ts';
import { takeAlong } from './take-along.ts';

const HOUR = 3_600_000;
const TODAY = dayOfIso('2026-11-24');
const SHEET = '/api/people/nadia/day-sheet?date=2026-11-24';
const TASK = '/api/tasks/lamp';

/** What a server with one task this day is asked for, of that task and its pictures. */
let asked: string[];
let version: number;
let files: { id: string; isPicture: boolean }[];
const answerTo = (address: string) => {
  if (address === TASK) return { version, files, templateFiles: [], instructions: '' };
  if (address.startsWith('/api/calls')) return { calls: [] };
  return { late: [], thisDay: address === SHEET ? [{ id: 'lamp', version }] : [] };
};

async function goes(): Promise<readonly string[]> {
  asked = [];
  await takeAlong('nadia', TODAY, new AbortController().signal);
  await vi.waitFor(async () => expect((await keptAnswer(TASK))?.answer).toMatchObject({ version }));
  return asked.filter((address) => address === TASK || address.startsWith('/api/files'));
}

beforeEach(() => {
  version = 1;
  files = [];
  vi.useFakeTimers({ toFake: ['Date'], now: new Date('2026-11-24T06:00Z') });
  const passed = new Set<string>();
  vi.stubGlobal('navigator', { serviceWorker: { controller: {} } });
  const match = async (address: string) => passed.has(address);
  vi.stubGlobal('caches', { open: async () => ({ match }), delete: async () => true });
  vi.stubGlobal('fetch', async (address: string) => {
    asked.push(address);
    passed.add(address);
    return Response.json(answerTo(address));
  });
  keepAnswer('/api/session', { person: { id: 'nadia', name: 'Nadia Orme' } });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

it('asks for a task that has changed, and after two hours for one whose files may have', async () => {
  expect(await goes()).toEqual([TASK]);
  expect(await goes()).toEqual([]);
  version = 2;
  expect(await goes()).toEqual([TASK]);
  files = [{ id: 'seen', isPicture: true }];
  expect(await goes()).toEqual([]);
  vi.setSystemTime(Date.now() + 2 * HOUR);
  expect(await goes()).toEqual([TASK, '/api/files/seen/small']);
  expect(await goes()).toEqual([]);
});
