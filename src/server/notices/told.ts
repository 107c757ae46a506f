import { dayOfIso, sayNoticesDue } from '../../core/index.ts';
import type { Office, Told } from '../messages/index.ts';
import type { Scope } from '../platform/scope.ts';
import { noticesReminded } from './visits.ts';

/** Notices of which those who plan are reminded by now, and that are still to go, in one line. */
export async function noticesToTell(scope: Scope, office: Office): Promise<Told[]> {
  const due = await noticesReminded(scope);
  if (due.length === 0) return [];
  const { today } = scope;
  const left = due.flatMap(({ standing: { sendBy } }) => (sendBy !== null && sendBy >= today ? [sendBy] : [])).sort();
  const words = sayNoticesDue(
    due.map(({ client }) => client.name),
    { count: due.length, tooLate: due.length - left.length, sendBy: left[0] ?? null },
    office.telling(scope),
  );
  const last = due.reduce((day, { standing: { sendBy } }) => Math.max(day, dayOfIso(sendBy ?? today)), scope.now.day);
  return office.answering('notice').map((personId) => ({
    ...{ personId, side: 'gave', kind: 'notice', times: due.length, taskId: null, byId: null, ...words },
    path: `/tasks/visits?notice=toSend&within=${last - scope.now.day}`,
  }));
}
