import type { Weekday } from '../../civil-date/civil-day.ts';
import { type CivilDay, weekdayOf, yearMonthDay } from '../../civil-date/civil-day.ts';
import { civilTimeAt, utcInstant } from '../../civil-date/instant.ts';
import { dayOfIso, type IsoDate, isoOfDay } from '../../civil-date/iso-date.ts';
import { canonicalRecurrence } from '../canonical.ts';
import type { End, MonthPoint, Recurrence, Rule } from '../rule.ts';
import { parseRRuleParts, RRuleError, type RRuleMoment, type RRuleParts, tryRRuleMoment } from './parts.ts';

/**
 * Reads a recurrence from iCalendar (RFC 5545, sections 3.3.10 and 3.8.5): a bare `FREQ=…`, or lines of DTSTART, RRULE, RDATE
 * and EXDATE. Rules that ours can hold become ours; others are kept as they are and expanded as RRULE. Times of day are
 * dropped; a start that does not match its rule is not an occurrence.
 *
 * @param dtstart the start, `YYYY-MM-DD`, or with its time `YYYY-MM-DDTHH:MM`; what the text's own DTSTART says counts more
 * @throws RRuleError with the place for what the RFC does not allow, and for rules finer than a day
 */
export function parseRRule(text: string, dtstart: string): Recurrence {
  const lines = propertyLines(text);
  const first = lines.find(({ name }) => name === 'DTSTART');
  const start = startOf(first?.value ?? dtstart, first, first?.at ?? 0);
  const foreign = lines.filter(({ name }) => name === 'RRULE');
  const added = lines.filter(({ name }) => name === 'RDATE').flatMap(datesOf);
  const takenOut = lines.filter(({ name }) => name === 'EXDATE').flatMap(datesOf);
  if (foreign.length === 0 && added.length === 0) throw new RRuleError('There is no RRULE and no RDATE to read.', 0);

  // An end of ours is the end of all rules together, so it takes over only the end of a rule that is alone.
  const isAlone = foreign.length === 1 && added.length === 0;
  const read = foreign.map(({ value, at }) => inPlace(at, () => readRule(value, start, isAlone)));
  return canonicalRecurrence({
    start: isoOfDay(start.day),
    rules: [
      ...read.flatMap(({ rules }) => rules),
      ...(added.length > 0 ? [{ kind: 'dates' as const, dates: added }] : []),
    ],
    end: read[0]?.end ?? { kind: 'never' },
    dayOff: 'none',
    except: takenOut,
  });
}

interface Start extends RRuleMoment {
  readonly zone: string | null;
}

interface PropertyLine {
  readonly name: string;
  readonly parameters: ReadonlyMap<string, string>;
  readonly value: string;
  /** Index of the value in the text. */
  readonly at: number;
}

const PROPERTIES = ['DTSTART', 'DTEND', 'DURATION', 'RRULE', 'RDATE', 'EXDATE', 'COMMENT'];

/** Content lines, unfolded (RFC 5545, section 3.1); a text without a property's name is the value of an RRULE. */
function propertyLines(text: string): PropertyLine[] {
  // Folding is undone with as many blanks, so that places stay places.
  const unfolded = text.replace(/\r?\n[ \t]/g, (fold) => '\u0000'.repeat(fold.length));
  const lines: PropertyLine[] = [];
  let at = 0;
  for (const line of unfolded.split('\n')) {
    const plain = line.replaceAll('\u0000', '').trim();
    if (plain !== '') lines.push(propertyLine(plain, at + line.search(/\S/)));
    at += line.length + 1;
  }
  return lines;
}

function propertyLine(line: string, at: number): PropertyLine {
  if (/^FREQ\s*=/i.test(line)) return { name: 'RRULE', parameters: new Map(), value: line, at };
  const match = /^([A-Za-z-]+)((?:;[^:;=]+=(?:"[^"]*"|[^:;]*))*):(.*)$/.exec(line);
  const name = match?.[1]?.toUpperCase() ?? '';
  if (!match || !PROPERTIES.includes(name))
    throw new RRuleError(
      `“${line.slice(0, 30)}” is not a rule: it should begin with FREQ=, RRULE:, DTSTART, RDATE or EXDATE.`,
      at,
    );
  const parameters = new Map(
    (match[2] ?? '')
      .split(';')
      .filter((part) => part !== '')
      .map((part) => part.split('=') as [string, string])
      .map(([key, value]) => [key.toUpperCase(), value.replace(/^"|"$/g, '')]),
  );
  const value = match[3] ?? '';
  return { name, parameters, value, at: at + line.length - value.length };
}

/** Runs something on the value that stands at a place, so that a fault in it is told by its place in the whole text. */
function inPlace<T>(at: number, work: () => T): T {
  try {
    return work();
  } catch (error) {
    throw error instanceof RRuleError ? new RRuleError(error.message, at + error.at) : error;
  }
}

function startOf(text: string, line: PropertyLine | undefined, at: number): Start {
  const moment = tryRRuleMoment(text);
  if (!moment) throw new RRuleError(`“${text.slice(0, 30)}” is not a date to start from: write it YYYY-MM-DD.`, at);
  return { ...moment, zone: line?.parameters.get('TZID') ?? null };
}

function datesOf({ value, at, name }: PropertyLine): IsoDate[] {
  return value.split(',').map((text) => {
    // A period (section 3.3.9) begins with its start.
    const moment = tryRRuleMoment(text.split('/')[0] ?? '');
    if (!moment) throw new RRuleError(`“${text.slice(0, 30)}” in ${name} is not a date.`, at);
    return isoOfDay(moment.day);
  });
}

/** One RRULE as rules of ours with their end, or kept as it is with its own. */
function readRule(text: string, start: Start, isAlone: boolean): { rules: Rule[]; end: End } {
  const parts = withLastDay(parseRRuleParts(text), start);
  const rule = ourRule(parts, start.day);
  const end = endOf(parts);
  if (rule && (end.kind === 'never' || isAlone)) return { rules: [rule], end };
  return { rules: [{ kind: 'rrule', text: withUntil(text, parts) }], end: { kind: 'never' } };
}

/** UNTIL as the last civil day: an occurrence counts when its time is not after it (section 3.3.10). */
function withLastDay(parts: RRuleParts, start: Start): RRuleParts {
  const { until } = parts;
  if (until?.time == null) return parts;
  let { day, time } = { day: until.day, time: until.time };
  if (until.isUtc && start.zone !== null && start.time !== null) {
    const [hours = 0, minutes = 0, seconds = 0] = time.split(':').map(Number);
    const civil = civilTimeAt(utcInstant(day, hours, minutes, seconds), start.zone);
    [day, time] = [dayOfIso(civil.date), `${civil.time}:00`];
  }
  const isBefore = start.time !== null && time < start.time;
  return { ...parts, until: { day: isBefore ? day - 1 : day, time: null, isUtc: false } };
}

/** A kept rule has its end as a date, so that it needs no time of day to be read again. */
function withUntil(text: string, { until }: RRuleParts): string {
  if (until === null) return text;
  return text.replace(/UNTIL=[^;]*/i, `UNTIL=${isoOfDay(until.day).replaceAll('-', '')}`);
}

function endOf({ count, until }: RRuleParts): End {
  if (count !== null) return { kind: 'after', count };
  return until === null ? { kind: 'never' } : { kind: 'on', date: isoOfDay(until.day) };
}

/** The rule of ours that gives exactly the same dates, or null where there is none. */
function ourRule(parts: RRuleParts, start: CivilDay): Rule | null {
  const { freq, interval: every, byYearDay, byWeekNo } = parts;
  if (byYearDay.length > 0 || byWeekNo.length > 0 || every > 999) return null;
  switch (freq) {
    case 'DAILY':
      return ourDays(parts);
    case 'WEEKLY':
      return ourWeeks(parts, start);
    case 'MONTHLY': {
      const on = pointsOf(parts, start);
      return on && { kind: 'months', every, months: parts.byMonth, on, missing: 'omit' };
    }
    case 'YEARLY':
      return ourYears(parts, start);
  }
}

function ourDays({ interval, byMonth, byMonthDay, byDay, bySetPos }: RRuleParts): Rule | null {
  if (byMonth.length > 0 || byMonthDay.length > 0 || bySetPos.length > 0) return null;
  const on = byDay.map(({ weekday }) => weekday);
  const except = on.length === 0 ? [] : ALL_WEEKDAYS.filter((weekday) => !on.includes(weekday));
  return { kind: 'days', every: interval, except };
}

const ALL_WEEKDAYS: readonly Weekday[] = [1, 2, 3, 4, 5, 6, 7];

function ourWeeks({ interval, byMonth, byDay, bySetPos, weekStart }: RRuleParts, start: CivilDay): Rule | null {
  // Weeks that begin on another day only matter where some are left out.
  if (byMonth.length > 0 || bySetPos.length > 0 || (interval > 1 && weekStart !== 1)) return null;
  const on = byDay.length > 0 ? byDay.map(({ weekday }) => weekday) : [weekdayOf(start)];
  return { kind: 'weeks', every: interval, on };
}

function ourYears(parts: RRuleParts, start: CivilDay): Rule | null {
  const { byMonth, byMonthDay, byDay, interval: every, bySetPos } = parts;
  const { month } = yearMonthDay(start);
  // Without months a weekday is counted in the year, a date in every month, and a position in all of them together.
  if (byMonth.length === 0 && (byDay.length > 0 || byMonthDay.length > 0)) return null;
  if (bySetPos.length > 0 && byMonth.length !== 1) return null;
  const on = pointsOf(parts, start);
  return on && { kind: 'years', every, months: byMonth.length > 0 ? byMonth : [month], on, missing: 'omit' };
}

/** The places in a month that BYMONTHDAY, BYDAY and BYSETPOS name, or null where they name others than ours. */
function pointsOf({ byMonthDay, byDay, bySetPos }: RRuleParts, start: CivilDay): MonthPoint[] | null {
  if (byMonthDay.length > 0) {
    if (byDay.length > 0 || bySetPos.length > 0) return null;
    return byMonthDay.map((day) => ({ kind: 'date', day }));
  }
  if (byDay.length === 0) return bySetPos.length > 0 ? null : [{ kind: 'date', day: yearMonthDay(start).day }];
  const isPlain = byDay.every(({ nth }) => nth === null);
  if (isPlain && bySetPos.length > 0 && bySetPos.every((nth) => Math.abs(nth) <= 31)) {
    const weekdays = [...new Set(byDay.map(({ weekday }) => weekday))].sort((a, b) => a - b);
    return bySetPos.map((nth) => ({ kind: 'anyWeekday', nth, weekdays }));
  }
  if (bySetPos.length > 0) return null;
  const points = byDay.map(({ nth, weekday }) => ({ kind: 'weekday' as const, nth: nth ?? 0, weekday }));
  return points.every(({ nth }) => nth !== 0 && Math.abs(nth) <= 5) ? points : null;
}
