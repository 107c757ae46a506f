import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { describe, expect, it } from 'vitest';
import type { Person } from '../../../../contract/index.ts';
import { type AssignmentRule, givenTo, PLAIN_TIMING, parsePhrase } from '../../../../core/index.ts';
import { INES, NADIA, show } from '../../../testing/show.tsx';
import type { BenchDraft } from './bench-draft.ts';
import { WhoPart } from './who-part.tsx';

const KIT: Person = { ...NADIA, id: '01937000-0000-7000-8000-0000000000a3', name: 'Kit Sorrell' };
const PLACE = { people: [INES, NADIA, KIT], roles: ['Dockhand', 'Marina manager'] };
const draftWith = (assignment: AssignmentRule): BenchDraft => ({
  ...{ version: 0, templateId: '', clientId: null, assetId: null, assignment },
  recurrence: parsePhrase('every weekday', { start: '2026-11-02' }),
  timing: PLAIN_TIMING,
  ...{ overlap: { kind: 'add' }, pauses: [], exceptions: [], revisions: [] },
});

/** The part with what it makes of its rule. */
async function shown(assignment: AssignmentRule) {
  const now: { rule: AssignmentRule } = { rule: assignment };
  function Bench() {
    const [draft, setDraft] = useState(draftWith(assignment));
    now.rule = draft.assignment;
    return (
      <WhoPart
        draft={draft}
        onChange={setDraft}
        datesBetween={(after, upTo) => upTo - after}
        nextOf={new Map()}
        chosenId={null}
        onChosen={() => undefined}
      />
    );
  }
  await show(<Bench />, { workspace: PLACE });
  return { now, user: userEvent.setup() };
}

describe('who does it on the bench', () => {
  it('goes from one person to turns and keeps who was named', async () => {
    const { now, user } = await shown(givenTo(NADIA.id));
    await user.click(screen.getByRole('radio', { name: 'in turn' }));
    expect(now.rule).toMatchObject({ kind: 'inTurn', cover: 'next', turns: { rosters: [{ people: [NADIA.id] }] } });
    await user.click(screen.getByRole('button', { name: /^Add a person to the turns/ }));
    await user.click(screen.getByRole('option', { name: /Kit Sorrell/ }));
    expect(now.rule).toMatchObject({ turns: { rosters: [{ from: '2026-11-24', people: [NADIA.id, KIT.id] }] } });
    await user.selectOptions(screen.getByRole('combobox', { name: 'Turns move on' }), 'each month');
    await user.selectOptions(screen.getByRole('combobox', { name: 'Who covers' }), 'nobody: a planner sees to it');
    expect(now.rule).toMatchObject({ cover: 'nobody', turns: { length: { per: 'month' } } });
    await user.click(screen.getByRole('radio', { name: 'nobody yet' }));
    expect(now.rule).toEqual({ v: 1, kind: 'nobody' });
  });

  it('leaves turns that have been, and goes on where they stand', async () => {
    const turns = { length: { per: 'week', on: 1 } as const, swaps: [] };
    const rosters = [{ from: '2026-11-02', people: [INES.id, NADIA.id, KIT.id] }];
    const { now, user } = await shown({ v: 1, kind: 'inTurn', cover: 'next', turns: { ...turns, rosters } });
    const order = screen.getByRole('list', { name: 'The order of turns' });
    await user.click(within(order).getByRole('button', { name: 'Take Nadia Orme out of the turns' }));
    // The week of 23 November is Ines's, the fourth of three.
    expect(now.rule).toMatchObject({
      turns: { rosters: [rosters[0], { from: '2026-11-24', people: [INES.id, KIT.id] }] },
    });
  });

  it('names a group by its role, or people one by one', async () => {
    const { now, user } = await shown(givenTo(null));
    await user.click(screen.getByRole('radio', { name: 'any one of several' }));
    expect(now.rule).toMatchObject({ kind: 'anyOf', group: { of: 'role', role: 'Dockhand' } });
    await user.click(screen.getByRole('button', { name: /^Of whom/ }));
    await user.click(screen.getByRole('option', { name: 'these people' }));
    expect(now.rule).toMatchObject({ group: { of: 'people', ids: [NADIA.id, KIT.id] } });
    await user.click(screen.getByRole('button', { name: 'Without Nadia Orme' }));
    expect(now.rule).toMatchObject({ group: { ids: [KIT.id] } });
    expect(screen.queryByRole('radio', { name: 'the client’s usual person' })).toBeNull();
  });

  it('refuses a swap of a turn with itself', async () => {
    const rosters = [{ from: '2026-11-02', people: [INES.id] }];
    const turns = { length: { per: 'week', on: 1 } as const, swaps: [], rosters };
    const { user } = await shown({ v: 1, kind: 'inTurn', cover: 'next', turns });
    await user.click(screen.getByRole('button', { name: 'Swap two turns' }));
    expect(screen.getByRole('button', { name: 'Swap' })).toHaveProperty('disabled', true);
    expect(screen.getByText(/Both are Ines’s/)).toBeTruthy();
  });
});
