import type { z } from 'zod';
import { MOST_ISSUED_DAYS, type NoticeDraft, type NoticePage, type noticeEndpoints } from '../../contract/index.ts';
import {
  dayOfIso,
  fillLetter,
  headLines,
  joinAnd,
  LETTER_TOKENS,
  plural,
  sayDay,
  textOfRuns,
} from '../../core/index.ts';
import type { ChangeEntry } from '../platform/changes/entity.ts';
import { changedMeanwhile, invalid, notNow } from '../platform/refusal.ts';
import type { Scope } from '../platform/scope.ts';
import { lockedTasks } from '../tasks/stored/index.ts';
import { draftsOf } from './drafts.ts';
import { Notice, type NoticeLetterRecord } from './entity.ts';
import { lockedLetter } from './letters.ts';
import { mailNotice } from './mailing.ts';
import { announcedTypes } from './standing.ts';

type Input = z.output<(typeof noticeEndpoints)['write']['body']>;

/** Writes a notice for each of several visits, all of them or none; those that go by mail leave where that is asked for. */
export function writeNotices(
  scope: Scope,
  { letterId, letterVersion, visits, mail, follow, ...about }: Input,
): Promise<{ batchId: string; count: number; mailed: number; changeId: string }> {
  if (Math.abs(dayOfIso(about.issuedOn) - scope.now.day) > MOST_ISSUED_DAYS)
    throw invalid([
      { path: 'issuedOn', message: `A letter is dated ${MOST_ISSUED_DAYS} days from today at the most.` },
    ]);
  return scope.followed(follow, visits.length).transaction(async (tx) => {
    const letter = await lockedLetter(tx, letterId, letterVersion);
    const ids = visits.map(({ taskId }) => taskId);
    const tasks = new Map((await lockedTasks(tx, ids)).map((task) => [task.id, task]));
    for (const { taskId, version } of visits) {
      const task = tasks.get(taskId);
      if (task && task.version !== version)
        throw changedMeanwhile(`“${task.title}” was changed by someone else meanwhile: look at it once more.`);
    }
    const drafts = await draftsOf(tx, { ...about, language: letter.language, tasks: ids });
    mustBeWritable(tx, drafts, visits, letter);
    const batchId = tx.newId();
    const entries: ChangeEntry[] = [];
    let mailed = 0;
    for (const [i, draft] of drafts.entries()) {
      const way = visits[i]?.way ?? '';
      const notice = await tx.insert(Notice, {
        id: tx.newId(),
        ...{ batchId, taskId: draft.taskId, clientId: draft.client.id, letterName: letter.name, way, reason: '' },
        ...{ visitOn: draft.on, issuedOn: about.issuedOn, page: pageOf(tx, draft, letter) },
        ...{ sentOn: null, mailId: null, replacesId: draft.replaces?.id ?? null },
        ...{ writtenAt: tx.instant, writtenBy: tx.person?.id ?? null },
      });
      entries.push({ subject: 'notice', subjectId: notice.id, action: 'written', fields: {} });
      const isMail = draft.ways.some(({ name, kind }) => name === way && kind === 'mail');
      if (mail && isMail) {
        entries.push(await mailNotice(tx, notice, draft.email, tasks.get(draft.taskId)));
        mailed += 1;
      }
      await tx.did(1);
    }
    await tx.tell('tasks');
    return { batchId, count: drafts.length, mailed, changeId: await tx.recordTogether(entries) };
  });
}

/** @throws Refusal that says of each visit what stands in the way */
function mustBeWritable(
  scope: Scope,
  drafts: readonly NoticeDraft[],
  visits: Input['visits'],
  letter: NoticeLetterRecord,
): void {
  const errors = drafts.flatMap((draft, i) => {
    const { way, evenLate } = visits[i] ?? { way: '', evenLate: false };
    const wrong = (message: string) => [{ path: `visits.${i}.way`, message: `${nameOf(draft)}: ${message}` }];
    const chosen = draft.ways.find(({ name }) => name === way);
    if (!chosen) return wrong(`no notice of ${draft.workType} goes “${way}”.`);
    if (chosen.kind === 'mail' && draft.email === '')
      return wrong('no mail address is known. Add one to a contact, or let it go another way.');
    if (chosen.kind === 'post' && draft.values.address === '')
      return wrong('no address is known. Add one to the client, or let it go another way.');
    if (dayOfIso(chosen.sendBy) < scope.now.day && !evenLate)
      return wrong(
        `it had to go ${way} until ${sayDay(dayOfIso(chosen.sendBy), scope.now.day)}: move the visit, or say that it goes all the same.`,
      );
    const { empty } = fillLetter(letter, draft.values);
    if (empty.length > 0)
      return wrong(
        `the letter asks for ${joinAnd(empty.map((token) => LETTER_TOKENS[token]))}, which nobody has said.`,
      );
    return [];
  });
  if (errors.length > 0) throw invalid(errors);
}

const nameOf = ({ asset, client }: NoticeDraft): string => asset?.name ?? client.name;

function pageOf({ workspace }: Scope, draft: NoticeDraft, letter: NoticeLetterRecord): NoticePage {
  const filled = fillLetter(letter, draft.values);
  return {
    v: 1,
    language: letter.language,
    from: { name: workspace.name, lines: headLines(workspace.visits) },
    to: [...draft.to],
    issued: draft.values.issued,
    replaces: draft.replacing,
    subject: textOfRuns(filled.subject),
    body: filled.body.map(({ kind, runs }) => ({
      kind,
      runs: runs.map(({ text, bold, italic }) => ({ text, ...(bold ? { bold } : {}), ...(italic ? { italic } : {}) })),
    })),
  };
}

/** That notices went on a day; those that go by mail leave by that. */
export function sendNotices(
  scope: Scope,
  { notices: ids, on }: { readonly notices: readonly string[]; readonly on: string },
): Promise<{ count: number; changeId: string }> {
  if (on > scope.today) throw invalid([{ path: 'on', message: 'That day is still to come.' }]);
  return scope.transaction(async (tx) => {
    const notices: Notice[] = [];
    // In one order, so that two who say it at once don't wait for each other for good.
    for (const id of [...new Set(ids)].sort()) notices.push(await tx.locked(Notice, id, 'notice'));
    const days = await tx.sql<{ id: string; on: string }>(
      'select id, work_on as "on" from task where workspace_id = $1 and id = any($2::uuid[])',
      [notices.map(({ taskId }) => taskId)],
    );
    const dayOf = new Map(days.map(({ id, on: day }) => [id, day]));
    const entries: ChangeEntry[] = [];
    for (const notice of notices) {
      const visitOn = dayOf.get(notice.taskId) ?? notice.visitOn;
      if (notice.visitOn !== visitOn)
        throw notNow(
          `A notice tells of ${sayDay(dayOfIso(notice.visitOn), tx.now.day)}, and the visit is on ${sayDay(dayOfIso(visitOn), tx.now.day)} by now: write another.`,
        );
      if (notice.way === null) throw notNow('Of a visit that needs no notice none goes.');
      if (notice.sentOn !== null) throw notNow('It is said already that it has gone: look at the page again.');
      if (isMail(tx, notice.way)) {
        if (on !== tx.today) throw invalid([{ path: 'on', message: 'A mail goes today: it leaves by this.' }]);
        entries.push(await mailNotice(tx, notice, null, undefined));
        continue;
      }
      if (on < notice.issuedOn && on < tx.moment(notice.writtenAt).slice(0, 10))
        throw invalid([
          {
            path: 'on',
            message: `It was written on ${sayDay(dayOfIso(notice.issuedOn), tx.now.day)}: it can’t have gone earlier.`,
          },
        ]);
      await tx.save(Notice, notice.id, { sentOn: on });
      entries.push({
        ...{ subject: 'notice', subjectId: notice.id, action: 'sent' },
        fields: { sentOn: { from: null, to: on } },
      });
    }
    await tx.tell('tasks');
    return { count: entries.length, changeId: await tx.recordTogether(entries) };
  });
}

const isMail = ({ workspace }: Scope, way: string): boolean =>
  workspace.visits.ways.some(({ name, kind }) => name === way && kind === 'mail');

/** That visits need no notice, as somebody has settled with the client. */
export function needNone(
  scope: Scope,
  { tasks: ids, reason }: { readonly tasks: readonly string[]; readonly reason: string },
): Promise<{ count: number; changeId: string }> {
  return scope.transaction(async (tx) => {
    const tasks = await lockedTasks(tx, ids);
    const announced = new Set(announcedTypes(tx));
    const batchId = tx.newId();
    const entries: ChangeEntry[] = [];
    for (const task of tasks) {
      if (task.clientId === null || !announced.has(task.workType ?? ''))
        throw invalid([{ path: 'tasks', message: `“${task.title}” is no visit that has to be announced.` }]);
      const notice = await tx.insert(Notice, {
        id: tx.newId(),
        ...{ batchId, taskId: task.id, clientId: task.clientId, letterName: null, way: null, reason, page: null },
        ...{ visitOn: task.workOn, issuedOn: tx.today, sentOn: null, mailId: null, replacesId: null },
        ...{ writtenAt: tx.instant, writtenBy: tx.person?.id ?? null },
      });
      entries.push({ subject: 'notice', subjectId: notice.id, action: 'not needed', fields: {} });
    }
    await tx.tell('tasks');
    return { count: entries.length, changeId: await tx.recordTogether(entries) };
  });
}

/** Takes back what was written or said of notices, as far as nothing has gone by it. @returns what is said of it */
export async function undoNotices(scope: Scope, ids: readonly { id: string; action: string }[]): Promise<string> {
  let [taken, stay] = [0, 0];
  for (const { id, action } of ids) {
    const notice = await scope.locked(Notice, id, 'notice');
    if (notice.mailId !== null || (action !== 'sent' && notice.sentOn !== null)) {
      stay += action === 'mailed' ? 0 : 1;
      continue;
    }
    if (action === 'sent') await scope.save(Notice, id, { sentOn: null });
    else await scope.sql('delete from notice where workspace_id = $1 and id = $2', [id]);
    taken += 1;
  }
  if (taken === 0) throw notNow('What has gone stays on record: write another that takes its place.');
  await scope.tell('tasks');
  return stay === 0
    ? `${plural(taken, 'notice is', 'notices are')} as before.`
    : `${plural(taken, 'notice is', 'notices are')} as before; ${plural(stay, 'has', 'have')} gone and ${stay === 1 ? 'stays' : 'stay'}.`;
}
