import type { Distance, MonthPoint, YearsRule } from '../rule.ts';
import type { PhraseCursor } from './cursor.ts';
import { dates } from './month-places.ts';

const EASTER: MonthPoint = { kind: 'easter' };
/** The months that Easter may be in. */
const EASTER_MONTHS = [3, 4];

/** Feasts so many days from Easter Sunday, by the name that is written and others that are read. */
const MOVABLE: readonly (readonly [days: number, name: string, ...others: string[]])[] = [
  [1, 'Easter Monday'],
  [-2, 'Good Friday'],
  [-3, 'Maundy Thursday'],
  [-7, 'Palm Sunday'],
  [-46, 'Ash Wednesday'],
  [-47, 'Shrove Tuesday', 'pancake day'],
  [39, 'Ascension Day', 'ascension', 'ascension thursday'],
  [49, 'Whit Sunday', 'pentecost', 'whitsun'],
  [50, 'Whit Monday', 'pentecost monday'],
  [60, 'Corpus Christi'],
  // Last, so that “Easter” is not taken out of “Easter Monday”.
  [0, 'Easter Sunday', 'easter day', 'easter'],
];

const FIXED: readonly (readonly [month: number, day: number, ...names: string[]])[] = [
  [12, 24, 'christmas eve'],
  [12, 25, 'christmas day', 'christmas'],
  [12, 26, 'boxing day'],
  [12, 31, 'new years eve'],
  [1, 1, 'new years day', 'new year', 'the new year'],
  [1, 6, 'epiphany'],
  [10, 31, 'halloween'],
];

/** "Good Friday", "Christmas Eve": a day of every year. */
export function readFeast(c: PhraseCursor): YearsRule | null {
  c.filler('on', 'every', 'each');
  for (const [days, ...names] of MOVABLE)
    if (c.word(...names.map((name) => name.toLowerCase())) && !isPartOfAnother(c)) return easterRule(days);
  for (const [month, day, ...names] of FIXED)
    if (c.word(...names) && !isPartOfAnother(c))
      return { kind: 'years', every: 1, months: [month], on: dates(day), missing: 'last' };
  return null;
}

/** "Easter week" and "Christmas holidays" are longer. */
function isPartOfAnother(c: PhraseCursor): boolean {
  return c.ahead(() => c.word('week', 'holiday', 'holidays', 'break', 'period', 'time', 'term', 'weekend'));
}

/** @param days from Easter Sunday */
export function easterRule(days: number): YearsRule {
  const rule: YearsRule = { kind: 'years', every: 1, months: EASTER_MONTHS, on: [EASTER], missing: 'last' };
  return days === 0 ? rule : { ...rule, away: daysAway(days) };
}

function daysAway(days: number): Distance {
  return { amount: Math.abs(days), of: 'day', way: days < 0 ? 'before' : 'after' };
}

/** Whether its only place is Easter Sunday of each year. */
export function isByEaster({ months, on }: YearsRule): boolean {
  return months.join() === EASTER_MONTHS.join() && on.length === 1 && on[0]?.kind === 'easter';
}

/** Days from Easter Sunday of a rule that is by Easter alone; null for another. */
export function daysFromEaster(rule: YearsRule): number | null {
  const { away } = rule;
  if (!isByEaster(rule)) return null;
  if (!away) return 0;
  return away.of === 'day' ? (away.way === 'before' ? -away.amount : away.amount) : null;
}

/** The feast so many days from Easter Sunday, as it is written; null where there is none. */
export function feastNamed(days: number): string | null {
  return MOVABLE.find(([from]) => from === days)?.[1] ?? null;
}

/** Easter Sunday's own weekday: a weekday before or after a feast lies a certain number of days from it. */
const SUNDAY = 7;

/** Further away from a feast that is away from Easter itself; null where that is no number of days. */
export function furtherFromEaster(days: number, { amount, of, way }: Distance): number | null {
  if (of === 'workingDay') return null;
  const isBefore = way === 'before' || way === 'onOrBefore';
  if (of === 'day') return days + (isBefore ? -amount : amount);
  const weekday = ((((SUNDAY - 1 + days) % 7) + 7) % 7) + 1;
  const counts = way === 'onOrBefore' || way === 'onOrAfter';
  const first = (isBefore ? weekday - of + 7 : of - weekday + 7) % 7 || (counts ? 0 : 7);
  const all = first + 7 * (amount - 1);
  return days + (isBefore ? -all : all);
}
