import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { Link, Route, Routes } from 'react-router';
import { Toaster } from 'sonner';
import { describe, expect, it } from 'vitest';
import type { PutOnInput, PutOnLook, ServicePlan } from '../../../../contract/index.ts';
import { problemOf } from '../../../../contract/problems.ts';
import { PLAIN_TIMING, parsePhrase } from '../../../../core/index.ts';
import { INES, NADIA, refusalOf, show } from '../../../testing/show.tsx';
import PutOnPage from './put-on-page.tsx';

const PLAN = '01937000-0000-7000-8000-00000000c001';
const MERIDIAN = { id: '01937000-0000-7000-8000-0000000000c1', name: 'Meridian Charters' };
const OSTREL = { id: '01937000-0000-7000-8000-0000000000c2', name: 'Ostrel & Sons' };
const BOTH = [MERIDIAN, OSTREL];

const plan: ServicePlan = {
  ...{ id: PLAN, version: 3, name: 'Resident berth', note: '', rollsOn: 'asks', isArchived: false, clients: 0 },
  items: [
    {
      ...{ key: 'gas', templateId: PLAN, counts: 'joining', after: { amount: 0, unit: 'day' } },
      recurrence: parsePhrase('first Tuesday of each month', { start: '2026-01-01' }),
      ...{
        timing: PLAIN_TIMING,
        overlap: { kind: 'add' },
        assignment: { v: 1, kind: 'nobody' },
        estimateMinutes: null,
      },
      ...{ each: 'client', minutes: 30, phrase: 'first Tuesday of each month', who: 'nobody yet' },
      template: { id: PLAN, name: 'Gas', estimateMinutes: 30, tasks: 1, isArchived: false, notice: '7 days' },
    },
  ],
};
const line = {
  ...{ id: PLAN, name: plan.name, version: 3, isArchived: false, rollsOn: 'asks' },
  ...{ items: ['Gas'], clients: 0, tasksEach: 12, minutesEach: 360 },
};

/** What those would have who are asked about: a first date each, and one task now. */
const lookAt = ({ clients, from }: PutOnInput): PutOnLook => ({
  clients: clients.map(({ clientId }) => ({
    client: BOTH.find(({ id }) => id === clientId) ?? MERIDIAN,
    ...{ assets: [], usualPerson: clientId === MERIDIAN.id ? { id: NADIA.id, name: NADIA.name } : null },
    cells: [
      {
        ...{ item: 'gas', assetId: null, asset: null, first: '2026-12-01', tasks: 12, now: 1 },
        ...{ isOwn: false, leftOut: null, says: 'first Tuesday of each month' },
      },
    ],
    now: 1,
  })),
  figures: {
    ...{ clients: clients.length, schedules: clients.length, asPlan: clients.length, own: 0, leftOut: 0 },
    ...{ tasksNow: clients.length, tasks: 12 * clients.length, minutes: 360 * clients.length },
  },
  days: [
    { on: '2026-12-01', now: clients.length, later: 0 },
    { on: '2027-01-05', now: 0, later: clients.length },
  ],
  people: [
    { personId: NADIA.id, minutes: 360, weeks: { '2026-11-30': 120 } },
    { personId: null, minutes: 360, weeks: { '2026-11-30': 30 } },
  ],
  started: [],
  lateNotices: from === '2026-11-24' ? 2 : 0,
  startInTime: from === '2026-11-24' ? '2026-12-02' : null,
});

const refusal = (detail: string) => refusalOf(problemOf('not-now', detail));
const cellOf = (open: number) => ({ done: 0, open, foreseen: 0, capacity: 2250, late: 0, away: 0 });

interface Opened {
  readonly clients?: readonly { readonly id: string; readonly name: string }[];
  readonly me?: typeof INES;
  readonly answers?: Readonly<Record<string, unknown>>;
}

/** Comes from the list of clients, some of whom were chosen there. */
async function page({ clients = BOTH, me = INES, answers = {} }: Opened = {}) {
  const looked: PutOnInput[] = [];
  const sent: (PutOnInput & { follow?: string })[] = [];
  await show(
    <>
      <Routes>
        <Route
          path="/clients"
          element={
            <Link to={`/plans/put-on?plan=${PLAN}`} state={{ clients }}>
              on
            </Link>
          }
        />
        <Route path="/plans/put-on" element={<PutOnPage />} />
        <Route path="/plans/:planId" element={<p>the plan</p>} />
      </Routes>
      <Toaster />
    </>,
    {
      me,
      path: '/clients',
      answers: {
        '/plans': { plans: [line] },
        [`/plans/${PLAN}`]: plan,
        '/templates': { templates: [], more: null },
        '/workload?from=2026-11-30&by=week': {
          starts: ['2026-11-30'],
          rows: [{ person: { id: NADIA.id, name: NADIA.name }, cells: [cellOf(2200)] }],
          ...{ foreseenUpTo: '2027-11-24', site: null },
        },
        [`POST /plans/${PLAN}/clients/look`]: (body: PutOnInput) => {
          looked.push(body);
          return lookAt(body);
        },
        [`POST /plans/${PLAN}/clients`]: (body: PutOnInput) => {
          sent.push(body);
          return {
            ...{ clients: body.clients.length, changeId: null },
            tasks: { made: body.clients.length, changed: 0, removed: 0, kept: 0 },
          };
        },
        ...answers,
      },
    },
  );
  fireEvent.click(screen.getByRole('link', { name: 'on' }));
  return { looked, sent };
}
const saves = (name: RegExp | string) => screen.findByRole<HTMLButtonElement>('button', { name });

describe('clients who are put on a plan', () => {
  it('are shown with what each would have and what it comes to, and made so', async () => {
    const { looked, sent } = await page();
    const save = await saves('Put 2 clients on it, make 2 tasks');
    expect(screen.getByText('Nothing is made yet.')).toBeTruthy();
    expect(screen.getByRole('heading', { level: 1 }).textContent).toBe('Put 2 clients on a plan');
    expect(screen.getByText('until the end of the year, then it asks')).toBeTruthy();
    const row = (name: string) => screen.getByText(name).closest('tr') as HTMLElement;
    expect(row(MERIDIAN.name).textContent).toContain(NADIA.name);
    expect(row(OSTREL.name).textContent).toContain('nobody usual');
    expect(screen.getByRole('button', { name: 'Gas for Ostrel & Sons: as the plan' })).toBeTruthy();
    const year = screen.getByRole('region', { name: 'Twelve months of it' });
    expect(year.textContent).toContain('24 tasks, 12 h in all, 2 made now');
    const months = within(year).getAllByRole('listitem');
    expect(months).toHaveLength(12);
    expect(months.slice(0, 3).map(({ textContent }) => textContent)).toEqual(['Dec2', 'Jan2', 'Feb']);
    await waitFor(() =>
      expect(screen.getByRole('region', { name: 'Whose hours it takes' }).textContent).toMatch(/36\.5 → 38\.5 h/),
    );
    fireEvent.click(save);
    expect(await screen.findByText('the plan')).toBeTruthy();
    expect(await screen.findByText(/^2 clients put on Resident berth\./)).toBeTruthy();
    const { follow, ...asked } = sent[0] ?? {};
    expect(follow).toBeTruthy();
    // What was looked at is what is made.
    expect(asked).toEqual(looked.at(-1));
    expect(asked).toMatchObject({ version: 3, from: '2026-11-24', start: null });
  });

  it('start on a day on which no notice is too late, if that is wished', async () => {
    const { looked } = await page();
    expect(await screen.findByText('2 notices have to leave today, or had to before.')).toBeTruthy();
    expect(screen.getByText(/From .*2 Dec.* on none is too late/)).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'Start on that day' }));
    await waitFor(() => expect(looked.at(-1)).toMatchObject({ from: '2026-12-02' }));
    await waitFor(() => expect(screen.queryByText(/notices have to leave/)).toBeNull());
  });

  it('are left as before one by one, but for the last', async () => {
    const { looked } = await page();
    await saves('Put 2 clients on it, make 2 tasks');
    fireEvent.click(screen.getByRole('button', { name: 'Leave Ostrel & Sons as before' }));
    await saves('Put 1 client on it, make 1 task');
    expect(looked.at(-1)?.clients).toEqual([{ clientId: MERIDIAN.id, own: [] }]);
    expect(screen.queryByRole('button', { name: /^Leave .* as before$/ })).toBeNull();
  });

  it('are not made while what they would have is refused, which is said', async () => {
    const detail = 'Ostrel & Sons is on Resident berth already.';
    await page({ answers: { [`POST /plans/${PLAN}/clients/look`]: () => refusal(detail) } });
    expect((await screen.findByRole('alert')).textContent).toBe(detail);
    expect(await saves(/^Put 2 clients on it/)).toHaveProperty('disabled', true);
  });

  it('stay as they were written where making them is refused', async () => {
    const detail = 'Somebody has changed Resident berth.';
    await page({ answers: { [`POST /plans/${PLAN}/clients`]: () => refusal(detail) } });
    fireEvent.click(await saves('Put 2 clients on it, make 2 tasks'));
    expect(await screen.findByText(detail)).toBeTruthy();
    expect(screen.queryByText('the plan')).toBeNull();
    expect(screen.getByText('Nothing is made yet.')).toBeTruthy();
    expect(await saves('Put 2 clients on it, make 2 tasks')).toHaveProperty('disabled', false);
  });

  it('need a plan with something in it', async () => {
    await page({ answers: { '/plans': { plans: [{ ...line, items: [] }] } } });
    expect(await screen.findByText('There is no plan with anything in it yet.')).toBeTruthy();
    expect(screen.getByRole('link', { name: 'Write one' }).getAttribute('href')).toBe('/plans/new');
  });

  it('are no business of whoever may not plan', async () => {
    const { looked } = await page({ me: NADIA });
    expect(await screen.findByText(/put clients on a plan/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: /^Put/ })).toBeNull();
    expect(looked).toEqual([]);
  });
});
