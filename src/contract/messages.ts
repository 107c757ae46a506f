import { z } from 'zod';
import { SUMMARY_BANDS, SUMMARY_DAYS, type SummaryWish } from '../core/index.ts';
import { endpoint } from './endpoint.ts';
import { civilMoment, isoDate, isoTime } from './fields.ts';
import { messagePaths } from './paths-later.ts';

/** Lines of a band that a summary tells; the rest is counted. */
export const SUMMARY_LINES = 6;

export const summaryWishSchema: z.ZodType<SummaryWish, SummaryWish> = z.object({
  at: isoTime,
  days: z.enum(SUMMARY_DAYS),
  evenIfEmpty: z.boolean(),
});

const summarySchema = z.object({
  subject: z.string(),
  on: isoDate,
  /** As of when it is told. */
  at: civilMoment,
  bands: z.array(
    z.object({
      band: z.enum(SUMMARY_BANDS),
      count: z.number().int(),
      /** What else there is to say of all of them. */
      about: z.string(),
      /** Where all of them stand. */
      path: z.string(),
      lines: z.array(
        z.object({
          text: z.string(),
          about: z.string(),
          /** The one thing to do, and the page where it is done. */
          verb: z.string(),
          path: z.string(),
        }),
      ),
    }),
  ),
});
export type Summary = z.infer<typeof summarySchema>;

export const messageEndpoints = {
  /** How whoever asks wishes to hear of things, and what the day's summary says as of now. */
  mine: endpoint(messagePaths.mine, {
    heavy: true,
    answer: z.object({
      wish: summaryWishSchema,
      /** Where it goes; null where no address is known. */
      email: z.string().nullable(),
      summary: summarySchema,
    }),
  }),
  change: endpoint(messagePaths.change, { body: summaryWishSchema, answer: z.object({ wish: summaryWishSchema }) }),
  /** The same summary by mail, at once. */
  now: endpoint(messagePaths.now, { heavy: true, answer: z.object({ email: z.string() }) }),
};
