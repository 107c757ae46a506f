import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { Summary } from '../../../contract/index.ts';
import type { SummaryWish } from '../../../core/index.ts';
import { show } from '../../testing/show.tsx';
import MessagesPage from './messages-page.tsx';

const WISH: SummaryWish = { at: '07:30', days: 'working', evenIfEmpty: false };
const SUMMARY: Summary = {
  ...{ subject: 'Tue 24 Nov: 8 late', on: '2026-11-24', at: '2026-11-24T10:40' },
  bands: [
    {
      ...{ band: 'late', count: 8, about: '6 h', path: '/tasks?are=late&due=any' },
      lines: [{ text: 'Pontoon D', about: '7 days', verb: 'Open', path: '/tasks/task/x?due=any' }],
    },
  ],
};

describe('messages', () => {
  it('are chosen one by one, each kept as it is made, beside what the summary says now', async () => {
    const sent: unknown[] = [];
    await show(<MessagesPage />, {
      answers: {
        '/messages': { wish: WISH, email: 'ines@ternquay.example', summary: SUMMARY },
        'PUT /messages/summary': (wish: unknown) => {
          sent.push(wish);
          return { wish };
        },
        'POST /messages/summary/now': () => {
          sent.push('now');
          return { email: 'ines@ternquay.example' };
        },
      },
    });
    const paper = await screen.findByRole('article', { name: 'What the summary says' });
    expect(within(paper).getByRole('heading', { level: 3 }).textContent).toBe('Tue 24 Nov: 8 late');
    expect(within(paper).getByText('and 7 more, 6 h')).toBeTruthy();
    expect(within(paper).getByRole('link', { name: 'Open Pontoon D' }).getAttribute('href')).toBe(
      '/tasks/task/x?due=any',
    );
    const user = userEvent.setup();
    await user.selectOptions(screen.getByLabelText('On which days the summary comes'), 'every day');
    await waitFor(() => expect(sent).toEqual([{ ...WISH, days: 'every' }]));
    await user.click(screen.getByRole('button', { name: 'Send it to me now' }));
    await waitFor(() => expect(sent.at(-1)).toBe('now'));
  });

  it('say that there is nothing, and that no address is known', async () => {
    await show(<MessagesPage />, {
      answers: { '/messages': { wish: { ...WISH, days: 'none' }, email: null, summary: { ...SUMMARY, bands: [] } } },
    });
    expect(await screen.findByText('Nothing is late, and nothing is due today.')).toBeTruthy();
    expect(screen.getByText(/No address of yours is known here/)).toBeTruthy();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Send it to me now' }).disabled).toBe(true);
  });
});
