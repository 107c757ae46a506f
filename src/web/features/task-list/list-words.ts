import type { TaskGroup, TaskGrouping, TaskLine, TaskSums } from '../../../contract/index.ts';
import { type CivilDay, dayOfIso, isEnded, isOverdue, plural, sayDuration, sayLate } from '../../../core/index.ts';
import { sayDay, sayDayOfMonth, timeOf } from '../../kit/ways.ts';
import { sayTimes } from '../tasks/task-words.ts';

/** "49 tasks, 28 h 25, 3 late" */
export function saySums({ count, minutes, late }: TaskSums): string {
  return [plural(count, 'task'), minutes > 0 && sayDuration(minutes), late > 0 && `${late} late`]
    .filter(Boolean)
    .join(', ');
}

/** When it is due by the clock, how late it is, or when it was finished. */
export function sayTimeOf(task: TaskLine, today: CivilDay): string {
  if (isOverdue(task)) return sayLate(task);
  if (task.hold) return `until ${sayDayOfMonth(dayOfIso(task.hold.until))}`;
  if (task.doneAt !== null) {
    const on = dayOfIso(task.doneAt.slice(0, 10));
    return `${task.state === 'toCheck' ? 'since' : 'done'} ${on === today ? timeOf(task.doneAt) : sayDayOfMonth(on)}`;
  }
  return sayTimes(task);
}

/** What it still lacks before it is finished, and by whom it is signed then; nothing where it is over. */
export function sayStillMissing(task: TaskLine): string {
  if (isEnded(task.state as 'open')) return '';
  if (task.state === 'toCheck') return task.signsOff === null ? '' : `sign-off by ${task.signsOff}`;
  const [first, ...more] = task.proofMissing;
  if (first !== undefined) return more.length === 0 ? first : `${first} and ${more.length} more`;
  return task.stepsDone < task.stepsTotal ? plural(task.stepsTotal - task.stepsDone, 'tick') : '';
}

/** Who has it: somebody, any one of some, or nobody yet. */
export const sayWho = ({ assignee, offeredTo }: TaskLine): string => assignee?.name ?? offeredTo ?? 'nobody yet';

/** How a group without what it is put together by is called. */
export function nameOfGroup(
  by: TaskGrouping,
  { name }: Pick<TaskGroup, 'name'>,
  workspace: string,
  today: CivilDay,
): string {
  switch (by) {
    case 'client':
      return name ?? `${workspace} itself`;
    case 'asset':
      return name ?? 'of no asset';
    case 'person':
      return name ?? 'nobody yet';
    case 'template':
      return name ?? 'without a template';
    case 'category':
      return name ?? 'without a category';
    case 'day':
      return name === null ? '' : sayDay(dayOfIso(name), today);
  }
}
