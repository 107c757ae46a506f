import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { Overview } from '../../../contract/index.ts';
import { ShellContext } from '../../app/shell/shell-context.ts';
import { INES, NADIA, show } from '../../testing/show.tsx';
import { lineOf } from '../../testing/tasks.ts';
import OverviewPage from './overview-page.tsx';

const NONE = { count: 0, minutes: 0, lines: [] };
const EMPTY: Overview = {
  at: '2026-11-24T10:40',
  today: {
    ...{ due: 0, done: 0, toCheck: 0, underWay: 0, toStart: 0 },
    ...{ dueMinutes: 0, finishedMinutes: 0, lateMinutes: 0, capacity: 0 },
    calls: { all: 0, made: 0, minutes: 0, finishedMinutes: 0 },
  },
  ...{ late: NONE, underWay: NONE, toCheck: NONE, heldUp: NONE },
  nobody: { ...NONE, foreseenCount: 0, foreseen: [] },
  schedules: { all: 0, count: 0, lines: [] },
  weeks: [],
  horizon: '2026-12-24',
  lastRun: null,
};
const late = (n: number, of = {}) =>
  lineOf({
    id: `01937000-0000-7000-8000-00000000f${String(n).padStart(3, '0')}`,
    title: `Round ${n}`,
    ...{ late: true, daysLate: n, assignee: { id: NADIA.id, name: NADIA.name } },
    ...of,
  });
const shell = { startNow: () => undefined, capture: () => undefined };
const page = (overview: Overview, answers: Readonly<Record<string, unknown>> = {}) =>
  show(
    <ShellContext value={shell}>
      <OverviewPage />
    </ShellContext>,
    {
      path: '/overview',
      answers: {
        '/overview': overview,
        '/on-time': { weeks: [], now: { due: 0, onTime: 0 }, before: { due: 0, onTime: 0 }, mostLate: [] },
        '/shifts/gaps': { gaps: [] },
        ...answers,
      },
    },
  );

describe('the morning page', () => {
  it('tells where to begin while nothing is planned, and that nothing asks for anybody once something is', async () => {
    await page(EMPTY);
    expect(await screen.findByRole('heading', { name: 'Nothing is planned yet.' })).toBeTruthy();
    expect(screen.getByRole('link', { name: 'template' }).getAttribute('href')).toBe('/templates/new');
    expect(screen.getByText('Nothing is due today')).toBeTruthy();
    expect(await screen.findByText('Nothing was due in these weeks.')).toBeTruthy();
  });

  it('gives each late line its one next thing: a nudge, somebody, one’s own to open', async () => {
    const lines = [
      late(1),
      late(2, { nudgedAt: '2026-11-24T10:12' }),
      late(3, { assignee: null, offeredTo: 'any of dock crew' }),
      late(4, { assignee: { id: INES.id, name: INES.name } }),
      late(5, { state: 'underWay', startedAt: '2026-11-21T09:00' }),
      late(6, { nudgedAt: '2026-11-24T09:12' }),
    ];
    const sent: unknown[] = [];
    await page(
      { ...EMPTY, late: { count: 9, minutes: 375, lines } },
      {
        'POST /tasks/nudges': (body: unknown) => {
          sent.push(body);
          return { nudged: 1, people: 1, own: 0, nobodys: 0, over: 0, again: 0 };
        },
      },
    );
    const row = async (title: string) =>
      (await screen.findByRole('link', { name: title })).closest('li') as HTMLElement;
    expect((await row('Round 1')).textContent).toContain('1 day late');
    expect((await row('Round 2')).textContent).toMatch(/nudged 10:12$/);
    expect(within(await row('Round 3')).getByRole('button', { name: 'Assign Round 3' })).toBeTruthy();
    expect(within(await row('Round 4')).getByRole('link', { name: 'Open Round 4' })).toBeTruthy();
    expect((await row('Round 5')).textContent).toContain('under way for 3 days');
    // An hour has gone by: again, if need be.
    expect((await row('Round 6')).textContent).toContain('nudged 09:12Nudge');
    expect(screen.getByRole('link', { name: 'and 3 more' }).getAttribute('href')).toBe('/tasks?are=late&due=any');
    await userEvent.setup().click(screen.getByRole('button', { name: 'Nudge Nadia Orme about Round 1' }));
    await waitFor(() => expect(sent).toEqual([{ tasks: [late(1).id], text: '' }]));
  });
});
