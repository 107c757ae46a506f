import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import {
  type ListedTask,
  PLAIN_COLUMNS,
  type TaskGroup,
  type TaskLine,
  type TaskView,
} from '../../../contract/index.ts';
import { dayOfIso } from '../../../core/index.ts';
import { ShellContext } from '../../app/shell/shell-context.ts';
import { NADIA, show } from '../../testing/show.tsx';
import { lineOf } from '../../testing/tasks.ts';
import { columnsNamed } from './columns.tsx';
import { sayStillMissing, saySums, sayTimeOf } from './list-words.ts';
import { searchOfView } from './task-filter.tsx';
import TasksPage from './tasks-page.tsx';

const TODAY = dayOfIso('2026-11-24');
const task = (n: number, of: Partial<TaskLine> = {}) =>
  lineOf({
    id: `01937000-0000-7000-8000-00000000f${String(n).padStart(3, '0')}`,
    version: n,
    title: `Round ${n}`,
    ...of,
  });
const LATE = task(1, { late: true, daysLate: 4, dueOn: '2026-11-20' });
const LINES = [LATE, task(2), task(3), task(4), task(5), task(6)];
const group = (of: Partial<TaskGroup>): TaskGroup => ({
  ...{ key: '', name: null, detail: '', count: 6, minutes: 180, late: 1, lines: LINES.slice(0, 5) },
  ...of,
});
const FITTING = 'are=unfinished&due=byWeek';
const NAMES = { client: null, asset: null, site: null, template: null, schedule: null };
const sums = (count: number) => ({ count, minutes: count * 30, late: 1, names: NAMES });
const of = (address: string) => `/task-list${address}`;
const GROUPS = of(`/groups?${FITTING}&by=client&order=due&start=0`);

const IMPACT = {
  figures: { added: 0, changed: 5, removed: 0, keptByHand: 0, keptShowing: 0, keptBegun: 0, keptLacking: 0 },
  ...{ items: [], years: [], datesBefore: 0, datesAfter: 0 },
};

const shell = { startNow: () => undefined, capture: () => undefined };
const page = (answers: Readonly<Record<string, unknown>>, path = '/tasks', me?: typeof NADIA) =>
  show(
    <ShellContext value={shell}>
      <TasksPage />
    </ShellContext>,
    { answers: { '/task-list/views': { views: [] }, ...answers }, path, ...(me ? { me } : {}) },
  );
const titles = () => screen.queryAllByRole('link', { name: /^Round/ }).map((link) => link.textContent);

describe('all tasks', () => {
  it('stand in groups with their sums, of many the first few until all are asked for', async () => {
    const curlew = group({ key: NADIA.id, name: 'Isolde Kestle', count: 1, minutes: 30, late: 0, lines: [task(7)] });
    await page({
      [of(`/sums?${FITTING}`)]: sums(7),
      [GROUPS]: { start: 0, groups: [group({}), curlew], count: 2 },
      [of(`?${FITTING}&order=due&by=client&key=`)]: { lines: LINES, more: null },
    });
    const user = userEvent.setup();
    expect(await screen.findByText('7 tasks, 3 h 30, 1 late')).toBeTruthy();
    const own = await screen.findByRole('rowheader', { name: /^Tern Quay itself/ });
    expect(own.textContent).toBe('Tern Quay itself6 tasks, 3 h1 late');
    expect(screen.getByRole('rowheader', { name: /^Isolde Kestle/ }).textContent).toBe('Isolde Kestle1 task, 30 min');
    expect(titles()).toEqual(['Round 1', 'Round 2', 'Round 3', 'Round 4', 'Round 5', 'Round 7']);
    expect(screen.getByText('4 days late')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Show all 6 of Tern Quay itself' }));
    await waitFor(() => expect(titles()).toContain('Round 6'));
    expect(screen.getByText(/all 6 tasks/)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Show the first of Tern Quay itself alone' }));
    expect(titles()).not.toContain('Round 6');
  });

  it('come group by group, as far as they are looked at', async () => {
    const many = (from: number, to: number) =>
      Array.from({ length: to - from }, (_, n) =>
        group({
          key: `c${from + n}`,
          name: `Client ${from + n}`,
          count: 1,
          minutes: 30,
          late: 0,
          lines: [task(100 + from + n)],
        }),
      );
    await page({
      [of(`/sums?${FITTING}`)]: sums(23),
      [GROUPS]: { start: 0, groups: many(0, 20), count: 23 },
      [GROUPS.replace('start=0', 'start=20')]: { start: 20, groups: many(20, 23), count: 23 },
    });
    await waitFor(() => expect(screen.getAllByRole('rowheader')).toHaveLength(23));
    expect(titles()).toHaveLength(23);
  });

  it('are chosen by mouse and keyboard, all of them too, and changed as they stand', async () => {
    const asked: unknown[] = [];
    await page(
      {
        [of(`/sums?${FITTING}`)]: sums(90),
        [of(`?${FITTING}&order=due`)]: { lines: LINES, more: '["2026-11-24","~","x"]' },
        [of(`?${FITTING}&order=due&after=${encodeURIComponent('["2026-11-24","~","x"]')}`)]: {
          lines: [task(8)],
          more: null,
        },
        [of(`/chosen?${FITTING}&order=due`)]: {
          tasks: Array.from({ length: 90 }, (_, n) => ({ id: task(n + 1).id, version: n + 1, minutes: 30 })),
        },
        'POST /tasks/changes/impact': (body: unknown) => {
          asked.push(body);
          return IMPACT;
        },
      },
      '/tasks?by=no',
    );
    const user = userEvent.setup();
    await user.click(await screen.findByRole('checkbox', { name: 'Choose Round 2' }));
    expect(await screen.findByText('1 task chosen, 30 min')).toBeTruthy();
    await user.keyboard('{Shift>}');
    await user.click(screen.getByRole('checkbox', { name: 'Choose Round 4' }));
    await user.keyboard('{/Shift}');
    expect(screen.getByText('3 tasks chosen, 1 h 30')).toBeTruthy();
    screen.getByRole('link', { name: 'Round 5' }).focus();
    await user.keyboard(' ');
    expect(screen.getByText('4 tasks chosen, 2 h')).toBeTruthy();
    await user.keyboard('{Shift>}{ArrowDown}{/Shift}');
    expect(screen.getByText('5 tasks chosen, 2 h 30')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Priority …' }));
    await user.selectOptions(screen.getByRole('combobox', { name: 'Their priority' }), 'urgent');
    await user.click(screen.getByRole('button', { name: 'Look at what it changes' }));
    await waitFor(() => expect(asked).toHaveLength(1));
    expect(asked[0]).toEqual({
      tasks: [2, 3, 4, 5, 6].map((n) => ({ id: task(n).id, version: n })),
      deed: { kind: 'prioritise', priority: 'urgent' },
      follow: expect.any(String),
    });
    const impact = await screen.findByRole('dialog');
    await user.click(within(impact).getByRole('button', { name: 'Go back' }));
    await user.click(screen.getByRole('checkbox', { name: 'Choose all 90' }));
    expect(await screen.findByText('90 tasks chosen, 45 h')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: /Choose none/ }));
    expect(screen.queryByText(/chosen/)).toBeNull();
  });

  it('are looked for by words of the head, and none is a way out', async () => {
    await page({
      [of(`/sums?${FITTING}`)]: { ...sums(0), minutes: 0, late: 0 },
      [of('/sums?are=late&due=byWeek')]: sums(1),
      [of('/groups?are=late&due=byWeek&by=client&order=due&start=0')]: {
        start: 0,
        groups: [group({ count: 1, lines: [LATE] })],
        count: 1,
      },
      [of('/groups?are=late&due=byWeek&by=client&order=longest&start=0')]: {
        start: 0,
        groups: [group({ count: 1, lines: [LATE] })],
        count: 1,
      },
      [of('/sums')]: sums(1),
      [of('/groups?by=client&order=due&start=0')]: { start: 0, groups: [group({ count: 1, lines: [LATE] })], count: 1 },
    });
    const user = userEvent.setup();
    expect(await screen.findByText('No task fits.')).toBeTruthy();
    await user.selectOptions(screen.getByRole('combobox', { name: 'State' }), 'late');
    await waitFor(() => expect(titles()).toEqual(['Round 1']));
    await user.click(screen.getByRole('button', { name: 'estimate' }));
    await waitFor(() =>
      expect(screen.getByRole('columnheader', { name: 'estimate' }).getAttribute('aria-sort')).toBe('descending'),
    );
  });

  it('have the columns that are put in, taken out and moved, with what those tell', async () => {
    const told = { ...LATE, phrase: 'every Friday', site: 'Lee Quay' };
    const GROUPED = `${FITTING}&by=client&order=due`;
    const one = (line: ListedTask) => ({ start: 0, groups: [group({ count: 1, lines: [line] })], count: 1 });
    await page({
      [of(`/sums?${FITTING}`)]: sums(1),
      [GROUPS]: one(LATE),
      [of(`/groups?${GROUPED}&beside=phrase&start=0`)]: one({ ...LATE, phrase: 'every Friday' }),
      [of(`/groups?${GROUPED}&beside=site%2Cphrase&start=0`)]: one(told),
    });
    const heads = () => screen.getAllByRole('columnheader').flatMap(({ textContent }) => textContent || []);
    const user = userEvent.setup();
    await waitFor(() => expect(titles()).toHaveLength(1));
    expect(heads()).toEqual([
      'due',
      'time',
      'task and for whom',
      'who',
      'steps',
      'still missing',
      'priority',
      'estimate',
    ]);
    await user.click(screen.getByRole('button', { name: 'Columns' }));
    await user.click(await screen.findByRole('button', { name: 'Put in rule' }));
    expect(await screen.findByText('every Friday')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Put in site' }));
    expect(await screen.findByText('Lee Quay')).toBeTruthy();
    for (const head of ['time', 'steps', 'still missing', 'priority', 'estimate'])
      await user.click(screen.getByRole('button', { name: `Take out ${head}` }));
    await waitFor(() => expect(heads()).toEqual(['due', 'task and for whom', 'who', 'rule', 'site']));
    // What the task is can't be left out.
    expect(screen.queryByRole('button', { name: 'Take out task and for whom' })).toBeNull();
    await user.click(screen.getByRole('button', { name: 'Fold away' }));
    expect(screen.queryByRole('button', { name: 'Put in steps' })).toBeNull();
  });

  it.each([
    [null, PLAIN_COLUMNS],
    ['', PLAIN_COLUMNS],
    ['task,nonsense,who', ['task', 'who']],
    ['who,due,who', ['task', 'who', 'due']],
  ] as const)('have of %j those that there are', (named, columns) => {
    expect(columnsNamed(named)).toEqual(columns);
  });

  it('are looked at, not chosen, by whoever may work on none but theirs', async () => {
    await page({ [of(`/sums?${FITTING}`)]: sums(6), [GROUPS]: { start: 0, groups: [group({})], count: 1 } }, '/tasks', {
      ...NADIA,
      access: 'viewer',
    });
    const table = await screen.findByRole('table');
    await waitFor(() => expect(titles()).toHaveLength(5));
    expect(within(table).queryByRole('checkbox')).toBeNull();
    expect(screen.queryByRole('button', { name: 'Start a template' })).toBeNull();
  });

  it('are seen as views that are kept, shared or changed, under a name that is not lost when it is refused', async () => {
    const sent: unknown[] = [];
    const late: TaskView = {
      ...{ id: '01937000-0000-7000-8000-0000000000b1', version: 3, name: 'Late', by: null, order: 'latest' },
      ...{ filter: { are: 'late' }, columns: null, isShared: true, sharedBy: 'Bram Hollis', count: 3, late: 3 },
    };
    await page({
      [of(`/sums?${FITTING}`)]: sums(6),
      [GROUPS]: { start: 0, groups: [group({})], count: 1 },
      [of('/sums?are=late')]: sums(1),
      [of('?are=late&order=latest')]: { lines: [LATE], more: null },
      // What is seen between one word and the next.
      [of('/sums?are=late&due=byWeek')]: sums(1),
      [of('?are=late&due=byWeek&order=latest')]: { lines: [LATE], more: null },
      [of(`?${FITTING}&order=latest`)]: { lines: [LATE], more: null },
      [of(`/groups?${FITTING}&by=client&order=latest&start=0`)]: { start: 0, groups: [group({})], count: 1 },
      '/task-list/views': { views: [late] },
      'POST /task-list/views': (body: unknown) => {
        sent.push(body);
        return { id: late.id };
      },
    });
    const user = userEvent.setup();
    await user.click(await screen.findByRole('button', { name: 'Late 3 late, shared by Bram' }));
    await waitFor(() => expect(titles()).toEqual(['Round 1']));
    expect(screen.getByRole('button', { name: /^Late 3/ }).getAttribute('aria-current')).toBe('true');
    // What others keep is theirs to change.
    expect(screen.queryByRole('button', { name: 'Drop' })).toBeNull();
    await user.selectOptions(screen.getByRole('combobox', { name: 'Due' }), 'late or due this week');
    await user.selectOptions(screen.getByRole('combobox', { name: 'State' }), 'not done');
    await user.selectOptions(screen.getByRole('combobox', { name: 'Grouping' }), 'grouped by client');
    await waitFor(() => expect(titles()).toHaveLength(5));
    await user.click(screen.getByRole('button', { name: 'Keep as a view' }));
    await user.type(screen.getByRole('textbox', { name: 'The name of the view' }), 'This week');
    await user.click(screen.getByRole('checkbox', { name: 'for everybody' }));
    await user.click(screen.getByRole('button', { name: 'Keep' }));
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]).toEqual({
      ...{
        name: 'This week',
        filter: { are: 'unfinished', due: 'byWeek' },
        by: 'client',
        order: 'latest',
        columns: null,
        isShared: true,
      },
    });
  });

  it.each([
    [{ are: 'unfinished', due: 'byWeek' }, 'client', 'due', ''],
    [{}, null, 'title', 'due=any&are=any&by=no&order=title'],
    [
      { are: 'late', from: '2026-11-01', to: '2026-11-30', person: 'none' },
      'day',
      'due',
      'from=2026-11-01&to=2026-11-30&are=late&person=none&by=day',
    ],
  ] as const)('kept as %j are in the address so', (filter, by, order, address) => {
    const search = searchOfView({ id: 'v', filter, by, order, columns: null });
    expect(search).toBe([address, 'view=v'].filter(Boolean).join('&'));
  });

  it.each([
    [{ state: 'toCheck', signsOff: 'Bram Hollis' }, 'sign-off by Bram Hollis'],
    [{ proofMissing: ['the photo for Hose'], stepsTotal: 4 }, 'the photo for Hose'],
    [{ proofMissing: ['the photo for Hose', 'Play', 'Wear'] }, 'the photo for Hose and 2 more'],
    [{ stepsTotal: 4, stepsDone: 3 }, '1 tick'],
    [{ stepsTotal: 4, stepsDone: 4 }, ''],
    [{ state: 'done', proofMissing: ['Play'] }, ''],
  ] as const)('say of %j what is still missing', (line, words) => {
    expect(sayStillMissing(lineOf(line as Partial<TaskLine>))).toBe(words);
  });

  it('say when they are due by the clock, how late they are, or when they were finished', () => {
    expect(sayTimeOf(LATE, TODAY)).toBe('4 days late');
    expect(sayTimeOf(lineOf({ startTime: '09:00', dueTime: '10:00' }), TODAY)).toBe('09:00–10:00');
    expect(sayTimeOf(lineOf({ state: 'done', doneAt: '2026-11-24T09:10' }), TODAY)).toBe('done 09:10');
    expect(sayTimeOf(lineOf({ state: 'toCheck', doneAt: '2026-11-24T09:10' }), TODAY)).toBe('since 09:10');
    expect(sayTimeOf(lineOf({ state: 'toCheck', doneAt: '2026-11-19T09:10' }), TODAY)).toBe('since 19 Nov');
    expect(saySums({ count: 1, minutes: 0, late: 0 })).toBe('1 task');
  });
});
