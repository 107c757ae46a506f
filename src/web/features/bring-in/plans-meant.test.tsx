import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes, useLocation } from 'react-router';
import { describe, expect, it } from 'vitest';
import type { BringIn } from '../../../contract/index.ts';
import { show } from '../../testing/show.tsx';
import { PlansMeant } from './plans-meant.tsx';

const ID = '01937000-0000-7000-8000-0000000000f1';
const PLAN = '01937000-0000-7000-8000-0000000000f2';
const CLIENTS = [{ id: '01937000-0000-7000-8000-0000000000f3', name: 'Fenna Quillon' }];
const plans = [
  { name: 'Resident berth', count: 3, planId: PLAN },
  { name: 'Residents', count: 1, planId: null },
];
const Arrived = () => <p>{JSON.stringify(useLocation())}</p>;
const part = (state: BringIn['state']) =>
  show(
    <Routes>
      <Route path="/" element={<PlansMeant bringIn={{ id: ID, state, plans } as unknown as BringIn} />} />
      <Route path="/plans/put-on" element={<Arrived />} />
    </Routes>,
    { answers: { [`/bring-ins/${ID}/for-plan?plan=${PLAN}`]: { clients: CLIENTS, isMore: false } } },
  );

describe('service plans that a list names', () => {
  it('are told before anything is written, with those that are none here', async () => {
    await part('open');
    expect(screen.getByText('“Residents” is no service plan here: 1 line')).toBeTruthy();
    expect(screen.getByText('Resident berth')).toBeTruthy();
    expect(screen.queryByRole('button')).toBeNull();
  });

  it('lead to the page on which its clients are put on them, once the list is in', async () => {
    await part('done');
    await userEvent.setup().click(screen.getByRole('button', { name: 'Put them on it …' }));
    const arrived = JSON.parse((await screen.findByText(/put-on/)).textContent ?? '{}');
    expect([arrived.search, arrived.state]).toEqual([`?plan=${PLAN}`, { clients: CLIENTS }]);
  });
});
