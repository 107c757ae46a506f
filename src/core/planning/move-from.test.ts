import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { WEEKDAYS_ONLY } from '../calendar/working-calendar.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { anyOrLone, monthsRule } from '../recurrence/generated.ts';
import type { Recurrence, Rule } from '../recurrence/rule.ts';
import type { ByHand } from './by-hand.ts';
import { moveFrom, unnamedFrom } from './move-from.ts';
import { isDated, planDays } from './plan.ts';
import { PLAIN_TIMING } from './timing.ts';

const of = (rule: Rule, start = '2026-09-01'): Recurrence => ({
  start,
  rules: [rule],
  end: { kind: 'never' },
  dayOff: 'none',
});
const draftOf = (recurrence: Recurrence, rest: Partial<ByHand> = {}): ByHand => ({
  ...{ recurrence, timing: PLAIN_TIMING, pauses: [], exceptions: [], revisions: [] },
  ...rest,
});
const [FIRST, LAST] = [dayOfIso('2026-09-01'), dayOfIso('2027-06-30')];
const daysOf = (draft: ByHand, from = FIRST, to = LAST) =>
  planDays(draft, WEEKDAYS_ONLY, from, to)
    .filter(isDated)
    .map(({ on }) => on);
const TUESDAYS = of({ kind: 'weeks', every: 1, on: [2] });
const moved = (draft: ByHand, from: string, days: number): ByHand => {
  const result = moveFrom(draft, WEEKDAYS_ONLY, dayOfIso(from), days);
  if (result.kind !== 'moved') throw new Error(result.kind);
  return result.draft;
};
const iso = (days: readonly number[]) => days.map(isoOfDay);

describe('moving all dates from one on', () => {
  it('moves exactly these, however far, over rules that take over from each other', () => {
    let reached = 0;
    let ran = 0;
    const anyPlain = anyOrLone.map(
      ({ closed: _, except: __, ...any }): Recurrence => ({
        ...any,
        start: '2026-09-01',
        end: { kind: 'never' },
        dayOff: 'none',
      }),
    );
    fc.assert(
      fc.property(
        anyPlain,
        fc.option(anyPlain, { nil: null }),
        fc.integer({ min: -40, max: 40 }).filter((days) => days !== 0),
        fc.integer({ min: 40, max: 150 }),
        (recurrence, next, days, at) => {
          const takesOver = isoOfDay(FIRST + 100);
          const draft = draftOf(recurrence, {
            revisions: next
              ? [{ from: takesOver, recurrence: { ...next, start: takesOver }, timing: PLAIN_TIMING }]
              : [],
          });
          const from = FIRST + at;
          const before = daysOf(draft, FIRST, LAST + 60);
          const result = moveFrom(draft, WEEKDAYS_ONLY, from, days);
          if (result.kind === 'runsInto') {
            ran++;
            expect(before.filter((day) => day >= from + days && day < from).length).toBe(result.dates);
          }
          if (result.kind !== 'moved') return;
          reached++;
          const expected = before.map((day) => (day < from ? day : day + days)).filter((day) => day <= LAST);
          expect(iso(daysOf(result.draft))).toEqual(iso([...new Set(expected)].sort((a, b) => a - b)));
        },
      ),
      { numRuns: 1200 },
    );
    expect(reached).toBeGreaterThan(100);
    expect(ran).toBeGreaterThan(0);
  });

  it('leaves the first of them out of its old place, though the rule gives the same weekday', () => {
    const draft = moved(draftOf(TUESDAYS), '2026-12-08', 7);
    expect(iso(daysOf(draft, dayOfIso('2026-11-24'), dayOfIso('2026-12-29')))).toEqual([
      ...['2026-11-24', '2026-12-01', '2026-12-15', '2026-12-22', '2026-12-29'],
    ]);
  });

  it('takes along what was changed by hand of them, and no more', () => {
    const draft = draftOf(TUESDAYS, {
      exceptions: [
        { kind: 'skip', date: '2026-11-24' },
        { kind: 'skip', date: '2026-12-15' },
        { kind: 'move', date: '2026-12-22', to: '2026-12-23' },
        { kind: 'add', date: '2026-12-10' },
        { kind: 'change', date: '2026-12-08', change: { startTime: '09:00' } },
      ],
    });
    expect(moved(draft, '2026-12-08', 2).exceptions).toEqual([
      { kind: 'skip', date: '2026-11-24' },
      { kind: 'skip', date: '2026-12-17' },
      { kind: 'move', date: '2026-12-24', to: '2026-12-25' },
      { kind: 'add', date: '2026-12-12' },
      { kind: 'change', date: '2026-12-10', change: { startTime: '09:00' } },
    ]);
  });

  it('says what is in the way: dates before them, or a rule that none of ours can say', () => {
    const back = moveFrom(draftOf(TUESDAYS), WEEKDAYS_ONLY, dayOfIso('2026-12-08'), -8);
    expect(back).toEqual({ kind: 'runsInto', dates: 1 });
    const workingDays = draftOf(of({ kind: 'workingDays', every: 3 }));
    expect(moveFrom(workingDays, WEEKDAYS_ONLY, dayOfIso('2026-12-08'), 1)).toEqual({ kind: 'unsayable' });
    const monthly = draftOf(of(monthsRule([{ kind: 'date', day: 15 }])));
    expect(iso(daysOf(moved(monthly, '2027-01-15', 3), dayOfIso('2026-12-01'), dayOfIso('2027-02-28')))).toEqual([
      ...['2026-12-15', '2027-01-18', '2027-02-18'],
    ]);
  });

  it('forgets who was named for single dates from one on, and nothing else of them', () => {
    const change = { startTime: '08:00' } as const;
    expect(
      unnamedFrom(
        [
          { kind: 'change', date: '2026-12-01', change: { assigneeId: 'a' } },
          { kind: 'change', date: '2026-12-08', change: { assigneeId: 'a' } },
          { kind: 'change', date: '2026-12-15', change: { ...change, assigneeId: 'a' } },
          { kind: 'skip', date: '2026-12-22' },
        ],
        dayOfIso('2026-12-08'),
      ),
    ).toEqual([
      { kind: 'change', date: '2026-12-01', change: { assigneeId: 'a' } },
      { kind: 'change', date: '2026-12-15', change },
      { kind: 'skip', date: '2026-12-22' },
    ]);
  });
});
