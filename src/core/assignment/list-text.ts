import {
  type CivilDay,
  civilDay,
  daysInMonth,
  isoWeekOf,
  mondayOf,
  weekdayOf,
  yearMonthDay,
} from '../civil-date/civil-day.ts';
import { dayOfIso, isoOfDay } from '../civil-date/iso-date.ts';
import { readDate, sayDate, weekdayShort } from '../wording/date-words.ts';
import { inListOrder, type Listed, MOST_LISTED } from './listed.ts';
import { callNames, type NamedPerson, NOT_HERE, type PersonReading, readPerson } from './rule-words.ts';

/** What a line with one day says: that day, or the week that begins with it. */
export type LineHolds = 'day' | 'week';

export interface ListTextContext {
  readonly today: CivilDay;
  readonly people: readonly NamedPerson[];
  readonly holds: LineHolds;
  /** Whether 3/4/2027 has the day first; null where nobody has settled that. */
  readonly dayFirst: boolean | null;
}

/** What is wrong with a line of a list, by its number from 1. */
export interface ListFault {
  readonly line: number;
  readonly message: string;
  readonly suggestion: string | null;
}

export interface ListReading {
  /** What could be read, in the order of its days. */
  readonly list: readonly Listed[];
  readonly faults: readonly ListFault[];
  /** Whether a single day may mean its week as well: all of them fall on one weekday, a week or more apart. */
  readonly mayBeWeeks: boolean;
}

/** The most lines, and the longest line, that are read. */
const MOST_LINES = 1_500;
const MOST_CHARACTERS = 4_000;
/** A day, or a first and a last one, is not longer, in characters and in words. */
const LONGEST_DAY = 60;
const MOST_WORDS = 10;

/**
 * Reads a list of who has which days, typed or copied from a spreadsheet: lines of a day and a name in either order ("Mon 30 Nov
 * Kit", "2026-11-30 to 2026-12-06, Kit"), or a grid of days and people whose marked cells say who. Years may be left out: the
 * first day is then the nearest to today, and each after it the next. What can't be read, or has two meanings, is told by its line.
 */
export function readList(text: string, context: ListTextContext): ListReading {
  const rows = text
    .split(/\r?\n/)
    .slice(0, MOST_LINES + 1)
    .map((line, i) => ({ line: i + 1, cells: cellsOf(line.slice(0, MOST_CHARACTERS)) }))
    .filter(({ cells }) => cells.some((cell) => cell !== ''));
  if (rows.length > MOST_LINES)
    return failed(MOST_LINES + 1, `A list has ${MOST_LINES} lines at most: leave out what is over.`);
  const days = daysReader(context.today, context.dayFirst ?? dayFirstBy(text));
  const entries = entriesOf(rows, nameReader(context.people), days);
  const faults: ListFault[] = [];
  const lines: (Listed & { readonly line: number })[] = [];
  for (const entry of entries) {
    if ('message' in entry) faults.push(entry);
    else lines.push(entry);
  }
  if (lines.length > MOST_LISTED)
    faults.push({
      line: 1,
      suggestion: null,
      message: `A list has ${MOST_LISTED} turns at most: these are ${lines.length}.`,
    });
  const single = lines.filter(({ from, to }) => from === to);
  const held = lines.map((one) =>
    one.from === one.to && context.holds === 'week' ? { ...one, to: isoOfDay(dayOfIso(one.from) + 6) } : one,
  );
  const inOrder = [...held].sort((a, b) => (a.from < b.from ? -1 : a.from > b.from ? 1 : a.line - b.line));
  for (const [i, { line, from, to, personId }] of inOrder.entries()) {
    const before = inOrder[i - 1];
    if (before === undefined || before.to < from) continue;
    const who = context.people.find(({ id }) => id === before.personId)?.name ?? 'somebody';
    const day = sayDate(dayOfIso(from));
    faults.push({
      line,
      suggestion: null,
      message:
        before.personId === personId && before.from === from && before.to === to
          ? `${day} stands in line ${before.line} already.`
          : `${day} is ${who}’s already, by line ${before.line}: one person has a day.`,
    });
  }
  return {
    list: inListOrder(held.map(({ from, to, personId }) => ({ from, to, personId }))),
    faults: faults.sort((a, b) => a.line - b.line),
    mayBeWeeks: single.length === lines.length && areWeekly(single.map(({ from }) => dayOfIso(from))),
  };
}

/** A list as lines that `readList` reads back as the same, a line with one day holding that day; by first names, where they are read as the same person. */
export function sayList(list: readonly Listed[], people: readonly NamedPerson[]): string {
  const called = callNames(people);
  const nameOf = (id: string) => {
    const short = called.get(id) ?? NOT_HERE;
    const found = readPerson(short, { people });
    return found.kind === 'person' && found.id === id ? short : (people.find((one) => one.id === id)?.name ?? NOT_HERE);
  };
  return list
    .map(({ from, to, personId }) => {
      const [first, last] = [dayOfIso(from), dayOfIso(to)];
      return `${sayWith(first)}${last === first ? '' : ` to ${sayEnd(last, first)}`}\t${nameOf(personId)}`;
    })
    .join('\n');
}

const sayWith = (day: CivilDay) => `${weekdayShort(weekdayOf(day))} ${sayDate(day)}`;

/** Its year is left out within a year of the first day, from which it is read on: lines are to stay short. */
const sayEnd = (day: CivilDay, first: CivilDay) =>
  day - first < 365 ? sayDate(day).replace(/ \d{4}$/, '') : sayDate(day);

interface Row {
  readonly line: number;
  readonly cells: readonly string[];
}
type Entry = (Listed & { readonly line: number }) | ListFault;

const failed = (line: number, message: string): ListReading => ({
  list: [],
  faults: [{ line, message, suggestion: null }],
  mayBeWeeks: false,
});

/** A line split where a spreadsheet or a hand splits it: at tabs, else semicolons, else commas. */
function cellsOf(line: string): string[] {
  const at = line.includes('\t') ? '\t' : line.includes(';') ? ';' : ',';
  return line.split(at).map((cell) =>
    cell
      .trim()
      .replace(/^"(.*)"$/, '$1')
      .trim(),
  );
}

/** Who is meant by a name; of a long list with few names each is looked for once. */
type NameReader = (name: string) => PersonReading;

function nameReader(people: readonly NamedPerson[]): NameReader {
  const known = new Map<string, PersonReading>();
  return (name) => {
    const found = known.get(name) ?? readPerson(name, { people });
    known.set(name, found);
    return found;
  };
}

function entriesOf(rows: readonly Row[], who: NameReader, days: DaysReader): Entry[] {
  const [head, ...rest] = rows;
  if (!head) return [];
  const isPerson = (cell: string) => cell !== '' && who(cell).kind === 'person';
  const [, ...heads] = head.cells;
  if (heads.length > 1 && rest.length > 0) {
    if (heads.filter(isPerson).length > 1) return gridOfDays(head, rest, who, days);
    if (heads.filter((cell) => days.looksLikeOne(cell)).length > 1) return gridOfPeople(head, rest, who, days);
  }
  // A first line that names the columns says nothing of its own.
  const isHead =
    rest.length > 0 &&
    !head.cells.some((cell) => days.looksLikeOne(cell) || isPerson(cell)) &&
    !startsWithDay(head, days);
  return (isHead ? rest : rows).map((row) => entryOf(row, who, days));
}

const startsWithDay = ({ cells }: Row, days: DaysReader) => cells.some((cell) => splitInto(cell, days) !== null);

/** A line of a day and a name, in cells or in words. */
function entryOf({ line, cells }: Row, who: NameReader, days: DaysReader): Entry {
  const filled = cells.filter((cell) => cell !== '');
  const split = filled.length === 1 ? splitInto(filled[0] as string, days) : null;
  const parts = split ?? filled;
  const at = parts.findIndex((part) => days.looksLikeOne(part));
  const name = parts.find((_, i) => i !== at && !days.looksLikeOne(parts[i] ?? ''));
  if (at < 0) return fault(line, `There is no day in “${filled.join(' ')}”: write it like “30 Nov, Kit”.`);
  if (name === undefined) return fault(line, `There is no name beside “${parts[at]}”.`);
  // Two cells with a day each are the first and the last.
  const other = parts.findIndex((part, i) => i > at && days.looksLikeOne(part));
  const span = other < 0 ? days.read(parts[at] as string) : days.readBoth(parts[at] as string, parts[other] as string);
  if (typeof span === 'string') return fault(line, span);
  return named(line, name, span, who);
}

/** The first column says the day, each other one is somebody's, and a mark in a cell says that they have it. */
function gridOfDays(head: Row, rest: readonly Row[], who: NameReader, days: DaysReader): Entry[] {
  return rest.flatMap(({ line, cells }): Entry[] => {
    const span = days.read(cells[0] ?? '');
    if (typeof span === 'string') return [fault(line, span)];
    return cells.slice(1).flatMap((cell, i) => (cell === '' ? [] : [named(line, head.cells[i + 1] ?? '', span, who)]));
  });
}

/** The first column says who, each other one is a day's. */
function gridOfPeople(head: Row, rest: readonly Row[], who: NameReader, days: DaysReader): Entry[] {
  const spans = head.cells.map((cell, i) => (i === 0 || cell === '' ? null : days.read(cell)));
  const wrong = spans.flatMap((span) => (typeof span === 'string' ? [fault(head.line, span)] : []));
  return [
    ...wrong,
    ...rest.flatMap(({ line, cells }) =>
      cells.slice(1).flatMap((cell, i): Entry[] => {
        const span = spans[i + 1];
        return cell === '' || typeof span === 'string' || !span ? [] : [named(line, cells[0] ?? '', span, who)];
      }),
    ),
  ];
}

interface Span {
  readonly from: CivilDay;
  readonly to: CivilDay;
}

function named(line: number, name: string, { from, to }: Span, who: NameReader): Entry {
  const found = who(name);
  if (found.kind === 'unread') return { line, message: found.message, suggestion: found.suggestion };
  return { line, from: isoOfDay(from), to: isoOfDay(to), personId: found.id };
}

const fault = (line: number, message: string): ListFault => ({ line, message, suggestion: null });

/** "30 Nov Kit", "Kit 30 Nov": a day at either end of some words, as long as it goes; null where there is none. */
function splitInto(text: string, days: DaysReader): readonly [string, string] | null {
  const words = text.replace(/:\s+/g, ' ').split(/\s+/);
  for (let n = Math.min(words.length - 1, MOST_WORDS); n > 0; n--) {
    const [start, rest] = [words.slice(0, n).join(' '), words.slice(n).join(' ')];
    if (days.looksLikeOne(start)) return [start, rest];
    const [first, end] = [words.slice(0, words.length - n).join(' '), words.slice(words.length - n).join(' ')];
    if (days.looksLikeOne(end)) return [end, first];
  }
  return null;
}

interface DaysReader {
  /** Whether a text is a day, a week or a span, right or wrong; no year is settled by it. */
  readonly looksLikeOne: (text: string) => boolean;
  /** The days that a text means, or what is wrong with it. */
  readonly read: (text: string) => Span | string;
  readonly readBoth: (first: string, last: string) => Span | string;
}

const SPAN = /^(.+?)\s*(?:–|—|\bto\b|\buntil\b|\s-\s)\s*(.+)$/i;
const WEEK = /^(?:w|wk|week)\.?\s*(\d{1,2})(?:[\s/-]+(\d{4}))?$/i;
const HAS_YEAR = /\d{4}/;
const WEEKDAY = /^(mon|tue|wed|thu|fri|sat|sun)[a-z]*\.?,?\s+/i;
const NUMBERS = /^(?:(?:mon|tue|wed|thu|fri|sat|sun)[a-z]*\.?,?\s+)?(\d{1,2})[./-](\d{1,2})(?:[./-](\d{4}|\d{2}))?$/i;
const HALF_A_YEAR = 183;

/** Reads days one after the other: one without a year is the first such day from the one before it on, the first of all the nearest to today. */
function daysReader(today: CivilDay, dayFirst: boolean | null): DaysReader {
  let before: CivilDay | null = null;
  const one = (text: string, from: CivilDay | null): Span | string => {
    const week = WEEK.exec(text);
    if (week)
      return weekOf(Number(week[1]), week[2] === undefined ? null : Number(week[2]), from ?? today - HALF_A_YEAR);
    const numbers = NUMBERS.exec(text);
    if (numbers && dayFirst === null && dayFirstIn(numbers) === null && Number(numbers[1]) !== Number(numbers[2]))
      return `“${text}” may have the day first or the month: write the month as a word, or 2026-11-30.`;
    const reads = (after: CivilDay) =>
      numbers ? ofNumbers(numbers, dayFirst ?? dayFirstIn(numbers) ?? true, after) : readDate(text, after);
    const day = from === null && !HAS_YEAR.test(text) ? nearest(reads, today) : reads(from ?? today);
    if (day === null) return `“${text}” is no day: write it like 30 Nov 2026.`;
    const weekday = WEEKDAY.exec(text)?.[1];
    const is = weekdayShort(weekdayOf(day));
    return weekday !== undefined && weekday.toLowerCase() !== is.toLowerCase()
      ? `${sayDate(day)} is a ${is}, not a ${weekday}: put one of them right.`
      : { from: day, to: day };
  };
  const both = (first: string, last: string): Span | string => {
    const start = one(first, before);
    if (typeof start === 'string') return start;
    const end = one(last, start.from);
    if (typeof end === 'string') return end;
    return end.to < start.from ? `${last} lies before ${first}.` : { from: start.from, to: end.to };
  };
  const settled = (span: Span | string) => {
    if (typeof span !== 'string') before = span.from;
    return span;
  };
  const spanIn = (text: string) => {
    const isShort = text.length <= LONGEST_DAY && !WEEK.test(text);
    const [, first, last] = (isShort ? SPAN.exec(text) : null) ?? [];
    const isSpan = first !== undefined && last !== undefined && isOne(first) && isOne(last);
    return isSpan ? ([first, last] as const) : null;
  };
  const isOne = (text: string) =>
    text.length <= LONGEST_DAY && (WEEK.test(text) || NUMBERS.test(text) || readDate(text, today) !== null);
  return {
    looksLikeOne: (text) => isOne(text) || spanIn(text) !== null,
    read: (text) => {
      const span = spanIn(text);
      return settled(span ? both(...span) : one(text, before));
    },
    readBoth: (first, last) => settled(both(first, last)),
  };
}

/** A date in numbers; without a year the first such day from another on. */
function ofNumbers([, first, second, year]: RegExpExecArray, dayFirst: boolean, after: CivilDay): CivilDay | null {
  const [day, month] = dayFirst ? [Number(first), Number(second)] : [Number(second), Number(first)];
  if (month < 1 || month > 12 || day < 1) return null;
  const exists = (of: number) => (day <= daysInMonth(of, month) ? civilDay(of, month, day) : null);
  if (year !== undefined) return exists(year.length === 2 ? 2000 + Number(year) : Number(year));
  const from = yearMonthDay(after).year;
  const found = exists(from);
  return found !== null && found >= after ? found : exists(from + 1);
}

/** What the dates of a text say themselves of their order: one whose first or second number is no month tells it for all. */
function dayFirstBy(text: string): boolean | null {
  const said = new Set<boolean>();
  // Not those of 2026-11-30, whose order is its own.
  for (const numbers of text.matchAll(/(?<![\d./-])(\d{1,2})[./-](\d{1,2})(?!\d)/g)) {
    const one = dayFirstIn(numbers);
    if (one !== null) said.add(one);
  }
  const [only] = said;
  return said.size === 1 && only !== undefined ? only : null;
}

/** The same of one date, where one of its numbers is no month. */
function dayFirstIn([, first, second]: RegExpExecArray): boolean | null {
  if (Number(first) > 12) return true;
  return Number(second) > 12 ? false : null;
}

/** The day of a text without a year that lies nearest to today. */
function nearest(reads: (after: CivilDay) => CivilDay | null, today: CivilDay): CivilDay | null {
  const [back, on] = [reads(today - HALF_A_YEAR), reads(today)];
  if (back === null || on === null) return on;
  return today - back < on - today ? back : on;
}

/** The week of a number (ISO 8601), as a span of its seven days; without a year the first such week from a day on. */
function weekOf(number: number, year: number | null, from: CivilDay): Span | string {
  const start = isoWeekOf(from).year;
  for (const of of year === null ? [start, start + 1] : [year]) {
    const monday = mondayOf(civilDay(of, 1, 4)) + (number - 1) * 7;
    const is = isoWeekOf(monday);
    if (is.year === of && is.week === number && (year !== null || monday + 6 >= from))
      return { from: monday, to: monday + 6 };
  }
  return `There is no week ${number}${year === null ? '' : ` in ${year}`}.`;
}

function areWeekly(days: readonly CivilDay[]): boolean {
  if (days.length < 2) return false;
  return days.every((day) => weekdayOf(day) === weekdayOf(days[0] as CivilDay)) && new Set(days).size === days.length;
}
