import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { Swap, Task } from '../../../contract/index.ts';
import { INES, NADIA, show } from '../../testing/show.tsx';
import AskedSwaps from './asked-swaps.tsx';
import { SwapTurn } from './swap-turn.tsx';

const SWAP: Swap = {
  ...{ id: '01937000-0000-7000-8000-0000000000d1', version: 3, about: 'Lee Quay', note: '', decidedBy: null },
  schedule: { id: '01937000-0000-7000-8000-0000000000d2', name: 'Opening walk' },
  ...{ asker: INES, other: NADIA, state: 'asked', askedAt: '2026-11-23T09:00' },
  gives: { first: '2026-12-14', last: '2026-12-18', dates: 5 },
  takes: { first: '2026-12-07', last: '2026-12-07', dates: 1 },
  may: ['agree', 'refuse'],
};

describe('swaps of turns', () => {
  it('are agreed on by whoever is asked, in words that say who takes which', async () => {
    const sent: unknown[] = [];
    let state: Swap['state'] = 'asked';
    const answers = {
      '/swaps': () => ({ swaps: [{ ...SWAP, state, may: state === 'asked' ? SWAP.may : [] }] }),
      [`PUT /swaps/${SWAP.id}/state`]: (body: unknown) => {
        sent.push(body);
        state = 'agreed';
        return { swap: { ...SWAP, state, may: [] }, changeId: null };
      },
    };
    await show(<AskedSwaps />, { me: NADIA, answers });
    expect(
      await screen.findByText('Ines takes your turn of Mon 7 Dec, you take Ines’s of Mon 14 to Fri 18 Dec'),
    ).toBeTruthy();
    await userEvent.setup().click(screen.getByRole('button', { name: 'Agree' }));
    await waitFor(() => expect(sent).toEqual([{ version: 3, deed: 'agree' }]));
    expect(await screen.findByText('agreed, waits for a planner’s nod')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Agree' })).toBeNull();
  });

  it('that wait for a nod stand with planners, without the others', async () => {
    const others = { ...SWAP, id: '01937000-0000-7000-8000-0000000000d3', state: 'agreed' as const, may: ['give'] };
    await show(<AskedSwaps onlyNods />, { answers: { '/swaps': { swaps: [SWAP, others] } } });
    expect(await screen.findAllByRole('button')).toHaveLength(1);
    expect(screen.getByRole('button', { name: 'Give the nod' })).toBeTruthy();
  });

  it('are asked for from a task of one’s own turn, with somebody else’s chosen', async () => {
    const task = { id: 't1', assignee: NADIA, schedule: SWAP.schedule } as unknown as Task;
    const sent: unknown[] = [];
    const turn = { first: '2026-12-14', last: '2026-12-18', dates: 5 };
    const answers = {
      '/tasks/t1/turns': { mine: SWAP.takes, others: [{ ...turn, person: INES }] },
      '/swaps': { swaps: [] },
      'POST /tasks/t1/swaps': (body: unknown) => {
        sent.push(body);
        return { swap: SWAP, changeId: null };
      },
    };
    const user = userEvent.setup();
    const { unmount } = await show(<SwapTurn task={task} />, { me: NADIA, answers });
    await user.click(await screen.findByRole('button', { name: 'Ask for a swap' }));
    expect(screen.getByText('Ines Calloway, Mon 14 to Fri 18 Dec')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Ask Ines' }));
    await waitFor(() => expect(sent).toEqual([{ takes: '2026-12-14', note: '' }]));
    unmount();
    // Nobody else is asked about it.
    await show(<SwapTurn task={task} />, { me: INES, answers: { '/swaps': { swaps: [] } } });
    expect(screen.queryByRole('button')).toBeNull();
  });
});
