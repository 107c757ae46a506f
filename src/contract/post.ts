import { z } from 'zod';
import { endpoint } from './endpoint.ts';
import { civilMoment, id } from './fields.ts';
import { postPaths } from './paths.ts';

export const MAIL_KINDS = [
  'invitation',
  'password',
  'address',
  'notice',
  'task',
  'code',
  'calls',
  'summary',
  'message',
] as const;
export type MailKind = (typeof MAIL_KINDS)[number];
/** Refused is given up; what waits was not tried yet, or is tried again. */
export const MAIL_STATES = ['refused', 'waiting', 'sent'] as const;
export type MailState = (typeof MAIL_STATES)[number];

const mailLine = z.object({
  id,
  kind: z.enum(MAIL_KINDS),
  toName: z.string(),
  toEmail: z.string(),
  subject: z.string(),
  state: z.enum(MAIL_STATES),
  createdAt: civilMoment,
  sentAt: civilMoment.nullable(),
  tries: z.number().int(),
  /** Of one that is tried again: in how many minutes. */
  triedAgainIn: z.number().int().nullable(),
  trouble: z.string().nullable(),
});
export type MailLine = z.infer<typeof mailLine>;

const mail = mailLine.extend({
  text: z.string(),
  html: z.string(),
  /** As the stand-in received it; null where it did not, or does not stand there. */
  raw: z.string().nullable(),
  messageId: z.string(),
  /** Whether an answer to it can be tried out: it went to a contact, and mail ends here. */
  mayBeAnswered: z.boolean(),
  /** Files that go with it. */
  parts: z.array(z.object({ id, name: z.string(), bytes: z.number().int() })),
});
export type MailAnswer = z.infer<typeof mail>;

export const postEndpoints = {
  /** Newest first, a page at a time. */
  list: endpoint(postPaths.list, {
    query: z.object({
      q: z.string().max(100).default(''),
      state: z.enum(MAIL_STATES).optional(),
      after: id.optional(),
    }),
    answer: z.object({
      mails: z.array(mailLine),
      isMore: z.boolean(),
      counts: z.object({ refused: z.number().int(), waiting: z.number().int(), sent: z.number().int() }),
      /** Whether mail ends here: no server outside is set. */
      isStandIn: z.boolean(),
    }),
  }),
  one: endpoint(postPaths.one, { answer: mail }),
  /** A file that goes with a mail. */
  part: endpoint(postPaths.part, { answer: z.string() }),
  /** Tries one again now, to another address where one is given. */
  again: endpoint(postPaths.again, {
    body: z.object({ email: z.email('That is no address: write it like edda@saltmarsh.example.').max(200).optional() }),
    answer: mail,
  }),
};
