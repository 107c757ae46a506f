import { screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { expect, it } from 'vitest';
import { type Outcome, USUAL_OUTCOMES } from '../../../core/index.ts';
import { show } from '../../testing/show.tsx';
import { OutcomesList } from './outcomes-list.tsx';

it('how calls end is written in sentences: named, put in order, given what follows with its days, taken out and added', async () => {
  let now: readonly Outcome[] = USUAL_OUTCOMES.slice(0, 3);
  function Held() {
    const [outcomes, set] = useState(now);
    now = outcomes;
    return <OutcomesList outcomes={outcomes} onChange={set} />;
  }
  await show(<Held />);
  const user = userEvent.setup();
  await user.click(screen.getByRole('button', { name: 'Move no answer up' }));
  expect(now.map(({ key }) => key)).toEqual(['no-answer', 'reached', 'call-back']);
  await user.selectOptions(screen.getByLabelText('What follows from reached'), 'is left alone');
  expect(now[1]?.follows).toEqual({ kind: 'leftAlone', days: 180 });
  await user.selectOptions(screen.getByLabelText('For how long after reached'), 'for good');
  expect(now[1]?.follows).toEqual({ kind: 'leftAlone', days: null });
  await user.selectOptions(screen.getByLabelText('Whether reached reached anybody'), 'not spoken to');
  expect(now[1]?.isReached).toBe(false);
  await user.click(screen.getByRole('button', { name: 'Take call back out' }));
  await user.click(screen.getByRole('button', { name: 'Add a way to end' }));
  const lines = screen.getAllByRole('listitem');
  const name = within(lines.at(-1) as HTMLElement).getByLabelText('How calls end, 3');
  await user.type(name, 'asked for prices');
  await user.tab();
  expect(now.at(-1)).toEqual({ key: '', name: 'asked for prices', isReached: true, follows: { kind: 'rests' } });
});
