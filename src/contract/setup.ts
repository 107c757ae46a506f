import { z } from 'zod';
import { endpoint } from './endpoint.ts';
import { emailField, line } from './fields.ts';
import { setupPaths } from './paths.ts';
import { settingsEndpoints, settingsSchema } from './settings.ts';
import { MIN_PASSWORD, sessionSchema } from './workspace.ts';

/** A workspace that begins, and whoever begins it. */
export const setupSchema = settingsSchema
  .pick({ name: true, zone: true, workingWeekdays: true, weekMinutes: true })
  .extend({
    /** As the start command printed it; not asked for beside the demo. */
    key: z.string().max(200).default(''),
    /** Whose public holidays are days off; none of any where it is empty. */
    country: z.string().regex(/^([A-Z]{2})?$/, 'A country is two capital letters.'),
    region: z.string().max(20),
    person: z.object({
      name: line('Your name', 80),
      email: emailField,
      password: z
        .string()
        .min(MIN_PASSWORD, `A password has ${MIN_PASSWORD} characters or more.`)
        .max(200, 'A password has 200 characters at most.'),
    }),
  });
export type Setup = z.infer<typeof setupSchema>;

export const setupEndpoints = {
  /** Whether a workspace can be begun here, and whether that takes the set-up key. */
  state: endpoint(setupPaths.state, {
    answer: z.object({ isOpen: z.boolean(), needsKey: z.boolean(), today: z.string() }),
  }),
  countries: endpoint(setupPaths.countries, { answer: settingsEndpoints.countries.answer }),
  publicHolidays: endpoint(setupPaths.publicHolidays, {
    query: settingsEndpoints.publicHolidays.query,
    answer: settingsEndpoints.publicHolidays.answer,
  }),
  /** Begins it, and signs its first manager in. */
  begin: endpoint(setupPaths.begin, { body: setupSchema, answer: sessionSchema, maxBytes: 10_000 }),
};
