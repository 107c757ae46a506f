import { fireEvent, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Route, Routes } from 'react-router';
import { describe, expect, it, vi } from 'vitest';
import { ShellContext } from '../../../app/shell/shell-context.ts';
import { listAnswers, scheduleLine } from '../../../testing/schedules.ts';
import { INES, NADIA, show } from '../../../testing/show.tsx';
import SchedulesPage from './schedules-page.tsx';

const shell = { startNow: () => undefined, capture: () => undefined };
const page = (
  <ShellContext value={shell}>
    <Routes>
      <Route path="*" element={<SchedulesPage />} />
    </Routes>
  </ShellContext>
);
const MANY = Array.from({ length: 1000 }, (_, i) => scheduleLine(i + 1));
const TUESDAYS = listAnswers('order=next', MANY);
const NO_RUN = { '/runs/last': { run: null } };
/** How far down a table was is remembered by its address. */
let tables = 0;
const shown = (answers: Readonly<Record<string, unknown>> = {}, me = INES) =>
  show(page, { me, path: `/table-${++tables}`, answers: { ...NO_RUN, ...TUESDAYS, ...answers } });
const frame = () => screen.getByRole('table').parentElement as HTMLElement;
const chosen = () => screen.queryByText(/schedules? chosen$/)?.textContent ?? 'none';

describe('the table of a thousand schedules', () => {
  it('has what is in view, and fetches what is scrolled to without what stands between', async () => {
    await shown();
    await screen.findByRole('link', { name: 'Round 1' });
    expect(screen.getByRole('table').getAttribute('aria-rowcount')).toBe('1001');
    expect(screen.getByText('1000')).toBeTruthy();
    frame().scrollTop = 700 * 36;
    fireEvent.scroll(frame());
    await screen.findByRole('link', { name: 'Round 701' });
    const asked = vi.mocked(fetch).mock.calls.map(([address]) => String(address));
    expect(asked.filter((address) => address.startsWith('/api/schedules?')).length).toBeLessThan(5);
  });

  it('is chosen as a whole without being here', async () => {
    await shown();
    await screen.findByRole('link', { name: 'Round 1' });
    await userEvent.setup().click(screen.getByRole('checkbox', { name: 'Choose all' }));
    await waitFor(() => expect(chosen()).toBe('1000 schedules chosen'));
    // Some that are not here may be paused.
    expect(screen.getByRole('button', { name: 'Resume' })).toBeTruthy();
    await userEvent.setup().click(screen.getByRole('checkbox', { name: 'Choose none' }));
    expect(chosen()).toBe('none');
  });

  it('is chosen from one line to another, however far apart', async () => {
    await shown();
    const user = userEvent.setup();
    await user.click(await screen.findByRole('checkbox', { name: 'Choose Round 3' }));
    frame().scrollTop = 800 * 36;
    fireEvent.scroll(frame());
    await user.keyboard('{Shift>}');
    await user.click(await screen.findByRole('checkbox', { name: 'Choose Round 802' }));
    await user.keyboard('{/Shift}');
    await waitFor(() => expect(chosen()).toBe('800 schedules chosen'));
  });

  it('leaves nothing chosen that does not fit any more', async () => {
    await shown(listAnswers('order=next&find=other', MANY.slice(0, 2), 1000));
    const user = userEvent.setup();
    await user.click(await screen.findByRole('checkbox', { name: 'Choose Round 3' }));
    expect(chosen()).toBe('1 schedule chosen');
    fireEvent.change(screen.getByRole('searchbox', { name: 'Find schedules' }), { target: { value: 'other' } });
    await screen.findByText('2 of 1000');
    expect(chosen()).toBe('none');
  });

  it('changes chosen ones from what they are by then', async () => {
    const asked: unknown[] = [];
    await shown({
      'POST /schedules/whole': (body: unknown) => {
        asked.push(body);
        return { schedules: [] };
      },
    });
    const user = userEvent.setup();
    await user.click(await screen.findByRole('checkbox', { name: 'Choose Round 2' }));
    await user.click(screen.getByRole('button', { name: 'End …' }));
    await user.click(screen.getByRole('button', { name: 'Look at what it changes' }));
    // They are gone meanwhile.
    expect(await screen.findByText('None of them changes by that.')).toBeTruthy();
    expect(asked).toEqual([{ ids: [MANY[1]?.id] }]);
  });

  it('says what could not be fetched, and fetches it again', async () => {
    const start = '/schedules?order=next&start=700';
    const answers: Record<string, unknown> = { [start]: new Error('no way') };
    await shown(answers);
    await screen.findByRole('link', { name: 'Round 1' });
    frame().scrollTop = 705 * 36;
    fireEvent.scroll(frame());
    expect(await screen.findByText(/The server does not answer/)).toBeTruthy();
    vi.mocked(fetch).mockImplementation(async () => new Response(JSON.stringify(TUESDAYS[start])));
    await userEvent.setup().click(screen.getByRole('button', { name: 'Again' }));
    await screen.findByRole('link', { name: 'Round 706' });
    await waitFor(() => expect(screen.queryByText(/The server does not answer/)).toBe(null));
  });

  it('is not chosen from by whoever may not change it', async () => {
    await shown({}, NADIA);
    await screen.findByRole('link', { name: 'Round 1' });
    expect(screen.queryByRole('checkbox')).toBe(null);
  });
});
