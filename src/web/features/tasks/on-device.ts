import { useMemo } from 'react';
import type { Task, TaskLine } from '../../../contract/index.ts';
import { answerProblem, isFinishedByLast, isTickedByProof, isToDo } from '../../../core/index.ts';
import { useWorkspace } from '../../app/shell/workspace.tsx';
import { movedOn } from '../../kit/moved-on.ts';
import { PHOTO, type PhotoValue } from '../files/photo.ts';
import type { Unsent } from '../unsent/outbox.ts';
import { useAllUnsent, useUnsentOf } from '../unsent/use-unsent.ts';
import { FINISH, overField, SKIP, type SkipValue, START, startField } from './deeds.ts';
import {
  ANSWER,
  type AnswerDraft,
  answerField,
  type NoteValue,
  noteField,
  TICK,
  type TickValue,
  tickField,
} from './sending.ts';
import { doingOf } from './task-words.ts';

/**
 * Tasks as they stand on this device: what the server has, with what was done here and is not sent yet on top. Worked out
 * from what waits, so that it is gone with it: what was refused is not on top any more.
 */

type Waiting = ReadonlyMap<string, Unsent>;

export interface Here {
  readonly me: { readonly id: string; readonly name: string };
  /** The civil moment of a time of this device, in milliseconds since 1970. */
  readonly momentOf: (at: number) => string;
}

/** What waits in a field; what is still typed, or was refused, does not count. */
function waitingIn(all: Waiting, field: string, kind?: string): Unsent | null {
  const found = all.get(field);
  return found?.state === 'waiting' && (kind === undefined || found.kind === kind) ? found : null;
}

/** What of a line of a list is otherwise by what waits here; nothing where nothing does. */
function overOf(
  all: Waiting,
  id: string,
  signsOff: string | null,
  { momentOf }: Here,
): Partial<Pick<TaskLine, 'state' | 'late' | 'doneAt'>> | null {
  const over = waitingIn(all, overField(id));
  if (over?.kind === SKIP.name) return { state: 'skipped', late: false };
  if (over) return { state: signsOff === null ? 'done' : 'toCheck', doneAt: momentOf(over.at) };
  return null;
}

export function lineOnDevice(line: TaskLine, all: Waiting, here: Here): TaskLine {
  if (all.size === 0) return line;
  const over = overOf(all, line.id, line.signsOff, here);
  const isBegun = startOf(line.id, all) !== null && line.state === 'open';
  const ticks = ticksHere(line.id, all);
  if (!over && !isBegun && ticks === 0) return line;
  const stepsDone = Math.min(line.stepsTotal, Math.max(0, line.stepsDone + ticks));
  return { ...line, stepsDone, ...(isBegun ? { state: 'underWay' as const, startsByTag: false } : {}), ...over };
}

/** What starts a task here: that it was said, or the tag that was read for it. */
function startOf(id: string, all: Waiting): Unsent | null {
  const said = waitingIn(all, startField(id));
  if (said) return said;
  for (const one of all.values()) if (isStartByTag(one) && (one.value as AnswerDraft).taskId === id) return one;
  return null;
}

const isStartByTag = ({ kind, state, value }: Unsent) =>
  kind === ANSWER.name && state === 'waiting' && (value as AnswerDraft).starts === true;

/** By how many ticks it is further here than on the server. */
function ticksHere(id: string, all: Waiting): number {
  let sum = 0;
  for (const { kind, value, state } of all.values()) {
    if (kind !== TICK.name || state !== 'waiting' || (value as TickValue).taskId !== id) continue;
    sum += (value as TickValue).ticked ? 1 : -1;
  }
  return sum;
}

/** Whether something that was done with a task waits here. */
export const waitsHere = (id: string, all: Waiting): boolean =>
  waitingIn(all, overField(id)) !== null || startOf(id, all) !== null;

export function taskOnDevice(task: Task, all: Waiting, here: Here): Task {
  if (all.size === 0) return task;
  const { me, momentOf } = here;
  const start = startOf(task.id, all);
  const skipped = waitingIn(all, overField(task.id), SKIP.name);
  const given = withGiven(task, all, here);
  const over = overOf(all, task.id, task.signsOff, here) ?? overByLast(task, all, here);
  return {
    ...given,
    note: skipped ? [given.note, (skipped.value as SkipValue).reason].filter(Boolean).join('\n') : given.note,
    ...(start && task.state === 'open' ? { state: 'underWay', startedAt: momentOf(start.at) } : {}),
    ...(over ? { ...over, doneBy: me.name, finishedBy: null, mayAddTo: over.state === 'done' } : {}),
  };
}

/** A task with what was ticked, answered, shown and written here. */
function withGiven(task: Task, all: Waiting, here: Here): Task {
  const files = [...task.files, ...photosOf(task.id, all, here)];
  const note = (waitingIn(all, noteField(task.id))?.value as NoteValue | undefined)?.note ?? task.note;
  const answers = answersOnDevice(task, all, here);
  const steps = stepsOnDevice({ ...task, answers, files, note }, all, here);
  const stepsDone = steps.filter(({ tickedAt }) => tickedAt !== null).length;
  return { ...task, answers, files, note, steps, stepsDone };
}

/** What ticks a line, by itself or by its proof, and so can be the last thing to be done. */
const TICKING: readonly string[] = [TICK.name, ANSWER.name, PHOTO.name];

/** Where the template says so, the last tick finishes a task: what was done here after it does not count for that. */
function overByLast(task: Task, all: Waiting, here: Here): ReturnType<typeof overOf> {
  if (!task.finishWithLast || !isToDo(task.state as 'open')) return null;
  const times = [...all.values()].flatMap(({ kind, value, state, at }) =>
    state === 'waiting' && TICKING.includes(kind) && (value as TickValue).taskId === task.id ? [at] : [],
  );
  for (const last of times.sort((a, b) => a - b)) {
    const until = (end: number) => withGiven(task, new Map([...all].filter(([, { at }]) => at <= end)), here);
    if (isFinishedByLast(doingOf(until(last - 1)).ticked, doingOf(until(last))))
      return { state: task.signsOff === null ? 'done' : 'toCheck', doneAt: here.momentOf(last) };
  }
  return null;
}

function answersOnDevice(task: Task, all: Waiting, { me, momentOf }: Here): Task['answers'] {
  const answers = { ...task.answers };
  for (const demand of [...task.demands, ...task.steps.flatMap(({ demands }) => demands)]) {
    const waiting = waitingIn(all, answerField(task.id, demand.key));
    if (!waiting) continue;
    const { value, remark } = waiting.value as AnswerDraft;
    if (value === null) delete answers[demand.key];
    // What is known here to be refused there does not count: the wrong tag.
    else if (answerProblem(demand, value, task.assetTag) === null) {
      const plain = typeof value === 'object' ? [...value] : value;
      answers[demand.key] = { value: plain, remark, at: momentOf(waiting.at), by: me.name };
    }
  }
  return answers;
}

function photosOf(taskId: string, all: Waiting, { me, momentOf }: Here): Task['files'] {
  return [...all.values()].flatMap((one) => {
    const photo = one.kind === PHOTO.name && one.state === 'waiting' ? (one.value as PhotoValue) : null;
    return photo?.taskId === taskId ? [fileOf(photo, momentOf(one.at), me.name)] : [];
  });
}

/** Lines ticked here by hand, and those that what was given here ticks by itself, as on the server. */
function stepsOnDevice(task: Task, all: Waiting, { me, momentOf }: Here): Task['steps'] {
  const doing = doingOf(task);
  return task.steps.map((step) => {
    const tick = waitingIn(all, tickField(task.id, step.key));
    const isPressed = (tick?.value as TickValue | undefined)?.ticked;
    const isProved =
      step.demands.some(({ key }) => waitingIn(all, answerField(task.id, key)) || isWaitingFile(task, key)) &&
      isTickedByProof(step, doing);
    if (isPressed === false) return { ...step, tickedAt: null, tickedBy: null };
    if (!isPressed && !isProved) return step;
    return { ...step, tickedAt: step.tickedAt ?? momentOf(tick?.at ?? Date.now()), tickedBy: step.tickedBy ?? me.name };
  });
}

/** Whether a file for something that is asked for is among those that wait: they have no form yet. */
const isWaitingFile = ({ files }: Task, demand: string): boolean =>
  files.some((file) => file.demand === demand && file.mediaType === '');

function fileOf({ key, name, demand }: PhotoValue, at: string, by: string): Task['files'][number] {
  return { id: key, name, demand: demand ?? null, mediaType: '', bytes: 0, isPicture: false, isKept: false, at, by };
}

export function useHere(): Here {
  const { me, now } = useWorkspace();
  return useMemo(() => {
    const drawn = Date.now();
    return { me, momentOf: (at) => movedOn(now, at - drawn) };
  }, [me, now]);
}

export function useTaskOnDevice(task: Task): Task {
  const all = useAllUnsent();
  const here = useHere();
  return useMemo(() => taskOnDevice(task, all, here), [task, all, here]);
}

const BANDS = ['late', 'thisDay', 'coming'] as const;
type Banded = Readonly<Record<(typeof BANDS)[number], readonly TaskLine[]>>;
const ON_LINES: readonly string[] = [START.name, FINISH.name, SKIP.name, TICK.name];

/** A day as it stands on this device, and of which tasks something that was done waits. */
export function useSheetOnDevice<Sheet extends Banded>(
  sheet: Sheet,
): {
  readonly sheet: Sheet;
  readonly waits: (taskId: string) => boolean;
} {
  const all = useUnsentOf((one) => ON_LINES.includes(one.kind) || isStartByTag(one));
  const here = useHere();
  return useMemo(() => {
    const bands = BANDS.map((band) => [band, sheet[band].map((line) => lineOnDevice(line, all, here))] as const);
    return {
      sheet: all.size === 0 ? sheet : { ...sheet, ...Object.fromEntries(bands) },
      waits: (taskId) => waitsHere(taskId, all),
    };
  }, [sheet, all, here]);
}
