import { textOfRuns, visitTimes } from '../../core/index.ts';
import type { ChangeEntry } from '../platform/changes/entity.ts';
import { bytesOf } from '../platform/pdf.ts';
import { notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { post } from '../post/index.ts';
import { lockedTask, type Task } from '../tasks/stored/index.ts';
import { dateFileOf } from './date-file.ts';
import { mailAddressOf } from './drafts.ts';
import { Notice } from './entity.ts';
import { NoticePaper } from './paper.ts';

/**
 * Puts a notice into the outbox as a mail, with its page as a PDF and the visit as a date, and says that it has gone today.
 * @param email where it goes; null for the address that its client has now
 */
export async function mailNotice(
  scope: Scope,
  notice: Notice,
  email: string | null,
  known: Task | undefined,
): Promise<ChangeEntry> {
  const { page } = notice;
  if (page === null) throw new Error('A notice without a page is none.');
  const to = email ?? (await emailOf(scope, notice.clientId));
  if (to === '')
    throw notNow(
      'No mail address of this client is known that takes mails: add one to a contact, or send it another way.',
    );
  const task = known ?? (await lockedTask(scope, notice.taskId));
  const paper = new NoticePaper({
    title: page.subject,
    by: page.from.name,
    at: notice.writtenAt,
    language: page.language,
  });
  paper.add(page);
  const [greeting = '', ...paragraphs] = page.body.map(
    ({ kind, runs }) => `${kind === 'bullet' ? '• ' : ''}${textOfRuns(runs)}`,
  );
  const mailId = await post(scope, {
    reason: `notice ${notice.id}`,
    kind: 'notice',
    about: { clientId: notice.clientId, taskId: task.id },
    to: { name: page.to[0] ?? '', email: to },
    isPrivate: false,
    letter: {
      ...{ subject: page.subject, from: page.from.name, greeting, deed: null, after: [] },
      paragraphs: [...(page.replaces === null ? [] : [page.replaces]), ...paragraphs],
    },
    parts: [
      { name: `${fileName(page.subject)}.pdf`, mediaType: 'application/pdf', bytes: await bytesOf(paper.finished()) },
      {
        name: `${fileName(page.subject)}.ics`,
        mediaType: 'text/calendar; charset=utf-8; method=PUBLISH',
        bytes: Buffer.from(
          dateFileOf({
            ...{ taskId: task.id, on: notice.visitOn },
            ...visitTimes(task, scope.workspace.visits, task.workType),
            zone: task.zone ?? scope.workspace.zone,
            ...{ summary: page.subject, location: page.to.slice(1).join(', ') },
            ...{ sequence: await sentBefore(scope, notice), at: notice.writtenAt },
          }),
        ),
      },
    ],
  });
  if (mailId === null) throw notNow('It has left already.');
  await scope.save(Notice, notice.id, { sentOn: scope.today, mailId });
  return {
    ...{ subject: 'notice', subjectId: notice.id, action: 'mailed' },
    fields: { sentOn: { from: null, to: scope.today } },
  };
}

/** A name that any system of files takes. */
const fileName = (subject: string): string =>
  subject
    .replace(/[^\p{L}\p{N} ,-]/gu, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    .slice(0, 60) || 'notice';

async function emailOf(scope: Scope, clientId: string): Promise<string> {
  const [row] = await scope.sql<{ email: string | null }>(`select ${mailAddressOf('$1', '$2')} as email`, [clientId]);
  return row?.email ?? '';
}

async function sentBefore(scope: Scope, { id, taskId }: Notice): Promise<number> {
  const [row] = await scope.sql<{ n: number }>(
    'select count(*)::int as n from notice where workspace_id = $1 and task_id = $2 and id < $3 and sent_on is not null',
    [taskId, id],
  );
  return row?.n ?? 0;
}
