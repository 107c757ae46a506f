import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { show } from '../testing/show.tsx';
import { ProblemError } from './api.ts';
import { RecordFoot, useRecordForm } from './record-form.tsx';

const schema = z.object({ version: z.number(), name: z.string().min(1, 'The name is missing.') });
type Record = z.infer<typeof schema>;

interface FormProps {
  readonly saved: Record;
  readonly isNew?: boolean;
  readonly onSave: (record: Record) => Promise<void>;
}

function Form({ saved, isNew = false, onSave }: FormProps) {
  const form = useRecordForm<Record>({ place: 'test', initial: saved, form: schema, check: schema, isNew });
  return (
    <>
      {form.meanwhile}
      <input aria-label="Name" value={form.draft.name} onChange={({ target }) => form.set({ name: target.value })} />
      <p>{form.at('name')}</p>
      <RecordFoot form={form}>
        <button type="button" onClick={() => void form.save(onSave)}>
          Save
        </button>
      </RecordFoot>
    </>
  );
}

const refused = () =>
  Promise.reject(
    new ProblemError({
      ...{ type: 'about:blank', title: 'Refused', status: 422, detail: 'Not so.' },
      errors: [{ path: 'name', message: 'That name is taken.' }],
    }),
  );
const name = () => screen.getByLabelText<HTMLInputElement>('Name');

describe('a record that is written down', () => {
  beforeEach(() => sessionStorage.clear());

  it('is kept when it is refused and when its sheet is closed, and put back on request', async () => {
    const user = userEvent.setup();
    const saved = { version: 1, name: 'Nell' };
    const page = await show(<Form saved={saved} onSave={refused} />);
    await user.type(name(), ' Iddon');
    await user.click(screen.getByRole('button', { name: 'Save' }));
    expect(await screen.findByText('That name is taken.')).toBeTruthy();
    page.unmount();
    await show(<Form saved={saved} onSave={refused} />);
    expect(name().value).toBe('Nell Iddon');
    await user.click(screen.getByRole('button', { name: 'Put back' }));
    expect(name().value).toBe('Nell');
    expect(screen.queryByRole('button', { name: 'Put back' })).toBe(null);
  });

  it('tells what is wrong with something new once it is tried to be saved, and does not send it', async () => {
    const user = userEvent.setup();
    const sent: Record[] = [];
    const onSave = async (record: Record) => void sent.push(record);
    await show(<Form saved={{ version: 0, name: '' }} isNew onSave={onSave} />);
    expect(screen.queryByText('The name is missing.')).toBe(null);
    await user.click(screen.getByRole('button', { name: 'Save' }));
    expect(screen.getByText('The name is missing.')).toBeTruthy();
    await user.type(name(), 'Nell');
    await user.click(screen.getByRole('button', { name: 'Save' }));
    await waitFor(() => expect(sent).toEqual([{ version: 0, name: 'Nell' }]));
  });

  it('says what somebody else has saved meanwhile, and is not written over unseen', async () => {
    const user = userEvent.setup();
    const page = await show(<Form saved={{ version: 1, name: 'Nell' }} onSave={refused} />);
    await user.type(name(), ' Iddon');
    page.show(<Form saved={{ version: 2, name: 'Nelly' }} onSave={refused} />);
    expect(await screen.findByText(/Somebody else has changed name since you began/)).toBeTruthy();
    expect(name().value).toBe('Nell Iddon');
    await user.click(screen.getByRole('button', { name: 'Take theirs there' }));
    expect(name().value).toBe('Nelly');
  });
});
