/**
 * How much a question may cost. A step is one day, month or date that is looked at: less than a tenth of a microsecond of work.
 * Rules can be written that look through thousands of years for a date; they are refused in words instead of being
 * followed for minutes.
 */

/** Steps of any one question about a span of days where nothing narrower is said; as long a span takes them as a rehearsal has. */
export const QUESTION_STEPS = 2_000_000;

/** Steps of looking for one date, which may not exist: no more than people wait for a key. */
export const DATE_STEPS = 40_000;

/** A question that would take more steps than it may. */
export class TooMuchReckoningError extends Error {
  override readonly name = 'TooMuchReckoningError';
  constructor() {
    super(
      'This rule takes too long to work out: there are too many days between its dates that have to be looked at. Say it with fewer parts, let it begin later, or leave the closed time out.',
    );
  }
}

/** What is left of the question that is being answered; core code runs to its end, so there is only ever one. */
let left = Number.POSITIVE_INFINITY;

/** Counts steps of the question being answered. @throws TooMuchReckoningError once it has used up what it may */
export function spend(steps: number): void {
  left -= steps;
  if (left < 0) throw new TooMuchReckoningError();
}

/**
 * Answers a question that may take so many steps, and no more than what is left of one that it is part of.
 * @throws TooMuchReckoningError
 */
export function within<T>(steps: number, answer: () => T): T {
  const outer = left;
  const granted = Math.min(outer, steps);
  left = granted;
  try {
    return answer();
  } finally {
    left = outer - (granted - left);
  }
}

/** The same for a part of a question, which alone would have no limit. */
export function asked<T>(answer: () => T, steps = QUESTION_STEPS): T {
  return left === Number.POSITIVE_INFINITY ? within(steps, answer) : answer();
}
