import { z } from 'zod';
import {
  CONVENTIONS,
  DAYS_OFF,
  type Exception,
  isZone,
  longestClosure,
  MAX_COUNT,
  MAX_DISTANCE,
  MAX_INTERVAL,
  MILESTONES,
  MISSING_DAY_POLICIES,
  type OwnFields,
  type Pause,
  type Recurrence,
  type Revision,
  rruleFault,
  type Season,
  type Timing,
  tryMonthDay,
  WAYS,
} from '../core/index.ts';
import { id, isoDate, isoTime, weekday } from './fields.ts';
import { PRIORITIES } from './work.ts';

const interval = z
  .number({ error: 'Say how many.' })
  .int('Whole numbers only.')
  .min(1, 'At least 1.')
  .max(MAX_INTERVAL, `At most ${MAX_INTERVAL}.`);
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
  z.object({
    kind: z.literal('anyWeekday'),
    nth: fromEitherEnd(31),
    weekdays: weekdays.min(1, 'Choose at least one weekday.'),
  }),
  z.object({ kind: z.literal('workingDay'), nth: fromEitherEnd(23) }),
  z.object({ kind: z.literal('easter') }),
]);
const isEaster = ({ kind }: { readonly kind: string }) => kind === 'easter';
const monthPoints = z.array(monthPoint).min(1, 'Choose at least one day.').max(31);
const missing = z.enum(MISSING_DAY_POLICIES);
const amountAway = z
  .number({ error: 'Say how far.' })
  .int('Whole numbers only.')
  .min(1, 'At least 1.')
  .max(MAX_DISTANCE, `At most ${MAX_DISTANCE}.`);
const away = z.union([
  z.object({ amount: amountAway, of: z.literal('day'), way: z.enum(['before', 'after']) }),
  z.object({ amount: amountAway, of: z.union([z.literal('workingDay'), weekday]), way: z.enum(WAYS) }),
]);

const rule = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('days'),
    every: interval,
    except: weekdays.refine((days) => days.length < 7, 'Leave at least one weekday.'),
  }),
  z.object({ kind: z.literal('workingDays'), every: interval }),
  z.object({ kind: z.literal('weeks'), every: interval, on: weekdays.min(1, 'Choose at least one weekday.') }),
  z.object({
    kind: z.literal('months'),
    every: interval,
    months: z.array(month).max(12).refine(noDoubles, 'A month stands there twice.'),
    on: monthPoints.refine((on) => !on.some(isEaster), 'Easter is a day of each year: say “yearly”.'),
    missing,
    away: away.optional(),
  }),
  z
    .object({
      kind: z.literal('years'),
      every: interval,
      months: z.array(month).min(1, 'Choose the month.').max(12).refine(noDoubles, 'A month stands there twice.'),
      on: monthPoints.refine((on) => on.length === 1 || !on.some(isEaster), 'Easter stands in a rule of its own.'),
      missing,
      away: away.optional(),
    })
    .refine(({ on, months }) => !on.some(isEaster) || months.join() === '3,4', {
      path: ['months'],
      message: 'Easter is in March or April: leave both.',
    }),
  z.object({
    kind: z.literal('dates'),
    dates: z.array(isoDate).min(1, 'Write at least one date.').max(1000, 'A thousand dates at most.'),
  }),
  z.object({
    kind: z.literal('rrule'),
    text: z
      .string()
      .max(1000, 'A rule of a thousand characters at most.')
      .superRefine((text, context) => {
        const fault = rruleFault(text);
        if (fault !== null) context.addIssue({ code: 'custom', message: fault.message });
      }),
  }),
  z.object({
    kind: z.literal('follows'),
    reaches: z.enum(MILESTONES),
    amount: z
      .number({ error: 'Say how many.' })
      .int('Whole numbers only.')
      .min(0, 'At least 0.')
      .max(MAX_INTERVAL, `At most ${MAX_INTERVAL}.`),
    unit: z.enum(['day', 'workingDay', 'week', 'month']),
  }),
]);

const monthDay = z
  .string()
  .refine((text) => tryMonthDay(text) !== null, 'A day of the year is written MM-DD, like 01-31.');
/** Whether its days exist: what is wrong with them is said by themselves. */
const isSeason = ({ from, to }: Season) => tryMonthDay(from) !== null && tryMonthDay(to) !== null;

/** Spans of every year, which leave some of it. */
export const spansOfYear = z
  .array(z.object({ from: monthDay, to: monthDay }))
  .max(24, 'Twenty-four seasons at most.')
  .refine(
    (seasons) => !seasons.every(isSeason) || longestClosure(seasons) < 366,
    'Closed all year, nothing would ever be due: leave some of it open.',
  );

const closedSeasons = z.object({
  seasons: spansOfYear.min(1, 'Say when it is closed.'),
  dates: z.enum(['omit', 'move']),
});

export const recurrenceSchema: z.ZodType<Recurrence, Recurrence> = z.object({
  // A count or a number goes back to it: what began before anybody's time would be counted for nothing.
  start: isoDate.refine((date) => date >= '1900-01-01' && date < '2200-01-01', 'It starts between 1900 and 2199.'),
  rules: z
    .array(rule)
    .min(1, 'Say when: there is no rule yet.')
    .max(12, 'Twelve rules at most.')
    .refine(
      (rules) => rules.length === 1 || !rules.some(({ kind }) => kind === 'follows'),
      'A rule that waits for the last one stands alone: take the others out.',
    ),
  end: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('never') }),
    z.object({ kind: z.literal('on'), date: isoDate }),
    z.object({
      kind: z.literal('after'),
      count: z.number().int().min(1, 'At least once.').max(MAX_COUNT, `At most ${MAX_COUNT} times.`),
    }),
  ]),
  dayOff: z.enum(CONVENTIONS),
  daysOff: z.enum(DAYS_OFF).optional(),
  closed: closedSeasons.optional(),
  except: z.array(isoDate).max(1000, 'A thousand dates at most.').optional(),
});

const offset = (earliest: number, latest: number, words: string) =>
  z.object({
    amount: z.number().int('Whole days only.').min(earliest, words).max(latest, words),
    unit: z.enum(['day', 'workingDay']),
  });

type TimingInput = Omit<Timing, 'reminders' | 'zone'> & Partial<Pick<Timing, 'reminders' | 'zone'>>;

export const timingSchema: z.ZodType<Timing, TimingInput> = z
  .object({
    appears: offset(-366, 0, 'It may appear up to 366 days before, or on the day.'),
    starts: offset(-366, 0, 'It may start up to 366 days before, or on the day.'),
    due: offset(0, 366, 'It may be due on the day, or up to 366 days after.'),
    startTime: isoTime.nullable(),
    dueTime: isoTime.nullable(),
    reminders: z
      .array(z.object({ offset: offset(-366, 366, 'A reminder comes up to 366 days before or after.'), time: isoTime }))
      .max(8, 'Eight reminders at most.')
      .default([]),
    zone: z
      .string()
      .refine(isZone, 'There is no such time zone: it is written like Europe/London.')
      .nullable()
      .default(null),
  })
  .refine(
    ({ starts, due, startTime, dueTime }) =>
      starts.amount !== 0 || due.amount !== 0 || startTime === null || dueTime === null || startTime <= dueTime,
    { error: 'It is due before it starts: choose a later time.', path: ['dueTime'] },
  );

export const pauseSchema: z.ZodType<Pause, Pause> = z
  .object({ from: isoDate, to: isoDate.nullable() })
  .refine(({ from, to }) => to === null || to > from, {
    error: 'It resumes before it pauses: choose a later day.',
    path: ['to'],
  });

export const exceptionSchema: z.ZodType<Exception, Exception> = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('skip'), date: isoDate }),
  z.object({ kind: z.literal('move'), date: isoDate, to: isoDate }),
  z.object({ kind: z.literal('add'), date: isoDate }),
  z.object({
    kind: z.literal('change'),
    date: isoDate,
    change: z.object({
      startTime: isoTime.nullable().optional(),
      dueTime: isoTime.nullable().optional(),
      assigneeId: id.nullable().optional(),
    }),
  }),
]);

/** What is done when the next comes while the last one is still open. */
export const overlapSchema = z
  .discriminatedUnion('kind', [
    z.object({ kind: z.literal('add') }),
    z.object({ kind: z.literal('lapse') }),
    z.object({
      kind: z.literal('wait'),
      limitDays: z.number().int('Whole days only.').min(1, 'Wait a day at least.').max(366, 'A year at most.'),
    }),
  ])
  .default({ kind: 'add' });

/** A set has no more tasks than its template has steps, and itself. */
const MOST_OWN = 301;

const ownFields: z.ZodType<OwnFields, OwnFields> = z
  .object({
    titlePattern: z.string().trim().min(1, 'It needs a title.').max(200, 'A title of 200 characters at most.'),
    instructions: z.string().max(100_000, 'Instructions of 100,000 characters at most.'),
    estimateMinutes: z.number().int('Whole minutes only.').min(1, 'A minute at least.').max(100_000),
    priority: z.enum(PRIORITIES),
    assigneeId: id.nullable(),
    startTime: isoTime.nullable(),
    dueTime: isoTime.nullable(),
  })
  .partial();

export const revisionSchema: z.ZodType<Revision, Omit<Revision, 'timing'> & { timing: TimingInput }> = z.object({
  from: isoDate,
  recurrence: recurrenceSchema,
  timing: timingSchema,
  own: z
    .record(z.string().max(40), ownFields)
    .refine((own) => Object.keys(own).length <= MOST_OWN, `Words of their own for ${MOST_OWN} tasks of a set at most.`)
    .optional(),
});

function noDoubles(values: readonly unknown[]): boolean {
  return new Set(values).size === values.length;
}
