import { fireEvent, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { describe, expect, it } from 'vitest';
import { show } from '../testing/show.tsx';
import { LongTable } from './long-table.tsx';

const NAMES = Array.from({ length: 3000 }, (_, i) => `Template ${i}`);
const table = (
  <LongTable
    count={NAMES.length}
    columns={[null]}
    minWidth={100}
    head={<th>Name</th>}
    row={(index) => (
      <tr key={index} data-row tabIndex={0}>
        <td>{NAMES[index]}</td>
      </tr>
    )}
  />
);
const frame = () => screen.getByRole('table').parentElement as HTMLElement;

describe('a long table', () => {
  it('draws what is in view, of however many', async () => {
    await show(table, { path: '/templates' });
    expect(screen.getByRole('table').getAttribute('aria-rowcount')).toBe('3001');
    expect(screen.getAllByRole('row').length).toBeLessThan(60);
  });

  it('is found where it was left, on its own page only', async () => {
    const first = await show(table, { path: '/templates' });
    frame().scrollTop = 36_000;
    fireEvent.scroll(frame());
    first.unmount();
    const elsewhere = await show(table, { path: '/schedules' });
    expect(frame().scrollTop).toBe(0);
    elsewhere.unmount();
    await show(table, { path: '/templates' });
    expect(frame().scrollTop).toBe(36_000);
    expect(screen.getByText('Template 1000')).toBeTruthy();
  });

  it('is walked through with arrows, Home and End', async () => {
    await show(table, { path: '/elsewhere' });
    const user = userEvent.setup();
    const rows = screen
      .getAllByRole('row')
      .slice(1)
      .filter((row) => row.hasAttribute('data-row'));
    rows[0]?.focus();
    await user.keyboard('{ArrowDown}{ArrowDown}{ArrowUp}');
    expect(document.activeElement).toBe(rows[1]);
    await user.keyboard('{End}');
    expect(document.activeElement).toBe(rows.at(-1));
    await user.keyboard('{Home}');
    expect(document.activeElement).toBe(rows[0]);
  });
});
