import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';
import type { Together } from '../../../../contract/index.ts';
import { NADIA, show } from '../../../testing/show.tsx';
import { lineOf } from '../../../testing/tasks.ts';
import TogetherSheet from './together-sheet.tsx';

const KIT = { id: '01937000-0000-7000-8000-0000000000c1', name: 'Kit Sorrell' };
const person = (of: { id: string; name: string }, rest: Partial<Together['people'][number]> = {}) => ({
  ...{ id: of.id, name: of.name, toDo: 60, done: 0, capacityMinutes: 240, shifts: [] },
  ...rest,
});
const sheet: Together = {
  name: 'Yard',
  date: '2026-11-24',
  people: [person(KIT, { toDo: 90, done: 30 }), person(NADIA, { shifts: [{ from: '07:00', to: '15:00' }] })],
  late: [],
  thisDay: [
    lineOf({ id: '1', title: 'Opening walk', assignee: { id: NADIA.id, name: NADIA.name }, startTime: '07:00' }),
    lineOf({ id: '2', title: 'Bin store gate', assignee: null, offeredTo: null }),
  ],
  coming: [],
  projected: [],
  isMore: true,
};

it('says who has what, how full each is, and where the rest of a long day is', async () => {
  await show(<TogetherSheet />, { answers: { '/day-sheets?team=Yard': sheet }, path: '/day-sheet/together?team=Yard' });
  expect(await screen.findByText('1 h of 8 h')).toBeTruthy();
  const people = screen.getByRole('list', { name: 'Who, and how full the day is' });
  expect(
    within(people)
      .getAllByRole('listitem')
      .map(({ textContent }) => textContent),
  ).toEqual(['Kit Sorrell2 h of 4 h, 30 min finished', 'Nadia Orme07:00–15:001 h of 4 h']);
  expect(within(people).getByRole('link', { name: 'Kit Sorrell' }).getAttribute('href')).toBe(`/day-sheet/${KIT.id}`);
  const line = (title: string) => screen.getByRole('link', { name: title }).closest('[data-line]')?.textContent;
  expect(line('Opening walk')).toContain('Nadia Orme');
  expect(line('Bin store gate')).toContain('nobody yet');
  expect(screen.getByRole('link', { name: 'Opening walk' }).getAttribute('href')).toBe(
    '/day-sheet/together/task/1?team=Yard',
  );
  expect(screen.getByRole('link', { name: 'see all of it among the tasks' }).getAttribute('href')).toBe(
    '/tasks?team=Yard&by=person',
  );
});

it('of a thing has no hours to be filled, and a step to another day keeps what it is of', async () => {
  const at = '01937000-0000-7000-8000-0000000000a1';
  const of = { ...sheet, name: 'Crane 1', people: [], isMore: false };
  await show(<TogetherSheet />, {
    answers: {
      [`/day-sheets?asset=${at}`]: of,
      [`/day-sheets?asset=${at}&date=2026-11-25`]: { ...of, date: '2026-11-25' },
    },
    path: `/day-sheet/together?asset=${at}`,
  });
  expect(await screen.findByText('1 h')).toBeTruthy();
  expect(screen.getByRole('combobox', { name: 'Whose day sheet' })).toHaveProperty('value', `asset ${at}`);
  await userEvent.click(screen.getByRole('button', { name: 'Day after' }));
  expect((await screen.findByRole('heading', { level: 1 })).textContent).toContain('Wednesday');
});
