import type { TaskLine } from '../../contract/index.ts';
import { type CivilDay, dayOfIso, sayLate, sayNear, zoneCity } from '../../core/index.ts';

/** "11:00–12:00", "by 15:30", "from 09:00", or nothing; where they are meant by another clock, whose. */
export function sayTimes({ startTime, dueTime, zone }: TimesOfTask): string {
  const times =
    startTime && dueTime ? `${startTime}–${dueTime}` : dueTime ? `by ${dueTime}` : startTime ? `from ${startTime}` : '';
  return times !== '' && zone ? `${times} ${zoneCity(zone)}` : times;
}

type TimesOfTask = Pick<TaskLine, 'startTime' | 'dueTime'> & Partial<Pick<TaskLine, 'zone'>>;

/** When a task is due, as seen on a day: its times, or the later day it may be finished by. */
export function sayWindow(task: TaskLine, day: CivilDay, today: CivilDay): string {
  if (task.late && task.state !== 'done') return sayLate({ state: task.state, late: true, daysLate: task.daysLate });
  const due = dayOfIso(task.dueOn);
  if (due !== day) return `by ${sayNear(due, today)}`;
  return sayTimes(task) || 'any time';
}

/** Whom or what it is for, in a few words. */
export function sayFor({ asset, client, title }: Pick<TaskLine, 'asset' | 'client' | 'title'>): string {
  const names = [asset?.name, client?.name].filter(
    (name): name is string => name !== undefined && !title.includes(name),
  );
  return names.join(', ');
}

/** The clock time of a civil moment. */
export function timeOf(moment: string): string {
  return moment.slice(11, 16);
}
