import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it, vi } from 'vitest';
import {
  FRESH,
  freshCheck,
  freshTask,
  type TemplateDraft,
  templateDraftSchema,
} from '../features/templates/template-draft.ts';
import { AsideLine } from '../features/unsent/aside-line.tsx';
import { INES, NADIA, show } from '../testing/show.tsx';
import { useDraft } from './draft.ts';

const PLACE = `jolly-rota.draft.1.${INES.id}.template new`;

function Editor() {
  const { draft, change, forget } = useDraft<TemplateDraft>('template new', FRESH, templateDraftSchema);
  return (
    <>
      <AsideLine />
      <input aria-label="Name" value={draft.name} onChange={({ target }) => change({ ...draft, name: target.value })} />
      <button type="button" onClick={forget}>
        Put back
      </button>
    </>
  );
}

const name = () => screen.getByRole<HTMLInputElement>('textbox').value;
const aside = () => screen.queryByText(/can’t be read by this version/)?.textContent ?? null;
const keep = (text: string) => sessionStorage.setItem(PLACE, text);
const kept = (draft: object) => keep(JSON.stringify({ draft: { ...FRESH, ...draft }, base: FRESH }));

describe('a draft', () => {
  it('outlives the page, and is gone once it is put back', async () => {
    const first = await show(<Editor />);
    const user = userEvent.setup();
    await user.type(screen.getByRole('textbox'), 'Slip wash');
    first.unmount();
    const second = await show(<Editor />);
    expect(name()).toBe('Slip wash');
    await user.click(screen.getByRole('button', { name: 'Put back' }));
    second.unmount();
    await show(<Editor />);
    expect(name()).toBe('');
  });

  it('is nobody else’s', async () => {
    kept({ name: 'Slip wash' });
    await show(<Editor />, { me: NADIA });
    expect(name()).toBe('');
  });

  it('is kept however wrong what is written in it is', async () => {
    kept({
      name: '',
      titlePattern: '{nonsense}',
      summary: 'x'.repeat(500),
      estimateMinutes: 0,
      links: [{ title: '', url: 'no address' }],
      steps: [freshCheck(''), freshTask()],
    });
    await show(<Editor />);
    expect([name(), aside()]).toEqual(['', null]);
    kept({ name: 'Slip wash', titlePattern: '{nonsense}' });
    await show(<Editor />);
    expect(aside()).toBe(null);
  });

  it.each([
    ['cut short', '{"draft":{"name":"Slip wash","titleP'],
    [
      'of a form that is no more',
      JSON.stringify({ draft: { name: 'Slip wash', steps: { first: 'Hose' } }, base: FRESH }),
    ],
    ['that was only its words', '"Slip wash"'],
  ])('%s does not lock the page: it is put aside, offered as text, and let go when told to', async (_, text) => {
    keep(text);
    const first = await show(<Editor />);
    expect(name()).toBe('');
    expect(aside()).toContain(text.slice(0, 60));
    const user = userEvent.setup();
    const copied = vi.spyOn(navigator.clipboard, 'writeText');
    await user.click(screen.getByRole('button', { name: 'Copy it as text' }));
    expect(copied).toHaveBeenCalledWith(text);
    // Still there after a reload, and in nobody's way.
    first.unmount();
    await show(<Editor />);
    await user.type(screen.getByRole('textbox'), 'Another');
    expect([name(), aside()]).toEqual(['Another', expect.stringContaining(text.slice(0, 60))]);
    await user.click(screen.getByRole('button', { name: 'Let it go' }));
    expect(aside()).toBe(null);
    expect(name()).toBe('Another');
  });
});
