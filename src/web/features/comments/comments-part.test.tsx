import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';
import { NADIA, show } from '../../testing/show.tsx';
import CommentsPart from './comments-part.tsx';

const TASK = '01937000-0000-7000-8000-00000000f001';
const LIST = `/tasks/${TASK}/comments`;
const comment = (text: string) => ({
  id: crypto.randomUUID(),
  at: '2026-11-24T10:06',
  by: 'Joss Penhale',
  isOwn: false,
  text,
});

it('names somebody by what is typed after @, and says it once though it is sent twice', async () => {
  const sent: { key: string; text: string; named: string[] }[] = [];
  await show(<CommentsPart taskId={TASK} />, {
    answers: {
      [LIST]: { comments: [comment('The shop says two days.')], more: false },
      [`POST ${LIST}`]: (body: (typeof sent)[number]) => {
        sent.push(body);
        if (sent.length === 1) throw new TypeError('no connection');
        return { comment: comment(body.text) };
      },
    },
  });
  const user = userEvent.setup();
  expect(await screen.findByText('The shop says two days.')).toBeTruthy();
  const field = screen.getByRole('textbox', { name: 'A comment' });
  await user.type(field, 'Ready by noon? @nad');
  expect(screen.getByRole('list', { name: 'Whom @ names' }).textContent).toContain('Nadia Orme');
  await user.keyboard('{Enter}');
  expect((field as HTMLTextAreaElement).value).toBe('Ready by noon? @Nadia Orme ');
  expect(screen.getByText('Nadia Orme will hear of it.')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Say it' }));
  expect((await screen.findByRole('alert')).textContent).toContain('What you wrote is kept.');
  await user.click(screen.getByRole('button', { name: 'Say it' }));
  await waitFor(() => expect((field as HTMLTextAreaElement).value).toBe(''));
  expect(sent.map(({ named }) => named)).toEqual([[NADIA.id], [NADIA.id]]);
  expect(sent[1]?.key).toBe(sent[0]?.key);
});

it('takes a name that is taken out again for nobody', async () => {
  await show(<CommentsPart taskId={TASK} />, { answers: { [LIST]: { comments: [], more: false } } });
  const user = userEvent.setup();
  const field = await screen.findByRole('textbox', { name: 'A comment' });
  await user.type(field, '@nad');
  await user.keyboard('{Enter}');
  expect(screen.getByText('Nadia Orme will hear of it.')).toBeTruthy();
  await user.clear(field);
  await user.type(field, 'Nadia Orme has it.');
  expect(screen.queryByText(/will hear of it/)).toBeNull();
});
