import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import type { LogEntry, LogRow } from '../../../contract/index.ts';
import { show } from '../../testing/show.tsx';
import LogbookPage from './logbook-page.tsx';

// Its size is the browser's to say.
vi.mock('./rate-chart.tsx', () => ({ default: () => null }));

const entry = (n: number, of: Partial<LogEntry> = {}): LogEntry => ({
  id: `01937000-0000-7000-8000-00000000e${String(n).padStart(3, '0')}`,
  ...{ title: `Round ${n}`, client: null, asset: null, by: 'Nadia Orme', state: 'done', late: false, daysLate: 0 },
  ...{ dueOn: '2026-11-20', dueTime: '10:00', doneAt: '2026-11-20T09:58', signedBy: null, wasSentBack: false },
  ...{ readings: 0, outOfLimits: null, pictures: 0, picture: null, note: '' },
  ...of,
});
const FIGURES = { onTime: 9, late: 1, skipped: 2, lapsed: 1, open: 1 };
const BEFORE = { onTime: 3, late: 1, skipped: 0, lapsed: 0, open: 0 };
const SPAN = 'kind=all&from=2026-05-25&to=2026-11-22';
const RATES = { weeks: [{ monday: '2026-11-16', ...FIGURES }], all: FIGURES, before: BEFORE, entries: 13 };
const page = (answers: Readonly<Record<string, unknown>>, path = '/logbook') =>
  show(<LogbookPage />, { path, answers: { [`/logbook/rates?${SPAN}`]: RATES, ...answers } });

describe('the logbook', () => {
  it('tells the share on time of all that was due, and opens what is folded of a day', async () => {
    const high = { label: 'Earth loop', value: 1.12, unit: 'Ω', least: 0.05, most: 0.8 };
    const first = [
      entry(1, { late: true, daysLate: 1, doneAt: '2026-11-21T09:12' }),
      entry(2, { state: 'skipped', doneAt: null, note: 'Too much wind.' }),
      entry(3, { readings: 2, outOfLimits: high }),
      entry(4, { readings: 1 }),
    ];
    await page({
      [`/logbook/days?${SPAN}`]: { days: [{ on: '2026-11-20', count: 6, done: 5, entries: first }], more: null },
      [`/logbook/day?${SPAN}&on=2026-11-20`]: {
        ...{ on: '2026-11-20', count: 6, done: 5 },
        entries: [...first, entry(5), entry(6)],
      },
    });
    expect(await screen.findByText('on time, was 75%')).toBeTruthy();
    expect(screen.getByText('75', { exact: false, selector: 'b' })).toBeTruthy();
    const row = async (title: string) =>
      (await screen.findByRole('link', { name: title })).closest('li') as HTMLElement;
    expect((await row('Round 1')).textContent).toContain('10:00 Sat 09:121 day late');
    expect((await row('Round 2')).textContent).toContain('skipped');
    expect((await row('Round 3')).textContent).toContain('1.12 Ω');
    expect((await row('Round 4')).textContent).toContain('all within');
    expect(screen.getByRole('heading', { level: 2 }).textContent).toContain('5 of 6 done');
    await userEvent.setup().click(screen.getByRole('button', { name: 'Show all 6' }));
    expect(await screen.findByRole('link', { name: 'Round 6' })).toBeTruthy();
    expect(screen.queryByText(/more entries/)).toBeNull();
    expect(screen.getByRole('link', { name: 'Save as CSV' }).getAttribute('href')).toBe(`/api/logbook.csv?${SPAN}`);
  });

  it('tells by what it was for, what was missed most first, and opens a row as its days', async () => {
    const line = (key: string, name: string | null, of: Partial<LogRow> = {}): LogRow => ({
      ...{ key, name, detail: '', onTime: 9, late: 0, skipped: 0, lapsed: 0, open: 0 },
      ...of,
    });
    const quay = line('01937000-0000-7000-8000-0000000000c1', 'Isolde Kestle', { late: 3 });
    await page(
      {
        [`/logbook/by?${SPAN}&by=client&start=0`]: { start: 0, count: 2, rows: [quay, line('', null)] },
        [`/logbook/rates?client=${quay.key}&${SPAN}`]: RATES,
        [`/logbook/days?client=${quay.key}&${SPAN}`]: { days: [], more: null },
        [`/task-list/sums?client=${quay.key}&from=2026-05-25&to=2026-05-25`]: {
          ...{ count: 0, minutes: 0, late: 0 },
          names: { client: { id: quay.key, name: quay.name }, asset: null, site: null, template: null, schedule: null },
        },
      },
      '/logbook?by=client',
    );
    const rows = (await screen.findAllByRole('row')).slice(1);
    expect(rows.map((row) => within(row).getAllByRole('cell')[1]?.textContent)).toEqual(['75%', '100%']);
    expect(within(rows[1] as HTMLElement).getByRole('button').textContent).toBe('Tern Quay');
    await userEvent.setup().click(screen.getByRole('button', { name: 'Isolde Kestle' }));
    expect(await screen.findByRole('heading', { name: 'Nothing stands here.' })).toBeTruthy();
    await waitFor(() => expect(screen.getByRole('button', { name: 'Isolde Kestle: show all' })).toBeTruthy());
  });
});
