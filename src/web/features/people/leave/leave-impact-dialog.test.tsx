import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import type { Covered, LeaveImpact, Person } from '../../../../contract/index.ts';
import type { LeaveCover } from '../../../../core/index.ts';
import { INES, NADIA, show } from '../../../testing/show.tsx';
import { LeaveImpactDialog } from './leave-impact-dialog.tsx';

const KIT: Person = { ...NADIA, id: '01937000-0000-7000-8000-0000000000a3', name: 'Kit Sorrell' };
const named = ({ id, name }: Person) => ({ id, name });
const work = (on: string, of: Partial<Covered> = {}): Covered => ({
  ...{ taskId: on, scheduleId: 's', work: 'Harbour round', about: 'Pontoon A', on, minutes: 45, state: 'open' },
  ...{ fate: 'goes', how: 'turns', to: named(KIT), why: 'next in turn', ...of },
});

/** What becomes of some work, with the counts that go with it. */
function impactOf(items: readonly Covered[], of: Partial<LeaveImpact> = {}): LeaveImpact {
  const count = (fits: (one: Covered) => boolean) => items.filter(fits).length;
  const fate = (which: Covered['fate']) => count((one) => one.fate === which);
  return {
    ...{ days: 4, holidays: 0, items: [...items], exchanges: [], deputy: null, peers: [], receivers: [] },
    counts: {
      ...{ goes: fate('goes'), offered: fate('offered'), nobody: fate('nobody') },
      ...{ dropped: fate('dropped'), stays: fate('stays') },
      notMade: count(({ state }) => state === 'foreseen'),
      minutes: items.reduce((sum, { minutes }) => sum + minutes, 0),
      turns: count(({ how, fate: of }) => how === 'turns' && of !== 'stays'),
      name: count(({ how, fate: of }) => how === 'name' && of !== 'stays'),
    },
    ...of,
  };
}

async function dialog(impact: LeaveImpact, cover: { of: string; chosen: LeaveCover | null } | null = null) {
  const [onSave, onClose, onChoose] = [vi.fn(), vi.fn(), vi.fn<(cover: LeaveCover | null) => void>()];
  await show(
    <LeaveImpactDialog
      {...{ title: 'Nadia Orme is away from Tue 1 to Fri 4 Dec', span: '4 working days', impact, onSave, onClose }}
      {...{ words: 'Give the leave', busy: false, cover: cover && { ...cover, onChoose } }}
    />,
    { workspace: { people: [INES, NADIA, KIT] } },
  );
  const of = within(screen.getByRole('dialog', { name: 'Nadia Orme is away from Tue 1 to Fri 4 Dec' }));
  return { of, onSave, onClose, onChoose, user: userEvent.setup() };
}

describe('what somebody’s leave comes to', () => {
  it('is told whole at the top, and what saving does on its button, which has the focus', async () => {
    const items = [
      work('2026-12-01'),
      work('2026-12-02', { state: 'foreseen', taskId: null }),
      work('2026-12-03', { how: 'name', fate: 'nobody', to: null, why: 'nobody of the role is there' }),
    ];
    const { of, onSave, user } = await dialog(impactOf(items));
    expect(
      of.getByText('4 working days. 3 tasks fall in them, 2 h 15: 2 made, 1 not made yet. Nothing is saved yet.'),
    ).toBeTruthy();
    const button = of.getByRole('button', { name: 'Give the leave, 2 tasks change hands, 1 is nobody’s' });
    expect(document.activeElement).toBe(button);
    await user.keyboard('{Enter}');
    expect(onSave).toHaveBeenCalledTimes(1);
  });

  it('is nothing where no work falls on those days', async () => {
    const { of } = await dialog(impactOf([], { days: 1 }));
    expect(of.getByText('4 working days. Nothing is saved yet.')).toBeTruthy();
    expect(of.getByText('No work falls on these days: nothing changes hands.')).toBeTruthy();
    expect(of.getByText('Nobody gets more to do.')).toBeTruthy();
    expect(of.getByRole('button', { name: 'Give the leave' })).toBeTruthy();
  });

  it('puts the same work on several days in one line, by how whoever is away has it, and says who gets it', async () => {
    const items = [
      ...['2026-12-01', '2026-12-02', '2026-12-04'].map((on) => work(on)),
      work('2026-12-03', { how: 'name', work: 'Fuel dip', about: null, why: 'said by the work' }),
      work('2026-12-03', { how: 'other', work: 'Life-ring count', fate: 'offered', to: null, why: 'two others may' }),
      work('2026-12-02', { how: 'other', work: 'Briefing', fate: 'dropped', to: null, why: 'each has one' }),
      work('2026-12-01', { work: 'Mooring check', fate: 'stays', to: null, state: 'underWay', why: 'begun' }),
    ];
    const { of } = await dialog(impactOf(items));
    expect(of.getByText('Tue 1 to Wed 2 Dec, Fri 4 Dec')).toBeTruthy();
    expect(of.getAllByText('Harbour round').length).toBe(1);
    expect(of.getAllByText('Kit Sorrell').length).toBe(2);
    for (const words of ['to take', 'not done', 'begun', 'Fuel dip']) expect(of.getByText(words)).toBeTruthy();
    for (const band of ['by turn', 'by name', 'as one of several', 'stays'])
      expect(of.getByRole('heading', { name: new RegExp(`^\\d+ ?${band}$`) })).toBeTruthy();
  });

  it('shows seven lines of a kind, the others where they are asked for, and how many are not told', async () => {
    const items = Array.from({ length: 9 }, (_, i) => work('2026-12-01', { work: `Work ${i + 1}`, taskId: `${i}` }));
    const impact = impactOf(items);
    const { of, user } = await dialog({
      ...impact,
      counts: { ...impact.counts, goes: 12, turns: 12 },
    });
    expect(of.queryByText('Work 8')).toBeNull();
    expect(of.getByText(/^and 2 more/)).toBeTruthy();
    await user.click(of.getByRole('button', { name: 'Show all' }));
    expect(of.getByText('Work 9')).toBeTruthy();
    expect(of.getByText('3 further ones are not told one by one.')).toBeTruthy();
  });

  it('lets somebody be chosen for the turns, and takes the choice back where it is as the work says', async () => {
    const impact = impactOf([work('2026-12-01')], {
      deputy: named(INES),
      peers: [{ person: named(KIT), minutes: 600, capacity: 2250 }],
    });
    const { of, onChoose, user } = await dialog(impact, { of: NADIA.id, chosen: null });
    await user.click(of.getByRole('button', { name: /as the work says/ }));
    const kit = await screen.findByText('10 of 38 h in those weeks');
    expect(screen.getByText('takes over as a rule')).toBeTruthy();
    await user.click(kit);
    await waitFor(() => expect(onChoose).toHaveBeenLastCalledWith({ turns: { personId: KIT.id }, name: null }));
  });

  it('takes back what was chosen, where nothing else is', async () => {
    const { of, onChoose, user } = await dialog(impactOf([work('2026-12-01')]), {
      of: NADIA.id,
      chosen: { turns: 'exchange', name: null },
    });
    await user.click(of.getByRole('button', { name: /the next, in exchange/ }));
    await user.click(await screen.findByText('as the work says'));
    await waitFor(() => expect(onChoose).toHaveBeenLastCalledWith(null));
  });

  it('tells the turns that are exchanged, by name, and those that nobody can take for theirs', async () => {
    const turn = (first: string, last = first, dates = 1) => ({ first, last, dates });
    const exchange = { scheduleId: 's', work: 'Harbour round', about: null };
    const { of } = await dialog(
      impactOf([work('2026-12-01')], {
        exchanges: [
          {
            ...{ ...exchange, missed: turn('2026-12-01') },
            taken: { ...turn('2026-12-07', '2026-12-11', 5), person: named(KIT) },
          },
          { ...exchange, missed: turn('2026-12-04'), taken: null },
        ],
      }),
      { of: NADIA.id, chosen: { turns: 'exchange', name: null } },
    );
    expect(of.getByText('Kit has Tue 1 Dec, Nadia has Mon 7 to Fri 11 Dec')).toBeTruthy();
    expect(of.getByText('Fri 4 Dec: no later turn suits both, so the next who is there takes it')).toBeTruthy();
  });

  it('says what it makes of the weeks of those who get it', async () => {
    const weeks = [
      { monday: '2026-11-30', before: 2160, after: 2340, capacity: 2250 },
      { monday: '2026-12-07', before: 600, after: 645, capacity: 2250 },
    ];
    const { of } = await dialog(impactOf([work('2026-12-01')], { receivers: [{ person: named(KIT), weeks }] }));
    expect(of.getByText('30 Nov')).toBeTruthy();
    const over = of.getByText('39');
    expect(over.className).toContain('font-bold');
    expect(over.parentElement?.textContent).toBe('36 → 39 of 38');
    expect(of.getByText(/^Hours of the week/)).toBeTruthy();
  });
});
