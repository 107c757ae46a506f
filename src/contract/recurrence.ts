import { z } from 'zod';
import {
  CONVENTIONS,
  MAX_COUNT,
  MAX_INTERVAL,
  MISSING_DAY_POLICIES,
  type Pause,
  type Recurrence,
  type Timing,
} from '../core/index.ts';
import { isoDate, isoTime } from './fields.ts';

const interval = z
  .number({ error: 'Say how many.' })
  .int('Whole numbers only.')
  .min(1, 'At least 1.')
  .max(MAX_INTERVAL, `At most ${MAX_INTERVAL}.`);
const weekday = z.literal([1, 2, 3, 4, 5, 6, 7], { error: 'A weekday is 1 for Monday to 7 for Sunday.' });
const weekdays = z.array(weekday).max(7).refine(noDoubles, 'A weekday stands there twice.');
const month = z.number().int().min(1).max(12);
const fromEitherEnd = (most: number) =>
  z
    .number()
    .int()
    .min(-most)
    .max(most)
    .refine((n) => n !== 0, `From 1 to ${most}, or from the end, -1 to -${most}.`);

const monthPoint = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('date'), day: fromEitherEnd(31) }),
  z.object({ kind: z.literal('weekday'), nth: fromEitherEnd(5), weekday }),
  z.object({ kind: z.literal('workingDay'), nth: fromEitherEnd(23) }),
]);
const monthPoints = z.array(monthPoint).min(1, 'Choose at least one day.').max(31);
const missing = z.enum(MISSING_DAY_POLICIES);

const rule = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('days'),
    every: interval,
    except: weekdays.refine((days) => days.length < 7, 'Leave at least one weekday.'),
  }),
  z.object({ kind: z.literal('weeks'), every: interval, on: weekdays.min(1, 'Choose at least one weekday.') }),
  z.object({
    kind: z.literal('months'),
    every: interval,
    months: z.array(month).max(12).refine(noDoubles, 'A month stands there twice.'),
    on: monthPoints,
    missing,
  }),
  z.object({
    kind: z.literal('years'),
    every: interval,
    months: z.array(month).min(1, 'Choose the month.').max(12).refine(noDoubles, 'A month stands there twice.'),
    on: monthPoints,
    missing,
  }),
]);

export const recurrenceSchema: z.ZodType<Recurrence, Recurrence> = z.object({
  start: isoDate,
  rules: z.array(rule).min(1, 'Say when: there is no rule yet.').max(12, 'Twelve rules at most.'),
  end: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('never') }),
    z.object({ kind: z.literal('on'), date: isoDate }),
    z.object({
      kind: z.literal('after'),
      count: z.number().int().min(1, 'At least once.').max(MAX_COUNT, `At most ${MAX_COUNT} times.`),
    }),
  ]),
  dayOff: z.enum(CONVENTIONS),
});

const offset = (earliest: number, latest: number, words: string) =>
  z.object({
    amount: z.number().int('Whole days only.').min(earliest, words).max(latest, words),
    unit: z.enum(['day', 'workingDay']),
  });

export const timingSchema: z.ZodType<Timing, Timing> = z
  .object({
    appears: offset(-366, 0, 'It may appear up to 366 days before, or on the day.'),
    starts: offset(-366, 0, 'It may start up to 366 days before, or on the day.'),
    due: offset(0, 366, 'It may be due on the day, or up to 366 days after.'),
    startTime: isoTime.nullable(),
    dueTime: isoTime.nullable(),
  })
  .refine(
    ({ starts, due, startTime, dueTime }) =>
      starts.amount !== 0 || due.amount !== 0 || startTime === null || dueTime === null || startTime <= dueTime,
    { error: 'It is due before it starts: choose a later time.', path: ['dueTime'] },
  );

export const pauseSchema: z.ZodType<Pause, Pause> = z.object({ from: isoDate, to: isoDate.nullable() });

function noDoubles(values: readonly unknown[]): boolean {
  return new Set(values).size === values.length;
}
