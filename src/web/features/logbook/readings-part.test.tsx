import { screen, within } from '@testing-library/react';
import { expect, it } from 'vitest';
import type { LogFilter, LogSeries } from '../../../contract/index.ts';
import { show } from '../../testing/show.tsx';
import { ReadingsPart } from './readings-part.tsx';

const FILTER: LogFilter = { from: '2026-05-25', to: '2026-11-22', kind: 'all' };
const ASKED = '/logbook/readings?from=2026-05-25&to=2026-11-22&kind=all';
const reading = (n: number, value: number) => ({
  ...{ taskId: `01937000-0000-7000-8000-0000000000${n}`, on: `2026-10-${n}`, value },
  ...{ least: null, most: 0.8 },
});
const series: LogSeries = {
  ...{ series: 'a', label: 'Earth loop', unit: 'Ω', template: 'Gas and shore power', at: 'Saltwind', outside: 1 },
  readings: [reading(10, 0.4), reading(11, 1.2), reading(12, 0.5)],
};

it('tells of each step what was read last and what lies out of its limits, which opens', async () => {
  const plain = { ...series, series: 'b', label: 'Rings', unit: '', at: '', outside: 0 };
  const within2 = { ...plain, readings: [reading(10, 0.4)] };
  const free = { ...plain, series: 'c', label: 'Hours', readings: [{ ...reading(10, 7), most: null }] };
  await show(<ReadingsPart filter={FILTER} />, {
    answers: { [ASKED]: { series: [series, within2, free], count: 60, since: '2026-06-01' } },
    path: '/logbook?by=reading',
  });
  expect(
    await screen.findByText(/^60 steps with figures, the 40 with the largest share .*; the latest 2,000 tasks, since/),
  ).toBeTruthy();
  const [loop, rings, hours] = screen.getAllByRole('listitem');
  expect(loop?.textContent).toContain('Earth loop, ΩGas and shore power, Saltwind');
  expect(loop?.textContent).toContain('3 readings, 0.5 Ω on Mon 12 Oct');
  const out = within(loop as HTMLElement).getByRole('link', { name: '1.2 Ω on Sun 11 Oct' });
  expect(out.getAttribute('href')).toBe('/logbook/task/01937000-0000-7000-8000-000000000011?by=reading');
  expect(rings?.textContent).toContain('1 reading, 0.4 on Sat 10 Oct, all within');
  expect(hours?.textContent).toContain('no limits');
});

it('says where nothing was read', async () => {
  await show(<ReadingsPart filter={FILTER} />, { answers: { [ASKED]: { series: [], count: 0, since: null } } });
  expect(await screen.findByText('Nothing was read.')).toBeTruthy();
});
