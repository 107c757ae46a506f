import type { Nudged } from '../../../contract/index.ts';
import { plural } from '../../../core/index.ts';

/** Whom a nudge has reached, and what it left alone. @param name of whoever has it, of one task */
export function sayNudged({ nudged, people, own, nobodys, over, again }: Nudged, name?: string): string {
  const left = [
    again > 0 && `${plural(again, 'task was', 'tasks were')} told of within the hour`,
    own > 0 && `${own === 1 ? '1 is' : `${own} are`} your own`,
    nobodys > 0 && `${nobodys === 1 ? '1 is' : `${nobodys} are`} nobody’s`,
    over > 0 && `${over === 1 ? '1 is' : `${over} are`} over, held up or gone`,
  ].filter(Boolean);
  const beside = left.length > 0 ? ` ${left.join(', ')}.` : '';
  if (nudged === 0) return `Nobody is nudged.${beside}`;
  if (nudged === 1 && name !== undefined) return `Nudged ${name}.${beside}`;
  return `Nudged ${plural(people, 'person', 'people')} about ${plural(nudged, 'task')}.${beside}`;
}
