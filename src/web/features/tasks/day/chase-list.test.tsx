import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';
import { dayOfIso } from '../../../../core/index.ts';
import { show } from '../../../testing/show.tsx';
import { ChaseList, sayChased, ToldOften } from './chase-list.tsx';
import { ChaseSchedule } from './chase-schedule.tsx';

const id = (n: number) => `01937000-0000-7000-8000-00000000a${String(n).padStart(3, '0')}`;
const task = (n: number, dueOn: string, told: number, toldAt: string | null) => ({
  ...{ id: id(n), title: `Round ${n}`, dueOn, since: '2026-11-16T09:00', told, toldAt },
});
const TODAY = dayOfIso('2026-11-24');

it('says the first day of several, how often they were told and when last', () => {
  const all = [task(1, '2026-11-20', 2, '2026-11-23T10:00'), task(2, '2026-11-26', 1, '2026-11-24T08:00')];
  expect(sayChased(all, TODAY)).toBe('the first due Fri 20 Nov, told 3 times, last today');
  expect(sayChased([task(1, '2026-11-20', 1, '2026-11-23T10:00')], TODAY)).toBe(
    'due Fri 20 Nov, told once, last yesterday',
  );
  expect(sayChased([task(1, '2026-11-20', 0, null)], TODAY)).toBe('due Fri 20 Nov, never told');
});

it('stands above the nudge of several, six people by name, and beside one task', async () => {
  const people = Array.from({ length: 8 }, (_, i) => ({
    ...{ id: id(100 + i), name: `Person ${i}`, tasks: [task(i, '2026-11-20', i, i === 0 ? null : '2026-11-20T09:00')] },
  }));
  await show(
    <>
      <ChaseList tasks={people.flatMap(({ tasks }) => tasks.map((one) => one.id))} />
      <ToldOften taskId={id(2)} />
    </>,
    {
      answers: {
        'POST /messages/chase': ({ tasks }: { tasks: string[] }) => ({
          people: tasks.length === 1 ? people.slice(2, 3) : people,
        }),
      },
    },
  );
  const list = await screen.findByRole('list', { name: 'Who has not done them' });
  expect(list.textContent).toContain('Person 1');
  expect(list.textContent).toContain('told once, last Fri 20 Nov');
  expect(list.textContent).toContain('and 2 more people');
  expect(await screen.findByText(/^told twice, last Fri 20 Nov/)).toBeTruthy();
  expect(screen.getByText(/theirs since Mon 16 Nov/)).toBeTruthy();
});

it('stands on the page of a schedule with a word to all of them, and goes once nobody is left', async () => {
  const people = [{ id: id(100), name: 'Kit Sorrell', tasks: [task(1, '2026-11-20', 0, null)] }];
  const said: unknown[] = [];
  const user = userEvent.setup();
  await show(<ChaseSchedule scheduleId={id(900)} />, {
    answers: {
      [`/messages/chase/${id(900)}`]: () => ({ people: said.length > 0 ? [] : people }),
      'POST /tasks/nudges': (body: unknown) => {
        said.push(body);
        return { nudged: 1, people: 1, own: 0, nobodys: 0, over: 0, again: 0 };
      },
    },
  });
  expect((await screen.findByRole('heading')).textContent).toBe('Due, and not done: 1 task');
  await user.type(screen.getByRole('textbox', { name: 'What the nudge says' }), 'before noon');
  await user.click(screen.getByRole('button', { name: 'Nudge' }));
  await waitFor(() => expect(screen.queryByRole('heading')).toBeNull());
  expect(said).toEqual([{ tasks: [id(1)], text: 'before noon' }]);
});
