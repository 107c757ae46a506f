import ICAL from 'ical.js';
import { civilTimeAt, dayOfIso, instantOf, isoOfDay, zoneObservances } from '../../core/index.ts';
import { eachInTurn } from '../platform/in-turn.ts';

/** One task as a calendar shows it, made or foreseen. */
export interface CalendarEntry {
  /** The same for what is foreseen and for what is made of it. */
  readonly uid: string;
  /** When it was changed last. */
  readonly changedAt: Date;
  readonly title: string;
  readonly status: 'foreseen' | 'stands' | 'cancelled';
  readonly startsOn: string;
  readonly dueOn: string;
  readonly startTime: string | null;
  readonly dueTime: string | null;
  /** IANA zone in which the times are meant. */
  readonly zone: string;
  readonly estimateMinutes: number;
  readonly location: string;
  readonly category: string | null;
  /** What else there is to say, a line each. */
  readonly says: readonly string[];
  /** The page of it; null where none can be told. */
  readonly url: string | null;
}

/** What a calendar says of itself. */
export interface CalendarHead {
  readonly name: string;
  readonly says: string;
  /** How often a program should ask again; null for a file. */
  readonly refreshMinutes: number | null;
}

export interface CalendarText extends CalendarHead {
  readonly entries: readonly CalendarEntry[];
}

const PRODUCT = '-//Jolly Rota//Calendar//EN';
/** Changes are numbered by their second since then, so that none has a lower number than an earlier one. */
const COUNTED_FROM = Date.UTC(2020, 0, 1);
const DAY_MS = 24 * 60 * 60_000;

const STATUS: Readonly<Record<CalendarEntry['status'], string>> = {
  foreseen: 'TENTATIVE',
  stands: 'CONFIRMED',
  cancelled: 'CANCELLED',
};

/**
 * A calendar as text (RFC 5545, RFC 7986): each entry on its days, or between its times by the clock of its zone, which is
 * defined beside them. The same entries give the same text. Worked out in turns, so that nothing waits behind it.
 */
export async function calendarText(text: CalendarText): Promise<string> {
  const { entries } = text;
  const { begin, end } = aroundEvents(text, entries);
  return begin + (await eachInTurn(entries, (entry) => `${eventOf(entry)}\r\n`)).join('') + end;
}

/** What stands around events: what the calendar is, and the zones in which their times are. Every line has its end. */
export function aroundEvents(
  { name, says, refreshMinutes }: CalendarHead,
  spans: readonly Pick<CalendarEntry, 'startTime' | 'zone' | 'startsOn' | 'dueOn'>[],
): { readonly begin: string; readonly end: string } {
  const head = new ICAL.Component('vcalendar');
  head.updatePropertyWithValue('version', '2.0');
  head.updatePropertyWithValue('prodid', PRODUCT);
  head.updatePropertyWithValue('calscale', 'GREGORIAN');
  head.updatePropertyWithValue('method', 'PUBLISH');
  // The name as RFC 7986 has it, and as programs have read it from before.
  for (const property of ['name', 'x-wr-calname']) head.updatePropertyWithValue(property, name);
  if (says !== '') head.updatePropertyWithValue('description', says);
  if (refreshMinutes !== null) {
    const refresh = new ICAL.Property(['refresh-interval', {}, 'duration', `PT${refreshMinutes}M`]);
    head.addProperty(refresh);
  }
  const [begin = '', end = ''] = head.toString().split(/(?=END:VCALENDAR)/);
  const zones = [...zonesOf(spans)].map(([zone, span]) => zoneOf(zone, span).toString());
  return { begin: [begin.trimEnd(), ...zones, ''].join('\r\n'), end: `${end.trimEnd()}\r\n` };
}

/** Zones that times are said in, and from when to when. */
function zonesOf(
  entries: readonly Pick<CalendarEntry, 'startTime' | 'zone' | 'startsOn' | 'dueOn'>[],
): Map<string, readonly [number, number]> {
  const zones = new Map<string, readonly [number, number]>();
  for (const { startTime, zone, startsOn, dueOn } of entries) {
    if (startTime === null) continue;
    const [from, to] = zones.get(zone) ?? [Number.POSITIVE_INFINITY, Number.NEGATIVE_INFINITY];
    const [first, last] = [dayOfIso(startsOn) * DAY_MS, dayOfIso(dueOn) * DAY_MS];
    zones.set(zone, [Math.min(from, first - DAY_MS), Math.max(to, last + 2 * DAY_MS)]);
  }
  return zones;
}

/** A zone as its clocks stand within the time that is told of (section 3.6.5). */
function zoneOf(zone: string, [from, to]: readonly [number, number]): ICAL.Component {
  const component = new ICAL.Component('vtimezone');
  component.updatePropertyWithValue('tzid', zone);
  const observances = zoneObservances(zone, from, to);
  const least = Math.min(...observances.map(({ after }) => after));
  for (const { at, before, after } of observances) {
    const part = new ICAL.Component(after > least ? 'daylight' : 'standard');
    // By the clock that is put on or back (section 3.8.2.4).
    part.updatePropertyWithValue('dtstart', floating(new Date(at + before)));
    part.updatePropertyWithValue('tzoffsetfrom', offset(before));
    part.updatePropertyWithValue('tzoffsetto', offset(after));
    component.addSubcomponent(part);
  }
  return component;
}

const floating = (civil: Date): ICAL.Time =>
  ICAL.Time.fromData({
    ...{ year: civil.getUTCFullYear(), month: civil.getUTCMonth() + 1, day: civil.getUTCDate(), isDate: false },
    ...{ hour: civil.getUTCHours(), minute: civil.getUTCMinutes(), second: civil.getUTCSeconds() },
  });

const offset = (milliseconds: number) => ICAL.UtcOffset.fromSeconds(Math.round(milliseconds / 1000));

function eventOf(entry: CalendarEntry): ICAL.Component {
  const event = new ICAL.Component('vevent');
  event.updatePropertyWithValue('uid', entry.uid);
  event.updatePropertyWithValue('dtstamp', ICAL.Time.fromJSDate(entry.changedAt, true));
  // Higher with each change of it (section 3.8.7.4), also of what comes back after it was taken out.
  event.updatePropertyWithValue('sequence', Math.max(0, Math.floor((entry.changedAt.getTime() - COUNTED_FROM) / 1000)));
  event.updatePropertyWithValue('summary', entry.title);
  event.updatePropertyWithValue('status', STATUS[entry.status]);
  if (entry.location !== '') event.updatePropertyWithValue('location', entry.location);
  if (entry.category !== null) event.updatePropertyWithValue('categories', entry.category);
  if (entry.says.length > 0) event.updatePropertyWithValue('description', entry.says.join('\n'));
  if (entry.url !== null) event.updatePropertyWithValue('url', entry.url);
  if (entry.startTime === null) {
    event.updatePropertyWithValue('dtstart', ICAL.Time.fromDateString(entry.startsOn));
    // The end of a whole day is the day after (section 3.6.1).
    event.updatePropertyWithValue('dtend', ICAL.Time.fromDateString(isoOfDay(dayOfIso(entry.dueOn) + 1)));
    event.updatePropertyWithValue('transp', 'TRANSPARENT');
    return event;
  }
  timed(event, 'dtstart', entry.startsOn, entry.startTime, entry.zone);
  const [endsOn, endTime] = endOf(entry, entry.startTime);
  timed(event, 'dtend', endsOn, endTime, entry.zone);
  return event;
}

/** A day, or a time of it by the clock of a zone. */
export function timed(event: ICAL.Component, name: string, on: string, time: string | null, zone: string): void {
  const property = new ICAL.Property(name);
  property.setValue(timedValue(on, time));
  if (time !== null) property.setParameter('tzid', zone);
  event.addProperty(property);
}

export const timedValue = (on: string, time: string | null): ICAL.Time =>
  time === null ? ICAL.Time.fromDateString(on) : floating(new Date(instantOf(on, time, 'UTC')));

/** When it is due; where no time is said, as long after its start as it takes. */
function endOf({ startsOn, dueOn, dueTime, estimateMinutes }: CalendarEntry, startTime: string): [string, string] {
  if (dueTime !== null && (dueOn > startsOn || dueTime > startTime)) return [dueOn, dueTime];
  if (dueOn > startsOn) return [isoOfDay(dayOfIso(dueOn) + 1), '00:00'];
  // By the clock on the wall, which goes on as in a zone without changes.
  const { date, time } = civilTimeAt(instantOf(startsOn, startTime, 'UTC') + estimateMinutes * 60_000, 'UTC');
  return [date, time];
}
