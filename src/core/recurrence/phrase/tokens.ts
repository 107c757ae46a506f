import { type CivilDay, civilDay, daysInMonth } from '../../civil-date/civil-day.ts';
import { type IsoTime, tryDayOfIso, tryMinutesOfTime } from '../../civil-date/iso-date.ts';
import { ORDINAL_WORDS } from '../../wording/date-words.ts';
import { isOneEditAway } from '../../wording/spelling.ts';

interface Place {
  /** Its place in the text as typed, and the place after it. */
  readonly at: number;
  readonly end: number;
  readonly text: string;
}

/** A piece of a phrase. */
export type Token =
  | (Place & { readonly kind: 'word' })
  | (Place & { readonly kind: 'mark' })
  | (Place & { readonly kind: 'rrule' })
  | (Place & { readonly kind: 'number'; readonly value: number })
  /** A time of day, HH:MM; null where no day has it. */
  | (Place & { readonly kind: 'time'; readonly time: IsoTime | null })
  | (Place & { readonly kind: 'ordinal'; readonly value: number })
  /** A date in figures, and the one it is where the month comes first; null where there is no such day. */
  | (Place & { readonly kind: 'date'; readonly day: CivilDay | null; readonly other: CivilDay | null });

const PIECE =
  /(?:RRULE:)?(?<rrule>FREQ=[A-Z0-9=;,+-]*[A-Z0-9])|(?<iso>\d{4}-\d\d-\d\d)|(?<slashed>\d{1,2}[/.]\d{1,2}[/.]\d{4})|(?<time>\d{1,2}(?:[:.]\d\d)?\s*[ap]\.?m\b\.?|\d{1,2}:\d\d(?!\d)|(?<=\bat )\d{1,2}\.\d\d(?![\d./])|\b(?:12 )?(?:noon|midday)\b)|(?<ordinal>\d+)(?:st|nd|rd|th)\b|(?<number>\d+)|(?<word>\p{L}+(?:['’]\p{L}+)*(?:-\p{L}+)*)|[–—-]|[^\s\p{L}\d]/giu;

/** Splits a phrase into words, numbers, dates and marks. Every character but white space is in one of them. */
export function phraseTokens(text: string): Token[] {
  return [...text.matchAll(PIECE)].flatMap((match): Token | Token[] => {
    const [whole] = match;
    const { rrule, iso, slashed, time, ordinal, number, word } = match.groups ?? {};
    const place = { at: match.index, end: match.index + whole.length, text: whole.toLowerCase() };
    if (rrule !== undefined) return { ...place, kind: 'rrule', text: rrule.toUpperCase() };
    if (iso !== undefined) return { ...place, kind: 'date', day: tryDayOfIso(iso), other: null };
    if (slashed !== undefined) return { ...place, kind: 'date', ...daysOfSlashed(slashed) };
    if (time !== undefined) return { ...place, kind: 'time', time: timeSaid(time) };
    if (ordinal !== undefined) return { ...place, kind: 'ordinal', value: Number(ordinal) };
    if (number !== undefined) return { ...place, kind: 'number', value: Number(number) };
    if (word !== undefined) return wordTokens(word, match.index);
    return { ...place, kind: 'mark' };
  });
}

/** "9am", "9.30 pm", "14:30", "noon" as HH:MM; "12am" is midnight. */
function timeSaid(text: string): IsoTime | null {
  if (/[a-z]{4}/i.test(text)) return '12:00';
  const [, hours = '', minutes = '00', half] = /^(\d{1,2})(?:[:.](\d\d))?\s*([ap])?/i.exec(text) ?? [];
  const hour = Number(hours);
  if (half !== undefined && (hour < 1 || hour > 12)) return null;
  const ofDay = half === undefined ? hour : (hour % 12) + (half.toLowerCase() === 'p' ? 12 : 0);
  const said = `${String(ofDay).padStart(2, '0')}:${minutes}`;
  return tryMinutesOfTime(said) === null ? null : said;
}

/** Day, month, year, as Britain writes them; with strokes, the other one as America does. */
function daysOfSlashed(text: string): { readonly day: CivilDay | null; readonly other: CivilDay | null } {
  const [first = 0, second = 0, year = 0] = text.split(/[/.]/).map(Number);
  const dayOf = (day: number, month: number) =>
    month >= 1 && month <= 12 && day >= 1 && day <= daysInMonth(year, month) ? civilDay(year, month, day) : null;
  return { day: dayOf(first, second), other: text.includes('/') ? dayOf(second, first) : null };
}

/** Units of "2-weekly". */
const EVERY_SO_OFTEN: ReadonlySet<string> = new Set(['daily', 'weekly', 'monthly', 'yearly']);

/** "half-yearly" is one word, "Mon-Fri" is two with a dash between; apostrophes make no difference. */
function wordTokens(text: string, at: number): Token[] {
  const parts = text.split('-');
  const [amount = '', unit = ''] = parts.map((part) => part.toLowerCase());
  // "Two-weekly" is an amount and a unit.
  const n = parts.length === 2 && EVERY_SO_OFTEN.has(unit) ? cardinalNamed(amount) : null;
  if (n !== null)
    return [
      { kind: 'number', at, end: at + amount.length, text: amount, value: n },
      { kind: 'word', at: at + amount.length + 1, end: at + text.length, text: unit },
    ];
  const plain = (word: string) => word.toLowerCase().replace(/['’]/g, '');
  if (parts.length !== 2 || !parts.every((part) => isWeekdayOrMonth(plain(part))))
    return [{ kind: 'word', at, end: at + text.length, text: asMeant(plain(text).replaceAll('-', '')) }];
  const [first = '', second = ''] = parts;
  const dash = at + first.length;
  return [
    { kind: 'word', at, end: dash, text: plain(first) },
    { kind: 'mark', at: dash, end: dash + 1, text: '-' },
    { kind: 'word', at: dash + 1, end: dash + 1 + second.length, text: plain(second) },
  ];
}

/** Long words of which one that is near is meant for sure. */
const LONG_WORDS: readonly string[] = [
  ...['monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday', 'sunday'].flatMap((day) => [day, `${day}s`]),
  ...['january', 'february', 'august', 'september', 'october', 'november', 'december'],
  ...['fortnightly', 'monthly', 'quarterly', 'annually', 'weekday', 'weekdays', 'working', 'business', 'quarter'],
];
const SHORTEST_MENDED = 6;

/** A long word with one letter wrong, missing, too many or in its neighbour's place is read as what it nearly is. */
function asMeant(word: string): string {
  if (word.length < SHORTEST_MENDED || LONG_WORDS.includes(word)) return word;
  const near = LONG_WORDS.filter((long) => isOneEditAway(word, long));
  return near.length === 1 ? (near[0] as string) : word;
}

function isWeekdayOrMonth(word: string): boolean {
  return weekdayNamed(word) !== null || monthNamed(word) !== null;
}

const WEEKDAYS: readonly (readonly string[])[] = [
  ['monday', 'mondays', 'mon', 'mons'],
  ['tuesday', 'tuesdays', 'tue', 'tues'],
  ['wednesday', 'wednesdays', 'wed', 'weds'],
  ['thursday', 'thursdays', 'thu', 'thur', 'thurs'],
  ['friday', 'fridays', 'fri', 'fris'],
  ['saturday', 'saturdays', 'sat', 'sats'],
  ['sunday', 'sundays', 'sun', 'suns'],
];

/** 1–7 for a weekday's name, in full, short or plural; null for another word. */
export function weekdayNamed(word: string): number | null {
  const index = WEEKDAYS.findIndex((names) => names.includes(word));
  return index === -1 ? null : index + 1;
}

const MONTHS: readonly (readonly string[])[] = [
  ['january', 'jan', 'januarys'],
  ['february', 'feb', 'februarys'],
  ['march', 'mar'],
  ['april', 'apr'],
  ['may', 'mays'],
  ['june', 'jun'],
  ['july', 'jul'],
  ['august', 'aug'],
  ['september', 'sep', 'sept'],
  ['october', 'oct'],
  ['november', 'nov'],
  ['december', 'dec'],
];

/** 1–12 for a month's name, in full or short; null for another word. */
export function monthNamed(word: string): number | null {
  const index = MONTHS.findIndex((names) => names.includes(word));
  return index === -1 ? null : index + 1;
}

const UNITS = [
  ...['zero', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'],
  ...['ten', 'eleven', 'twelve', 'thirteen', 'fourteen', 'fifteen', 'sixteen', 'seventeen', 'eighteen', 'nineteen'],
];
const TENS = ['twenty', 'thirty', 'forty', 'fifty', 'sixty', 'seventy', 'eighty', 'ninety'];
/** "one" to "ninetynine": hyphens are gone by then. */
const CARDINALS: ReadonlyMap<string, number> = new Map([
  ...UNITS.map((word, n) => [word, n] as const),
  ...TENS.flatMap((tens, i) =>
    UNITS.slice(0, 10).map((unit, n) => [n === 0 ? tens : tens + unit, (i + 2) * 10 + n] as const),
  ),
]);

/** The number of a word, "three" for 3, up to ninety-nine; null for another word. */
export function cardinalNamed(word: string): number | null {
  return CARDINALS.get(word) || null;
}

/** The number of an ordinal word, "third" for 3; null for another word. */
export function ordinalNamed(word: string): number | null {
  const index = ORDINAL_WORDS.indexOf(word);
  return index < 1 ? null : index;
}

/** Names that a mistyped word may have meant. */
export const FULL_NAMES: readonly string[] = [...WEEKDAYS, ...MONTHS].map(([name = '']) => name);
