import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { expect, it } from 'vitest';
import { visitRulesSchema } from '../../../contract/index.ts';
import { NO_VISITS, type VisitRules } from '../../../core/index.ts';
import { show } from '../../testing/show.tsx';
import { VisitsPart } from './visits-part.tsx';

it('says how letters go and which types are announced; a way keeps its place under another name', async () => {
  let now: VisitRules = NO_VISITS;
  function Form() {
    const [visits, setVisits] = useState(now);
    now = visits;
    return <VisitsPart visits={visits} wrong={undefined} onChange={setVisits} />;
  }
  await show(<Form />, { workspace: { workTypes: ['routine', 'arrival'] } });
  const user = userEvent.setup();
  const write = async (label: string, text: string) => {
    const field = screen.getByLabelText(label);
    await user.clear(field);
    await user.type(field, `${text}{Enter}`);
    await user.tab();
  };
  expect(screen.queryByLabelText('Announce a type of work')).toBeNull();
  for (const [i, name] of ['by hand', 'post'].entries()) {
    await user.click(screen.getByRole('button', { name: 'Add a way a letter goes' }));
    await write(`Way ${i + 1} a letter goes`, name);
  }
  await user.selectOptions(screen.getByLabelText('As what it goes, post'), 'on paper, by post');
  await write('Days on its way, post', '2');
  await user.selectOptions(screen.getByLabelText('What days on its way are, post'), 'working days');
  await user.selectOptions(screen.getByLabelText('Announce a type of work'), 'routine');
  await user.selectOptions(screen.getByLabelText('Which days count, routine'), 'that of the visit is counted');
  await write('Days of notice, routine', '5');
  await user.click(screen.getByLabelText('routine goes by hand'));
  await write('Way 2 a letter goes', 'by post');
  expect(now).toEqual({
    ...NO_VISITS,
    ways: [
      { name: 'by hand', kind: 'hand', onItsWay: { days: 0, unit: 'day' } },
      { name: 'by post', kind: 'post', onItsWay: { days: 2, unit: 'workingDay' } },
    ],
    terms: [
      {
        type: 'routine',
        period: { days: 5, unit: 'day', countsReceipt: false, countsVisit: true },
        ...{ ways: ['by post'] },
      },
    ],
  });
  expect(visitRulesSchema.safeParse(now).success).toBe(true);
  // Without any way it is announced by none: that is refused, not forgotten.
  await user.click(screen.getByRole('button', { name: 'Take out by post' }));
  expect(visitRulesSchema.safeParse(now).error?.issues[0]?.message).toBe('Say by which way it may go.');
});
