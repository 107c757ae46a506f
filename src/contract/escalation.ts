import { z } from 'zod';
import { type Escalation, MOST_LATE_HOURS } from '../core/index.ts';

const lateHours = z
  .number({ error: 'Say how many hours.' })
  .int('Whole hours only.')
  .min(1, 'At least an hour.')
  .max(MOST_LATE_HOURS, `${MOST_LATE_HOURS} hours at most.`)
  .nullable();

/** After how many hours late work is told to whom: of a workspace, or of a template of its own. */
export const escalationSchema: z.ZodType<Escalation, Escalation> = z.object({
  own: lateHours,
  answering: lateHours,
  deputy: lateHours,
});
