import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type CallToShare, shareCalls } from './sharing.ts';

const PEOPLE = ['p1', 'p2', 'p3', 'p4'];
const id = (n: number) => `00000000-0000-7000-8000-${(n * 2654435761).toString(16).slice(-8).padStart(12, '0')}`;
const calls = fc
  .array(fc.constantFrom(null, ...PEOPLE), { maxLength: 40 })
  .map((usual): CallToShare[] =>
    usual.map((usualPersonId, n) => ({ callId: `c${n}`, contactId: id(n + 1), usualPersonId })),
  );
const to = fc
  .uniqueArray(fc.tuple(fc.constantFrom(...PEOPLE), fc.integer({ min: 0, max: 20 })), { selector: ([one]) => one })
  .map((pairs) => new Map(pairs));
const rules = fc.record({ usualFirst: fc.boolean(), seed: fc.integer({ min: 0, max: 2 ** 32 - 1 }) });

describe('calls that are shared out', () => {
  it('are each given to one of those who take some, evenly, whatever their order', () => {
    fc.assert(
      fc.property(calls, to, rules, (given, receivers, how) => {
        const shared = shareCalls(given, receivers, how);
        expect(shared.size).toBe(receivers.size === 0 ? 0 : given.length);
        expect(new Map([...shareCalls([...given].reverse(), receivers, how)].sort())).toEqual(
          new Map([...shared].sort()),
        );
        const counts = new Map(receivers);
        for (const person of shared.values()) counts.set(person, (counts.get(person) ?? 0) + 1);
        const least = Math.min(...counts.values());
        for (const { callId, usualPersonId } of given) {
          const person = shared.get(callId);
          if (person === undefined) continue;
          expect(receivers.has(person)).toBe(true);
          if (how.usualFirst && usualPersonId !== null && receivers.has(usualPersonId))
            expect(person).toBe(usualPersonId);
          else expect(counts.get(person) ?? 0).toBeLessThanOrEqual(least + 1);
        }
      }),
    );
  });

  it('stay where nobody takes any', () => {
    const one = { callId: 'c', contactId: id(1), usualPersonId: 'p1' };
    expect(shareCalls([one], new Map(), { usualFirst: true, seed: 1 }).size).toBe(0);
  });
});
