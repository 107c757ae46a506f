import { screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import type { SignOff } from '../../../core/index.ts';
import { INES, NADIA, show } from '../../testing/show.tsx';
import { SignOffBlank } from './sign-off-blank.tsx';

const shown = (signOff: SignOff | null, people = [INES, NADIA]) =>
  show(<SignOffBlank label="Signed off by" signOff={signOff} onChange={() => undefined} />, { workspace: { people } });
const warning = () => screen.queryByRole('status')?.textContent ?? null;

describe('who signs work off', () => {
  it('warns where only one person could, who may not sign work of their own', async () => {
    await shown({ by: 'manager' }, [INES]);
    expect(warning()).toBe(
      'Only Ines Calloway can sign it, and nobody signs their own work: what Ines Calloway does would wait for ever.',
    );
  });

  it('warns where nobody could', async () => {
    await shown({ by: 'role', role: 'Harbour master' }, [NADIA]);
    expect(warning()).toBe('Nobody here could sign it, so it would wait for ever.');
  });

  it('is quiet where two could, and where nobody has to', async () => {
    const { unmount } = await shown({ by: 'person', personId: NADIA.id });
    expect(warning()).toBe(null);
    unmount();
    await shown(null, [INES]);
    expect(warning()).toBe(null);
  });
});
