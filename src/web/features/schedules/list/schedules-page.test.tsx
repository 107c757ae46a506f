import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { describe, expect, it } from 'vitest';
import { INES, NADIA, show } from '../../../testing/show.tsx';
import CaptureBar from '../../tasks/capture/capture-bar.tsx';
import TemplatePage from '../../templates/template-page.tsx';
import ScheduleBench from '../bench/schedule-bench.tsx';
import { FirstSchedules } from './first-schedules.tsx';

/** A workspace that has only begun: one person, nothing else. */
const BEGUN = { people: [INES], categories: [] };
const NO_TEMPLATES = { '/templates': { templates: [], more: null } };

const bench = (
  <Routes>
    <Route path="/schedules/:scheduleId" element={<ScheduleBench />} />
    <Route path="/templates/:templateId" element={<TemplatePage />} />
  </Routes>
);

describe('a workspace that has only begun', () => {
  it('is led to its first template before a schedule', async () => {
    await show(<FirstSchedules />, { workspace: BEGUN, answers: NO_TEMPLATES });
    expect(screen.getByRole('link', { name: 'Write the first template' }).getAttribute('href')).toBe('/templates/new');
    expect(screen.queryByText(/Take one of these/)).toBe(null);
  });

  it('is not offered to save a schedule of nothing, and led on from the empty list', async () => {
    await show(bench, { workspace: BEGUN, answers: NO_TEMPLATES, path: '/schedules/new' });
    const save = await screen.findByRole<HTMLButtonElement>('button', { name: /^Save/ });
    expect([save.textContent, save.disabled]).toEqual(['Save the schedule', true]);
    expect(screen.getByRole('link', { name: 'write the first template' }).getAttribute('href')).toBe('/templates/new');
    expect(screen.getAllByText('Choose what is to be done.').length).toBeGreaterThan(0);
  });

  it('is shown an example of a task made of names that it has', async () => {
    const { unmount } = await show(<CaptureBar onClose={() => undefined} onLands={() => undefined} />, {
      workspace: BEGUN,
    });
    expect(screen.getByRole('textbox').getAttribute('placeholder')).toBe('ring the insurer friday 10:00 20 min');
    unmount();
    await show(<CaptureBar onClose={() => undefined} onLands={() => undefined} />, {
      workspace: { people: [INES, NADIA] },
    });
    expect(screen.getByRole('textbox').getAttribute('placeholder')).toBe(
      'ring the insurer friday 10:00 to Nadia 20 min',
    );
  });
});

describe('a form that only a manager could save', () => {
  it.each(['/schedules/new', '/templates/new'])('is not shown to others at %s', async (path) => {
    await show(bench, { me: NADIA, path, answers: NO_TEMPLATES });
    expect(await screen.findByRole('heading', { name: /^Only a planner or a manager can/ })).toBeTruthy();
    expect(screen.queryByRole('textbox')).toBe(null);
  });
});

describe('reminders', () => {
  it('say where they are set that nothing sends them yet', async () => {
    await show(bench, { answers: NO_TEMPLATES, path: '/schedules/new' });
    await userEvent.setup().click(await screen.findByRole('button', { name: 'Add a reminder' }));
    expect(screen.getByText(/nothing sends them yet/)).toBeTruthy();
  });
});
