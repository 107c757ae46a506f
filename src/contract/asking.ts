import { z } from 'zod';
import { type AskingRules, LINK_OPENS } from '../core/index.ts';
import { isoTime } from './fields.ts';

/** The earliest and latest reminder, and the longest time that a link works beyond the day a task is due, in days. */
export const MOST_REMIND_DAYS = 30;
export const MOST_LINK_DAYS = 90;

const days = (what: string, most: number) =>
  z
    .number({ error: `${what}: say how many days.` })
    .int('Whole days only.')
    .min(1, `${what}: one day at least.`)
    .max(most, `${what}: ${most} days at most.`);
const words = (what: string, most: number) => z.string().trim().max(most, `${what}: ${most} characters at most.`);

/** How clients are asked to do what is theirs. */
export const askingSchema: z.ZodType<AskingRules, AskingRules> = z.object({
  sendFrom: isoTime,
  remindBefore: days('A reminder before', MOST_REMIND_DAYS).nullable(),
  remindAfter: days('A reminder after', MOST_REMIND_DAYS).nullable(),
  worksAfter: days('A link', MOST_LINK_DAYS),
  opens: z.enum(LINK_OPENS),
  needsCode: z.boolean(),
  telephone: words('The telephone', 40),
  answered: words('When somebody answers', 80),
});
