import { fireEvent, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { FillInput, FillRow } from '../../../contract/index.ts';
import { show } from '../../testing/show.tsx';
import FillPage from './fill-page.tsx';

const row = (n: number): FillRow => ({
  ...{ scheduleId: `01937000-0000-7000-8000-00000000000${n}`, templateId: '01937000-0000-7000-8000-0000000000b1' },
  ...{
    template: 'Opening walk',
    about: null,
    new: n,
    there: 0,
    paused: 0,
    dayOff: 0,
    skipped: 0,
    deleted: 0,
    remark: '',
  },
});
const ALL = { ids: [row(3).scheduleId, row(4).scheduleId], versions: [1, 1], more: null, mark: 'a', isAll: true };
const PAINT = { ids: [row(4).scheduleId], versions: [1], more: null, mark: 'b', isAll: false };

/** A server that holds its answers back until it is told, and keeps what it was asked. */
function held() {
  const asked: FillInput[] = [];
  const waiting: (() => void)[] = [];
  const made: FillInput[] = [];
  const answers = {
    '/runs': { runs: [] },
    '/schedules/fitting': ALL,
    '/schedules/fitting?find=paint': PAINT,
    'POST /fills/rehearsal': (input: FillInput) => {
      asked.push(input);
      const rows = input.scheduleIds.length === 0 ? [row(3), row(4)] : [row(4)];
      return new Promise((resolve) => waiting.push(() => resolve({ rows, days: [] })));
    },
    'POST /fills': (input: FillInput) => {
      made.push(input);
      return { run: { id: '01937000-0000-7000-8000-0000000000aa' } };
    },
  };
  return { asked, made, answers, answer: () => waiting.splice(0).map((go) => go()) };
}
const make = () => screen.getByRole<HTMLButtonElement>('button', { name: /^(Make|Rehearsing|Nothing)/ });
const type = (words: string) =>
  fireEvent.change(screen.getByRole('searchbox', { name: 'Schedules with these words' }), { target: { value: words } });

describe('a fill', () => {
  it('makes what was rehearsed of this choice, never of the one before', async () => {
    const { asked, made, answers, answer } = held();
    await show(<FillPage />, { answers });
    expect(make().disabled).toBe(true);
    await waitFor(() => expect(asked).toHaveLength(1));
    answer();
    await waitFor(() => expect(make().textContent).toBe('Make 7 tasks'));
    type('paint');
    // What was rehearsed before stands there still, but can't be made any more.
    expect(screen.getByText('Opening walk')).toBeTruthy();
    await waitFor(() => expect(make().textContent).toBe('Rehearsing …'));
    expect(make().disabled).toBe(true);
    await waitFor(() => expect(asked).toHaveLength(2));
    expect(asked[1]?.scheduleIds).toEqual(PAINT.ids);
    answer();
    await waitFor(() => expect(make().textContent).toBe('Make 4 tasks'));
    await userEvent.setup().click(make());
    await waitFor(() => expect(made).toHaveLength(1));
    expect(made[0]).toEqual(asked[1]);
  });

  it('says that the schedules can’t be had, and makes nothing then', async () => {
    const { made, answers, answer, asked } = held();
    await show(<FillPage />, { answers: { ...answers, '/schedules/fitting?find=paint': new Error('no way') } });
    await waitFor(() => expect(asked).toHaveLength(1));
    answer();
    await waitFor(() => expect(make().textContent).toBe('Make 7 tasks'));
    type('paint');
    expect((await screen.findByRole('alert')).textContent).toMatch(/The server does not answer/);
    expect(make().disabled).toBe(true);
    expect(made).toEqual([]);
  });
});
