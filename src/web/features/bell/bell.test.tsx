import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';
import type { BellLine } from '../../../contract/index.ts';
import { show } from '../../testing/show.tsx';
import Bell from './bell.tsx';

const line = (n: number, of: Partial<BellLine> = {}): BellLine => ({
  id: `01937000-0000-7000-8000-00000000b${String(n).padStart(3, '0')}`,
  ...{
    kind: 'name',
    at: '2026-11-24T09:49',
    by: 'Joss Penhale',
    text: '@Ines Calloway is it in?',
    more: 0,
    isRead: false,
  },
  task: { id: '01937000-0000-7000-8000-00000000f001', title: 'Fire points' },
  ...of,
});

it('counts what is new, tells it apart while it is open, and has been read by opening it', async () => {
  let unread = 2;
  const lines = [
    line(3, { kind: 'nudge', by: 'Bram Hollis', text: '', more: 2 }),
    line(2),
    line(1, { isRead: true, at: '2026-11-20T16:00' }),
  ];
  const read: unknown[] = [];
  await show(<Bell className="" />, {
    answers: {
      get '/bell'() {
        return { unread, lines: lines.map((one) => ({ ...one, isRead: one.isRead || unread === 0 })) };
      },
      'POST /bell/read': (body: unknown) => {
        read.push(body);
        unread = 0;
        return { unread };
      },
    },
  });
  const user = userEvent.setup();
  await user.click(await screen.findByRole('button', { name: 'Bell, 2 new' }));
  const links = screen.getAllByRole('link');
  expect(links.map((link) => link.textContent)).toEqual([
    'Bram Hollis nudges you, new09:49Fire points and 2 more tasks of yours',
    'Joss Penhale named you, new09:49Fire points@Ines Calloway is it in?',
    'Joss Penhale named youFri 20 Nov, 16:00Fire points@Ines Calloway is it in?',
    'Choose what reaches you',
  ]);
  expect(links[0]?.getAttribute('href')).toBe('/tasks/task/01937000-0000-7000-8000-00000000f001');
  await waitFor(() => expect(read).toEqual([{ upTo: lines[0]?.id }]));
  expect(screen.getAllByText(', new')).toHaveLength(2);
});

it('says when it rings while there is nothing', async () => {
  await show(<Bell className="" />, { answers: { '/bell': { unread: 0, lines: [] } } });
  await userEvent.setup().click(await screen.findByRole('button', { name: 'Bell' }));
  expect(screen.getByText(/^Nothing yet\. It rings when you are named/)).toBeTruthy();
});
