import ICAL from 'ical.js';
import { dayOfIso, instantOf, isoOfDay } from '../../core/index.ts';

/** A visit as a date for a calendar. */
export interface VisitDate {
  readonly taskId: string;
  readonly on: string;
  readonly startTime: string | null;
  readonly dueTime: string | null;
  /** IANA zone in which the times are meant. */
  readonly zone: string;
  readonly summary: string;
  readonly location: string;
  /** How many notices of it went before: a calendar takes the later one (RFC 5546, section 2.1.5). */
  readonly sequence: number;
  readonly at: Date;
}

const PRODUCT = '-//Jolly Rota//Visits//EN';

/** An .ics file of one event (RFC 5545), published (RFC 5546, section 3.2.1): the same UID for the same visit. */
export function dateFileOf(visit: VisitDate): string {
  const calendar = new ICAL.Component(['vcalendar', [], []]);
  calendar.updatePropertyWithValue('version', '2.0');
  calendar.updatePropertyWithValue('prodid', PRODUCT);
  calendar.updatePropertyWithValue('method', 'PUBLISH');
  const event = new ICAL.Component('vevent');
  event.updatePropertyWithValue('uid', `${visit.taskId}@jolly-rota.local`);
  event.updatePropertyWithValue('dtstamp', ICAL.Time.fromJSDate(visit.at, true));
  event.updatePropertyWithValue('sequence', visit.sequence);
  event.updatePropertyWithValue('summary', visit.summary);
  if (visit.location !== '') event.updatePropertyWithValue('location', visit.location);
  const [first, last] = spanOf(visit);
  event.updatePropertyWithValue('dtstart', first);
  if (last !== null) event.updatePropertyWithValue('dtend', last);
  event.updatePropertyWithValue('transp', 'TRANSPARENT');
  calendar.addSubcomponent(event);
  return `${calendar.toString()}\r\n`;
}

/**
 * In UTC where it is said from when, so that no zone has to be sent along; else the whole day. Where it is not said until when,
 * no end is made up (RFC 5545, section 3.6.1).
 */
function spanOf({ on, startTime, dueTime, zone }: VisitDate): readonly [ICAL.Time, ICAL.Time | null] {
  const instant = (time: string) => ICAL.Time.fromJSDate(new Date(instantOf(on, time, zone)), true);
  if (startTime !== null)
    return [instant(startTime), dueTime !== null && dueTime > startTime ? instant(dueTime) : null];
  const day = (iso: string) => ICAL.Time.fromDateString(iso);
  return [day(on), day(isoOfDay(dayOfIso(on) + 1))];
}
