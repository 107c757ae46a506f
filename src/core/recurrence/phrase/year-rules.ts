import { yearMonthDay } from '../../civil-date/civil-day.ts';
import type { MissingDay, MonthPoint, Rule, YearsRule } from '../rule.ts';
import type { PhraseContext } from './context.ts';
import type { PhraseCursor } from './cursor.ts';
import { readMonths, skipAnd } from './dates.ts';
import { awayFrom, readDistance } from './distances.ts';
import { readFeast } from './feasts.ts';
import { skipSeparator } from './frequency.ts';
import { dates, readMissing, readPoints } from './month-places.ts';

/** A month of every year, and no day of it: its first, its last, or that of the start. */
export function unsaidDay(c: PhraseCursor, { start }: PhraseContext): MonthPoint[] {
  return dates([1, -1, yearMonthDay(start).day][c.pick('day of the month', 3)] as number);
}

/** After "yearly", "every 2 years": "on 15 June", "on the first Monday of May", "in March"; without, on the day of the start. */
export function readYearsOn(
  c: PhraseCursor,
  every: number,
  context: PhraseContext,
): { readonly rules: readonly Rule[]; readonly isBare: boolean } {
  const far = c.try(() => {
    skipSeparator(c);
    const distance = readDistance(c);
    const places = distance && readYearPlaces(c);
    return places && awayFrom({ ...places, every }, distance);
  });
  if (far) return { rules: [far], isBare: false };
  const said = c.try(() => {
    skipSeparator(c);
    c.filler('on', 'in');
    return readYearPlaces(c);
  });
  if (said) return { rules: [{ ...said, every }], isBare: false };
  const { month, day } = yearMonthDay(context.start);
  const months = c.try(() => {
    skipSeparator(c);
    c.filler('in', 'every', 'each');
    return readMonths(c);
  });
  const on =
    months &&
    c.try(() => {
      skipSeparator(c);
      return c.word('on') ? readPoints(c) : null;
    });
  const points = on ?? (months ? unsaidDay(c, context) : dates(day));
  const rule: Rule = { kind: 'years', every, months: months ?? [month], on: points, missing: readMissing(c) };
  return { rules: [rule], isBare: on === null };
}

/** "15 June", "the first Monday of May", "Good Friday" */
function readYearPlaces(c: PhraseCursor): YearsRule | null {
  const feast = c.try(() => readFeast(c));
  if (feast) return feast;
  const day = c.try(() => readYearDay(c));
  if (day) return day;
  c.filler('the');
  const on = readPoints(c);
  if (!on || !c.word('of', 'in')) return null;
  const months = readMonths(c);
  return months && { kind: 'years', every: 1, months, on, missing: readMissing(c) };
}

/** "15 June", "June 15", "1 and 15 March and September", "29 February, or the 28th": yearly. */
export function readYearDay(c: PhraseCursor): YearsRule | null {
  c.filler('on', 'by', 'at');
  c.filler('the');
  const end = c.try(() => readEndOf(c));
  if (end) return end;
  const days = c.try(() => readDayNumbers(c));
  const months = readMonths(c);
  if (!months) return null;
  const on = days ?? c.try(() => readDayNumbers(c));
  // "May 2027" is no day of May.
  if (!on || c.try(() => c.number()) !== null) return null;
  c.filler('every year', 'each year', 'yearly');
  const isLeapDay = months.join() === '2' && on.join() === '29';
  return {
    kind: 'years',
    every: 1,
    months,
    on: dates(...on),
    missing: (isLeapDay && readLeapDay(c)) || readMissing(c),
  };
}

/** "end of Feb", "the beginning of May and September" */
function readEndOf(c: PhraseCursor): YearsRule | null {
  const isEnd = c.word('end of');
  if (!isEnd && !c.word('start of', 'beginning of')) return null;
  const months = readMonths(c);
  // "End of May 2027" is one day.
  if (!months || c.try(() => c.number()) !== null) return null;
  c.filler('every year', 'each year', 'yearly');
  return { kind: 'years', every: 1, months, on: dates(isEnd ? -1 : 1), missing: 'last' };
}

function readDayNumbers(c: PhraseCursor): number[] | null {
  const days: number[] = [];
  do {
    const day = c.number() ?? c.ordinal()?.n ?? null;
    if (day === null || day < 1 || day > 31) return null;
    days.push(day);
  } while (c.when(() => skipAnd(c) && c.ahead(() => (c.number() ?? c.ordinal()) !== null)));
  return days;
}

function readLeapDay(c: PhraseCursor): MissingDay | null {
  return c.try(() => {
    c.mark(',');
    if (c.word('in leap years only', 'only in leap years', 'leap years only')) return 'omit';
    if (!c.word('or', 'else')) return null;
    c.filler('on');
    c.filler('the');
    if (c.when(() => c.ordinal()?.n === 28 || c.number() === 28)) {
      c.filler('february', 'feb', 'of february');
      return 'last';
    }
    return c.when(() => readYearDayIs(c, 1, 3)) ? 'next' : null;
  });
}

function readYearDayIs(c: PhraseCursor, day: number, month: number): boolean {
  const days = readDayNumbers(c);
  c.filler('of');
  return days?.join() === String(day) && readMonths(c)?.join() === String(month);
}
