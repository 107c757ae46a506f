import { screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { describe, expect, it } from 'vitest';
import type { Tideline as Tide } from '../../../contract/index.ts';
import { dayOfIso, isoOfDay, weekdayOf } from '../../../core/index.ts';
import { show } from '../../testing/show.tsx';
import type { DaySpan } from './tide-words.ts';
import { Tideline } from './tideline.tsx';

const today = dayOfIso('2026-11-24');

function tideOf(late = 5): Tide {
  return {
    from: isoOfDay(today - 7),
    to: isoOfDay(today + 42),
    horizon: isoOfDay(today + 14),
    late,
    scope: 'everyone',
    days: Array.from({ length: 50 }, (_, i) => {
      const day = today - 7 + i;
      const isOff = weekdayOf(day) > 5;
      return {
        date: isoOfDay(day),
        done: day <= today && !isOff ? 60 : 0,
        open: isOff || day > today + 14 ? 0 : 90,
        projected: day > today + 14 && !isOff ? 45 : 0,
        tasks: isOff ? 0 : 3,
        capacity: isOff ? 0 : 480,
        isOff,
        holiday: null,
      };
    }),
  };
}

function Page({ spans, person }: { readonly spans: boolean; readonly person?: string }) {
  const [chosen, choose] = useState<DaySpan | null>(null);
  return (
    <>
      <Tideline personId={person} chosen={chosen} onChoose={choose} spans={spans} />
      <output>{chosen ? `${isoOfDay(chosen.from)}..${isoOfDay(chosen.to)}` : 'none'}</output>
    </>
  );
}

const at = () => screen.getByRole('status').textContent;
const opened = async (spans: boolean, tide = tideOf()) => {
  await show(<Page spans={spans} />, { answers: { '/tideline': tide } });
  (await screen.findByRole('slider')).focus();
  return userEvent.setup();
};

describe('the tideline', () => {
  it('goes by days, weeks, and to both ends with the keys', async () => {
    const user = await opened(false);
    await user.keyboard('{ArrowRight}');
    expect(at()).toBe('2026-11-25..2026-11-25');
    await user.keyboard('{PageDown}{ArrowLeft}');
    expect(at()).toBe('2026-12-01..2026-12-01');
    await user.keyboard('{End}{ArrowRight}');
    expect(at()).toBe('2027-01-05..2027-01-05');
    await user.keyboard('{Home}{ArrowLeft}');
    expect(at()).toBe('2026-11-17..2026-11-17');
  });

  it('reads the sum of a span, not its last day', async () => {
    const user = await opened(true);
    await user.keyboard('{Shift>}{ArrowRight}{ArrowRight}{/Shift}');
    expect(at()).toBe('2026-11-24..2026-11-26');
    const words = screen.getByRole('slider').getAttribute('aria-valuetext');
    expect(words).toMatch(/^Tue 24 Nov to Thu 26 Nov: /);
    // 3 × 90 min to do, 60 min done, in 9 tasks.
    expect(words).toContain('4 h 30');
    expect(words).toContain('1 h');
  });

  it('leads from what is late to it', async () => {
    await opened(true);
    expect(screen.getByRole('link', { name: /^5 late, everyone/ }).getAttribute('href')).toBe(
      '/tasks?are=late&due=any',
    );
  });

  it('of one person leads to that day sheet, and nowhere where nothing is late', async () => {
    const { unmount } = await show(<Page spans={false} person="nadia" />, {
      answers: { '/tideline?person=nadia': tideOf() },
    });
    expect((await screen.findByRole('link')).getAttribute('href')).toBe('/day-sheet/nadia');
    unmount();
    await opened(false, tideOf(0));
    expect(screen.queryByRole('link')).toBe(null);
  });

  it('stays folded away', async () => {
    const user = await opened(false);
    await user.click(screen.getByRole('button', { name: 'Fold the tideline away' }));
    expect(screen.queryByRole('slider')).toBe(null);
    expect(localStorage.getItem('jolly-rota.tideline')).toBe('folded');
  });
});
