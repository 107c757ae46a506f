import { z } from 'zod';
import { titleProblems } from '../core/index.ts';
import { endpoint } from './endpoint.ts';
import { id, isoDate, line, prose } from './fields.ts';

export const checkLineSchema = z.object({
  /** Stays the same while the text changes, so that ticks find their line. */
  key: z.string().regex(/^[a-z0-9-]{1,40}$/, 'This is not a key.'),
  text: line('The check line', 200),
});
export type CheckLine = z.infer<typeof checkLineSchema>;

export const MAX_ESTIMATE_MINUTES = 6000;
/** What a template holds, as it is written. */
export const templateInputSchema = z.object({
  name: line('The name', 120),
  titlePattern: line('The title', 200).superRefine((pattern, context) => {
    for (const problem of titleProblems(pattern)) context.addIssue({ code: 'custom', message: problem.message });
  }),
  category: z.string().trim().max(40, 'A category may have 40 characters at most.').nullable(),
  instructions: prose('The instructions', 20_000),
  checkLines: z
    .array(checkLineSchema)
    .max(200, 'A template may have 200 check lines at most.')
    .refine(
      (lines) => new Set(lines.map(({ key }) => key)).size === lines.length,
      'Two check lines have the same key.',
    ),
  estimateMinutes: z
    .number({ error: 'Say how long it takes, in minutes.' })
    .int('Whole minutes only.')
    .min(1, 'An estimate is 1 minute or more: without one, load and capacity cannot be told.')
    .max(
      MAX_ESTIMATE_MINUTES,
      `An estimate is ${MAX_ESTIMATE_MINUTES / 60} hours at most: split longer work into several templates.`,
    ),
});
export type TemplateInput = z.infer<typeof templateInputSchema>;

export const templateSchema = templateInputSchema.extend({
  id,
  version: z.number().int(),
  scheduleCount: z.number().int(),
  /** The next date of any of its running schedules. */
  nextOn: isoDate.nullable(),
  changedOn: isoDate,
  changedBy: z.string().nullable(),
});
export type Template = z.infer<typeof templateSchema>;

const saved = z.object({ template: templateSchema });

export const templateEndpoints = {
  list: endpoint({
    method: 'GET',
    path: '/templates',
    query: z.object({ after: z.string().max(300).optional() }),
    answer: z.object({ templates: z.array(templateSchema), more: z.string().nullable() }),
  }),
  one: endpoint({ method: 'GET', path: '/templates/:templateId', answer: templateSchema }),
  create: endpoint({ method: 'POST', path: '/templates', body: templateInputSchema, answer: saved }),
  change: endpoint({
    method: 'PUT',
    path: '/templates/:templateId',
    body: templateInputSchema.extend({ version: z.number().int() }),
    answer: saved,
  }),
};

export const categorySchema = z.object({
  name: z.string(),
  dot: z.enum(['petrol', 'blue', 'green', 'ink', 'petrolRing', 'blueRing', 'greenRing', 'inkRing']),
});
export type Category = z.infer<typeof categorySchema>;
