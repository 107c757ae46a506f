import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { Impact, LoadOfPerson, WorkloadCell } from '../../../contract/index.ts';
import { dayOfIso, isoOfDay } from '../../../core/index.ts';
import { INES, NADIA, show } from '../../testing/show.tsx';
import { lineOf } from '../../testing/tasks.ts';
import WorkloadPage from './workload-page.tsx';

const FIRST = dayOfIso('2026-11-23');
const STARTS = Array.from({ length: 28 }, (_, i) => isoOfDay(FIRST + i));
const EMPTY: WorkloadCell = { done: 0, open: 0, foreseen: 0, capacity: 0, isAway: false };
const KIT = { ...NADIA, id: '01937000-0000-7000-8000-0000000000a3', name: 'Kit Sorrell' };
/** Somebody who has so many minutes to do on some days, of 450 on each weekday; away on one of them. */
const rowOf = ({ id, name, roles, team }: typeof NADIA, open: Readonly<Record<string, number>>): LoadOfPerson => ({
  person: { id, name, roles, team },
  cells: STARTS.map((day, i) => {
    const isAway = name === 'Kit Sorrell' && day === '2026-12-01';
    return { ...EMPTY, open: open[day] ?? 0, capacity: i % 7 > 4 || isAway ? 0 : 450, isAway };
  }),
});
const TASK = lineOf({
  title: 'Winter covers',
  estimateMinutes: 240,
  dueOn: '2026-11-25',
  on: '2026-11-25',
  state: 'coming',
});
const BEGUN = lineOf({ id: '01937000-0000-7000-8000-000000000f02', title: 'Lifts', state: 'underWay' });
const CHANGED: Impact = {
  figures: { added: 0, changed: 1, removed: 0, keptByHand: 0, keptShowing: 0, keptBegun: 0, keptLacking: 0 },
  ...{ items: [], years: [], datesBefore: 0, datesAfter: 0 },
};

async function shown(me = INES, around: Readonly<Record<string, unknown>> = {}) {
  const sent: unknown[] = [];
  const deed = (answer: unknown) => (body: unknown) => {
    sent.push(body);
    return answer;
  };
  const rows = [
    rowOf(NADIA, { '2026-11-25': 480, '2026-11-24': 60 }),
    rowOf(KIT, { '2026-11-25': 120 }),
    { person: null, cells: STARTS.map((day) => ({ ...EMPTY, open: day === '2026-11-27' ? 30 : 0 })) },
  ];
  await show(<WorkloadPage />, {
    me,
    path: '/workload?unit=day',
    workspace: { people: [INES, NADIA, KIT] },
    answers: {
      '/workload?by=day': { starts: STARTS, rows, foreseenUpTo: '2027-01-05' },
      [`/workload/cell?from=2026-11-25&by=day&person=${NADIA.id}`]: { tasks: [TASK, BEGUN], count: 3, foreseen: [] },
      'POST /tasks/changes/impact': deed(CHANGED),
      'POST /tasks/changes': deed({ changed: 1, changeId: '01937000-0000-7000-8000-0000000000f1' }),
      ...around,
    },
  });
  const cell = (name: string) => screen.findByRole('button', { name: new RegExp(`^${name}`) });
  return { sent, cell, user: userEvent.setup() };
}
const carry = async (cell: HTMLElement) => {
  const line = screen.getByText('Winter covers').closest('li') as HTMLElement;
  fireEvent.dragStart(line, { dataTransfer: { setData: () => undefined } });
  fireEvent.dragOver(cell, { clientX: 100, clientY: 80 });
};

describe('the workload by the day', () => {
  it('says of each day what somebody has of their hours, and goes from one to the next by arrow keys', async () => {
    const { cell, user } = await shown();
    const over = await cell('Nadia Orme, Wed 25 Nov');
    expect(over.getAttribute('aria-label')).toBe('Nadia Orme, Wed 25 Nov: 8 of 7.5 hours, over');
    expect((await cell('Kit Sorrell, Tue 1 Dec')).getAttribute('aria-label')).toMatch(/0 of 0 hours, away$/);
    over.focus();
    await user.keyboard('{ArrowDown}');
    expect(document.activeElement?.getAttribute('aria-label')).toMatch(/^Kit Sorrell, Wed 25 Nov: 2 of 7\.5/);
    await user.keyboard('{ArrowRight}');
    expect(document.activeElement?.getAttribute('aria-label')).toMatch(/^Kit Sorrell, Thu 26 Nov/);
    // All of the week, whoever has it.
    expect(screen.getByText('11.5', { exact: false })).toBeTruthy();
  });

  it('tells the tasks behind a day, what is over, and who else is there with how much', async () => {
    const { cell, user } = await shown();
    await user.click(await cell('Nadia Orme, Wed 25 Nov'));
    const sheet = within(await screen.findByRole('complementary', { name: 'Nadia Orme, 25 Nov' }));
    expect(await sheet.findByText('Winter covers')).toBeTruthy();
    expect(sheet.getByText('0.5 h over')).toBeTruthy();
    expect(sheet.getByText('and 1 more')).toBeTruthy();
    expect(sheet.getByText('5.5 h free among them')).toBeTruthy();
    // What is begun stays where it is.
    expect(sheet.getByRole('checkbox', { name: 'Choose Winter covers' })).toBeTruthy();
    expect(sheet.queryByRole('checkbox', { name: 'Choose Lifts' })).toBeNull();
  });

  it('carries a task to somebody else on its day, after a look at what that changes', async () => {
    const { cell, sent, user } = await shown();
    await user.click(await cell('Nadia Orme, Wed 25 Nov'));
    await screen.findByText('Winter covers');
    const kit = await cell('Kit Sorrell, Wed 25 Nov');
    await carry(kit);
    expect(screen.getByText('Winter covers to Kit Sorrell, 2 → 6 h')).toBeTruthy();
    fireEvent.drop(kit);
    await user.click(await screen.findByRole('button', { name: 'Change 1 task' }));
    const deed = { kind: 'give', personId: KIT.id };
    const body = { tasks: [{ id: TASK.id, version: 1 }], deed };
    await waitFor(() => expect(sent).toEqual([body, body]));
  });

  it('moves it by days to another day of the same person; to neither, or to a day that is over, it can’t be put', async () => {
    const { cell, sent, user } = await shown();
    await user.click(await cell('Nadia Orme, Wed 25 Nov'));
    await screen.findByText('Winter covers');
    for (const name of ['Kit Sorrell, Thu 26 Nov', 'Nadia Orme, Mon 23 Nov', 'Nadia Orme, Wed 25 Nov']) {
      const place = await cell(name);
      await carry(place);
      fireEvent.drop(place);
    }
    expect(sent).toEqual([]);
    const friday = await cell('Nadia Orme, Fri 27 Nov');
    await carry(friday);
    expect(screen.getByText('Winter covers to Fri 27 Nov, 0 → 4 h')).toBeTruthy();
    fireEvent.drop(friday);
    await waitFor(() => expect(sent).toMatchObject([{ deed: { kind: 'move', by: { amount: 2, unit: 'day' } } }]));
  });

  it('stays as it was where what it would change can’t be asked', async () => {
    const offline = new TypeError('Failed to fetch');
    const { cell, sent, user } = await shown(INES, { 'POST /tasks/changes/impact': offline });
    await user.click(await cell('Nadia Orme, Wed 25 Nov'));
    await screen.findByText('Winter covers');
    const kit = await cell('Kit Sorrell, Wed 25 Nov');
    await carry(kit);
    fireEvent.drop(kit);
    await waitFor(() => expect(screen.queryByText(/to Kit Sorrell, 2 → 6 h/)).toBeNull());
    expect(sent).toEqual([]);
    expect(screen.queryByRole('dialog')).toBeNull();
    expect(screen.getByText('Winter covers')).toBeTruthy();
  });

  it('is of one site by choice: what stands behind it is asked for there, and nothing is moved from it', async () => {
    const site = { id: '01937000-0000-7000-8000-0000000000b1', name: 'Lee Quay' };
    const asset = {
      ...site,
      clientId: null,
      place: 'the west side',
      tag: null,
      isSite: true,
      siteId: null,
      fields: {},
    };
    const own = { ...asset, site: null, servesFrom: null, servesUntil: null, version: 1, archivedOn: null };
    const there = rowOf(NADIA, { '2026-11-25': 240 });
    const { cell, user } = await shown(INES, {
      '/assets?q=&which=sites': { assets: [own], more: null },
      [`/workload?by=day&site=${site.id}`]: { starts: STARTS, rows: [there], foreseenUpTo: '2027-01-05', site },
      [`/workload/cell?from=2026-11-25&by=day&person=${NADIA.id}&site=${site.id}`]: {
        tasks: [TASK],
        count: 1,
        foreseen: [],
      },
    });
    expect(await screen.findByRole('button', { name: /^Even out/ })).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Site: at all sites' }));
    await user.click(await screen.findByRole('option', { name: /^Lee Quay/ }));
    await waitFor(() => expect(screen.queryByText('Kit Sorrell')).toBeNull());
    expect((await cell('Nadia Orme, Wed 25 Nov')).getAttribute('aria-label')).toMatch(/: 4 of 7\.5 hours/);
    expect(screen.queryByRole('button', { name: /^Even out/ })).toBeNull();
    await user.click(await cell('Nadia Orme, Wed 25 Nov'));
    expect(await screen.findByText('Winter covers')).toBeTruthy();
    expect(screen.queryByText(/^Drag one by its handle/)).toBeNull();
  });

  it('is looked at by whoever may not give work to others, and not changed', async () => {
    const { cell, user } = await shown(NADIA);
    await user.click(await cell('Nadia Orme, Wed 25 Nov'));
    expect((await screen.findByText('Winter covers')).closest('li')?.getAttribute('draggable')).toBe('false');
    expect(screen.queryByRole('checkbox')).toBeNull();
    expect(screen.queryByRole('button', { name: /^Even out/ })).toBeNull();
  });
});
