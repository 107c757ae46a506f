import type { CivilDay } from '../civil-date/civil-day.ts';
import { dayOfIso, type IsoDate, isoOfDay, tryDayOfIso } from '../civil-date/iso-date.ts';
import { occurrencesBetween } from '../recurrence/occurrences.ts';
import { RRuleError } from '../recurrence/rrule/parts.ts';
import { parseRRule } from '../recurrence/rrule/reader.ts';

export interface DaysOffRead {
  /** In their order, each day once. */
  readonly days: readonly { readonly date: IsoDate; readonly name: string }[];
  /** Events that are no days off, or can't be read, and why. */
  readonly left: readonly { readonly name: string; readonly why: string }[];
  /** Days before or after those that were asked for. */
  readonly outside: number;
}

/** The longest event that is taken for days off. */
const LONGEST_DAYS = 92;
/** The most events of a file. */
const MOST_EVENTS = 20_000;
const LONGEST_NAME = 80;

interface Property {
  readonly name: string;
  readonly params: string;
  readonly value: string;
}

/**
 * Whole-day events of an iCalendar file (RFC 5545) as days off: VEVENTs whose DTSTART is a DATE, to the day before their DTEND
 * (section 3.6.1), with RRULE, RDATE and EXDATE followed. What has a time of day is no day off, and what is cancelled is none.
 * @param from the first and
 * @param to the last day that is asked for
 * @throws Error in words for what is no iCalendar file
 */
export function readDaysOff(text: string, from: CivilDay, to: CivilDay): DaysOffRead {
  if (!/^\uFEFF?\s*BEGIN:VCALENDAR/i.test(text))
    throw new Error('That is no calendar file: it begins with BEGIN:VCALENDAR, and is saved as .ics.');
  const events = eventsOf(text);
  if (events.length > MOST_EVENTS)
    throw new Error(
      `It has ${events.length.toLocaleString('en-GB')} events, ${MOST_EVENTS.toLocaleString('en-GB')} at most.`,
    );
  const days = new Map<CivilDay, string>();
  const left: { name: string; why: string }[] = [];
  let outside = 0;
  for (const event of events) {
    const name = nameOf(event);
    const read = daysOfEvent(event, from, to);
    if ('why' in read) {
      left.push({ name, why: read.why });
      continue;
    }
    outside += read.outside;
    for (const day of read.days) if (!days.has(day)) days.set(day, name);
  }
  return {
    days: [...days].sort(([a], [b]) => a - b).map(([day, name]) => ({ date: isoOfDay(day), name })),
    left,
    outside,
  };
}

/** The properties of each VEVENT, long lines put together again (section 3.1). Those within an alarm of it are left out. */
function eventsOf(text: string): Property[][] {
  const events: Property[][] = [];
  let event: Property[] | null = null;
  let within = 0;
  for (const line of text.replace(/\r?\n[ \t]/g, '').split(/\r?\n/)) {
    const property = propertyOf(line);
    if (!property) continue;
    const { name, value } = property;
    if (name === 'BEGIN' && value.toUpperCase() === 'VEVENT') event = [];
    else if (name === 'END' && value.toUpperCase() === 'VEVENT') {
      if (event) events.push(event);
      event = null;
    } else if (event && name === 'BEGIN') within++;
    else if (event && name === 'END') within--;
    else if (event && within === 0) event.push(property);
  }
  return events;
}

/** `NAME;PARAM=value;PARAM="with: colon":value` */
function propertyOf(line: string): Property | null {
  let isQuoted = false;
  for (let i = 0; i < line.length; i++) {
    const sign = line[i];
    if (sign === '"') isQuoted = !isQuoted;
    if (sign !== ':' || isQuoted) continue;
    const before = line.slice(0, i);
    const at = before.indexOf(';');
    return {
      name: (at === -1 ? before : before.slice(0, at)).trim().toUpperCase(),
      params: at === -1 ? '' : before.slice(at).toUpperCase(),
      value: line.slice(i + 1),
    };
  }
  return null;
}

function nameOf(event: readonly Property[]): string {
  const said = event.find(({ name }) => name === 'SUMMARY')?.value ?? '';
  const plain = said
    .replace(/\\[nN]/g, ' ')
    .replace(/\\([\\;,])/g, '$1')
    .replace(/\s+/g, ' ')
    .trim();
  return plain.slice(0, LONGEST_NAME) || 'day off';
}

function daysOfEvent(
  event: readonly Property[],
  from: CivilDay,
  to: CivilDay,
): { readonly days: readonly CivilDay[]; readonly outside: number } | { readonly why: string } {
  const of = (wanted: string) => event.find(({ name }) => name === wanted);
  const begins = of('DTSTART');
  if (of('STATUS')?.value.toUpperCase() === 'CANCELLED') return { why: 'it is cancelled' };
  if (!begins) return { why: 'it has no day' };
  const start = dateOf(begins.value);
  if (start === null)
    return { why: /^\d{8}T/.test(begins.value.trim()) ? 'it has a time of day' : `“${begins.value}” is no date` };
  const ends = of('DTEND');
  const end = ends ? dateOf(ends.value) : start + lengthOf(of('DURATION')?.value);
  // Of an end that is the start itself (which RFC 5545 does not allow) the day is meant all the same.
  const length = end === null ? 1 : Math.max(1, end - start);
  if (length > LONGEST_DAYS) return { why: `it is ${length} days long, ${LONGEST_DAYS} at most` };
  const repeats = event.filter(({ name }) => name === 'RRULE' || name === 'RDATE' || name === 'EXDATE');
  try {
    const firsts = repeats.length === 0 ? [start] : repeated(start, repeats, from - length, to);
    const days = firsts.flatMap((first) => Array.from({ length }, (_, i) => first + i));
    const wanted = days.filter((day) => day >= from && day <= to);
    return { days: wanted, outside: days.length - wanted.length };
  } catch (error) {
    if (error instanceof RRuleError) return { why: error.message };
    throw error;
  }
}

/** Days on which it begins: its own, where that is not taken out, and those on which it comes again. */
function repeated(start: CivilDay, lines: readonly Property[], from: CivilDay, to: CivilDay): CivilDay[] {
  const text = lines.map(({ name, params, value }) => `${name}${params}:${value}`).join('\n');
  const hasRule = lines.some(({ name }) => name !== 'EXDATE');
  const taken = new Set(
    lines
      .filter(({ name }) => name === 'EXDATE')
      .flatMap(({ value }) => value.split(',').flatMap((one) => dateOf(one) ?? [])),
  );
  const again = hasRule
    ? occurrencesBetween(parseRRule(text, isoOfDay(start)), isoOfDay(Math.max(from, start)), isoOfDay(to)).map(dayOfIso)
    : [];
  return [...new Set([start, ...again])].filter((day) => !taken.has(day));
}

function dateOf(value: string): CivilDay | null {
  const [, year, month, day] = /^(\d{4})(\d{2})(\d{2})$/.exec(value.trim()) ?? [];
  return year === undefined ? null : tryDayOfIso(`${year}-${month}-${day}`);
}

/** Of a DURATION in weeks or days (section 3.3.6); one day where there is none. */
function lengthOf(duration: string | undefined): number {
  const [, count, unit] = /^\+?P(\d{1,4})([WD])$/i.exec(duration?.trim() ?? '') ?? [];
  return count === undefined ? 1 : Number(count) * (unit?.toUpperCase() === 'W' ? 7 : 1);
}
