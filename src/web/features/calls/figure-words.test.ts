import { describe, expect, it } from 'vitest';
import { barsBy, sayHours, stacked } from './figure-words.ts';

const HOURS = [
  { hour: 9, weekday: 0, rung: 60, reached: 18 },
  { hour: 9, weekday: 3, rung: 40, reached: 13 },
  { hour: 11, weekday: 3, rung: 50, reached: 34 },
  { hour: 18, weekday: 4, rung: 2, reached: 2 },
];

describe('calls by their hours', () => {
  it('are added up by the hour or the weekday, with none left out between the first and the last', () => {
    expect(barsBy(HOURS, 'hour').map(({ name, rung, share }) => [name, rung, share])).toEqual([
      ['09', 100, 31],
      ['10', 0, 0],
      ['11', 50, 68],
      ...['12', '13', '14', '15', '16', '17'].map((name) => [name, 0, 0]),
      ['18', 2, 100],
    ]);
    expect(barsBy(HOURS, 'weekday').map(({ name, rung }) => [name, rung])).toEqual([
      ['Mon', 60],
      ['Tue', 0],
      ['Wed', 0],
      ['Thu', 90],
      ['Fri', 2],
    ]);
    expect(barsBy([], 'hour')).toEqual([]);
  });

  it('are compared in words where there are enough of them', () => {
    expect(sayHours(HOURS)).toBe(
      'In the hour from 11:00 most are reached, 68 of 100; fewest in the one from 09:00, 31.',
    );
    expect(sayHours(HOURS.slice(3))).toBe('');
  });

  it('are stacked by what follows from how they ended, the same in the order of the workspace', () => {
    const ends = (['triedAgain', 'rests', 'wrongNumber', 'rests'] as const).map((follows, n) => ({
      ...{ key: `k${n}`, name: `k${n}`, isReached: true, count: 1 },
      follows,
    }));
    expect(stacked(ends).map(({ key }) => key)).toEqual(['k1', 'k3', 'k0', 'k2']);
  });
});
