/** What contacts write back by mail: received, placed, read as text, and addresses that take no more mails. */
export { AnswerPart, AnswerRecord } from './entity.ts';
export { Inbox } from './receiving.ts';
export { answerRoutes, oneClickRouter } from './routes.ts';
export { sweepAnswerParts } from './sweep.ts';
export { type TriedOut, tryOut } from './trying-out.ts';
