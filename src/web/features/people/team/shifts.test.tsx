import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { describe, expect, it } from 'vitest';
import type { Clocking, PersonInput } from '../../../../contract/index.ts';
import { INES, NADIA, show } from '../../../testing/show.tsx';
import { ClockLine } from '../clock/clock-line.tsx';
import { SingleDays } from './single-days.tsx';
import { WeekBlanks } from './week-blanks.tsx';

type Hours = Pick<PersonInput, 'weeks' | 'weeksFrom' | 'shifts'>;

async function hours(first: Hours, roles: readonly string[] = []) {
  const now = { hours: first };
  function Form() {
    const [held, setHeld] = useState(first);
    now.hours = held;
    return <WeekBlanks hours={held} roles={roles} onChange={(next) => setHeld({ ...held, ...next })} />;
  }
  await show(<Form />);
  return { now, user: userEvent.setup() };
}
async function write(user: ReturnType<typeof userEvent.setup>, label: string, text: string) {
  const field = screen.getByRole('textbox', { name: label });
  await user.clear(field);
  await user.type(field, text);
  await user.tab();
}

const WEEK: Hours = { weeks: [[450, 450, 450, 450, 240, 0, 0]], weeksFrom: '2026-11-23', shifts: [] };

describe('hours of a week', () => {
  it('say when they lie, by lines whose hours are those of the days, and lose their times again', async () => {
    const { now, user } = await hours(WEEK, ['dock crew', 'fire warden']);
    await user.click(screen.getByRole('button', { name: 'Say when they lie' }));
    expect(now.hours.weeks).toEqual(WEEK.weeks);
    expect(now.hours.shifts).toMatchObject([
      { weekdays: [1, 2, 3, 4], from: '09:00', to: '16:30' },
      { weekdays: [5], from: '09:00', to: '13:00' },
    ]);
    await write(user, 'Start of shift 1', '22');
    await write(user, 'End of shift 1', '6:00');
    await write(user, 'Break of shift 1', '30 min');
    expect(screen.getByText('the day after')).toBeTruthy();
    expect(now.hours.weeks).toEqual([[450, 450, 450, 450, 240, 0, 0]]);
    await user.selectOptions(screen.getByRole('combobox', { name: 'Role of shift 2' }), 'fire warden');
    await user.click(screen.getByRole('button', { name: 'Another shift' }));
    expect(now.hours.shifts[2]).toMatchObject({ weekdays: [6], role: 'fire warden', from: '09:00', to: '13:00' });
    await user.click(screen.getByRole('button', { name: 'Take out shift 1' }));
    expect(now.hours.weeks).toEqual([[0, 0, 0, 0, 240, 240, 0]]);
    await write(user, 'Break of shift 1', 'a while');
    expect(screen.getByRole('alert').textContent).toBe('a length of time, like 30 min');
    await user.click(screen.getByRole('button', { name: 'Hours without times' }));
    expect(now.hours).toMatchObject({ shifts: [], weeks: [[0, 0, 0, 0, 240, 240, 0]] });
  });

  it('of two weeks that take turns have shifts of their own', async () => {
    const shift = { week: 0, weekdays: [1], from: '07:00', to: '15:00', breakMinutes: 0, role: null } as const;
    const { now, user } = await hours({
      ...WEEK,
      weeks: [[480, 0, 0, 0, 0, 0, 0]],
      shifts: [{ ...shift, weekdays: [1] }],
    });
    await user.click(screen.getByRole('button', { name: 'Two weeks that take turns' }));
    const [, tuesday] = screen.getAllByRole('button', { name: 'Tuesday' });
    await user.click(tuesday as HTMLElement);
    expect(now.hours.weeks).toEqual([
      [480, 0, 0, 0, 0, 0, 0],
      [480, 480, 0, 0, 0, 0, 0],
    ]);
    await user.click(screen.getByRole('button', { name: 'One week only' }));
    expect(now.hours).toMatchObject({ weeks: [[480, 0, 0, 0, 0, 0, 0]], shifts: [{ week: 0 }] });
    expect(now.hours.shifts).toHaveLength(1);
  });
});

it('hours of single days are others or none, and those that are over stay', async () => {
  const over = { on: '2026-11-20', shifts: [] };
  const now = { changes: [over] as PersonInput['shiftChanges'] };
  function Form() {
    const [changes, setChanges] = useState(now.changes);
    now.changes = changes;
    return <SingleDays changes={changes} roles={[]} onChange={setChanges} />;
  }
  await show(<Form />);
  const user = userEvent.setup();
  expect(screen.getByText('1 day before today')).toBeTruthy();
  await user.click(screen.getByRole('button', { name: 'Other hours on a single day' }));
  await write(user, 'Day of other hours 1', '28 Nov 2026');
  expect(now.changes).toEqual([over, { on: '2026-11-28', shifts: [] }]);
  await user.selectOptions(screen.getByRole('combobox', { name: 'What is other on day 1' }), 'on');
  await write(user, 'End of day 1', '12:00');
  await user.click(screen.getByRole('button', { name: 'and again later that day' }));
  expect(now.changes[1]?.shifts).toMatchObject([
    { from: '09:00', to: '12:00' },
    { from: '12:00', to: '13:00' },
  ]);
  await user.click(screen.getByRole('button', { name: 'Take out stretch 2 of day 1' }));
  await user.click(screen.getByRole('button', { name: 'Take out day 1' }));
  expect(now.changes).toEqual([over]);
});

describe('the clock', () => {
  const CLOCKING: Clocking = {
    ...{ id: '01937000-0000-7000-8000-0000000000c1', personId: NADIA.id, on: '2026-11-24T06:52', off: null, by: null },
  };
  const path = `/people/${NADIA.id}/clock`;
  const shifts = [{ from: '07:00', to: '15:00' }];

  it('is clocked on and taken back by whoever it is, and not by a colleague', async () => {
    const on: Clocking[] = [];
    const answers = {
      '/clock/on': () => ({ on }),
      [`POST ${path}/on`]: () => {
        on.push(CLOCKING);
        return CLOCKING;
      },
      [`POST ${path}/take-back`]: () => {
        on.pop();
        return { on: null };
      },
    };
    const user = userEvent.setup();
    const { unmount } = await show(<ClockLine person={NADIA} shifts={shifts} />, { me: NADIA, answers });
    expect(await screen.findByText('not on')).toBeTruthy();
    expect(screen.queryByRole('textbox', { name: 'Clocked at' })).toBeNull();
    await user.click(screen.getByRole('button', { name: 'Clock on' }));
    expect(await screen.findByText('on since 06:52')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Take it back' }));
    expect(await screen.findByText('not on')).toBeTruthy();
    unmount();
    await show(<ClockLine person={INES} shifts={[]} />, { me: NADIA, answers });
    expect(await screen.findByText('not on')).toBeTruthy();
    expect(screen.queryByRole('button')).toBeNull();
  });

  it('takes an earlier time from a manager, and keeps it where nothing gets through', async () => {
    const answers = { '/clock/on': { on: [CLOCKING] }, [`POST ${path}/off`]: new TypeError('no net') };
    const user = userEvent.setup();
    await show(<ClockLine person={NADIA} shifts={shifts} />, { answers });
    await screen.findByText('on since 06:52');
    await write(user, 'Clocked at', '6:30');
    await user.click(screen.getByRole('button', { name: 'Clock off Nadia' }));
    await waitFor(() =>
      expect(screen.getByRole('button', { name: 'Clock off Nadia' })).toHaveProperty('disabled', false),
    );
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Clocked at' }).value).toBe('06:30');
    expect(screen.getByText('on since 06:52')).toBeTruthy();
  });
});
