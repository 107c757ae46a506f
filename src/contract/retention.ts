import { z } from 'zod';
import { endpoint } from './endpoint.ts';
import { isoDate } from './fields.ts';
import { retentionPaths } from './paths.ts';

/** For how many years finished work may be kept, where it is not for good. */
export const MOST_KEPT_YEARS = 30;
const years = z.number().int().min(1, 'A year at least.').max(MOST_KEPT_YEARS, `${MOST_KEPT_YEARS} years at most.`);
export const keepYearsSchema = years.nullable();

/** What goes along when finished work is let go. */
const sums = z.object({ tasks: z.number().int(), files: z.number().int(), calls: z.number().int() });

/** What will be let go next, as of now. */
const lettingGoSchema = sums.extend({
  on: isoDate,
  /** All finished work that was due earlier. */
  before: isoDate,
});
export type NextLettingGo = z.infer<typeof lettingGoSchema>;

/** What was let go, which stays on record. */
const letGoSchema = sums.extend({ on: isoDate, before: isoDate, years });
export type LetGo = z.infer<typeof letGoSchema>;

/** Of what was let go, those of the last so many times are told. */
export const LET_GO_TOLD = 24;

export const retentionEndpoints = {
  /** What will be let go next; of another number of years, what would be. Null where all is kept for good, or it is further off. */
  next: endpoint(retentionPaths.next, {
    heavy: true,
    query: z.object({
      years: z.coerce.number().pipe(years).optional(),
      /** Only where it is so near: what lies further off is not counted. */
      withinDays: z.coerce.number().int().min(0).max(366).optional(),
    }),
    answer: z.object({ next: lettingGoSchema.nullable() }),
  }),
  /** The last times, the newest first. */
  past: endpoint(retentionPaths.past, { answer: z.object({ letGo: z.array(letGoSchema) }) }),
};
