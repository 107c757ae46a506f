import ICAL from 'ical.js';
import { findIana } from 'windows-iana';
import {
  type Entry,
  type EntryAlarm,
  type EntryPart,
  type EntryPerson,
  type EntryTime,
  isZone,
  zoneObservances,
} from '../../../core/index.ts';

/** Properties that have a place in what is read; of others it is told that they are not taken over. */
const READ = new Set(
  `uid dtstamp created last-modified sequence dtstart dtend due duration summary description location url categories priority
  status transp rrule rdate exdate recurrence-id attendee organizer completed percent-complete class`.split(/\s+/),
);

/** Texts are cut where nothing here would hold them, and lists beyond what a schedule is refused for. */
const LONGEST_NAME = 120;
const LONGEST_TEXT = 90_000;
const LONGEST_SHORT = 500;
const MOST_PEOPLE = 1000;
const MOST_DATES = 5000;
const MOST_CHANGED = 3000;

/** What iCalendar text of one UID says, as ical.js reads it (RFC 5545, RFC 7986), or why it can't be read. */
export function readEntry(uid: string, text: string): { readonly entry: Entry } | { readonly problem: string } {
  let parts: EntryPart[];
  try {
    const calendar = new ICAL.Component(ICAL.parse(`BEGIN:VCALENDAR\r\nVERSION:2.0\r\n${text}\r\nEND:VCALENDAR`));
    parts = calendar
      .getAllSubcomponents()
      .flatMap((one) => (one.name === 'vevent' || one.name === 'vtodo' ? [partOf(one)] : []));
  } catch (error) {
    // What ical.js throws for what it can't read is of no kind of its own.
    return { problem: `It can’t be read: ${error instanceof Error ? error.message : String(error)}` };
  }
  const [first] = parts;
  if (!first) return { problem: 'It says nothing' };
  // The same said twice, as a calendar that was changed: the later counts.
  const mains = parts.filter(({ of }) => of === null);
  const main = mains.reduce<EntryPart | null>((best, one) => (best && best.sequence > one.sequence ? best : one), null);
  return { entry: { uid, main, changed: parts.filter(({ of }) => of !== null).slice(0, MOST_CHANGED) } };
}

function partOf(component: ICAL.Component): EntryPart {
  const said = (name: string, most: number) =>
    String(component.getFirstPropertyValue(name) ?? '')
      .replace(/\r\n?/g, '\n')
      .trim()
      .slice(0, most);
  const number = (name: string) => {
    const value = Number(component.getFirstPropertyValue(name));
    return Number.isInteger(value) && value > 0 ? value : 0;
  };
  const start = timeOf(component.getFirstProperty('dtstart'));
  const called = component.getFirstProperty('recurrence-id');
  const at = timeOf(called);
  const attendees = component.getAllProperties('attendee').slice(0, MOST_PEOPLE).map(personOf);
  const organizer = component.getFirstProperty('organizer');
  const isCut = String(component.getFirstPropertyValue('description') ?? '').length > LONGEST_TEXT;
  return {
    kind: component.name === 'vtodo' ? 'to-do' : 'event',
    summary: said('summary', 1000).replace(/\s+/g, ' ').slice(0, LONGEST_NAME),
    description: said('description', LONGEST_TEXT),
    location: said('location', LONGEST_SHORT).replace(/\s+/g, ' '),
    url: said('url', LONGEST_SHORT),
    categories: component
      .getAllProperties('categories')
      .flatMap((property) => property.getValues().map((value) => String(value).trim()))
      .filter(Boolean)
      .slice(0, 20),
    priority: Math.min(9, number('priority')),
    status: said('status', 40),
    isTransparent: /^transparent$/i.test(said('transp', 20)),
    sequence: number('sequence'),
    start,
    end: timeOf(component.getFirstProperty('dtend') ?? component.getFirstProperty('due')),
    minutes: minutesOf(component.getFirstPropertyValue('duration')),
    rules: component.getAllProperties('rrule').map((property) => String(property.getFirstValue())),
    added: component.getAllProperties('rdate').flatMap(timesOf).slice(0, MOST_DATES),
    takenOut: component.getAllProperties('exdate').flatMap(timesOf).slice(0, MOST_DATES),
    of: at && { at, isLaterToo: /^thisandfuture$/i.test(String(called?.getParameter('range') ?? '')) },
    alarms: component.getAllSubcomponents('valarm').flatMap(alarmOf),
    people: attendees.length > 0 || !organizer ? attendees : [personOf(organizer)],
    besides: [...new Set([...(isCut ? ['the end of its description'] : []), ...othersOf(component)])],
  };
}

const OTHER_WORDS: Readonly<Record<string, string>> = {
  attach: 'attached files',
  geo: 'its place on a map',
  image: 'a picture',
  color: 'a colour',
  conference: 'how to call in',
  contact: 'whom to ask',
  resources: 'what is needed for it',
  'related-to': 'what it hangs together with',
};

/** Properties that nothing here has a place for, in words. */
const othersOf = (component: ICAL.Component): string[] =>
  component.getAllProperties().flatMap((property) => {
    const { name } = property;
    if (name === 'x-left-out')
      return [OTHER_WORDS[String(property.getFirstValue()).toLowerCase()] ?? 'what is too long'];
    return READ.has(name) || name.startsWith('x-') || name === 'comment'
      ? []
      : [OTHER_WORDS[name] ?? name.replaceAll('-', ' ')];
  });

function timeOf(property: ICAL.Property | null): EntryTime | null {
  return property ? (timesOf(property)[0] ?? null) : null;
}

function timesOf(property: ICAL.Property): EntryTime[] {
  const tzid = property.getParameter('tzid');
  const zone = typeof tzid === 'string' && tzid !== '' ? tzid : null;
  return property.getValues().flatMap((value): EntryTime[] => {
    // A period begins with its start (section 3.3.9).
    const time = value instanceof ICAL.Period ? value.start : value;
    if (!(time instanceof ICAL.Time)) return [];
    const pad = (n: number, length = 2) => String(n).padStart(length, '0');
    const date = `${pad(time.year, 4)}-${pad(time.month)}-${pad(time.day)}`;
    if (time.isDate) return [{ date, time: null, zone: null }];
    const isUtc = time.zone === ICAL.Timezone.utcTimezone;
    return [{ date, time: `${pad(time.hour)}:${pad(time.minute)}`, zone: isUtc ? 'UTC' : zone }];
  });
}

function personOf(property: ICAL.Property): EntryPerson {
  const name = property.getParameter('cn');
  const address = String(property.getFirstValue() ?? '');
  const mail = /^mailto:/i.test(address) ? address.slice(7).trim().toLowerCase() : '';
  return {
    name: (typeof name === 'string' ? name : '')
      .replace(/^["']|["']$/g, '')
      .trim()
      .slice(0, 80),
    mail: mail.slice(0, 200),
  };
}

function alarmOf(alarm: ICAL.Component): EntryAlarm[] {
  const trigger = alarm.getFirstProperty('trigger');
  const value = trigger?.getFirstValue();
  if (value instanceof ICAL.Time) {
    const at = trigger && timeOf(trigger);
    return at ? [{ at }] : [];
  }
  const minutes = minutesOf(value);
  if (minutes === null) return [];
  return [{ minutes, of: /^end$/i.test(String(trigger?.getParameter('related') ?? '')) ? 'end' : 'start' }];
}

function minutesOf(value: unknown): number | null {
  return value instanceof ICAL.Duration ? Math.round(value.toSeconds() / 60) : null;
}

/**
 * The IANA zone that a TZID means: one by its name, within a longer name, by what programs on Windows call it (CLDR), or one
 * whose clocks stand like those that the file defines; null where none can be told.
 * @param definition its VTIMEZONE, where the file has one
 * @param own the zone of the workspace, which is taken where its clocks stand like those that are defined
 */
export function zoneOfTzid(tzid: string, definition: string | undefined, own: string): string | null {
  const plain = tzid.trim().replace(/^"|"$/g, '');
  if (/^(utc|gmt|etc\/utc|z)$/i.test(plain)) return 'UTC';
  const named = (text: string): string | null => {
    const pieces = text.split('/').filter(Boolean);
    for (let from = 0; from < pieces.length - 1; from++) {
      const name = pieces.slice(from).join('/');
      if (isZone(name)) return name;
    }
    return null;
  };
  const location = /^X-LIC-LOCATION[^:]*:(.*)$/im.exec(definition ?? '')?.[1]?.trim() ?? '';
  const found = named(plain) ?? named(location) ?? findIana(plain).find((zone) => isZone(zone));
  if (found) return found;
  return definition !== undefined && sameOffsets(definition, own) ? own : null;
}

/** Whether the clocks that a VTIMEZONE defines stand like those of a zone, in winter and in summer. */
function sameOffsets(definition: string, zone: string): boolean {
  const said = new Set(
    [...definition.matchAll(/^TZOFFSETTO[^:]*:([+-])(\d{2})(\d{2})/gim)].map(
      ([, sign, hours, minutes]) => (sign === '-' ? -1 : 1) * (Number(hours) * 60 + Number(minutes)),
    ),
  );
  const [from, to] = [Date.UTC(2024, 0, 1), Date.UTC(2026, 0, 1)];
  const own = new Set(zoneObservances(zone, from, to).map(({ after }) => Math.round(after / 60_000)));
  return said.size > 0 && said.size === own.size && [...said].every((minutes) => own.has(minutes));
}
