import { readInterval } from './common-words.ts';
import type { PhraseCursor } from './cursor.ts';

/** How often, without a day: "fortnightly", "every 2 months". */
export interface Frequency {
  readonly unit: 'day' | 'week' | 'month' | 'quarter' | 'year';
  readonly every: number;
  /** A word of its own, "quarterly", and not so many months. */
  readonly isNamed?: true;
  /** "Once a month": one date in each, and no more. */
  readonly isOnce: boolean;
  /** "Semi-monthly": two in each; which two where none are said. */
  readonly twice?: 'first' | 'second';
}

/** Words for a frequency of their own, the commonest first. */
const NAMED: readonly (readonly [unit: Frequency['unit'], every: number, words: readonly string[]])[] = [
  ['day', 1, ['daily', 'everyday', 'once a day', 'seven days a week']],
  ['week', 1, ['weekly', 'once a week', 'once weekly', 'once per week']],
  ['week', 2, ['fortnightly', 'once a fortnight', 'a fortnight']],
  ['month', 1, ['monthly', 'once a month', 'once monthly', 'once per month']],
  ['quarter', 1, ['quarterly', 'once a quarter', 'once quarterly', 'once per quarter']],
  [
    'month',
    6,
    ['halfyearly', 'half yearly', 'twice a year', 'twice yearly', 'sixmonthly', 'six monthly', 'semiannually'],
  ],
  ['year', 2, ['biennially', 'biennial']],
  ['year', 1, ['yearly', 'annually', 'annual', 'once a year', 'once yearly', 'once per year']],
];

/** "Weekly", "every other week", "once a month"; null where none is said. */
export function readFrequency(c: PhraseCursor): Frequency | null {
  return c.try(() => readNamed(c)) ?? c.try(() => (c.word('every', 'each', 'once every') ? readEveryUnit(c) : null));
}

/** "Weekly", "fortnightly", "once a year". */
export function readNamed(c: PhraseCursor): Frequency | null {
  const isOnce = c.ahead(() => c.word('once'));
  const ambiguous = c.try(() => readAmbiguous(c));
  if (ambiguous) return ambiguous;
  const soOften = c.try(() => readSoOften(c));
  if (soOften) return soOften;
  for (const [unit, every, words] of NAMED) if (c.word(...words)) return { unit, every, isOnce, isNamed: true };
  return null;
}

/** "2-weekly", "four-weekly", "alternate weeks" */
function readSoOften(c: PhraseCursor): Frequency | null {
  const of = (unit: Frequency['unit'], every: number): Frequency => ({ unit, every, isOnce: false });
  if (c.word('alternate days')) return of('day', 2);
  if (c.word('alternate weeks')) return of('week', 2);
  if (c.word('alternate months')) return of('month', 2);
  const n = c.number();
  if (n === null || n < 1) return null;
  if (n === 7 && c.word('days a week', 'days per week')) return of('day', 1);
  c.mark('-');
  if (c.word('daily')) return of('day', n);
  if (c.word('weekly')) return of('week', n);
  if (c.word('monthly')) return of('month', n);
  return c.word('yearly') ? of('year', n) : null;
}

/** Words that some take for one thing and some for another. */
function readAmbiguous(c: PhraseCursor): Frequency | null {
  const of = (unit: Frequency['unit'], every: number, twice?: Frequency['twice']): Frequency => ({
    unit,
    every,
    isOnce: false,
    ...(twice && { twice }),
  });
  if (c.word('biweekly', 'bi weekly')) return c.pick('biweekly', 2) === 0 ? of('week', 2) : of('week', 1, 'first');
  if (c.word('bimonthly', 'bi monthly')) return c.pick('bimonthly', 2) === 0 ? of('month', 2) : of('month', 1, 'first');
  if (c.word('biannually', 'biannual', 'bi annually'))
    return c.pick('biannually', 2) === 0 ? of('month', 6) : of('year', 2);
  if (c.word('semimonthly', 'semi monthly', 'twice a month', 'twice monthly', 'two times a month'))
    return of('month', 1, c.pick('twice a month', 2) === 0 ? 'first' : 'second');
  return null;
}

/** After "every": "2 weeks", "other month", "quarter". */
export function readEveryUnit(c: PhraseCursor): Frequency | null {
  const every = readInterval(c);
  const of = (unit: Frequency['unit'], times = 1): Frequency => ({ unit, every: every * times, isOnce: false });
  if (c.word('days', 'day')) return of('day');
  if (c.word('weeks', 'week')) return of('week');
  if (c.word('fortnights', 'fortnight')) return of('week', 2);
  if (c.word('months', 'month')) return of('month');
  if (c.word('quarters', 'quarter')) return of('quarter');
  if (c.word('half years', 'half year', 'halfyear', 'halfyears')) return of('month', 6);
  return c.word('years', 'year') ? of('year') : null;
}

/** What may stand between how often and which day: "weekly, on Mondays", "monthly - 15th", "fortnightly: Fri". */
export function skipSeparator(c: PhraseCursor): boolean {
  return c.mark(',', ';', '-', '–', '—', '/');
}
