import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { ACCESS_LEVELS, mayAll, RIGHT_NAMES, reachOf, sayWhoMayAll, whoMayAll } from './access.ts';
import { sayRoles } from './roles.ts';
import {
  minutesAWeek,
  minutesInWeeks,
  plainWeek,
  readDayHours,
  sayDayHours,
  type WeekHours,
  weekInPattern,
  weekWith,
} from './week-hours.ts';

describe('access', () => {
  it('goes as far for each level as for the one below it, or farther', () => {
    const far = { none: 0, own: 1, all: 2 };
    for (const right of RIGHT_NAMES) {
      const reaches = ACCESS_LEVELS.map((access) => far[reachOf(access, right)]);
      expect([right, ...reaches]).toEqual([right, ...reaches.toSorted((a, b) => b - a)]);
    }
  });

  it('keeps people, settings and mail for managers, and lets a viewer write nothing but what is their own', () => {
    for (const right of ['people', 'settings', 'post'] as const) expect(whoMayAll(right)).toEqual(['manager']);
    expect([sayWhoMayAll('plan'), sayWhoMayAll('settings')]).toEqual(['a planner or a manager', 'a manager']);
    expect(RIGHT_NAMES.filter((right) => reachOf('viewer', right) !== 'none')).toEqual(['read', 'account']);
    expect(mayAll('planner', 'plan')).toBe(true);
    expect(reachOf('member', 'work')).toBe('own');
  });
});

const week = fc.array(fc.integer({ min: 0, max: 1440 }), { minLength: 7, maxLength: 7 });
const anyHours: fc.Arbitrary<WeekHours> = fc.record({
  weeks: fc.array(week, { minLength: 1, maxLength: 2 }),
  from: fc.integer({ min: -20_000, max: 60_000 }).map(isoOfDay),
});
const minutesOn = ({ weeks, from }: WeekHours, day: CivilDay) => minutesInWeeks(weeks, dayOfIso(from), day);
const anyDay = fc.integer({ min: -20_000, max: 60_000 });

describe('hours by the week', () => {
  it('come again after as many weeks as there are, before the day they are told from too', () => {
    fc.assert(
      fc.property(anyHours, anyDay, (hours, day) => {
        expect(minutesOn(hours, day)).toBe(minutesOn(hours, day + 7 * hours.weeks.length));
        expect(weekInPattern(hours, dayOfIso(hours.from))).toBe(0);
      }),
    );
  });

  it('add up over the weeks that take turns', () => {
    fc.assert(
      fc.property(anyHours, anyDay, (hours, day) => {
        const days = 7 * hours.weeks.length;
        const sum = Array.from({ length: days }, (_, i) => minutesOn(hours, day + i)).reduce((a, b) => a + b, 0);
        expect(sum).toBe(minutesAWeek(hours) * hours.weeks.length);
      }),
    );
  });

  it('of two weeks change on Monday', () => {
    // Tue 24 Nov 2026 lies in the first of them.
    const hours = { weeks: [plainWeek(60, [1]), plainWeek(90, [1, 7])], from: '2026-11-24' };
    const on = (iso: string) => minutesOn(hours, dayOfIso(iso));
    expect([on('2026-11-23'), on('2026-11-29'), on('2026-11-30'), on('2026-12-06'), on('2026-12-07')]).toEqual([
      60, 0, 90, 90, 60,
    ]);
  });
});

it('reads and writes the hours of a day', () => {
  expect(['7.5', '7,5', '7:30', '7 h 30', '450 min', '', '24', '25', 'all day'].map(readDayHours)).toEqual([
    450,
    450,
    450,
    450,
    450,
    0,
    1440,
    null,
    null,
  ]);
  for (let minutes = 0; minutes <= 1440; minutes++) expect(readDayHours(sayDayHours(minutes))).toBe(minutes);
});

it('says the roles of somebody', () => {
  expect(sayRoles(['dock crew', 'first aider'])).toBe('dock crew and first aider');
  expect(sayRoles([])).toBe('no role yet');
});

describe('the week of a workspace', () => {
  it('gives a day that becomes worked as many hours as most have, and one that is off none', () => {
    expect(weekWith([480, 480, 480, 300, 300, 0, 0], [1, 2, 3, 4, 6])).toEqual([480, 480, 480, 300, 0, 480, 0]);
    expect(weekWith([], [1, 2])).toEqual([450, 450, 0, 0, 0, 0, 0]);
  });
});
