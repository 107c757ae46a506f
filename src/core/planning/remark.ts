import type { Assigner } from '../assignment/assigner.ts';
import type { NameOf } from '../assignment/why-words.ts';
import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import type { termsOf } from '../notice/visit-terms.ts';
import { joinAnd, sayDay } from '../wording/date-words.ts';
import type { PlannedSchedule } from './schedule-plan.ts';

/** Something that a careful reader of a plan would remark. */
export interface Remark {
  readonly kind:
    | 'ended'
    | 'nothing'
    | 'no change'
    /** Its one date is the start with which it would come sooner. */
    | 'begins late'
    | 'appears late'
    | 'notice too short'
    | 'nobody assigned'
    | 'nobody there'
    | 'no ticket'
    | 'over capacity'
    | 'at once'
    | 'not listed'
    | 'twice a day'
    | 'missing day'
    | 'moved'
    | 'skipped'
    | 'closed'
    | 'same day'
    | 'on days off'
    | 'every four weeks';
  /** How many dates, times or months it is about. */
  readonly count: number;
  /** The dates themselves, where it is about dates. */
  readonly dates: readonly CivilDay[];
  /** In plain words, with its figures. */
  readonly text: string;
}

export interface RemarkContext {
  readonly calendar: WorkingCalendar;
  readonly today: CivilDay;
  /** Who does each date, and what people are called; left out where that is not to be remarked on. */
  readonly who?: {
    readonly whose: Assigner;
    readonly nameOf: NameOf;
    /** What else everybody has to do in the weeks that are made, and what a date of this asks of whoever has it. */
    readonly load?: WorkBeside;
  };
  /** Other schedules of the same work for the same person. */
  readonly others?: readonly PlannedSchedule[];
  /** How a visit of this type has to be announced; null where it needs no notice. */
  readonly notice?: ReturnType<typeof termsOf>;
  /** The schedule as it is saved, when this is a change of it. */
  readonly before?: PlannedSchedule | null;
}

/** Other work by the week, as far as it is made. */
export interface WorkBeside {
  /** Minutes that somebody has in the week of a day without this schedule, and minutes that they can work in it. */
  readonly of: (personId: string, day: CivilDay) => { readonly minutes: number; readonly capacity: number };
  /** The last day whose work is made. */
  readonly madeTo: CivilDay;
  /** Of each date, for whoever has it. */
  readonly minutes: number;
}

/** How many dates a sentence names before it only counts the rest. */
const NAMED_DATES = 4;

export function listDates(
  days: readonly CivilDay[],
  { calendar, today }: RemarkContext,
  { holidays = false } = {},
): string {
  const named = days.slice(0, NAMED_DATES).map((day) => {
    const holiday = holidays ? calendar.holidayName(day) : undefined;
    return holiday ? `${sayDay(day, today)} (${holiday})` : sayDay(day, today);
  });
  const rest = days.length - named.length;
  return rest > 0 ? `${named.join(', ')} and ${rest} more` : joinAnd(named);
}

export function remark(
  kind: Remark['kind'],
  text: string,
  dates: readonly CivilDay[] = [],
  count = dates.length,
): Remark {
  return { kind, count, dates, text };
}
