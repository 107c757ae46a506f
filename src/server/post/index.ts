/** Mail: put into an outbox with what it tells of, sent by the queue, shown in the Post tray. */
export { Mail, MailPart, MailStop, ReceivedMail } from './entity.ts';
export type { Letter, LetterBand } from './letter.ts';
export { post } from './outbox.ts';
export { refusedAddresses } from './queries.ts';
export { postRoutes } from './routes.ts';
export { type MailServer, messageIdOf, Postman } from './sending.ts';
export { stoppedAddresses, takeMailsAgain, takesMails } from './stops.ts';
