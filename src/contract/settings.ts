import { z } from 'zod';
import {
  CLOCKS,
  DATE_ORDERS,
  FIELD_KINDS,
  HEAR_GROUPS,
  HEAR_SAYS,
  HEARD_BY,
  type HearRule,
  type HearRules,
  isZone,
  MESSAGE_KINDS,
  MESSAGE_SIDES,
  type NamedSeason,
  PHRASE_HABITS,
  type PhraseHabits,
  tryPhrase,
  type Ways,
  WEEK_STARTS,
} from '../core/index.ts';
import { askingSchema } from './asking.ts';
import { outcomeSchema, outcomesSchema } from './calls.ts';
import { endpoint } from './endpoint.ts';
import { escalationSchema } from './escalation.ts';
import { id, isoDate, isoTime, line, weekday } from './fields.ts';
import { impactSchema } from './impact.ts';
import { settingsPaths } from './paths.ts';
import { spansOfYear } from './recurrence.ts';
import { keepYearsSchema } from './retention.ts';
import { visitRulesSchema } from './visits.ts';

const holidaySchema = z.object({ date: isoDate, name: line('What the day off is called', 80) });
export type HolidaySetting = z.infer<typeof holidaySchema>;

/** The most days off that a workspace keeps: thirty years of any calendar. */
export const MOST_HOLIDAYS = 2_000;

export const phraseHabitsSchema: z.ZodType<PhraseHabits, PhraseHabits> = z.partialRecord(
  z.enum(PHRASE_HABITS),
  z.number().int().min(0).max(1),
);

function noneTwice(names: readonly { readonly name: string }[], context: z.RefinementCtx): void {
  names.forEach(({ name }, i) => {
    const first = names.findIndex((one) => one.name.toLowerCase() === name.toLowerCase());
    if (first < i) context.addIssue({ code: 'custom', path: [i, 'name'], message: `“${name}” stands there twice.` });
  });
}

/** Parts of the year that have a name here; none that a phrase understands already. */
export const seasonsSchema: z.ZodType<readonly NamedSeason[], readonly NamedSeason[]> = z
  .array(z.object({ name: line('The name of the season', 40), spans: spansOfYear.min(1, 'Say from when to when.') }))
  .max(20, 'Twenty seasons at most.')
  .superRefine((seasons, context) => {
    noneTwice(seasons, context);
    seasons.forEach(({ name }, i) => {
      const isKnown = tryPhrase(`every day in ${name}`) !== null || tryPhrase(`every day not on ${name}`) !== null;
      if (isKnown || !/\p{L}/u.test(name))
        context.addIssue({
          code: 'custom',
          path: [i, 'name'],
          message: isKnown ? `“${name}” means something else already: call it otherwise.` : 'Give it a name in words.',
        });
    });
  });

/** How dates and times are seen. */
export const waysSchema: z.ZodType<Ways, Ways> = z.object({
  weekStarts: z.literal(WEEK_STARTS, { error: 'A week begins on a Monday, a Saturday or a Sunday.' }),
  dateOrder: z.enum(DATE_ORDERS),
  clock: z.literal(CLOCKS, { error: 'A clock has 24 hours or 12.' }),
});
/** Places where somebody may begin. */
export const START_PLACES = [
  'overview',
  'day-sheet',
  'calls',
  'schedules',
  'tasks',
  'wallchart',
  'workload',
  'logbook',
] as const;
export type StartPlace = (typeof START_PLACES)[number];

/** Somebody's own ways; null where they are as the workspace has them. */
export const ownWaysSchema = z.object({
  /** What is opened first: a place, or a view of tasks; null for the usual one. */
  startsAt: z.union([z.enum(START_PLACES), z.object({ view: id })]).nullable(),
  weekStarts: z.literal(WEEK_STARTS).nullable(),
  dateOrder: z.enum(DATE_ORDERS).nullable(),
  clock: z.literal(CLOCKS).nullable(),
});
export type OwnWaysSet = z.infer<typeof ownWaysSchema>;

const hearRuleSchema: z.ZodType<Partial<HearRule>, Partial<HearRule>> = z.partialRecord(
  z.enum(HEARD_BY),
  z.enum(HEAR_SAYS),
);
const hearingSchema: z.ZodType<HearRules, HearRules> = z.partialRecord(
  z.enum(HEAR_GROUPS),
  z.partialRecord(z.enum(MESSAGE_SIDES), z.partialRecord(z.enum(MESSAGE_KINDS), hearRuleSchema)),
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
  /** Minutes usually worked on each weekday, Monday first; of a day that is worked there are some. */
  weekMinutes: z.array(z.number().int().min(0).max(1440, 'A day has 24 hours.')).length(7, 'A week has seven days.'),
  /** The month in which the financial year begins, 1–12. */
  yearStarts: z.number().int().min(1, 'A month is 1 to 12.').max(12, 'A month is 1 to 12.'),
  horizonDays: z
    .number({ error: 'Say how many days.' })
    .int('Whole days only.')
    .min(1, 'At least one day ahead.')
    .max(366, 'At most 366 days ahead.'),
  makeTime: isoTime,
  ways: waysSchema,
  doneStaysDays: z
    .number({ error: 'Say how many days.' })
    .int('Whole days only.')
    .min(1, 'At least its own day.')
    .max(14, 'Fourteen days at most.'),
  /** Whether a swap of turns that two agree on waits for whoever plans. */
  swapsNeedNod: z.boolean(),
  /** How visits are announced. */
  visits: visitRulesSchema,
  /** How clients are asked to do what is theirs. */
  asking: askingSchema,
  /** Who is told of late work, and after how long. */
  escalation: escalationSchema,
  /** What people usually hear of, where, and what they can't turn off. */
  hearing: hearingSchema,
  /** For how many years finished work is kept; null for good. */
  keepYears: keepYearsSchema,
  /** How people here speak, where that is settled; else they are asked. */
  phraseHabits: phraseHabitsSchema,
  seasons: seasonsSchema,
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

const countOf = { count: z.number().int() };

/** The most own fields of clients, and of assets. */
export const MOST_OWN_FIELDS = 40;
/** The longest name of one. */
export const LONGEST_FIELD_NAME = 40;

/** A field of the workspace's own; one that is new has no key yet. */
export const ownFieldSchema = z.object({
  key: z.string().max(60),
  name: line('The name of the field', LONGEST_FIELD_NAME),
  kind: z.enum(FIELD_KINDS),
  choices: z.array(line('The choice', 60)).max(40, 'Forty choices at most.').readonly(),
});

/** The most names of a list. */
const MOST_NAMES = 60;

/** A name of a list, and what it was before; null for one that is new. */
const names = (what: string) =>
  z
    .array(z.object({ was: z.string().nullable(), name: line(what, 60) }))
    .max(MOST_NAMES, `${MOST_NAMES} at most.`)
    .superRefine(noneTwice);
const ownFields = z
  .array(ownFieldSchema)
  .max(MOST_OWN_FIELDS, `${MOST_OWN_FIELDS} fields at most.`)
  .superRefine((fields, context) => {
    noneTwice(fields, context);
    fields.forEach(({ kind, choices }, i) => {
      if (kind === 'choice' && choices.length === 0)
        context.addIssue({
          code: 'custom',
          path: [i, 'choices'],
          message: 'Say what may be chosen, with commas between.',
        });
    });
  });

/** Lists that everybody chooses from, as a manager changes them. */
export const listsInputSchema = z.object({
  version: z.number().int(),
  roles: names('The role'),
  teams: names('The team'),
  tickets: names('The ticket'),
  skipReasons: z.array(line('The reason', 120)).max(MOST_NAMES, `${MOST_NAMES} at most.`),
  clientFields: ownFields,
  assetFields: ownFields,
  /** How calls can end, and what follows. */
  outcomes: outcomesSchema,
});
export type ListsInput = z.infer<typeof listsInputSchema>;

const named = z.object({ name: z.string(), ...countOf });
export const listsSchema = z.object({
  version: z.number().int(),
  /** Each with how many people have it. */
  roles: z.array(named),
  teams: z.array(named),
  /** Each with how many people hold it and how many templates ask for it. */
  tickets: z.array(named.extend({ asked: z.number().int() })),
  skipReasons: z.array(z.string()),
  outcomes: z.array(outcomeSchema),
  /** Each with how many clients or assets have it filled in. */
  clientFields: z.array(ownFieldSchema.extend(countOf)),
  assetFields: z.array(ownFieldSchema.extend(countOf)),
});
export type Lists = z.infer<typeof listsSchema>;

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
  lists: endpoint(settingsPaths.lists, { answer: listsSchema }),
  changeLists: endpoint(settingsPaths.changeLists, {
    body: listsInputSchema,
    answer: z.object({ lists: listsSchema, changeId: z.string().nullable() }),
  }),
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
