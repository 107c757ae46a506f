import { afterEach, describe, expect, it, vi } from 'vitest';
import { scheduleAddresses, taskAddresses, templateAddresses } from '../../contract/addresses.ts';
import { saySync } from '../features/schedules/api.ts';
import { addressOf, ask, ProblemError } from './api.ts';

afterEach(() => vi.unstubAllGlobals());

const answering = (status: number, body: unknown) =>
  vi.stubGlobal('fetch', vi.fn().mockResolvedValue({ ok: status < 400, status, json: () => Promise.resolve(body) }));

describe('an address', () => {
  it('has its parameters filled in and only the questions that are asked', () => {
    expect(addressOf(taskAddresses.daySheet, { params: { personId: 'p' } })).toBe('/api/people/p/day-sheet');
    expect(addressOf(taskAddresses.daySheet, { params: { personId: 'p' }, query: { date: '2026-11-24' } })).toBe(
      '/api/people/p/day-sheet?date=2026-11-24',
    );
    expect(addressOf(taskAddresses.tideline, { query: { person: undefined } })).toBe('/api/tideline');
    expect(addressOf(templateAddresses.list, { query: { after: '["a b","c"]' } })).toBe(
      '/api/templates?after=%5B%22a+b%22%2C%22c%22%5D',
    );
  });

  it('is never led astray by what is filled in', () => {
    expect(addressOf(scheduleAddresses.one, { params: { scheduleId: '../../x?y' } })).toBe(
      '/api/schedules/..%2F..%2Fx%3Fy',
    );
  });
});

describe('asking the server', () => {
  it('gives its answer', async () => {
    answering(200, { run: null });
    expect(await ask(scheduleAddresses.one, { params: { scheduleId: 's' } })).toEqual({ run: null });
  });

  it('passes on a refusal in its own words, field by field', async () => {
    answering(422, {
      type: 'about:blank',
      title: 'Not saved',
      status: 422,
      detail: 'The name is missing.',
      errors: [{ path: 'name', message: 'The name is missing.' }],
    });
    const refused = await ask(templateAddresses.list).catch((error: unknown) => error);
    expect(refused).toBeInstanceOf(ProblemError);
    expect((refused as ProblemError).message).toBe('The name is missing.');
    expect((refused as ProblemError).at('name')).toBe('The name is missing.');
    expect((refused as ProblemError).at('other')).toBeUndefined();
  });

  it('says so in words when there is no server, or something else answers', async () => {
    vi.stubGlobal('fetch', vi.fn().mockRejectedValue(new TypeError('failed')));
    await expect(ask(templateAddresses.list)).rejects.toThrow('The server does not answer. What you typed is kept');
    answering(502, '<html>');
    await expect(ask(templateAddresses.list)).rejects.toThrow('answered with an error (502)');
  });
});

describe('what a save did to tasks', () => {
  it.each([
    [{ made: 0, changed: 0, removed: 0, kept: 0 }, 'No task changes for now.'],
    [{ made: 1, changed: 0, removed: 0, kept: 0 }, '1 task made.'],
    [
      { made: 4, changed: 2, removed: 3, kept: 1 },
      '4 tasks made, 2 changed, 3 taken back, 1 left alone as it shows already.',
    ],
    [{ made: 0, changed: 0, removed: 0, kept: 2 }, '2 left alone as they show already.'],
  ])('%j reads %s', (sync, words) => {
    expect(saySync(sync)).toBe(words);
  });
});
