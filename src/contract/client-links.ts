import { z } from 'zod';
import { ASK_KINDS, LINK_OPENS } from '../core/index.ts';
import { endpoint } from './endpoint.ts';
import { civilMoment, id, isoDate, isoTime, named } from './fields.ts';
import { byLinkPaths, clientLinkPaths } from './paths.ts';
import { waysSchema } from './settings.ts';
import { noteSchema, taskSchema, tickSchema } from './tasks.ts';
import { answerInputSchema, checkLineSchema, demandSchema, fileSchema, linkSchema } from './work.ts';

/** What a client was asked, and how far that is: for those who asked. */
const askedSchema = z.object({
  /** Contacts of the client that have a mail address, the one who would be asked first. */
  contacts: z.array(named.extend({ role: z.string(), email: z.string() })),
  /** Mails that went, newest first. */
  asks: z.array(
    z.object({
      id,
      kind: z.enum(ASK_KINDS),
      at: civilMoment,
      to: z.string(),
      email: z.string(),
      /** Who sent it by hand; null where it went by itself. */
      by: z.string().nullable(),
      openedAt: civilMoment.nullable(),
      /** Whether its link still opens the task, and until when it does or did. */
      works: z.boolean(),
      worksUntil: isoDate,
      withdrawnAt: civilMoment.nullable(),
    }),
  ),
});
export type Asked = z.infer<typeof askedSchema>;

/** Whom to ask, and what the link opens. */
const askInputSchema = z.object({ contactId: id, opens: z.enum(LINK_OPENS), needsCode: z.boolean() });
export type AskInput = z.infer<typeof askInputSchema>;

/** How far a task is for the client whose it is. */
export const LINKED_STATES = ['open', 'underWay', 'toCheck', 'done'] as const;

const linkedLine = z.object({
  id,
  title: z.string(),
  /** What it is about: "Grey Wagtail, berth A 12"; empty for nothing. */
  about: z.string(),
  dueOn: isoDate,
  dueTime: isoTime.nullable(),
  state: z.enum(LINKED_STATES),
});
export type LinkedLine = z.infer<typeof linkedLine>;

const linkedTaskSchema = linkedLine.extend({
  /** Grows with every change of it and of its files: an answer that was overtaken on its way is known by it. */
  version: z.number().int(),
  estimateMinutes: z.number().int(),
  instructions: z.string(),
  brief: z.string(),
  links: z.array(linkSchema),
  /** Files to be read, and those that were sent. */
  templateFiles: z.array(fileSchema),
  files: z.array(
    fileSchema.extend({
      /** Under which it was sent, so that the device that waits to send it knows that it is here; null for one of the office. */
      key: id.nullable(),
    }),
  ),
  demands: z.array(demandSchema).readonly(),
  steps: z.array(checkLineSchema.extend({ isTicked: z.boolean() })),
  answers: taskSchema.shape.answers,
  note: z.string(),
  sentBack: z.object({ at: civilMoment, reason: z.string() }).nullable(),
  doneAt: civilMoment.nullable(),
  /** Who looks at it once it is sent, by first name or as what; null for nobody. */
  looksAtIt: z.string().nullable(),
  /** The day of the next one of its kind. */
  nextOn: isoDate.nullable(),
});
export type LinkedTask = z.infer<typeof linkedTaskSchema>;

const openedSchema = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('open'),
    workspace: z.string(),
    today: isoDate,
    ways: waysSchema,
    contact: z.string(),
    email: z.string(),
    worksUntil: isoDate,
    /** Whom to ring, by first name, and when somebody answers; null for nobody. */
    ring: z.object({ name: z.string().nullable(), telephone: z.string(), answered: z.string() }).nullable(),
    /** The ones that are to be done first, by the day they are due; then those that were sent. */
    tasks: z.array(linkedLine),
  }),
  /** A code goes to the address that the link was sent to. */
  z.object({ kind: z.literal('code'), workspace: z.string(), to: z.string(), isSent: z.boolean() }),
]);
export type OpenedLink = z.infer<typeof openedSchema>;

const saved = z.object({ task: linkedTaskSchema });

export const clientLinkEndpoints = {
  asked: endpoint(clientLinkPaths.asked, { answer: askedSchema }),
  /** Asks the client now, by mail; a task that is not theirs becomes theirs. */
  ask: endpoint(clientLinkPaths.ask, {
    body: askInputSchema,
    answer: z.object({ asked: askedSchema, changeId: id.nullable() }),
  }),
  /** No link opens the task any more. */
  withdraw: endpoint(clientLinkPaths.withdraw, { answer: askedSchema }),
};

/** What whoever came by a link may ask. */
export const byLinkEndpoints = {
  open: endpoint(byLinkPaths.open, { answer: openedSchema }),
  sendCode: endpoint(byLinkPaths.sendCode, { answer: openedSchema }),
  enterCode: endpoint(byLinkPaths.enterCode, {
    body: z.object({ code: z.string().trim().max(20) }),
    answer: z.object({ pass: z.string() }),
  }),
  task: endpoint(byLinkPaths.task, { answer: linkedTaskSchema }),
  answer: endpoint(byLinkPaths.answer, { body: answerInputSchema, answer: saved }),
  tick: endpoint(byLinkPaths.tick, { body: tickSchema, answer: saved }),
  note: endpoint(byLinkPaths.note, { body: noteSchema, answer: saved }),
  finish: endpoint(byLinkPaths.finish, { answer: saved }),
  takeBack: endpoint(byLinkPaths.takeBack, { answer: saved }),
  /** As a form: the key, the demand it is for, and last the bytes. */
  upload: endpoint(byLinkPaths.upload, {
    body: z.object({ key: id, demand: z.string().max(40) }),
    answer: saved,
  }),
  removeFile: endpoint(byLinkPaths.removeFile, { answer: saved }),
};
