import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import type { Demand } from '../../../../core/index.ts';
import { show } from '../../../testing/show.tsx';
import { taskOf } from '../../../testing/tasks.ts';
import { ProofField } from './proof-field.tsx';

const PRESSURE: Demand = { key: 'bar', kind: 'number', label: 'Pressure', unit: 'bar', least: 0.3, most: 0.5 };
const TESTED: Demand = { key: 'on', kind: 'date', label: 'Tested on' };

const shown = (demand: Demand, answers = {}) => {
  const task = taskOf({ demands: [demand], answers });
  return show(<ProofField task={task} here={task} demand={demand} name={demand.label} isFixed={false} />);
};
const answered = (value: unknown) => ({ value, remark: '', at: '2026-11-24T09:00', by: 'Nadia Orme' });

describe('a reading', () => {
  it('is selected when the field is reached, so that what is typed takes its place', async () => {
    await shown(PRESSURE, { bar: answered(0.41) });
    const user = userEvent.setup();
    const field = screen.getByRole<HTMLInputElement>('textbox', { name: 'Pressure' });
    expect(field.value).toBe('0.41');
    await user.tab();
    expect(document.activeElement).toBe(field);
    await user.keyboard('0.39');
    expect(field.value).toBe('0.39');
  });

  it('outside its limits says by how much and asks for a remark', async () => {
    await shown(PRESSURE);
    const user = userEvent.setup();
    await user.type(screen.getByRole('textbox', { name: 'Pressure' }), '0,7');
    expect(screen.getByRole('textbox', { name: 'Remark on Pressure' })).toBeTruthy();
    expect(screen.getByText(/0\.2 bar/)).toBeTruthy();
    // Waited for, so that it does not go out while the next test looks at what is sent.
    await waitFor(() => expect(fetch).toHaveBeenCalledWith(expect.stringContaining('/answers'), expect.anything()), {
      timeout: 4000,
    });
  });

  it('that is no figure is not sent, and says so', async () => {
    await shown(PRESSURE);
    const user = userEvent.setup();
    await user.type(screen.getByRole('textbox', { name: 'Pressure' }), 'low');
    await user.tab();
    expect(screen.getByText(/not sent: write a figure/)).toBeTruthy();
    expect(fetch).not.toHaveBeenCalledWith(expect.stringContaining('/answers'), expect.anything());
  });
});

describe('a tag', () => {
  it('is chosen from among all there are, by its signs or by what it hangs on', async () => {
    const demand: Demand = { key: 'tag', kind: 'tag', label: 'Tag of the crane' };
    const task = taskOf({ demands: [demand] });
    const subject = { clientId: null, assetId: '01937000-0000-7000-8000-0000000000a1', detail: 'Lee Quay' };
    await show(<ProofField task={task} here={task} demand={demand} name={demand.label} isFixed={false} />, {
      answers: {
        '/subjects?q=': {
          subjects: [
            { ...subject, name: 'Crane 2', tag: 'CR-2' },
            { ...subject, name: 'Bins', tag: null },
          ],
          isMore: false,
        },
        [`PUT /tasks/${task.id}/answers`]: () => ({ task, changeId: null }),
      },
    });
    const user = userEvent.setup();
    await user.click(screen.getByRole('button', { name: 'Choose the tag' }));
    const options = await screen.findAllByRole('option');
    expect(options.map(({ textContent }) => textContent)).toEqual(['CR-2Crane 2, Lee Quay']);
    await user.click(options[0] as HTMLElement);
    await waitFor(() =>
      expect(fetch).toHaveBeenCalledWith(
        expect.stringContaining('/answers'),
        expect.objectContaining({ body: expect.stringContaining('CR-2') }),
      ),
    );
  });
});

describe('a date asked for as proof', () => {
  it('is written in words, like every other date', async () => {
    await shown(TESTED, { on: answered('2026-11-20') });
    const field = screen.getByRole<HTMLInputElement>('textbox', { name: 'Tested on' });
    expect([field.type, field.value]).toEqual(['text', '20 Nov 2026']);
    const user = userEvent.setup();
    await user.clear(field);
    await user.type(field, '31 feb');
    expect(screen.getByText(/not sent: write a date/)).toBeTruthy();
  });
});
