import { z } from 'zod';
import { MAX_ANSWER, titleProblems } from '../core/index.ts';
import { unnamedGroupSchema } from './assignment.ts';
import { civilMoment, id, isoTime, line, prose } from './fields.ts';

/** The shortest and longest that a piece of work may be estimated at. */
export const MAX_ESTIMATE_MINUTES = 6000;
export const estimate = z
  .number({ error: 'Say how long it takes, in minutes.' })
  .int('Whole minutes only.')
  .min(1, 'An estimate is 1 minute or more: without one, load and capacity cannot be told.')
  .max(
    MAX_ESTIMATE_MINUTES,
    `An estimate is ${MAX_ESTIMATE_MINUTES / 60} hours at most: split longer work into several templates.`,
  );

/** Names a step or a demand for good, while its words change. */
const key = z
  .string()
  .regex(/^[a-z0-9-]{1,40}$/, 'This is not a key.')
  // Ticks and answers are kept by it in an object, whose kind brings names of its own: `constructor`.
  .refine((text) => !(text in {}), 'This is not a key.');

/** A title that may hold tokens. */
export const titlePattern = line('The title', 200).superRefine((pattern, context) => {
  for (const problem of titleProblems(pattern)) context.addIssue({ code: 'custom', message: problem.message });
});

/** Instructions as HTML; the server keeps only what its list of elements allows. */
const richText = (what: string) => prose(what, 100_000);

const demandBase = { key, label: z.string().trim().max(120, 'What is asked may have 120 characters at most.') };
const limit = z.number({ error: 'A limit is a number.' }).min(-1e12).max(1e12).nullable();
const option = line('The choice', 80);
const options = z
  .array(option)
  .min(2, 'Give at least two to choose from.')
  .max(40, 'Forty to choose from at most.')
  .refine((all) => new Set(all).size === all.length, 'Two of the choices are the same.')
  .readonly();

export const demandSchema = z
  .discriminatedUnion('kind', [
    z.object({ ...demandBase, kind: z.literal(['file', 'note', 'yesNo', 'date', 'text', 'longText']) }),
    // Left out where it is not so: what says nothing new is the same content.
    z.object({ ...demandBase, kind: z.literal('tag'), atStart: z.literal(true).optional() }),
    z.object({
      ...demandBase,
      kind: z.literal('number'),
      unit: z.string().trim().max(16, 'A unit may have 16 characters at most.'),
      least: limit,
      most: limit,
    }),
    z.object({ ...demandBase, kind: z.literal(['choice', 'choices']), options }),
  ])
  .refine(
    (demand) =>
      demand.kind !== 'number' || demand.least === null || demand.most === null || demand.least <= demand.most,
    { path: ['most'], error: 'The upper limit lies below the lower one.' },
  );

const demands = z.array(demandSchema).max(30, 'Thirty pieces of proof at most.').readonly().default([]);

export const signOffSchema = z.discriminatedUnion('by', [
  z.object({ by: z.literal('manager') }),
  z.object({ by: z.literal('person'), personId: id }),
  z.object({ by: z.literal('role'), role: line('The role', 60) }),
]);

export const offsetSchema = z.object({
  amount: z.number().int('Whole days only.').min(-366, 'A year before at most.').max(366, 'A year after at most.'),
  unit: z.enum(['day', 'workingDay']),
});

export const checkLineSchema = z.object({
  key,
  text: line('The check line', 200),
  note: prose('The note', 2000).default(''),
  demands: demands.refine((all) => !all.some((demand) => demand.kind === 'tag' && demand.atStart), {
    error: 'A tag is read to start the task as a whole, not one of its lines.',
  }),
});
export type CheckLine = z.infer<typeof checkLineSchema>;

/** The most qualifications that a piece of work asks for, or that somebody holds. */
export const MOST_TICKETS = 20;
export const ticketName = line('The ticket', 60);

/** Qualifications that whoever does it has to hold. */
const tickets = z
  .array(ticketName)
  .max(MOST_TICKETS, `${MOST_TICKETS} tickets at most.`)
  .refine((names) => new Set(names).size === names.length, 'A ticket stands there twice.')
  .readonly();

const taskStepSchema = z
  .object({
    kind: z.literal('task'),
    key,
    titlePattern,
    note: prose('The note', 2000).default(''),
    offset: offsetSchema,
    startTime: isoTime.nullable(),
    dueTime: isoTime.nullable(),
    assignee: z.discriminatedUnion('by', [
      z.object({ by: z.literal('set') }),
      z.object({ by: z.literal('person'), personId: id }),
      z.object({ by: z.literal('anyOf'), group: unnamedGroupSchema }),
      z.object({ by: z.literal('leastToDo'), group: unnamedGroupSchema }),
      z.object({ by: z.literal('usualPerson') }),
      z.object({ by: z.literal('client') }),
      z.object({ by: z.literal('nobody') }),
    ]),
    estimateMinutes: estimate,
    demands,
    signOff: signOffSchema.nullable(),
    tickets: tickets.optional(),
  })
  .refine(({ startTime, dueTime }) => startTime === null || dueTime === null || startTime <= dueTime, {
    path: ['dueTime'],
    error: 'It is due before it starts.',
  });

export const stepSchema = z.union([checkLineSchema.extend({ kind: z.literal('check') }), taskStepSchema]);

export const linkSchema = z.object({
  title: z.string().trim().max(120, 'A link’s name may have 120 characters at most.'),
  url: z
    .url({
      protocol: /^(https?|mailto|tel)$/,
      error: 'This is not an address: write it like https://example.org/page.',
    })
    .max(1000),
});
export type Link = z.infer<typeof linkSchema>;

export const PRIORITIES = ['low', 'normal', 'high', 'urgent'] as const;
export type Priority = (typeof PRIORITIES)[number];

/** What a template and a task made from it have in common. */
export const contentFields = {
  instructions: richText('The instructions'),
  links: z.array(linkSchema).max(40, 'Forty links at most.').default([]),
  priority: z.enum(PRIORITIES).default('normal'),
  workType: z.string().trim().max(40).nullable().default(null),
  signOff: signOffSchema.nullable().default(null),
  /** Ticking the last line finishes the task. */
  finishWithLast: z.boolean().default(false),
  numbered: z.boolean().default(false),
  demands,
};

/** Qualifications that a template asks of whoever does its main task. */
export const ticketsAsked = tickets.default([]);

/** Every key of a list of steps, its own and those of its demands, stands once: answers are found by them. */
export function keysOf(steps: readonly { key: string; demands: readonly { key: string }[] }[]): string[] {
  return steps.flatMap((step) => [step.key, ...step.demands.map((demand) => demand.key)]);
}

const answerValue = z.union([
  z.string().max(MAX_ANSWER, `An answer may have ${MAX_ANSWER} characters at most.`),
  z.number(),
  z.boolean(),
  z.array(z.string().max(200)).max(40),
]);

/** What a person answers; a value of null takes the answer back. */
export const answerInputSchema = z.object({
  demand: key,
  value: answerValue.nullable(),
  remark: prose('The remark', 1000).default(''),
});

/** An answer that is kept. */
export const answerSchema = z.object({
  value: answerValue,
  remark: z.string(),
  at: civilMoment,
  by: z.string().nullable(),
});

/** A picture or PDF of a template or a task. Its bytes are at `/api/files/:id`, a small picture at `/api/files/:id/small`. */
export const fileSchema = z.object({
  id,
  name: z.string(),
  mediaType: z.string(),
  bytes: z.number().int(),
  isPicture: z.boolean(),
  /** The demand that it answers; null for one that was only attached. */
  demand: z.string().nullable(),
  /** Goes along to the later ones of its series. */
  isKept: z.boolean(),
  at: civilMoment,
  by: z.string().nullable(),
});
export type StoredFile = z.infer<typeof fileSchema>;
