import type { Response } from 'express';
import Papa from 'papaparse';
import { defused } from '../../../core/index.ts';

/** Sends lines as a CSV file, a page at a time and no faster than they are taken. The mark at its beginning has spreadsheets read it as UTF-8. */
export async function sendCsv(
  response: Response,
  fileName: string,
  pages: AsyncIterable<readonly (readonly string[])[]>,
): Promise<void> {
  response.set({
    'Content-Type': 'text/csv; charset=utf-8',
    'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(fileName)}`,
    'Cache-Control': 'no-store',
  });
  response.write('\uFEFF');
  for await (const page of pages) {
    const isFull = !response.write(csvOf(page));
    if (isFull && !response.closed)
      await new Promise((resolve) => {
        response.once('drain', resolve).once('close', resolve);
      });
    if (response.closed) return;
  }
  response.end();
}

/** Lines as RFC 4180 has them, in which nothing is reckoned as a formula. */
function csvOf(rows: readonly (readonly string[])[]): string {
  if (rows.length === 0) return '';
  return `${Papa.unparse(
    rows.map((cells) => cells.map(defused)),
    { newline: '\r\n' },
  )}\r\n`;
}
