import { act, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, expect, it } from 'vitest';
import { problemOf } from '../../../contract/problems.ts';
import { ProblemError } from '../../kit/api.ts';
import { tellAsOf } from '../../kit/kept-answers.ts';
import { show } from '../../testing/show.tsx';
import { UnsentLine } from './unsent-line.tsx';
import { outbox } from './use-unsent.ts';

let answer: () => void = () => undefined;
const DEED = outbox.register({ name: 'test deed', sender: { send: async (_: { note: string }) => answer() } });
const put = (field: string) =>
  outbox.deliver(DEED, { field, value: { note: `words of ${field}` }, about: `the note ${field}`, to: `/${field}` });
const refuse = (kind: 'no-connection' | 'not-now', detail: string) => () => {
  throw new ProblemError(problemOf(kind, detail));
};

afterEach(() => {
  act(() => {
    outbox.discardAll();
    tellAsOf(null);
  });
});

it('says nothing where nothing waits and the server answers', async () => {
  await show(<UnsentLine />);
  expect(screen.queryByRole('status')).toBeNull();
});

it('says since when there is no connection, what waits, and all of it by name', async () => {
  answer = refuse('no-connection', 'No net.');
  await show(<UnsentLine />);
  act(() => tellAsOf(Date.now() - 20 * 60_000));
  expect(screen.getByRole('status').textContent).toContain('No connection: this is as of 10:20.');
  expect(screen.getByRole('status').textContent).toContain('What you do is kept on this device');
  for (const field of ['a', 'b', 'c']) await act(() => put(field));
  expect(screen.getByRole('status').textContent).toContain(
    'Not sent yet: the note a and 2 others. It is sent by itself',
  );
  await userEvent.setup().click(screen.getByRole('button', { name: '2 others' }));
  expect(screen.getAllByRole('link').map(({ textContent }) => textContent)).toEqual([
    'the note a',
    'the note b',
    'the note c',
  ]);
});

it('tells first what was refused, which can be copied and let go', async () => {
  answer = refuse('no-connection', 'No net.');
  await show(<UnsentLine />);
  await act(() => put('a'));
  answer = refuse('not-now', 'It is over.');
  await act(() => outbox.connected());
  answer = refuse('no-connection', 'No net.');
  await act(() => put('b'));
  expect(screen.getByRole('status').textContent).toContain('Not taken: the note a and 1 other. It is over.');
  const user = userEvent.setup();
  await user.click(screen.getByRole('button', { name: 'Copy it' }));
  expect(await navigator.clipboard.readText()).toBe('words of a');
  await user.click(screen.getByRole('button', { name: 'Let it go' }));
  expect(screen.getByRole('status').textContent).toContain('Not sent yet: the note b.');
});
