import { z } from 'zod';
import {
  MESSAGE_KINDS,
  MESSAGE_SIDES,
  type QuietWish,
  SUMMARY_BANDS,
  SUMMARY_DAYS,
  type SummaryWish,
} from '../core/index.ts';
import { endpoint } from './endpoint.ts';
import { civilMoment, id, isoDate, isoTime, named } from './fields.ts';
import { messagePaths } from './paths-later.ts';
import { MOST_NUDGED } from './tasks.ts';

/** Lines of a band that a summary tells; the rest is counted. */
export const SUMMARY_LINES = 6;

export const summaryWishSchema: z.ZodType<SummaryWish, SummaryWish> = z.object({
  at: isoTime,
  days: z.enum(SUMMARY_DAYS),
  evenIfEmpty: z.boolean(),
  leavesOut: z.array(z.enum(SUMMARY_BANDS)).max(SUMMARY_BANDS.length).optional(),
});

/** Days whose figures stand beside the choices, today the last of them. */
export const MESSAGE_DAYS = 28;

const quietWishSchema: z.ZodType<QuietWish, QuietWish> = z.object({
  from: isoTime,
  to: isoTime,
  offDays: z.boolean(),
  through: z.enum(MESSAGE_KINDS).nullable(),
});

const hearWishSchema = z.object({ here: z.boolean(), mail: z.boolean(), phone: z.boolean() });

/** Where somebody hears of one kind of thing, and how often there was one. */
const heardSchema = z.object({
  side: z.enum(MESSAGE_SIDES),
  kind: z.enum(MESSAGE_KINDS),
  times: z.number().int(),
  wish: hearWishSchema,
  /** What the workspace says is always told. */
  fixed: hearWishSchema,
});
export type HeardOf = z.infer<typeof heardSchema>;

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

const chasedSchema = z.object({
  /** Who has them, whoever has most first; each with their tasks by the day they are due. */
  people: z.array(
    named.extend({
      tasks: z.array(
        z.object({
          id,
          title: z.string(),
          dueOn: isoDate,
          /** Since when they have it. */
          since: civilMoment,
          /** How often they were told of it, and when last. */
          told: z.number().int(),
          toldAt: civilMoment.nullable(),
        }),
      ),
    }),
  ),
});
export type Chased = z.infer<typeof chasedSchema>;

export const messageEndpoints = {
  /** How whoever asks wishes to hear of things, and what the day's summary says as of now. */
  mine: endpoint(messagePaths.mine, {
    heavy: true,
    answer: z.object({
      wish: summaryWishSchema,
      /** Where it goes; null where no address is known. */
      email: z.string().nullable(),
      summary: summarySchema,
      hears: z.array(heardSchema),
      /** The first day that the figures tell of. */
      countedFrom: isoDate,
      quiet: quietWishSchema,
      /** What was told by mail, by the hour in which it happened, midnight first, of the same days. */
      mailHours: z.array(z.number().int()).length(24),
    }),
  }),
  change: endpoint(messagePaths.change, { body: summaryWishSchema, answer: z.object({ wish: summaryWishSchema }) }),
  /** Where one kind of thing is heard of. */
  hear: endpoint(messagePaths.hear, {
    body: z.object({ side: z.enum(MESSAGE_SIDES), kind: z.enum(MESSAGE_KINDS), wish: hearWishSchema }),
    answer: z.object({ wish: hearWishSchema }),
  }),
  quiet: endpoint(messagePaths.quiet, { body: quietWishSchema, answer: z.object({ quiet: quietWishSchema }) }),
  /** Of some tasks who has not done them, and how often they were told. */
  chase: endpoint(messagePaths.chase, {
    body: z.object({ tasks: z.array(id).min(1).max(MOST_NUDGED) }),
    answer: chasedSchema,
  }),
  /** The same of what a schedule has made and is due by today; of many the first. */
  chaseOfSchedule: endpoint(messagePaths.chaseOfSchedule, { answer: chasedSchema }),
  /** The same summary by mail, at once. */
  now: endpoint(messagePaths.now, { heavy: true, answer: z.object({ email: z.string() }) }),
};
