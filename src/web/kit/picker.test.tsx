import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { describe, expect, it } from 'vitest';
import { show } from '../testing/show.tsx';
import { Picker, type PickerOption } from './picker.tsx';

const VESSELS: readonly PickerOption[] = [
  { key: '01937eb0-beac-7000-8000-0000000000e1', name: 'Curlew', detail: 'sloop, berth C14' },
  { key: '01937eb0-beac-7000-8000-0000000000e2', name: 'Marsh Bea', detail: 'ketch, berth A02' },
  { key: '01937eb0-beac-7000-8000-0000000000e3', name: 'Sandpiper', detail: 'sloop, berth B07' },
];

function ForWhom() {
  const [chosen, choose] = useState('');
  return (
    <>
      <Picker label="For whom" chosen={chosen} options={VESSELS} onChoose={choose} />
      <button type="button">Save</button>
    </>
  );
}

const opened = async () => {
  await show(<ForWhom />);
  const user = userEvent.setup();
  await user.click(screen.getByRole('button', { name: /^For whom/ }));
  return user;
};
const offered = () => screen.queryAllByRole('option').map((option) => option.textContent);

describe('a picker', () => {
  it('finds by what is read, never by the ids behind it', async () => {
    const user = await opened();
    expect(offered()).toHaveLength(3);
    await user.keyboard('eb');
    expect(offered()).toEqual([]);
    expect(screen.getByText('Nobody and nothing of that name.')).toBeTruthy();
    await user.keyboard('{Backspace}{Backspace}bea{Enter}');
    expect(screen.getByRole('button', { name: 'For whom: Marsh Bea' })).toBeTruthy();
  });

  it('finds by what stands beside the name as well', async () => {
    const user = await opened();
    await user.keyboard('b07');
    expect(offered()).toEqual(['Sandpipersloop, berth B07']);
  });

  it('is closed by Esc with the focus back on its button, by Tab, and by a press elsewhere', async () => {
    const user = await opened();
    await user.keyboard('{Escape}');
    expect(offered()).toEqual([]);
    expect(document.activeElement).toBe(screen.getByRole('button', { name: /^For whom/ }));
    await user.keyboard('{Enter}');
    expect(offered()).toHaveLength(3);
    await user.tab();
    expect(offered()).toEqual([]);
    expect(document.activeElement).toBe(screen.getByRole('button', { name: 'Save' }));
    await user.click(screen.getByRole('button', { name: /^For whom/ }));
    await user.click(document.body);
    expect(offered()).toEqual([]);
  });
});
