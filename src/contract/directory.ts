import { z } from 'zod';
import { type FieldValues, PREFERS, TASK_STATES } from '../core/index.ts';
import { endpoint } from './endpoint.ts';
import { civilMoment, emailOrNone, id, isoDate, line, named, prose } from './fields.ts';
import { impactSchema } from './impact.ts';
import { directoryPaths } from './paths.ts';
import { pastTaskSchema } from './schedules.ts';

/** Checked against the fields of the workspace by the server. */
const fieldValues: z.ZodType<FieldValues, FieldValues> = z
  .record(z.string().max(60), z.union([z.string().max(500), z.number()]))
  .refine((values) => Object.keys(values).length <= 60, 'Sixty fields at most.');

const text = (what: string, longest: number) =>
  z.string().trim().max(longest, `${what} may have ${longest} characters at most.`);

export const contactSchema = z.object({
  id,
  name: line('The name of the contact', 80),
  role: text('The role of the contact', 60),
  email: emailOrNone,
  telephone: text('The telephone number', 60),
  prefers: z.enum(PREFERS).nullable(),
});
export type Contact = z.infer<typeof contactSchema>;

/** The most contacts of one client. */
export const MOST_CONTACTS = 50;

export const clientInputSchema = z.object({
  name: line('The name', 120),
  address: text('The address', 500),
  usualPersonId: id.nullable(),
  notes: prose('The notes', 5000),
  fields: fieldValues,
  contacts: z
    .array(contactSchema)
    .max(MOST_CONTACTS, `${MOST_CONTACTS} contacts at most.`)
    .refine((all) => new Set(all.map((one) => one.id)).size === all.length, 'A contact stands there twice.'),
});
export type ClientInput = z.infer<typeof clientInputSchema>;

export const assetFieldsSchema = z.object({
  /** Null for the workspace's own. */
  clientId: id.nullable(),
  name: line('The name', 120),
  place: text('The place', 120),
  tag: text('The tag', 60).nullable(),
  isSite: z.boolean(),
  siteId: id.nullable(),
  fields: fieldValues,
  servesFrom: isoDate.nullable(),
  servesUntil: isoDate.nullable(),
});
export const assetInputSchema = assetFieldsSchema.superRefine(({ servesFrom, servesUntil }, context) => {
  if (servesFrom !== null && servesUntil !== null && servesUntil < servesFrom)
    context.addIssue({ code: 'custom', path: ['servesUntil'], message: 'Its last day lies before its first.' });
});
export type AssetInput = z.infer<typeof assetInputSchema>;

export const assetSchema = assetFieldsSchema.extend({
  id,
  version: z.number().int(),
  isArchived: z.boolean(),
  site: named.nullable(),
});
export type AssetRecord = z.infer<typeof assetSchema>;

const next = z.object({ on: isoDate, title: z.string(), isMade: z.boolean() }).nullable();

const clientLineSchema = named.extend({
  isArchived: z.boolean(),
  /** The first of its assets by name, and how many there are. */
  assets: z.array(z.string()),
  assetCount: z.number().int(),
  place: z.string(),
  usualPerson: named.nullable(),
  /** The plan that the client is on, the first by name of several: how much of it is the client's own, and where that ends. */
  plan: named
    .extend({ own: z.number().int(), fromOn: isoDate, offOn: isoDate.nullable(), more: z.number().int() })
    .nullable(),
  scheduleCount: z.number().int(),
  lastEight: z.array(pastTaskSchema).max(8),
  next,
  lateCount: z.number().int(),
});
export type ClientLine = z.infer<typeof clientLineSchema>;

export const clientSchema = clientInputSchema.extend({
  id,
  version: z.number().int(),
  isArchived: z.boolean(),
  usualPerson: named.nullable(),
  /** Addresses of its contacts that take no more mails by their own wish, in small letters. */
  stopped: z.array(z.object({ email: z.string(), on: civilMoment })),
  /** Those that mails have not reached since one was last delivered. */
  refused: z.array(
    z.object({
      email: z.string(),
      times: z.number().int(),
      on: civilMoment,
      /** What its server said the last time. */
      trouble: z.string(),
    }),
  ),
  assets: z.array(assetSchema),
  schedules: z.array(
    z.object({
      id,
      template: named,
      asset: named.nullable(),
      phrase: z.string(),
      state: z.enum(['running', 'paused', 'ended', 'problem']),
      next: isoDate.nullable(),
      timesAYear: z.number(),
      who: z.string(),
    }),
  ),
});
export type ClientRecord = z.infer<typeof clientSchema>;

const mark = z.object({
  on: isoDate,
  /** Null for a date that is not made yet. */
  taskId: id.nullable(),
  state: z.enum([...TASK_STATES, 'coming']),
  late: z.boolean(),
});
export type WorkMark = z.infer<typeof mark>;

const entry = z.object({
  taskId: id.nullable(),
  title: z.string(),
  on: isoDate,
  state: mark.shape.state,
  late: z.boolean(),
  who: z.string().nullable(),
  minutes: z.number().int(),
  note: z.string(),
  /** What was written down and photographed with it, in words: "1.12 Ω, 2 pictures". */
  proof: z.string(),
});

export const clientWorkSchema = z.object({
  from: isoDate,
  to: isoDate,
  /** A line for each piece of work, by its template and its place there. */
  lines: z.array(z.object({ key: z.string(), name: z.string(), marks: z.array(mark) })),
  coming: z.array(entry),
  comingCount: z.number().int(),
  done: z.array(entry),
  doneCount: z.number().int(),
});
export type ClientWork = z.infer<typeof clientWorkSchema>;

/** Lines of a page. */
export const CLIENTS_A_PAGE = 50;

/** What one client has that another would get. */
export const mergingSchema = z.object({
  contacts: z.number().int(),
  assets: z.number().int(),
  schedules: z.number().int(),
  tasks: z.number().int(),
  notices: z.number().int(),
  plans: z.number().int(),
  calls: z.number().int(),
  answers: z.number().int(),
  mails: z.number().int(),
  /** What is empty with the one that stays and is taken over, in words. */
  filled: z.array(z.string()),
});
export type Merging = z.infer<typeof mergingSchema>;

const savedClient = z.object({ client: clientSchema, changeId: id.nullable() });
const savedAsset = z.object({ asset: assetSchema, changeId: id.nullable() });
const archiving = z.object({ archived: z.boolean() });

export const directoryEndpoints = {
  /** By name, a page at a time: those in use, or those that are archived. */
  clients: endpoint(directoryPaths.clients, {
    heavy: true,
    query: z.object({
      q: z.string().max(100).default(''),
      person: id.optional(),
      /** Of those on one plan, or on none. */
      plan: z.union([id, z.literal('none')]).optional(),
      by: z.enum(['name', 'plan']).default('name'),
      archived: z.enum(['no', 'yes']).default('no'),
      after: z.string().max(400).optional(),
    }),
    answer: z.object({
      clients: z.array(clientLineSchema),
      more: z.string().nullable(),
      counts: z.object({ fitting: z.number().int(), archived: z.number().int() }),
      /** How many of those that fit are on each plan, null for none, in the order of the list; told with its first page, by plan. */
      groups: z.array(z.object({ planId: id.nullable(), name: z.string(), count: z.number().int() })),
    }),
  }),
  client: endpoint(directoryPaths.client, { answer: clientSchema }),
  /** The past half year of a client's work and the coming one, what is next and what was done. */
  work: endpoint(directoryPaths.work, { answer: clientWorkSchema, heavy: true }),
  addClient: endpoint(directoryPaths.addClient, { body: clientInputSchema, answer: savedClient }),
  changeClient: endpoint(directoryPaths.changeClient, {
    body: clientInputSchema.extend({ version: z.number().int() }),
    answer: savedClient,
  }),
  archiveClient: endpoint(directoryPaths.archiveClient, { body: archiving, answer: savedClient, heavy: true }),
  impactOfArchivingClient: endpoint(directoryPaths.impactOfArchivingClient, {
    body: archiving,
    answer: impactSchema,
    heavy: true,
  }),
  /** Everything of another goes over to this one, and the other into the archive. */
  merge: endpoint(directoryPaths.merge, {
    body: z.object({ otherId: id, version: z.number().int() }),
    answer: savedClient,
    heavy: true,
  }),
  lookAtMerging: endpoint(directoryPaths.lookAtMerging, { body: z.object({ otherId: id }), answer: mergingSchema }),
  /** The workspace's own, by name: all of them, or the sites alone. */
  ownAssets: endpoint(directoryPaths.ownAssets, {
    query: z.object({
      q: z.string().max(100).default(''),
      which: z.enum(['all', 'sites', 'archived']).default('all'),
      after: z.string().max(400).optional(),
    }),
    answer: z.object({
      assets: z.array(assetSchema),
      more: z.string().nullable(),
      count: z.number().int(),
      archived: z.number().int(),
    }),
  }),
  addAsset: endpoint(directoryPaths.addAsset, { body: assetInputSchema, answer: savedAsset }),
  changeAsset: endpoint(directoryPaths.changeAsset, {
    body: assetInputSchema.extend({ version: z.number().int() }),
    answer: savedAsset,
  }),
  archiveAsset: endpoint(directoryPaths.archiveAsset, { body: archiving, answer: savedAsset, heavy: true }),
  impactOfArchivingAsset: endpoint(directoryPaths.impactOfArchivingAsset, {
    body: archiving,
    answer: impactSchema,
    heavy: true,
  }),
};
