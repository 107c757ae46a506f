import { screen, within } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { WorkMark } from '../../../../contract/index.ts';
import { dayOfIso, isoOfDay } from '../../../../core/index.ts';
import { show } from '../../../testing/show.tsx';
import { YearLines } from './year-lines.tsx';

const TASK = '01937000-0000-7000-8000-0000000000e1';
const mark = (on: string, of: Partial<WorkMark> = {}): WorkMark => ({
  ...{ on, taskId: null, state: 'coming', late: false },
  ...of,
});
const work = (marks: WorkMark[]) => ({
  ...{ from: '2026-06-01', to: '2027-05-31', coming: [], comingCount: 0, done: [], doneCount: 0 },
  lines: [{ key: 'a', name: 'Mooring check', marks }],
});

describe('a year of work', () => {
  it('has a mark for each date, in its place and with its state; those that are made lead to their task', async () => {
    await show(<YearLines work={work([mark('2026-06-01', { taskId: TASK, state: 'done' }), mark('2026-12-01')])} />);
    const line = screen.getByText('Mooring check').closest('li') as HTMLElement;
    const link = within(line).getByRole('link', { name: 'Mon 1 Jun: done' });
    expect(link.getAttribute('href')).toBe(`/task/${TASK}`);
    expect(link.style.left).toContain('0%');
    const coming = within(line).getByText('Tue 1 Dec: not made yet').parentElement as HTMLElement;
    expect(Number(/([\d.]+)%/.exec(coming.style.left)?.[1])).toBeCloseTo((183 / 365) * 100, 1);
  });

  it('draws what stands too close as strokes, each of which still says its day', async () => {
    const first = dayOfIso('2026-11-24');
    const daily = Array.from({ length: 60 }, (_, i) => mark(isoOfDay(first + i)));
    await show(<YearLines work={work(daily)} />);
    const line = screen.getByText('Mooring check').closest('li') as HTMLElement;
    expect(within(line).getAllByText(/: not made yet$/)).toHaveLength(60);
    expect(within(line).queryByRole('img')).toBe(null);
    expect(line.querySelectorAll('svg')).toHaveLength(0);
  });

  it('is not there where there is nothing to draw', async () => {
    await show(<YearLines work={{ ...work([]), lines: [] }} />);
    expect(screen.queryByRole('heading', { name: 'The year' })).toBe(null);
  });
});
