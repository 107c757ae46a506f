import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { expect, it } from 'vitest';
import type { HearRules } from '../../../core/index.ts';
import { show } from '../../testing/show.tsx';
import { HearingPart } from './hearing-part.tsx';

const said: HearRules[] = [];
function Around() {
  const [hearing, setHearing] = useState<HearRules>({});
  return (
    <HearingPart
      hearing={hearing}
      onChange={(next) => {
        said.push(next);
        setHearing(next);
      }}
    />
  );
}

it('says for each group and side what they usually hear of, and keeps only what is otherwise', async () => {
  await show(<Around />);
  const user = userEvent.setup();
  const late = () => screen.getByRole<HTMLSelectElement>('combobox', { name: 'Late: by mail' });
  expect(late().value).toBe('on');
  // Whoever names somebody is always told of.
  expect(within(screen.getByRole('row', { name: /^Named or nudged/ })).getAllByRole('combobox')).toHaveLength(2);
  expect(screen.queryByRole('row', { name: /^A run left work out/ })).toBeNull();
  await user.selectOptions(screen.getByLabelText('Of whose work'), 'work of others');
  expect(screen.getByRole('row', { name: /^A run left work out/ })).toBeTruthy();
  await user.selectOptions(screen.getByLabelText('Who hears of it'), 'everybody else');
  expect(screen.queryByRole('row', { name: /^A run left work out/ })).toBeNull();
  await user.selectOptions(late(), 'always');
  expect(said).toEqual([{ others: { gave: { late: { here: 'on', mail: 'always', phone: 'off' } } } }]);
  expect(late().value).toBe('always');
});
