import type { Task, TaskLine } from '../../../contract/index.ts';
import {
  type CivilDay,
  type Doing,
  dayOfIso,
  isEnded,
  isOverdue,
  type Missing,
  sayLate,
  stillMissing,
  type TagDemand,
  tagToStart,
  zoneCity,
} from '../../../core/index.ts';
import { sayDayOfMonth, sayNear, sayTime, sayTimeSpan, timeOf } from '../../kit/ways.ts';

/** "11:00–12:00", "by 15:30", "from 09:00", or nothing; where they are meant by another clock, whose. */
export function sayTimes({ startTime, dueTime, zone }: TimesOfTask): string {
  const times =
    startTime && dueTime
      ? sayTimeSpan(startTime, dueTime)
      : dueTime
        ? `by ${sayTime(dueTime)}`
        : startTime
          ? `from ${sayTime(startTime)}`
          : '';
  return times !== '' && zone ? `${times} ${zoneCity(zone)}` : times;
}

type TimesOfTask = Pick<TaskLine, 'startTime' | 'dueTime'> & Partial<Pick<TaskLine, 'zone'>>;

/** When a task is due, as seen on a day: its times, or the later day it may be finished by. */
export function sayWindow(task: TaskLine, day: CivilDay, today: CivilDay): string {
  if (isOverdue(task)) return sayLate(task);
  if (task.hold) return 'held up';
  const due = dayOfIso(task.dueOn);
  // A day further away by its date alone: its column is narrow, and none lies a year off.
  const near = sayNear(due, today);
  if (due !== day) return `by ${/\d/.test(near) ? sayDayOfMonth(due) : near}`;
  return sayTimes(task) || 'any time';
}

/** What holds it up, and until when; nothing where nothing does. */
export function sayHold({ hold }: Pick<TaskLine, 'hold'>, today: CivilDay): string {
  return hold === null ? '' : `${hold.reason}, until ${sayNear(dayOfIso(hold.until), today)}`;
}

/** Whom or what it is for, in a few words. */
export function sayFor({ asset, client, title }: Pick<TaskLine, 'asset' | 'client' | 'title'>): string {
  const names = [asset?.name, client?.name].filter(
    (name): name is string => name !== undefined && !title.includes(name),
  );
  return names.join(', ');
}

/** "10:40", or with its day where that is not today. */
export function sayMoment(moment: string, today: CivilDay): string {
  const day = dayOfIso(moment.slice(0, 10));
  return day === today ? timeOf(moment) : `${sayNear(day, today)}, ${timeOf(moment)}`;
}

/** Proof that is still to come, for a line; nothing where nothing is. */
export function sayProofMissing({ proofMissing }: Pick<TaskLine, 'proofMissing'>): string {
  const [first] = proofMissing;
  if (first === undefined) return '';
  return proofMissing.length === 1 ? `needs proof: ${first}` : `needs proof for ${proofMissing.length}`;
}

/** All that a task still lacks before it can be finished, as the server will see it. */
export function missingOf(task: Task): Missing[] {
  return stillMissing(doingOf(task));
}

/** How far a task is, as the rules on proof want it. */
export function doingOf(task: Task): Doing {
  const files: Record<string, number> = {};
  for (const { demand } of task.files) if (demand !== null) files[demand] = (files[demand] ?? 0) + 1;
  return {
    demands: task.demands,
    checkLines: task.steps,
    ticked: new Set(task.steps.flatMap(({ key, tickedAt }) => (tickedAt === null ? [] : [key]))),
    answers: task.answers,
    files,
    note: task.note,
  };
}

/** The tag whose reading starts it, before anything else is done with it. */
export const unreadTagOf = (task: Task): TagDemand | null => tagToStart(task, task.state !== 'open', task.assetTag);

/** Whether work on it is over, for now or for good. */
export function isFixed({ state, mayWork }: Pick<Task, 'state' | 'mayWork'>): boolean {
  return !mayWork || isEnded(state as 'open') || state === 'toCheck';
}
