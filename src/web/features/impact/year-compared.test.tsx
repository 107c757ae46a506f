import { screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { show } from '../../testing/show.tsx';
import { YearCompared } from './year-compared.tsx';

describe('a year before and after', () => {
  it('counts in words that fit the number', async () => {
    const days = (count: number) =>
      Array.from({ length: count }, (_, i) => ({ on: `2026-12-0${i + 1}`, isMain: i === 0 }));
    await show(<YearCompared years={[{ scheduleId: 'a', name: 'Payroll run', before: days(1), after: days(2) }]} />);
    expect(screen.getAllByRole('img').map((line) => line.getAttribute('aria-label'))).toEqual([
      'as it is: 1 task',
      'after: 2 tasks',
    ]);
  });
});
