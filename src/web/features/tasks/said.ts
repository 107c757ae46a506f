import type { taskAddresses } from '../../../contract/addresses.ts';
import type { Nudged } from '../../../contract/index.ts';
import { dayOfIso, plural } from '../../../core/index.ts';
import type { Answer } from '../../kit/api.ts';
import { sayDate } from '../../kit/ways.ts';

/** Whom a nudge has reached, and what it left alone. @param name of whoever has it, of one task */
export function sayNudged({ nudged, people, nobodys, over, again }: Nudged, name?: string): string {
  const left = [
    again > 0 && `${plural(again, 'task was', 'tasks were')} told of within the hour`,
    nobodys > 0 && `${nobodys === 1 ? '1 is' : `${nobodys} are`} nobody’s`,
    over > 0 && `${over === 1 ? '1 is' : `${over} are`} over, held up or gone`,
  ].filter(Boolean);
  const beside = left.length > 0 ? ` ${left.join(', ')}.` : '';
  if (nudged === 0) return `Nobody is nudged.${beside}`;
  if (nudged === 1 && name !== undefined) return `Nudged ${name}.${beside}`;
  return `Nudged ${plural(people, 'person', 'people')} about ${plural(nudged, 'task')}.${beside}`;
}

/** What is said of a task that has been finished. */
export function sayFinished({ task }: Pick<Answer<typeof taskAddresses.finish>, 'task'>): string {
  if (task.state === 'toCheck') return `Finished “${task.title}”. ${task.signsOff ?? 'Someone else'} checks it now.`;
  const { next } = task.series;
  return `Finished “${task.title}”.${next ? ` The next one is on ${sayDate(dayOfIso(next.on))}.` : ''}`;
}
