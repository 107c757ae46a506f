import { dayOfIso, isoOfDay, parseRRule, type Recurrence } from '../src/core/index.ts';
import { type Seeded, seeded } from '../src/core/recurrence/seeded.ts';

/** A rule of the workload, in the words of RFC 5545 and as ours. */
export interface BenchRule {
  readonly text: string;
  readonly start: string;
  readonly ours: Recurrence;
}

const WEEKDAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];

/** The mix of an office's schedules, in percent. */
const MIX: readonly (readonly [percent: number, rule: (random: Seeded) => string])[] = [
  [25, ({ whole, some }) => `FREQ=WEEKLY;INTERVAL=${whole(1, 3)};BYDAY=${some(WEEKDAYS, 1.5)}`],
  [15, ({ whole }) => `FREQ=DAILY;INTERVAL=${whole(1, 4)}`],
  [20, ({ some }) => `FREQ=MONTHLY;BYMONTHDAY=${some([1, 2, 5, 10, 15, 20, 25, 28, -1], 1.3)}`],
  [15, ({ one }) => `FREQ=MONTHLY;BYDAY=${one([1, 2, 3, 4, -1])}${one(WEEKDAYS)}`],
  [10, ({ one }) => `FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=${one([1, 2, 10, -1])}`],
  [10, ({ one, whole }) => `FREQ=MONTHLY;INTERVAL=${one([3, 6])};BYMONTHDAY=${whole(1, 28)}`],
  [5, ({ whole }) => `FREQ=YEARLY;BYMONTH=${whole(1, 12)};BYMONTHDAY=${whole(1, 28)}`],
];

/** So many rules, mixed, with starts spread over the two years from `from`. */
export function workload(count: number, from: string): BenchRule[] {
  const random = seeded(20_261_124);
  return MIX.flatMap(([percent, rule]) =>
    Array.from({ length: (count * percent) / 100 }, () => {
      const start = isoOfDay(dayOfIso(from) + random.whole(0, 730));
      const text = rule(random);
      return { text, start, ours: parseRRule(text, start) };
    }),
  );
}

/** When each task of a schedule appears and is due, as it is stored. */
export const EACH_TIME = {
  v: 1,
  appears: { amount: -1, unit: 'workingDay' },
  starts: { amount: 0, unit: 'day' },
  due: { amount: 0, unit: 'day' },
  startTime: '08:00',
  dueTime: '12:00',
  reminders: [],
  zone: null,
};
