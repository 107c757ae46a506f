import { cleanup, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Toaster } from 'sonner';
import { beforeEach, describe, expect, it } from 'vitest';
import type { PlanOfClient } from '../../../contract/index.ts';
import { problemOf } from '../../../contract/problems.ts';
import { impactOf } from '../../testing/impact.ts';
import { NADIA, refusalOf, show, write } from '../../testing/show.tsx';
import { ClientPlans } from './client-plans.tsx';

const idOf = (n: number) => `01937000-0000-7000-8000-00000000${n.toString().padStart(4, '0')}`;
const PLAN = idOf(1);
const ON = idOf(2);
const GAS = idOf(11);
type Item = PlanOfClient['items'][number];
const item = (key: string, name: string, of: Partial<Item> = {}): Item => ({
  ...{ item: key, assetId: null, asset: null, scheduleId: GAS, aspects: [], leftOut: null, says: '' },
  ...{ template: { id: idOf(20), name }, planSays: 'every 3 months', next: '2026-12-01', state: 'running' },
  ...{ tasks: 4, minutes: 120, ...of },
});
const ITEMS = {
  asPlan: item('gas', 'Gas'),
  own: item('round', 'Round', { scheduleId: idOf(12), aspects: ['rule'], says: 'first Thursday of each month' }),
  out: item('lift', 'Lift-out', { scheduleId: null, leftOut: 'has a trailer', next: null, state: null }),
  lacking: item('hull', 'Hull', { scheduleId: null, assetId: idOf(30), asset: 'Little Auk', next: null, state: null }),
};
const planOf = (items: readonly Item[], of: Partial<PlanOfClient> = {}): PlanOfClient => ({
  ...{ id: ON, version: 7, fromOn: '2024-01-01', offOn: null, untilOn: null, items: [...items] },
  plan: { id: PLAN, name: 'Resident berth', version: 3, rollsOn: 'itself' },
  ...{ tasks: 8, minutes: 240, planTasks: 8, planMinutes: 240, ...of },
});

const CLIENT = { name: 'Rosalind Oatley', isArchived: false };

/** The plans of a client, and what is asked of the server about them. */
async function plans(
  of: PlanOfClient,
  { client = CLIENT, me, refused = false }: { client?: typeof CLIENT; me?: typeof NADIA; refused?: boolean } = {},
) {
  const asked: [string, unknown][] = [];
  const problem = problemOf('changed-meanwhile', 'Somebody has changed what Rosalind Oatley has.');
  const noting = (what: string, answer: unknown) => (body: unknown) => {
    asked.push([what, body]);
    return refused ? refusalOf(problem) : answer;
  };
  const done = { tasks: { made: 0, changed: 0, removed: 2, kept: 0 }, changeId: idOf(900) };
  const other = { version: 5, isArchived: false, rollsOn: 'asks', items: ['Gas'], clients: 3 };
  await show(
    <>
      <ClientPlans client={client} plans={[of]} />
      <Toaster />
    </>,
    {
      ...(me && { me }),
      answers: {
        '/templates': { templates: [], more: null },
        '/plans': { plans: [{ id: idOf(3), name: 'Winter ashore', tasksEach: 1, minutesEach: 30, ...other }] },
        [`POST /on-plan/${ON}/left-out/impact`]: noting('look at leaving out', impactOf({ removed: 2 })),
        [`POST /on-plan/${ON}/left-out`]: noting('leave out', done),
        [`POST /plans/${PLAN}/as-plan/impact`]: noting('look at as the plan', impactOf()),
        [`POST /plans/${PLAN}/as-plan`]: noting('as the plan', done),
        'POST /on-plan/off/impact': noting('look at taking off', impactOf({ removed: 2 })),
        'POST /on-plan/off': noting('take off', done),
      },
    },
  );
  return { asked, user: userEvent.setup() };
}
/** Without what other tests have said at the foot of the page. */
const here = () => within(screen.getByRole('region', { name: 'Resident berth' }));
const lines = () =>
  here()
    .getAllByRole('listitem')
    .map(({ textContent }) => textContent);
const confirm = async (user: ReturnType<typeof userEvent.setup>) =>
  user.click(within(await screen.findByRole('dialog')).getByRole('button', { name: /2 tasks/ }));

beforeEach(() => sessionStorage.clear());

describe('the plans of a client', () => {
  it('say of each item whether it is as the plan, the client’s own, left out, or lacking', async () => {
    await plans(planOf(Object.values(ITEMS), { tasks: 6, minutes: 150 }), { me: NADIA });
    expect(lines()).toEqual([
      'as planGasnext Tue 1 Decevery 3 months',
      'ownRoundnext Tue 1 Decfirst Thursday of each monthplan says every 3 months',
      'ownLift-outleft outhas a trailerplan says every 3 months',
      'lackingHull, Little Aukno schedule yetplan says every 3 months',
    ]);
    expect(screen.getByText('6 tasks, 2 h 30 a year')).toBeTruthy();
    expect(screen.getByText('by the plan 8 tasks, 4 h')).toBeTruthy();
    // Whoever may not plan reads it alone.
    expect(here().queryAllByRole('button')).toEqual([]);
  });

  it.each([
    [{}, 'since 1 Jan 2024, goes on'],
    [{ untilOn: '2026-12-31' }, 'since 1 Jan 2024, until 31 Dec 2026'],
    [{ plan: { id: PLAN, name: 'Resident berth', version: 3, rollsOn: 'asks' as const } }, 'since 1 Jan 2024'],
    [{ offOn: '2026-12-01' }, 'off from 1 Dec 2026'],
  ])('say for how long: %o is %s', async (of, words) => {
    await plans(planOf([ITEMS.asPlan], of));
    expect(screen.getByRole('heading', { level: 2 }).textContent).toContain(words);
    // From whoever is off already nothing more is taken.
    expect(screen.queryByRole('button', { name: 'Take off …' }) === null).toBe('offOn' in of);
  });

  it('say what a schedule is that has no next date', async () => {
    const states = (['paused', 'ended', 'problem'] as const).map((state, i) =>
      item(`i${i}`, `Item ${i}`, { scheduleId: idOf(40 + i), next: null, state }),
    );
    await plans(planOf(states));
    for (const words of ['paused', 'ended', 'no plan']) expect(screen.getByText(words)).toBeTruthy();
  });

  it('of an archived client change no more', async () => {
    await plans(planOf(Object.values(ITEMS)), { client: { ...CLIENT, isArchived: true } });
    expect(here().queryAllByRole('button')).toEqual([]);
  });

  it('leave an item out with why, which is kept while it is written', async () => {
    const { user } = await plans(planOf([ITEMS.asPlan]));
    await user.click(screen.getByRole('button', { name: 'Leave Gas out' }));
    expect(screen.getByRole('button', { name: 'Look at what it changes' })).toHaveProperty('disabled', true);
    await user.type(screen.getByLabelText('Why Gas is left out'), 'electric boat');
    cleanup();
    const { asked, user: again } = await plans(planOf([ITEMS.asPlan]));
    await again.click(screen.getByRole('button', { name: 'Leave Gas out' }));
    expect(screen.getByLabelText('Why Gas is left out')).toHaveProperty('value', 'electric boat');
    await again.click(screen.getByRole('button', { name: 'Look at what it changes' }));
    await confirm(again);
    expect(await screen.findByText('Rosalind Oatley does without Gas. 2 taken back.')).toBeTruthy();
    const body = { version: 7, item: 'gas', assetId: null, why: 'electric boat', from: '2026-11-24' };
    expect(asked).toEqual([
      ['look at leaving out', body],
      ['leave out', body],
    ]);
  });

  it('take in again what was left out, and take in what is lacking', async () => {
    const { asked, user } = await plans(planOf([ITEMS.out, ITEMS.lacking]));
    await user.click(screen.getByRole('button', { name: 'Take it in again' }));
    await confirm(user);
    expect(await screen.findByText(/^Rosalind Oatley has Lift-out again\./)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Take it in' }));
    await confirm(user);
    expect(await screen.findByText(/^Rosalind Oatley has Hull, Little Auk\./)).toBeTruthy();
    expect(asked.filter(([what]) => what === 'leave out').map(([, body]) => body)).toEqual([
      { version: 7, item: 'lift', assetId: null, why: null, from: '2026-11-24' },
      { version: 7, item: 'hull', assetId: idOf(30), why: null, from: '2026-11-24' },
    ]);
  });

  it('give up what is their own; where it changes no task at once', async () => {
    const { asked, user } = await plans(planOf([ITEMS.own]));
    await user.click(screen.getByRole('button', { name: 'As the plan' }));
    expect(await screen.findByText(/^Round of Rosalind Oatley is as the plan says\./)).toBeTruthy();
    expect(asked.map(([what]) => what)).toEqual(['look at as the plan', 'as the plan']);
    expect(asked[1]?.[1]).toMatchObject({ schedules: [idOf(12)], from: '2026-11-24' });
  });

  it('are taken off from today on or later, with what becomes of open tasks, and over to another', async () => {
    const { asked, user } = await plans(planOf([ITEMS.asPlan]));
    await user.click(screen.getByRole('button', { name: 'Take off …' }));
    write('Off from', '20 nov 2026');
    expect(screen.getByText('From today on, or from a later day.')).toBeTruthy();
    write('Off from', '1 dec 2026');
    await user.selectOptions(screen.getByLabelText('Open tasks'), 'stay');
    await user.selectOptions(screen.getByLabelText('On to'), 'Winter ashore');
    await user.click(screen.getByRole('button', { name: 'Look at what it changes' }));
    await confirm(user);
    expect(await screen.findByText('Rosalind Oatley is on Winter ashore from 1 Dec 2026. 2 taken back.')).toBeTruthy();
    expect(asked.at(-1)).toEqual([
      'take off',
      {
        ...{ clients: [{ id: ON, version: 7 }], from: '2026-12-01', tasks: 'stay', start: null },
        to: { planId: idOf(3), version: 5 },
      },
    ]);
    await waitFor(() => expect(screen.queryByLabelText('Off from')).toBeNull());
  });

  it('say why they are refused, and stay open as they were written', async () => {
    const { user } = await plans(planOf([ITEMS.asPlan]), { refused: true });
    await user.click(screen.getByRole('button', { name: 'Take off …' }));
    await user.selectOptions(screen.getByLabelText('Open tasks'), 'stay');
    await user.click(screen.getByRole('button', { name: 'Look at what it changes' }));
    expect(await screen.findByText('Somebody has changed what Rosalind Oatley has.')).toBeTruthy();
    expect(screen.getByLabelText('Open tasks')).toHaveProperty('value', 'stay');
  });
});
