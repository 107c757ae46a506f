import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { CallDay, CallQuota, FoundContact, SeveralQuotasLook, ShareLook } from '../../../contract/index.ts';
import { INES, NADIA, show } from '../../testing/show.tsx';
import { AddCall } from './add-call.tsx';
import QuotasPage from './quotas-page.tsx';
import { ShareOut } from './share-out.tsx';

const idOf = (n: number) => `01937000-0000-7000-8000-00000000${n.toString(16).padStart(4, '0')}`;
const DAY = {
  ...{
    person: { id: NADIA.id, name: NADIA.name },
    on: '2026-11-24',
    calls: [],
    week: [],
    promised: [],
    promisedCount: 0,
  },
  ...{
    quotas: [{ id: idOf(1), name: 'Renewal calls', asks: [], minutesEach: 10, readyAt: '08:00', isMade: true }],
    outcomes: [],
  },
} as const satisfies CallDay;

describe('a list that is shared out', () => {
  const look = (taking: boolean): ShareLook => ({
    receivers: [
      {
        ...{ id: INES.id, name: INES.name, isTaking: taking, before: 3, after: taking ? 5 : 3 },
        ...{ minutesAfter: 50, given: taking ? [{ contact: 'Verity Lanyon', isPromised: true }] : [] },
      },
    ],
    calls: 2,
    moves: taking ? [1, 2].map((n) => ({ callId: idOf(n), version: 1, to: INES.id })) : [],
  });

  it('is looked at with whoever takes some, and given on as it was looked at', async () => {
    const sent: unknown[] = [];
    let isClosed = false;
    await show(<ShareOut of={DAY} onClose={() => (isClosed = true)} />, {
      answers: {
        'POST /calls/share-out/look': ({ to }: { to: string[] | null }) => look(to === null || to.includes(INES.id)),
        'POST /calls/share-out': (body: unknown) => {
          sent.push(body);
          return { changeId: idOf(9) };
        },
      },
    });
    const user = userEvent.setup();
    const dialog = await screen.findByRole('dialog');
    expect(await within(dialog).findByText(/1 promised call among them/)).toBeTruthy();
    await user.click(within(dialog).getByRole('checkbox', { name: INES.name }));
    expect(await within(dialog).findByText('3 calls to make, as before')).toBeTruthy();
    expect(within(dialog).getByRole<HTMLButtonElement>('button', { name: 'Give on' }).disabled).toBe(true);
    await user.click(within(dialog).getByRole('checkbox', { name: INES.name }));
    const give = await within(dialog).findByRole<HTMLButtonElement>('button', { name: 'Give on 2 calls' });
    await waitFor(() => expect(give.disabled).toBe(false));
    await user.click(give);
    await waitFor(() => expect(sent).toEqual([{ person: NADIA.id, moves: look(true).moves }]));
    await waitFor(() => expect(isClosed).toBe(true));
  });
});

describe('one more call', () => {
  it('is offered of those who can be put on it; of the others it says why not', async () => {
    const found = (n: number, name: string, rest: Partial<FoundContact> = {}): FoundContact => ({
      ...{ contact: { id: idOf(n), name }, client: { id: idOf(n + 50), name }, asset: null, number: '01632 960 100' },
      ...{ lastRungOn: null, cannot: null, onListOf: null },
      ...rest,
    });
    const contacts = [
      found(1, 'Orla Sturt'),
      found(2, 'Orla Opie', { onListOf: 'Rhona Vick' }),
      found(3, 'Orla Lacy', { cannot: 'never' }),
    ];
    const sent: unknown[] = [];
    await show(<AddCall of={DAY} />, {
      answers: {
        '/calls/contacts?q=': { contacts: [], isMore: false },
        ...Object.fromEntries(
          ['O', 'Or', 'Orl', 'Orla'].map((q) => [`/calls/contacts?q=${q}`, { contacts, isMore: false }]),
        ),
        'POST /calls/more': (body: unknown) => {
          sent.push(body);
          return { call: { contact: { name: 'Orla Sturt' } }, changeId: idOf(9) };
        },
      },
    });
    const user = userEvent.setup();
    await user.click(await screen.findByRole('button', { name: 'One more call' }));
    expect(await screen.findByRole('option', { name: 'The next from the pool' })).toBeTruthy();
    await user.keyboard('Orla');
    const option = await screen.findByRole('option', { name: /Orla Sturt/ });
    expect(screen.queryByRole('option', { name: /Orla (Opie|Lacy)/ })).toBeNull();
    expect(screen.getByText(/Orla Opie is on the list of Rhona Vick\. Orla Lacy: never to be rung\./)).toBeTruthy();
    await user.click(option);
    await waitFor(() => expect(sent).toEqual([{ person: NADIA.id, quotaId: idOf(1), contactId: idOf(1) }]));
  });
});

describe('several quotas', () => {
  const quota = (n: number, name: string): CallQuota => ({
    ...{ id: idOf(n), version: 1, name, startsOn: '2026-11-02', endsOn: null, pauses: [], people: [] },
    terms: [
      {
        from: '2026-11-02',
        says: {
          amount: { count: 8, per: 'day', share: 'same', mostADay: null, holidays: 'off', leave: 'off' },
          ...{ group: { of: 'role', role: 'adviser' }, pool: { v: 1, conditions: [] }, first: 'neverRung' },
          ...{ usualFirst: false, gap: 2, carryDays: 1, readyAt: '08:00', mails: false, minutesEach: 10, asks: [] },
        },
      },
    ],
  });

  it('are paused at once, those that it changes alone, after a look by name and week', async () => {
    const sent: unknown[] = [];
    const look: SeveralQuotasLook = {
      quotas: [
        {
          ...{ id: idOf(1), name: 'Renewals', version: 4 },
          changed: [{ id: NADIA.id, name: NADIA.name, weeks: [{ monday: '2026-11-23', was: 40, now: 16 }] }],
        },
      ],
      same: [{ id: idOf(2), name: 'Winter checks' }],
    };
    await show(<QuotasPage />, {
      answers: {
        '/quotas': { quotas: [quota(1, 'Renewals'), quota(2, 'Winter checks')] },
        'POST /quotas/several/look': look,
        'POST /quotas/several': (body: unknown) => {
          sent.push(body);
          return { changeId: idOf(9), count: 1 };
        },
      },
    });
    const user = userEvent.setup();
    await user.click(await screen.findByLabelText('Choose Renewals'));
    await user.click(screen.getByLabelText('Choose Winter checks'));
    const table = await screen.findByRole('table', { name: 'What changes with Renewals' });
    expect(within(table).getByRole('row', { name: /Nadia Orme/ }).textContent).toContain('40 16');
    expect(screen.getByText('Nothing changes with Winter checks.')).toBeTruthy();
    const pause = screen.getByRole<HTMLButtonElement>('button', { name: 'Pause 1 quota' });
    await waitFor(() => expect(pause.disabled).toBe(false));
    await user.click(pause);
    await waitFor(() =>
      expect(sent).toEqual([{ of: [{ id: idOf(1), version: 4 }], deed: { kind: 'pause', on: '2026-11-25' } }]),
    );
  });
});
