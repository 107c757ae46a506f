import { noticeEndpoints } from '../../contract/index.ts';
import type { Routes } from '../platform/http/route.ts';
import { draftsOf } from './drafts.ts';
import { listNotices, sendNoticePaper } from './kept.ts';
import { addLetter, changeLetter, dropLetter, listLetters } from './letters.ts';
import { listVisits, weeksOfVisits } from './visits.ts';
import { needNone, sendNotices, writeNotices } from './writing.ts';

export function noticeRoutes(routes: Routes): Routes {
  return routes
    .add(noticeEndpoints.visits, 'read', ({ scope, query }) => listVisits(scope, query))
    .add(noticeEndpoints.weeks, 'read', ({ scope, query }) => weeksOfVisits(scope, query))
    .add(noticeEndpoints.letters, 'read', ({ scope }) => listLetters(scope))
    .add(noticeEndpoints.addLetter, 'plan', ({ scope, body }) => addLetter(scope, body))
    .add(noticeEndpoints.changeLetter, 'plan', ({ scope, params, body }) => changeLetter(scope, params.letterId, body))
    .add(noticeEndpoints.dropLetter, 'plan', ({ scope, params }) => dropLetter(scope, params.letterId))
    .add(noticeEndpoints.look, 'plan', async ({ scope, body }) => ({ drafts: await draftsOf(scope, body) }))
    .add(noticeEndpoints.write, 'plan', ({ scope, body }) => writeNotices(scope, body))
    .add(noticeEndpoints.send, 'plan', ({ scope, body }) => sendNotices(scope, body))
    .add(noticeEndpoints.needNone, 'plan', ({ scope, body }) => needNone(scope, body))
    .add(noticeEndpoints.list, 'read', ({ scope, query }) => listNotices(scope, query))
    .sendTo(noticeEndpoints.pdf, 'read', ({ scope, query }, response) => sendNoticePaper(scope, query, response));
}
