import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { HeardOf, Summary } from '../../../contract/index.ts';
import { type SummaryWish, USUAL_QUIET } from '../../../core/index.ts';
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

const FREE = { here: false, mail: false, phone: false };
const HEARS: readonly HeardOf[] = [
  { side: 'mine', kind: 'late', times: 3, wish: { here: true, mail: true, phone: false }, fixed: FREE },
  { side: 'gave', kind: 'late', times: 1_041, wish: { here: true, mail: false, phone: false }, fixed: FREE },
  { side: 'gave', kind: 'finished', times: 20, wish: { here: false, mail: false, phone: false }, fixed: FREE },
  {
    side: 'mine',
    kind: 'named',
    times: 0,
    wish: { here: true, mail: true, phone: false },
    fixed: { here: true, mail: false, phone: false },
  },
];
const CHOSEN = {
  hears: HEARS,
  countedFrom: '2026-10-28',
  quiet: USUAL_QUIET,
  mailHours: Array.from({ length: 24 }, (_, hour) => (hour === 9 ? 4 : hour === 20 ? 2 : 0)),
};

describe('messages', () => {
  it('are chosen one by one, each kept as it is made, beside what the summary says now', async () => {
    const sent: unknown[] = [];
    await show(<MessagesPage />, {
      answers: {
        '/messages': { wish: WISH, email: 'ines@ternquay.example', summary: SUMMARY, ...CHOSEN },
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
      answers: {
        '/messages': { wish: { ...WISH, days: 'none' }, email: null, summary: { ...SUMMARY, bands: [] }, ...CHOSEN },
      },
    });
    expect(await screen.findByText('Nothing is late, and nothing is due today.')).toBeTruthy();
    expect(screen.getByText(/No address of yours is known here/)).toBeTruthy();
    expect(screen.getByRole<HTMLButtonElement>('button', { name: 'Send it to me now' }).disabled).toBe(true);
  });

  it('say how often there was what, and keep where it is heard of; who is named is told always', async () => {
    const sent: unknown[] = [];
    await show(<MessagesPage />, {
      answers: {
        '/messages': { wish: WISH, email: 'ines@ternquay.example', summary: SUMMARY, ...CHOSEN },
        'PUT /messages/kinds': (body: { wish: unknown }) => {
          sent.push(body);
          return { wish: body.wish };
        },
        'PUT /messages/quiet': (quiet: unknown) => {
          sent.push(quiet);
          return { quiet };
        },
      },
    });
    const user = userEvent.setup();
    const late = await screen.findByRole('row', { name: /^Late/ });
    expect(
      within(late)
        .getAllByRole('cell')
        .map(({ textContent }) => textContent),
    ).toEqual(['3', '', '', '', '1,041', '', '', '']);
    await user.click(within(late).getByRole('checkbox', { name: 'Late, work of others: by mail' }));
    await waitFor(() =>
      expect(sent).toEqual([{ side: 'gave', kind: 'late', wish: { here: true, mail: true, phone: false } }]),
    );
    const sums = screen.getByRole('row', { name: /That is, in 4 weeks/ });
    expect(
      within(sums)
        .getAllByRole('cell')
        .map(({ textContent }) => textContent),
    ).toEqual(['3', '3', '3', '0', '1,061', '1,041', '0', '0']);
    const named = screen.getByRole<HTMLInputElement>('checkbox', { name: 'Named or nudged, my own work: here' });
    expect([named.checked, named.disabled]).toEqual([true, true]);
    expect(screen.getByText(/^Of 6 things told by mail in these 4 weeks 2 fell into these hours/)).toBeTruthy();
    await user.selectOptions(screen.getByLabelText('What comes through'), 'nothing');
    await waitFor(() => expect(sent.at(-1)).toEqual({ ...USUAL_QUIET, through: null }));
  });
});
