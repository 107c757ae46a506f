import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';
import type { AccessToken } from '../../../contract/index.ts';
import { show } from '../../testing/show.tsx';
import InterfacePage from './interface-page.tsx';
import { MyTokens } from './my-tokens.tsx';

const id = (n: number) => `01937000-0000-7000-8000-00000000d${String(n).padStart(3, '0')}`;
const token = (n: number, more: Partial<AccessToken>): AccessToken => ({
  ...{ id: id(n), name: `board ${n}`, scope: 'read', endsOn: null, madeAt: '2026-11-20T09:00', usedAt: null },
  ...{ hasEnded: false, ...more },
});

it('lets a program in as far as is said, tells its token once, and withdraws one', async () => {
  const user = userEvent.setup();
  const asked: unknown[] = [];
  const old = token(1, { endsOn: '2026-11-01', hasEnded: true, usedAt: '2026-10-30T10:00' });
  await show(<MyTokens />, {
    answers: {
      '/tokens': { tokens: [old] },
      'POST /tokens': (body: unknown) => {
        asked.push(body);
        return { token: 'jr_secret', tokens: [token(2, { name: 'wall screen', scope: 'work' }), old] };
      },
      [`DELETE /tokens/${id(1)}`]: { tokens: [token(2, { name: 'wall screen', scope: 'work' })] },
    },
  });
  expect((await screen.findByRole('listitem')).textContent).toMatch(/ran out on 1 Nov 2026, last used Fri 30 Oct$/);
  await user.click(screen.getByRole('button', { name: 'Let a program in' }));
  expect(screen.getByRole('button', { name: 'Make the token' }).hasAttribute('disabled')).toBe(true);
  await user.type(screen.getByRole('textbox', { name: 'What the token is for' }), 'wall screen');
  await user.selectOptions(screen.getByRole('combobox', { name: 'How far it goes' }), 'work');
  await user.selectOptions(screen.getByRole('combobox', { name: 'Whether it ends' }), 'never');
  await user.click(screen.getByRole('button', { name: 'Make the token' }));
  expect((await screen.findByRole<HTMLInputElement>('textbox', { name: /told this once/ })).value).toBe('jr_secret');
  expect(asked).toEqual([{ name: 'wall screen', scope: 'work', endsOn: null }]);
  await user.click(screen.getByRole('button', { name: 'Withdraw the token for board 1' }));
  await waitFor(() => expect(screen.getAllByRole('listitem')).toHaveLength(1));
});

it('shows what can be asked, by group, found by words, with what it takes and answers', async () => {
  const user = userEvent.setup();
  const answer = { content: { 'application/json': { schema: { $ref: '#/components/schemas/Task' } } } };
  const operation = (operationId: string, summary: string) => ({
    ...{ operationId, summary, description: 'A token that may work is enough.', tags: ['Task'] },
    parameters: [{ name: 'taskId', in: 'path', required: true, schema: { type: 'string', format: 'uuid' } }],
    responses: { 200: answer },
  });
  await show(<InterfacePage />, {
    answers: {
      '/openapi.json': {
        info: { description: 'Dates are `YYYY-MM-DD`.\n\nWrites are done once.' },
        tags: [{ name: 'Task', description: 'Tasks: looked at, done, changed.' }],
        paths: {
          '/tasks/{taskId}/finish': { post: operation('task.finish', 'Task: finish') },
          '/tasks/{taskId}': { get: operation('task.one', 'Task: one') },
        },
        components: {
          schemas: {
            Task: {
              ...{ type: 'object', required: ['id'] },
              properties: {
                id: { type: 'string', format: 'uuid' },
                state: { enum: ['open', 'done'] },
                set: { type: 'array', items: { $ref: '#/components/schemas/Task' } },
              },
            },
          },
        },
      },
    },
  });
  expect(await screen.findByText('2 operations')).toBeTruthy();
  await user.type(screen.getByRole('searchbox', { name: 'Find an operation' }), 'finish');
  expect(await screen.findByText('1 operation')).toBeTruthy();
  const line = screen.getByRole('button', { name: /finish$/ });
  await user.click(line);
  const section = line.closest('section');
  if (section === null) throw new Error('no section');
  const said = within(section);
  expect(said.getByText('task.finish')).toBeTruthy();
  expect(section.querySelector('pre')?.textContent).toBe(
    '{\n  id: string (uuid)\n  state?: "open" | "done"\n  set?: Task[]\n}',
  );
});
