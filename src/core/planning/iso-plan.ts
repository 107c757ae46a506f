import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import { dayOfIso, type IsoDate, isoOfDay } from '../civil-date/iso-date.ts';
import { type OmittedOccurrence, type PlannedSchedule, planDays } from './plan.ts';

export type IsoOccurrence =
  | {
      readonly kind: 'dated';
      readonly nominal: IsoDate;
      readonly on: IsoDate;
      readonly appears: IsoDate;
      readonly starts: IsoDate;
      readonly due: IsoDate;
    }
  | {
      readonly kind: 'omitted';
      readonly nominal: IsoDate;
      readonly on: IsoDate;
      readonly because: OmittedOccurrence['because'];
    };

/**
 * The plan of a schedule between two dates, both included: each occurrence by its nominal date (the rule's own),
 * the day it is worked, and when it appears, starts and is due; or why it makes no task.
 * @throws InvalidDateError, NoWorkingDayError
 */
export function planBetween(
  schedule: PlannedSchedule,
  calendar: WorkingCalendar,
  from: IsoDate,
  to: IsoDate,
): IsoOccurrence[] {
  return planDays(schedule, calendar, dayOfIso(from), dayOfIso(to)).map((occurrence) => {
    const nominal = isoOfDay(occurrence.nominal);
    const on = isoOfDay(occurrence.on);
    if (occurrence.kind === 'omitted') return { kind: 'omitted', nominal, on, because: occurrence.because };
    return {
      kind: 'dated',
      nominal,
      on,
      appears: isoOfDay(occurrence.appears),
      starts: isoOfDay(occurrence.starts),
      due: isoOfDay(occurrence.due),
    };
  });
}
