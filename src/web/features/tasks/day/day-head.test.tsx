import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import type { DaySheet } from '../../../../contract/index.ts';
import { dayOfIso } from '../../../../core/index.ts';
import { NADIA, show } from '../../../testing/show.tsx';
import { lineOf } from '../../../testing/tasks.ts';
import { DayHead } from './day-head.tsx';

const today = dayOfIso('2026-11-24');
const sheetOf = (other: Partial<DaySheet>): DaySheet => ({
  person: { ...NADIA, capacityMinutes: 240, shifts: [], hasShifts: false },
  date: '2026-11-24',
  late: [],
  thisDay: [],
  coming: [],
  doneBefore: { tasks: [], count: 0 },
  toCheck: [],
  offered: { tasks: [], count: 0 },
  unassigned: { tasks: [], count: 0 },
  projected: [],
  deleted: [],
  ...other,
});

describe('the load of a day', () => {
  it('counts work that waits for a check as finished, and what is late besides', async () => {
    const sheet = sheetOf({
      late: [lineOf({ id: '1', late: true, estimateMinutes: 60 })],
      thisDay: [
        lineOf({ id: '2', state: 'done', estimateMinutes: 30 }),
        lineOf({ id: '3', state: 'toCheck', estimateMinutes: 45 }),
        lineOf({ id: '4', state: 'underWay', estimateMinutes: 120 }),
        lineOf({ id: '5', state: 'skipped', estimateMinutes: 15 }),
      ],
    });
    await show(<DayHead sheet={sheet} day={today} onDay={() => undefined} onPerson={() => undefined} />);
    expect(screen.getByRole('img').getAttribute('aria-label')).toBe('1 h 15 finished, 2 h to do, 1 h late');
    expect(screen.getByText('4 h 15 of 4 h')).toBeTruthy();
    expect(screen.getByText(', 15 min over')).toBeTruthy();
  });

  it('of nothing says so', async () => {
    await show(<DayHead sheet={sheetOf({})} day={today} onDay={() => undefined} onPerson={() => undefined} />);
    expect(screen.getByRole('img', { name: 'nothing to do' })).toBeTruthy();
  });
});

describe('the day shown', () => {
  it('can be any day of any month, also on a phone', async () => {
    const go = vi.fn();
    await show(<DayHead sheet={sheetOf({})} day={today} onDay={go} onPerson={() => undefined} />);
    const user = userEvent.setup();
    await user.click(screen.getByRole('button', { name: 'Day shown: choose from a month' }));
    for (let month = 0; month < 4; month++)
      await user.click(await screen.findByRole('button', { name: 'Go to the Next Month' }));
    await user.click(screen.getByRole('button', { name: /March 16th, 2027/ }));
    expect(go).toHaveBeenCalledWith(dayOfIso('2027-03-16'));
  });

  it('tells of another year and of a day off', async () => {
    const day = dayOfIso('2027-01-02');
    await show(<DayHead sheet={sheetOf({})} day={day} onDay={() => undefined} onPerson={() => undefined} />);
    expect(screen.getByRole('heading').textContent).toMatch(/Saturday 2 January 2027/);
    expect(screen.getByText(/a day off/)).toBeTruthy();
  });
});
