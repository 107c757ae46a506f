import { z } from 'zod';
import { isZone, PHRASE_HABITS, type PhraseHabits, type Weekday } from '../core/index.ts';
import { endpoint } from './endpoint.ts';
import { isoDate, isoTime, line } from './fields.ts';
import { impactSchema } from './impact.ts';
import { settingsPaths } from './paths.ts';

const holidaySchema = z.object({ date: isoDate, name: line('What the day off is called', 80) });
export type HolidaySetting = z.infer<typeof holidaySchema>;

const weekday = z.custom<Weekday>((n) => Number.isInteger(n) && Number(n) >= 1 && Number(n) <= 7, {
  error: 'A weekday is 1 for Monday to 7 for Sunday.',
});

/** The most days off that a workspace keeps: thirty years of any calendar. */
export const MOST_HOLIDAYS = 2_000;

export const phraseHabitsSchema: z.ZodType<PhraseHabits, PhraseHabits> = z.partialRecord(
  z.enum(PHRASE_HABITS),
  z.number().int().min(0).max(1),
);

/** What a manager sets for the whole workspace. */
export const settingsSchema = z.object({
  version: z.number().int(),
  name: line('The name', 80),
  zone: z.string().refine(isZone, { error: 'There is no such clock: choose one by its city.' }),
  workingWeekdays: z
    .array(weekday)
    .min(1, 'A working week has at least one day.')
    .max(7)
    .refine((days) => new Set(days).size === days.length, 'A weekday stands there twice.'),
  /** The month in which the financial year begins, 1–12. */
  yearStarts: z.number().int().min(1, 'A month is 1 to 12.').max(12, 'A month is 1 to 12.'),
  horizonDays: z
    .number({ error: 'Say how many days.' })
    .int('Whole days only.')
    .min(1, 'At least one day ahead.')
    .max(366, 'At most 366 days ahead.'),
  makeTime: isoTime,
  /** How people here speak, where that is settled; else they are asked. */
  phraseHabits: phraseHabitsSchema,
  holidays: z
    .array(holidaySchema)
    .max(MOST_HOLIDAYS, `${MOST_HOLIDAYS.toLocaleString('en-GB')} days off at most.`)
    .superRefine((holidays, context) => {
      const seen = new Set<string>();
      holidays.forEach(({ date, name }, i) => {
        if (seen.has(date))
          context.addIssue({ code: 'custom', path: [i, 'date'], message: `${name}: that day is a day off already.` });
        seen.add(date);
      });
    }),
});
export type Settings = z.infer<typeof settingsSchema>;

const country = z.string().regex(/^[A-Z]{2}$/, 'A country is two capital letters.');

export const settingsEndpoints = {
  read: endpoint(settingsPaths.read, { answer: settingsSchema }),
  change: endpoint(settingsPaths.change, {
    body: settingsSchema,
    answer: z.object({ settings: settingsSchema, changeId: z.string().nullable() }),
    heavy: true,
  }),
  /** What saving them would do to tasks, and to the coming year. */
  impact: endpoint(settingsPaths.impact, { body: settingsSchema, answer: impactSchema, heavy: true }),
  /** Countries whose public holidays are known, each with its regions. */
  countries: endpoint(settingsPaths.countries, {
    answer: z.object({
      countries: z.array(
        z.object({
          code: z.string(),
          name: z.string(),
          regions: z.array(z.object({ code: z.string(), name: z.string() })),
        }),
      ),
    }),
  }),
  /** The public holidays of a country or a region of it, from this year on. */
  publicHolidays: endpoint(settingsPaths.publicHolidays, {
    query: z.object({ country, region: z.string().max(20).default('') }),
    answer: z.object({ holidays: z.array(holidaySchema) }),
  }),
};
