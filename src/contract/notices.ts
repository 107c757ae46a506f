import { z } from 'zod';
import {
  LETTER_BLOCKS,
  LETTER_LANGUAGE_TAGS,
  LETTER_TOKEN_NAMES,
  letterProblems,
  NOTICE_STATES,
} from '../core/index.ts';
import { endpoint } from './endpoint.ts';
import { civilMoment, id, isoDate, isoTime, line, named } from './fields.ts';
import { noticePaths } from './paths.ts';

/** Letters of a workspace, and notices that are written at once. */
export const MOST_LETTERS = 60;
export const MOST_NOTICES_AT_ONCE = 200;
/** Visits of a page, and notices of one. */
export const VISITS_A_PAGE = 60;
export const NOTICES_A_PAGE = 40;
/** Weeks that visits are told of, with this one: as far as plans are kept, and further where a notice is longer than that. */
export const VISIT_WEEKS = 7;
export const MOST_VISIT_WEEKS = 60;
/** Days ahead of the latest day to send in which the morning page tells of a notice. */
export const SEND_SOON_DAYS = 3;
/** Days from today that a letter may be dated at the most. */
export const MOST_ISSUED_DAYS = 60;

const MOST_RUNS = 200;
const MOST_BLOCKS = 80;

const filled = (what: string, longest: number) =>
  z
    .string({ error: `${what} is missing.` })
    .max(longest, `${what} may have ${longest.toLocaleString('en-GB')} characters at most.`)
    .superRefine((text, context) => {
      for (const { message } of letterProblems(text)) context.addIssue({ code: 'custom', message });
    });
const runOf = <Text extends z.ZodType<string>>(text: Text) =>
  z.object({ text, bold: z.boolean().optional(), italic: z.boolean().optional() });
const blockOf = <Text extends z.ZodType<string>>(text: Text) =>
  z.object({ kind: z.enum(LETTER_BLOCKS), runs: z.array(runOf(text)).max(MOST_RUNS, 'This paragraph is too long.') });

const language = z.enum(LETTER_LANGUAGE_TAGS);
const letterFields = z.object({
  name: line('The name of the letter', 60),
  /** For which type of work it is meant; null for any. */
  workType: z.string().max(40).nullable(),
  language,
  subject: filled('What it is about', 200).refine((text) => text.trim() !== '', { error: 'Say what it is about.' }),
  body: z
    .array(blockOf(filled('A paragraph', 4_000)))
    .max(MOST_BLOCKS, 'A letter has 80 paragraphs at most.')
    .refine((blocks) => blocks.some(({ runs }) => runs.some(({ text }) => text.trim() !== '')), {
      error: 'The letter says nothing yet.',
    }),
});
export type LetterInput = z.infer<typeof letterFields>;
const letterSchema = letterFields.extend({ id, version: z.number().int() });
export type NoticeLetter = z.infer<typeof letterSchema>;
const savedLetter = z.object({ letter: letterSchema, changeId: id });

const standing = z.object({
  state: z.enum(NOTICE_STATES),
  sendBy: isoDate.nullable(),
  /** When those who plan are reminded of it; null where nothing is to be sent. */
  remindOn: isoDate.nullable(),
  inTime: z.boolean().nullable(),
});

/** A notice in a list. */
const noticeLine = z.object({
  id,
  batchId: id,
  taskId: id,
  client: named,
  /** What it is about, in a line; null for the word that none is needed. */
  subject: z.string().nullable(),
  letter: z.string().nullable(),
  /** By which way it goes, or went; null for the word that none is needed. */
  way: z.string().nullable(),
  /** Why none is needed; empty of one that is written. */
  reason: z.string(),
  visitOn: isoDate,
  issuedOn: isoDate,
  sentOn: isoDate.nullable(),
  writtenAt: civilMoment,
  by: z.string().nullable(),
  /** Of one that goes by mail from here: how far that is. */
  mail: z.object({ id, state: z.enum(['refused', 'waiting', 'sent']), to: z.string() }).nullable(),
  /** Whether a later one took its place. */
  isReplaced: z.boolean(),
});
export type NoticeLine = z.infer<typeof noticeLine>;

/** A notice as it is printed; kept as it was written. */
const pageSchema = z.object({
  /** The form in which it is drawn, so that one that was sent is always drawn as it went. */
  v: z.literal(1),
  language,
  from: z.object({ name: z.string(), lines: z.array(z.string()) }),
  to: z.array(z.string()),
  issued: z.string(),
  /** That it takes the place of another; null where it does not. */
  replaces: z.string().nullable(),
  subject: z.string(),
  body: z.array(blockOf(z.string())),
});
export type NoticePage = z.infer<typeof pageSchema>;

/** A visit that is not over, or that is foreseen. */
const visitLine = z.object({
  /** Null for one that is not made yet. */
  taskId: id.nullable(),
  scheduleId: id.nullable(),
  version: z.number().int(),
  title: z.string(),
  on: isoDate,
  startTime: isoTime.nullable(),
  dueTime: isoTime.nullable(),
  client: named,
  asset: named.extend({ place: z.string() }).nullable(),
  workType: z.string(),
  who: z.string().nullable(),
  estimateMinutes: z.number().int(),
  standing,
  notice: noticeLine.pick({ id: true, batchId: true, way: true, sentOn: true, visitOn: true, reason: true }).nullable(),
  /** The date of its schedule after it; null where none follows within a year, or none does. */
  next: isoDate.nullable(),
});
export type VisitLine = z.infer<typeof visitLine>;

const visitFilter = z.object({
  workType: z.string().max(40).optional(),
  person: id.optional(),
  client: id.optional(),
  /** Only those whose notice is still to go. */
  toSend: z.literal('yes').optional(),
  /** Of those, only what has to go within so many days, or had to. */
  sendWithin: z.coerce.number().int().min(0).max(366).optional(),
});
export type VisitFilter = z.infer<typeof visitFilter>;

const weekSchema = z.object({
  monday: isoDate,
  made: z.number().int(),
  foreseen: z.number().int(),
  states: z.partialRecord(z.enum(NOTICE_STATES), z.number().int()),
});
export type VisitWeek = z.infer<typeof weekSchema>;

/** A way by which the notice of a visit may go. */
const draftWay = z.object({
  name: z.string(),
  kind: z.enum(['post', 'hand', 'mail', 'other']),
  sendBy: isoDate,
  /** The earliest day for the visit where the notice goes today, or on the next day on which anything does. */
  earliest: isoDate,
});
const values = z.record(z.enum(LETTER_TOKEN_NAMES), z.string());

/** What is known of a visit for its notice, before it is written. */
const draftSchema = z.object({
  taskId: id,
  version: z.number().int(),
  title: z.string(),
  on: isoDate,
  startTime: isoTime.nullable(),
  dueTime: isoTime.nullable(),
  client: named,
  asset: named.extend({ place: z.string() }).nullable(),
  workType: z.string(),
  who: z.string().nullable(),
  ways: z.array(draftWay),
  /** Where a mail goes to; empty where no address is known. */
  email: z.string(),
  to: z.array(z.string()),
  values,
  standing,
  /** The notice that this one takes the place of; null where it is the first. */
  replaces: z.object({ id, sentOn: isoDate }).nullable(),
  /** What it says then, in the language of the letter. */
  replacing: z.string().nullable(),
});
export type NoticeDraft = z.infer<typeof draftSchema>;

const about = z.object({
  language,
  issuedOn: isoDate,
  /** Who signs; whoever writes it where that is left out. */
  signedBy: id.optional(),
  /** What is done there; of each the name of its work where that is left out. */
  reason: z.string().trim().max(200, 'Two hundred characters at most.').optional(),
});
const lookSchema = about.extend({ tasks: z.array(id).min(1).max(MOST_NOTICES_AT_ONCE) });
export type NoticeLook = z.infer<typeof lookSchema>;

const writeSchema = about.omit({ language: true }).extend({
  letterId: id,
  /** The letter as it was seen. */
  letterVersion: z.number().int(),
  visits: z
    .array(
      z.object({
        taskId: id,
        version: z.number().int(),
        way: z.string().max(40),
        /** That it goes although it is too late by this way. */
        evenLate: z.boolean().default(false),
      }),
    )
    .min(1, 'Choose a visit.')
    .max(MOST_NOTICES_AT_ONCE, `${MOST_NOTICES_AT_ONCE} at once.`)
    .refine((all) => new Set(all.map(({ taskId }) => taskId)).size === all.length, 'A visit stands there twice.'),
  /** Whether those that go by mail leave at once. */
  mail: z.boolean(),
  /** By which whoever waits for it is told how far it is. */
  follow: id.optional(),
});
export type NoticesInput = z.input<typeof writeSchema>;

const ids = z.array(id).min(1).max(MOST_NOTICES_AT_ONCE);
const done = z.object({ count: z.number().int(), changeId: id });

export const noticeEndpoints = {
  /** Visits of the coming weeks by their day; foreseen ones among them. */
  visits: endpoint(noticePaths.visits, {
    heavy: true,
    query: visitFilter.extend({ after: z.string().max(200).optional() }),
    answer: z.object({ lines: z.array(visitLine), more: z.string().nullable() }),
  }),
  /** How many there are in each week, by how far their notices are. */
  weeks: endpoint(noticePaths.weeks, {
    heavy: true,
    query: visitFilter,
    answer: z.object({ weeks: z.array(weekSchema) }),
  }),
  letters: endpoint(noticePaths.letters, { answer: z.object({ letters: z.array(letterSchema) }) }),
  addLetter: endpoint(noticePaths.addLetter, { body: letterFields, answer: savedLetter }),
  changeLetter: endpoint(noticePaths.changeLetter, {
    body: letterFields.extend({ version: z.number().int() }),
    answer: savedLetter,
  }),
  dropLetter: endpoint(noticePaths.dropLetter, { answer: z.object({ changeId: id }) }),
  /** What is known of visits for a letter: what it is filled in with, how it may go. */
  look: endpoint(noticePaths.look, { body: lookSchema, answer: z.object({ drafts: z.array(draftSchema) }) }),
  write: endpoint(noticePaths.write, {
    heavy: true,
    body: writeSchema,
    answer: done.extend({ batchId: id, mailed: z.number().int() }),
  }),
  /** That notices went on a day; those that go by mail from here leave now. */
  send: endpoint(noticePaths.send, { heavy: true, body: z.object({ notices: ids, on: isoDate }), answer: done }),
  /** That visits need none. */
  needNone: endpoint(noticePaths.needNone, {
    body: z.object({ tasks: ids, reason: line('Why none is needed', 200) }),
    answer: done,
  }),
  /** Notices of one task or of one client, the newest first. */
  list: endpoint(noticePaths.list, {
    query: z
      .object({ task: id.optional(), client: id.optional(), after: id.optional() })
      .refine(({ task, client }) => (task === undefined) !== (client === undefined), 'Of a task, or of a client.'),
    answer: z.object({ notices: z.array(noticeLine), isMore: z.boolean() }),
  }),
  /** One notice, or all that were written in one go, as a PDF. */
  pdf: endpoint(noticePaths.pdf, {
    heavy: true,
    query: z
      .object({ notice: id.optional(), batch: id.optional() })
      .refine(({ notice, batch }) => (notice === undefined) !== (batch === undefined), 'One, or those of one go.'),
    answer: z.string(),
  }),
};
