import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { Toaster } from 'sonner';
import { describe, expect, it, vi } from 'vitest';
import type { WallChange, WallDate, WallReach } from '../../../contract/index.ts';
import { impactOf } from '../../testing/impact.ts';
import { INES, NADIA, show, write } from '../../testing/show.tsx';
import { lineOf } from '../../testing/tasks.ts';
import type { Marks } from './api.ts';
import { WallFoot } from './wall-foot.tsx';

const SCHEDULE = '01937000-0000-7000-8000-000000000e01';
const TASK = lineOf({ version: 4, title: 'Pontoon D inspection', dueOn: '2026-12-01' });
const DATE: WallDate = {
  ...{ scheduleId: SCHEDULE, nominalDate: '2027-01-05', stepKey: 's', head: 'h', version: 9, assignee: null },
  ...{ title: 'Pontoon D inspection', client: null, asset: null, on: '2027-01-05', dueOn: '2027-01-05' },
  ...{ startTime: null, dueTime: null, estimateMinutes: 30 },
};
const marksOf = (
  tasks: Marks['tasks'],
  dates: Marks['dates'],
  count = { tasks: tasks.length, dates: dates.length },
) => ({
  ...{ tasks, dates, count },
});
const IMPACT = impactOf({ changed: 1 });

/** The foot of a chart, with how far a change goes held as the page holds it; what was looked at and saved. */
async function foot(
  marks: Marks | undefined,
  { mayPlan = true, changed = 1, onShow = null as (() => void) | null } = {},
) {
  const asked: [string, WallChange][] = [];
  const onClear = vi.fn();
  const noting = (what: string, answer: unknown) => (body: WallChange) => {
    asked.push([what, body]);
    return answer;
  };
  function Held() {
    const [reach, setReach] = useState<WallReach>('these');
    return <WallFoot {...{ marks, reach, mayPlan, onShow, onClear }} onReach={setReach} />;
  }
  await show(
    <>
      <Held />
      <Toaster />
    </>,
    {
      answers: {
        'POST /wallchart/changes/impact': noting('look', IMPACT),
        'POST /wallchart/changes': noting('save', { changed, schedules: 1, changeId: null }),
      },
    },
  );
  return {
    asked,
    onClear,
    user: userEvent.setup(),
    of: within(screen.getByRole('region', { name: 'The chosen marks' })),
  };
}
const look = (user: ReturnType<typeof userEvent.setup>) =>
  user.click(screen.getByRole('button', { name: 'Look at what it changes' }));
const save = async (user: ReturnType<typeof userEvent.setup>, name = /1 task/) =>
  user.click(within(await screen.findByRole('dialog')).getByRole('button', { name }));

describe('the foot of the wallchart', () => {
  it.each([
    ['what is not known yet', undefined, 'Chosen'],
    ['nothing', marksOf([], []), 'Nothing there'],
    ['more than can be changed at once', marksOf([TASK], [], { tasks: 2418, dates: 0 }), '2,418 chosen'],
  ])('changes %s not at all', async (_, marks, words) => {
    const { of, onClear, user } = await foot(marks);
    expect(of.getByText(words)).toBeTruthy();
    expect(of.queryByRole('button', { name: /…$/ })).toBeNull();
    await user.click(of.getByRole('button', { name: 'Choose none' }));
    expect(onClear).toHaveBeenCalledTimes(1);
  });

  it('says how many may be changed at once', async () => {
    const { of } = await foot(marksOf([TASK], [], { tasks: 2418, dates: 0 }));
    expect(of.getByRole('status').textContent).toBe('More than 500: choose fewer to change them.');
  });

  it('shows what is chosen to whoever may not plan, and changes nothing for them', async () => {
    const onShow = vi.fn();
    const { of, user } = await foot(marksOf([TASK], []), { mayPlan: false, onShow });
    expect(of.getByText('Pontoon D inspection, Tue 1 Dec')).toBeTruthy();
    expect(of.queryByRole('group')).toBeNull();
    await user.click(of.getByRole('button', { name: 'Show' }));
    expect(onShow).toHaveBeenCalledTimes(1);
  });

  it('moves them by days, earlier or later, and asks with what was seen of each', async () => {
    const { asked, onClear, user, of } = await foot(marksOf([TASK], [DATE]), { changed: 0 });
    await user.click(of.getByRole('button', { name: 'Move …' }));
    write('By how many days', '3');
    await user.selectOptions(screen.getByLabelText('Later or earlier'), 'earlier');
    await look(user);
    await save(user);
    const body = {
      ...{ reach: 'these', deed: { kind: 'move', days: -3 }, tasks: [{ id: TASK.id, version: 4 }] },
      dates: [{ scheduleId: SCHEDULE, nominalDate: '2027-01-05', stepKey: 's', head: 'h', version: 9 }],
    };
    await waitFor(() =>
      expect(asked).toEqual([
        ['look', body],
        ['save', body],
      ]),
    );
    expect(
      await screen.findByText(
        'Pontoon D inspection, Tue 1 Dec and Tue 5 Jan 2027: moved 3 days earlier. 1 task stays as it is.',
      ),
    ).toBeTruthy();
    expect(onClear).toHaveBeenCalledTimes(1);
  });

  it('gives them to somebody, whoever their schedules mean otherwise where it goes further', async () => {
    const { asked, user, of } = await foot(marksOf([TASK], []));
    await user.click(of.getByRole('radio', { name: 'these and later' }));
    await user.click(of.getByRole('button', { name: 'Give to …' }));
    expect(screen.getByText(/, whoever their schedules mean otherwise/)).toBeTruthy();
    expect(screen.getByLabelText('Who does them')).toHaveProperty('value', INES.id);
    await user.selectOptions(screen.getByLabelText('Who does them'), NADIA.name);
    await look(user);
    expect(
      within(await screen.findByRole('dialog')).getByText(
        /Pontoon D inspection, Tue 1 Dec, and all later ones: given to Nadia Orme/,
      ),
    ).toBeTruthy();
    expect(asked[0]?.[1]).toMatchObject({ reach: 'later', deed: { kind: 'give', personId: NADIA.id } });
  });

  it('skips tasks with why alone, and keeps what is written while something else is looked at', async () => {
    const { asked, user, of } = await foot(marksOf([TASK], []));
    await user.click(of.getByRole('button', { name: 'Skip …' }));
    expect(of.getByRole('alert').textContent).toBe('Say why.');
    await user.type(screen.getByLabelText('Why they are not done'), ' storm ');
    await user.click(of.getByRole('button', { name: 'Move …' }));
    await user.click(of.getByRole('button', { name: 'Skip …' }));
    await look(user);
    expect(asked[0]?.[1]).toMatchObject({ reach: 'these', deed: { kind: 'skip', reason: 'storm' } });
  });

  it('pauses the series where it goes further, and leaves dates out that are not made without asking why', async () => {
    const { asked, user, of } = await foot(marksOf([], [DATE]));
    await user.click(of.getByRole('button', { name: 'Skip …' }));
    expect(screen.getByText('Leave them out: no task is made of them.')).toBeTruthy();
    await look(user);
    await waitFor(() => expect(asked[0]?.[1].deed).toEqual({ kind: 'skip', reason: '' }));
    await user.click(within(await screen.findByRole('dialog')).getByRole('button', { name: 'Close' }));
    await user.click(of.getByRole('radio', { name: 'the series' }));
    expect(of.getByRole('button', { name: 'Pause …' })).toBeTruthy();
    await user.type(screen.getByLabelText('Why they are not done'), 'ice');
    await look(user);
    await waitFor(() =>
      expect(asked[1]?.[1]).toMatchObject({ reach: 'series', deed: { kind: 'skip', reason: 'ice' } }),
    );
  });
});
