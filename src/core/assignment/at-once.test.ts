import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayOfIso } from '../civil-date/iso-date.ts';
import { remarkAtOnce } from '../planning/remarks-on-who.ts';
import { atOnce, type TimedWork, timeTaken } from './at-once.ts';

const TODAY = dayOfIso('2026-11-24');
const at = (startTime: string, of: Partial<TimedWork> = {}): TimedWork => ({
  ...{ personId: 'kit', on: TODAY, startTime, dueTime: null, minutes: 60, title: 'Gas' },
  ...of,
});

describe('work at one time', () => {
  it.each([
    [at('13:00'), { from: 780, to: 840 }],
    [at('13:00', { dueTime: '13:30' }), { from: 780, to: 810 }],
    // Due later than it takes: it takes as long as it is estimated.
    [at('13:00', { dueTime: '17:00' }), { from: 780, to: 840 }],
    // Due before it starts: the moment of its start.
    [at('13:00', { dueTime: '12:00' }), { from: 780, to: 780 }],
  ])('takes %j', (work, window) => {
    expect(timeTaken(work)).toEqual(window);
  });

  it('meets other work of the same person that it overlaps, and not what begins as it ends', () => {
    const others = [at('14:00'), at('13:30', { personId: 'joss' }), at('13:30', { on: TODAY + 1 })];
    expect(atOnce([at('13:00')], others)).toEqual([]);
    const met = at('13:45', { title: 'Lifts' });
    expect(atOnce([at('13:00')], [...others, met])).toEqual([{ own: at('13:00'), other: met }]);
  });

  it('is told by person, the first ones by name', () => {
    const own = [0, 1, 2, 3].map((n) => at('13:00', { on: TODAY + n, title: '' }));
    const met = atOnce(
      own,
      own.map((one) => ({ ...one, startTime: '12:30', title: 'Lifts' })),
    );
    expect(remarkAtOnce(met, () => 'Kit', TODAY)).toMatchObject([
      {
        kind: 'at once',
        count: 4,
        text: 'Kit has two at once on 4 dates: Tue 24 Nov at 12:30 (Lifts), Wed 25 Nov at 12:30 (Lifts), Thu 26 Nov at 12:30 (Lifts) and 1 more.',
      },
    ]);
    expect(remarkAtOnce(met.slice(0, 1), () => 'Kit', TODAY)[0]?.text).toBe(
      'Kit has two at once on 1 date: Tue 24 Nov at 12:30 (Lifts).',
    );
  });

  it('meets whom it would be met by', () => {
    const time = fc
      .integer({ min: 0, max: 1439 })
      .map((m) => `${String(Math.floor(m / 60)).padStart(2, '0')}:${String(m % 60).padStart(2, '0')}`);
    const work = fc.record({ startTime: time, dueTime: fc.option(time), minutes: fc.integer({ min: 1, max: 600 }) });
    fc.assert(
      fc.property(work, work, (one, other) => {
        const [a, b] = [at('', one), at('', other)];
        expect(atOnce([a], [b]).length).toBe(atOnce([b], [a]).length);
      }),
    );
  });
});
