import { z } from 'zod';
import { endpoint } from './endpoint.ts';
import { civilMoment, id } from './fields.ts';
import { calendarPaths } from './paths-later.ts';

/** Of what a calendar can be: whoever it is of, and what is seen of it there. */
export const CALENDAR_KINDS = ['person', 'client', 'asset', 'schedule', 'view'] as const;
export type CalendarKind = (typeof CALENDAR_KINDS)[number];

/** Addresses of one person. */
export const MOST_CALENDARS = 20;
/** Entries of one calendar; of more those that are due soonest, and the last ones before. */
export const MOST_ENTRIES = 5000;
/** What is over is told for so long, and what is ahead so far: of one schedule, client or asset, and of a person. */
export const CALENDAR_DAYS = { past: 60, ahead: 366, person: 42 } as const;

const calendarOfSchema = z.object({ kind: z.enum(CALENDAR_KINDS), id });
export type CalendarOf = z.infer<typeof calendarOfSchema>;

const calendarSchema = z.object({
  id,
  of: calendarOfSchema,
  /** Null where what it is of is gone: then it says nothing any more. */
  name: z.string().nullable(),
  madeAt: civilMoment,
  /** When it was asked for last, and by which program, in its own words; null where it never was. */
  askedAt: civilMoment.nullable(),
  askedBy: z.string(),
});
export type CalendarAddress = z.infer<typeof calendarSchema>;

const mineSchema = z.object({ calendars: z.array(calendarSchema) });
/** The address is told this once: what is kept of it is a digest. */
const madeSchema = z.object({ address: z.string(), calendar: calendarSchema });

export const calendarEndpoints = {
  mine: endpoint(calendarPaths.mine, { answer: mineSchema }),
  make: endpoint(calendarPaths.make, { body: calendarOfSchema, answer: madeSchema }),
  /** Another address in the place of this one, which opens nothing from then on. */
  renew: endpoint(calendarPaths.renew, { answer: madeSchema }),
  withdraw: endpoint(calendarPaths.withdraw, { answer: mineSchema }),
  file: endpoint(calendarPaths.file, { query: calendarOfSchema, answer: z.string() }),
  subscribed: endpoint(calendarPaths.subscribed, {
    query: z.object({ key: z.string().min(1).max(100) }),
    answer: z.string(),
  }),
};
