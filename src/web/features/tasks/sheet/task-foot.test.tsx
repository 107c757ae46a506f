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
