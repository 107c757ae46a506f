import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { describe, expect, it, vi } from 'vitest';
import type { CallQuota, QuotaInput, QuotaLook } from '../../../contract/index.ts';
import { problemOf } from '../../../contract/problems.ts';
import type { QuotaTerms } from '../../../core/index.ts';
import { askAgain, INES, NADIA, show } from '../../testing/show.tsx';
import QuotaPage from './quota-page.tsx';

// It has no room in a page that is not laid out.
vi.mock('./pool-curve.tsx', () => ({ PoolCurve: () => null }));

const ID = '01937000-0000-7000-8000-0000000000d1';
const terms = (count: number, of: Partial<QuotaTerms> = {}): QuotaTerms => ({
  amount: { count, per: 'day', share: 'same', mostADay: null, holidays: 'off', leave: 'off' },
  ...{ group: { of: 'role', role: 'adviser' }, pool: { v: 1, conditions: [] }, first: 'neverRung', usualFirst: false },
  ...{ gap: 2, carryDays: 1, readyAt: '08:00', mails: false, minutesEach: 10, asks: [] },
  ...of,
});
const QUOTA: CallQuota = {
  ...{ id: ID, version: 3, name: 'Renewals', startsOn: '2026-11-02', endsOn: null, pauses: [] },
  terms: [{ from: '2026-11-02', says: terms(12) }],
  people: [{ id: NADIA.id, name: NADIA.name }],
};
const LOOK: QuotaLook = {
  changed: null,
  people: [
    {
      ...{ id: NADIA.id, name: NADIA.name, weekMinutes: 2250 },
      weeks: ['2026-11-23', '2026-11-30'].map((monday, at) => ({
        ...{ monday, days: [12, 12, at === 1 ? null : 12, 12, 12, null, null], off: at === 1 ? 12 : 0 },
        ...{ beyond: 0, unplaced: 0 },
      })),
    },
  ],
  funnel: { on: '2026-11-25', all: 90, after: [], notNever: 88, withNumber: 80, free: 61 },
  forecast: {
    days: [{ on: '2026-11-25', free: 61, wanted: 12, found: 12 }],
    ...{ dryOn: '2026-12-02', lasts: 54, comeBack: 70 },
  },
  first: { on: '2026-11-25', lists: [{ id: NADIA.id, name: NADIA.name, wanted: 12, found: 9, calls: [] }] },
};
const problem = (kind: 'changed-meanwhile' | 'invalid', detail: string, path?: string) => {
  const told = problemOf(kind, detail, path === undefined ? undefined : [{ path, message: detail }]);
  return new Response(JSON.stringify(told), { status: told.status });
};

interface Sent extends QuotaInput {
  readonly version: number;
}

async function shown(quotas: () => CallQuota[], path = ID, save: (body: Sent) => unknown = () => ({})) {
  const sent: Sent[] = [];
  const looked: { says: QuotaTerms; from: string }[] = [];
  const saved = (body: Sent) => {
    sent.push(body);
    return save(body);
  };
  await show(
    <Routes>
      <Route path="/calls/quotas/:quotaId" element={<QuotaPage />} />
    </Routes>,
    {
      me: INES,
      path: `/calls/quotas/${path}`,
      workspace: { roles: ['adviser'] },
      answers: {
        '/quotas': () => ({ quotas: quotas() }),
        '/plans': { plans: [], isMore: false },
        'POST /quotas/look': (body: { says: QuotaTerms; from: string }) => {
          looked.push(body);
          return body.says.gap > 100 ? problem('invalid', 'A gap of 365 days at most.', 'says.gap') : LOOK;
        },
        'POST /quotas': saved,
        [`PUT /quotas/${ID}`]: saved,
      },
    },
  );
  const count = () => screen.findByRole<HTMLInputElement>('textbox', { name: 'How many calls' });
  const write = async (label: string, text: string) => {
    const blank = await screen.findByLabelText(label);
    await user.clear(blank);
    await user.type(blank, text);
    await user.tab();
  };
  const user = userEvent.setup();
  return { sent, looked, count, write, user };
}
const saveButton = (name = 'Save from tomorrow') => screen.getByRole<HTMLButtonElement>('button', { name });

describe('a quota', () => {
  it('is written from what it says last, so that what is saved next takes nothing of that back', async () => {
    let now = { ...QUOTA, terms: [...QUOTA.terms, { from: '2026-12-07', says: terms(15, { gap: 5 }) }] };
    const { count, looked, sent, user, write } = await shown(
      () => [now],
      ID,
      (body) => ({ quota: { ...now, ...body }, changeId: ID }),
    );
    expect((await count()).value).toBe('15');
    expect(
      screen.getByText('12 calls a working day for each adviser; from 7 Dec 2026: 15 calls', { exact: false }),
    ).toBeTruthy();
    expect(screen.getByLabelText<HTMLInputElement>('From').value).toBe('7 Dec 2026');
    await write('Name', 'Renewal calls');
    await waitFor(() => expect(saveButton('Save it').disabled).toBe(false));
    await user.click(saveButton('Save it'));
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]).toMatchObject({ version: 3, name: 'Renewal calls', from: '2026-12-07', says: { gap: 5 } });
    expect(sent[0]?.says.amount.count).toBe(15);
    // What it comes to is told beside what is saved: once that is another, it is looked at again.
    const before = looked.length;
    now = { ...now, version: 4, name: 'Renewal calls' };
    await askAgain();
    await waitFor(() => expect(looked.length).toBe(before + 1));
  });

  it('tells what it comes to: its weeks, what is off, how long the pool lasts, and whose list is too short', async () => {
    await shown(() => [QUOTA]);
    const weeks = await screen.findByRole('table', { name: 'Calls of each week and day' });
    const [first, second] = within(weeks).getAllByRole('row').slice(-2);
    expect(first?.textContent).toContain('60');
    expect(second?.textContent).toContain('48');
    expect(second?.textContent).toContain('12 off (Nadia)');
    expect(screen.getByText('the pool runs dry')).toBeTruthy();
    expect(screen.getByText('3 too few')).toBeTruthy();
    expect(screen.getByText('70 of 100 who are rung come back to it')).toBeTruthy();
  });

  it('that cannot be is said in words beside what was seen last, and not saved', async () => {
    const { write } = await shown(() => [QUOTA]);
    await screen.findByText('3 too few');
    await write('Days between two calls', '200');
    expect(await screen.findByText('A gap of 365 days at most.')).toBeTruthy();
    expect(screen.getByText('3 too few')).toBeTruthy();
    expect(saveButton().disabled).toBe(true);
  });

  it('that is new says that it has no name yet, and is saved from the day that is said', async () => {
    const { sent, user, write } = await shown(
      () => [],
      'new',
      (body) => ({ quota: { ...QUOTA, ...body }, changeId: ID }),
    );
    await write('How many calls', '8');
    expect(await screen.findByText('Not saved yet: it has no name.')).toBeTruthy();
    expect(saveButton('Save it').disabled).toBe(true);
    await write('Name', 'Renewals');
    await waitFor(() => expect(saveButton('Save it').disabled).toBe(false));
    await user.keyboard('{Control>}{Enter}{/Control}');
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]).toMatchObject({ name: 'Renewals', from: '2026-11-24', endsOn: null, pauses: [] });
    expect(sent[0]?.says.amount.count).toBe(8);
  });

  it('that somebody else changed meanwhile is refused, and both changes are kept by one press', async () => {
    let now = QUOTA;
    const { sent, count, user, write } = await shown(
      () => [now],
      ID,
      (body) =>
        body.version === 3
          ? problem('changed-meanwhile', 'The quota was changed by someone else meanwhile.')
          : { quota: { ...now, ...body }, changeId: ID },
    );
    await write('How many calls', '20');
    now = { ...QUOTA, version: 4, terms: [...QUOTA.terms, { from: '2026-11-25', says: terms(12, { gap: 9 }) }] };
    await waitFor(() => expect(saveButton().disabled).toBe(false));
    await user.click(saveButton());
    await waitFor(() => expect(sent).toHaveLength(1));
    await askAgain();
    expect(
      await screen.findByText('Somebody else has changed the days between two calls since you began.', {
        exact: false,
      }),
    ).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Keep both' }));
    expect((await count()).value).toBe('20');
    await waitFor(() => expect(saveButton().disabled).toBe(false));
    await user.click(saveButton());
    await waitFor(() => expect(sent).toHaveLength(2));
    expect(sent[1]).toMatchObject({ version: 4, says: { gap: 9 } });
    expect(sent[1]?.says.amount.count).toBe(20);
  });

  it('is paused from the day that is said, and goes on from it', async () => {
    const paused = { ...QUOTA, pauses: [{ from: '2026-11-20', to: null }] };
    const { sent, user } = await shown(
      () => [paused],
      ID,
      (body) => ({ quota: { ...paused, ...body }, changeId: ID }),
    );
    const state = await screen.findByLabelText<HTMLSelectElement>('Whether it is paused');
    expect(state.value).toBe('paused');
    await user.selectOptions(state, 'it runs');
    await waitFor(() => expect(saveButton().disabled).toBe(false));
    await user.click(saveButton());
    await waitFor(() => expect(sent[0]?.pauses).toEqual([{ from: '2026-11-20', to: '2026-11-25' }]));
  });

  it('that is not there is said to be so', async () => {
    await shown(() => [], ID);
    expect(await screen.findByText('There is no such quota.')).toBeTruthy();
  });
});
