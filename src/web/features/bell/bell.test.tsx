import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';
import type { BellLine } from '../../../contract/index.ts';
import { show } from '../../testing/show.tsx';
import Bell from './bell.tsx';

const line = (n: number, of: Partial<BellLine> = {}): BellLine => ({
  id: `01937000-0000-7000-8000-00000000b${String(n).padStart(3, '0')}`,
  ...{
    kind: 'named',
    side: 'mine',
    at: '2026-11-24T09:49',
    title: 'Fire points',
    times: 1,
    taskId: null,
    isRead: false,
  },
  ...{ text: 'Joss Penhale named you: is it in?', path: '/tasks/task/f1?due=any' },
  ...of,
});

it('counts what is new, tells it apart while it is open, by day and kind, and has been read by opening it', async () => {
  let unread = 3;
  const lines = [
    line(9, { kind: 'finished', side: 'gave', title: 'Tank gauge', text: 'finished by Kit Sorrell' }),
    line(8, {
      kind: 'late',
      side: 'gave',
      title: '3 tasks are late',
      text: 'A and B',
      times: 3,
      path: '/tasks?are=late',
    }),
    line(7),
    line(1, { isRead: true, at: '2026-11-20T16:00' }),
  ];
  const read: unknown[] = [];
  const asked: string[] = [];
  await show(<Bell className="" />, {
    answers: {
      get '/bell'() {
        return { unread, lines: lines.map((one) => ({ ...one, isRead: one.isRead || unread === 0 })), isMore: true };
      },
      get '/bell?before=01937000-0000-7000-8000-00000000b001'() {
        asked.push('earlier');
        return { unread, lines: [line(0, { isRead: true, at: '2026-11-19T16:00', title: 'Long ago' })], isMore: false };
      },
      'POST /bell/read': (body: unknown) => {
        read.push(body);
        unread = 0;
        return { unread };
      },
    },
  });
  const user = userEvent.setup();
  await user.click(await screen.findByRole('button', { name: 'Bell, 3 new' }));
  const today = screen.getByRole('region', { name: 'Tue 24 Nov' });
  // What asks for something stands first, with how many it tells of.
  expect(
    within(today)
      .getAllByRole('heading', { level: 4 })
      .map(({ textContent }) => textContent),
  ).toEqual(['3late', '1named', '1finished']);
  expect(within(today).getByText('3 not seen')).toBeTruthy();
  expect(
    within(today)
      .getAllByRole('link')
      .map((link) => link.getAttribute('href')),
  ).toEqual(['/tasks?are=late', '/tasks/task/f1?due=any', '/tasks/task/f1?due=any']);
  await waitFor(() => expect(read).toEqual([{ upTo: lines[0]?.id }]));
  expect(screen.getAllByText(', new')).toHaveLength(3);
  await user.click(screen.getByRole('button', { name: 'my own work' }));
  expect(screen.queryByText('Tank gauge')).toBeNull();
  await user.click(screen.getByRole('button', { name: 'all' }));
  await user.click(screen.getByRole('button', { name: 'Earlier' }));
  expect(await screen.findByText('Long ago')).toBeTruthy();
  expect(asked).toEqual(['earlier']);
  expect(screen.queryByRole('button', { name: 'Earlier' })).toBeNull();
});

it('that is opened before it is known what there is has been seen once that stands there', async () => {
  let arrive: (lines: object) => void = () => undefined;
  const answer = new Promise<object>((resolve) => {
    arrive = resolve;
  });
  const read: unknown[] = [];
  await show(<Bell className="" />, {
    answers: {
      '/bell': () => answer,
      'POST /bell/read': (body: unknown) => {
        read.push(body);
        return { unread: 0 };
      },
    },
  });
  await userEvent.setup().click(await screen.findByRole('button', { name: 'Bell' }));
  arrive({ unread: 1, lines: [line(1)], isMore: false });
  expect(await screen.findByText('1 not seen')).toBeTruthy();
  await waitFor(() => expect(read).toEqual([{ upTo: line(1).id }]));
});

it('says when it rings while there is nothing', async () => {
  await show(<Bell className="" />, { answers: { '/bell': { unread: 0, lines: [], isMore: false } } });
  await userEvent.setup().click(await screen.findByRole('button', { name: 'Bell' }));
  expect(screen.getByText(/^Nothing yet\. It rings when work is yours/)).toBeTruthy();
});
