import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { Leave, LeaveImpact } from '../../../../contract/index.ts';
import { INES, NADIA, show } from '../../../testing/show.tsx';
import { LeavePart } from './leave-part.tsx';

const LEAVE: Leave = {
  ...{ id: '01937000-0000-7000-8000-0000000000e1', version: 1, personId: NADIA.id, state: 'given', half: null },
  ...{ from: '2026-12-15', to: '2026-12-18', note: 'Visiting.', askedAt: '2026-11-01T10:00', decidedBy: INES.name },
  ...{ days: 4, mayTakeBack: true },
};
const IMPACT: LeaveImpact = {
  ...{ days: 1, holidays: 0 },
  counts: { goes: 1, offered: 0, nobody: 1, dropped: 0, stays: 0, notMade: 1, minutes: 90 },
  items: [
    {
      ...{ taskId: 't1', scheduleId: 's1', work: 'Opening walk', about: null, on: '2026-12-01', minutes: 30 },
      ...{ state: 'open', fate: 'goes', to: { id: INES.id, name: INES.name }, why: 'next in turn' },
    },
    {
      ...{ taskId: null, scheduleId: 's2', work: 'Fire points', about: 'Lee Quay', on: '2026-12-01', minutes: 60 },
      ...{ state: 'foreseen', fate: 'nobody', to: null, why: 'Nadia is away until Tue, and nobody else can' },
    },
  ],
  receivers: [
    {
      person: { id: INES.id, name: INES.name },
      weeks: [{ monday: '2026-11-30', before: 2200, after: 2260, capacity: 2250 }],
    },
  ],
};
const LIST = `/leave?person=${NADIA.id}`;
const around = (sent: unknown[] = []) => ({
  [LIST]: { leave: [LEAVE] },
  [`POST /people/${NADIA.id}/leave/impact`]: () => IMPACT,
  [`POST /people/${NADIA.id}/leave`]: (body: unknown) => {
    sent.push(body);
    return { leave: { ...LEAVE, state: 'given' }, changeId: '01937000-0000-7000-8000-0000000000f1' };
  },
});

async function write(user: ReturnType<typeof userEvent.setup>, label: string, text: string) {
  const field = screen.getByRole('textbox', { name: label });
  await user.clear(field);
  await user.type(field, `${text}{Enter}`);
}

describe('leave', () => {
  it('is entered by a manager after a look at who gets the work', async () => {
    const sent: unknown[] = [];
    const user = userEvent.setup();
    await show(<LeavePart personId={NADIA.id} name={NADIA.name} />, { answers: around(sent) });
    expect(await screen.findByText('Tue 15 to Fri 18 Dec')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'write when' }));
    await write(user, 'Away from', '1 Dec 2026');
    await user.click(screen.getByRole('button', { name: 'See impact' }));
    expect(await screen.findByText(/^1 working day\. 2 tasks fall in it, 1 h 30/)).toBeTruthy();
    expect(screen.getByText('next in turn')).toBeTruthy();
    expect(screen.getByText('Nadia is away until Tue, and nobody else can')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Enter the leave, 1 task changes hands' }));
    await waitFor(() => expect(sent).toEqual([{ from: '2026-12-01', to: '2026-12-01', half: null, note: '' }]));
  });

  it('is asked for by whoever it is for, and shown to others without a way to change it', async () => {
    const user = userEvent.setup();
    await show(<LeavePart personId={NADIA.id} name={NADIA.name} />, { me: NADIA, answers: around() });
    await user.click(await screen.findByRole('button', { name: 'write when' }));
    await write(user, 'Away to', '24 Nov 2026');
    expect(screen.getByText('The last day lies before the first.')).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Ask for it' })).toHaveProperty('disabled', true);
    await user.click(screen.getByRole('button', { name: 'Put back' }));
    expect(screen.getByRole('button', { name: 'write when' })).toBeTruthy();
  });

  it('that can’t be saved after the look says why beside what is written, which is kept', async () => {
    const user = userEvent.setup();
    const answers = { ...around(), [`POST /people/${NADIA.id}/leave`]: new TypeError('no net') };
    await show(<LeavePart personId={NADIA.id} name={NADIA.name} />, { answers });
    await user.click(await screen.findByRole('button', { name: 'write when' }));
    await write(user, 'Away from', '1 Dec 2026');
    await user.click(screen.getByRole('button', { name: 'See impact' }));
    await user.click(await screen.findByRole('button', { name: /^Enter the leave/ }));
    expect((await screen.findByRole('alert')).textContent).toMatch(
      /^The server does not answer\. What you typed is kept/,
    );
    expect(screen.queryByRole('dialog')).toBeNull();
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Away from' }).value).toBe('1 Dec 2026');
  });

  it('says what is not done by anybody, where each who is there has one', async () => {
    const user = userEvent.setup();
    const [first] = IMPACT.items;
    const dropped = { ...first, fate: 'dropped', to: null, why: 'each who is there has one' };
    const impact = {
      ...IMPACT,
      items: [dropped],
      counts: { ...IMPACT.counts, goes: 0, nobody: 0, dropped: 1, notMade: 0 },
    };
    const answers = { ...around(), [`POST /people/${NADIA.id}/leave/impact`]: impact };
    await show(<LeavePart personId={NADIA.id} name={NADIA.name} />, { answers });
    await user.click(await screen.findByRole('button', { name: 'write when' }));
    await user.click(screen.getByRole('button', { name: 'See impact' }));
    const dialog = await screen.findByRole('dialog');
    expect(dialog.textContent).toContain('1is not doneone a head');
    expect(dialog.textContent).toContain('1 task falls in it');
    expect(screen.getByRole('button', { name: 'Enter the leave' })).toBeTruthy();
  });
});
