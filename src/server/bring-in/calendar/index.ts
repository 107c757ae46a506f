/** Calendars that are brought in: taken apart, understood entry by entry, written in one go. */
import type { Ways } from '../ways.ts';
import { lookAtEntries } from './look.ts';
import { entriesOut } from './out.ts';
import { impactOfEntries, writeEntries } from './writing.ts';

export { calendarAsked, calendarNames } from './meant.ts';
export { type CalendarRead, readCalendar } from './read-calendar.ts';

export const calendarWays: Ways<true> = {
  look: lookAtEntries,
  write: writeEntries,
  takeOut: entriesOut,
  impact: impactOfEntries,
  topics: ['schedules', 'tasks', 'templates', 'workspace'],
};
