import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { ASK_KINDS, type Ask, type AskingRules, linkEnds, linkWorksUntil, mailOwed, USUAL_ASKING } from './asking.ts';

const due = dayOfIso('2026-12-04');
const NOON = Date.UTC(2026, 10, 24, 12);
/** What is owed on each day of some weeks on which something is, when each mail that is owed goes on that day. */
function mailsOf(appears: string, rules: Partial<AskingRules> = {}, movedOn: Readonly<Record<string, string>> = {}) {
  const asks: Ask[] = [];
  const told: string[] = [];
  let dueOn = due;
  for (let today = dayOfIso('2026-11-20'); today <= dayOfIso('2026-12-31'); today++) {
    const moved = movedOn[isoOfDay(today)];
    if (moved !== undefined) dueOn = dayOfIso(moved);
    const task = { appearsOn: dayOfIso(appears), dueOn, backAt: null, asks };
    const kind = mailOwed(task, { ...USUAL_ASKING, ...rules }, today);
    if (kind === null) continue;
    asks.push({ kind, at: today, on: today, dueOn });
    told.push(`${isoOfDay(today).slice(5)} ${kind}`);
  }
  return told;
}

describe('a client’s task', () => {
  it('is asked for on the day it appears, reminded of before it is due and after', () => {
    expect(mailsOf('2026-11-24')).toEqual(['11-24 asked', '12-01 before', '12-06 after']);
    expect(mailsOf('2026-11-24', { remindBefore: null })).toEqual(['11-24 asked', '12-06 after']);
    expect(mailsOf('2026-11-24', { remindAfter: null, remindBefore: 1 })).toEqual(['11-24 asked', '12-03 before']);
  });

  it('asked for within the days of a reminder has none of that', () => {
    expect(mailsOf('2026-12-02')).toEqual(['12-02 asked', '12-06 after']);
    expect(mailsOf('2026-12-01')).toEqual(['12-01 asked', '12-06 after']);
    expect(mailsOf('2026-12-10')).toEqual(['12-10 asked']);
  });

  it('that is moved is reminded of by its new day', () => {
    expect(mailsOf('2026-11-24', {}, { '2026-12-02': '2026-12-14' })).toEqual([
      '11-24 asked',
      '12-01 before',
      '12-11 before',
      '12-16 after',
    ]);
  });

  it('that came back is told of first, once a mail has gone as any other', () => {
    const first: Ask = { kind: 'asked', at: NOON, on: dayOfIso('2026-11-24'), dueOn: due };
    const task = { appearsOn: dayOfIso('2026-11-24'), dueOn: due, backAt: NOON + 1, asks: [first] };
    const owed = (of: Partial<typeof task>, on: string) => mailOwed({ ...task, ...of }, USUAL_ASKING, dayOfIso(on));
    expect(owed({}, '2026-12-01')).toBe('sentBack');
    // Also where both have the same moment; but not what was asked for since, nor what a mail has told of.
    expect(owed({ backAt: NOON }, '2026-11-25')).toBe('sentBack');
    expect(owed({ backAt: NOON - 1 }, '2026-11-25')).toBeNull();
    const told: Ask = { ...first, kind: 'sentBack', at: NOON + 1, on: dayOfIso('2026-12-01') };
    expect(owed({ asks: [first, told] }, '2026-12-01')).toBeNull();
    expect(owed({ asks: [first, told] }, '2026-12-06')).toBe('after');
    // Sent back to somebody here before it was the client's: of that the client has heard nothing.
    expect(owed({ asks: [] }, '2026-11-25')).toBe('asked');
  });

  it('is never owed two mails on one day, nor a reminder before it was asked for', () => {
    const day = fc.integer({ min: due - 60, max: due + 60 });
    const asks = fc.array(fc.record({ kind: fc.constantFrom(...ASK_KINDS), at: day, on: day, dueOn: day }), {
      maxLength: 5,
    });
    const rules = fc.record({
      remindBefore: fc.option(fc.integer({ min: 1, max: 30 })),
      remindAfter: fc.option(fc.integer({ min: 1, max: 30 })),
    });
    fc.assert(
      fc.property(day, day, fc.option(day), asks, rules, day, (appearsOn, dueOn, backAt, before, own, today) => {
        const all = { ...USUAL_ASKING, ...own };
        const task = {
          ...{ appearsOn, dueOn, backAt: backAt === null ? null : Math.min(backAt, today) },
          asks: before.filter(({ on }) => on <= today),
        };
        const kind = mailOwed(task, all, today);
        if (kind === null) return;
        expect(kind === 'asked').toBe(task.asks.length === 0);
        const after = { ...task, asks: [...task.asks, { kind, at: today + 1, on: today, dueOn }] };
        expect(mailOwed(after, all, today)).toBeNull();
      }),
    );
  });
});

describe('a link', () => {
  it('works some days beyond the day it is due, or that on which it was made', () => {
    expect(isoOfDay(linkEnds(due, dayOfIso('2026-11-24'), USUAL_ASKING))).toBe('2026-12-11');
    expect(isoOfDay(linkEnds(due, dayOfIso('2026-12-20'), USUAL_ASKING))).toBe('2026-12-27');
  });

  it('works longer where its task is due later by now, and never less long', () => {
    const until = (day: string | null) =>
      isoOfDay(linkWorksUntil(dayOfIso('2026-12-11'), day === null ? null : dayOfIso(day), USUAL_ASKING));
    expect([until('2026-12-14'), until('2026-12-01'), until(null)]).toEqual(['2026-12-21', '2026-12-11', '2026-12-11']);
  });
});
