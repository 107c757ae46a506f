import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it, vi } from 'vitest';
import type { BringIn } from '../../../contract/index.ts';
import { INES, NADIA, show } from '../../testing/show.tsx';
import { CalendarPart } from './calendar-part.tsx';

const CALENDAR: NonNullable<BringIn['calendar']> = {
  ...{ repeating: 'schedule', single: 'task', wholeDays: 'as work', toDos: 'template', several: 'each of' },
  ...{ ownerId: null, mended: 1, others: 2 },
  zones: [
    { tzid: 'GMT Standard Time', count: 3, zone: 'Europe/London', isSure: true },
    { tzid: 'Ours', count: 1, zone: null, isSure: false },
  ],
};
const FILE: BringIn = {
  ...{ id: '01937000-0000-7000-8000-0000000000f1', kind: 'calendar', fileName: 'ours.ics', encoding: 'UTF-8' },
  ...{
    separator: '',
    rowCount: 4,
    state: 'open',
    version: 1,
    isRemembered: false,
    dayOrder: 'day first',
    sameBy: 'UID',
  },
  ...{ usualMinutes: 30, calendar: CALENDAR, plans: [], changeId: null, columns: [], fields: [], people: [] },
  names: { count: 0, isTurned: false, example: null, turned: null },
  dates: { order: null, example: null, sure: 0, contrary: 0, either: 0 },
  counts: { new: 4, update: 0, same: 0, leave: 0, left: 0 },
  ...{ fates: 'nnnn', left: [], alike: [], fresh: [] },
};

async function opened(me = INES) {
  const onSettle = vi.fn(async () => true);
  await show(<CalendarPart bringIn={FILE} calendar={CALENDAR} onSettle={onSettle} />, { me });
  await screen.findByLabelText('What becomes of what repeats');
  return { onSettle, user: userEvent.setup() };
}

it('says of each kind of entry what becomes of it, one choice at a time', async () => {
  const { onSettle, user } = await opened();
  await user.selectOptions(screen.getByLabelText('What becomes of what repeats'), 'left out');
  await user.selectOptions(screen.getByLabelText('What becomes of whole days'), 'days off for all');
  await user.selectOptions(screen.getByLabelText('What several people have who are named'), 'any one of them takes it');
  expect(onSettle.mock.calls).toEqual([
    [{ calendar: { repeating: 'left out' } }],
    [{ calendar: { wholeDays: 'days off' } }],
    [{ calendar: { several: 'any of' } }],
  ]);
});

it('asks which zone is meant, and takes none that there isn’t', async () => {
  const { onSettle, user } = await opened();
  const zone = screen.getByRole('textbox', { name: 'The zone that “Ours” is' });
  await user.type(zone, 'Atlantis{Enter}');
  expect(await screen.findByText(/a zone, like Europe\/London/)).toBeTruthy();
  expect(onSettle).not.toHaveBeenCalled();
  await user.clear(zone);
  await user.type(zone, 'America/New_York{Enter}');
  await waitFor(() => expect(onSettle).toHaveBeenCalledWith({ zones: { Ours: 'America/New_York' } }));
});

it('tells whose it is to set days off, and what was mended or is no work', async () => {
  await opened({ ...NADIA, access: 'planner' });
  expect(screen.getByRole('option', { name: 'days off (a manager’s to set)' })).toBeTruthy();
  expect(
    screen.getByText('1 line was broken in the wrong place, and is read as one with the line before.'),
  ).toBeTruthy();
  expect(screen.getByText('2 journals or free times are no work, and left out.')).toBeTruthy();
});
