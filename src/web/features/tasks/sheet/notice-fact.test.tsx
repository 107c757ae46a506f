import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { VisitRules } from '../../../../core/index.ts';
import { show } from '../../../testing/show.tsx';
import { taskOf } from '../../../testing/tasks.ts';
import { NoticeFact } from './notice-fact.tsx';

const visits: VisitRules = {
  ways: [
    { name: 'by hand', onItsWay: { days: 0, unit: 'day' } },
    { name: 'by mail', onItsWay: { days: 0, unit: 'day' } },
    { name: 'by post', onItsWay: { days: 2, unit: 'workingDay' } },
  ],
  terms: [
    {
      type: 'routine',
      period: { days: 7, unit: 'day', countsReceipt: false, countsVisit: true },
      ways: ['by hand', 'by mail', 'by post'],
    },
  ],
};
const visit = (on: string, of: object = {}) =>
  taskOf({
    ...{ title: 'Gas and shore power', workType: 'routine', client: { id: 'c', name: 'Isolde Kestle' } },
    ...{ on, dueOn: on, mayPlan: true, ...of },
  });
const IMPACT = {
  figures: { added: 0, changed: 1, removed: 0, keptByHand: 0, keptShowing: 0, keptBegun: 0, keptLacking: 0 },
  ...{ items: [], years: [], datesBefore: 0, datesAfter: 0 },
};

describe('the notice of a visit', () => {
  it('says until when it has to go, by each way that still can', async () => {
    // 24 Nov 2026 is today: for 2 Dec the letter is received by the 25th; by post it had to go on the 23rd.
    await show(<NoticeFact task={visit('2026-12-02')} />, { workspace: { visits } });
    expect(screen.getByText(/^by hand or by mail until tomorrow$/)).toBeTruthy();
    expect(screen.queryByText(/by post/)).toBeNull();
  });

  it('that had to go says so, from when it would not be, and moves the visit there after a look', async () => {
    const sent: unknown[] = [];
    const task = visit('2026-11-27');
    await show(<NoticeFact task={task} />, {
      workspace: { visits },
      answers: {
        'POST /tasks/changes/impact': (body: unknown) => {
          sent.push(body);
          return IMPACT;
        },
      },
    });
    expect(screen.getByText(/^it had to go by hand or by mail until Fri 20 Nov/)).toBeTruthy();
    await userEvent.setup().click(screen.getByRole('button', { name: 'Move the visit to Tue 1 Dec' }));
    expect(sent).toEqual([
      { tasks: [{ id: task.id, version: task.version }], deed: { kind: 'moveTo', on: '2026-12-01' } },
    ]);
  });

  it.each([
    ['of another type', { workType: 'arrival' }],
    ['at home', { client: null }],
    ['that is done', { state: 'done' }],
  ])('is none for work %s', async (_, of) => {
    const { container } = await show(<NoticeFact task={visit('2026-12-02', of)} />, { workspace: { visits } });
    expect(container.querySelector('dt')).toBeNull();
  });
});
