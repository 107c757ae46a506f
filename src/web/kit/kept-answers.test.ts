import 'fake-indexeddb/auto';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { forgetOlderAnswers, keptOnDevice, keysOnDevice } from './device-store.ts';
import { betterOf, forgetAnswers, isKept, keepAnswer, keptAnswer } from './kept-answers.ts';

const NADIA = { person: { id: 'nadia', name: 'Nadia Orme' } };
const WORKSPACE = { name: 'Tern Quay', now: '2026-11-24T22:40', clockStands: false };
const TASK = '/api/tasks/01937000-0000-7000-8000-000000000f01';
const SHEET = '/api/people/01937000-0000-7000-8000-000000000a01/day-sheet';
const HOUR = 3_600_000;

const settled = () => vi.waitFor(() => keysOnDevice('answers'));
async function keep(...answers: [address: string, answer: unknown][]) {
  for (const [address, answer] of answers) keepAnswer(address, answer);
  // Kept one after the other: with the last, all are.
  const [address = '', answer] = answers.at(-1) ?? [];
  await vi.waitFor(async () => expect((await keptOnDevice('answers', address))?.answer).toEqual(answer));
}

beforeEach(async () => {
  vi.useFakeTimers({ toFake: ['Date'], now: new Date('2026-11-24T22:40Z') });
  await keep(['/api/session', NADIA], ['/api/workspace', WORKSPACE]);
});
afterEach(async () => {
  vi.useRealTimers();
  await forgetAnswers();
});

it('keeps what is read where there is no net, and nothing else', () => {
  expect(
    [`${SHEET}?date=2026-11-24`, SHEET, TASK, `${TASK}/comments`, '/api/clock', '/api/tideline'].every(isKept),
  ).toBe(true);
  expect(['/api/task-list', '/api/people', '/api/schedules', `${TASK}/history`, '/api/clock/on'].some(isKept)).toBe(
    false,
  );
});

it('gives what was said last, with the time moved on, unless the clock stands', async () => {
  vi.setSystemTime(Date.now() + 2 * HOUR);
  expect((await keptAnswer('/api/workspace'))?.answer).toEqual({ ...WORKSPACE, now: '2026-11-25T00:40' });
  await keep(['/api/workspace', { ...WORKSPACE, clockStands: true }]);
  vi.setSystemTime(Date.now() + 2 * HOUR);
  expect((await keptAnswer('/api/workspace'))?.answer).toMatchObject({ now: '2026-11-24T22:40' });
  expect(await keptAnswer(TASK)).toBeNull();
});

it('gives the sheet of what is today by now, not of what was today then', async () => {
  const sheet = (date: string) => ({ date, late: [] });
  await keep([SHEET, sheet('2026-11-24')], [`${SHEET}?date=2026-11-25`, sheet('2026-11-25')]);
  expect((await keptAnswer(SHEET))?.answer).toEqual(sheet('2026-11-24'));
  vi.setSystemTime(Date.now() + 2 * HOUR);
  expect((await keptAnswer(SHEET))?.answer).toEqual(sheet('2026-11-25'));
  vi.setSystemTime(Date.now() + 24 * HOUR);
  expect(await keptAnswer(SHEET)).toBeNull();
});

it('gives nothing that is too old, or of somebody else', async () => {
  await keep([TASK, { title: 'Round' }]);
  vi.setSystemTime(Date.now() + 8 * 24 * HOUR);
  expect(await keptAnswer(TASK)).not.toBeNull();
  vi.setSystemTime(Date.now() + 2 * 24 * HOUR);
  expect(await keptAnswer(TASK)).toBeNull();
  vi.setSystemTime(new Date('2026-11-24T23:00Z'));
  await keep(['/api/session', { person: { id: 'kit', name: 'Kit Sorrell' } }]);
  expect(await keysOnDevice('answers')).toEqual(['/api/session']);
});

it('keeps nothing once somebody has signed out, though it was on its way', async () => {
  await keep([TASK, { title: 'Round' }]);
  await forgetAnswers();
  keepAnswer(TASK, { title: 'Round' });
  await settled();
  await new Promise((resolve) => setTimeout(resolve, 20));
  expect(await keysOnDevice('answers')).toEqual([]);
});

it('lets go of what is too old', async () => {
  await keep([TASK, { title: 'Round' }]);
  await forgetOlderAnswers(Date.now() - HOUR);
  expect(await keysOnDevice('answers')).toContain(TASK);
  await forgetOlderAnswers(Date.now() + HOUR);
  expect(await keysOnDevice('answers')).toEqual([]);
});

it('does not take the place of what is shown and later, but moves the time and the day on', () => {
  const kept = (answer: unknown) => ({ answer, at: 0 });
  expect(betterOf(TASK, { note: 'new' }, kept({ note: 'old' }))).toEqual({ note: 'new' });
  expect(betterOf(TASK, undefined, kept({ note: 'old' }))).toEqual({ note: 'old' });
  expect(betterOf(TASK, { note: 'new' }, null)).toEqual({ note: 'new' });
  expect(betterOf(TASK, undefined, null)).toBeUndefined();
  expect(betterOf('/api/workspace', { now: '1' }, kept({ now: '2' }))).toEqual({ now: '2' });
  expect(betterOf(SHEET, { date: '24', late: [1] }, kept({ date: '24', late: [] }))).toEqual({ date: '24', late: [1] });
  expect(betterOf(SHEET, { date: '24' }, kept({ date: '25' }))).toEqual({ date: '25' });
});
