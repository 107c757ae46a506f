import { act, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { problemOf } from '../../../../contract/problems.ts';
import { show } from '../../../testing/show.tsx';
import { taskOf } from '../../../testing/tasks.ts';
import { outbox } from '../../unsent/use-unsent.ts';
import { useTaskOnDevice } from '../on-device.ts';
import { TaskFoot } from './task-foot.tsx';

const TASK = taskOf({ title: 'Lamp round' });
const NO_NET = new TypeError('no net');

/** As the sheet has it: the task as it stands on this device. */
function Foot() {
  return <TaskFoot task={TASK} here={useTaskOnDevice(TASK)} address={() => '/'} />;
}
const press = (name: string) => userEvent.setup().click(screen.getByRole('button', { name }));

const REFUSED = () =>
  new Response(JSON.stringify(problemOf('not-now', 'It was finished by Kit at 09:30.')), { status: 409 });

/** A server that answers each deed as it is told at that time. */
function server() {
  let deed: () => unknown = () => {
    throw NO_NET;
  };
  const answer = () => deed();
  return {
    answers: {
      [`/tasks/${TASK.id}`]: TASK,
      [`POST /tasks/${TASK.id}/start`]: answer,
      [`POST /tasks/${TASK.id}/finish`]: answer,
    },
    says: (next: () => unknown) => {
      deed = next;
    },
  };
}

// Of other tests of this browser, too.
beforeEach(() => act(() => outbox.discardAll()));

describe('the foot of a task', () => {
  it('without a connection says that it is finished here and not sent, and takes that back', async () => {
    await show(<Foot />, { answers: server().answers });
    await press('Finish');
    expect((await screen.findByText(/^Finished on this device/)).textContent).toContain('not sent yet');
    expect(screen.queryByRole('button', { name: 'Finish' })).toBeNull();
    await press('Take it back');
    expect(await screen.findByRole('button', { name: 'Finish' })).toBeDefined();
    expect(outbox.count).toBe(0);
  });

  it('asks for the tag that starts it, and says whose another one is', async () => {
    const tagged = taskOf({
      ...{ title: 'Lifts', demands: [{ key: 'tag', kind: 'tag', label: '', atStart: true }], assetTag: 'CR-1' },
      ...{ asset: { id: TASK.id, name: 'Crane 1' }, startsByTag: true },
    });
    const sent: unknown[] = [];
    const Tagged = () => <TaskFoot task={tagged} here={useTaskOnDevice(tagged)} address={() => '/'} />;
    await show(<Tagged />, {
      answers: {
        [`/tasks/${tagged.id}`]: tagged,
        [`PUT /tasks/${tagged.id}/answers`]: (body: unknown) => {
          sent.push(body);
          const problem = problemOf('invalid', 'It is the tag of Pontoon A.');
          return new Response(JSON.stringify(problem), { status: 422 });
        },
      },
    });
    expect(screen.queryByRole('button', { name: 'Finish' })).toBeNull();
    await press('Start');
    expect(screen.getByRole('alert').textContent).toBe('Read the tag, or type what stands on it.');
    await userEvent.setup().type(screen.getByLabelText('Read the tag of Crane 1 to start'), 'PA-1');
    await press('Start');
    expect(await screen.findByText(/It is the tag of Pontoon A/)).toBeDefined();
    expect(sent).toContainEqual({ demand: 'tag', value: 'PA-1', remark: '' });
    expect(screen.getByRole('button', { name: 'Start' })).toBeDefined();
  });

  it('keeps what was refused after it had waited, with why, and lets go of it one by one or at once', async () => {
    const { answers, says } = server();
    await show(<Foot />, { answers });
    await press('Start');
    await press('Finish');
    await screen.findByText(/^Finished on this device/);
    // What ended it says enough, until that is refused.
    expect(screen.queryByText(/^Started on this device/)).toBeNull();
    says(REFUSED);
    await act(() => outbox.connected());
    const refused = await screen.findAllByRole('alert');
    expect(refused.map(({ textContent }) => textContent)).toEqual([
      expect.stringMatching(/^Started on this device .*, and not taken. It was finished by Kit at 09:30./),
      expect.stringMatching(/^Finished on this device .*, and not taken. It was finished by Kit at 09:30./),
    ]);
    // Nothing of it is taken for done any more.
    expect(screen.getByRole('button', { name: 'Finish' })).toBeDefined();
    await press('Let go of all 2 things that were not taken');
    expect([outbox.count, screen.queryAllByRole('alert').length]).toEqual([0, 0]);
  });

  it('tells a refusal at once, and keeps nothing, where one stands before it', async () => {
    const { answers, says } = server();
    says(REFUSED);
    await show(<Foot />, { answers });
    await press('Start');
    await waitFor(() => expect(outbox.count).toBe(0));
    expect(screen.queryByRole('alert')).toBeNull();
  });
});
