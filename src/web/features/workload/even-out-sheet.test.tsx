import { act, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Evenable } from '../../../contract/index.ts';
import { problemOf } from '../../../contract/problems.ts';
import { evenOut } from '../../../core/index.ts';
import { askAgain, INES, NADIA, refusalOf, show } from '../../testing/show.tsx';
import { EvenOutSheet } from './even-out-sheet.tsx';
import type { EvenQuestion } from './even-out-worker.ts';

const KIT = { id: '01937000-0000-7000-8000-0000000000a3', name: 'Kit Sorrell' };
const idOf = (n: number) => `01937000-0000-7000-8000-0000000000e${n}`;
const taskOf = (n: number, title: string, of: Partial<Evenable['tasks'][number]> = {}): Evenable['tasks'][number] => ({
  ...{ id: idOf(n), version: n, personId: NADIA.id, minutes: 120, title, about: null, on: '2026-12-02' },
  ...{ mayGoTo: [KIT.id], had: null },
  ...of,
});
/** Nadia has 8 of 6 hours, Kit none of 6. */
const WEEK: Evenable = {
  people: [
    { id: NADIA.id, name: NADIA.name, capacity: 360, calls: 0 },
    { ...KIT, capacity: 360, calls: 45 },
  ],
  tasks: [
    taskOf(1, 'Winter covers', { about: 'Grey Wagtail' }),
    taskOf(2, 'Spill kits', { had: { [NADIA.id]: 5, [KIT.id]: 2 } }),
    taskOf(3, 'Lifts', { mayGoTo: [] }),
    taskOf(4, 'Bilge pumps', { mayGoTo: [] }),
  ],
};
const ASKED = '/workload/evenable?week=2026-11-30&role=dock+crew';

/** Works it out as the worker does, on the page. */
class WorkedOut {
  onmessage: ((event: { data: unknown }) => void) | null = null;
  onerror: (() => void) | null = null;
  isEnded = false;
  postMessage({ people, tasks }: EvenQuestion) {
    setTimeout(() => !this.isEnded && act(() => this.onmessage?.({ data: answerTo(people, tasks) })));
  }
  terminate() {
    this.isEnded = true;
  }
}
let answerTo: (people: EvenQuestion['people'], tasks: EvenQuestion['tasks']) => unknown;

beforeEach(() => {
  answerTo = (people, tasks) => ({ moves: evenOut(people, tasks) });
  vi.stubGlobal('Worker', WorkedOut);
});
afterEach(() => void vi.unstubAllGlobals());

async function shown(week: Evenable = WEEK, more: Readonly<Record<string, unknown>> = {}) {
  const onClose = vi.fn();
  await show(<EvenOutSheet group="dock crew" among={{ role: 'dock crew' }} week="2026-11-30" onClose={onClose} />, {
    me: INES,
    answers: { [ASKED]: week, ...more },
  });
  const sheet = within(await screen.findByRole('complementary', { name: 'Even out dock crew' }));
  return { sheet, onClose, user: userEvent.setup() };
}

describe('evening out a week', () => {
  it('says what the moves bring, why each may be, and how much either has before and after', async () => {
    const { sheet } = await shown();
    expect(
      await sheet.findByText('2 moves bring the week from 30 Nov from 133% for Nadia to 67% for anyone.'),
    ).toBeTruthy();
    expect(sheet.getByText('Beside their calls: Kit Sorrell 45 min.')).toBeTruthy();
    const [covers, kits] = sheet.getAllByRole('listitem');
    expect(covers?.textContent).toContain('both are there on that day');
    expect(covers?.textContent).toContain('Wed 2 Dec, Grey Wagtail');
    expect(covers?.textContent).toMatch(/Nadia Orme8 h? ?→ 6.*Kit Sorrell0 h? ?→ 2/);
    expect(kits?.textContent).toContain('turns in eight weeks: Nadia 5, Kit 2');
    expect(kits?.textContent).toMatch(/Nadia Orme6 h? ?→ 4.*Kit Sorrell2 h? ?→ 4/);
  });

  it('makes those that are taken alone, as it then says, also once news has it worked out again', async () => {
    const sent: unknown[] = [];
    let week = WEEK;
    const { sheet, user, onClose } = await shown(WEEK, {
      [ASKED]: () => week,
      'POST /workload/moves': (body: unknown) => {
        sent.push(body);
        return { moved: 1, changeId: idOf(9) };
      },
    });
    await user.click(await sheet.findByRole('button', { name: 'Leave the move of Winter covers' }));
    const one = '1 move brings the week from 30 Nov from 133% for Nadia to 100% for anyone.';
    expect(sheet.getByText(one)).toBeTruthy();
    // What is left out changes nothing for those below it.
    expect(sheet.getAllByRole('listitem')[1]?.textContent).toMatch(/Nadia Orme8 h? ?→ 6/);
    week = { ...WEEK, tasks: WEEK.tasks.map((task) => ({ ...task, version: task.version + 10 })) };
    await askAgain();
    await waitFor(() => expect(sheet.getByText(one)).toBeTruthy());
    await user.click(sheet.getByRole('button', { name: 'Leave the move of Spill kits' }));
    expect(sheet.getByText('No move is taken: the week from 30 Nov stays at 133% for Nadia.')).toBeTruthy();
    expect(sheet.getByRole('button', { name: 'Make 0 moves' }).hasAttribute('disabled')).toBe(true);
    await user.click(sheet.getByRole('button', { name: 'Take the move of Spill kits' }));
    await user.click(sheet.getByRole('button', { name: 'Make 1 move' }));
    await waitFor(() => expect(onClose).toHaveBeenCalled());
    expect(sent).toEqual([{ moves: [{ id: idOf(2), version: 12, to: KIT.id }] }]);
  });

  it('that is refused says why, stays open, and is worked out anew', async () => {
    let asked = 0;
    const problem = problemOf('changed-meanwhile', 'Spill kits was changed by someone else meanwhile.');
    const { sheet, user, onClose } = await shown(WEEK, {
      [ASKED]: () => {
        asked += 1;
        return WEEK;
      },
      'POST /workload/moves': () => refusalOf(problem),
    });
    await user.click(await sheet.findByRole('button', { name: 'Make 2 moves' }));
    await waitFor(() => expect(asked).toBe(2));
    expect(onClose).not.toHaveBeenCalled();
    expect(sheet.getByRole('button', { name: 'Make 2 moves' }).hasAttribute('disabled')).toBe(false);
  });

  it('says where there is nothing to move, and where it could not be worked out', async () => {
    const even = { ...WEEK, tasks: WEEK.tasks.slice(2) };
    const { sheet } = await shown(even);
    expect(
      await sheet.findByText('Nothing to move: the week from 30 Nov is as even as it can be among them.'),
    ).toBeTruthy();
    expect(sheet.queryByRole('button', { name: /^Make/ })).toBeNull();
  });

  it('says in words where it could not be worked out', async () => {
    answerTo = () => ({ problem: 'A task is of nobody who is among them.' });
    const { sheet } = await shown();
    expect(await sheet.findByText('A task is of nobody who is among them.')).toBeTruthy();
  });
});
