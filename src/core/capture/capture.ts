import type { CivilDay } from '../civil-date/civil-day.ts';
import type { IsoTime } from '../civil-date/iso-date.ts';
import { type Read, readDay, readEstimate, readTime } from './moment.ts';
import { type Nameable, namesBeginning, readName } from './name.ts';
import { plainWords, type Word, wordsOf } from './words.ts';

/** What a line may name. */
export interface CaptureNames<P extends Nameable, S extends Nameable> {
  readonly people: readonly P[];
  /** Clients and assets. */
  readonly subjects: readonly S[];
}

export type CapturedKind = 'when' | 'who' | 'about' | 'estimate';

/** A part of the line that was understood, with its place. */
export interface CapturedPart {
  readonly kind: CapturedKind;
  readonly at: number;
  readonly end: number;
  /** As it was typed; the way to name it when it is to be taken back into the title. */
  readonly text: string;
}

/** Names that the end of the line may be the beginning of. */
export interface NameOffer<P, S> {
  /** Where the name begins in the line. */
  readonly at: number;
  readonly choices: readonly (
    | { readonly kind: 'who'; readonly one: P }
    | { readonly kind: 'about'; readonly one: S }
  )[];
}

/** A line as it was understood. */
export interface Captured<P, S> {
  /** What is to be done: all that was not understood as something else. Empty when there is nothing. */
  readonly title: string;
  /** The day; null when none was said. */
  readonly on: CivilDay | null;
  /** It is to be done by then, rather than on that day at that time. */
  readonly isBy: boolean;
  readonly startTime: IsoTime | null;
  readonly dueTime: IsoTime | null;
  readonly person: P | null;
  readonly about: S | null;
  readonly estimateMinutes: number | null;
  /** In the order of the line. */
  readonly parts: readonly CapturedPart[];
  readonly offer: NameOffer<P, S> | null;
}

type Found<P, S> =
  | { readonly kind: 'when'; readonly day: CivilDay; readonly isBy: boolean }
  | { readonly kind: 'when'; readonly from: IsoTime; readonly to: IsoTime | null; readonly isBy: boolean }
  | { readonly kind: 'who'; readonly person: P }
  | { readonly kind: 'about'; readonly subject: S }
  | { readonly kind: 'estimate'; readonly minutes: number };

type FoundPart<P, S> = CapturedPart & { readonly found: Found<P, S> };

/** Names offered at once. */
const OFFERED = 5;

/**
 * Reads a line of plain words: a day and time ("fri 10:00", "by 3 dec"), "to" a person, "for" a client or an asset, and how long
 * it takes ("45 min"). Of two of a kind the later counts, and the earlier stays in the title. Nothing is ever refused:
 * what is not understood is the title.
 * @param keep texts of parts that stay in the title, as `parts` gave them
 */
export function readCapture<P extends Nameable, S extends Nameable>(
  text: string,
  today: CivilDay,
  { people, subjects }: CaptureNames<P, S>,
  keep: ReadonlySet<string> = new Set(),
): Captured<P, S> {
  const words = wordsOf(text);
  const parts: FoundPart<P, S>[] = [];
  for (let i = 0; i < words.length; ) {
    const read = readPart(words, i, today, { people, subjects });
    const last = read && words[i + read.words - 1];
    const at = (words[i] as Word).at;
    const part =
      read && last
        ? { kind: read.value.kind, at, end: last.end, text: text.slice(at, last.end), found: read.value }
        : null;
    if (part && !keep.has(part.text)) {
      parts.push(part);
      i += read?.words ?? 1;
    } else i++;
  }
  const counting = parts.filter(
    (part, i) => !parts.slice(i + 1).some((later) => slotOf(later.found) === slotOf(part.found)),
  );
  const day = counting.find(({ found }) => slotOf(found) === 'day')?.found;
  const time = counting.find(({ found }) => slotOf(found) === 'time')?.found;
  const who = counting.find(({ found }) => found.kind === 'who')?.found;
  const about = counting.find(({ found }) => found.kind === 'about')?.found;
  const estimate = counting.find(({ found }) => found.kind === 'estimate')?.found;
  const span = time?.kind === 'when' && 'from' in time ? time : null;
  const isBy = (day?.kind === 'when' && day.isBy) || span?.isBy === true;
  return {
    title: titleWithout(text, counting),
    on: day?.kind === 'when' && 'day' in day ? day.day : null,
    isBy,
    startTime: span === null || (isBy && span.to === null) ? null : span.from,
    dueTime: span === null ? null : (span.to ?? (isBy ? span.from : null)),
    person: who?.kind === 'who' ? who.person : null,
    about: about?.kind === 'about' ? about.subject : null,
    estimateMinutes: estimate?.kind === 'estimate' ? estimate.minutes : null,
    parts: counting.map(({ kind, at, end, text: typed }) => ({ kind, at, end, text: typed })),
    offer: offerAt(words, text, { people, subjects }),
  };
}

/** Names said in a line that are looked at, the last ones: of two the later counts. */
const MENTIONS = 8;
/** Words of a name that are looked at. */
const NAME_WORDS = 7;

/**
 * Where a line may name a client or an asset: the plain words after each "for", so that those of a large workspace can be
 * looked up before the line is read. At most eight places of seven words.
 */
export function subjectsSaid(text: string): readonly (readonly string[])[] {
  const plain = wordsOf(text).map((word) => word.plain);
  return plain
    .flatMap((word, i) => (word === 'for' ? [plain.slice(i + 1, i + 1 + NAME_WORDS)] : []))
    .filter(([first]) => first !== undefined && first !== '')
    .slice(-MENTIONS);
}

/** A line has one of each: a day, a time, a person, a subject, an estimate. */
function slotOf(found: Found<unknown, unknown>): string {
  return found.kind === 'when' ? ('day' in found ? 'day' : 'time') : found.kind;
}

function readPart<P extends Nameable, S extends Nameable>(
  words: readonly Word[],
  from: number,
  today: CivilDay,
  { people, subjects }: CaptureNames<P, S>,
): Read<Found<P, S>> | null {
  const rest = words.slice(from, from + 1 + NAME_WORDS).map(({ plain }) => plain);
  const [first = '', ...after] = rest;
  const shifted = <T>(read: Read<T> | null, found: (value: T) => Found<P, S>): Read<Found<P, S>> | null =>
    read && { value: found(read.value), words: read.words + 1 };
  if (first === 'to')
    return shifted(readName(after, people, { byOneName: true }), (person) => ({ kind: 'who', person }));
  if (first === 'for') {
    const named = shifted(readName(after, subjects, { byOneName: false }), (subject) => ({ kind: 'about', subject }));
    return named ?? shifted(readEstimate(after), (minutes) => ({ kind: 'estimate', minutes }));
  }
  const isBy = first === 'by';
  if (isBy || first === 'on' || first === 'at' || first === 'from') {
    const day = first === 'at' || first === 'from' ? null : readDay(after, today);
    if (day) return shifted(day, (value) => ({ kind: 'when', day: value, isBy }));
    return first === 'on'
      ? null
      : shifted(readTime(after, true), ({ from: begin, to }) => ({ kind: 'when', from: begin, to, isBy }));
  }
  const estimate = readEstimate(rest);
  if (estimate) return { value: { kind: 'estimate', minutes: estimate.value }, words: estimate.words };
  const time = readTime(rest, false);
  if (time)
    return { value: { kind: 'when', from: time.value.from, to: time.value.to, isBy: false }, words: time.words };
  const day = readDay(rest, today);
  return day && { value: { kind: 'when', day: day.value, isBy: false }, words: day.words };
}

function titleWithout(text: string, parts: readonly CapturedPart[]): string {
  let left = '';
  let at = 0;
  for (const part of parts) {
    left += `${text.slice(at, part.at)} `;
    at = part.end;
  }
  const title = (left + text.slice(at))
    .replace(/\s+/g, ' ')
    .replace(/\s+([,.;])/g, '$1')
    .replace(/^[\s,;]+|[\s,;]+$/g, '');
  return title.charAt(0).toUpperCase() + title.slice(1);
}

/** While a name is being typed after "to" or "for" at the end of the line, those it may become. */
function offerAt<P extends Nameable, S extends Nameable>(
  words: readonly Word[],
  text: string,
  { people, subjects }: CaptureNames<P, S>,
): NameOffer<P, S> | null {
  if (/\s$/.test(text)) return null;
  for (let back = 1; back <= 4; back++) {
    const lead = words[words.length - back - 1];
    const typed = words.slice(words.length - back);
    const begin = typed[0];
    if (!lead || !begin || (lead.plain !== 'to' && lead.plain !== 'for')) continue;
    const plain = typed.map((word) => word.plain);
    const choices =
      lead.plain === 'to'
        ? namesBeginning(plain, people, OFFERED).map((one) => ({ kind: 'who' as const, one }))
        : namesBeginning(plain, subjects, OFFERED).map((one) => ({ kind: 'about' as const, one }));
    // A name that stands there whole needs no offer.
    if (choices.length === 1 && choices[0] && plainWords(choices[0].one.name).join(' ') === plain.join(' '))
      return null;
    return choices.length === 0 ? null : { at: begin.at, choices };
  }
  return null;
}
