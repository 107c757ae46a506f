import { createRequire } from 'node:module';
import type { Response } from 'express';
import PDFDocument from 'pdfkit';

/** What all papers have in common: their letters, how they are sent. Lengths are points, 72 to the inch (PDF 32000-1, 8.3.2.3). */
export const POINTS_A_MM = 72 / 25.4;

const require = createRequire(import.meta.url);
const fontFile = (name: string) => require.resolve(`dejavu-fonts-ttf/ttf/${name}.ttf`);
/** Letters that have every sign that a name may hold. */
const FONTS = { plain: 'DejaVuSansCondensed', bold: 'DejaVuSansCondensed-Bold', mono: 'DejaVuSansMono' } as const;
export type Font = keyof typeof FONTS;

export type Paper = PDFKit.PDFDocument;

/** A new paper of A4. */
export function newPaper(
  options: PDFKit.PDFDocumentOptions & { readonly info: { Title: string; Author: string } },
): Paper {
  const paper = new PDFDocument({ size: 'A4', ...options });
  for (const [name, file] of Object.entries(FONTS)) paper.registerFont(name, fontFile(file));
  return paper;
}

/** The bytes of a paper, which is ended by that. */
export async function bytesOf(paper: Paper): Promise<Buffer> {
  paper.end();
  const parts: Buffer[] = [];
  for await (const part of paper) parts.push(part as Buffer);
  return Buffer.concat(parts);
}

/** Sends a paper as it is ended. */
export function sendPaper(response: Response, paper: Paper, fileName: string): void {
  response.set({
    'Content-Type': 'application/pdf',
    'Content-Disposition': `inline; filename*=UTF-8''${encodeURIComponent(fileName)}`,
    'Cache-Control': 'no-store',
  });
  paper.pipe(response);
  paper.end();
}
