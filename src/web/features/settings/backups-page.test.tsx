import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, it } from 'vitest';
import type { Backup, Backups } from '../../../contract/index.ts';
import { NADIA, show } from '../../testing/show.tsx';
import { BackupsPage } from './backups-page.tsx';

const id = (n: number) => `01937000-0000-7000-8000-00000000b${String(n).padStart(3, '0')}`;
const backup = (n: number, more: Partial<Backup>): Backup => ({
  ...{ id: id(n), state: 'done', askedAt: '2026-11-24T02:00', by: null, name: `tern-quay-${n}.tar.gz`, rows: 12_284 },
  ...{ files: 5, bytes: 824_241, missing: [], trouble: null, ...more },
});
const told = (...backups: Backup[]): Backups => ({ plan: { every: 'day', keep: 7 }, folder: '/srv/backups', backups });

it('says what there is, how far one is and what went wrong; changes the plan and drops one', async () => {
  const user = userEvent.setup();
  const asked: unknown[] = [];
  await show(<BackupsPage />, {
    answers: {
      '/backups': told(
        backup(1, { state: 'asked', rows: 400, bytes: null, by: 'Ines Calloway', askedAt: '2026-11-24T10:00' }),
        backup(2, { missing: ['gate.jpg'] }),
        backup(3, { state: 'failed', trouble: 'no space left', askedAt: '2026-11-23T02:00' }),
      ),
      'PUT /backups/plan': (body: unknown) => {
        asked.push(body);
        return told();
      },
      [`DELETE /backups/${id(3)}`]: told(backup(2, {})),
    },
  });
  const lines = (await screen.findAllByRole('listitem')).map(({ textContent }) => textContent);
  expect(lines).toEqual([
    expect.stringContaining('being written, 400 rows so farby Ines Calloway'),
    expect.stringMatching(/12284 rows, 5 files, .*by itself.*The bytes of 1 file are gone from the server: gate\.jpg/),
    expect.stringContaining('not written: no space left'),
  ]);
  expect(screen.getByRole('button', { name: 'Back up now' }).hasAttribute('disabled')).toBe(true);
  expect(screen.getByRole('link', { name: /^Fetch/ }).getAttribute('href')).toBe(`/api/backups/${id(2)}/file`);
  await user.click(screen.getByRole('button', { name: /^Drop the backup of Mon 23 Nov/ }));
  // No undo brings it back: asked once more, and left alone by No.
  await user.click(screen.getByRole('button', { name: 'No' }));
  expect(screen.getAllByRole('listitem')).toHaveLength(3);
  await user.click(screen.getByRole('button', { name: /^Drop the backup of Mon 23 Nov/ }));
  await user.click(screen.getByRole('button', { name: /^Yes: Drop the backup of Mon 23 Nov/ }));
  await waitFor(() => expect(screen.getAllByRole('listitem')).toHaveLength(1));
  await user.selectOptions(screen.getByRole('combobox', { name: 'How often it is backed up' }), 'week');
  await waitFor(() => expect(asked).toEqual([{ every: 'week', keep: 7 }]));
});

it('is a manager’s', async () => {
  await show(<BackupsPage />, { me: NADIA });
  expect(screen.getByText(/Only a manager/)).toBeTruthy();
});
