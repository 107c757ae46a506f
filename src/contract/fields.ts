import { z } from 'zod';
import { tryDayOfIso, tryMinutesOfTime, type Weekday } from '../core/index.ts';

export const id = z.uuid('This is not an id.');

export const isoDate = z
  .string()
  .refine((text) => tryDayOfIso(text) !== null, { error: 'This is not a date: write it YYYY-MM-DD.' });

/** 1 for Monday to 7 for Sunday. */
export const weekday: z.ZodType<Weekday, Weekday> = z.literal([1, 2, 3, 4, 5, 6, 7], {
  error: 'A weekday is 1 for Monday to 7 for Sunday.',
});

export const NO_TIME = 'This is not a time: write it HH:MM, 00:00 to 23:59.';
export const isoTime = z.string().refine((text) => tryMinutesOfTime(text) !== null, { error: NO_TIME });

/** Civil date and time in the workspace's zone, `YYYY-MM-DDTHH:MM`. */
export const civilMoment = z.string().regex(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/);

/** A text of one line with something in it. */
export function line(what: string, longest: number) {
  return z
    .string({ error: `${what} is missing.` })
    .trim()
    .min(1, `${what} is missing.`)
    .max(longest, `${what} may have ${longest} characters at most.`)
    .refine((text) => !hasControlCharacters(text), { error: `${what} holds a character that cannot be printed.` });
}

/** A text of several lines, which may be empty. */
export function prose(what: string, longest: number) {
  return z
    .string()
    .max(longest, `${what} may have ${longest.toLocaleString('en-GB')} characters at most.`)
    .refine((text) => !text.includes('\u0000'), { error: `${what} holds a character that cannot be kept.` });
}

function hasControlCharacters(text: string): boolean {
  for (let i = 0; i < text.length; i++) if (text.charCodeAt(i) < 32) return true;
  return false;
}

const address = (form: RegExp) =>
  z
    .string()
    .trim()
    .max(200, 'An address has 200 characters at most.')
    .regex(form, 'That is no address: write it like edda@saltmarsh.example.');
export const emailField = address(/^[^\s@]+@[^\s@]+\.[^\s@]+$/);
/** An address, or nothing. */
export const emailOrNone = address(/^([^\s@]+@[^\s@]+\.[^\s@]+)?$/);

/** What stands at the end of a link that lets somebody in. */
export const linkToken = z.string().min(20, 'This link is cut short: copy all of it.').max(200);

export const named = z.object({ id, name: z.string() });
export type Named = z.infer<typeof named>;

/** How rows stand in a file. */
export const ROWS_FORMS = ['csv', 'json'] as const;
export type RowsForm = (typeof ROWS_FORMS)[number];
export const rowsFormSchema = z.enum(ROWS_FORMS).default('csv');
