import type { CivilDay } from '../../civil-date/civil-day.ts';

/** What a phrase leaves unsaid is taken from here. */
export interface PhraseContext {
  /** Where the recurrence starts, for "weekly" or "monthly" without a day. */
  readonly start: CivilDay;
  /** Dates without a year are the next ones from here on. */
  readonly today: CivilDay;
}
