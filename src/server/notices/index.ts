/** Visits that have to be announced: letters, notices written from them, what went and when, and what is still to go. */
export { letterChanges, noticeChanges } from './changes.ts';
export { Notice, NoticeLetterRecord } from './entity.ts';
export { addLetter } from './letters.ts';
export { noticeRoutes } from './routes.ts';
export { noticesToTell } from './told.ts';
export { needNone, sendNotices, writeNotices } from './writing.ts';
