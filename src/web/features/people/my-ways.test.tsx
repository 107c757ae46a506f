import { fireEvent, screen, waitFor } from '@testing-library/react';
import { expect, it } from 'vitest';
import { dayOfIso } from '../../../core/index.ts';
import { DateBlock } from '../../kit/date-block.tsx';
import { sayTime } from '../../kit/ways.ts';
import { show, workspaceOf } from '../../testing/show.tsx';
import { MyWays } from './my-ways.tsx';

const NONE = { weekStarts: null, dateOrder: null, clock: null };

function Page() {
  return (
    <>
      <MyWays />
      <p data-testid="seen">
        <DateBlock day={dayOfIso('2026-11-24')} /> {sayTime('14:30')}
      </p>
    </>
  );
}

it('holds at once, on the whole page, and is as everybody here has it where nothing is chosen', async () => {
  let own: object = NONE;
  await show(<Page />, {
    answers: {
      '/workspace': () => ({ ...workspaceOf(), myWays: own }),
      'PUT /account/ways': (sent: object) => {
        own = sent;
        return sent;
      },
    },
  });
  const seen = () => screen.getByTestId('seen').textContent?.replace(/\s+/g, '');
  expect(seen()).toBe('Tue24Nov14:30');
  const clock = () => screen.getByLabelText<HTMLSelectElement>('How times are shown to you');
  expect(clock().selectedOptions[0]?.text).toBe('14:30, as everybody here');
  fireEvent.change(clock(), { target: { value: '12' } });
  await waitFor(() => expect(seen()).toBe('Tue24Nov2:30pm'));
  fireEvent.change(screen.getByLabelText('How dates are shown to you'), { target: { value: 'month first' } });
  await waitFor(() => expect(seen()).toBe('TueNov242:30pm'));
  fireEvent.change(clock(), { target: { value: '' } });
  await waitFor(() => expect(seen()).toBe('TueNov2414:30'));
  expect(own).toEqual({ ...NONE, dateOrder: 'month first' });
});

it('stays as it was where it is refused', async () => {
  await show(<Page />, { answers: { 'PUT /account/ways': new Error('no net') } });
  const order = screen.getByLabelText<HTMLSelectElement>('How dates are shown to you');
  fireEvent.change(order, { target: { value: 'month first' } });
  await waitFor(() => expect(order.closest('fieldset')?.disabled).toBe(false));
  expect(order.value).toBe('');
});
