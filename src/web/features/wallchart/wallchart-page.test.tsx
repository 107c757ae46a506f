import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { Impact, WallDate, WallRow } from '../../../contract/index.ts';
import { packedMarks } from '../../../core/index.ts';
import { INES, NADIA, show } from '../../testing/show.tsx';
import { lineOf } from '../../testing/tasks.ts';
import WallchartPage from './wallchart-page.tsx';

const ROWS: WallRow[] = [
  {
    ...{ key: '01937000-0000-7000-8000-00000000c001', name: 'Pontoon A', detail: 'PA-1', group: 'Lee Quay' },
    marks: packedMarks([
      { column: 24, look: 'doneLate', count: 1 },
      { column: 25, look: 'late', count: 2 },
      { column: 25, look: 'done', count: 1 },
      { column: 26, look: 'coming', count: 1 },
      { column: 40, look: 'foreseen', count: 1 },
    ]),
    rests: [],
  },
  {
    ...{ key: '01937000-0000-7000-8000-00000000c002', name: 'Slipway winch', detail: '', group: '' },
    marks: [],
    rests: [{ from: '2026-12-01', to: '2027-02-14', because: 'resting' }],
  },
];
const TASK = lineOf({ title: 'Pontoon A inspection', dueOn: '2026-11-30', state: 'coming' });
const DATE: WallDate = {
  ...{
    scheduleId: '01937000-0000-7000-8000-00000000d001',
    nominalDate: '2027-03-08',
    stepKey: '',
    head: '',
    version: 3,
  },
  ...{ title: 'Pontoon A inspection', client: null, asset: null, on: '2027-03-08', dueOn: '2027-03-08' },
  ...{ startTime: null, dueTime: null, estimateMinutes: 30, assignee: null },
};
const CHANGED: Impact = {
  figures: { added: 0, changed: 1, removed: 0, keptByHand: 0, keptShowing: 0, keptBegun: 0, keptLacking: 0 },
  ...{ items: [], years: [], datesBefore: 0, datesAfter: 0 },
};

async function shown(me = INES) {
  const sent: { readonly to: string; readonly body: unknown }[] = [];
  const deed = (to: string, answer: unknown) => (body: unknown) => {
    sent.push({ to, body });
    return answer;
  };
  await show(<WallchartPage />, {
    me,
    path: '/wallchart',
    answers: {
      '/wallchart?rows=asset&span=year&by=week&start=0': {
        ...{ first: '2026-06-01', length: 7, columns: 53, start: 0, rows: ROWS, count: 2 },
        ...{ foreseenUpTo: '2027-12-29', names: { client: null, site: null, template: null } },
      },
      'POST /wallchart/marks': deed('marks', { tasks: [TASK], dates: [DATE], count: { tasks: 1, dates: 1 } }),
      'POST /wallchart/changes/impact': deed('impact', CHANGED),
      'POST /wallchart/changes': deed('changes', {
        ...{ changed: 1, schedules: 1, changeId: '01937000-0000-7000-8000-0000000000f1' },
      }),
    },
  });
  const grid = await screen.findByRole('grid');
  grid.focus();
  return { sent, grid, user: userEvent.setup() };
}
const here = () => screen.getByRole('gridcell').getAttribute('aria-label');

describe('the wallchart', () => {
  it('begins at today, says what stands in a cell, and goes from one to the next by keys', async () => {
    const { user } = await shown();
    expect(here()).toBe('Pontoon A, week of 23 Nov: 2 late, 1 done');
    await user.keyboard('{ArrowLeft}');
    expect(here()).toBe('Pontoon A, week of 16 Nov: 1 done late');
    await user.keyboard('{ArrowRight}{ArrowRight}{ArrowDown}');
    expect(here()).toBe('Slipway winch, week of 30 Nov: nothing');
    await user.keyboard('{End}');
    expect(here()).toBe('Slipway winch, week of 31 May: nothing');
    await user.keyboard('{ArrowRight}{Home}{ArrowUp}{ArrowUp}');
    expect(here()).toBe('Pontoon A, week of 1 Jun: nothing');
  });

  it('tells what was chosen, and moves it after a look, as far as it is told', async () => {
    const { user, sent } = await shown();
    await user.keyboard('{ArrowRight}[Space]');
    const foot = within(await screen.findByRole('region', { name: 'The chosen marks' }));
    expect(await foot.findByText('2 chosen')).toBeTruthy();
    expect(foot.getByText('Pontoon A inspection, Mon 30 Nov and Mon 8 Mar 2027')).toBeTruthy();
    expect(sent.at(-1)?.body).toMatchObject({
      blocks: [{ keys: [ROWS[0]?.key], from: '2026-11-30', to: '2026-12-06' }],
    });
    await user.click(foot.getByText('these and later'));
    expect(foot.getByRole('button', { name: 'Pause …' })).toBeTruthy();
    await user.click(foot.getByRole('button', { name: 'Move …' }));
    await user.click(foot.getByRole('button', { name: 'Look at what it changes' }));
    const look = within(await screen.findByRole('dialog'));
    await user.click(look.getByRole('button', { name: 'Change 1 task' }));
    await waitFor(() => expect(sent.some(({ to }) => to === 'changes')).toBe(true));
    expect(sent.find(({ to }) => to === 'changes')?.body).toEqual({
      reach: 'later',
      deed: { kind: 'move', days: 1 },
      tasks: [{ id: TASK.id, version: TASK.version }],
      dates: [{ scheduleId: DATE.scheduleId, nominalDate: '2027-03-08', stepKey: '', head: '', version: 3 }],
    });
    // The next ones are chosen for themselves.
    await waitFor(() => expect(screen.queryByRole('region', { name: 'The chosen marks' })).toBeNull());
  });

  it('carries a mark to another week after a look, and chooses where there is nothing to carry', async () => {
    const { grid, sent } = await shown();
    // 400 px wide in a test: the names, then columns of 18.5.
    const at = (column: number) => ({ button: 0, pointerId: 1, clientX: 132 + column * 18.5 + 9, clientY: 42 + 14 });
    grid.setPointerCapture = () => undefined;
    fireEvent.pointerDown(grid, at(26));
    fireEvent.pointerMove(grid, at(28));
    expect((await screen.findByText('2 weeks later, week of 14 Dec')).textContent).toBeTruthy();
    fireEvent.pointerUp(grid, at(28));
    await screen.findByRole('dialog');
    expect(sent.find(({ to }) => to === 'impact')?.body).toMatchObject({
      reach: 'these',
      deed: { kind: 'move', days: 14 },
    });
  });

  it('is read, and not changed, by whoever may not plan', async () => {
    const { user } = await shown(NADIA);
    await user.keyboard('[Space]');
    const foot = within(await screen.findByRole('region', { name: 'The chosen marks' }));
    expect(await foot.findByRole('button', { name: 'Show' })).toBeTruthy();
    expect(foot.queryByRole('button', { name: 'Move …' })).toBeNull();
    expect(screen.queryByRole('button', { name: 'Add a schedule to rows' })).toBeNull();
  });
});
