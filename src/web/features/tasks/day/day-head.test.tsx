import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import { dayOfIso } from '../../../../core/index.ts';
import { show } from '../../../testing/show.tsx';
import { lineOf } from '../../../testing/tasks.ts';
import { DayHead, type DayLoad } from './day-head.tsx';

const today = dayOfIso('2026-11-24');
const head = (load: Partial<DayLoad> = {}, day = today, onDay: (day: number) => void = () => undefined) => (
  <DayHead
    day={day}
    onDay={onDay}
    whose="Nadia Orme"
    words="dock crew"
    load={{ late: [], thisDay: [], projected: [], capacityMinutes: 240, ...load }}
  />
);

describe('the load of a day', () => {
  it('counts work that waits for a check as finished, and what is late besides', async () => {
    await show(
      head({
        late: [lineOf({ id: '1', late: true, estimateMinutes: 60 })],
        thisDay: [
          lineOf({ id: '2', state: 'done', estimateMinutes: 30 }),
          lineOf({ id: '3', state: 'toCheck', estimateMinutes: 45 }),
          lineOf({ id: '4', state: 'underWay', estimateMinutes: 120 }),
          lineOf({ id: '5', state: 'skipped', estimateMinutes: 15 }),
        ],
      }),
    );
    expect(screen.getByRole('img').getAttribute('aria-label')).toBe('1 h 15 finished, 2 h to do, 1 h late');
    expect(screen.getByText('4 h 15 of 4 h')).toBeTruthy();
    expect(screen.getByText(', 15 min over')).toBeTruthy();
  });

  it('of nothing says so', async () => {
    await show(head());
    expect(screen.getByRole('img', { name: 'nothing to do' })).toBeTruthy();
  });
});

describe('the day shown', () => {
  it('can be any day of any month, also on a phone', async () => {
    const go = vi.fn();
    await show(head({}, today, go));
    const user = userEvent.setup();
    await user.click(screen.getByRole('button', { name: 'Day shown: choose from a month' }));
    for (let month = 0; month < 4; month++)
      await user.click(await screen.findByRole('button', { name: 'Go to the Next Month' }));
    await user.click(screen.getByRole('button', { name: /March 16th, 2027/ }));
    expect(go).toHaveBeenCalledWith(dayOfIso('2027-03-16'));
  });

  it('tells of another year and of a day off', async () => {
    const day = dayOfIso('2027-01-02');
    await show(head({}, day));
    expect(screen.getByRole('heading').textContent).toMatch(/Saturday 2 January 2027/);
    expect(screen.getByText(/a day off/)).toBeTruthy();
  });
});
