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
  readonly description: string;
  readonly location: string;
  readonly organiser: string;
  /** How many notices of it went before: a calendar takes the later one (RFC 5546, section 2.1.5). */
  readonly sequence: number;
  readonly at: Date;
}

const PRODUCT = '-//Jolly Rota//Visits//EN';
const MINUTES_WITHOUT_END = 60;

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
  if (visit.description !== '') event.updatePropertyWithValue('description', visit.description);
  if (visit.location !== '') event.updatePropertyWithValue('location', visit.location);
  const [first, last] = spanOf(visit);
  event.updatePropertyWithValue('dtstart', first);
  event.updatePropertyWithValue('dtend', last);
  event.updatePropertyWithValue('transp', 'TRANSPARENT');
  calendar.addSubcomponent(event);
  return `${calendar.toString()}\r\n`;
}

/** In UTC where hours are said, so that no zone has to be sent along; else the whole day. */
function spanOf({ on, startTime, dueTime, zone }: VisitDate): readonly [ICAL.Time, ICAL.Time] {
  const instant = (time: string) => ICAL.Time.fromJSDate(new Date(instantOf(on, time, zone)), true);
  const begins = startTime ?? dueTime;
  if (begins === null) {
    const day = (iso: string) => ICAL.Time.fromDateString(iso);
    return [day(on), day(isoOfDay(dayOfIso(on) + 1))];
  }
  const first = instant(begins);
  const last = dueTime !== null && dueTime > begins ? instant(dueTime) : first.clone();
  // Of a visit that only says when it begins, an hour is kept free.
  if (last.compare(first) === 0) last.addDuration(ICAL.Duration.fromSeconds(MINUTES_WITHOUT_END * 60));
  return [first, last];
}
