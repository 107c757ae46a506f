import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';
import type { LogFilter, LoggedChange } from '../../../contract/index.ts';
import { show } from '../../testing/show.tsx';
import { ChangesPart } from './changes-part.tsx';

const FILTER: LogFilter = { from: '2026-11-23', to: '2026-11-24', kind: 'late' };
const ASKED = '/logbook/changes?from=2026-11-23&to=2026-11-24';
const change = (n: number, of: Partial<LoggedChange> = {}): LoggedChange => ({
  ...{ id: `01937000-0000-7000-8000-00000000000${n}`, at: '2026-11-24T09:15', by: 'Ines Calloway', taskId: null },
  ...{ title: `Round ${n}`, about: 'Crane 1', dueOn: '2026-11-26', from: 'Kit Sorrell', to: null, notice: null },
  ...of,
});
const rows = () => screen.getAllByRole('row').slice(1);

it('says who gave a task to whom, and goes back page by page', async () => {
  const taskId = '01937000-0000-7000-8000-0000000000f1';
  await show(<ChangesPart filter={FILTER} what="given" />, {
    answers: {
      [`${ASKED}&what=given`]: { changes: [change(1, { taskId, to: 'Nadia Orme' })], more: 'place' },
      [`${ASKED}&what=given&after=place`]: { changes: [change(2, { taskId, by: null })], more: null },
    },
    path: '/logbook?kind=given',
  });
  await screen.findByRole('link', { name: 'Round 1' });
  await userEvent.click(screen.getByRole('button', { name: 'Earlier ones' }));
  await screen.findByRole('link', { name: 'Round 2' });
  expect(rows().map(({ textContent }) => textContent)).toEqual([
    'Tue 24 Nov, 09:15Round 1 Crane 1Thu 26 NovKit Sorrell → Nadia OrmeInes Calloway',
    'Tue 24 Nov, 09:15Round 2 Crane 1Thu 26 NovKit Sorrell → nobody yetJolly Rota',
  ]);
  expect(screen.getByRole('link', { name: 'Round 1' }).getAttribute('href')).toBe(`/logbook/task/${taskId}?kind=given`);
});

it('says who had what was deleted, which can’t be opened, and where there is none', async () => {
  const answers = { [`${ASKED}&what=deleted`]: { changes: [change(1)], more: null } };
  await show(<ChangesPart filter={FILTER} what="deleted" />, { answers });
  expect((await screen.findByText('Round 1')).closest('a')).toBeNull();
  expect(rows()[0]?.textContent).toContain('Kit Sorrell');
});
