import { act, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { describe, expect, it } from 'vitest';
import KeyCard from '../app/shell/key-card.tsx';
import { useKeys } from '../app/shell/keys.tsx';
import { show } from '../testing/show.tsx';
import { Dialog } from './dialog.tsx';
import { SideSheet } from './side-sheet.tsx';

function Page({ done }: { readonly done: string[] }) {
  const [open, setOpen] = useState(false);
  useKeys([
    { key: ']', says: 'A day on', run: () => done.push('a day on') },
    { key: '?', says: 'Keys', run: () => setOpen(true) },
  ]);
  return (
    <>
      <button type="button" onClick={() => setOpen(true)}>
        Skip it
      </button>
      {open && (
        <Dialog label="What this changes" onClose={() => setOpen(false)}>
          <button type="button">Skip 1 task</button>
        </Dialog>
      )}
    </>
  );
}

describe('a dialog', () => {
  it('has the keys alone while it stands over the page', async () => {
    const done: string[] = [];
    await show(<Page done={done} />);
    const user = userEvent.setup();
    await user.keyboard(']');
    expect(done).toEqual(['a day on']);
    await user.click(screen.getByRole('button', { name: 'Skip it' }));
    await user.keyboard(']?');
    expect(done).toEqual(['a day on']);
    expect(screen.getAllByRole('dialog')).toHaveLength(1);
  });

  it('gives the focus back to what opened it', async () => {
    await show(<Page done={[]} />);
    const user = userEvent.setup();
    const button = screen.getByRole('button', { name: 'Skip it' });
    await user.click(button);
    act(() => screen.getByRole<HTMLDialogElement>('dialog').close());
    expect(screen.queryByRole('dialog')).toBe(null);
    await waitFor(() => expect(document.activeElement).toBe(button));
  });

  it('gives it to the sheet below where that button is gone by then', async () => {
    function Sheet() {
      const [open, setOpen] = useState(false);
      const [done, setDone] = useState(false);
      return (
        <SideSheet label="Opening walk" onClose={() => undefined}>
          {!done && (
            <button type="button" onClick={() => setOpen(true)}>
              Finish
            </button>
          )}
          {open && (
            <Dialog
              label="Finish"
              onClose={() => {
                setDone(true);
                setOpen(false);
              }}
            >
              Sure?
            </Dialog>
          )}
        </SideSheet>
      );
    }
    await show(<Sheet />);
    await userEvent.setup().click(screen.getByRole('button', { name: 'Finish' }));
    act(() => screen.getByRole<HTMLDialogElement>('dialog').close());
    await waitFor(() => expect(document.activeElement).toBe(screen.getByRole('complementary')));
  });
});

describe('a sheet beside the list', () => {
  it('has the focus when what had it is gone by what it did', async () => {
    function Sheet() {
      const [editing, edit] = useState(true);
      return (
        <SideSheet label="Opening walk" onClose={() => undefined}>
          {editing && (
            <button type="button" onClick={() => edit(false)}>
              Leave it as it was
            </button>
          )}
        </SideSheet>
      );
    }
    await show(<Sheet />);
    const sheet = screen.getByRole('complementary');
    expect(document.activeElement).toBe(sheet);
    const button = screen.getByRole('button');
    await userEvent.setup().click(button);
    // jsdom, unlike browsers, tells of no loss of the focus when an element is taken away.
    act(() => void button.dispatchEvent(new FocusEvent('focusout', { bubbles: true })));
    act(() => void sheet.dispatchEvent(new FocusEvent('focusout', { bubbles: true })));
    await waitFor(() => expect(document.activeElement).toBe(sheet));
  });
});

describe('the card of keys', () => {
  it('tells each key that works here once', async () => {
    function Bound() {
      useKeys([
        { key: 'Mod+k', says: 'Go to anything', run: () => undefined },
        { key: 'n', says: 'New schedule', run: () => undefined },
      ]);
      useKeys([{ key: 'n', says: 'New template', run: () => undefined }]);
      return <KeyCard onClose={() => undefined} />;
    }
    await show(<Bound />);
    expect(screen.getAllByRole('term').map((term) => term.textContent)).toContain('Ctrl K');
    expect(screen.queryByText('New schedule')).toBe(null);
    expect(screen.getAllByText('New template')).toHaveLength(1);
  });
});
