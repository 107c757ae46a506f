import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { NoticeLine, Task } from '../../../../contract/index.ts';
import { NO_VISITS, type VisitRules } from '../../../../core/index.ts';
import { show } from '../../../testing/show.tsx';
import { taskOf } from '../../../testing/tasks.ts';
import { NoticeFact } from './notice-fact.tsx';

const visits: VisitRules = {
  ...NO_VISITS,
  ways: [
    { name: 'by hand', kind: 'hand', onItsWay: { days: 0, unit: 'day' } },
    { name: 'by mail', kind: 'mail', onItsWay: { days: 0, unit: 'day' } },
    { name: 'by post', kind: 'post', onItsWay: { days: 2, unit: 'workingDay' } },
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

const line = (of: Partial<NoticeLine>): NoticeLine => ({
  ...{ id: '01937000-0000-7000-8000-0000000000a1', batchId: '01937000-0000-7000-8000-0000000000b1', taskId: 't' },
  ...{
    client: { id: 'c', name: 'Isolde Kestle' },
    subject: 'Coming aboard',
    letter: 'Boarding notice',
    way: 'by post',
  },
  ...{ reason: '', visitOn: '2026-12-02', issuedOn: '2026-11-19', sentOn: '2026-11-19', writtenAt: '2026-11-19T09:00' },
  ...{ by: 'Ines Calloway', mail: null, isReplaced: false },
  ...of,
});
const fact = (task: Task, notices: readonly NoticeLine[] = [], answers: Readonly<Record<string, unknown>> = {}) =>
  show(<NoticeFact task={task} />, {
    workspace: { visits },
    answers: { [`/notices?task=${task.id}`]: { notices, isMore: false }, ...answers },
  });

describe('the notice of a visit', () => {
  it('says until when it has to go, by each way that still can, and is written from there', async () => {
    // 24 Nov 2026 is today: for 2 Dec the letter is received by the 25th; by post it had to go on the 23rd.
    const task = visit('2026-12-02');
    await fact(task);
    expect(await screen.findByText('not written')).toBeTruthy();
    expect(screen.getByText(/^by hand or by mail until tomorrow$/)).toBeTruthy();
    expect(screen.queryByText(/by post/)).toBeNull();
    expect(screen.getByRole('link', { name: 'Write the notice' }).getAttribute('href')).toBe(
      `/tasks/visits/write?of=${task.id}`,
    );
  });

  it('that had to go says so, from when it would not be, and moves the visit there after a look', async () => {
    const sent: unknown[] = [];
    const task = visit('2026-11-27');
    await fact(task, [], {
      'POST /tasks/changes/impact': (body: unknown) => {
        sent.push(body);
        return IMPACT;
      },
    });
    expect(await screen.findByText(/^it had to go by hand or by mail until Fri 20 Nov/)).toBeTruthy();
    await userEvent.setup().click(screen.getByRole('button', { name: 'Move the visit to Tue 1 Dec' }));
    expect(sent).toEqual([
      { tasks: [{ id: task.id, version: task.version }], deed: { kind: 'moveTo', on: '2026-12-01' } },
    ]);
  });

  it('that went says when and how, with what went before it', async () => {
    const before = line({ id: '01937000-0000-7000-8000-0000000000a0', visitOn: '2026-11-30', isReplaced: true });
    await fact(visit('2026-12-02'), [line({}), before]);
    expect(await screen.findByText('sent 19 Nov, by post')).toBeTruthy();
    expect(screen.getByText(/before: by post, sent 19 Nov for Mon 30 Nov/)).toBeTruthy();
    expect(screen.queryByRole('link', { name: /^Write/ })).toBeNull();
    expect(screen.getAllByRole('link', { name: /as a PDF$/ })[0]?.getAttribute('href')).toBe(
      `/api/notices.pdf?notice=${line({}).id}`,
    );
  });

  it.each([
    ['for another day', line({ visitOn: '2026-11-30' }), 'sent 19 Nov for Mon 30 Nov'],
    [
      'as a mail that came back',
      line({ mail: { id: 'm', state: 'refused', to: 'a@b.example' } }),
      'the mail did not arrive',
    ],
    ['not at all', line({ sentOn: null }), 'written, 1 day too late'],
  ])('that went %s is to be written anew', async (_, notice, words) => {
    await fact(visit('2026-12-02'), [notice]);
    expect(await screen.findByText(words)).toBeTruthy();
    expect(screen.getByRole('link', { name: 'Write another' })).toBeTruthy();
  });

  it.each([
    ['of another type', { workType: 'arrival' }],
    ['at home', { client: null }],
    ['that is done', { state: 'done' }],
  ])('is none for work %s', async (_, of) => {
    const { container } = await fact(visit('2026-12-02', of));
    expect(container.querySelector('dt')).toBeNull();
  });
});
