import { screen } from '@testing-library/react';
import userEvent, { type UserEvent } from '@testing-library/user-event';
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

/** Its options are looked up, and come when they are told to. */
function Looked({ found }: { readonly found: readonly PickerOption[] | null }) {
  const [chosen, choose] = useState('');
  const name = VESSELS.find(({ key }) => key === chosen)?.name;
  return (
    <>
      <Picker
        label="For whom"
        chosen={chosen}
        chosenName={name}
        options={found ?? []}
        onType={() => undefined}
        isLooking={found === null}
        onChoose={choose}
      />
      <input aria-label="What is special" />
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

  it('offers names that begin as typed first, before what only has the same words', async () => {
    const cranes: PickerOption[] = [
      { key: 'a', name: 'Crane 1', detail: '2 t, by the hard' },
      { key: 'b', name: 'Crane 2', detail: '1 t, by the slip' },
    ];
    await show(<Picker label="For what" chosen="" options={cranes} onChoose={() => undefined} />);
    const user = userEvent.setup();
    await user.click(screen.getByRole('button', { name: /^For what/ }));
    await user.keyboard('crane 2');
    expect(offered()).toEqual(['Crane 21 t, by the slip', 'Crane 12 t, by the hard']);
  });

  it('takes Enter that comes before what is looked up once that is there, and never what was there before', async () => {
    const { show: again } = await show(<Looked found={[VESSELS[0] as PickerOption]} />);
    const user = userEvent.setup();
    await user.click(screen.getByRole('button', { name: /^For whom/ }));
    again(<Looked found={null} />);
    await user.keyboard('marsh{Enter}');
    expect(screen.getByText('Looking …')).toBeTruthy();
    again(<Looked found={VESSELS} />);
    expect(await screen.findByRole('button', { name: 'For whom: Marsh Bea' })).toBeTruthy();
  });

  it.each([
    ['a press', async (user: UserEvent) => user.click(screen.getByLabelText('What is special'))],
    ['Tab', async (user: UserEvent) => user.tab()],
  ])('takes it for whoever has gone on elsewhere by %s meanwhile, and leaves them there', async (_, goOn) => {
    const { show: again } = await show(<Looked found={null} />);
    const user = userEvent.setup();
    await user.click(screen.getByRole('button', { name: /^For whom/ }));
    await user.keyboard('marsh{Enter}');
    await goOn(user);
    await user.keyboard('Cold');
    again(<Looked found={VESSELS} />);
    expect(await screen.findByRole('button', { name: 'For whom: Marsh Bea' })).toBeTruthy();
    expect(offered()).toEqual([]);
    expect(document.activeElement).toBe(screen.getByLabelText('What is special'));
    expect(screen.getByDisplayValue('Cold')).toBeTruthy();
  });

  it('draws the first of many and says how many lie below them', async () => {
    const many = Array.from({ length: 2_000 }, (_, i) => ({ key: `k${i}`, name: `Pontoon ${i}` }));
    await show(<Picker label="Template" chosen="" options={many} onChoose={() => undefined} />);
    const user = userEvent.setup();
    await user.click(screen.getByRole('button', { name: /^Template/ }));
    expect(offered()).toHaveLength(50);
    expect(screen.getByText('and 1950 more: type to find them')).toBeTruthy();
    await user.keyboard('pontoon 1999');
    expect(offered()).toEqual(['Pontoon 1999']);
    expect(screen.queryByText(/more: type/)).toBeNull();
  });
});
