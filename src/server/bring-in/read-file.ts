import { createHash } from 'node:crypto';
import { open } from 'node:fs/promises';
import { setImmediate } from 'node:timers/promises';
import Papa from 'papaparse';
import { MOST_BRING_COLUMNS, MOST_BRING_ROWS } from '../../contract/index.ts';
import { nameKey, plural } from '../../core/index.ts';
import { Refusal } from '../platform/refusal.ts';

export interface FileRead {
  readonly encoding: string;
  readonly separator: string;
  readonly columns: readonly string[];
  readonly rows: readonly (readonly string[])[];
}

/** Bytes that are taken at a time, so that others get their turn between them. */
const PIECE_BYTES = 128 * 1024;
/** The longest text of a cell. */
export const LONGEST_CELL = 5000;
/** Letters without a whole line among them: more than any line of ours has. */
const MOST_HELD = MOST_BRING_COLUMNS * LONGEST_CELL;
const SEPARATORS = { ',': 'commas', ';': 'semicolons', '\t': 'tabs' } as const;
type Separator = keyof typeof SEPARATORS;

/**
 * Reads a CSV file: its head and its lines, those that are empty left out. UTF-8, UTF-16 with its mark, or Windows-1252;
 * split at commas, semicolons or tabs, whichever its head has; cells in quotes may hold ends of lines (RFC 4180).
 * @throws Refusal in words where it is no such file, or larger than can be brought in
 */
export async function readFile(path: string): Promise<FileRead> {
  const pieces = await piecesOf(path);
  const encoding = await encodingOf(pieces);
  const decoder = new TextDecoder(encoding);
  let separator: Separator = ',';
  const rows: string[][] = [];
  let rest = '';
  for (let i = 0; i <= pieces.length; i++) {
    const isLast = i === pieces.length;
    rest = (rest + decoder.decode(pieces[i], { stream: !isLast })).replace(isLast ? /\r\n?/g : /\r\n?(?!$)/g, '\n');
    if (i === 0) separator = separatorOf(rest);
    const parser = new Papa.Parser({ delimiter: separator, newline: '\n' });
    // A line that may go on in the next piece waits for it.
    const { data, meta } = parser.parse(rest, 0, !isLast) as Papa.ParseResult<string[]>;
    rest = rest.slice(meta.cursor);
    const long = data.findIndex((cells) => cells.some((cell) => cell.length > LONGEST_CELL));
    // Of a quotation mark that nothing closes all that follows is one cell.
    if (long !== -1 || rest.length > MOST_HELD) throw refused(unclosed(rows.length + Math.max(long, 0)));
    for (const cells of data) if (cells.some((cell) => cell.trim() !== '')) rows.push(cells);
    if (rows.length > MOST_BRING_ROWS + 1) throw refused(TOO_LONG);
    await setImmediate();
  }
  const [head, ...lines] = rows;
  if (!head || lines.length === 0) throw refused('It has no lines below its head. The first line names the columns.');
  if (head.length > MOST_BRING_COLUMNS)
    throw refused(
      `It has ${plural(head.length, 'column')}, ${MOST_BRING_COLUMNS} at most. Take out those that stay here.`,
    );
  return {
    encoding: NAMES[encoding],
    separator: SEPARATORS[separator],
    columns: head.map((name, i) => name.trim().slice(0, 80) || `column ${i + 1}`),
    rows: lines,
  };
}

/** The same for files whose heads name the same columns in the same order. */
export const shapeOf = (columns: readonly string[]): string =>
  createHash('sha256')
    .update(JSON.stringify(columns.map(nameKey)))
    .digest('hex')
    .slice(0, 32);

const NAMES = { 'utf-8': 'UTF-8', 'utf-16le': 'UTF-16', 'utf-16be': 'UTF-16', 'windows-1252': 'Windows-1252' } as const;

async function piecesOf(path: string): Promise<Buffer[]> {
  const file = await open(path);
  try {
    const pieces: Buffer[] = [];
    for (;;) {
      const piece = Buffer.alloc(PIECE_BYTES);
      const { bytesRead } = await file.read(piece, 0, PIECE_BYTES, null);
      if (bytesRead === 0) return pieces;
      pieces.push(piece.subarray(0, bytesRead));
    }
  } finally {
    await file.close();
  }
}

/** By its mark, else UTF-8 where it is nothing but that, else Windows-1252, which anything can be. */
async function encodingOf(pieces: readonly Buffer[]): Promise<keyof typeof NAMES> {
  const [first] = pieces;
  if (!first) throw refused('It is empty.');
  if (
    first.subarray(0, 2).equals(Buffer.from('PK')) ||
    first.subarray(0, 4).equals(Buffer.from([0xd0, 0xcf, 0x11, 0xe0]))
  )
    throw refused('It is a spreadsheet, not a CSV file. Save it as CSV from there, and choose that.');
  if (first[0] === 0xff && first[1] === 0xfe) return 'utf-16le';
  if (first[0] === 0xfe && first[1] === 0xff) return 'utf-16be';
  if (first.includes(0)) throw refused('It is no text. Save the list as CSV, and choose that.');
  const decoder = new TextDecoder('utf-8', { fatal: true });
  try {
    for (const piece of pieces) {
      decoder.decode(piece, { stream: true });
      await setImmediate();
    }
    decoder.decode();
    return 'utf-8';
  } catch (error) {
    if (error instanceof TypeError) return 'windows-1252';
    throw error;
  }
}

/** Whichever stands most often in the first line, outside of quotes. */
function separatorOf(text: string): Separator {
  const counts = { ',': 0, ';': 0, '\t': 0 };
  let isQuoted = false;
  for (const sign of text) {
    if (sign === '"') isQuoted = !isQuoted;
    else if (!isQuoted && (sign === '\n' || sign === '\r')) break;
    else if (!isQuoted && sign in counts) counts[sign as Separator]++;
  }
  return (Object.keys(counts) as Separator[]).reduce((most, one) => (counts[one] > counts[most] ? one : most));
}

const TOO_LONG = `It has more than ${MOST_BRING_ROWS.toLocaleString('en-GB')} lines. Split it, and bring in one part after the other.`;

const unclosed = (line: number): string =>
  `Line ${line} has a cell of more than ${LONGEST_CELL.toLocaleString('en-GB')} characters. A quotation mark may be missing there.`;

function refused(message: string): Refusal {
  return new Refusal('invalid', message, { errors: [{ path: 'file', message }] });
}
