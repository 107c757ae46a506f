import { type CivilDay, mondayOf } from '../civil-date/civil-day.ts';

/** Days on which work is due as people ask for them, seen from today: a week is from Monday to Sunday. */
export const DUE_SPANS = ['byWeek', 'today', 'week', 'nextWeek', 'month', 'before'] as const;
export type DueSpan = (typeof DUE_SPANS)[number];

/**
 * The days it means, both included: late or due by the end of this week (without a first day), today, this week, the next, from
 * today on for 30 days, the last 30 days up to today.
 */
export function spanOfDue(due: DueSpan, today: CivilDay): { readonly from: CivilDay | null; readonly to: CivilDay } {
  const monday = mondayOf(today);
  switch (due) {
    case 'byWeek':
      return { from: null, to: monday + 6 };
    case 'today':
      return { from: today, to: today };
    case 'week':
      return { from: monday, to: monday + 6 };
    case 'nextWeek':
      return { from: monday + 7, to: monday + 13 };
    case 'month':
      return { from: today, to: today + 30 };
    case 'before':
      return { from: today - 30, to: today };
  }
}
