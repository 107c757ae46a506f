import { cleanup, screen, within } from '@testing-library/react';
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
        place="new"
        problem={null}
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

  it('takes a list of days as it is typed or pasted, and nothing of one that can’t be read until it can', async () => {
    const { now, user } = await shown(givenTo(NADIA.id));
    await user.click(screen.getByRole('radio', { name: 'by a list of days' }));
    expect(now.rule).toMatchObject({ list: [{ from: '2026-11-23', to: '2026-11-29', personId: NADIA.id }] });
    const text = screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'Who has which days' });
    expect(text.value).toBe('Mon 23 Nov 2026 to 29 Nov\tNadia');
    await user.clear(text);
    await user.click(text);
    await user.paste('30 Nov\tKit\n7 Dec\tNadia\n14 Dec\tKitt');
    expect(screen.getByRole('alert').textContent).toContain('Line 3: Nobody here is called “Kitt”.');
    expect(text.dataset['unread']).toBe('true');
    expect(now.rule).toMatchObject({ list: [{ personId: NADIA.id }] });
    await user.clear(text);
    await user.paste('30 Nov\tKit\n7 Dec\tNadia\n14 Dec\tKit');
    expect(screen.queryByRole('alert')).toBeNull();
    expect(now.rule).toMatchObject({ list: [{ from: '2026-11-30', to: '2026-11-30', personId: KIT.id }, {}, {}] });
    await user.selectOptions(screen.getByRole('combobox', { name: /What a line/ }), 'the week from it');
    await user.selectOptions(screen.getByRole('combobox', { name: /After the last day/ }), 'turns go on');
    expect(now.rule).toMatchObject({
      list: [{ to: '2026-12-06' }, { to: '2026-12-13' }, { to: '2026-12-20' }],
      goesOn: { length: { per: 'week', on: 1 }, rosters: [{ from: '2026-12-21', people: [NADIA.id, KIT.id] }] },
    });
    expect(screen.getByText('3 turns of 2 people, Mon 30 Nov to Sun 20 Dec')).toBeTruthy();
  });

  it('keeps lines of weeks that are over, and what is typed wrong over a detour; back to the list as it was', async () => {
    const line = (from: string, to: string, personId: string) => ({ from, to, personId });
    const past = line('2026-11-09', '2026-11-15', INES.id);
    const list = [past, line('2026-11-23', '2026-11-29', NADIA.id)];
    const rule: AssignmentRule = { v: 1, kind: 'listed', list, goesOn: null, cover: 'next' };
    const { now, user } = await shown(rule);
    const text = () => screen.getByRole<HTMLTextAreaElement>('textbox', { name: 'Who has which days' });
    expect(text().value).toBe('Mon 23 Nov 2026 to 29 Nov\tNadia');
    expect(screen.getByText(/1 line of weeks that are over is kept\.$/)).toBeTruthy();
    expect(screen.getByText(/^The list ends on Sun 29 Nov/)).toBeTruthy();
    await user.clear(text());
    await user.paste('30 Nov Kit');
    expect(now.rule).toMatchObject({ list: [past, { from: '2026-11-30', personId: KIT.id }] });
    await user.clear(text());
    await user.paste('10 Nov 2026 Kit');
    expect(screen.getByRole('alert').textContent).toContain('2026-11-10 lies among the days that are over');
    const { rule: kept } = now;
    cleanup();
    await shown(kept);
    expect(text().value).toBe('10 Nov 2026 Kit');
    await userEvent.setup().click(screen.getByRole('button', { name: 'Back to the list as it was' }));
    expect(text().value).toBe('Mon 30 Nov 2026\tKit');
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('gives each of several one of their own, and says where that can’t be', async () => {
    const { now, user } = await shown({ v: 1, kind: 'anyOf', group: { of: 'role', role: 'Dockhand' } });
    await user.click(screen.getByRole('radio', { name: 'each of several' }));
    expect(now.rule).toEqual({ v: 1, kind: 'eachOf', group: { of: 'role', role: 'Dockhand' }, daysOffToo: true });
    await user.selectOptions(screen.getByRole('combobox', { name: /no hours/ }), 'not on days off');
    await user.click(screen.getByRole('button', { name: /^Of whom/ }));
    await user.click(screen.getByRole('option', { name: 'everyone' }));
    expect(now.rule).toEqual({ v: 1, kind: 'eachOf', group: { of: 'everyone' }, daysOffToo: false });
  });

  it('lets a date that is skipped pass its turn on, where turns are taken each time', async () => {
    const rosters = [{ from: '2026-11-02', people: [INES.id, NADIA.id] }];
    const turns = { length: { per: 'occurrence' } as const, rosters, swaps: [] };
    const { now, user } = await shown({ v: 1, kind: 'inTurn', cover: 'next', turns });
    const skipped = () => screen.getByRole('combobox', { name: 'The turn of a date that is skipped' });
    await user.selectOptions(skipped(), 'passes its turn on');
    expect(now.rule).toMatchObject({ turns: { length: { per: 'occurrence', skipped: 'passes on' } } });
    await user.selectOptions(skipped(), 'uses up its turn');
    expect(now.rule).toMatchObject({ turns: { length: { per: 'occurrence' } } });
    expect(JSON.stringify(now.rule)).not.toContain('passes on');
  });
});
