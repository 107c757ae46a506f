import type { IsoDate, IsoTime } from '../civil-date/iso-date.ts';
import type { Milestone, Recurrence } from '../recurrence/rule.ts';
import type { Timing } from './timing.ts';

/** While paused nothing is made. `to` is the first day that runs again; null while the pause lasts. */
export interface Pause {
  readonly from: IsoDate;
  readonly to: IsoDate | null;
}

/** What is different about one occurrence. What is left out stays as the schedule says. */
export interface OccurrenceChange {
  readonly startTime?: IsoTime | null;
  readonly dueTime?: IsoTime | null;
  /** Who does it this time; null for nobody yet. */
  readonly assigneeId?: string | null;
}

/** Something about a single date, named by its nominal date (RFC 5545 RECURRENCE-ID) or, for an added one, by itself. */
export type Exception =
  | { readonly kind: 'skip'; readonly date: IsoDate }
  /** Worked on that day, whatever the calendar says. */
  | { readonly kind: 'move'; readonly date: IsoDate; readonly to: IsoDate }
  /** One more, on exactly that day. */
  | { readonly kind: 'add'; readonly date: IsoDate }
  | { readonly kind: 'change'; readonly date: IsoDate; readonly change: OccurrenceChange };

/** What one task of a set says differently from its template. What is left out stays as the template says. */
export interface OwnFields {
  /** A pattern, as templates have it. */
  readonly titlePattern?: string;
  readonly instructions?: string;
  /** In minutes, from 1. */
  readonly estimateMinutes?: number;
  readonly priority?: 'low' | 'normal' | 'high' | 'urgent';
  /** Who does it; of the main task, who does the set. Null for nobody yet. */
  readonly assigneeId?: string | null;
  /** Of a step; those of the main task stand in the timing. */
  readonly startTime?: IsoTime | null;
  readonly dueTime?: IsoTime | null;
}

/** By the keys of the steps; '' is the main task. */
export type OwnOfSteps = Readonly<Record<string, OwnFields>>;

/** From a date on, the schedule runs by another rule and other times. Its history stays one series. */
export interface Revision {
  /** Rules whose nominal dates lie on or after this day and before the next revision's. */
  readonly from: IsoDate;
  readonly recurrence: Recurrence;
  readonly timing: Timing;
  /** What its tasks say differently from the template from here on. */
  readonly own?: OwnOfSteps;
}

/** The last task of a schedule whose next date depends on it ("2 weeks after completion"). */
export interface LastOne {
  readonly nominal: IsoDate;
  /** The day on which it got so far; null while it has not. */
  readonly reached: Readonly<Record<Milestone, IsoDate | null>>;
  /** How many there have been, with it. */
  readonly count: number;
}

/** What the plan of a schedule is computed from. */
export interface PlannedSchedule {
  readonly recurrence: Recurrence;
  readonly timing: Timing;
  readonly pauses?: readonly Pause[];
  readonly exceptions?: readonly Exception[];
  /** In any order; each holds from its day on. */
  readonly revisions?: readonly Revision[];
  /** For rules on completion or progress; null or left out when there has been none. */
  readonly last?: LastOne | null;
  /** Nominal dates whose task was deleted on purpose. No plan changes by it; what is told of a plan does (`shownDays`). */
  readonly deleted?: readonly IsoDate[];
}

/** The rule and timing that hold for the nominal dates of a day: the schedule's own, or those of the last revision up to it. */
export function revisionOn(
  { recurrence, timing, revisions = [] }: PlannedSchedule,
  date: IsoDate,
): Omit<Revision, 'from'> {
  const inForce = revisions.filter(({ from }) => from <= date).sort((a, b) => (a.from < b.from ? 1 : -1))[0];
  return inForce ?? { recurrence, timing };
}

/** The first revision that begins after a day, or null. */
export function revisionAfter({ revisions = [] }: PlannedSchedule, date: IsoDate): Revision | null {
  return revisions.filter(({ from }) => from > date).sort((a, b) => (a.from < b.from ? -1 : 1))[0] ?? null;
}
