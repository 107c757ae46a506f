import type { Weekday } from '../civil-date/civil-day.ts';
import { rruleWeekday } from '../recurrence/rrule/parts.ts';
import type { Distance, MonthPoint, MonthsRule, YearsRule } from '../recurrence/rule.ts';

/** Days that every month has, from either end. */
const SAFE_DAYS = 28;

/** Days of a month that a date may be, from 1 on or, counted from the end, up to -1; the bounds may lie in the months beside it. */
interface Span {
  readonly from: number;
  readonly to: number;
  readonly isFromEnd: boolean;
  /** The one among them, 1–7, where there are several. */
  readonly weekday: Weekday | null;
}

/** BY parts of a rule of its own, in these months. */
export interface AwayPart {
  readonly months: readonly number[];
  readonly parts: readonly string[];
}

/**
 * Dates away from places as RRULE says them (RFC 5545, section 3.3.10): the Friday before the 25th is the Friday among the 18th to
 * the 24th. Null where it can't: working days, places that some months lack, or another month of those that are counted.
 */
export function awayParts({ on, months, every }: MonthsRule | YearsRule, away: Distance): AwayPart[] | null {
  const all = on.map((point) => {
    const span = spanOf(point);
    const moved = span && movedBy(span, away);
    return moved && inMonths(moved, months, every);
  });
  return all.every((parts) => parts !== null) ? all.flat() : null;
}

function spanOf(point: MonthPoint): Span | null {
  switch (point.kind) {
    case 'date':
      return Math.abs(point.day) > SAFE_DAYS
        ? null
        : { from: point.day, to: point.day, isFromEnd: point.day < 0, weekday: null };
    case 'weekday': {
      const { nth, weekday } = point;
      if (Math.abs(nth) > 4) return null;
      return nth > 0
        ? { from: 7 * nth - 6, to: 7 * nth, isFromEnd: false, weekday }
        : { from: 7 * nth, to: 7 * nth + 6, isFromEnd: true, weekday };
    }
    case 'anyWeekday':
    case 'workingDay':
    case 'easter':
      return null;
  }
}

function movedBy(span: Span, { amount, of, way }: Distance): Span | null {
  if (of === 'workingDay') return null;
  const isBefore = way === 'before' || way === 'onOrBefore';
  const counts = way === 'onOrBefore' || way === 'onOrAfter' ? 1 : 0;
  if (of === 'day') return shifted(span, isBefore ? -amount : amount);
  const weeks = 7 * (amount - 1);
  if (span.weekday === null) {
    const { from: day } = span;
    return isBefore
      ? { ...span, from: day - 7 + counts - weeks, to: day - 1 + counts - weeks, weekday: of }
      : { ...span, from: day + 1 - counts + weeks, to: day + 7 - counts + weeks, weekday: of };
  }
  // From one weekday to another it is always as far.
  const after = (of - span.weekday + 7) % 7 || (counts === 1 ? 0 : 7);
  const before = (span.weekday - of + 7) % 7 || (counts === 1 ? 0 : 7);
  return shifted(span, isBefore ? -before - weeks : after + weeks);
}

function shifted(span: Span, days: number): Span {
  const weekday = span.weekday === null ? null : ((((((span.weekday - 1 + days) % 7) + 7) % 7) + 1) as Weekday);
  return { ...span, from: span.from + days, to: span.to + days, weekday };
}

/** Split where it reaches into the month beside it. */
function inMonths(span: Span, months: readonly number[], every: number): AwayPart[] | null {
  const days = Array.from({ length: span.to - span.from + 1 }, (_, i) => span.from + i);
  const here = days.filter((day) => (span.isFromEnd ? day < 0 : day > 0));
  // Counted from the end, 0 is the 1st of the next month; counted from the beginning, it is the last of the one before.
  const beside = days.filter((day) => !here.includes(day)).map((day) => (span.isFromEnd ? day + 1 : day - 1));
  if ([...here, ...beside].some((day) => Math.abs(day) > SAFE_DAYS) || (beside.length > 0 && every > 1)) return null;
  const part = (list: readonly number[], step: number): AwayPart[] =>
    list.length === 0
      ? []
      : [
          {
            months: months.map((month) => ((month - 1 + step + 12) % 12) + 1).sort((a, b) => a - b),
            parts: [
              `BYMONTHDAY=${list.join()}`,
              ...(span.weekday === null ? [] : [`BYDAY=${rruleWeekday(span.weekday)}`]),
            ],
          },
        ];
  return [...part(here, 0), ...part(beside, span.isFromEnd ? 1 : -1)];
}
