import { createHash } from 'node:crypto';
import { readFile as readBytes } from 'node:fs/promises';
import { setImmediate } from 'node:timers/promises';
import { MOST_BRING_ROWS } from '../../../contract/index.ts';
import { Refusal } from '../../platform/refusal.ts';

/** A calendar file, taken apart and not understood yet. */
export interface CalendarRead {
  readonly encoding: string;
  /** What stands there of each UID, as iCalendar text: its series and the occurrences that differ, in the order of the file. */
  readonly entries: readonly { readonly uid: string; readonly text: string }[];
  /** VTIMEZONEs by their TZID. */
  readonly zones: ReadonlyMap<string, string>;
  /** Lines that were broken where none may be, and are read as one with the line before. */
  readonly mended: number;
  /** Journals and times that are free or taken: neither is work. */
  readonly others: number;
}

/** Lines that are taken apart before others get their turn. */
const STRETCH_MS = 8;
/** Of properties that hold files or texts for one program, what is longer is left out. */
const LONGEST_LINE = 8192;
const HOLDS_FILES = /^(ATTACH|IMAGE|STYLED-DESCRIPTION|STRUCTURED-DATA|X-.*)$/i;
/** From so many bytes on a line that goes on without a blank was folded, and not ended (RFC 5545, section 3.1 folds at 75). */
const FOLDED_FROM = 70;
const MOST_ENTRY_CHARACTERS = 400_000;

/** What a line may begin with; another one goes on with the line before. */
const NAMES = new Set(
  `BEGIN END VERSION PRODID CALSCALE METHOD NAME DESCRIPTION UID DTSTAMP DTSTART DTEND DUE DURATION SUMMARY LOCATION URL CATEGORIES
  CLASS COMMENT CONTACT COMPLETED CREATED LAST-MODIFIED SEQUENCE STATUS TRANSP PRIORITY PERCENT-COMPLETE RRULE RDATE EXDATE EXRULE
  RECURRENCE-ID ATTENDEE ORGANIZER RELATED-TO RESOURCES GEO ATTACH ACTION TRIGGER REPEAT REQUEST-STATUS TZID TZNAME TZOFFSETFROM
  TZOFFSETTO TZURL FREEBUSY IMAGE CONFERENCE COLOR REFRESH-INTERVAL SOURCE STYLED-DESCRIPTION STRUCTURED-DATA PARTICIPANT
  ACKNOWLEDGED PROXIMITY`.split(/\s+/),
);
const BEGINS = /^([A-Za-z][A-Za-z0-9-]*)(?=[;:])/;

const begins = (line: string): boolean => {
  const name = BEGINS.exec(line)?.[1]?.toUpperCase();
  return name !== undefined && (NAMES.has(name) || name.startsWith('X-'));
};

/**
 * Takes an iCalendar file apart (RFC 5545, section 3.1): folds are undone before bytes become letters, so that one that was made
 * within a letter does no harm; lines that were broken without a blank go on with the line before.
 * @throws Refusal in words where it is no such file, or has more than can be brought in
 */
export async function readCalendar(path: string): Promise<CalendarRead> {
  const bytes = await readBytes(path);
  const lines = await linesOf(asUtf8(bytes));
  const first = lines.texts.find((line) => line.trim() !== '') ?? '';
  if (!/^BEGIN:VCALENDAR/i.test(first))
    throw refused('That is no calendar file: it begins with BEGIN:VCALENDAR, and is saved as .ics.');
  const groups = new Map<string, string[]>();
  const zones = new Map<string, string>();
  let [mended, others] = [0, 0];
  let within: { readonly kind: string; readonly lines: string[]; depth: number } | null = null;
  let since = performance.now();
  for (let i = 0; i < lines.texts.length; i++) {
    if (performance.now() - since > STRETCH_MS) {
      await setImmediate();
      since = performance.now();
    }
    const line = lines.texts[i] ?? '';
    if (line.trim() === '') continue;
    const before = within?.lines.length ? within.lines.at(-1) : undefined;
    if (!begins(line)) {
      if (within && before !== undefined) {
        const isFolded = (lines.widths[i - 1] ?? 0) >= FOLDED_FROM;
        within.lines[within.lines.length - 1] = `${before}${isFolded ? '' : '\\n'}${line}`;
      }
      mended++;
      continue;
    }
    const begin = /^BEGIN:\s*([A-Za-z-]+)\s*$/i.exec(line)?.[1]?.toUpperCase();
    const end = /^END:\s*([A-Za-z-]+)\s*$/i.exec(line)?.[1]?.toUpperCase();
    if (within === null) {
      if (begin === 'VEVENT' || begin === 'VTODO' || begin === 'VTIMEZONE')
        within = { kind: begin, lines: [line], depth: 1 };
      else if (begin === 'VJOURNAL' || begin === 'VFREEBUSY') others++;
      continue;
    }
    const name = BEGINS.exec(line)?.[1] ?? '';
    within.lines.push(line.length > LONGEST_LINE && HOLDS_FILES.test(name) ? `X-LEFT-OUT:${name}` : line);
    if (begin !== undefined) within.depth++;
    if (end === undefined || --within.depth > 0) continue;
    const text = within.lines.join('\r\n');
    if (within.kind === 'VTIMEZONE') {
      const tzid = valueIn(within.lines, 'TZID');
      if (tzid !== null) zones.set(tzid, text);
    } else {
      // What bears none is known by what it says.
      const uid = valueIn(within.lines, 'UID') ?? createHash('sha256').update(text).digest('hex').slice(0, 32);
      const group = groups.get(uid) ?? [];
      group.push(text);
      groups.set(uid, group);
      if (groups.size > MOST_BRING_ROWS) throw refused(TOO_MANY);
    }
    within = null;
  }
  if (within !== null) throw refused('It breaks off in the middle of an entry. Save it once more, and choose that.');
  if (groups.size === 0) throw refused('There is neither an event nor a to-do in it.');
  const entries = [...groups].map(([uid, texts]) => ({
    uid,
    text: texts.join('\r\n').slice(0, MOST_ENTRY_CHARACTERS),
  }));
  return { encoding: lines.encoding, entries, zones, mended, others };
}

const TOO_MANY = `It has more than ${MOST_BRING_ROWS.toLocaleString('en-GB')} entries. Split it, and bring in one part after the other.`;

function valueIn(lines: readonly string[], name: string): string | null {
  const line = lines.find((one) => BEGINS.exec(one)?.[1]?.toUpperCase() === name);
  const value = line?.slice(line.indexOf(':') + 1).trim() ?? '';
  return value === '' ? null : value.slice(0, 1000);
}

/** UTF-16 by its mark as UTF-8; all else as it is, without the mark of UTF-8. */
function asUtf8(bytes: Buffer): Buffer {
  if (bytes.length === 0) throw refused('It is empty.');
  const isLittle = bytes[0] === 0xff && bytes[1] === 0xfe;
  const isBig = bytes[0] === 0xfe && bytes[1] === 0xff;
  if (isLittle || isBig) return Buffer.from(new TextDecoder(isLittle ? 'utf-16le' : 'utf-16be').decode(bytes));
  const hasMark = bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf;
  return hasMark ? bytes.subarray(3) : bytes;
}

const [LF, CR, BLANK, TAB] = [0x0a, 0x0d, 0x20, 0x09];

/** Logical lines, and how long the last piece of each was. */
async function linesOf(bytes: Buffer): Promise<{ texts: string[]; widths: number[]; encoding: string }> {
  const parts: Buffer[][] = [];
  let since = performance.now();
  for (let at = 0; at < bytes.length; ) {
    if (performance.now() - since > STRETCH_MS) {
      await setImmediate();
      since = performance.now();
    }
    const found = bytes.indexOf(LF, at);
    const end = found === -1 ? bytes.length : found;
    const line = bytes.subarray(at, end > at && bytes[end - 1] === CR ? end - 1 : end);
    const isFold = (line[0] === BLANK || line[0] === TAB) && parts.length > 0;
    if (isFold) parts.at(-1)?.push(line.subarray(1));
    else parts.push([line]);
    at = end + 1;
  }
  const widths = parts.map((pieces) => pieces.at(-1)?.length ?? 0);
  for (const encoding of ['utf-8', 'windows-1252'] as const) {
    const decoder = new TextDecoder(encoding, { fatal: encoding === 'utf-8' });
    try {
      const texts: string[] = [];
      for (const pieces of parts) {
        if (performance.now() - since > STRETCH_MS) {
          await setImmediate();
          since = performance.now();
        }
        texts.push(decoder.decode(pieces.length === 1 ? pieces[0] : Buffer.concat(pieces)).replaceAll('\u0000', ''));
      }
      return { texts, widths, encoding: encoding === 'utf-8' ? 'UTF-8' : 'Windows-1252' };
    } catch (error) {
      if (!(error instanceof TypeError)) throw error;
    }
  }
  throw refused('It is no text.');
}

function refused(message: string): Refusal {
  return new Refusal('invalid', message, { errors: [{ path: 'file', message }] });
}
