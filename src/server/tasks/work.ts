import type { z } from 'zod';
import type { answerInputSchema, Live, Task as TaskAnswer } from '../../contract/index.ts';
import {
  type AnswerValue,
  answerProblem,
  type Demand,
  isEnded,
  isFinishedByLast,
  isTickedByProof,
  missingOnLine,
  ownOf,
  plural,
  sayMissing,
  sayWrongTag,
  stillMissing,
  tagToStart,
} from '../../core/index.ts';
import { Asset, ownerOfTag } from '../clients/index.ts';
import { proofFilesOf } from '../files/stored/index.ts';
import type { Action } from '../platform/changes/actions.ts';
import { type FieldChanges, fieldsBefore } from '../platform/changes/entity.ts';
import { Person } from '../platform/identity/person.ts';
import { changedMeanwhile, forbidden, invalid, notFound, notNow } from '../platform/refusal.ts';
import { fieldChanges, type Scope } from '../platform/scope.ts';
import { followOn } from '../schedules/index.ts';
import { withNextOn } from './next-date.ts';
import { oneTask } from './one-task.ts';
import { isOfferedTo, lackedBy, mayAddTo, mayChooseNext, maySign, mayWork, mustMay } from './permission.ts';
import {
  type ChangedTask,
  callAsker,
  doingOf,
  type GivenAnswer,
  isForClient,
  lockedTask,
  lockedTasks,
  NOT_HELD,
  saveTask,
  saveTasks,
  type Task,
  type Tick,
  ticketsOfTasks,
} from './stored/index.ts';

export interface SavedTask {
  readonly task: TaskAnswer;
  readonly changeId: string | null;
}

export function startTask(scope: Scope, id: string): Promise<SavedTask> {
  return changeTask(scope, id, 'started', async (task, tx) => {
    // What was held up while it was under way goes on by that.
    if (task.state === 'underWay') return NOT_HELD;
    refuseFinished(task, 'started');
    await refuseUnread(tx, task);
    return { state: 'underWay', startedAt: doneAtOf(scope, task), ...NOT_HELD };
  });
}

export function claimTask(scope: Scope, id: string): Promise<SavedTask> {
  return scope.transaction(async (tx) => {
    const task = await lockedTask(tx, id);
    refuseFinished(task, 'claimed');
    if (task.assigneeId !== null && task.assigneeId !== tx.person?.id) {
      const holder = await tx.one(Person, task.assigneeId, 'person');
      throw changedMeanwhile(`${holder.name} has it already.`);
    }
    if (!isOfferedTo(tx, task)) throw forbidden('This is for others to take.');
    const lacked = lackedBy(tx.person, (await ticketsOfTasks(tx, [id])).get(id) ?? [], task);
    if (lacked !== null)
      throw forbidden(`It asks for the ticket “${lacked.ticket}”, which you do not hold on ${task.workOn}.`);
    return writeTask(tx, task, 'claimed', { assigneeId: tx.person?.id ?? null });
  });
}

/** Lets somebody else of those take it whom it was offered to. */
export function giveBackTask(scope: Scope, id: string): Promise<SavedTask> {
  return scope.transaction(async (tx) => {
    const task = await workableTask(tx, id);
    if (task.offeredTo === null)
      throw invalid([{ path: '', message: 'It was given to one person, not to any of several.' }]);
    if (task.state !== 'open') throw notNow('It is begun: give it to somebody, or finish it.');
    return writeTask(tx, task, 'given back', { assigneeId: null });
  });
}

export function tickLine(scope: Scope, id: string, key: string, ticked: boolean): Promise<SavedTask> {
  return changeTask(scope, id, ticked ? 'ticked' : 'unticked', async (task, tx) => {
    refuseFinished(task, 'changed');
    const line = task.checkLines.find((one) => one.key === key);
    if (!line) throw notFound('check line');
    if (ticked) {
      await refuseUnread(tx, task);
      const doing = doingOf(task, await proofFilesOf(tx, id));
      const missing = missingOnLine(line, doing).filter(({ demand }) => demand !== null);
      if (missing.length > 0)
        throw invalid([{ path: `steps.${key}`, message: `Still missing for this step: ${sayMissing(missing)}.` }]);
    }
    const { [key]: was, ...others } = task.ticks;
    const ticks = ticked ? { ...others, [key]: was ?? tickOf(tx) } : others;
    return { ticks, ...(ticked ? await begun(tx, task) : {}), ...(await finishedBy(tx, task, { ticks })) };
  });
}

function tickOf({ doneAt, person, contact }: Scope): Tick {
  return { at: doneAt.toISOString(), by: person?.id ?? null, ...(contact === null ? {} : { contact: contact.name }) };
}

/** When it was done, on the device where it was; never before it was begun, or made. */
function doneAtOf({ doneAt }: Scope, { startedAt, madeAt }: Pick<Task, 'startedAt' | 'madeAt'>): Date {
  const least = startedAt ?? madeAt;
  return doneAt < least ? least : doneAt;
}

/** The tag that is to be read before anything else is done with a task, and of what; null where none is. */
async function unreadTag(scope: Scope, task: Task): Promise<{ readonly demand: Demand; readonly of: string } | null> {
  // Most ask for none: what they are about is not looked up for them.
  if (tagToStart(task, task.state !== 'open', '') === null || task.assetId === null) return null;
  const asset = await scope.one(Asset, task.assetId, 'asset');
  const demand = tagToStart(task, false, asset.tag);
  return demand && { demand, of: asset.name };
}

/** @throws Refusal where a tag is to be read first, of what and why */
export async function refuseUnread(scope: Scope, task: Task): Promise<void> {
  const unread = await unreadTag(scope, task);
  if (unread !== null)
    throw invalid([{ path: unread.demand.key, message: `Read the tag of ${unread.of} first: that starts it.` }]);
}

/** The first thing that is done on a task begins it; a picture that is taken before its tag is read does not. */
export async function begun(scope: Scope, task: Task): Promise<Partial<Task>> {
  if (task.state !== 'open' || (await unreadTag(scope, task)) !== null) return {};
  return { state: 'underWay', startedAt: doneAtOf(scope, task) };
}

/** Where the template says so, the last tick finishes the task. */
export async function finishedBy(scope: Scope, task: Task, changes: Partial<Task>): Promise<Partial<Task>> {
  if (!task.finishWithLast || changes.ticks === undefined) return {};
  const after = doingOf({ ...task, ...changes }, await proofFilesOf(scope, task.id));
  return isFinishedByLast(new Set(Object.keys(task.ticks)), after) ? finished(scope, task) : {};
}

/** What finishing a task changes of it. */
export function finished(scope: Scope, task: Pick<Task, 'signOff' | 'startedAt' | 'madeAt'>): Partial<Task> {
  const doneAt = doneAtOf(scope, task);
  return {
    state: task.signOff === null ? 'done' : 'toCheck',
    startedAt: task.startedAt ?? doneAt,
    doneAt,
    doneBy: scope.person?.id ?? null,
    doneByContact: scope.contact?.name ?? null,
  };
}

export function answerDemand(
  scope: Scope,
  id: string,
  { demand: key, value, remark }: z.output<typeof answerInputSchema>,
): Promise<SavedTask> {
  return scope.transaction(async (tx) => {
    const task = await workableTask(tx, id);
    refuseFinished(task, 'changed');
    const line = task.checkLines.find(({ demands }) => demands.some((one) => one.key === key));
    const demand = (line?.demands ?? task.demands).find((one) => one.key === key);
    if (!demand) throw notFound('question');
    const isStart = demand.kind === 'tag' && demand.atStart;
    if (value !== null && !isStart) await refuseUnread(tx, task);
    const { [key]: _, ...others } = task.answers;
    const answers =
      value === null ? others : { ...others, [key]: await givenAnswer(tx, task, demand, value, remark.trim()) };
    const files = await proofFilesOf(tx, id);
    const ticks = line ? tickedByProof(tx, { ...task, answers }, line.key, files) : task.ticks;
    const action = value === null ? 'took an answer back' : isStart && task.state === 'open' ? 'started' : 'answered';
    return writeTask(tx, task, action, {
      answers,
      ticks,
      ...(value === null ? {} : await begun(tx, { ...task, answers })),
      // What was held up goes on by being started.
      ...(isStart && value !== null && task.state === 'open' ? NOT_HELD : {}),
      ...(await finishedBy(tx, task, { answers, ticks })),
    });
  });
}

async function givenAnswer(
  scope: Scope,
  task: Task,
  demand: Demand,
  value: AnswerValue,
  remark: string,
): Promise<GivenAnswer> {
  const asset = task.assetId === null ? null : await scope.one(Asset, task.assetId, 'asset');
  const problem = answerProblem(demand, value, asset?.tag ?? null);
  if (problem !== null) {
    const isWrongTag = demand.kind === 'tag' && asset !== null && typeof value === 'string' && value.trim() !== '';
    const message = isWrongTag ? sayWrongTag(value, asset.name, await ownerOfTag(scope, value)) : problem;
    throw invalid([{ path: demand.key, message }]);
  }
  const was = ownOf(task.answers, demand.key);
  const isSame = JSON.stringify([was?.value, was?.remark]) === JSON.stringify([value, remark]);
  return isSame && was ? was : { value, remark, ...tickOf(scope) };
}

/** A line whose proof is complete ticks itself; one whose proof is gone loses its tick. */
export function tickedByProof(
  scope: Scope,
  task: Task,
  key: string,
  files: Readonly<Record<string, number>>,
): Record<string, Tick> {
  const line = task.checkLines.find((one) => one.key === key);
  if (!line || line.demands.length === 0) return task.ticks;
  const { [key]: was, ...others } = task.ticks;
  return isTickedByProof(line, doingOf(task, files)) ? { ...others, [key]: was ?? tickOf(scope) } : others;
}

export function writeNote(scope: Scope, id: string, note: string, was: string): Promise<SavedTask> {
  return changeTask(scope, id, 'noted', (task, tx) => {
    if (!mayAddTo(tx, task)) refuseFinished(task, 'written on');
    // Of what is finished the note may be what showed it: there can be more of it, not none.
    else if (task.note.trim() !== '' && note.trim() === '')
      throw notNow('It is finished with this note: write more, or undo the finish first.');
    if (task.note !== was && task.note !== note) {
      throw changedMeanwhile(
        'Someone else wrote the note meanwhile. Yours is still in the field, not saved: keep both, yours or theirs.',
      );
    }
    return { note, ...(note.trim() === '' ? { notePinned: false } : {}) };
  });
}

export function pinNote(scope: Scope, id: string, pinned: boolean): Promise<SavedTask> {
  return changeTask(scope, id, 'pinned', (task) => {
    if (pinned && task.note.trim() === '') throw notNow('There is no note to pin yet: write one first.');
    return { notePinned: pinned };
  });
}

/** @param nextOn the day of the next one of its series, this once; null for what its schedule says */
export function finishTask(scope: Scope, id: string, nextOn: string | null = null): Promise<SavedTask> {
  return scope.transaction(async (tx) => {
    const task = await workableTask(tx, id);
    refuseFinished(task, 'finished');
    if (nextOn !== null && !mayChooseNext(tx, task))
      throw forbidden('Somebody signs this off: the date of the next one is theirs to choose.');
    const missing = stillMissing(doingOf(task, await proofFilesOf(tx, id)));
    if (missing.length > 0) throw invalid([{ path: 'steps', message: `Still missing: ${sayMissing(missing)}.` }]);
    return withNextOn(tx, task, await writeTask(tx, task, 'finished', finished(tx, task)), nextOn);
  });
}

/** @param nextOn as when it is finished */
export function signTask(scope: Scope, id: string, nextOn: string | null = null): Promise<SavedTask> {
  return check(
    scope,
    id,
    'signed',
    (_task, tx) => ({ state: 'done', signedAt: tx.instant, signedBy: tx.person?.id ?? null }),
    nextOn,
  );
}

/** Back to whoever did it, with what is to be done again. */
export function sendBackTask(scope: Scope, id: string, reason: string): Promise<SavedTask> {
  return check(scope, id, 'sent back', async (task, tx) => {
    // A client hears of it by mail.
    if (isForClient(task)) await callAsker(tx);
    return {
      ...{ state: 'underWay' as const, doneAt: null, doneBy: null, doneByContact: null },
      sentBack: [...task.sentBack, { ...tickOf(tx), reason }],
    };
  });
}

function check(
  scope: Scope,
  id: string,
  action: Action<'task'>,
  decide: (task: Task, tx: Scope) => Partial<Task> | Promise<Partial<Task>>,
  nextOn: string | null = null,
): Promise<SavedTask> {
  return scope.transaction(async (tx) => {
    const task = await lockedTask(tx, id);
    if (task.state !== 'toCheck') throw notNow('This task is not waiting to be checked.');
    if (task.doneBy !== null && task.doneBy === tx.person?.id)
      throw forbidden('You did this yourself: someone else has to check it.');
    if (!maySign(tx, task)) throw forbidden('This is not yours to sign off.');
    return withNextOn(tx, task, await writeTask(tx, task, action, await decide(task, tx)), nextOn);
  });
}

export function refuseFinished(task: Task, verb: string): void {
  if (task.state === 'toCheck')
    throw notNow(`This task waits to be checked, so it can't be ${verb}. Undo the finish first.`);
  if (isEnded(task.state)) throw notNow(`This task is ${task.state}, so it can't be ${verb}. Undo that first.`);
}

/** Puts tasks back to what changes found, each task changed once. */
export async function undoTaskChanges(
  scope: Scope,
  changes: readonly { readonly id: string; readonly fields: FieldChanges }[],
): Promise<string> {
  const tasks = await lockedTasks(
    scope,
    changes.map(({ id }) => id),
  );
  const found = new Map(changes.map(({ id, fields }) => [id, fields]));
  const entries: Parameters<Scope['recordEach']>[0][number][] = [];
  const changed: ChangedTask[] = [];
  for (const task of tasks) {
    const before = fieldsBefore(task, found.get(task.id) ?? {});
    const was = { ...task, ...before };
    // Who gave a task away, signed it or sent it back takes that back, though it is not theirs any more.
    if (!mayWork(scope, task) && !mayWork(scope, was) && !maySign(scope, was))
      throw forbidden('Only the person who has this task, or a manager, can undo that.');
    const fields = fieldChanges(task, before);
    if (Object.keys(fields).length === 0) continue;
    changed.push({ task, changes: before });
    entries.push({ subject: 'task', subjectId: task.id, action: 'undone', fields });
  }
  await saveTasks(scope, changed);
  await scope.recordEach(entries);
  const stateChanged = new Set(entries.filter(({ fields }) => 'state' in fields).map(({ subjectId }) => subjectId));
  await followOn(
    scope,
    tasks.filter(({ id }) => stateChanged.has(id)),
  );
  await scope.tell('tasks', 'schedules');
  const [only] = tasks;
  return only && tasks.length === 1
    ? `“${only.title}” is as it was before.`
    : `${plural(tasks.length, 'task')} are as before.`;
}

/** Changes a task that whoever asks may work on. */
export function changeTask(
  scope: Scope,
  id: string,
  action: Action<'task'>,
  decide: (task: Task, tx: Scope) => Partial<Task> | Promise<Partial<Task>>,
): Promise<SavedTask> {
  return scope.transaction(async (tx) => {
    const task = await workableTask(tx, id);
    return writeTask(tx, task, action, await decide(task, tx));
  });
}

/** A task, held for a change by somebody who may work on it. */
export async function workableTask(scope: Scope, id: string): Promise<Task> {
  const task = await lockedTask(scope, id);
  mustMay(scope, 'work', task);
  return task;
}

export async function writeTask(
  scope: Scope,
  task: Task,
  action: Action<'task'>,
  changes: Partial<Task>,
): Promise<SavedTask> {
  const fields = fieldChanges(task, changes);
  if (Object.keys(fields).length === 0) return { task: await oneTask(scope, task.id), changeId: null };
  await saveTask(scope, task, changes);
  const isFinish = 'state' in fields && (changes.state === 'done' || changes.state === 'toCheck');
  const changeId = await scope.record('task', task.id, isFinish && action !== 'signed' ? 'finished' : action, fields);
  if ('state' in fields) await followOn(scope, [task]);
  await scope.tellOf(newsOf(task, changes, Object.keys(fields)));
  return { task: await oneTask(scope, task.id), changeId };
}

/** Of a task itself, seen by whoever has it open; and what the sheets of others of its series tell of it too. */
const OWN: readonly string[] = ['ticks'];
const TOLD_BY_OTHERS: readonly string[] = [...OWN, 'answers', 'note', 'notePinned'];

/** What browsers have to ask for again once a task has changed so. */
function newsOf(task: Task, changes: Partial<Task>, fields: readonly string[]): Live {
  const after = { ...task, ...changes };
  // What nobody has stands on everybody's sheet, and what is to be checked on those of whoever may sign it.
  const isOnOthers = [task, after].some(({ assigneeId, state }) => assigneeId === null || state === 'toCheck');
  const people = isOnOthers ? null : [...new Set([task, after].flatMap(({ assigneeId }) => assigneeId ?? []))];
  const isOwn = fields.every((field) => OWN.includes(field));
  const load = !fields.every((field) => TOLD_BY_OTHERS.includes(field));
  return { topics: load ? ['tasks', 'schedules'] : ['tasks'], tasks: isOwn ? [task.id] : null, people, load };
}
