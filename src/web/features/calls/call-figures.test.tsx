import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { CallFigures, CallLine } from '../../../contract/index.ts';
import { INES, NADIA, show } from '../../testing/show.tsx';
import CallFiguresPage from './call-figures-page.tsx';

const WEEKS = Array.from({ length: 4 }, (_, i) => `2026-11-${String(2 + i * 7).padStart(2, '0')}`);
const FIGURES: CallFigures = {
  outcomes: [
    { key: 'reached', name: 'reached', isReached: true, follows: 'rests', count: 30 },
    { key: 'no-answer', name: 'no answer', isReached: false, follows: 'triedAgain', count: 20 },
    { key: 'old', name: 'as it was called once', isReached: false, follows: 'leftAlone', count: 0 },
  ],
  ...{ listed: 54, rung: 50, reached: 30, notRung: 3, toRing: 1 },
  weeks: WEEKS.map((monday) => ({ monday, listed: 13, notRung: 1, by: [{ key: 'reached', count: 12 }] })),
  people: [
    {
      ...{ id: NADIA.id, name: NADIA.name, listed: 54, rung: 50, reached: 30, lists: 16, whole: 14, inRow: 5, best: 9 },
      days: `${'wwwpw--'.repeat(3)}wp`,
    },
  ],
  hours: [{ hour: 10, weekday: 1, rung: 50, reached: 30 }],
  callBacks: {
    promised: 4,
    by: (['sooner', 'kept', 'later', 'late', 'owed', 'toCome'] as const).map((kept) => ({
      kept,
      count: { kept: 3, owed: 1 }[kept as string] ?? 0,
    })),
    medianMinutes: 12,
  },
  pool: { free: 31, dryOn: '2026-12-04', weeks: 12 },
};
const LINE: CallLine = {
  ...{ id: '01937000-0000-7000-8000-00000000f001', on: '2026-11-20', state: 'rung', outcome: 'no answer' },
  ...{ person: { id: NADIA.id, name: NADIA.name }, contact: { id: INES.id, name: 'Verity Lanyon' } },
  ...{ client: { id: INES.id, name: 'Verity Lanyon' }, asset: 'Tidy Sum', isReached: false, note: 'Rings out.' },
  ...{ rungAt: '2026-11-20T09:12', callBack: { on: '2026-11-23', at: '14:00' } },
};
const DAYS = 'from=2026-11-02&to=2026-11-24';
const answers = {
  '/quotas': { quotas: [] },
  [`/call-figures?${DAYS}`]: FIGURES,
  [`/call-figures/calls?${DAYS}&kept=owed`]: { lines: [LINE], next: null },
  [`/call-figures/calls?${DAYS}&ended=rung&outcome=no-answer`]: { lines: [LINE], next: null },
  [`/call-figures/calls?from=2026-11-09&to=2026-11-15`]: { lines: [], next: null },
};
const open = () => show(<CallFiguresPage />, { path: '/calls/figures?weeks=4', answers });

describe('figures of calls', () => {
  it('tell who rang how many, which days were whole, and who is still owed a call', async () => {
    await open();
    const row = await screen.findByRole('row', { name: /Nadia Orme/ });
    expect(
      within(row)
        .getAllByRole('cell')
        .map((cell) => cell.textContent),
    ).toEqual([...['50', '54', '30', '60%', '14 of 16', '9']]);
    expect(
      screen.getByRole('img', { name: 'Nadia Orme: 16 lists, 14 of them rung to the end, 5 in a row' }),
    ).toBeTruthy();
    expect(await screen.findByText('Verity Lanyon')).toBeTruthy();
    expect(screen.getByText('Half of those with a time were rung within 12 min of it.')).toBeTruthy();
    expect(screen.getByText(/From 4 Dec 2026 on there are too few\./)).toBeTruthy();
    // What nobody ended a call with is left out.
    expect(screen.queryByText('as it was called once')).toBeNull();
  });

  it('open the calls behind each, and those of a week', async () => {
    await open();
    const user = userEvent.setup();
    await user.click(await screen.findByRole('button', { name: /no answer/ }));
    const behind = await screen.findByRole('complementary', { name: 'Calls: no answer' });
    expect(await within(behind).findByText(/Rings out\./)).toBeTruthy();
    expect(within(behind).getByText(/call back .*23 Nov 14:00/)).toBeTruthy();
    await user.selectOptions(screen.getByLabelText('A week’s calls'), '2026-11-09');
    const ofWeek = await screen.findByRole('complementary', { name: 'Calls from Mon 9 Nov to Sun 15 Nov' });
    expect(await within(ofWeek).findByText('No calls.')).toBeTruthy();
    await user.click(within(ofWeek).getByRole('button', { name: 'Close' }));
    expect(await screen.findByText('4 promised')).toBeTruthy();
  });
});
