import { screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { describe, expect, it } from 'vitest';
import type { PlanLook, ServicePlan } from '../../../contract/index.ts';
import { PLAIN_TIMING, parsePhrase } from '../../../core/index.ts';
import { NADIA, show } from '../../testing/show.tsx';
import { HoursByMonth, MonthFigures } from './month-figures.tsx';
import { PlanPage } from './plan-page.tsx';

const PLAN = '01937000-0000-7000-8000-00000000c001';
const TEMPLATE = '01937000-0000-7000-8000-00000000d001';
const months = (tasks: number) =>
  Array.from({ length: 12 }, (_, i) => ({
    month: `2027-${String(i + 1).padStart(2, '0')}-01`,
    tasks,
    minutes: tasks * 30,
  }));
const look: PlanLook = {
  items: [{ key: 'gas', before: months(2), after: months(4) }],
  ...{ changes: 3, keepsCount: 1, each: [{ key: 'gas', tasks: 24, minutes: 720 }] },
  keeps: [{ id: PLAN, client: { id: PLAN, name: 'Rosalind Oatley' }, says: 'first Thursday of each month' }],
};
const plan: ServicePlan = {
  ...{ id: PLAN, version: 3, name: 'Resident berth', note: '', rollsOn: 'itself', isArchived: false, clients: 4 },
  items: [
    {
      ...{ key: 'gas', templateId: TEMPLATE, counts: 'joining', after: { amount: 0, unit: 'day' } },
      recurrence: parsePhrase('first Tuesday of each month', { start: '2026-01-01' }),
      timing: { ...PLAIN_TIMING, appears: { amount: -1, unit: 'workingDay' } },
      ...{
        overlap: { kind: 'add' },
        assignment: { v: 1, kind: 'nobody' },
        estimateMinutes: null,
        each: 'client',
        minutes: 30,
      },
      template: { id: TEMPLATE, name: 'Gas', estimateMinutes: 30, tasks: 1, isArchived: false, notice: '7 days' },
      ...{ phrase: 'first Tuesday of each month', who: 'nobody yet' },
    },
  ],
};
const page = (
  <Routes>
    <Route path="/plans/:planId" element={<PlanPage />} />
  </Routes>
);
const answers = {
  [`/plans/${PLAN}`]: plan,
  [`/plans/${PLAN}/clients`]: { clients: [], more: null, counts: { all: 4, own: 0, changes: 0 } },
  [`/plans/${PLAN}/history`]: { entries: [], why: [] },
  '/plans': { plans: [] },
  'POST /plan-look': look,
  '/templates': { templates: [], more: null },
};

describe('the page of a plan', () => {
  it('asks about a person by name, and tells who changes and who keeps their own', async () => {
    await show(page, { path: `/plans/${PLAN}`, answers });
    const user = userEvent.setup();
    expect(await screen.findByText('24 a year each')).toBeTruthy();
    expect(screen.getByText(/notice 7 days/)).toBeTruthy();
    const save = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Look at what it changes' });
    expect(save().disabled).toBe(true);
    await user.click(screen.getByRole('button', { name: /^Who does Gas/ }));
    await user.click(await screen.findByRole('option', { name: /Ines Calloway/ }));
    expect(screen.getByText(/Every client’s Gas then goes to one person/)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'The usual person instead' }));
    expect(screen.queryByText(/then goes to one person/)).toBe(null);
    await waitFor(() => expect(screen.getByText('It changes 3 clients, 1 keeps its own')).toBeTruthy());
    expect(screen.getByText('first Thursday of each month')).toBeTruthy();
    expect(save().disabled).toBe(false);
    await user.click(screen.getByRole('button', { name: 'Take Gas out' }));
    expect(screen.getByText('is taken out')).toBeTruthy();
    await user.click(screen.getByRole('button', { name: 'Put back' }));
    expect(save().disabled).toBe(true);
  });

  it('shows whoever may not plan what stands in it, and nothing to write in', async () => {
    await show(page, { me: NADIA, path: `/plans/${PLAN}`, answers });
    expect(await screen.findByRole('heading', { name: '4 clients on it' })).toBeTruthy();
    expect(screen.getByText(/first Tuesday of each month/)).toBeTruthy();
    expect(screen.queryByRole('textbox')).toBe(null);
  });
});

describe('the months of a plan', () => {
  it('stand struck beside what they become, and add up', async () => {
    await show(<MonthFigures before={months(2)} after={months(4)} isNew={false} />);
    expect(screen.getAllByText('2').every(({ tagName }) => tagName === 'S')).toBe(true);
    expect([screen.getByText('48').tagName, screen.getByText('24').tagName]).toEqual(['B', 'S']);
  });

  it('come to hours of a year', async () => {
    await show(<HoursByMonth look={look} clients={4} />);
    expect(screen.getByText('24 h')).toBeTruthy();
    expect(screen.getByText('in 2027')).toBeTruthy();
  });
});
