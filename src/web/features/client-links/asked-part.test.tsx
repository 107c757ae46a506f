import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { Asked, Task } from '../../../contract/index.ts';
import { show } from '../../testing/show.tsx';
import { taskOf } from '../../testing/tasks.ts';
import AskedPart from './asked-part.tsx';

const CONTACT = { id: '01937000-0000-7000-8000-0000000000d1', name: 'Quentin Brindle', role: 'owner' };
const asked = (of: Partial<Asked['asks'][number]> | null, contacts = 1): Asked => ({
  contacts: contacts === 0 ? [] : [{ ...CONTACT, email: 'q@brindle.example' }],
  asks:
    of === null
      ? []
      : [
          {
            ...{ id: '01937000-0000-7000-8000-0000000000d2', kind: 'asked', at: '2026-11-20T08:00', by: null },
            ...{ to: CONTACT.name, email: 'q@brindle.example', openedAt: null, works: true, worksUntil: '2026-12-11' },
            withdrawnAt: null,
            ...of,
          },
        ],
});
const part = (task: Partial<Task>, of: Asked, answers: Readonly<Record<string, unknown>> = {}) => {
  const whole = taskOf({ isForClient: true, mayAsk: true, client: { id: 'c', name: 'Quentin Brindle' }, ...task });
  return show(<AskedPart task={whole} />, { answers: { [`/tasks/${whole.id}/asked`]: of, ...answers } });
};

describe('what a client was asked', () => {
  it.each([
    [{ state: 'coming' }, asked(null), 'A mail goes once it appears, from 08:00 on.'],
    [{ state: 'open' }, asked({}), 'Not opened yet.'],
    [{ state: 'open' }, asked({ openedAt: '2026-11-24T09:12' }), 'Opened 09:12, nothing sent yet.'],
    [{ state: 'underWay' }, asked({ openedAt: '2026-11-24T09:12' }), 'Begun: some of it is here.'],
    [{ state: 'toCheck' }, asked({}), 'Sent; somebody here looks at it now.'],
  ] as const)('is told by how far it is: %o', async (task, of, words) => {
    await part(task, of);
    expect(await screen.findByText(words)).toBeTruthy();
  });

  it('tells each mail with its link, and that nothing can go where no address is known', async () => {
    const shown = await part({ state: 'open' }, asked({ kind: 'before' }));
    expect(await screen.findByText(/Quentin Brindle reminded/)).toBeTruthy();
    expect(screen.getByText('q@brindle.example, not opened, works until Fri 11 Dec')).toBeTruthy();
    shown.unmount();
    await part({ state: 'open' }, asked(null, 0));
    expect(await screen.findByText(/has a mail address, so nothing can go/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Ask now' })).toBeNull();
  });

  it('is asked once more, as the form says it', async () => {
    const user = userEvent.setup();
    const sent: unknown[] = [];
    const id = taskOf({}).id;
    await part({ state: 'open' }, asked({}), {
      [`POST /tasks/${id}/asked`]: (body: unknown) => {
        sent.push(body);
        return { asked: asked({ kind: 'again' }), changeId: null };
      },
    });
    await user.click(await screen.findByRole('button', { name: 'Ask once more' }));
    await user.selectOptions(screen.getByLabelText('What the link opens'), 'all');
    await user.click(screen.getByRole('button', { name: 'Send the mail' }));
    expect(sent).toEqual([{ contactId: CONTACT.id, opens: 'all', needsCode: false }]);
  });
});
