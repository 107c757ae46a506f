import type { Response } from 'express';
import Papa from 'papaparse';
import type { RowsForm } from '../../../contract/index.ts';
import { defused } from '../../../core/index.ts';
import { sendPieces } from './pieces-out.ts';

type Rows = readonly (readonly string[])[];

/** How rows stand in a file: what it begins and ends with, and a page of them. */
interface Writer {
  readonly type: string;
  readonly begin: string;
  readonly page: (rows: Rows) => string;
  readonly end: string;
}

/** Lines as RFC 4180 has them, in which nothing is reckoned as a formula. The mark at their beginning has spreadsheets read them as UTF-8. */
const csvWriter = (): Writer => ({
  ...{ type: 'text/csv; charset=utf-8', begin: '\uFEFF', end: '' },
  page: (rows) =>
    rows.length === 0
      ? ''
      : `${Papa.unparse(
          rows.map((cells) => cells.map(defused)),
          { newline: '\r\n' },
        )}\r\n`,
});

/** An array of objects, a line each, by the names that the first row says; what is empty is null. */
function jsonWriter(): Writer {
  let names: readonly string[] | null = null;
  let isFirst = true;
  const objectOf = (cells: readonly string[]): string =>
    JSON.stringify(Object.fromEntries((names ?? []).map((name, i) => [name, cells[i] || null])));
  return {
    ...{ type: 'application/json; charset=utf-8', begin: '[', end: '\n]\n' },
    page: (rows) => {
      const [head = [], ...rest] = names === null ? rows : [[], ...rows];
      names ??= head;
      const lines = rest.map((cells, i) => `${isFirst && i === 0 ? '' : ','}\n${objectOf(cells)}`);
      if (lines.length > 0) isFirst = false;
      return lines.join('');
    },
  };
}

const WRITERS: Readonly<Record<RowsForm, () => Writer>> = { csv: csvWriter, json: jsonWriter };

/**
 * Sends rows as a file, a page at a time and no faster than they are taken: however many there are, a page is in memory.
 * @param pages the names of the columns come first
 */
export async function sendRows(
  response: Response,
  name: string,
  pages: AsyncIterable<Rows>,
  form: RowsForm,
): Promise<void> {
  const { type, begin, page: written, end } = WRITERS[form]();
  response.set({
    'Content-Type': type,
    'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(`${name}.${form}`)}`,
    'Cache-Control': 'no-store',
  });
  await sendPieces(response, piecesOf(begin, pages, written, end));
}

async function* piecesOf(begin: string, pages: AsyncIterable<Rows>, written: Writer['page'], end: string) {
  yield begin;
  for await (const page of pages) yield written(page);
  yield end;
}
