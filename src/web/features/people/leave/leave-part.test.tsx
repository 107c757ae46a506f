import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { Leave, LeaveImpact } from '../../../../contract/index.ts';
import { INES, NADIA, show } from '../../../testing/show.tsx';
import { LeaveAsked } from './leave-asked.tsx';
import { LeavePart } from './leave-part.tsx';
import { sayLeaveCover } from './leave-words.ts';

const LEAVE: Leave = {
  ...{ id: '01937000-0000-7000-8000-0000000000e1', version: 1, personId: NADIA.id, state: 'given', half: null },
  cover: null,
  ...{ from: '2026-12-15', to: '2026-12-18', note: 'Visiting.', askedAt: '2026-11-01T10:00', decidedBy: INES.name },
  ...{ days: 4, mayTakeBack: true },
};
const IMPACT: LeaveImpact = {
  ...{ days: 1, holidays: 0 },
  counts: { goes: 1, offered: 0, nobody: 1, dropped: 0, stays: 0, notMade: 1, minutes: 90, turns: 1, name: 1 },
  deputy: null,
  exchanges: [],
  peers: [{ person: { id: INES.id, name: INES.name }, minutes: 600, capacity: 2250 }],
  items: [
    {
      ...{ taskId: 't1', scheduleId: 's1', work: 'Opening walk', about: null, on: '2026-12-01', minutes: 30 },
      how: 'turns',
      ...{ state: 'open', fate: 'goes', to: { id: INES.id, name: INES.name }, why: 'next in turn' },
    },
    {
      ...{ taskId: null, scheduleId: 's2', work: 'Fire points', about: 'Lee Quay', on: '2026-12-01', minutes: 60 },
      how: 'name',
      ...{ state: 'foreseen', fate: 'nobody', to: null, why: 'Nadia is away until Tue, and nobody takes over' },
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
    return { leave: { ...LEAVE, state: 'given' }, changeId: '01937000-0000-7000-8000-0000000000f1', exchangesKept: 0 };
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
    expect(screen.getByText('Nadia is away until Tue, and nobody takes over')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Enter the leave, 1 task changes hands, 1 is nobody’s' }));
    const entered = { from: '2026-12-01', to: '2026-12-01', half: null, note: '', cover: null };
    await waitFor(() => expect(sent).toEqual([entered]));
  });

  it('is looked at again with somebody chosen to take over, who has so much to do, and entered so', async () => {
    const sent: unknown[] = [];
    const looked: unknown[] = [];
    const user = userEvent.setup();
    const answers = {
      ...around(sent),
      [`POST /people/${NADIA.id}/leave/impact`]: (body: unknown) => {
        looked.push(body);
        return IMPACT;
      },
    };
    await show(<LeavePart personId={NADIA.id} name={NADIA.name} />, { answers });
    await user.click(await screen.findByRole('button', { name: 'write when' }));
    await write(user, 'Away from', '1 Dec 2026');
    await user.click(screen.getByRole('button', { name: 'See impact' }));
    await user.click(await screen.findByRole('button', { name: /^Who takes what is given by name: as the work says/ }));
    expect(screen.getByText('10 of 38 h in those weeks')).toBeTruthy();
    expect(screen.queryByRole('option', { name: 'the next in turn' })).toBeNull();
    await user.click(screen.getByRole('option', { name: new RegExp(INES.name) }));
    const cover = { turns: null, name: { personId: INES.id } };
    await waitFor(() => expect(looked.at(-1)).toMatchObject({ cover }));
    await user.click(await screen.findByRole('button', { name: /^Enter the leave/ }));
    await waitFor(() => expect(sent).toMatchObject([{ cover }]));
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
    const dropped = { ...first, how: 'other', fate: 'dropped', to: null, why: 'each who is there has one' };
    const impact = {
      ...IMPACT,
      items: [dropped],
      counts: { ...IMPACT.counts, goes: 0, nobody: 0, dropped: 1, notMade: 0, turns: 0, name: 0 },
    };
    const answers = { ...around(), [`POST /people/${NADIA.id}/leave/impact`]: impact };
    await show(<LeavePart personId={NADIA.id} name={NADIA.name} />, { answers });
    await user.click(await screen.findByRole('button', { name: 'write when' }));
    await user.click(screen.getByRole('button', { name: 'See impact' }));
    const dialog = await screen.findByRole('dialog');
    expect(dialog.textContent).toContain('1as one of several');
    expect(dialog.textContent).toContain('not done');
    expect(dialog.textContent).toContain('1 task falls in it');
    expect(screen.getByRole('button', { name: 'Enter the leave' })).toBeTruthy();
  });
});

const turn = (date: string) => ({ first: date, last: date, dates: 1 });
const EXCHANGES: LeaveImpact['exchanges'] = [
  {
    ...{ scheduleId: LEAVE.id, work: 'Opening walk', about: null, missed: turn('2026-12-03') },
    taken: { ...turn('2026-12-12'), person: { id: INES.id, name: INES.name } },
  },
  { scheduleId: LEAVE.id, work: 'Opening walk', about: null, missed: turn('2026-12-04'), taken: null },
];

describe('leave that is asked for', () => {
  it('keeps whoever was chosen to take over while the look at it is closed, and is given so', async () => {
    const user = userEvent.setup();
    const [looked, decided]: [unknown[], unknown[]] = [[], []];
    const asked: Leave = { ...LEAVE, state: 'asked' };
    const answers = {
      [`POST /leave/${LEAVE.id}/impact`]: (body: unknown) => {
        looked.push(body);
        const { cover } = body as { cover: Leave['cover'] };
        return cover?.turns === 'exchange' ? { ...IMPACT, exchanges: EXCHANGES } : IMPACT;
      },
      [`PUT /leave/${LEAVE.id}/state`]: (body: unknown) => {
        decided.push(body);
        return { leave: { ...LEAVE }, changeId: '01937000-0000-7000-8000-0000000000f1', exchangesKept: 0 };
      },
    };
    await show(<LeaveAsked leave={[asked]} />, { answers });
    const look = () => user.click(screen.getByRole('button', { name: `See impact of the leave of ${NADIA.name}` }));
    await look();
    await user.click(await screen.findByRole('button', { name: /^Who takes the turns: as the work says/ }));
    await user.click(screen.getByRole('option', { name: 'the next in turn' }));
    const cover = { turns: 'next', name: null };
    await waitFor(() => expect(looked).toEqual([{ cover: null }, { cover }]));
    await user.click(screen.getByRole('button', { name: 'Go back' }));
    await look();
    expect(await screen.findByRole('button', { name: /^Who takes the turns: the next in turn/ })).toBeTruthy();
    expect(screen.getByRole('dialog').textContent).not.toContain('12 Dec');
    await user.click(screen.getByRole('button', { name: /^Who takes the turns: the next in turn/ }));
    await user.click(screen.getByRole('option', { name: /^the next, in exchange/ }));
    expect(await screen.findByText('Ines has Thu 3 Dec, Nadia has Sat 12 Dec')).toBeTruthy();
    expect(screen.getByText('Fri 4 Dec: no later turn suits both, so the next who is there takes it')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: /^Who takes the turns: the next, in exchange/ }));
    await user.click(screen.getByRole('option', { name: 'the next in turn' }));
    await waitFor(() => expect(screen.queryByText(/Sat 12 Dec/)).toBeNull());
    await user.click(screen.getByRole('button', { name: /^Give the leave/ }));
    await waitFor(() => expect(decided).toEqual([{ version: 1, state: 'given', cover }]));
  });

  it.each([
    [null, ''],
    [{ turns: 'next', name: null }, 'turns to the next'],
    [{ turns: 'exchange', name: null }, 'turns to the next in exchange'],
    [{ turns: 'nobody', name: 'deputy' }, 'turns to nobody, by name to whoever takes over'],
    [{ turns: null, name: { personId: 'kit' } }, 'by name to Kit'],
  ] as const)('says of %j who takes over', (cover, words) => {
    expect(sayLeaveCover(cover, (id) => (id === 'kit' ? 'Kit' : '?'))).toBe(words);
  });
});
