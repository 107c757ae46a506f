import type { WorkingCalendar } from '../calendar/working-calendar.ts';
import type { CivilDay } from '../civil-date/civil-day.ts';
import { dayOfIso, type IsoDate, type IsoTime } from '../civil-date/iso-date.ts';
import { addDate, changeDate, moveDate, skipDate } from '../planning/by-hand.ts';
import type { Exception, Revision } from '../planning/schedule-plan.ts';
import { FRESH_TIMING, type Reminder, type Timing } from '../planning/timing.ts';
import { TooMuchReckoningError } from '../reckoning.ts';
import { occurrenceSeries } from '../recurrence/occurrences.ts';
import { RRuleError } from '../recurrence/rrule/parts.ts';
import { parseRRule } from '../recurrence/rrule/reader.ts';
import type { Recurrence } from '../recurrence/rule.ts';
import { sayDate } from '../wording/date-words.ts';
import { sayDuration } from '../wording/duration.ts';
import type { Entry, EntryPart, EntryPerson, EntryTime } from './entry.ts';
import { laterBy, MINUTES_A_DAY, minutesBetween, momentIn, type ZoneOf } from './times.ts';

/** What can become of an entry. */
export const ENTRY_FATES = ['schedule', 'task', 'template', 'days off', 'left out'] as const;
export type EntryFate = (typeof ENTRY_FATES)[number];

/** What is said for all entries of a calendar; each may be said otherwise. */
export interface CalendarChoices {
  readonly repeating: 'schedule' | 'left out';
  readonly single: 'task' | 'left out';
  /** Whole days of nobody's. */
  readonly wholeDays: 'days off' | 'as work' | 'left out';
  /** To-dos that don't repeat. */
  readonly toDos: 'template' | 'task' | 'left out';
}

/** All that is said of a calendar as a whole, and what is known of it. */
export interface CalendarAsked {
  readonly choices: CalendarChoices;
  /** What several people who are asked to come have: one each, or one that any of them takes. */
  readonly several: 'each of' | 'any of';
  /** Who has what names nobody; null for nobody yet. */
  readonly ownerId: string | null;
  /** Lines that were broken wrongly, and entries that are no work. */
  readonly mended: number;
  readonly others: number;
  readonly people: readonly (EntryPerson & { readonly key: string; readonly count: number })[];
  /** TZIDs, and the IANA zone of each, where it can be told. */
  readonly zones: readonly { readonly tzid: string; readonly count: number; readonly zone: string | null }[];
}

export interface EntryContext {
  readonly today: CivilDay;
  /** Of the workspace. */
  readonly zone: string;
  readonly zoneOf: ZoneOf;
  readonly calendar: WorkingCalendar;
  readonly choices: CalendarChoices;
}

/** What work of an entry is about, however it becomes one. */
export interface EntryWork {
  readonly name: string;
  /** All that it says, with what nothing else has a place for. */
  readonly text: string;
  readonly url: string;
  readonly categories: readonly string[];
  readonly priority: 'low' | 'normal' | 'high';
  /** Null where it does not say how long it takes. */
  readonly minutes: number | null;
  readonly people: readonly EntryPerson[];
}

export type EntryMeaning =
  | {
      readonly becomes: 'schedule';
      readonly work: EntryWork;
      readonly recurrence: Recurrence;
      readonly timing: Timing;
      readonly exceptions: readonly Exception[];
      readonly revisions: readonly Revision[];
      /** What it says that a schedule can't, in words; it stands in the text too. */
      readonly unsaid: readonly string[];
    }
  | {
      readonly becomes: 'task';
      readonly work: EntryWork;
      readonly on: IsoDate;
      readonly dueOn: IsoDate;
      readonly startTime: IsoTime | null;
      readonly dueTime: IsoTime | null;
      readonly unsaid: readonly string[];
    }
  | { readonly becomes: 'template'; readonly work: EntryWork; readonly unsaid: readonly string[] }
  | { readonly becomes: 'days off'; readonly name: string }
  | { readonly becomes: 'left out'; readonly why: string };

const leftOut = (why: string): EntryMeaning => ({ becomes: 'left out', why });

const MOST_REMINDERS = 8;
const LONGEST_AWAY = 366;
const MOST_MINUTES = 6000;

/**
 * What an entry of a calendar would become here: what repeats a schedule, with its exceptions; what stands on one day a task; a
 * to-do without a day a template; whole days days off. What can't be said is told, and kept as text.
 * @param said what somebody has chosen for this entry; null as it is for all
 */
export function meaningOf(entry: Entry, said: EntryFate | null, context: EntryContext): EntryMeaning {
  const { main, changed } = entry;
  // Of a series that is not in the file each occurrence is one by itself; several of them are told as the first.
  const part = main ?? changed[0];
  if (!part) return leftOut('it says nothing');
  if (said === 'left out') return leftOut('as chosen');
  if (/^CANCELLED$/i.test(part.status)) return leftOut('it is cancelled');
  if (part.summary === '') return leftOut('it has no name');
  if (/^COMPLETED$/i.test(part.status)) return leftOut('it is done already');
  const isRepeating = part.rules.length > 0 || part.added.length > 0;
  const fate = said ?? usualOf(part, isRepeating, context.choices);
  if (fate === 'left out') return leftOut(isRepeating ? 'what repeats is left out' : 'such entries are left out');
  if (fate === 'days off') {
    return part.start === null || part.start.time !== null
      ? leftOut('it has a time of day, and days off have none')
      : { becomes: 'days off', name: part.summary.slice(0, LONGEST_DAY_OFF) };
  }
  if (fate === 'template') {
    const { text, unsaid } = told(part, [], entry);
    return { becomes: 'template', work: workOf(part, text, lengthOf(part, context)), unsaid };
  }
  if (part.start === null && part.end === null) return leftOut('it has no day: make a template of it');
  if (fate === 'schedule') {
    if (!isRepeating) return leftOut('it does not repeat');
    return scheduleOf(entry, part, context);
  }
  return isRepeating ? leftOut('it repeats: make a schedule of it') : taskOf(entry, part, context);
}

const LONGEST_DAY_OFF = 80;

/** Whether an entry is whole days that nobody is asked for. */
export const isWholeDays = ({ kind, start, people }: EntryPart): boolean =>
  kind === 'event' && start !== null && start.time === null && people.length === 0;

function usualOf(
  part: EntryPart,
  isRepeating: boolean,
  { repeating, single, wholeDays, toDos }: CalendarChoices,
): EntryFate {
  if (isWholeDays(part) && wholeDays !== 'as work') return wholeDays;
  if (isRepeating) return repeating;
  if (part.kind === 'event') return single;
  // A to-do with a day is work on that day, whatever is made of those without.
  return toDos === 'template' && (part.start !== null || part.end !== null) ? 'task' : toDos;
}

/** Every TZID that times of an entry are in, its alarms and the occurrences that differ included. */
export function zonesOf({ main, changed }: Entry): string[] {
  const times = [main, ...changed].flatMap((part) =>
    part === null
      ? []
      : [
          ...[part.start, part.end, part.of?.at, ...part.added, ...part.takenOut],
          ...part.alarms.map((alarm) => ('at' in alarm ? alarm.at : null)),
        ],
  );
  return [...new Set(times.flatMap((time) => (time?.zone && time.zone !== 'UTC' ? [time.zone] : [])))];
}

/** The zone in which an entry that repeats is meant: its own, else that of the workspace. */
function zoneMeant({ start, end }: EntryPart, { zone, zoneOf }: EntryContext): string {
  const tzid = (start ?? end)?.zone ?? null;
  if (tzid === null) return zone;
  return tzid === 'UTC' ? 'UTC' : (zoneOf(tzid) ?? zone);
}

interface Span {
  readonly start: { readonly date: IsoDate; readonly time: IsoTime | null };
  readonly end: { readonly date: IsoDate; readonly time: IsoTime | null };
  /** Null where it is of whole days, or does not say. */
  readonly minutes: number | null;
}

/** From when to when, by the clocks of a zone: of whole days the end is the last of them, of no end the start. */
function spanOf(part: EntryPart, zone: string, zoneOf: ZoneOf): Span | null {
  const first = part.start ?? part.end;
  if (first === null) return null;
  const start = momentIn(first, zone, zoneOf);
  // A to-do without a start is worked on the day on which it is due.
  if (part.start === null) return { start: { ...start, time: null }, end: start, minutes: part.minutes };
  if (start.time === null) {
    const days = part.end
      ? dayOfIso(momentIn(part.end, zone, zoneOf).date) - dayOfIso(start.date)
      : Math.round((part.minutes ?? MINUTES_A_DAY) / MINUTES_A_DAY);
    // DTEND is the day after the last (section 3.6.1), DUE is a day itself.
    const last = Math.max(0, part.kind === 'event' || !part.end ? days - 1 : days);
    return { start, end: { date: laterBy(start, last * MINUTES_A_DAY).date, time: null }, minutes: null };
  }
  const end = part.end ? momentIn(part.end, zone, zoneOf) : part.minutes === null ? null : laterBy(start, part.minutes);
  const minutes = end === null || end.time === null ? null : minutesBetween(start, end);
  if (end === null || (minutes !== null && minutes <= 0))
    return { start, end: { date: start.date, time: null }, minutes: null };
  // What ends at midnight ends with the day before.
  if (end.time === '00:00') return { start, end: { date: laterBy(end, -1).date, time: null }, minutes };
  return { start, end, minutes };
}

const lengthOf = (part: EntryPart, { zone, zoneOf }: EntryContext): number | null =>
  spanOf(part, zone, zoneOf)?.minutes ?? part.minutes;

function workOf(part: EntryPart, text: string, minutes: number | null): EntryWork {
  const { summary, url, categories, priority, people } = part;
  return {
    name: summary,
    ...{ text, url, categories, people },
    priority: priority === 0 || priority === 5 ? 'normal' : priority < 5 ? 'high' : 'low',
    minutes: minutes === null || minutes < 1 ? null : Math.min(minutes, MOST_MINUTES),
  };
}

/** What an entry says, with what nothing else has a place for. */
function told(part: EntryPart, more: readonly string[], { changed }: Pick<Entry, 'changed'>) {
  const unsaid = [
    ...more,
    ...(part.besides.length > 0 ? [`Not taken over: ${part.besides.join(', ')}`] : []),
    ...(part.start === null && part.alarms.length > 0 && changed.length === 0
      ? ['Its alarms: there is no day to tell them from']
      : []),
  ];
  const text = [part.description, part.location === '' ? '' : `Place: ${part.location}`, ...unsaid]
    .filter(Boolean)
    .join('\n\n');
  return { text, unsaid };
}

function taskOf(entry: Entry, part: EntryPart, context: EntryContext): EntryMeaning {
  const span = spanOf(part, context.zone, context.zoneOf);
  if (span === null) return leftOut('it has no day: make a template of it');
  if (dayOfIso(span.end.date) < context.today) return leftOut('it is over');
  const alarms = part.alarms.length > 0 ? ['Its alarms: a task of no schedule has no reminders'] : [];
  const others =
    entry.main === null && entry.changed.length > 1 ? ['Other dates of the same series stand in the file too'] : [];
  const { text, unsaid } = told(part, [...alarms, ...others], entry);
  return {
    ...{ becomes: 'task', work: workOf(part, text, span.minutes), unsaid },
    ...{ on: span.start.date, dueOn: span.end.date, startTime: span.start.time, dueTime: span.end.time },
  };
}

/** What takes too long to reckon is told as that. */
function scheduleOf(entry: Entry, part: EntryPart, context: EntryContext): EntryMeaning {
  try {
    return readSchedule(entry, part, context);
  } catch (error) {
    if (error instanceof RRuleError || error instanceof TooMuchReckoningError) return leftOut(error.message);
    throw error;
  }
}

/** @throws RRuleError, TooMuchReckoningError */
function readSchedule(entry: Entry, part: EntryPart, context: EntryContext): EntryMeaning {
  const zone = zoneMeant(part, context);
  const span = spanOf(part, zone, context.zoneOf);
  if (span === null) return leftOut('it has no day to begin on');
  const { start } = span;
  const unsaid: string[] = [];
  const recurrence = parseRRule(linesOf(part, zone, context.zoneOf), start.date);
  const timing = timingOf(part, span, zone, context, unsaid);
  let state: Pick<Extract<EntryMeaning, { becomes: 'schedule' }>, 'exceptions' | 'revisions'> = {
    exceptions: [],
    revisions: [],
  };
  const series = occurrenceSeries({ ...recurrence, except: [] }, context.calendar);
  const first = dayOfIso(start.date);
  const isOut = (recurrence.except ?? []).includes(start.date);
  // Other programs show the start as a date of the series, also where its rule does not give it.
  if (!isOut && series.next(first - 1) !== first) state = { ...state, ...addDate(state, first) };
  for (const added of part.added) {
    const at = momentIn(added, zone, context.zoneOf);
    if (at.time !== null && start.time !== null && at.time !== start.time)
      state = { ...state, ...changeDate(state, dayOfIso(at.date), timesFrom(at.time, span)) };
  }
  for (const other of entry.changed)
    state = changedBy(other, { main: part, state, recurrence, timing, span, zone, context, unsaid });
  if (isOver(recurrence, state.exceptions, context)) return leftOut('it is over');
  const { text, unsaid: all } = told(part, unsaid, entry);
  return {
    ...{ becomes: 'schedule', work: workOf(part, text, span.minutes), recurrence, timing, ...state },
    unsaid: all,
  };
}

/** Whether no date of it is still to come: neither of the rule nor one that was added or moved. */
function isOver(recurrence: Recurrence, exceptions: readonly Exception[], { calendar, today }: EntryContext): boolean {
  const isToCome = (date: IsoDate) => dayOfIso(date) >= today;
  const byHand = exceptions.some(
    (one) => (one.kind === 'add' && isToCome(one.date)) || (one.kind === 'move' && isToCome(one.to)),
  );
  return !byHand && occurrenceSeries(recurrence, calendar).next(today - 1) === null;
}

/** Its rule as lines in its own zone, so that days are told by one clock. */
function linesOf(part: EntryPart, zone: string, zoneOf: ZoneOf): string {
  const compact = (time: EntryTime): string => {
    const { date, time: at } = momentIn(time, zone, zoneOf);
    return at === null ? date.replaceAll('-', '') : `${date.replaceAll('-', '')}T${at.replace(':', '')}00`;
  };
  const first = part.start ?? part.end;
  return [
    ...(first === null ? [] : [`DTSTART${first.time === null ? '' : `;TZID=${zone}`}:${compact(first)}`]),
    ...part.rules.map((rule) => `RRULE:${rule}`),
    ...(part.added.length > 0 ? [`RDATE:${part.added.map(compact).join(',')}`] : []),
    ...(part.takenOut.length > 0 ? [`EXDATE:${part.takenOut.map(compact).join(',')}`] : []),
  ].join('\n');
}

function timingOf(part: EntryPart, span: Span, zone: string, context: EntryContext, unsaid: string[]): Timing {
  const days = dayOfIso(span.end.date) - dayOfIso(span.start.date);
  const reminders: Reminder[] = [];
  for (const alarm of part.alarms) {
    if ('at' in alarm) {
      unsaid.push('An alarm at one fixed time, which does not repeat');
      continue;
    }
    const from = alarm.of === 'start' ? span.start : span.end;
    const at = laterBy(from, alarm.minutes);
    const amount = dayOfIso(at.date) - dayOfIso(span.start.date);
    if (Math.abs(amount) > LONGEST_AWAY) unsaid.push(`An alarm ${sayDuration(Math.abs(alarm.minutes))} away`);
    else if (!reminders.some((one) => one.offset.amount === amount && one.time === at.time))
      reminders.push({ offset: { amount, unit: 'day' }, time: at.time });
  }
  if (reminders.length > MOST_REMINDERS)
    unsaid.push(`${reminders.length - MOST_REMINDERS} alarms more than ${MOST_REMINDERS}`);
  if (days > LONGEST_AWAY) unsaid.push(`It lasts ${days} days`);
  return {
    ...FRESH_TIMING,
    due: { amount: Math.min(days, LONGEST_AWAY), unit: 'day' },
    ...{ startTime: span.start.time, dueTime: span.end.time },
    reminders: reminders.slice(0, MOST_REMINDERS),
    zone: zone === context.zone || span.start.time === null ? null : zone,
  };
}

/** Times of day of an occurrence that begins at another one, and takes as long. */
function timesFrom(time: IsoTime, { start, end, minutes }: Span) {
  if (minutes === null || end.time === null) return { startTime: time };
  const due = laterBy({ date: start.date, time }, minutes);
  return { startTime: time, dueTime: due.date === end.date && due.time !== '00:00' ? due.time : null };
}

const saysOtherwise = (one: EntryPart, main: EntryPart): boolean =>
  one.summary !== main.summary ||
  one.location !== main.location ||
  one.description !== main.description ||
  JSON.stringify(one.people) !== JSON.stringify(main.people);

interface Changing {
  readonly main: EntryPart;
  readonly state: { readonly exceptions: readonly Exception[]; readonly revisions: readonly Revision[] };
  readonly recurrence: Recurrence;
  readonly timing: Timing;
  readonly span: Span;
  readonly zone: string;
  readonly context: EntryContext;
  readonly unsaid: string[];
}

/** One occurrence that differs: taken out, moved, at another time; what else is other about it is told. */
function changedBy(
  part: EntryPart,
  { main, state, recurrence, timing, span, zone, context, unsaid }: Changing,
): Changing['state'] {
  if (part.of === null) return state;
  const nominal = momentIn(part.of.at, zone, context.zoneOf);
  const day = dayOfIso(nominal.date);
  const isFor = part.of.isLaterToo ? `From ${sayDate(day)} on` : `On ${sayDate(day)}`;
  if (/^CANCELLED$/i.test(part.status)) {
    if (!part.of.isLaterToo) return { ...state, ...skipDate(state, day) };
    unsaid.push(`${isFor} it is cancelled: end the schedule then`);
    return state;
  }
  const own = spanOf(part, zone, context.zoneOf) ?? span;
  if (saysOtherwise(part, main))
    unsaid.push([`${isFor} it is “${part.summary}”`, part.location, part.description].filter(Boolean).join(', '));
  const isMoved = own.start.date !== nominal.date;
  const times = {
    ...(own.start.time === timing.startTime ? {} : { startTime: own.start.time }),
    ...(own.end.time === timing.dueTime ? {} : { dueTime: own.end.time }),
  };
  if (part.of.isLaterToo) {
    if (isMoved) unsaid.push(`${isFor} it is on other days, first on ${sayDate(dayOfIso(own.start.date))}`);
    const revision = { from: nominal.date, recurrence, timing: { ...timing, ...times } };
    return Object.keys(times).length === 0 ? state : { ...state, revisions: [...state.revisions, revision] };
  }
  let next = state;
  if (isMoved) next = { ...next, ...moveDate(next, day, dayOfIso(own.start.date)) };
  if (Object.keys(times).length > 0) next = { ...next, ...changeDate(next, day, times) };
  return next;
}
