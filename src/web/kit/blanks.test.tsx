import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { describe, expect, it } from 'vitest';
import { dayOfIso, isoOfDay } from '../../core/index.ts';
import { show } from '../testing/show.tsx';
import { DateBlank, EstimateBlank, NumberBlank, TimeBlank } from './blanks.tsx';

function Starts() {
  const [on, setOn] = useState(dayOfIso('2026-11-27'));
  return (
    <>
      <DateBlank label="Starts on" value={on} onChange={setOn} />
      <output>{isoOfDay(on)}</output>
    </>
  );
}

describe('a date in a sentence', () => {
  it.each([
    ['1 Feb 2027', '2027-02-01', '1 Feb 2027'],
    ['2027-02-01', '2027-02-01', '1 Feb 2027'],
    ['friday', '2026-11-27', '27 Nov 2026'],
    ['1 Feb 28', '2028-02-01', '1 Feb 2028'],
  ])('reads “%s” once it is left', async (typed, iso, shown) => {
    await show(<Starts />);
    const user = userEvent.setup();
    const field = screen.getByRole('textbox', { name: 'Starts on' });
    await user.clear(field);
    await user.type(field, typed);
    await user.tab();
    expect(screen.getByRole('status').textContent).toBe(iso);
    expect((field as HTMLInputElement).value).toBe(shown);
    expect(screen.queryByRole('alert')).toBe(null);
  });

  it.each([
    ['31 feb 2027', /is no date: .* it stays 27 Nov 2026$/],
    ['1/2/2027', /can be .*2027 or .*2027: write which; it stays 27 Nov 2026$/],
    ['next monday', /^can be 30 Nov 2026 or 7 Dec 2026: write which; it stays 27 Nov 2026$/],
  ])('that reads “%s” stays as it was typed, says why, and is not another date', async (typed, why) => {
    await show(<Starts />);
    const user = userEvent.setup();
    const field = screen.getByRole('textbox', { name: 'Starts on' });
    await user.clear(field);
    await user.type(field, typed);
    await user.tab();
    expect((field as HTMLInputElement).value).toBe(typed);
    expect(field.getAttribute('aria-invalid')).toBe('true');
    expect(screen.getByRole('alert').textContent).toMatch(why);
    expect(screen.getByRole('status').textContent).toBe('2026-11-27');
    // Esc goes back to what holds.
    await user.click(field);
    await user.keyboard('{Escape}');
    expect((field as HTMLInputElement).value).toBe('27 Nov 2026');
  });

  it('can be chosen from a month, which then gives the focus back', async () => {
    await show(<Starts />);
    const user = userEvent.setup();
    await user.click(screen.getByRole('button', { name: 'Starts on: choose from a month' }));
    await user.click(await screen.findByRole('button', { name: 'Go to the Next Month' }));
    await user.click(await screen.findByRole('button', { name: /December 4th/ }));
    expect(screen.getByRole('status').textContent).toBe('2026-12-04');
  });
});

describe('what a blank can’t read', () => {
  it('is said with what would be', async () => {
    await show(
      <>
        <NumberBlank label="Every" value={2} least={1} most={99} onChange={() => undefined} />
        <TimeBlank label="Due at" value={null} placeholder="any time" onChange={() => undefined} />
        <EstimateBlank minutes={45} message={undefined} onChange={() => undefined} />
      </>,
    );
    const user = userEvent.setup();
    const refusals: (string | undefined | null)[] = [];
    const left: string[] = [];
    for (const [name, typed] of [
      ['Every', '0'],
      ['Due at', '25:00'],
      ['Estimate', 'long'],
    ] as const) {
      const field = screen.getByRole('textbox', { name });
      await user.clear(field);
      await user.type(field, typed);
      await user.tab();
      left.push((field as HTMLInputElement).value);
      refusals.push(document.getElementById(field.getAttribute('aria-describedby') ?? '')?.textContent ?? null);
    }
    expect(refusals).toEqual(['from 1 to 99', 'write it like 08:30', 'write it like 45 min or 1 h 30']);
    expect(left).toEqual(['0', '25:00', 'long']);
  });
});
