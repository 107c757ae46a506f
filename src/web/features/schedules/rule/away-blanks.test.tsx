import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { describe, expect, it } from 'vitest';
import { type Rule, writePhrase } from '../../../../core/index.ts';
import { show } from '../../../testing/show.tsx';
import { RuleDetails } from './rule-details.tsx';

const monthEnd: Rule = { kind: 'months', every: 1, months: [], on: [{ kind: 'date', day: -1 }], missing: 'last' };

function Blanks({ first }: { readonly first: Rule }) {
  const [rule, setRule] = useState(first);
  const phrase = writePhrase(
    { start: '2026-11-24', rules: [rule], end: { kind: 'never' }, dayOff: 'none' },
    { start: 'unsaid' },
  );
  return (
    <>
      <RuleDetails rule={rule} name="The rule" onChange={setRule} />
      <output>{phrase}</output>
    </>
  );
}

const phrase = () => screen.getByRole('status').textContent;
const choose = (label: string, option: string) => userEvent.selectOptions(screen.getByLabelText(label), option);

describe('how far from its place a date lies', () => {
  it('is chosen word by word, and taken back', async () => {
    await show(<Blanks first={monthEnd} />);
    expect(phrase()).toBe('last day of each month');
    await choose('The rule: on which side', 'before');
    expect(phrase()).toBe('working day before the last day of each month');
    const amount = screen.getByLabelText('The rule: how far');
    await userEvent.clear(amount);
    await userEvent.type(amount, '3');
    expect(phrase()).toBe('3 working days before the last day of each month');
    await choose('The rule: counted in', 'Friday');
    // So many working days are no rank of Fridays: the first of them.
    expect(phrase()).toBe('Friday before the last day of each month');
    await choose('The rule: which of them', 'second');
    await choose('The rule: on which side', 'on or before');
    expect(phrase()).toBe('second Friday on or before the last day of each month');
    await choose('The rule: counted in', 'day');
    expect(phrase()).toBe('2 days before the last day of each month');
    await choose('The rule: on which side', 'on');
    expect(phrase()).toBe('last day of each month');
  });

  it('of Easter has neither an article nor months', async () => {
    const easter: Rule = { kind: 'years', every: 1, months: [3, 4], on: [{ kind: 'easter' }], missing: 'last' };
    await show(<Blanks first={{ ...easter, away: { amount: 10, of: 'day', way: 'before' } }} />);
    expect(phrase()).toBe('yearly, 10 days before Easter Sunday');
    expect(screen.queryByLabelText('The rule: months')).toBeNull();
    expect(screen.queryByRole('button', { name: 'and another' })).toBeNull();
  });
});
