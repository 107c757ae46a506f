import type { Response } from 'express';
import Papa from 'papaparse';
import { defused } from '../../../core/index.ts';

/** The mark at the beginning has spreadsheets read it as UTF-8. */
export function startCsv(response: Response, fileName: string): void {
  response.set({
    'Content-Type': 'text/csv; charset=utf-8',
    'Content-Disposition': `attachment; filename*=UTF-8''${encodeURIComponent(fileName)}`,
    'Cache-Control': 'no-store',
  });
  response.write('\uFEFF');
}

/** Lines as RFC 4180 has them, in which nothing is reckoned as a formula. */
export function csvOf(rows: readonly (readonly string[])[]): string {
  if (rows.length === 0) return '';
  return `${Papa.unparse(
    rows.map((cells) => cells.map(defused)),
    { newline: '\r\n' },
  )}\r\n`;
}
