import { type CellContext, type CellName, type CellSchedule, readCell, writeCell } from './cells.ts';
import type { NamedPlan } from './plan-cell.ts';

/** One changed cell: what was typed, and what stood there before. */
export interface CellEdit {
  readonly text: string;
  readonly was: string;
}

/** Changed cells by the id of their schedule and their column; never written in place. */
export type SheetEdits = ReadonlyMap<string, ReadonlyMap<CellName, CellEdit>>;

export const NO_EDITS: SheetEdits = new Map();

export interface SheetRow extends CellSchedule {
  readonly id: string;
}

export interface CellPlace {
  readonly row: SheetRow;
  readonly column: CellName;
}

/** A text for each of some cells. What stands in a cell anyway is no change of it. */
export function putTexts(
  edits: SheetEdits,
  texts: readonly (CellPlace & { readonly text: string })[],
  context: CellContext,
): SheetEdits {
  const next = new Map(edits);
  for (const { row, column, text } of texts) {
    const cells = new Map(next.get(row.id));
    const was = cells.get(column)?.was ?? writeCell(column, row, context);
    const typed = text.trim().replace(/\s+/g, ' ');
    if (typed === writeCell(column, row, context)) cells.delete(column);
    else cells.set(column, { text: typed, was });
    if (cells.size === 0) next.delete(row.id);
    else next.set(row.id, cells);
  }
  return next;
}

/** Takes the changes of some cells away. */
export function putCellsBack(edits: SheetEdits, places: readonly CellPlace[], context: CellContext): SheetEdits {
  return putTexts(
    edits,
    places.map((place) => ({ ...place, text: writeCell(place.column, place.row, context) })),
    context,
  );
}

/** Without the changes that are so by now: somebody else has put the same there, or what was to follow from them has. */
export function withoutMet(edits: SheetEdits, rows: ReadonlyMap<string, SheetRow>, context: CellContext): SheetEdits {
  const next = new Map(edits);
  for (const [id, cells] of edits) {
    const row = rows.get(id);
    if (!row) continue;
    const open = [...cells].filter(([column, { text }]) => {
      const reading = readCell(column, text, row, context);
      return (
        reading.kind === 'unread' || writeCell(column, reading.schedule, context) !== writeCell(column, row, context)
      );
    });
    if (open.length === 0) next.delete(id);
    else if (open.length < cells.size) next.set(id, new Map(open));
  }
  return next;
}

/** Keeps what was typed although somebody else has changed those cells meanwhile. */
export function keepMine(edits: SheetEdits, rows: readonly SheetRow[], context: CellContext): SheetEdits {
  const next = new Map(edits);
  for (const row of rows) {
    const cells = next.get(row.id);
    if (!cells) continue;
    const kept = [...cells].map(
      ([column, { text }]) => [column, { text, was: writeCell(column, row, context) }] as const,
    );
    next.set(row.id, new Map(kept));
  }
  return next;
}

/** What stands in a cell, as changed or not. */
export interface SheetCell {
  readonly text: string;
  readonly isChanged: boolean;
  /** Why what was typed can't be read, and what may have been meant. */
  readonly problem: { readonly message: string; readonly offers: readonly string[] } | null;
  /** What somebody else has put there since it was changed here. */
  readonly meanwhile: string | null;
}

export interface EditedRow {
  /** The schedule with all that could be read. */
  readonly schedule: CellSchedule;
  readonly problems: ReadonlyMap<CellName, NonNullable<SheetCell['problem']>>;
  readonly meanwhile: ReadonlyMap<CellName, string>;
}

/** A row with its changes, each read on top of the ones before it. */
export function editedRow(row: SheetRow, edits: SheetEdits, context: CellContext): EditedRow {
  const problems = new Map<CellName, NonNullable<SheetCell['problem']>>();
  const meanwhile = new Map<CellName, string>();
  let schedule: CellSchedule = row;
  for (const [column, { text, was }] of edits.get(row.id) ?? []) {
    const reading = readCell(column, text, schedule, context);
    if (reading.kind === 'read') schedule = reading.schedule;
    else problems.set(column, reading);
    const now = writeCell(column, row, context);
    if (now !== was) meanwhile.set(column, now);
  }
  return { schedule, problems, meanwhile };
}

/** One cell of a row that was read with its changes. */
export function sheetCell(
  row: SheetRow,
  column: CellName,
  edits: SheetEdits,
  edited: EditedRow,
  context: CellContext,
): SheetCell {
  const edit = edits.get(row.id)?.get(column);
  const problem = edited.problems.get(column) ?? null;
  return {
    // What can be read is shown in its own words: "8" is 08:00.
    text: edit && problem ? edit.text : writeCell(column, edited.schedule, context),
    isChanged: edit !== undefined,
    problem,
    meanwhile: edited.meanwhile.get(column) ?? null,
  };
}

/** The plans that a changed row puts its client on. */
export function plansJoined(row: SheetRow, schedule: CellSchedule): readonly NamedPlan[] {
  return (schedule.plans ?? []).filter(({ id }) => !(row.plans ?? []).some((one) => one.id === id));
}

/** The fields of a schedule that its changed cells make different; null where they make none. */
export function changedFields(row: SheetRow, schedule: CellSchedule): Partial<CellSchedule> | null {
  const fields = ['assignment', 'recurrence', 'timing', 'pauses', 'exceptions', 'revisions'] as const;
  const changed = fields.filter((field) => JSON.stringify(row[field]) !== JSON.stringify(schedule[field]));
  return changed.length === 0 ? null : Object.fromEntries(changed.map((field) => [field, schedule[field]]));
}

/**
 * Texts of a clipboard put into cells from one on: a single text fills all chosen cells, a block goes down and to the right,
 * repeated where the chosen cells are a multiple of it.
 * @param chosen columns by rows, as chosen on the sheet
 * @param beyond more cells below and to the right, which a block may reach
 */
export function pastedInto<P>(
  block: readonly (readonly string[])[],
  chosen: readonly (readonly P[])[],
  beyond: readonly (readonly P[])[],
): { readonly place: P; readonly text: string }[] {
  const height = block.length;
  const width = Math.max(...block.map((line) => line.length), 0);
  if (height === 0 || width === 0) return [];
  const chosenWidth = chosen[0]?.length ?? 0;
  const repeats = chosen.length % height === 0 && chosenWidth % width === 0;
  const target = repeats ? chosen : beyond.slice(0, height).map((line) => line.slice(0, width));
  return target.flatMap((line, y) =>
    line.flatMap((place, x) => {
      const text = block[y % height]?.[x % width];
      return text === undefined ? [] : [{ place, text }];
    }),
  );
}

/** Cells as a spreadsheet takes them: tabs between, a line for each row, quoted where a text needs it. */
export function writeTabs(block: readonly (readonly string[])[]): string {
  const quoted = (text: string) => (/[\t\n\r"]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text);
  return block.map((line) => line.map(quoted).join('\t')).join('\n');
}

/** Cells as a spreadsheet gives them. */
export function readTabs(text: string): string[][] {
  const lines: string[][] = [[]];
  const cell = /(?:"((?:[^"]|"")*)"|([^\t\r\n]*))(\t|\r\n|\n|\r|$)/y;
  while (cell.lastIndex <= text.length) {
    const match = cell.exec(text);
    // A quote in the middle of a text is only a quote.
    if (!match) break;
    lines.at(-1)?.push(match[1]?.replaceAll('""', '"') ?? match[2] ?? '');
    if (match[3] === '') break;
    if (match[3] !== '\t') {
      if (cell.lastIndex >= text.length) break;
      lines.push([]);
    }
  }
  return lines;
}

/** A text with every place of some words replaced, whatever their case; null where they don't stand in it. */
export function replaceWords(text: string, find: string, replacement: string): string | null {
  if (find === '') return null;
  const at = new RegExp(find.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'), 'gi');
  return at.test(text) ? text.replace(at, () => replacement) : null;
}
