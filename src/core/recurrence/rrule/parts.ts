import type { CivilDay, Weekday } from '../../civil-date/civil-day.ts';
import { tryDayOfIso } from '../../civil-date/iso-date.ts';
import { MAX_COUNT } from '../rule.ts';

/** The parts of a RECUR value (RFC 5545, section 3.3.10) that matter to dates. Empty lists are parts that are not there. */
export interface RRuleParts {
  readonly freq: 'DAILY' | 'WEEKLY' | 'MONTHLY' | 'YEARLY';
  readonly interval: number;
  readonly count: number | null;
  readonly until: RRuleMoment | null;
  readonly byMonth: readonly number[];
  readonly byMonthDay: readonly number[];
  readonly byYearDay: readonly number[];
  readonly byWeekNo: readonly number[];
  readonly byDay: readonly { readonly nth: number | null; readonly weekday: Weekday }[];
  readonly bySetPos: readonly number[];
  readonly weekStart: Weekday;
}

/** A DATE or DATE-TIME value: its day, and its time where it has one (`Z` is UTC). */
export interface RRuleMoment {
  readonly day: CivilDay;
  readonly time: string | null;
  readonly isUtc: boolean;
}

export class RRuleError extends Error {
  override readonly name = 'RRuleError';
  constructor(
    message: string,
    /** Index of the first character at fault, in the text that was given. */
    readonly at: number,
  ) {
    super(message);
  }
}

const WEEKDAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'] as const;

/** "MO" … "SU" for 1 … 7 */
export function rruleWeekday(weekday: Weekday): string {
  return WEEKDAYS[weekday - 1] as string;
}

/**
 * Reads a RECUR value, `FREQ=MONTHLY;BYDAY=-1FR`.
 * @throws RRuleError for what RFC 5545 does not allow, and for rules finer than a day
 */
export function parseRRuleParts(text: string): RRuleParts {
  const found = new Map<string, Part>();
  let at = 0;
  for (const piece of text.split(';')) {
    if (piece.trim() !== '') {
      const [name = '', ...rest] = piece.split('=');
      const key = name.trim().toUpperCase();
      const part = { name: key, value: rest.join('=').trim().toUpperCase(), at };
      if (rest.length === 0) throw new RRuleError(`“${piece}” has no value: a part is written NAME=VALUE.`, at);
      if (found.has(key)) throw new RRuleError(`${key} stands there twice.`, at);
      found.set(key, part);
    }
    at += piece.length + 1;
  }
  const freq = frequency(found.get('FREQ'));
  refuseUnknown(found);
  const parts: RRuleParts = {
    freq,
    interval: whole(found.get('INTERVAL'), 1, 100_000) ?? 1,
    count: whole(found.get('COUNT'), 1, MAX_COUNT),
    until: found.has('UNTIL') ? moment(found.get('UNTIL') as Part) : null,
    byMonth: wholes(found.get('BYMONTH'), 12, false),
    byMonthDay: wholes(found.get('BYMONTHDAY'), 31, true),
    byYearDay: wholes(found.get('BYYEARDAY'), 366, true),
    byWeekNo: wholes(found.get('BYWEEKNO'), 53, true),
    byDay: weekdays(found.get('BYDAY')),
    bySetPos: wholes(found.get('BYSETPOS'), 366, true),
    weekStart: weekStart(found.get('WKST')),
  };
  refuseContradictions(parts, found);
  return parts;
}

interface Part {
  readonly name: string;
  readonly value: string;
  readonly at: number;
}

function frequency(part: Part | undefined): RRuleParts['freq'] {
  if (!part) throw new RRuleError('FREQ is missing: a rule says FREQ=DAILY, WEEKLY, MONTHLY or YEARLY.', 0);
  switch (part.value) {
    case 'DAILY':
    case 'WEEKLY':
    case 'MONTHLY':
    case 'YEARLY':
      return part.value;
    case 'HOURLY':
    case 'MINUTELY':
    case 'SECONDLY':
      throw new RRuleError(`FREQ=${part.value} is finer than a day: schedules here are made of days.`, part.at);
    default:
      throw new RRuleError(`FREQ=${part.value} is none of DAILY, WEEKLY, MONTHLY and YEARLY.`, part.at);
  }
}

const KNOWN = [
  'FREQ',
  'INTERVAL',
  'COUNT',
  'UNTIL',
  'BYMONTH',
  'BYMONTHDAY',
  'BYYEARDAY',
  'BYWEEKNO',
  'BYDAY',
  'BYSETPOS',
  'WKST',
];
const TIMES = ['BYHOUR', 'BYMINUTE', 'BYSECOND'];

function refuseUnknown(found: ReadonlyMap<string, Part>): void {
  for (const { name, value, at } of found.values()) {
    if (KNOWN.includes(name)) continue;
    if (!TIMES.includes(name)) throw new RRuleError(`${name} is not a part of a recurrence rule.`, at);
    // Several times a day are one date; but then a count or a position counts times, not dates.
    if (value.includes(',') && (found.has('COUNT') || found.has('BYSETPOS')))
      throw new RRuleError(`${name} gives several times a day, which COUNT and BYSETPOS would count one by one.`, at);
  }
}

function refuseContradictions(parts: RRuleParts, found: ReadonlyMap<string, Part>): void {
  const at = (name: string) => found.get(name)?.at ?? 0;
  if (parts.count !== null && parts.until !== null)
    throw new RRuleError('COUNT and UNTIL can’t both end a rule.', at('COUNT'));
  const ordinal = parts.byDay.some(({ nth }) => nth !== null);
  if (ordinal && (parts.freq === 'DAILY' || parts.freq === 'WEEKLY'))
    throw new RRuleError(`BYDAY with a number makes no sense with FREQ=${parts.freq}.`, at('BYDAY'));
  if (ordinal && parts.byWeekNo.length > 0)
    throw new RRuleError('BYDAY with a number makes no sense beside BYWEEKNO.', at('BYDAY'));
  if (parts.byMonthDay.length > 0 && parts.freq === 'WEEKLY')
    throw new RRuleError('BYMONTHDAY makes no sense with FREQ=WEEKLY.', at('BYMONTHDAY'));
  if (parts.byYearDay.length > 0 && parts.freq !== 'YEARLY')
    throw new RRuleError(`BYYEARDAY makes no sense with FREQ=${parts.freq}.`, at('BYYEARDAY'));
  if (parts.byWeekNo.length > 0 && parts.freq !== 'YEARLY')
    throw new RRuleError(`BYWEEKNO makes no sense with FREQ=${parts.freq}.`, at('BYWEEKNO'));
  if (parts.bySetPos.length > 0 && ![...found.keys()].some((name) => name.startsWith('BY') && name !== 'BYSETPOS'))
    throw new RRuleError('BYSETPOS needs another BY part to choose from.', at('BYSETPOS'));
}

function whole(part: Part | undefined, least: number, most: number): number | null {
  if (!part) return null;
  const number = /^\d+$/.test(part.value) ? Number(part.value) : Number.NaN;
  if (!(number >= least && number <= most))
    throw new RRuleError(`${part.name}=${part.value} should be a whole number from ${least} to ${most}.`, part.at);
  return number;
}

function wholes(part: Part | undefined, most: number, fromEnd: boolean): number[] {
  if (!part) return [];
  const numbers = part.value.split(',').map((text) => {
    const number = /^[+-]?\d+$/.test(text) ? Number(text) : Number.NaN;
    if (!(Math.abs(number) >= 1 && Math.abs(number) <= most) || (number < 0 && !fromEnd)) {
      const range = fromEnd ? `1 to ${most} or -1 to -${most}` : `1 to ${most}`;
      throw new RRuleError(`“${text}” in ${part.name} should be a whole number from ${range}.`, part.at);
    }
    return number;
  });
  return [...new Set(numbers)].sort((a, b) => a - b);
}

function weekdays(part: Part | undefined): RRuleParts['byDay'] {
  if (!part) return [];
  return part.value.split(',').map((text) => {
    const match = /^([+-]?\d{1,2})?(MO|TU|WE|TH|FR|SA|SU)$/.exec(text);
    const nth = match?.[1] === undefined ? null : Number(match[1]);
    if (!match || nth === 0 || (nth !== null && Math.abs(nth) > 53))
      throw new RRuleError(`“${text}” in BYDAY should be a weekday like FR, or 1FR, -1FR.`, part.at);
    return { nth, weekday: (WEEKDAYS.indexOf(match[2] as 'MO') + 1) as Weekday };
  });
}

function weekStart(part: Part | undefined): Weekday {
  if (!part) return 1;
  const index = WEEKDAYS.indexOf(part.value as 'MO');
  if (index === -1) throw new RRuleError(`WKST=${part.value} should be one of ${WEEKDAYS.join(', ')}.`, part.at);
  return (index + 1) as Weekday;
}

function moment(part: Part): RRuleMoment {
  const found = tryRRuleMoment(part.value);
  if (!found) throw new RRuleError(`${part.name}=${part.value} should be a date like 20271231.`, part.at);
  return found;
}

/** Reads a DATE (`20271231`) or DATE-TIME (`20271231T235959Z`) value, or an ISO date with or without a time; null where it is none. */
export function tryRRuleMoment(text: string): RRuleMoment | null {
  const match = /^(\d{4})-?(\d{2})-?(\d{2})(?:T(\d{2}):?(\d{2})(?::?(\d{2}))?(Z)?)?$/i.exec(text.trim());
  if (!match) return null;
  const day = tryDayOfIso(`${match[1]}-${match[2]}-${match[3]}`);
  if (day === null) return null;
  const time = match[4] === undefined ? null : `${match[4]}:${match[5]}:${match[6] ?? '00'}`;
  return { day, time, isUtc: match[7] !== undefined };
}
