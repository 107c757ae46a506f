import { z } from 'zod';
import { endpoint } from './endpoint.ts';
import { civilMoment, id, named } from './fields.ts';
import { answerPaths } from './paths-later.ts';

export const ANSWERS_A_PAGE = 30;
/** Letters of an answer that are kept, and of the one that is tried out. */
export const MOST_ANSWER = 50_000;
export const MOST_TRIED_ANSWER = 2_000;

const answer = z.object({
  id,
  at: civilMoment,
  from: z.object({ name: z.string(), email: z.string() }),
  subject: z.string(),
  /** Without what is quoted; all of it stands in `text`. */
  own: z.string(),
  text: z.string(),
  kind: z.enum(['person', 'automatic']),
  isAway: z.boolean(),
  mailId: id.nullable(),
  task: z.object({ id, title: z.string() }).nullable(),
  client: named.nullable(),
  /** Of one that nobody is known for: clients who have this address. */
  guesses: z.array(named),
  /** Files that came with it; they can be taken into the task as long as they are here. */
  parts: z.array(z.object({ id, name: z.string(), bytes: z.number().int(), state: z.enum(['here', 'taken', 'gone']) })),
});
export type MailedAnswer = z.infer<typeof answer>;

/** Which answers: of a task, of a client, or of the tray: those to place, those that have a place, those of machines. */
export const ANSWER_TRAYS = ['toPlace', 'placed', 'automatic'] as const;
export type AnswerTray = (typeof ANSWER_TRAYS)[number];
const page = z.object({ answers: z.array(answer), more: z.boolean(), count: z.number().int() });
const query = z.object({ before: id.optional() });

export const answerEndpoints = {
  ofTask: endpoint(answerPaths.ofTask, { query, answer: page }),
  ofClient: endpoint(answerPaths.ofClient, { query, answer: page }),
  tray: endpoint(answerPaths.tray, { query: query.extend({ tray: z.enum(ANSWER_TRAYS) }), answer: page }),
  /** Says whose it is, and which task it is about. */
  place: endpoint(answerPaths.place, {
    body: z.object({ clientId: id, taskId: id.nullable().default(null) }),
    answer: z.object({ answer }),
  }),
  putAway: endpoint(answerPaths.putAway, { body: z.object({ away: z.boolean() }), answer: z.object({ answer }) }),
  /** Takes a file that came with it into its task, as if it had been added there. */
  take: endpoint(answerPaths.take, { answer: z.object({ answer, changeId: id.nullable() }) }),
  /** Answers a mail as whoever received it: where mail ends here, to see what becomes of it. */
  tryOut: endpoint(answerPaths.tryOut, {
    body: z.object({
      text: z.string().trim().min(1, 'Write what they answer.').max(MOST_TRIED_ANSWER),
      automatic: z.boolean().default(false),
    }),
    answer: z.object({}),
  }),
  /** Whether mails still go to the address of a mail, by the key in it, which comes as a link does. */
  mails: endpoint(answerPaths.mails, {
    answer: z.object({ from: z.string(), email: z.string(), isStopped: z.boolean() }),
  }),
  /** No more mails to the address of a mail. */
  stopMails: endpoint(answerPaths.stopMails, {
    answer: z.object({ from: z.string(), email: z.string(), isStopped: z.boolean() }),
  }),
  /** Mails go to an address again. */
  mailAgain: endpoint(answerPaths.mailAgain, {
    body: z.object({ email: z.string().min(3).max(320) }),
    answer: z.object({}),
  }),
};
