import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { describe, expect, it } from 'vitest';
import type { BringIn, BringInRow } from '../../../contract/index.ts';
import { show } from '../../testing/show.tsx';
import { BringInPage } from './bring-in-page.tsx';

const ID = '01937000-0000-7000-8000-0000000000f1';
const row = (number: number, of: Partial<BringInRow>): BringInRow => ({
  ...{
    number,
    fate: 'new',
    isAlike: false,
    becomes: null,
    title: `Line ${number}`,
    about: '',
    why: '',
    faults: [],
    diffs: [],
  },
  ...of,
});
const fault = {
  column: 1,
  name: 'Insured until',
  text: '31/02/2027',
  message: 'there is no 31 February',
  offers: ['28 Feb 2027'],
};

const FILE: BringIn = {
  ...{ id: ID, kind: 'clients', fileName: 'berths.csv', encoding: 'UTF-8', separator: 'commas', rowCount: 3 },
  ...{
    state: 'open',
    version: 1,
    isRemembered: false,
    dayOrder: 'day first',
    sameBy: 'mail or name',
    usualMinutes: 30,
    calendar: null,
    plans: [],
    changeId: null,
  },
  columns: [
    { name: 'Holder', becomes: 'name', samples: ['Nell', 'Piran'], empty: 0, unread: 0 },
    { name: 'Insured until', becomes: null, samples: ['31/02/2027', ''], empty: 2, unread: 0 },
  ],
  fields: [
    { key: 'name', name: 'client', value: 'text' },
    { key: 'own.insured', name: 'insured until', value: 'date' },
  ],
  names: { count: 2, isTurned: false, example: 'Lusk, Piran', turned: 'Piran Lusk' },
  dates: { order: null, example: null, sure: 0, contrary: 0, either: 0 },
  people: [{ key: 'tomas', name: 'Tomas', count: 2, personId: null, isSure: false }],
  counts: { new: 1, update: 1, same: 0, leave: 0, left: 1 },
  fates: 'xun',
  left: [row(1, { fate: 'left', faults: [fault] })],
  alike: [
    row(2, { fate: 'update', isAlike: true, why: 'same mail', diffs: [{ name: 'place', from: 'B 6', to: 'B 8' }] }),
  ],
  fresh: [row(3, {})],
};

/** The page with what the server has; gives what was sent to it. */
async function opened(answer: (sent: { version: number }) => unknown = () => ({ bringIn: { ...FILE, version: 2 } })) {
  const sent: unknown[] = [];
  await show(
    <Routes>
      <Route path=":bringInId" element={<BringInPage />} />
    </Routes>,
    {
      path: `/${ID}`,
      answers: {
        [`/bring-ins/${ID}`]: { bringIn: FILE },
        [`PUT /bring-ins/${ID}`]: (body: { version: number }) => {
          sent.push(body);
          return answer(body);
        },
      },
    },
  );
  await screen.findByRole('button', { name: 'Bring in 2, leave 1' });
  return { sent, user: userEvent.setup() };
}

describe('a file on its way in', () => {
  it('can become a new field by a column, and have its names turned round', async () => {
    const { sent, user } = await opened();
    await user.selectOptions(screen.getByLabelText('What “Insured until” becomes'), 'new field, date');
    await waitFor(() => expect(sent).toEqual([{ version: 1, columns: ['name', 'new.client.date'] }]));
    expect(screen.getByText(/2 names like “Lusk, Piran” are read/)).toBeTruthy();
    await user.selectOptions(screen.getByLabelText('How such names are read'), 'first name first: Piran Lusk');
    await waitFor(() => expect(sent[1]).toMatchObject({ turnsNames: true }));
  });

  it('tells of each line what becomes of it, and of what is here what would change', async () => {
    await opened();
    expect(screen.getByText('Insured until: there is no 31 February')).toBeTruthy();
    expect(screen.getByText('same mail').closest('li')?.textContent).toContain('place B 6 → B 8');
    expect(screen.getByText(/2$/, { selector: 'b' })).toBeTruthy();
    expect(screen.getByText('asked')).toBeTruthy();
  });

  it('sends a cell that is mended, and keeps what was typed where that does not get through', async () => {
    const { sent, user } = await opened(() => {
      throw new Error('no way');
    });
    const cell = screen.getByRole<HTMLInputElement>('textbox', { name: 'Insured until of line 1' });
    await user.clear(cell);
    await user.type(cell, '28/02/2027{Enter}');
    await waitFor(() => expect(sent.length).toBeGreaterThan(0));
    expect(sent[0]).toEqual({ version: 1, mended: [{ number: 1, column: 1, text: '28/02/2027' }] });
    expect(cell.value).toBe('28/02/2027');
  });

  it('puts what is offered into every line that says the same', async () => {
    const { sent, user } = await opened();
    expect(screen.getByText(/^For this and every line like it:/)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: '28 Feb 2027' }));
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]).toEqual({ version: 1, mended: [{ number: 1, column: 1, text: '28 Feb 2027', isForAll: true }] });
  });

  it('gives a field to one column alone, and sends who is meant and what is chosen', async () => {
    const { sent, user } = await opened();
    await user.selectOptions(screen.getByRole('combobox', { name: 'What “Insured until” becomes' }), 'client');
    await waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]).toEqual({ version: 1, columns: [null, 'name'] });
    await user.selectOptions(screen.getByRole('combobox', { name: 'Who is meant by “Tomas”' }), 'Nadia Orme');
    await user.click(await screen.findByRole('button', { name: 'leave Line 2, line 2' }));
    await waitFor(() => expect(sent).toHaveLength(3));
    expect(sent[2]).toEqual({ version: 2, choices: [{ number: 2, choice: 'leave' }] });
  });
});
