import type { taskAddresses } from '../../../contract/addresses.ts';
import { dayOfIso } from '../../../core/index.ts';
import type { Answer } from '../../kit/api.ts';
import { sayDate } from '../../kit/ways.ts';

/** What is said of a task that has been finished. */
export function sayFinished({ task }: Pick<Answer<typeof taskAddresses.finish>, 'task'>): string {
  if (task.state === 'toCheck') return `Finished “${task.title}”. ${task.signsOff ?? 'Someone else'} checks it now.`;
  const { next } = task.series;
  return `Finished “${task.title}”.${next ? ` The next one is on ${sayDate(dayOfIso(next.on))}.` : ''}`;
}
