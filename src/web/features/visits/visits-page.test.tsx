import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { VisitLine } from '../../../contract/index.ts';
import { NO_VISITS, type VisitRules } from '../../../core/index.ts';
import { show } from '../../testing/show.tsx';
import { VisitsPage } from './visits-page.tsx';

const visits: VisitRules = {
  ...NO_VISITS,
  ways: [
    { name: 'by mail', kind: 'mail', onItsWay: { days: 0, unit: 'day' } },
    { name: 'by post', kind: 'post', onItsWay: { days: 2, unit: 'workingDay' } },
  ],
  terms: [
    {
      type: 'routine',
      period: { days: 7, unit: 'day', countsReceipt: false, countsVisit: true },
      ways: ['by mail', 'by post'],
    },
  ],
};
const id = (n: number) => `01937000-0000-7000-8000-00000000f${String(n).padStart(3, '0')}`;
const visit = (n: number, of: Partial<VisitLine> = {}): VisitLine => ({
  ...{ taskId: id(n), scheduleId: id(100 + n), version: 1, title: `Check ${n}`, on: '2026-12-01', startTime: '11:00' },
  ...{ dueTime: '12:00', client: { id: id(200), name: 'Isolde Kestle' }, workType: 'routine', who: 'Kit Sorrell' },
  ...{ asset: { id: id(300), name: `Auk ${n}`, place: 'berth A4' }, notice: null, next: '2027-01-05' },
  ...{ standing: { state: 'notWritten', sendBy: '2026-11-24', remindOn: null, inTime: null }, estimateMinutes: 45 },
  ...of,
});
const lying = visit(2, {
  notice: { id: id(400), batchId: id(401), way: 'by post', sentOn: null, visitOn: '2026-12-01', reason: '' },
  standing: { state: 'tooLate', sendBy: '2026-11-20', remindOn: null, inTime: null },
});
const foreseen = visit(3, { taskId: null, on: '2026-12-08', startTime: null, dueTime: null, next: null });
const WEEKS = [
  { monday: '2026-11-23', made: 0, foreseen: 0, states: {} },
  { monday: '2026-11-30', made: 2, foreseen: 0, states: { notWritten: 1, tooLate: 1 } },
  { monday: '2026-12-07', made: 0, foreseen: 1, states: {} },
];
const page = (answers: Readonly<Record<string, unknown>> = {}, rules = visits) =>
  show(<VisitsPage />, {
    workspace: { visits: rules },
    answers: {
      '/visits': { lines: [visit(1), lying, foreseen], more: null },
      '/visits/weeks': { weeks: WEEKS },
      ...answers,
    },
  });

describe('the visits', () => {
  it('stand week by week with their notices; what is foreseen can’t be chosen', async () => {
    await page();
    expect(await screen.findByText('3 visits, 2 notices to send, 1 of them too late')).toBeTruthy();
    expect(screen.getByRole('img', { name: '1 too late, 1 not written' })).toBeTruthy();
    expect(screen.getByRole('img', { name: '1 not made yet' })).toBeTruthy();
    const rows = screen.getAllByRole('row').slice(1);
    expect(rows.map((row) => within(row).queryAllByRole('checkbox').length)).toEqual([1, 1, 0]);
    expect(rows[0]?.textContent).toContain('not written');
    expect(rows[0]?.textContent).toContain('2 visits, 2 to send');
    expect(rows[1]?.textContent).toContain('written, 4 days too late');
    expect(rows[2]?.textContent).toContain('not made yet');
  });

  it('are chosen, and what lies on paper is put on record as gone', async () => {
    const sent: unknown[] = [];
    await page({
      'POST /notices/sent': (body: unknown) => {
        sent.push(body);
        return { count: 1, changeId: id(500) };
      },
    });
    const user = userEvent.setup();
    await user.click(await screen.findByRole('checkbox', { name: 'Choose Auk 1, Tue 1 Dec' }));
    await user.click(screen.getByRole('checkbox', { name: 'Choose Auk 2, Tue 1 Dec' }));
    expect(screen.getByText('2 visits chosen, 1 notice in time, 1 too late')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Write 2 notices' })).toBeTruthy();
    await user.click(screen.getByRole('button', { name: '1 on paper went …' }));
    await user.click(screen.getByRole('button', { name: 'Put it on record' }));
    expect(sent).toEqual([{ notices: [id(400)], on: '2026-11-24' }]);
  });

  it('need no notice where a reason is said', async () => {
    const sent: unknown[] = [];
    await page({
      'POST /notices/none': (body: unknown) => {
        sent.push(body);
        return { count: 1, changeId: id(500) };
      },
    });
    const user = userEvent.setup();
    (await screen.findAllByRole('row'))[1]?.focus();
    await user.keyboard(' ');
    await user.click(screen.getByRole('button', { name: 'It needs none …' }));
    expect(screen.getByText('Say why, for the record.')).toBeTruthy();
    await user.type(screen.getByLabelText('Why none is needed'), 'settled by telephone{Enter}');
    expect(sent).toEqual([{ tasks: [id(1)], reason: 'settled by telephone' }]);
  });

  it('say how they begin where nothing is announced yet', async () => {
    await page({}, NO_VISITS);
    expect(await screen.findByRole('heading', { name: 'No visit has to be announced yet.' })).toBeTruthy();
  });

  it('of one day are put in order by place, each at the time that follows from those before it', async () => {
    const deeds: unknown[] = [];
    const at = (n: number, place: string, of: Partial<VisitLine> = {}) =>
      visit(n, { asset: { id: id(300 + n), name: `Auk ${n}`, place }, startTime: null, dueTime: null, ...of });
    const IMPACT = {
      figures: { added: 0, changed: 3, removed: 0, keptByHand: 0, keptShowing: 0, keptBegun: 0, keptLacking: 0 },
      ...{ items: [], years: [], datesBefore: 0, datesAfter: 0 },
    };
    await page({
      '/visits': { lines: [at(1, 'berth A 12'), at(2, 'berth A 2'), at(3, 'berth A 4', { who: null })], more: null },
      'POST /tasks/changes/impact': ({ deed }: { deed: unknown }) => {
        deeds.push(deed);
        return IMPACT;
      },
    });
    const user = userEvent.setup();
    for (const n of [1, 2, 3])
      await user.click(await screen.findByRole('checkbox', { name: `Choose Auk ${n}, Tue 1 Dec` }));
    await user.click(screen.getByRole('button', { name: 'Order the round …' }));
    const rows = () =>
      within(screen.getByRole('region', { name: 'The chosen visits' }))
        .getAllByRole('listitem')
        .map(({ textContent }) => textContent);
    expect(rows()).toEqual([
      '109:00–09:45Auk 2 berth A 2Kit Sorrell45 min',
      '209:50–10:35Auk 3 berth A 4nobody yet45 min',
      '310:40–11:25Auk 1 berth A 12Kit Sorrell45 min',
    ]);
    expect(screen.getByText(/^2 different people come/)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Auk 1 earlier' }));
    expect(rows()[1]).toBe('209:50–10:35Auk 1 berth A 12Kit Sorrell45 min');
    expect(screen.getByRole('button', { name: 'by place again' })).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Look at what it changes' }));
    expect(deeds).toEqual([
      {
        kind: 'times',
        at: [
          { id: id(2), startTime: '09:00', dueTime: '09:45' },
          { id: id(1), startTime: '09:50', dueTime: '10:35' },
          { id: id(3), startTime: '10:40', dueTime: '11:25' },
        ],
      },
    ]);
  });
});
