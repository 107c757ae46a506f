import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useLocation } from 'react-router';
import { describe, expect, it, vi } from 'vitest';
import { MOST_WHOLE, type SchedulePatch, type WholeSchedule } from '../../../../contract/index.ts';
import { givenTo } from '../../../../core/index.ts';
import { listAnswers, scheduleLine, wholeSchedule } from '../../../testing/schedules.ts';
import { INES, show } from '../../../testing/show.tsx';
import type { ChosenClients } from '../../plans/put-on/put-on-draft.ts';
import WorksheetPage from './worksheet-page.tsx';

const MANY = Array.from({ length: 100 }, (_, i) => scheduleLine(i + 1));
const numberOf = (id: string) => MANY.findIndex((line) => line.id === id) + 1;
const PLAN = {
  ...{ id: '01937000-0000-7000-8000-0000000000f1', name: 'Resident berth', version: 1, isArchived: false },
  ...{ rollsOn: 'itself', items: ['Mooring lines'], clients: 0, tasksEach: 12, minutesEach: 240 },
};
const MERIDIAN = { id: '01937000-0000-7000-8000-0000000000c1', name: 'Meridian Charters' };
const OSTREL = { id: '01937000-0000-7000-8000-0000000000c2', name: 'Ostrel & Sons' };
const QUIET = {
  figures: { added: 0, changed: 0, removed: 0, keptByHand: 0, keptShowing: 0, keptBegun: 0, keptLacking: 0 },
  items: [],
};

/** A server that keeps what it was asked and sent; what is gone it does not tell. */
function server(gone: readonly number[] = [], ofClient: Readonly<Record<number, Partial<WholeSchedule>>> = {}) {
  const asked: string[][] = [];
  const sent: SchedulePatch[][] = [];
  return {
    asked,
    sent,
    answers: {
      ...listAnswers('order=next', MANY),
      ...listAnswers('order=next&find=round+99', MANY.slice(98, 99), 100),
      '/plans': { plans: [PLAN] },
      'POST /schedules/whole': ({ ids }: { ids: string[] }) => {
        asked.push(ids);
        const there = ids.map(numberOf).filter((n) => !gone.includes(n));
        return { schedules: there.map((n) => wholeSchedule(n, ofClient[n])) };
      },
      'POST /schedules/changes/impact': { ...QUIET, years: [], datesBefore: 52, datesAfter: 52 },
      'POST /schedules/changes': ({ changes }: { changes: SchedulePatch[] }) => {
        sent.push(changes);
        return {
          tasks: { made: 0, changed: 0, removed: 0, kept: 0 },
          changeId: '01937000-0000-7000-8000-0000000000aa',
        };
      },
    },
  };
}
const find = (words: string) =>
  fireEvent.change(screen.getByRole('searchbox', { name: 'Find schedules' }), { target: { value: words } });
const line = (n: number) => screen.findByRole('row', { name: new RegExp(`^Round ${n} `) });
const look = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Look at what it changes' });

/** Types into a cell of a line: its first, or its last. */
async function type(n: number, text: string, place: 0 | -1) {
  const cell = within(await line(n))
    .getAllByRole('gridcell')
    .at(place);
  fireEvent.pointerDown(cell as HTMLElement);
  fireEvent.pointerUp(document);
  screen.getByRole('grid').focus();
  await userEvent.setup().keyboard(`${text}{Enter}`);
}
/** Where it leads, with the clients who are taken along. */
function Where() {
  const { pathname, search, state } = useLocation();
  const { clients = [] } = (state ?? {}) as Partial<ChosenClients>;
  return <p>{`${pathname}${search}: ${clients.map(({ name }) => name).join(', ')}`}</p>;
}
/** Gives the schedule to the manager. */
const give = (n: number) => type(n, INES.name, 0);

describe('the worksheet of many schedules', () => {
  it('comes in parts, and counts what is here', async () => {
    const { asked, answers } = server();
    await show(<WorksheetPage />, { path: '/schedules/worksheet', answers });
    await line(1);
    await waitFor(() => expect(asked.map((ids) => ids.length)).toEqual([MOST_WHOLE, MOST_WHOLE, 20]));
    expect(await screen.findByText('100')).toBeTruthy();
  });

  it('saves what was typed into lines that do not fit any more, and fetches nothing twice', async () => {
    const { asked, sent, answers } = server();
    await show(<WorksheetPage />, { path: '/schedules/worksheet', answers });
    await give(2);
    await waitFor(() => expect(asked).toHaveLength(3));
    find('round 99');
    await screen.findByText('1', { selector: 'span' });
    expect(screen.queryByRole('row', { name: /^Round 2 / })).toBe(null);
    await give(99);
    expect(screen.getByText('2 cells in 2 schedules')).toBeTruthy();
    await userEvent.setup().click(look());
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]?.map(({ id, set }) => [numberOf(id), set])).toEqual([
      [2, { assignment: givenTo(INES.id) }],
      [99, { assignment: givenTo(INES.id) }],
    ]);
    expect(asked).toHaveLength(3);
  });

  it('takes up after a reload what was typed, also of lines that do not fit', async () => {
    const first = server();
    const page = await show(<WorksheetPage />, { path: '/schedules/worksheet', answers: first.answers });
    await give(2);
    page.unmount();
    vi.restoreAllMocks();
    const { asked, sent, answers } = server();
    await show(<WorksheetPage />, { path: '/schedules/worksheet?find=round+99', answers });
    await line(99);
    expect(await screen.findByText('1 cell in 1 schedule')).toBeTruthy();
    await waitFor(() => expect(look().disabled).toBe(false));
    await userEvent.setup().click(look());
    await waitFor(() => expect(sent[0]?.map(({ id }) => numberOf(id))).toEqual([2]));
    expect(asked.flat().map(numberOf)).toEqual([99, 2]);
  });

  it('says of what was typed that its schedule is gone', async () => {
    const first = server();
    const page = await show(<WorksheetPage />, { path: '/schedules/worksheet', answers: first.answers });
    await give(2);
    page.unmount();
    vi.restoreAllMocks();
    const { answers } = server([2]);
    await show(<WorksheetPage />, { path: '/schedules/worksheet?find=round+99', answers });
    expect(await screen.findByText('1 cell in 1 schedule, 1 schedule is gone')).toBeTruthy();
  });

  it('puts clients on a plan on the page for that, once each, and leaves that to do when the rest is saved', async () => {
    const { sent, answers } = server([], {
      1: { client: MERIDIAN, plans: [] },
      2: { client: MERIDIAN, plans: [] },
      3: { client: OSTREL, plans: [] },
      4: { client: OSTREL, plans: [{ id: PLAN.id, name: PLAN.name }] },
    });
    await show(
      <>
        <WorksheetPage />
        <Where />
      </>,
      { path: '/schedules/worksheet', answers },
    );
    expect(
      within(await line(4))
        .getAllByRole('gridcell')
        .at(-1)?.textContent,
    ).toBe('Resident berth');
    for (const n of [1, 2, 3]) await type(n, 'resident berth', -1);
    await type(5, 'Resident berth', -1);
    expect(
      within(await line(5))
        .getAllByRole('gridcell')
        .at(-1)
        ?.getAttribute('aria-invalid'),
    ).toBe('true');
    const put = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Put 2 clients on Resident berth …' });
    expect(put().disabled).toBe(true);
    await type(5, 'x', -1);
    screen.getByRole('grid').focus();
    await userEvent.setup().keyboard('{ArrowUp}{Delete}');
    await waitFor(() => expect(put().disabled).toBe(false));
    expect(screen.queryByRole('button', { name: 'Look at what it changes' })).toBe(null);
    await give(6);
    await userEvent.setup().click(look());
    await waitFor(() => expect(sent[0]?.map(({ id }) => numberOf(id))).toEqual([6]));
    expect(await screen.findByText('3 cells in 3 schedules')).toBeTruthy();
    await userEvent.setup().click(put());
    expect(screen.getByText(`/plans/put-on?plan=${PLAN.id}: Meridian Charters, Ostrel & Sons`)).toBeTruthy();
  });

  it('says that the rest could not be fetched, and fetches it again', async () => {
    const { asked, answers } = server();
    const whole = answers['POST /schedules/whole'];
    const limited = (body: { ids: string[] }) => {
      if (asked.length === 1) throw new Error('no way');
      return whole(body);
    };
    await show(<WorksheetPage />, {
      path: '/schedules/worksheet',
      answers: { ...answers, 'POST /schedules/whole': limited },
    });
    const again = await screen.findByRole('button', { name: /The server does not answer.* Again/ });
    expect(screen.getByText(/^40 of 100 are here/)).toBeTruthy();
    asked.push([]);
    await userEvent.setup().click(again);
    expect(await screen.findByText('100')).toBeTruthy();
  });
});
