import { z } from 'zod';
import { defaultRuleSchema } from './assignment.ts';
import { endpoint } from './endpoint.ts';
import { escalationSchema } from './escalation.ts';
import { id, isoDate, isoTime, line, prose } from './fields.ts';
import { impactSchema, reachSchema } from './impact.ts';
import { templatePaths } from './paths.ts';
import { taskLineSchema } from './tasks.ts';
import { contentFields, estimate, fileSchema, keysOf, stepSchema, ticketsAsked, titlePattern } from './work.ts';

export const DOTS = ['petrol', 'blue', 'green', 'ink', 'petrolRing', 'blueRing', 'greenRing', 'inkRing'] as const;
const dot = z.enum(DOTS);
export type Dot = z.infer<typeof dot>;

export const MAX_STEPS = 300;

/** What a template holds, as it is written. */
export const templateInputSchema = z
  .object({
    name: line('The name', 120),
    /** What it is about, beside the name. */
    summary: z.string().trim().max(120, 'The summary may have 120 characters at most.').default(''),
    titlePattern,
    category: z.string().trim().max(40, 'A category may have 40 characters at most.').nullable(),
    /** The colour of its tag, where it differs from its category's. */
    dot: dot.nullable().default(null),
    ...contentFields,
    estimateMinutes: estimate,
    /** Who does it where a schedule does not say otherwise. */
    assignment: defaultRuleSchema.default({ v: 1, kind: 'nobody' }),
    tickets: ticketsAsked,
    /** Who is told when it is late, where that is not as the workspace says. */
    escalation: escalationSchema.nullable().default(null),
    steps: z.array(stepSchema).max(MAX_STEPS, `A template may have ${MAX_STEPS} steps at most.`).default([]),
    /** Files that go along with every task. */
    fileIds: z.array(id).max(40, 'Forty files at most.').default([]),
  })
  .superRefine(({ steps, demands }, context) => {
    const keys = [...keysOf(steps), ...demands.map(({ key }) => key)];
    if (new Set(keys).size !== keys.length)
      context.addIssue({ code: 'custom', path: ['steps'], message: 'Two steps have the same key.' });
  });
export type TemplateInput = z.infer<typeof templateInputSchema>;

/** A template as one line of the library. */
export const templateLineSchema = z.object({
  id,
  version: z.number().int(),
  name: z.string(),
  summary: z.string(),
  titlePattern: z.string(),
  category: z.string().nullable(),
  dot: dot.nullable(),
  workType: z.string().nullable(),
  priority: contentFields.priority,
  assignment: defaultRuleSchema,
  /** How many tasks a set of it has, how many check lines, and how long all of it takes. */
  makes: z.number().int(),
  checkLines: z.number().int(),
  minutes: z.number().int(),
  scheduleCount: z.number().int(),
  /** The next date of any of its running schedules, and the last one of any task. */
  nextOn: isoDate.nullable(),
  lastOn: isoDate.nullable(),
  isFavourite: z.boolean(),
  archivedOn: isoDate.nullable(),
  changedOn: isoDate,
  changedBy: z.string().nullable(),
});
export type TemplateLine = z.infer<typeof templateLineSchema>;

/** A template with all that it says. */
export const templateSchema = templateLineSchema.extend({
  ...templateInputSchema.shape,
  files: z.array(fileSchema),
});
export type Template = z.infer<typeof templateSchema>;

/** What stands in the way of deleting a template, and what archiving it would do. */
const templateUsesSchema = z.object({
  /** The first of them. */
  schedules: z.array(z.object({ id, name: z.string(), phrase: z.string() })),
  count: z.number().int(),
  /** Made from it, as far as they are counted. */
  tasks: z.number().int(),
  hasMoreTasks: z.boolean(),
  /** Tasks made already that nobody has seen: archiving takes them back. */
  unseen: z.number().int(),
  /** Unfinished ones that show already, or were touched: they stay. */
  open: z.number().int(),
});
export type TemplateUses = z.infer<typeof templateUsesSchema>;

/** Starting a template by hand: the set it makes, with what is special this time. */
const startSchema = z.object({
  on: isoDate,
  clientId: id.nullable(),
  assetId: id.nullable(),
  assigneeId: id.nullable(),
  /** Goes along with every task of the set. */
  special: prose('What is special this time', 2000).default(''),
  parts: z
    .array(
      z.object({
        /** Of the step; empty for the main task. */
        step: z.string().max(40),
        on: isoDate,
        startTime: isoTime.nullable(),
        dueTime: isoTime.nullable(),
        assigneeId: id.nullable(),
      }),
    )
    .min(1, 'Leave at least one task in the set.')
    .max(MAX_STEPS + 1)
    .refine((parts) => new Set(parts.map(({ step }) => step)).size === parts.length, 'A step stands there twice.'),
});
export type StartInput = z.infer<typeof startSchema>;

/** Where the files of a new template come from, besides those uploaded for it. */
const likeSchema = z
  .union([z.object({ templateId: id }), z.object({ taskId: id })])
  .nullable()
  .default(null);

const saved = z.object({ template: templateSchema, changeId: id.nullable() });

export const templateEndpoints = {
  list: endpoint(templatePaths.list, {
    heavy: true,
    query: z.object({ after: z.string().max(300).optional() }),
    answer: z.object({ templates: z.array(templateLineSchema), more: z.string().nullable() }),
  }),
  one: endpoint(templatePaths.one, { heavy: true, answer: templateSchema }),
  create: endpoint(templatePaths.create, {
    body: z.object({ template: templateInputSchema, like: likeSchema }),
    answer: saved,
  }),
  change: endpoint(templatePaths.change, {
    heavy: true,
    body: templateInputSchema.safeExtend({ version: z.number().int(), reach: reachSchema }),
    answer: saved,
  }),
  /** What saving it would do. */
  impact: endpoint(templatePaths.impact, {
    heavy: true,
    body: templateInputSchema.safeExtend({ version: z.number().int(), reach: reachSchema }),
    answer: impactSchema,
  }),
  uses: endpoint(templatePaths.uses, { heavy: true, answer: templateUsesSchema }),
  archive: endpoint(templatePaths.archive, { heavy: true, body: z.object({ archived: z.boolean() }), answer: saved }),
  remove: endpoint(templatePaths.remove, { answer: z.object({ changeId: id }) }),
  favourite: endpoint(templatePaths.favourite, {
    body: z.object({ favourite: z.boolean() }),
    answer: z.object({ favourite: z.boolean() }),
  }),
  start: endpoint(templatePaths.start, {
    heavy: true,
    body: startSchema,
    answer: z.object({ tasks: z.array(taskLineSchema), changeId: id }),
  }),
  /** A task as a template to begin from. */
  ofTask: endpoint(templatePaths.ofTask, { answer: templateInputSchema }),
};

export const categorySchema = z.object({ name: z.string(), dot });
export type Category = z.infer<typeof categorySchema>;
