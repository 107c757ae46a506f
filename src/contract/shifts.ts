import { z } from 'zod';
import { MOST_MINUTES_A_DAY, type PatternShift, type ShiftChange, tryMinutesOfTime } from '../core/index.ts';
import { endpoint } from './endpoint.ts';
import { id, isoDate, line, NO_TIME, weekday } from './fields.ts';
import { shiftPaths } from './paths.ts';

/** Stretches of one day: more than a few are a mistake. */
const MOST_A_DAY = 4;
const MOST_IN_PATTERN = 28;
/** Single days on which somebody works other hours. */
const MOST_CHANGES = 400;

/** What is no time can't be held against others: nothing more is said of it. */
const shiftTime = z.string().refine((text) => tryMinutesOfTime(text) !== null, { error: NO_TIME, abort: true });

const shiftFields = {
  from: shiftTime,
  to: shiftTime,
  breakMinutes: z.number().int('Whole minutes only.').min(0, 'Not below nothing.').max(MOST_MINUTES_A_DAY),
  role: line('The role', 60).nullable(),
};

export const patternShiftSchema: z.ZodType<PatternShift, PatternShift> = z.object({
  ...shiftFields,
  week: z.number().int().min(0).max(1),
  weekdays: z
    .array(weekday)
    .min(1, 'Choose a weekday at least.')
    .refine((days) => new Set(days).size === days.length, 'A weekday stands there twice.'),
});
export const patternSchema = z
  .array(patternShiftSchema)
  .max(MOST_IN_PATTERN, `A pattern has ${MOST_IN_PATTERN} lines at most.`);

export const shiftChangeSchema: z.ZodType<ShiftChange, ShiftChange> = z.object({
  on: isoDate,
  shifts: z.array(z.object(shiftFields)).max(MOST_A_DAY, `${MOST_A_DAY} stretches a day at most.`),
});
export const shiftChangesSchema = z
  .array(shiftChangeSchema)
  .max(MOST_CHANGES, `Other hours on ${MOST_CHANGES} single days at most.`)
  .refine((changes) => new Set(changes.map(({ on }) => on)).size === changes.length, 'A day stands there twice.');

const shiftGapSchema = z.object({
  /** Null for what was started by hand. */
  scheduleId: id.nullable(),
  work: z.string(),
  about: z.string().nullable(),
  /** "dock crew on shift" */
  group: z.string(),
  /** On which nobody is, in their order. */
  days: z.array(isoDate),
});
export type ShiftGap = z.infer<typeof shiftGapSchema>;

export const shiftEndpoints = {
  /** Work of the coming eight weeks for those on shift, while nobody is; the soonest first. */
  gaps: endpoint(shiftPaths.gaps, { answer: z.object({ gaps: z.array(shiftGapSchema) }) }),
};
