import { TO_DO } from './states.ts';

/**
 * Whether a task `t` was finished by when it was due, as `lookOf` tells it: by the clock of its own zone, to the minute; without
 * a time, by the end of its day. Not so for what has not been finished. The database keeps it with each task.
 */
export const WAS_ON_TIME = `coalesce(t.on_time, false)`;

/**
 * Whether a task `t` that was due counts: what was skipped with a reason does not, nor what is held up.
 * @param today names the parameter with the day
 */
export const countsAsDue = (today: string) =>
  `(t.state <> 'skipped' and (t.held_until is null or t.held_until <= ${today}::date or t.state not in ${TO_DO}))`;
