import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { Route, Routes, useLocation } from 'react-router';
import { describe, expect, it } from 'vitest';
import { show } from '../../testing/show.tsx';
import Jump from './jump.tsx';
import { JumpOpening } from './openings.tsx';
import { ShellContext } from './shell-context.ts';

const SCHEDULE = '01937000-0000-7000-8000-0000000000c1';
const FOUND = {
  templates: [],
  clients: [{ id: '01937000-0000-7000-8000-0000000000d1', name: 'Quentin Brindle', detail: 'Grey Wagtail, GW-1' }],
  assets: [],
  schedules: [{ id: SCHEDULE, name: 'Mooring check, Curlew’s Cry', detail: 'every week on Tue' }],
};

function Place() {
  return <p>at {useLocation().pathname}</p>;
}

/** As the frame has it; not loaded yet where it is told so. */
function Jumping({ isLoaded }: { readonly isLoaded: boolean }) {
  const [typed, setTyped] = useState('');
  const [isAsked, setAsked] = useState(false);
  const same = { typed, onType: setTyped, onClose: () => undefined };
  return (
    <ShellContext value={{ startNow: () => undefined, capture: () => undefined }}>
      {isLoaded ? <Jump {...same} isAsked={isAsked} /> : <JumpOpening {...same} onEnter={() => setAsked(true)} />}
      <Routes>
        <Route path="*" element={<Place />} />
      </Routes>
    </ShellContext>
  );
}

const jumping = async (answers: Readonly<Record<string, unknown>>, isLoaded = true) => {
  const draw = (loaded: boolean) => <Jumping isLoaded={loaded} />;
  const { show: again } = await show(draw(isLoaded), { answers });
  return { user: userEvent.setup(), load: () => again(draw(true)) };
};
const offered = () => screen.queryAllByRole('option').map((option) => option.textContent);

describe('the jump', () => {
  it('offers what there is to do and the people before anything is typed', async () => {
    await jumping({});
    expect(offered()).toContain('Nadia Ormeday sheet, Dockhand');
    expect(offered()).toContain('Fill a periodand the run log');
  });

  it('finds what the server has of that name, with either apostrophe, and goes there', async () => {
    const { user } = await jumping({ '/find?q=curlew%27s': FOUND });
    await user.keyboard('curlew');
    await user.keyboard("'s");
    await screen.findByRole('option', { name: /Mooring check/ });
    // What the server found for another reason is not what is typed.
    expect(offered()).toEqual(['Mooring check, Curlew’s Cryevery week on Tue']);
    await user.keyboard('{Enter}');
    expect(await screen.findByText(`at /schedules/${SCHEDULE}`)).toBeTruthy();
  });

  it('leads to a client by a tag of theirs', async () => {
    const { user } = await jumping({ '/find?q=gw-1': FOUND });
    await user.keyboard('gw-1');
    await user.click(await screen.findByRole('option', { name: /Quentin Brindle/ }));
    expect(await screen.findByText(`at /clients/${FOUND.clients[0]?.id}`)).toBeTruthy();
  });

  it('starts something for a client where that is asked', async () => {
    const { user } = await jumping({ '/find?q=quentin': FOUND });
    await user.keyboard('start something for quentin');
    expect(await screen.findByRole('option', { name: /Quentin Brindle.*start something for/ })).toBeTruthy();
  });

  it('says that it could not look, rather than that there is nothing', async () => {
    const { user } = await jumping({ '/find?q=z': new Error('no way') });
    await user.keyboard('z');
    expect(await screen.findByText(/The server does not answer/)).toBeTruthy();
    expect(screen.queryByText('Nothing of that name.')).toBe(null);
  });

  it('takes what was typed and asked before it was loaded', async () => {
    const { user, load } = await jumping({ '/find?q=mooring': FOUND }, false);
    await user.keyboard('mooring{Enter}');
    expect(screen.getByRole<HTMLInputElement>('textbox').value).toBe('mooring');
    load();
    expect(await screen.findByText(`at /schedules/${SCHEDULE}`)).toBeTruthy();
  });
});
