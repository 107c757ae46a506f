import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import { dayOfIso, type IsoDate, type IsoTime, isoOfDay } from '../civil-date/iso-date.ts';
import { type OccurrenceInstants, occurrenceInstants, remindersOf } from './instants.ts';
import { type DatedOccurrence, type MovedBecause, type OmittedOccurrence, planDays } from './plan.ts';
import type { PlannedSchedule } from './schedule-plan.ts';

export type IsoOccurrence =
  | {
      readonly kind: 'dated';
      /** The date the rule gives: the occurrence's name for good. */
      readonly nominal: IsoDate;
      /** The date it is worked. */
      readonly on: IsoDate;
      readonly appears: IsoDate;
      readonly starts: IsoDate;
      readonly due: IsoDate;
      readonly startTime: IsoTime | null;
      readonly dueTime: IsoTime | null;
      readonly reminders: readonly { readonly on: IsoDate; readonly time: IsoTime }[];
      readonly moved: MovedBecause | null;
      readonly isAdded: boolean;
      readonly isForeseen: boolean;
      /** Given where a zone was asked for. */
      readonly instants?: OccurrenceInstants;
    }
  | {
      readonly kind: 'omitted';
      readonly nominal: IsoDate;
      readonly on: IsoDate;
      readonly because: OmittedOccurrence['because'];
    };

/**
 * The plan of a schedule between two dates, both included: each occurrence by its nominal date (the rule's own),
 * the date it is worked, and when it appears, starts, is due and reminds; or why it makes no task.
 * @param options.instantsIn an IANA zone: instants too, for timings that name no zone of their own in this one
 * @throws InvalidDateError, NoWorkingDayError, RRuleError; RangeError for a zone that does not exist
 */
export function planBetween(
  schedule: PlannedSchedule,
  calendar: WorkingCalendar,
  from: IsoDate,
  to: IsoDate,
  options: { readonly instantsIn?: string } = {},
): IsoOccurrence[] {
  return planDays(schedule, calendar, dayOfIso(from), dayOfIso(to)).map((occurrence): IsoOccurrence => {
    if (occurrence.kind === 'omitted') {
      const { nominal, on, because } = occurrence;
      return { kind: 'omitted', nominal: isoOfDay(nominal), on: isoOfDay(on), because };
    }
    const plain = isoOccurrence(occurrence, calendar);
    const zone = options.instantsIn;
    return zone === undefined ? plain : { ...plain, instants: occurrenceInstants(occurrence, calendar, zone) };
  });
}

const NO_REMINDERS: [] = [];

function isoOccurrence(occurrence: DatedOccurrence, calendar: WorkingCalendar) {
  const { timing } = occurrence;
  return {
    kind: 'dated' as const,
    nominal: isoOfDay(occurrence.nominal),
    on: isoOfDay(occurrence.on),
    appears: isoOfDay(occurrence.appears),
    starts: isoOfDay(occurrence.starts),
    due: isoOfDay(occurrence.due),
    startTime: timing.startTime,
    dueTime: timing.dueTime,
    reminders:
      timing.reminders.length === 0
        ? NO_REMINDERS
        : remindersOf(occurrence, calendar).map(({ on, time }) => ({ on: isoOfDay(on), time })),
    moved: occurrence.moved,
    isAdded: occurrence.isAdded,
    isForeseen: occurrence.isForeseen,
  };
}
