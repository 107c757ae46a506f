import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { dayOfIso, tryDayOfIso } from '../civil-date/iso-date.ts';
import { DATE_STEPS, TooMuchReckoningError, within } from '../reckoning.ts';
import { sayDate } from '../wording/date-words.ts';
import { occurrenceSeries } from './occurrences.ts';
import type { Recurrence } from './rule.ts';

export interface RecurrenceProblem {
  /** Where, as a path into the recurrence: `end.date`, `rules.0.on`. */
  readonly path: string;
  readonly message: string;
}

/** What makes a recurrence impossible, in words; none when it can be used. Shapes and ranges are checked before, by the contract. */
export function recurrenceProblems(recurrence: Recurrence, calendar: WorkingCalendar): RecurrenceProblem[] {
  const start = tryDayOfIso(recurrence.start);
  if (start === null) return [{ path: 'start', message: `“${recurrence.start}” is not a date.` }];
  if (recurrence.rules.length === 0) return [{ path: 'rules', message: 'Say when: there is no rule yet.' }];

  const { end } = recurrence;
  if (end.kind === 'on') {
    const last = tryDayOfIso(end.date);
    if (last === null) return [{ path: 'end.date', message: `“${end.date}” is not a date.` }];
    if (last < start) {
      return [
        {
          path: 'end.date',
          message: `It ends on ${sayDate(last)}, before it starts on ${sayDate(start)}. Choose a later end.`,
        },
      ];
    }
  }
  const unending = firstOf(recurrence, calendar, start);
  if (unending instanceof TooMuchReckoningError) return [{ path: 'rules', message: unending.message }];
  if (unending === null) {
    const where = recurrence.closed ? 'has such a day outside the time that is closed' : 'has such a day';
    return [{ path: 'rules', message: `This never happens: no month ${where}. Change the day or the months.` }];
  }
  if (end.kind === 'on' && unending > dayOfIso(end.date)) {
    return [
      {
        path: 'end.date',
        message: `No date falls before it ends on ${sayDate(dayOfIso(end.date))}: the first would be ${sayDate(unending)}.`,
      },
    ];
  }
  return [];
}

/** The first day of it, wherever it may end. */
function firstOf(recurrence: Recurrence, calendar: WorkingCalendar, start: CivilDay) {
  try {
    return within(DATE_STEPS, () =>
      occurrenceSeries({ ...recurrence, end: { kind: 'never' } }, calendar).next(start - 1),
    );
  } catch (error) {
    if (error instanceof TooMuchReckoningError) return error;
    throw error;
  }
}
