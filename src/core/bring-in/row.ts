import { readDuration } from '../wording/duration.ts';
import { readTimeOfDay } from '../worksheet/cells.ts';
import { asWritten } from './cells.ts';
import type { BringField } from './fields.ts';
import { nameKey } from './people-names.ts';
import { type DayOrder, type Read, readFileDate, readFileMoment, readFileNumber } from './values.ts';

/** What was read of a line, by the key of the field; what is empty is not there. */
export type RowValues = Readonly<Record<string, string | number | readonly string[]>>;

/** What stands at a field as a text; empty where nothing does. */
export function textOfValue(values: RowValues, key: string): string {
  const value = values[key];
  return value === undefined ? '' : typeof value === 'object' ? value.join(', ') : String(value);
}

export interface RowProblem {
  /** The place of its column, from 0; null where it is about the line as a whole. */
  readonly column: number | null;
  readonly message: string;
  /** Texts by which it can be said instead. */
  readonly offers?: readonly string[];
}

export interface RowReading {
  /** What each column becomes, by its place; null for those that stay out. */
  readonly columns: readonly (string | null)[];
  readonly fields: ReadonlyMap<string, BringField>;
  readonly dayOrder: DayOrder;
  /** Whether names written "Roe, Mara" are "Mara Roe". */
  readonly turnsNames: boolean;
  /** Who is meant by each name of a person, by the name in plain words; null for nobody. */
  readonly people: ReadonlyMap<string, string | null>;
}

const MAIL = /^[^\s@]+@[^\s@]+\.[^\s@]+$/;
/** The most names in one cell. */
const MOST_NAMES = 8;

/** Reads a line; each cell that can't be read has its own sentence, and the others are read all the same. */
export function readRow(
  cells: readonly string[],
  { columns, fields, dayOrder, turnsNames, people }: RowReading,
): { readonly values: RowValues; readonly problems: readonly RowProblem[] } {
  const values: Record<string, string | number | readonly string[]> = {};
  const problems: RowProblem[] = [];
  if (cells.length > columns.length && cells.slice(columns.length).some((cell) => cell.trim() !== ''))
    problems.push({ column: null, message: `It has ${cells.length} cells, the head only ${columns.length}` });
  columns.forEach((key, column) => {
    const field = key === null ? undefined : fields.get(key);
    const written = asWritten(cells[column] ?? '').trim();
    const text = field?.isName && turnsNames ? turnedName(written) : written;
    if (!field || text === '') return;
    const read = readCell(field, text, dayOrder, people);
    if ('problem' in read) problems.push({ column, message: read.problem });
    else if (read.value !== null) values[field.key] = read.value;
  });
  for (const field of fields.values())
    if (field.isNeeded && values[field.key] === undefined) {
      const column = columns.indexOf(field.key);
      if (!problems.some((problem) => problem.column === column && column !== -1))
        problems.push({ column: column === -1 ? null : column, message: `The ${field.name} is missing` });
    }
  return { values, problems };
}

const LAST_FIRST = /^([^,]*[^,\s])\s*,\s*([^,\s][^,]*)$/;

/** "Roe, Mara" with the first name first; any other name as it is. */
export const turnedName = (text: string): string => text.replace(LAST_FIRST, '$2 $1');

function readCell(
  field: BringField,
  text: string,
  dayOrder: DayOrder,
  people: ReadonlyMap<string, string | null>,
): Read<string | number | readonly string[] | null> {
  switch (field.value) {
    case 'date':
      return readFileDate(text, dayOrder);
    case 'moment':
      return readFileMoment(text, dayOrder);
    case 'time': {
      const time = readTimeOfDay(text.replace(/^(\d{1,2}:\d{2}):\d{2}$/, '$1'));
      return time === null ? { problem: `“${text}” is no time of day` } : { value: time };
    }
    case 'duration': {
      const minutes = readDuration(text);
      return minutes === null || minutes < 1
        ? { problem: `“${text}” is no length of time: write it like 45 or 1 h 30` }
        : { value: minutes };
    }
    case 'number':
      return readFileNumber(text);
    case 'email':
      return MAIL.test(text) && text.length <= field.most
        ? { value: text }
        : { problem: `“${text}” is no mail address` };
    case 'person': {
      const person = people.get(nameKey(text));
      return person === undefined
        ? { problem: `“${text}” is one of too many names to be told apart: leave the column out, or shorten the list` }
        : { value: person };
    }
    case 'choice': {
      const chosen = field.choices.find((choice) => choice.toLowerCase() === text.toLowerCase());
      return chosen === undefined ? { problem: `“${text}” is none of ${field.choices.join(', ')}` } : { value: chosen };
    }
    case 'names': {
      const names = [
        ...new Set(
          text
            .split(/[,;/|\n]/)
            .map((name) => name.trim())
            .filter(Boolean),
        ),
      ];
      if (names.length > MOST_NAMES) return { problem: `${names.length} ${field.name}: ${MOST_NAMES} at most` };
      const long = names.find((name) => name.length > field.most);
      return long === undefined ? { value: names } : { problem: `“${long}” is longer than ${field.most} characters` };
    }
    case 'text':
      return text.length <= field.most
        ? { value: text }
        : { problem: `The ${field.name} has ${text.length} characters, ${field.most} at most` };
  }
}
