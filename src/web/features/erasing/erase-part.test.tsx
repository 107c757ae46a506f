import { screen, waitFor, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';
import { problemOf } from '../../../contract/problems.ts';
import { show } from '../../testing/show.tsx';
import { ErasePart } from './erase-part.tsx';

const ID = '01937000-0000-7000-8000-0000000000c1';
const GONE = {
  name: 'Wenna Lusk',
  whyNot: null,
  shared: ['office@shared.example'],
  contacts: 2,
  assets: 1,
  notes: 1,
  files: 3,
  mails: 1,
  letters: 0,
};

async function opened(look: object, answer: (sent: unknown) => unknown = () => ({ erased: true })) {
  const sent: unknown[] = [];
  const user = userEvent.setup();
  await show(<ErasePart of="client" id={ID} name="Wenna Lusk" />, {
    answers: {
      [`/clients/${ID}/erasing`]: { ...GONE, tasks: 14, calls: 0, ...look },
      [`POST /clients/${ID}/erase`]: (body: unknown) => {
        sent.push(body);
        return answer(body);
      },
    },
  });
  await user.click(screen.getByRole('button', { name: 'Erase Wenna Lusk' }));
  const dialog = within(await screen.findByRole('dialog', { name: 'Erase Wenna Lusk' }));
  await dialog.findByText('Stays');
  return { sent, user, dialog };
}

it('tells what goes and what stays before it asks for the name', async () => {
  const { dialog } = await opened({});
  expect(dialog.getByText(/^The name, address and notes/).textContent).toBe(
    'The name, address and notes, 2 contacts, the name of the asset, the words of 1 note or comment, 3 pictures and papers and what 1 mail said; the name wherever titles, messages and mails say it.',
  );
  expect(dialog.getByText('Shared').nextSibling?.textContent).toBe(
    '“office@shared.example” is somebody else’s too: in what is about others it stays.',
  );
  expect(dialog.getByText(/^14 tasks with their days/)).toBeTruthy();
  expect(dialog.getByRole('button', { name: 'Erase for good' })).toHaveProperty('disabled', true);
});

it('erases once the name was written, and not by another', async () => {
  const { sent, user, dialog } = await opened({});
  const name = dialog.getByRole('textbox', { name: /^Write the name/ });
  await user.type(name, 'wenna lusk{Enter}');
  expect(sent).toEqual([]);
  await user.clear(name);
  await user.type(name, 'Wenna Lusk{Enter}');
  await waitFor(() => expect(sent).toEqual([{ name: 'Wenna Lusk' }]));
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
});

it('stays open with what the server says against it', async () => {
  const { user, dialog } = await opened(
    {},
    () =>
      new Response(JSON.stringify(problemOf('not-now', 'Wenna Lusk is no longer in the archive.')), { status: 409 }),
  );
  const name = dialog.getByRole<HTMLInputElement>('textbox', { name: /^Write the name/ });
  await user.type(name, 'Wenna Lusk{Enter}');
  expect(await dialog.findByText('Wenna Lusk is no longer in the archive.')).toBeTruthy();
  expect(name.value).toBe('Wenna Lusk');
});

it('says why it can’t be done, and asks for nothing then', async () => {
  const { dialog } = await opened({ whyNot: 'Put it into the archive first.' });
  expect(dialog.getByText('Put it into the archive first.')).toBeTruthy();
  expect(dialog.queryByRole('textbox')).toBeNull();
  expect(dialog.getByRole('button', { name: 'Close' })).toBeTruthy();
});
