import { screen } from '@testing-library/react';
import { useLayoutEffect } from 'react';
import { describe, expect, it } from 'vitest';
import type { Impact } from '../../../contract/index.ts';
import { show } from '../../testing/show.tsx';
import { ImpactDialog } from './impact-dialog.tsx';

const IMPACT: Impact = {
  figures: { added: 1, changed: 0, removed: 0, keptByHand: 0, keptShowing: 0, keptBegun: 0, keptLacking: 0 },
  items: [],
  years: [],
  datesBefore: 12,
  datesAfter: 13,
};

describe('the dialog of an impact', () => {
  it('has the deed under Enter from the moment it stands there', async () => {
    const focused: (string | null | undefined)[] = [];
    function Page() {
      // As the browser has it before any key can come: effects that follow the drawing have not run.
      useLayoutEffect(() => void focused.push(document.activeElement?.textContent), []);
      return (
        <ImpactDialog what="Payroll run" first={IMPACT} ask={null} onSave={() => undefined} onClose={() => undefined} />
      );
    }
    await show(<Page />);
    expect(focused[0]).toBe('Add 1 task');
  });

  it('is held while it is saved, and says how far that is', async () => {
    const dialog = (saving: { percent: number | null } | null) => (
      <ImpactDialog
        what="Payroll run"
        first={IMPACT}
        ask={null}
        saving={saving}
        onSave={() => undefined}
        onClose={() => undefined}
      />
    );
    const shown = await show(dialog(null));
    const button = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Add 1 task' });
    expect([button().disabled, screen.getByRole('status').textContent]).toEqual([false, '']);
    shown.show(dialog({ percent: null }));
    expect([button().disabled, screen.getByRole('status').textContent]).toEqual([true, 'Saving …']);
    shown.show(dialog({ percent: 40 }));
    expect(screen.getByRole('status').textContent).toBe('40 % is saved');
  });
});
