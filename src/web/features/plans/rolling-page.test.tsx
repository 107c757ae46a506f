import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Toaster } from 'sonner';
import { describe, expect, it } from 'vitest';
import type { PlanLine, RollingLine, TakeOffInput } from '../../../contract/index.ts';
import { problemOf } from '../../../contract/problems.ts';

import { impactOf } from '../../testing/impact.ts';
import { NADIA, refusalOf, show } from '../../testing/show.tsx';
import { RollingPage } from './rolling-page.tsx';

const idOf = (n: number) => `01937000-0000-7000-8000-00000000${n.toString().padStart(4, '0')}`;
const RESIDENT = { id: idOf(1), name: 'Resident berth' };
const WINTER = { id: idOf(2), name: 'Winter ashore' };
const rolling = (n: number, name: string, of: Partial<RollingLine> = {}): RollingLine => ({
  ...{ id: idOf(100 + n), version: n, client: { id: idOf(200 + n), name }, plan: RESIDENT, fromOn: '2024-01-01' },
  ...{ untilOn: '2026-12-31', laterOn: '2027-12-31', own: 0, ...of },
});
const LINES = [
  rolling(1, 'Rosalind Oatley'),
  rolling(2, 'Quentin Brindle', { own: 2 }),
  rolling(3, 'Silas Opie', { own: 1 }),
  // A year that is over already.
  rolling(4, 'Verity Lanyon', { plan: WINTER, untilOn: '2026-11-20', laterOn: '2027-11-20' }),
];
const plan = (of: { id: string; name: string }, more: Partial<PlanLine> = {}): PlanLine => ({
  ...{ ...of, version: 5, isArchived: false, rollsOn: 'asks', items: ['Gas'], clients: 3 },
  ...{ tasksEach: 4, minutesEach: 120, ...more },
});
const PLANS = [
  plan(RESIDENT),
  plan(WINTER),
  plan({ id: idOf(3), name: 'Of old' }, { isArchived: true }),
  plan({ id: idOf(4), name: 'Not begun' }, { items: [] }),
];
const DONE = { tasks: { made: 4, changed: 0, removed: 0, kept: 0 }, changeId: idOf(900) };

/** The page, and what it looked at and saved: by its address. */
async function page({
  lines = LINES,
  isMore = false,
  me = undefined as typeof NADIA | undefined,
  refused = false,
} = {}) {
  const asked: [string, unknown][] = [];
  const noting = (what: string, answer: unknown) => (body: unknown) => {
    asked.push([what, body]);
    return answer;
  };
  const problem = problemOf('changed-meanwhile', 'Somebody has changed Silas Opie meanwhile.');
  const refusal = () => refusalOf(problem);
  await show(
    <>
      <RollingPage />
      <Toaster />
    </>,
    {
      ...(me && { me }),
      answers: {
        '/on-plan/rolling': { clients: lines, isMore },
        '/plans': { plans: PLANS },
        'POST /on-plan/roll/impact': noting('look at going on', impactOf({ added: 4 })),
        'POST /on-plan/roll': refused ? refusal : noting('go on', DONE),
        'POST /on-plan/off/impact': noting('look at ending', impactOf({ removed: 2 })),
        'POST /on-plan/off': noting('end', { ...DONE, tasks: { ...DONE.tasks, made: 0, removed: 2 } }),
      },
    },
  );
  return { asked, user: userEvent.setup() };
}
const band = async (name: string) => {
  const heading = await screen.findByRole('heading', { level: 2, name: new RegExp(name) });
  return within(heading.closest('section') as HTMLElement);
};
const seen = (...lines: RollingLine[]) => lines.map(({ id, version }) => ({ id, version }));

describe('who rolls on', () => {
  it('says that nobody’s year ends soon, and when somebody stands there', async () => {
    await page({ lines: [] });
    expect(await screen.findByText('Nobody’s year ends soon.')).toBeTruthy();
  });

  it('puts those together whose year ends on one day by one plan, each with what is their own', async () => {
    await page({ isMore: true });
    const resident = await band('Resident berth');
    expect(screen.getByText('more than 4 clients whose year on a plan ends soon')).toBeTruthy();
    expect(resident.getByText('until 31 Dec 2026')).toBeTruthy();
    expect(resident.getAllByRole('listitem').map(({ textContent }) => textContent)).toEqual([
      'Rosalind Oatleysince 1 Jan 2024as the planChange',
      'Quentin Brindlesince 1 Jan 20242 own changesChange',
      'Silas Opiesince 1 Jan 20241 own changeChange',
    ]);
    expect((await band('Winter ashore')).getAllByRole('listitem').length).toBe(1);
  });

  it('goes on with all of a band, once it was looked at', async () => {
    const { asked, user } = await page();
    await user.click((await band('Resident berth')).getByRole('button', { name: 'Keep all 3 until 31 Dec 2027' }));
    const dialog = await screen.findByRole('dialog');
    expect(within(dialog).getByText(/3 clients of Resident berth until 31 Dec 2027/)).toBeTruthy();
    const body = { clients: seen(...LINES.slice(0, 3)) };
    expect(asked).toEqual([['look at going on', body]]);
    await user.click(within(dialog).getByRole('button', { name: 'Add 4 tasks' }));
    expect(await screen.findByText('3 clients go on until 31 Dec 2027. 4 tasks made.')).toBeTruthy();
    expect(asked.at(-1)).toEqual(['go on', body]);
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
  });

  it('ends with the year for those that were chosen, alone', async () => {
    const { asked, user } = await page();
    const resident = await band('Resident berth');
    await user.click(resident.getByRole('checkbox', { name: 'Choose Silas Opie' }));
    expect(resident.getByRole('button', { name: /^Keep 1 until/ })).toBeTruthy();
    await user.click(resident.getByRole('button', { name: 'End 1 with the year' }));
    await user.click(within(await screen.findByRole('dialog')).getByRole('button', { name: /2 tasks/ }));
    const body: TakeOffInput = {
      ...{ clients: seen(LINES[2] as RollingLine), from: '2027-01-01', tasks: 'go', to: null },
    };
    await waitFor(() => expect(asked.map(([what]) => what)).toEqual(['look at ending', 'end']));
    expect(asked.map(([, sent]) => sent)).toEqual([body, body]);
    expect(await screen.findByText('1 client ends with the year. 2 taken back.')).toBeTruthy();
    expect(resident.getByRole('checkbox', { name: 'Choose Silas Opie' })).toHaveProperty('checked', false);
  });

  it('goes over to another plan that has something and is not archived; of a year that is over, from today', async () => {
    const { asked, user } = await page();
    const winter = await band('Winter ashore');
    const to = winter.getByRole('combobox', { name: 'Over to another plan, Winter ashore' });
    expect(
      within(to)
        .getAllByRole('option')
        .map(({ textContent }) => textContent),
    ).toEqual(['another plan', 'Resident berth']);
    await user.selectOptions(to, 'Resident berth');
    await user.click(winter.getByRole('button', { name: 'Look at it' }));
    await user.click(within(await screen.findByRole('dialog')).getByRole('button', { name: /2 tasks/ }));
    expect(await screen.findByText('1 client is on Resident berth from 24 Nov 2026. 2 taken back.')).toBeTruthy();
    expect(asked.at(-1)).toEqual([
      'end',
      {
        ...{ clients: seen(LINES[3] as RollingLine), from: '2026-11-24', tasks: 'go' },
        to: { planId: RESIDENT.id, version: 5 },
      },
    ]);
  });

  it('says why it is refused, and keeps what was chosen', async () => {
    const { user } = await page({ refused: true });
    const resident = await band('Resident berth');
    await user.click(resident.getByRole('checkbox', { name: 'Choose Silas Opie' }));
    await user.click(resident.getByRole('button', { name: /^Keep 1 until/ }));
    await user.click(within(await screen.findByRole('dialog')).getByRole('button', { name: 'Add 4 tasks' }));
    expect(await screen.findByText('Somebody has changed Silas Opie meanwhile.')).toBeTruthy();
    expect(screen.queryByRole('dialog')).toBeNull();
    expect(resident.getByRole('checkbox', { name: 'Choose Silas Opie' })).toHaveProperty('checked', true);
  });

  it('can be read by whoever may not plan, and changed by them not at all', async () => {
    await page({ me: NADIA });
    const resident = await band('Resident berth');
    expect(resident.getByRole('link', { name: 'Silas Opie' })).toBeTruthy();
    expect([...resident.queryAllByRole('button'), ...resident.queryAllByRole('checkbox')]).toEqual([]);
  });
});
